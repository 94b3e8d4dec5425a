import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { type z } from 'zod'
import { usageAnswer, type usageRequest } from '@contract/clock.ts'
import { gunAnswer } from '@contract/gun.ts'
import { getJson, postJson } from '@web/api/client.ts'

export const useGun = (stationId: string) =>
  useQuery({
    queryKey: ['gun', stationId],
    queryFn: () => getJson(`/gun/${stationId}`, gunAnswer),
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
