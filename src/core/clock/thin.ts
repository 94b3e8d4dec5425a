import { MIN_MS } from '@core/units/time.ts'

/** A row as far as thinning goes. */
export interface ThinRow {
  bootId: string
  seq: number
  atMs: number
}
/** Moments around which every row stays: a stop with the minute before it. */
export interface Kept {
  fromMs: number
  toMs: number
}

/** What is kept whole of a stop, and shown of it. */
export const BEFORE_STOP_MS = MIN_MS
export const AFTER_STOP_MS = 10_000
/** One row in so many ms is enough for what is past. */
export const THIN_MS = 10_000

/**
 * Which of some rows of one feeder, in order, may go: all but the first of each ten seconds, the last of each boot, and those around a stop. Counters only
 * grow, so what is used between two that stay is the same as before.
 */
export function thinOf<R extends ThinRow>(rows: readonly R[], kept: readonly Kept[]): R[] {
  let bucket = ''
  return rows.filter((row, i) => {
    const own = `${row.bootId} ${Math.floor(row.atMs / THIN_MS)}`
    const isFirst = own !== bucket
    bucket = own
    const next = rows[i + 1]
    const isLast = next === undefined || next.bootId !== row.bootId
    const isNear = kept.some((k) => row.atMs >= k.fromMs && row.atMs <= k.toMs)
    return !isFirst && !isLast && !isNear
  })
}
