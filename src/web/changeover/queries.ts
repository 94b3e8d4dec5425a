import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { type z } from 'zod'
import {
  changeAnswer,
  changedAnswer,
  dayAnswer,
  dedicateAnswer,
  type changeRequest,
  type dayRequest,
} from '@contract/changeover.ts'
import { done } from '@contract/common.ts'
import { sparesAnswer, type statusRequest, type swapRequest, type gunRequest } from '@contract/spareguns.ts'
import { getJson, postJson } from '@web/api/client.ts'
import { useWrite, type Body } from '@web/api/write.ts'

export interface ChangeAsked {
  stationIds: readonly string[]
  wireId: string
  procedureId: string | null
  isScrapped: boolean | null
}
export const useChange = (q: ChangeAsked) =>
  useQuery({
    queryKey: ['change', q],
    queryFn: () => {
      const params = new URLSearchParams({ stationIds: q.stationIds.join(','), wireId: q.wireId })
      if (q.procedureId) params.set('procedureId', q.procedureId)
      if (q.isScrapped !== null) params.set('isScrapped', q.isScrapped ? 'yes' : 'no')
      return getJson(`/changeover?${params.toString()}`, changeAnswer)
    },
    enabled: q.wireId !== '' && q.stationIds.length > 0,
    // The plan is walked through with hands on the gun: it must not change under them.
    staleTime: Infinity,
    refetchOnWindowFocus: false,
  })

/** The key is the caller's: the same change sent again is the same change. */
export function useLogChange() {
  const client = useQueryClient()
  return useMutation({
    mutationFn: (body: z.input<typeof changeRequest>) => postJson('/changeover', body, changedAnswer),
    retry: (count, problem) => count < 3 && 'code' in problem && problem.code === 'no-link',
    onSuccess: () => client.invalidateQueries({ predicate: (query) => query.queryKey[0] !== 'change' }),
  })
}
export const useDay = () =>
  useMutation({ mutationFn: (body: z.input<typeof dayRequest>) => postJson('/changeover/day', body, dayAnswer) })
export const useDedicate = (q: { stationId: string; gunMinor: number; gunYears: number } | null) =>
  useQuery({
    queryKey: ['dedicate', q],
    queryFn: () =>
      getJson(
        `/changeover/dedicate?stationId=${q?.stationId ?? ''}&gunMinor=${q?.gunMinor ?? 0}&gunYears=${q?.gunYears ?? 1}`,
        dedicateAnswer,
      ),
    enabled: q !== null,
  })
export const useSpares = (stationId: string | null) =>
  useQuery({
    queryKey: ['spares', stationId],
    queryFn: () => getJson(`/gun/spares${stationId ? `?stationId=${stationId}` : ''}`, sparesAnswer),
  })

export const useSwap = () => useWrite<Body<typeof swapRequest>, typeof done>('/gun/swap', done)
export const useMakeGun = () => useWrite<Body<typeof gunRequest>, typeof done>('/gun/spare', done)
export const useGunStatus = () => useWrite<Body<typeof statusRequest>, typeof done>('/gun/status', done)
