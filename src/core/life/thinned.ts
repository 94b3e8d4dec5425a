import { solve } from '@core/stats/solve.ts'
import { seenGaps, sumOfLives, type SeenGaps, type WearAndChance } from './renewalgrid.ts'
import { type Weibull } from './residual.ts'

/**
 * How a stretch between two lines of the log ended: worn out; by chance (burned back, knocked); one of the two, nobody said which; or it
 * was cut off (still in, taken out good, changed by rule).
 */
export type GapEnd = 'worn' | 'chance' | 'either' | 'cut'
export interface Gap {
  /** Use between the two, in the kind's unit; `low` < `high` where either line told only the shift or the day. */
  low: number
  high: number
  end: GapEnd
  /** On when the records began: nobody knows how far it was. */
  isAgeUnknown: boolean
  /** How many parts were used in it, as the log says. */
  parts: number
  /** Share of changes written down where it was. */
  share: number
}
/** What is believed of wear before the shop's own lives speak: medians, and standard deviations of their logarithms. */
export interface Prior extends Weibull {
  sdLogShape: number
  sdLogScale: number
}
export interface GapFit {
  ok: true
  /** Gaps, and how they ended. */
  n: number
  worn: number
  chance: number
  either: number
  life: WearAndChance
  /** Of (ln shape, ln scale, ln rate); the last row is nought where nothing ended by chance. */
  covariance: number[][]
  logLik: number
  iterations: number
  converged: boolean
  /** Share of what is known of ln scale that the prior brought, 0 to 1. */
  priorShare: number
  /** Median logging share that it was fitted under. */
  share: number
  warnings: string[]
}
export type GapRefusal = { ok: false; reason: 'noLives' | 'nothingEnded' | 'noMaximum' }

/** Above this the log is as good as whole. */
export const WHOLE_SHARE = 0.95
/** Below this only counts speak. */
export const LEAST_SHARE = 0.3
const MOST_PARTS = 12

/**
 * Wear and chance from the gaps of a log that misses things, by maximum likelihood (or with a prior, by its posterior mode): parts are
 * changed each time they end, a share q of the changes is written down, times may be intervals, a first part's age unknown (its first gap has the
 * density of an equilibrium renewal process, (q/μ)∫ₓ g). Curvature is taken by differences; covariance is its inverse. No gap or
 * nothing ended and no prior: said so. `near` is where to begin. Source: Cox 1962; Meeker & Escobar 1998; Turnbull 1976 for intervals.
 * @example fitGaps(gaps) // { ok: true, life: { shape, scale, rate }, … }
 */
export function fitGaps(gaps: readonly Gap[], prior?: Prior, near?: WearAndChance): GapFit | GapRefusal {
  gaps.forEach(mustBeGap)
  const used = merged(gaps.filter((g) => g.parts <= MOST_PARTS && g.high > 0))
  if (used.length === 0 && !prior) return { ok: false, reason: 'noLives' }
  const counts = countOf(gaps)
  if (counts.worn + counts.either === 0 && !prior) return { ok: false, reason: 'nothingEnded' }
  const hasChance = counts.chance > 0
  const logLik = likelihoodOf(used, hasChance)
  const target = (theta: readonly number[]) => logLik(theta) + (prior ? priorOf(prior, theta) : 0)
  const found = maximise(target, near ? thetaNear(near, hasChance) : startOf(gaps, prior, hasChance))
  if (!found) return { ok: false, reason: 'noMaximum' }
  const { theta, covariance, iterations, converged } = found
  return {
    ok: true,
    ...counts,
    life: lifeOf(theta),
    covariance: Array.from({ length: 3 }, (_, i) => Array.from({ length: 3 }, (_, j) => covariance[i]?.[j] ?? 0)),
    ...{ logLik: logLik(theta), iterations, converged, share: middleShare(gaps) },
    priorShare: prior ? Math.min(1, (covariance[1]?.[1] ?? 0) / prior.sdLogScale ** 2) : 0,
    warnings: [
      ...(converged ? [] : ['did not settle']),
      ...(used.length < gaps.length && gaps.some((g) => g.parts > MOST_PARTS)
        ? [`left out: more than ${MOST_PARTS} parts in one line`]
        : []),
    ],
  }
}

function mustBeGap({ low, high, parts, share }: Gap): void {
  if (!(low >= 0) || !(high >= low) || !Number.isFinite(high))
    throw new RangeError(`fitGaps: expected 0 <= low <= high, got ${low}, ${high}`)
  if (!(parts >= 1)) throw new RangeError(`fitGaps: expected parts >= 1, got ${parts}`)
  if (!(share > 0 && share <= 1)) throw new RangeError(`fitGaps: expected a logging share in 0…1, got ${share}`)
}
function countOf(gaps: readonly Gap[]) {
  const of = (end: GapEnd) => gaps.filter((g) => g.end === end).length
  return { n: gaps.length, worn: of('worn'), chance: of('chance'), either: of('either') }
}
function middleShare(gaps: readonly Gap[]): number {
  const shares = gaps.map((g) => g.share).sort((a, b) => a - b)
  return shares[Math.floor(shares.length / 2)] ?? 1
}

type Weighed = Gap & { weight: number }
/** Of very many, gaps alike to within half a hundredth are one gap with a weight: a hundred thousand lives are some thousand gaps. */
const FINE = 1500
const PER_E = 200
function merged(gaps: readonly Gap[]): Weighed[] {
  if (gaps.length < FINE) return gaps.map((g) => ({ ...g, share: wholeOr(g.share), weight: 1 }))
  const round = (x: number) => (x <= 0 ? 0 : Math.exp(Math.round(Math.log(x) * PER_E) / PER_E))
  const kept = new Map<string, Weighed>()
  for (const g of gaps) {
    const [low, high, share] = [round(g.low), round(g.high), wholeOr(g.share)]
    const key = `${low} ${high} ${g.end} ${g.isAgeUnknown} ${g.parts} ${share}`
    const same = kept.get(key)
    if (same) same.weight++
    else kept.set(key, { ...g, low, high, share, weight: 1 })
  }
  return [...kept.values()]
}
const wholeOr = (share: number) => (share > WHOLE_SHARE ? 1 : share)

const lifeOf = (theta: readonly number[]): WearAndChance => ({
  shape: Math.exp(theta[0] ?? 0),
  scale: Math.exp(theta[1] ?? 0),
  rate: theta.length > 2 ? Math.exp(theta[2] ?? 0) : 0,
})
const priorOf = (prior: Prior, theta: readonly number[]) =>
  -(((theta[0] ?? 0) - Math.log(prior.shape)) ** 2) / (2 * prior.sdLogShape ** 2) -
  ((theta[1] ?? 0) - Math.log(prior.scale)) ** 2 / (2 * prior.sdLogScale ** 2)

function startOf(gaps: readonly Gap[], prior: Prior | undefined, hasChance: boolean): number[] {
  const ends = gaps.filter((g) => g.end !== 'cut')
  // Used in all, by what came out in all, logged or not.
  const used = gaps.reduce((sum, g) => sum + (g.low + g.high) / 2, 0)
  const parts = ends.reduce((sum, g) => sum + Math.max(g.parts, 1 / g.share), 0)
  const mean = used > 0 && parts > 0 ? used / parts : (prior?.scale ?? 1)
  const chance = gaps.filter((g) => g.end === 'chance').reduce((sum, g) => sum + 1 / g.share, 0)
  return [
    Math.log(prior?.shape ?? 1.8),
    Math.log(ends.length >= 3 || !prior ? mean * 1.2 : prior.scale),
    ...(hasChance ? [Math.log(chance / Math.max(used, 1e-12))] : []),
  ]
}

/** Where a fit of nearly the same gaps ended: a few steps off. */
const thetaNear = ({ shape, scale, rate }: WearAndChance, hasChance: boolean) => [
  Math.log(shape),
  Math.log(scale),
  ...(hasChance ? [Math.log(Math.max(rate, 1e-9 / scale))] : []),
]

/** How far the curves are worked out: the longest gap, but no more than so many of the middle one. */
const FAR_GAPS = 20
function likelihoodOf(gaps: readonly Weighed[], hasChance: boolean): (theta: readonly number[]) => number {
  const highs = gaps.map((g) => g.high).sort((a, b) => a - b)
  const until = Math.min((highs.at(-1) ?? 1) * 1.02, FAR_GAPS * (highs[Math.floor(highs.length / 2)] ?? 1))
  const shares = [...new Set(gaps.filter((g) => g.parts === 1).map((g) => g.share))]
  const sums = [...new Set(gaps.filter((g) => g.parts > 1).map((g) => g.parts))]
  return (theta) => {
    const life = lifeOf(theta)
    const bySshare = new Map(shares.map((q) => [q, seenGaps(life, q, until)]))
    const byParts = new Map(sums.map((n) => [n, sumOfLives(life, n, until)]))
    let sum = 0
    for (const g of gaps) {
      const seen = bySshare.get(g.share)
      const many = byParts.get(g.parts)
      const value = many ? chanceOfMany(g, many, life) : seen ? chanceOf(g, { seen, life, hasChance }) : 1
      sum += g.weight * Math.log(Math.max(value, 1e-300))
    }
    return sum
  }
}

function chanceOf(g: Gap, at: { seen: SeenGaps; life: WearAndChance; hasChance: boolean }): number {
  const { seen, life } = at
  const middle = (g.low + g.high) / 2
  if (g.isAgeUnknown) return chanceOfFirst(g, middle, at)
  if (g.end === 'cut') return seen.survival(middle)
  const isExact = g.high - g.low <= 1e-9 * g.high
  const chance = isExact
    ? life.rate * g.share * seen.survival(middle)
    : life.rate * g.share * (seen.openArea(g.high) - seen.openArea(g.low))
  if (g.end === 'chance') return chance
  const worn = isExact ? seen.wornAt(middle) : seen.wornBy(g.high) - seen.wornBy(g.low)
  return g.end === 'worn' ? worn : worn + chance
}
/** The first gap of a part that was on before: it is met at a moment that knows nothing of its age. */
function chanceOfFirst(g: Gap, x: number, at: { seen: SeenGaps; life: WearAndChance }): number {
  const { seen, life } = at
  const perLife = g.share / seen.mean
  const openLater = Math.max(0, 1 - perLife * seen.openArea(x))
  if (g.end === 'cut') return openLater
  // By chance: ∫ from x of q r Ḡ, over the mean gap.
  const chance = life.rate * openLater
  const worn = perLife * Math.max(0, seen.share - seen.wornBy(x))
  return g.end === 'chance' ? chance : g.end === 'worn' ? worn : worn + chance
}
function chanceOfMany(g: Gap, many: Pick<SeenGaps, 'survival' | 'wornAt'>, life: WearAndChance): number {
  const middle = (g.low + g.high) / 2
  if (g.end === 'cut') return many.survival(middle)
  const worn = many.wornAt(middle)
  return g.end === 'worn' ? worn : worn + life.rate * many.survival(middle)
}

const STEP = 1e-3
const MOST_STEPS = 60
const FARTHEST = 0.7
/** Newton with slopes by differences, kept from leaping, damped where the surface is not bowed. */
export function maximise(
  f: (theta: readonly number[]) => number,
  start: readonly number[],
): { theta: number[]; covariance: number[][]; iterations: number; converged: boolean } | null {
  let theta = [...start]
  let value = f(theta)
  let damping = 0
  for (let n = 0; n < MOST_STEPS; n++) {
    if (!Number.isFinite(value)) return null
    const bent = bend(f, theta, value)
    const step = stepOf(bent.gradient, bent.curvature, damping)
    if (!step) {
      damping = Math.max(1, damping * 8)
      if (damping > 1e9) return null
      continue
    }
    const next = theta.map((t, i) => t + (step[i] ?? 0))
    const there = f(next)
    if (!(there >= value - 1e-10 * Math.max(1, Math.abs(value)))) {
      damping = Math.max(1, damping * 8)
      if (damping > 1e12) return ended(f, theta, { iterations: n, converged: false })
      continue
    }
    const moved = Math.max(...step.map(Math.abs))
    ;[theta, value, damping] = [next, there, damping / 8 < 1e-3 ? 0 : damping / 8]
    if (moved < 1e-5) return bowed(theta, bent.curvature, { iterations: n + 1, converged: true })
  }
  return ended(f, theta, { iterations: MOST_STEPS, converged: false })
}
function bend(f: (theta: readonly number[]) => number, theta: readonly number[], value: number) {
  const n = theta.length
  const at = (moves: readonly (readonly [number, number])[]) => {
    const there = [...theta]
    for (const [i, by] of moves) there[i] = (there[i] ?? 0) + by
    return f(there)
  }
  const up = theta.map((_, i) => at([[i, STEP]]))
  const down = theta.map((_, i) => at([[i, -STEP]]))
  const gradient = theta.map((_, i) => ((up[i] ?? 0) - (down[i] ?? 0)) / (2 * STEP))
  const curvature = Array.from({ length: n }, () => new Array<number>(n).fill(0))
  for (let i = 0; i < n; i++)
    for (let j = i; j < n; j++) {
      const own = ((up[i] ?? 0) - 2 * value + (down[i] ?? 0)) / STEP ** 2
      const both =
        i === j
          ? own
          : (at([
              [i, STEP],
              [j, STEP],
            ]) -
              (up[i] ?? 0) -
              (up[j] ?? 0) +
              2 * value -
              (down[i] ?? 0) -
              (down[j] ?? 0) +
              at([
                [i, -STEP],
                [j, -STEP],
              ])) /
            (2 * STEP ** 2)
      for (const [a, b] of [
        [i, j],
        [j, i],
      ] as const)
        (curvature[a] ?? [])[b] = both
    }
  return { gradient, curvature }
}
function stepOf(
  gradient: readonly number[],
  curvature: readonly (readonly number[])[],
  damping: number,
): number[] | null {
  const rows = curvature.map((r, i) => [...r.map((v, j) => -v + (i === j ? damping : 0)), gradient[i] ?? 0])
  const { x, rank } = solve(rows, 1e-12)
  const rise = x.reduce((sum, v, i) => sum + v * (gradient[i] ?? 0), 0)
  if (rank < gradient.length || !(rise >= 0)) return null
  const far = Math.max(...x.map(Math.abs))
  return far > FARTHEST ? x.map((v) => (v * FARTHEST) / far) : x
}
type How = { iterations: number; converged: boolean }
const ended = (f: (theta: readonly number[]) => number, theta: number[], how: How) =>
  bowed(theta, bend(f, theta, f(theta)).curvature, how)
/** The covariance where the surface is bowed; elsewhere it is no top. */
function bowed(theta: number[], curvature: readonly (readonly number[])[], how: How) {
  const covariance = theta.map((_, c) => {
    const { x } = solve(
      curvature.map((r, i) => [...r.map((v) => -v), i === c ? 1 : 0]),
      1e-12,
    )
    return x
  })
  return covariance.every((r, i) => (r[i] ?? 0) > 0) ? { theta, covariance, ...how } : null
}
