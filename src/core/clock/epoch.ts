import { type UsageEntry } from './headclock.ts'
import { type UsageSource } from './source.ts'

/** A counter as it stood on the equipment. */
export interface CounterReading {
  atMs: number
  kg: number | null
  arcHours: number | null
  starts: number | null
}

/**
 * Cumulative readings as usage between them. A counter that reads less than before has started again (head swapped,
 * board reset): a new epoch, from which nothing is known about the stretch between; usage is never negative.
 * Readings at one instant count once, the later in the list.
 */
export function readingsToUsage(
  readings: readonly CounterReading[],
  source: UsageSource,
  loggedMs: number,
): UsageEntry[] {
  const sorted = [...readings].sort((a, b) => a.atMs - b.atMs)
  const distinct = sorted.filter((reading, i) => sorted[i + 1]?.atMs !== reading.atMs)
  return distinct.slice(1).map((reading, i) => {
    const before = distinct[i] as CounterReading
    return {
      fromMs: before.atMs,
      toMs: reading.atMs,
      source,
      loggedMs,
      kg: step(before.kg, reading.kg),
      arcHours: step(before.arcHours, reading.arcHours),
      starts: step(before.starts, reading.starts),
    }
  })
}

function step(before: number | null, after: number | null): number | null {
  if (before === null || after === null || after < before) return null
  return after - before
}
