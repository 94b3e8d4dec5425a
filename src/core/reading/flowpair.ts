import { HOUR_MS } from '@core/units/time.ts'
import { standsAt, type KeptReading } from './alarms.ts'
import { READING } from './specs.ts'

/** Gas flow at the beginning and at the end of one stretch of work. */
export interface FlowPair {
  startMs: number
  endMs: number
  startLPerMin: number
  endLPerMin: number
  is: 'held' | 'fell' | 'rose'
}
/** A stretch of work: no shorter than this, no longer than a long shift. */
const LEAST_MS = HOUR_MS
const MOST_MS = 14 * HOUR_MS
/** Two readings differ by chance by no more than so many standard deviations of their difference. */
const SDS = 2

/**
 * The last flow that was read, as found, against the first of the same method within the fourteen hours before it, as left there: a
 * cylinder that runs low, a leak, or a meter somebody turned shows between the two (P082). Null: fewer than two, or an hour apart at most.
 */
export function flowPair(readings: readonly KeptReading[]): FlowPair | null {
  const flows = readings.filter((r) => r.what === 'gasFlow' && standsAt(r) !== null)
  const last = flows.at(-1)
  if (!last || last.value === null) return null
  const first = flows.find((r) => r.method === last.method && last.atMs - r.atMs <= MOST_MS)
  const start = first ? standsAt(first) : null
  if (!first || start === null || last.atMs - first.atMs < LEAST_MS) return null
  const by = last.value - start
  const chance = SDS * Math.SQRT2 * READING.gasFlow.sd
  return {
    startMs: first.atMs,
    endMs: last.atMs,
    startLPerMin: start,
    endLPerMin: last.value,
    is: Math.abs(by) <= chance ? 'held' : by < 0 ? 'fell' : 'rose',
  }
}
