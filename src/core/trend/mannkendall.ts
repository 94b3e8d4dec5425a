import { normalTail } from '@core/stats/normal.ts'
import { tieGroups } from './theilsen.ts'

export interface MannKendall {
  S: number
  varS: number
  z: number
  /** Two-sided, normal with continuity correction. */
  p: number
  /** Two-sided, exact; null with ties or from 50 values up. */
  pExact: number | null
}
const EXACT_BELOW = 50

/**
 * Is there a trend in the order given: S = Σ sign(y_j − y_i), i < j; var = [n(n − 1)(2n + 5) − Σ t(t − 1)(2t + 5)]/18;
 * z = (S − sign S)/√var. A constant series: z 0, p 1. Exact without ties below 50 values. Mann 1945; Kendall 1975.
 */
export function mannKendall(y: readonly number[]): MannKendall {
  const n = y.length
  if (n < 2 || y.some((v) => !Number.isFinite(v)))
    throw new RangeError(`mannKendall: expected at least two finite values, got ${n}`)
  let S = 0
  for (let i = 0; i < n; i++) for (let j = i + 1; j < n; j++) S += Math.sign((y[j] ?? 0) - (y[i] ?? 0))
  const ties = tieGroups(y)
  const varS = (n * (n - 1) * (2 * n + 5) - ties.reduce((s, t) => s + t * (t - 1) * (2 * t + 5), 0)) / 18
  const z = varS > 0 ? (S - Math.sign(S)) / Math.sqrt(varS) : 0
  const p = Math.min(1, 2 * normalTail(Math.abs(z)))
  return { S, varS, z, p, pExact: ties.length === 0 && n < EXACT_BELOW ? exactP(S, n) : null }
}

/** P(|S| ≥ |s|) over all orders of n different values: S = n(n − 1)/2 − 2·(inversions), inversions counted by their generating product. */
function exactP(s: number, n: number): number {
  let share = [1]
  for (let k = 2; k <= n; k++) {
    const next = new Array<number>(share.length + k - 1).fill(0)
    share.forEach((v, i) => {
      for (let j = 0; j < k; j++) next[i + j] = (next[i + j] ?? 0) + v / k
    })
    share = next
  }
  const most = (n * (n - 1)) / 2
  return Math.min(
    1,
    share.reduce((sum, v, inversions) => (Math.abs(most - 2 * inversions) >= Math.abs(s) ? sum + v : sum), 0),
  )
}

/** One-sided p for a rise: exact where it can be. */
export function pOfRise(y: readonly number[]): number {
  const made = mannKendall(y)
  const half = (made.pExact ?? made.p) / 2
  if (made.S > 0) return half
  return made.S < 0 ? 1 - half : 0.5
}
