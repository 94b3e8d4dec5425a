import { MIN_MS } from '@core/units/time.ts'
import { type CausePlace } from '@core/path/columns.ts'
import { type TurnedOut } from './technique.ts'

/** A booth that stood, and what was looked at for a bad bead: both are somebody who called. */
export interface CallsOf {
  stops: readonly { boothId: string; fromMs: number; toMs: number | null; place: CausePlace | null }[]
  told: readonly { boothId: string | null; atMs: number; was: TurnedOut }[]
}
export interface Calls {
  n: number
  /** Where it began, the most first. */
  places: { place: CausePlace; n: number }[]
  /** Looked at for a bead: the machine it was, and nobody said what of it. */
  machine: number
  /** The equipment was well: the hand, the joint, the metal. */
  notMachine: number
  /** It stood, and nobody said where. */
  untold: number
}
/** A bead looked at and the stop it led to are one call. */
const SAME_MS = 30 * MIN_MS

/**
 * Calls of some booths (P131, P180): each stop is one, and each bead that was looked at, unless it led to a stop at the same booth within half an hour. A
 * count over all booths; of nobody.
 * @example callsOf({ stops: [], told: [{ boothId: 'a', atMs: 0, was: 'distance' }] }) // n 1, notMachine 1
 */
export function callsOf({ stops, told }: CallsOf): Calls {
  const isOfStop = (t: CallsOf['told'][number]) =>
    t.was === 'equipment' &&
    stops.some(
      (s) => s.boothId === t.boothId && t.atMs >= s.fromMs - SAME_MS && t.atMs <= (s.toMs ?? Infinity) + SAME_MS,
    )
  const beads = told.filter((t) => !isOfStop(t))
  const counts = new Map<CausePlace, number>()
  for (const { place } of stops) if (place) counts.set(place, (counts.get(place) ?? 0) + 1)
  return {
    n: stops.length + beads.length,
    places: [...counts].map(([place, n]) => ({ place, n })).sort((a, b) => b.n - a.n),
    machine: beads.filter((t) => t.was === 'equipment').length,
    notMachine: beads.filter((t) => t.was !== 'equipment').length,
    untold: stops.filter((s) => s.place === null).length,
  }
}
