import { useMutation, useQuery } from '@tanstack/react-query'
import { type z } from 'zod'
import {
  changeAnswer,
  changedAnswer,
  dayAnswer,
  dedicateAnswer,
  type changeRequest,
  type dayRequest,
} from '@contract/changeover.ts'
import { countWord, guns } from '@web/format/words.ts'
import { getJson, postJson } from '@web/api/client.ts'
import { useBoothWrite } from '@web/offline/write.ts'

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
export const useLogChange = () =>
  useBoothWrite<typeof changeRequest, typeof changedAnswer>({
    ...{ path: '/changeover', answer: changedAnswer, holds: 'change' },
    says: ({ stationIds }) => `Wire changed on ${countWord(stationIds.length)} ${guns(stationIds.length)}`,
  })
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
