import { logGamma } from '@core/stats/beta.ts'
import { type Level } from './groups.ts'

/** What a class uses up of one part: so many in so many classes of its level. */
export interface UsedByLevel {
  level: Level
  used: number
  classes: number
}
export interface WillTake {
  mean: number
  low: number
  high: number
}
const MOST = 20_000

/**
 * How many of a part the coming classes will take (P185): per level the count of past classes is Poisson, its rate with Jeffreys’ prior Gamma(½, 0), so that
 * n coming classes after m with k take a negative binomial with shape k + ½ and success m/(m + n); levels are added by mean and variance. Low and high: one
 * in ten lies under, one in ten over. A level nobody has counted yet is taken as all others together. Null: nothing was counted at all.
 * @example willTake([{ level: 'new', used: 30, classes: 40 }], new Map([['new', 10]])) // about 7.6, 4–11
 */
export function willTake(past: readonly UsedByLevel[], coming: ReadonlyMap<Level, number>): WillTake | null {
  const all = past.reduce((s, p) => ({ used: s.used + p.used, classes: s.classes + p.classes }), {
    used: 0,
    classes: 0,
  })
  if (all.classes === 0) return null
  let [mean, variance] = [0, 0]
  for (const [level, n] of coming) {
    const own = past.find((p) => p.level === level && p.classes > 0) ?? all
    const shape = own.used + 0.5
    const m = (shape * n) / own.classes
    mean += m
    variance += m + m * (n / own.classes)
  }
  if (mean === 0) return { mean: 0, low: 0, high: 0 }
  return { mean, low: quantileOf(0.1, mean, variance), high: quantileOf(0.9, mean, variance) }
}

/** The least count that at least such a share lies at or under, of a negative binomial with that mean and variance. */
function quantileOf(share: number, mean: number, variance: number): number {
  const shape = variance > mean ? mean ** 2 / (variance - mean) : 1e9
  const p = shape / (shape + mean)
  let below = 0
  for (let k = 0; k < MOST; k++) {
    below += Math.exp(
      logGamma(shape + k) - logGamma(shape) - logGamma(k + 1) + shape * Math.log(p) + k * Math.log1p(-p),
    )
    if (below >= share) return k
  }
  return MOST
}
