import { useQuery } from '@tanstack/react-query'
import { type WalkKey } from '@core/walk/looks.ts'
import { walkAnswer } from '@contract/walk.ts'
import { getJson } from '@web/api/client.ts'

export interface WalkAsk {
  minutes: number
  walk: WalkKey
  areaId: string
  from: string
  people: number
}
export const DEFAULT_WALK: WalkAsk = { minutes: 25, walk: 'due', areaId: '', from: '', people: 1 }
/** The same walk is the same address, so that a device without a link finds it again. */
export function walkAddress({ minutes, walk, areaId, from, people }: WalkAsk): string {
  const params = new URLSearchParams({ minutes: String(minutes), walk, people: String(people) })
  if (areaId) params.set('areaId', areaId)
  if (from) params.set('from', from)
  return `/walk?${params}`
}
export const useWalk = (ask: WalkAsk) =>
  useQuery({ queryKey: ['walk', walkAddress(ask)], queryFn: () => getJson(walkAddress(ask), walkAnswer) })
