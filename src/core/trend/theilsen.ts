import { Z_95 } from '@core/stats/normal.ts'

/** Rises to the median; of an even count the mean of the two in the middle. */
export function median(list: readonly number[]): number {
  if (list.length === 0) throw new RangeError('median: expected values, got none')
  const sorted = [...list].sort((a, b) => a - b)
  const middle = sorted.length >> 1
  const upper = sorted[middle] ?? NaN
  return sorted.length % 2 === 1 ? upper : ((sorted[middle - 1] ?? NaN) + upper) / 2
}

export interface RobustLine {
  slope: number
  intercept: number
  /** median(y − slope·x). */
  interceptJoint: number
  slopeLow: number
  slopeHigh: number
  pairs: number
}

/** Sizes of groups of equal values. */
export function tieGroups(list: readonly number[]): number[] {
  const counts = new Map<number, number>()
  for (const v of list) counts.set(v, (counts.get(v) ?? 0) + 1)
  return [...counts.values()].filter((n) => n > 1)
}

/**
 * Theil–Sen line: slope = median of (y_j − y_i)/(x_j − x_i) over pairs with different x, intercept = median(y) − slope·median(x); 95 %
 * interval from the sorted slopes at ranks (N ± z·σ)/2, σ² = [n(n − 1)(2n + 5) − Σ k(k − 1)(2k + 5)]/18 over ties in x and in y (Sen
 * 1968). Up to 29 % of wild values leave it. Null where all x are the same. Theil 1950; Sen 1968.
 * @example theilSen([0, 1, 2, 3], [1.1, 1.0, 1.4, 1.9])?.slope // 0.333
 */
export function theilSen(x: readonly number[], y: readonly number[]): RobustLine | null {
  if (x.length !== y.length || x.length < 2 || [...x, ...y].some((v) => !Number.isFinite(v)))
    throw new RangeError(`theilSen: expected as many x as y, at least two, got ${x.length} and ${y.length}`)
  const slopes = pairSlopes(x, y).sort((a, b) => a - b)
  if (slopes.length === 0) return null
  const slope = median(slopes)
  const intercept = median(y) - slope * median(x)
  const interceptJoint = median(y.map((v, i) => v - slope * (x[i] ?? 0)))
  const n = x.length
  const ties = [...tieGroups(x), ...tieGroups(y)].reduce((s, k) => s + k * (k - 1) * (2 * k + 5), 0)
  const sigma = Math.sqrt(Math.max(0, (n * (n - 1) * (2 * n + 5) - ties) / 18))
  const count = slopes.length
  const low = Math.max(Math.round((count - Z_95 * sigma) / 2) - 1, 0)
  const high = Math.min(Math.round((count + Z_95 * sigma) / 2), count - 1)
  return {
    slope,
    intercept,
    interceptJoint,
    slopeLow: slopes[low] ?? slope,
    slopeHigh: slopes[high] ?? slope,
    pairs: count,
  }
}

function pairSlopes(x: readonly number[], y: readonly number[]): number[] {
  const slopes: number[] = []
  for (let i = 0; i < x.length; i++)
    for (let j = i + 1; j < x.length; j++) {
      const run = (x[j] ?? 0) - (x[i] ?? 0)
      if (run !== 0) slopes.push(((y[j] ?? 0) - (y[i] ?? 0)) / run)
    }
  return slopes
}
