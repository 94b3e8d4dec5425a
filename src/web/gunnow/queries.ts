import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { type z } from 'zod'
import { usageAnswer, type usageRequest } from '@contract/clock.ts'
import { done } from '@contract/common.ts'
import { gunAnswer } from '@contract/gun.ts'
import { type gunRequest, sparesAnswer, type statusRequest, type swapRequest } from '@contract/spareguns.ts'
import { useBoothWrite, useWrite, type Body } from '@web/offline/write.ts'
import { getJson, postJson } from '@web/api/client.ts'

export const useGun = (stationId: string) =>
  useQuery({
    queryKey: ['gun', stationId],
    queryFn: () => getJson(`/gun/${stationId}`, gunAnswer),
    enabled: stationId !== '',
    refetchInterval: 60_000,
  })

export function useEnterUsage() {
  const client = useQueryClient()
  return useMutation({
    mutationFn: (r: z.input<typeof usageRequest>) => postJson('/clock/usage', r, usageAnswer),
    onSuccess: () =>
      Promise.all(['gun', 'floor', 'logbook'].map((key) => client.invalidateQueries({ queryKey: [key] }))),
  })
}

export const useSpares = (stationId: string | null) =>
  useQuery({
    queryKey: ['spares', stationId],
    queryFn: () => getJson(`/gun/spares${stationId ? `?stationId=${stationId}` : ''}`, sparesAnswer),
  })

export const useSwap = () =>
  useBoothWrite<typeof swapRequest, typeof done>({
    path: '/gun/swap',
    answer: done,
    says: () => 'Another gun put on a feeder',
  })
export const useMakeGun = () => useWrite<Body<typeof gunRequest>, typeof done>('/gun/spare', done)
export const useGunStatus = () => useWrite<Body<typeof statusRequest>, typeof done>('/gun/status', done)
