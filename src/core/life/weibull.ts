import { halved } from '@core/stats/halve.ts'
import { Z_95 } from '@core/stats/normal.ts'
import { type LifeTimes } from './kaplanmeier.ts'

/** The 95 % point of χ² with one degree of freedom. */
const CHI2_95 = 3.841458820694124

export type Interval = readonly [low: number, high: number]
export interface WeibullFit {
  ok: true
  n: number
  failures: number
  shape: number
  /** In the unit of the times. */
  scale: number
  logLik: number
  /** Standard errors of ln scale and ln shape, and their covariance, from the observed information. */
  seLogShape: number
  seLogScale: number
  covLogScaleLogShape: number
  waldShape: Interval
  waldScale: Interval
  b10: number
  waldB10: Interval
  median: number
  waldMedian: Interval
  iterations: number
  converged: boolean
  warnings: string[]
}
/** `noFailure`: nothing wore out yet; `shapeDiverges`: all failures are at the largest time; `noMaximum`: the likelihood has no inner one. */
export type WeibullRefusal = { ok: false; reason: 'noFailure' | 'shapeDiverges' | 'noMaximum' }

/**
 * Weibull lives by maximum likelihood, right-censored and left-truncated: S(t) = exp(−(t/λ)^k),
 * ln L = Σ_f [ln k − ln λ + (k − 1)(ln t − ln λ)] − Σ (t/λ)^k + Σ (entry/λ)^k. The profile score
 * [Σ t^k ln t − Σ a^k ln a]/[Σ t^k − Σ a^k] − 1/k = mean ln t of failures is solved for ln k, λ^k = [Σ t^k − Σ a^k]/failures; sums by
 * logarithms off the largest time, so that no power overflows. Intervals: Wald on the log scale, B10 and median by the delta method.
 * Times > 0, entry < time; misuse throws. Source: Lawless 2003; Meeker & Escobar 1998.
 * @example fitWeibull({ time: [2, 3, 5], event: [1, 1, 1] })
 */
export function fitWeibull(lives: LifeTimes): WeibullFit | WeibullRefusal {
  checkTimes(lives)
  const data = logTimes(lives)
  const refused = refusalOf(data, lives)
  if (refused) return { ok: false, reason: refused }
  const found = solveShape(data)
  if (!found) return { ok: false, reason: 'noMaximum' }
  const { shape, iterations, converged } = found
  const logScale = logScaleAt(data, shape)
  const cov = covariance(data, shape, logScale)
  if (!cov) return { ok: false, reason: 'noMaximum' }
  return {
    ok: true,
    n: lives.time.length,
    failures: data.failures,
    logLik: logLikAt(data, shape, logScale),
    ...estimates({ shape, logScale: logScale + data.offset, cov }),
    iterations,
    converged,
    warnings: warningsOf(data, converged),
  }
}

function checkTimes({ time, event, entry }: LifeTimes): void {
  if (time.length !== event.length || (entry && entry.length !== time.length))
    throw new RangeError(
      `fitWeibull: expected as many events and entries as times, got ${time.length}, ${event.length}`,
    )
  time.forEach((t, i) => {
    const from = entry?.[i] ?? 0
    if (!(t > 0) || !Number.isFinite(t)) throw new RangeError(`fitWeibull: expected times > 0, got ${t}`)
    if (!(from >= 0 && from < t))
      throw new RangeError(`fitWeibull: expected entries before their times, got ${from}, ${t}`)
  })
}

/** Logarithms off the largest time; entries of 0 are −Infinity. */
export interface LogTimes {
  time: readonly number[]
  entry: readonly number[]
  failed: readonly number[]
  failures: number
  offset: number
  isTruncated: boolean
}
export function logTimes({ time, event, entry }: LifeTimes): LogTimes {
  let largest = 0
  for (const t of time) largest = Math.max(largest, t)
  const offset = Math.log(largest)
  const entries = (entry ?? []).filter((a) => a > 0).map((a) => Math.log(a) - offset)
  const failed = time.filter((_, i) => event[i] === 1).map((t) => Math.log(t) - offset)
  return {
    time: time.map((t) => Math.log(t) - offset),
    entry: entries,
    failed,
    failures: failed.length,
    offset,
    isTruncated: entries.length > 0,
  }
}
function refusalOf(data: LogTimes, { time, event }: LifeTimes): WeibullRefusal['reason'] | null {
  if (data.failures === 0) return 'noFailure'
  const isAtMost = time.every((t, i) => event[i] !== 1 || Math.log(t) - data.offset === 0)
  return isAtMost && !data.isTruncated ? 'shapeDiverges' : null
}

/** Σ u^p e^(ku) over times less the same over entries, p = 0, 1, 2. */
function sums({ time, entry }: LogTimes, shape: number): readonly [number, number, number] {
  let [s0, s1, s2] = [0, 0, 0]
  for (const u of time) {
    const e = Math.exp(shape * u)
    s0 += e
    s1 += u * e
    s2 += u * u * e
  }
  for (const u of entry) {
    const e = Math.exp(shape * u)
    s0 -= e
    s1 -= u * e
    s2 -= u * u * e
  }
  return [s0, s1, s2]
}
const meanFailed = ({ failed, failures }: LogTimes) => failed.reduce((a, b) => a + b, 0) / failures
const logScaleAt = (data: LogTimes, shape: number) => Math.log(sums(data, shape)[0] / data.failures) / shape

/** The profile score in k, rising where the likelihood has its one maximum. */
const scoreAt = (data: LogTimes, mean: number) => (shape: number) => {
  const [s0, s1] = sums(data, shape)
  return s1 / s0 - 1 / shape - mean
}

const SHAPES = { least: 1e-3, most: 1e4, perStep: 2 }
const ENOUGH = { close: 1e-13, most: 200 }
/** First sign change on a grid of doublings, then halved in ln k: slower than Newton by some steps, and never lost. */
function solveShape(data: LogTimes): { shape: number; iterations: number; converged: boolean } | null {
  const score = scoreAt(data, meanFailed(data))
  let low = SHAPES.least
  let high = low
  while (high < SHAPES.most && !(score(high) > 0)) [low, high] = [high, high * SHAPES.perStep]
  if (!(score(high) > 0) || !(score(low) <= 0)) return null
  const { x, steps, isClose } = halved(
    (logShape) => !(score(Math.exp(logShape)) > 0),
    [Math.log(low), Math.log(high)],
    ENOUGH,
  )
  return { shape: Math.exp(x), iterations: steps, converged: isClose }
}

/** ln L on the time scale; `logScale` off the largest time. */
export function logLikAt(data: LogTimes, shape: number, logScale: number): number {
  const { failed, failures, offset } = data
  const logs = failed.reduce((sum, u) => sum + u, 0)
  const power = (u: number) => Math.exp(shape * (u - logScale))
  const risk = data.time.reduce((sum, u) => sum + power(u), 0) - data.entry.reduce((sum, u) => sum + power(u), 0)
  // Each failure's density has 1/t on the time scale: the offset comes back once for each.
  return failures * (Math.log(shape) - logScale - offset) + (shape - 1) * (logs - failures * logScale) - risk
}

interface Covariance {
  logScale: number
  logShape: number
  both: number
}
/** Inverse of the observed information in (ln λ, ln k): k²A₀, −kA₁, A₁ + A₂ − Σ_f w, with A_p = Σ w^p e^w less entries, w = k(u − ln λ). */
function covariance(data: LogTimes, shape: number, logScale: number): Covariance | null {
  let [a0, a1, a2] = [0, 0, 0]
  const add = (u: number, sign: 1 | -1) => {
    const w = shape * (u - logScale)
    const e = sign * Math.exp(w)
    a0 += e
    a1 += w * e
    a2 += w * w * e
  }
  data.time.forEach((u) => add(u, 1))
  data.entry.forEach((u) => add(u, -1))
  const failed = data.failed.reduce((sum, u) => sum + shape * (u - logScale), 0)
  const [i11, i12, i22] = [shape * shape * a0, -shape * a1, a1 + a2 - failed]
  const det = i11 * i22 - i12 * i12
  return det > 0 && i11 > 0 ? { logScale: i22 / det, logShape: i11 / det, both: -i12 / det } : null
}

const around = (value: number, se: number): Interval => [value * Math.exp(-Z_95 * se), value * Math.exp(Z_95 * se)]
type Estimates = Pick<
  WeibullFit,
  | 'shape'
  | 'scale'
  | 'seLogShape'
  | 'seLogScale'
  | 'covLogScaleLogShape'
  | 'waldShape'
  | 'waldScale'
  | 'b10'
  | 'waldB10'
  | 'median'
  | 'waldMedian'
>
function estimates({ shape, logScale, cov }: { shape: number; logScale: number; cov: Covariance }): Estimates {
  const scale = Math.exp(logScale)
  const quantile = (p: number) => {
    const c = Math.log(-Math.log1p(-p))
    const value = scale * Math.exp(c / shape)
    const slope = -c / shape
    const se = Math.sqrt(cov.logScale + slope * slope * cov.logShape + 2 * slope * cov.both)
    return { value, interval: around(value, se) }
  }
  const [b10, median] = [quantile(0.1), quantile(0.5)]
  const [seLogShape, seLogScale] = [Math.sqrt(cov.logShape), Math.sqrt(cov.logScale)]
  return {
    ...{ shape, scale, seLogShape, seLogScale, covLogScaleLogShape: cov.both },
    waldShape: around(shape, seLogShape),
    waldScale: around(scale, seLogScale),
    ...{ b10: b10.value, waldB10: b10.interval, median: median.value, waldMedian: median.interval },
  }
}

const FEW = 5
function warningsOf({ failures, time }: LogTimes, converged: boolean): string[] {
  return [
    ...(converged ? [] : ['did not settle']),
    ...(failures < FEW ? [`rests on ${failures} worn out, of ${time.length}`] : []),
  ]
}

/**
 * Profile-likelihood intervals, {θ: 2(ln L max − ln L_p(θ)) ≤ χ²₀.₉₅}: more honest than Wald where failures are few. Null ends: the likelihood
 * does not fall so far in any reach of the data.
 */
export function profileIntervals(
  lives: LifeTimes,
  fit: WeibullFit,
): { shape: [number | null, number | null]; scale: [number | null, number | null] } {
  const data = logTimes(lives)
  const drop = (logLik: number) => 2 * (fit.logLik - logLik) - CHI2_95
  const ofShape = (logShape: number) => {
    const shape = Math.exp(logShape)
    return drop(logLikAt(data, shape, logScaleAt(data, shape)))
  }
  const ofScale = (logScale: number) => drop(logLikAt(data, shapeAt(data, logScale), logScale))
  const [k, lambda] = [Math.log(fit.shape), Math.log(fit.scale) - data.offset]
  return {
    shape: [end(ofShape, k, -1), end(ofShape, k, 1)].map((x) => (x === null ? null : Math.exp(x))) as [number, number],
    scale: [end(ofScale, lambda, -1), end(ofScale, lambda, 1)].map((x) =>
      x === null ? null : Math.exp(x + data.offset),
    ) as [number, number],
  }
}
/** The shape that fits best at a given scale: Σ_f (1 + w) = Σ w e^w, halved in ln k. */
function shapeAt(data: LogTimes, logScale: number): number {
  const slope = (logShape: number) => {
    const shape = Math.exp(logShape)
    let sum = 0
    for (const u of data.failed) sum += 1 + shape * (u - logScale)
    const add = (u: number, sign: 1 | -1) => {
      const w = shape * (u - logScale)
      sum -= sign * w * Math.exp(w)
    }
    data.time.forEach((u) => add(u, 1))
    data.entry.forEach((u) => add(u, -1))
    return sum
  }
  let [low, high] = [Math.log(SHAPES.least), Math.log(SHAPES.least)]
  while (high < Math.log(SHAPES.most) && slope(high) > 0) [low, high] = [high, high + Math.LN2]
  return Math.exp(halved((logShape) => slope(logShape) > 0, [low, high], ENOUGH).x)
}
/** How far an end is looked for, in logarithms. */
const REACH = 40
function end(drop: (x: number) => number, from: number, way: 1 | -1): number | null {
  let step = 0.05
  let [inside, outside] = [from, from + way * step]
  while (!(drop(outside) > 0)) {
    if (Math.abs(outside - from) > REACH) return null
    step *= 1.6
    ;[inside, outside] = [outside, outside + way * step]
  }
  return halved((x) => !(drop(x) > 0), [inside, outside], ENOUGH).x
}
