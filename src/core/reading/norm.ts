import { median } from '@core/trend/theilsen.ts'

/** Where the knob stands on other guns of one feeder type with one wire, read in one way. */
export interface KnobNorm {
  low: number
  high: number
  /** Guns it is made of. */
  n: number
}
/** Fewer guns are no norm. */
const LEAST_GUNS = 4
/** A knob is read no finer than this, in marks, however alike they stand. */
const LEAST_SD = 0.2
/** MAD to standard deviation of a normal spread. */
const MAD_TO_SD = 1.4826
/** Farther from the middle than so many standard deviations it stands apart. */
const APART_SDS = 2.5

/**
 * The shop's own norm of the knob (P071): median ± 2.5 · 1.4826 · MAD of the others, so that one that stands apart does not make it. Marks, of four
 * guns at least; null: too few.
 * @example knobNorm([2.4, 2.5, 2.6, 2.5, 4.5]) // { low: 2, high: 3, n: 5 }
 */
export function knobNorm(marks: readonly number[]): KnobNorm | null {
  if (marks.length < LEAST_GUNS) return null
  const middle = median(marks)
  const sd = Math.max(LEAST_SD, MAD_TO_SD * median(marks.map((m) => Math.abs(m - middle))))
  return { low: middle - APART_SDS * sd, high: middle + APART_SDS * sd, n: marks.length }
}
