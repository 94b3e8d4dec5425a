import { drawNormal, makeRandom } from '@core/random/random.ts'
import { Z_90, Z_95 } from '@core/stats/normal.ts'
import { survivalOf, type WearAndChance } from './renewalgrid.ts'
import { fitGaps, LEAST_SHARE, WHOLE_SHARE, type Gap, type GapFit, type GapRefusal, type Prior } from './thinned.ts'

/** A gap whose logging share is itself only known within a band that holds 9 in 10. */
export interface SharedGap extends Gap {
  shareLow: number
  shareHigh: number
}
export interface Spread {
  value: number
  low: number
  high: number
}
export interface LifeFit extends GapFit {
  /** Half are gone by then, of whatever cause, and one in ten; 95 in 100 hold. */
  median: Spread
  b10: Spread
  shape: Spread
  /** Half would be worn by then, were there no accidents. */
  wornMedian: Spread
  /** Lives as likely as not to be the true one, for whatever is worked out from them. */
  beliefs: WearAndChance[]
}

const DRAWS = 120
const SEED = 20_011

/**
 * The fit with what is not known of the logging share carried through: fitted again at either end of its band, and (θ_high − θ_low)/3.29 added to the
 * spread. Below a share of 0.3 the log says too little: refused, for the mean life from counts.
 * @example fitLives(gaps, tradePrior('tip', 'arcHours'))
 */
export function fitLives(
  gaps: readonly SharedGap[],
  prior?: Prior | null,
): LifeFit | GapRefusal | { ok: false; reason: 'shareTooLow' } {
  const share = weighedShare(gaps)
  if (share < LEAST_SHARE) return { ok: false, reason: 'shareTooLow' }
  const fit = fitGaps(gaps, prior ?? undefined)
  if (!fit.ok) return fit
  const theta = thetaOf(fit.life)
  const isWhole = gaps.every((g) => g.share > WHOLE_SHARE)
  const off = isWhole ? theta.map(() => 0) : shiftBy(gaps, prior ?? undefined, fit.life)
  const covariance = fit.covariance.map((row, i) => row.map((v, j) => v + (off[i] ?? 0) * (off[j] ?? 0)))
  const beliefs = drawsOf(theta, covariance)
  const band = (of: (l: WearAndChance) => number): Spread => spreadOf(of(fit.life), beliefs.map(of))
  return {
    ...fit,
    covariance,
    beliefs,
    median: band((l) => goneBy(l, 0.5)),
    b10: band((l) => goneBy(l, 0.1)),
    wornMedian: band((l) => l.scale * Math.LN2 ** (1 / l.shape)),
    shape: band((l) => l.shape),
  }
}

/** Logging share over all gaps, each as much as it was used. */
export function weighedShare(gaps: readonly Gap[]): number {
  const used = gaps.reduce((sum, g) => sum + g.low + g.high, 0)
  return used > 0 ? gaps.reduce((sum, g) => sum + (g.low + g.high) * g.share, 0) / used : 1
}

const thetaOf = ({ shape, scale, rate }: WearAndChance) => [
  Math.log(shape),
  Math.log(scale),
  rate > 0 ? Math.log(rate) : 0,
]
/** One standard deviation of the share, as it moves each parameter. */
function shiftBy(gaps: readonly SharedGap[], prior: Prior | undefined, near: WearAndChance): number[] {
  const at = (pick: (g: SharedGap) => number) =>
    fitGaps(
      gaps.map((g) => ({ ...g, share: Math.min(1, Math.max(0.05, pick(g))) })),
      prior,
      near,
    )
  const [low, high] = [at((g) => g.shareLow), at((g) => g.shareHigh)]
  if (!low.ok || !high.ok) return [0, 0, 0]
  const [a, b] = [thetaOf(low.life), thetaOf(high.life)]
  return a.map((v, i) => ((b[i] ?? 0) - v) / (2 * Z_90))
}

/** Use by which a share p of parts is gone, of wear or by chance, by halving. */
export function goneBy(life: WearAndChance, p: number): number {
  let [low, high] = [0, life.scale * (-Math.log1p(-p)) ** (1 / life.shape)]
  for (let n = 0; n < 60; n++) {
    const middle = (low + high) / 2
    if (survivalOf(life, middle) > 1 - p) low = middle
    else high = middle
  }
  return (low + high) / 2
}

/** Normal about the log parameters; the same seed always, so that a page read twice says the same. */
function drawsOf(theta: readonly number[], covariance: readonly (readonly number[])[]): WearAndChance[] {
  const random = makeRandom(SEED)
  const root = rootOf(covariance)
  const hasChance = (covariance[2]?.[2] ?? 0) > 0
  return Array.from({ length: DRAWS }, () => {
    const z = theta.map(() => drawNormal(random))
    const [k, s, r] = theta.map((t, i) => t + (root[i] ?? []).reduce((sum, v, j) => sum + v * (z[j] ?? 0), 0))
    return { shape: Math.exp(k ?? 0), scale: Math.exp(s ?? 0), rate: hasChance ? Math.exp(r ?? 0) : 0 }
  })
}
/** Cholesky; a row without spread is nought. */
function rootOf(m: readonly (readonly number[])[]): number[][] {
  const root = m.map((r) => r.map(() => 0))
  for (let i = 0; i < m.length; i++)
    for (let j = 0; j <= i; j++) {
      let sum = m[i]?.[j] ?? 0
      for (let k = 0; k < j; k++) sum -= (root[i]?.[k] ?? 0) * (root[j]?.[k] ?? 0)
      const own = root[i]
      if (own) own[j] = i === j ? Math.sqrt(Math.max(0, sum)) : (root[j]?.[j] ?? 0) > 0 ? sum / (root[j]?.[j] ?? 1) : 0
    }
  return root
}

/** About a value, from draws of it: as wide on the log scale as they are. */
export function spreadOf(value: number, draws: readonly number[]): Spread {
  const logs = draws.map(Math.log)
  const mean = logs.reduce((a, b) => a + b, 0) / logs.length
  const sd = Math.sqrt(logs.reduce((sum, v) => sum + (v - mean) ** 2, 0) / Math.max(1, logs.length - 1))
  return { value, low: value * Math.exp(-Z_95 * sd), high: value * Math.exp(Z_95 * sd) }
}
/** Where 9 in 10 of some draws lie. */
export function ninety(draws: readonly number[]): { low: number; high: number } {
  const sorted = [...draws].sort((a, b) => a - b)
  const at = (p: number) => sorted[Math.min(sorted.length - 1, Math.round(p * (sorted.length - 1)))] ?? 0
  return { low: at(0.05), high: at(0.95) }
}
