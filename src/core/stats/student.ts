import { betaCdf, quantileOf } from './beta.ts'

/**
 * Student's t: P(T ≤ t) with ν degrees of freedom, by the incomplete beta function: 1 − ½·I_{ν/(ν + t²)}(ν/2, ½) for t ≥ 0.
 * Abramowitz & Stegun 26.7.1.
 */
export function studentCdf(t: number, freedom: number): number {
  if (!(freedom > 0)) throw new RangeError(`studentCdf: expected degrees of freedom > 0, got ${freedom}`)
  const tail = betaCdf(freedom / (freedom + t ** 2), freedom / 2, 0.5) / 2
  return t >= 0 ? 1 - tail : tail
}

/** Quantile of Student's t for ½ < p < 1, by halving. @example studentQuantile(0.975, 4) // 2.776 */
export function studentQuantile(p: number, freedom: number): number {
  if (!(p > 0.5 && p < 1)) throw new RangeError(`studentQuantile: expected p in (0.5, 1), got ${p}`)
  // x = ν/(ν + t²) falls with t and lies between 0 and 1.
  const x = quantileOf((u) => betaCdf(u, freedom / 2, 0.5), 2 * (1 - p))
  return Math.sqrt(freedom * (1 / x - 1))
}
