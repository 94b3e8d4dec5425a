import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { floorAnswer } from '@contract/floor.ts'
import { getJson } from '@web/api/client.ts'

const EVERY_MS = 60_000
/** Where feeders send, an arc is on or off now, not a minute ago. */
const LIVE_MS = 5_000

/** Clocks run on, so Floor asks again every minute even when nothing was logged. */
const asked = (params: Record<string, string | null>) =>
  new URLSearchParams(Object.entries(params).filter((p): p is [string, string] => p[1] !== null)).toString()

export const floorAddress = (areaId: string | null, column: string | null) => `/floor?${asked({ areaId, column })}`
export const useFloor = (areaId: string | null, column: string | null) =>
  useQuery({
    queryKey: ['floor', areaId, column],
    queryFn: () => getJson(floorAddress(areaId, column), floorAnswer),
    refetchInterval: (query) => (query.state.data?.guns.some((g) => g.isArcOn !== null) ? LIVE_MS : EVERY_MS),
    placeholderData: keepPreviousData,
  })
