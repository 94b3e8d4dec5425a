import { useQuery } from '@tanstack/react-query'
import { helpAnswer, paybackAnswer, stopsAnswer } from '@contract/payback.ts'
import { getJson } from '@web/api/client.ts'

const asked = (of: Record<string, string | number>) =>
  new URLSearchParams(Object.entries(of).flatMap(([key, value]) => (value === '' ? [] : [[key, String(value)]])))

export const usePayback = (days: number, areaId: string) =>
  useQuery({
    queryKey: ['payback', days, areaId],
    queryFn: () => getJson(`/payback?${asked({ days, areaId }).toString()}`, paybackAnswer),
    placeholderData: (last) => last,
  })

/** Each stop, asked for once somebody wants to see them. */
export const useStops = (of: { days: number; areaId: string }, isWanted: boolean) =>
  useQuery({
    queryKey: ['stops', of],
    queryFn: () => getJson(`/payback/stops?${asked(of).toString()}`, stopsAnswer),
    enabled: isWanted,
  })

export interface HelpAsked {
  atMs: number
  areaId: string
  stationId: string
  classKey: string
  column: string
}
export const useHelped = (of: HelpAsked | null) =>
  useQuery({
    queryKey: ['helped', of],
    queryFn: () => getJson(`/payback/helped?${asked({ ...of }).toString()}`, helpAnswer),
    enabled: of !== null,
    retry: false,
  })
