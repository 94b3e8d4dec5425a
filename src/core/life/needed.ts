import { Z_95 } from '@core/stats/normal.ts'

/** 80 % point of the standard normal. */
const Z_POWER = 0.8416212335729143

/**
 * Worn-out parts of both kinds together that an answer needs, when one lasts `ratio` times as long as the other, both of Weibull shape k: the
 * hazards differ by ratio^−k, D = (z₀.₉₇₅ + z₀.₈)² / (p(1 − p)(k ln ratio)²), p the share of one kind. 5 % two-sided, 80 % power.
 * ratio > 0 and not 1; shape > 0; 0 < p < 1; else misuse throws. Source: Schoenfeld 1981.
 * @example endsNeeded(1.5, 2.5) // 31
 */
export function endsNeeded(ratio: number, shape: number, share = 0.5): number {
  if (!(ratio > 0) || ratio === 1 || !(shape > 0) || !(share > 0 && share < 1))
    throw new RangeError(`endsNeeded: expected a ratio > 0 other than 1, got ${ratio}, ${shape}, ${share}`)
  return Math.ceil((Z_95 + Z_POWER) ** 2 / (share * (1 - share) * (shape * Math.log(ratio)) ** 2))
}

/** Before all needed ends are in, only what could hardly be luck stops a try-out. Source: Haybittle 1971; Peto et al. 1976. */
export const EARLY_P = 0.001
export const FINAL_P = 0.05
/** Is a try-out answered? */
export function isAnswered(ends: number, needed: number, p: number): 'early' | 'yes' | 'noDifference' | 'notYet' {
  if (ends < needed) return ends >= LEAST_ENDS && p < EARLY_P ? 'early' : 'notYet'
  return p < FINAL_P ? 'yes' : 'noDifference'
}
const LEAST_ENDS = 8
