import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { floorAnswer } from '@contract/floor.ts'
import { getJson } from '@web/api/client.ts'

const EVERY_MS = 60_000

/** Clocks run on, so Floor asks again every minute even when nothing was logged. */
export const useFloor = (areaId: string | null) =>
  useQuery({ queryKey: ['floor', areaId], queryFn: () => getJson(`/floor${areaId ? `?areaId=${areaId}` : ''}`, floorAnswer), refetchInterval: EVERY_MS, placeholderData: keepPreviousData })
