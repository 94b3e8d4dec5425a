import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { floorAnswer, floorMoved, type FloorAnswer } from '@contract/floor.ts'
import { getJson } from '@web/api/client.ts'
import { afterMove } from './moved.ts'

const EVERY_MS = 60_000
/** Where feeders send, an arc is on or off now, not a minute ago. */
const LIVE_MS = 5_000
/** So often the whole floor is asked for all the same: what a device holds without a link is what it was told whole. */
const WHOLE_MS = 120_000

/** Clocks run on, so Floor asks again every minute even when nothing was logged. */
const asked = (params: Record<string, string | null>) =>
  new URLSearchParams(Object.entries(params).filter((p): p is [string, string] => p[1] !== null)).toString()

export const floorAddress = (areaId: string | null, column: string | null) => `/floor?${asked({ areaId, column })}`
const movedAddress = (areaId: string | null, column: string | null, since: string) =>
  `/moved/floor?${asked({ areaId, column, since })}`

/** When each floor was told whole last, and whether the worker that keeps it for without a link was there to hear it. */
const told = new Map<string, { atMs: number; isHeld: boolean }>()
const hasWorker = () => Boolean(navigator.serviceWorker?.controller)

/** What of a floor is another since this page has it; all of it at first, now and then, and where that cannot be had. */
export async function floorNow(areaId: string | null, column: string | null, before: FloorAnswer | undefined) {
  const address = floorAddress(areaId, column)
  const last = told.get(address)
  const isFresh = last !== undefined && Date.now() - last.atMs < WHOLE_MS && last.isHeld === hasWorker()
  if (before?.stamp && isFresh) {
    const moved = await getJson(movedAddress(areaId, column, before.stamp), floorMoved).catch(() => null)
    if (moved) return afterMove(before, moved)
  }
  const whole = await getJson(address, floorAnswer)
  told.set(address, { atMs: Date.now(), isHeld: hasWorker() })
  return whole
}

export const useFloor = (areaId: string | null, column: string | null) =>
  useQuery({
    queryKey: ['floor', areaId, column],
    queryFn: ({ client, queryKey }) => floorNow(areaId, column, client.getQueryData<FloorAnswer>(queryKey)),
    refetchInterval: (query) => (query.state.data?.guns.some((g) => g.isArcOn !== null) ? LIVE_MS : EVERY_MS),
    placeholderData: keepPreviousData,
  })
