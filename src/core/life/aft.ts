import { solve } from '@core/stats/solve.ts'

export interface RegressedLives {
  /** Use at the end, > 0. */
  time: ArrayLike<number>
  /** 1 worn out, 0 taken out good or still in. */
  event: ArrayLike<number>
  /** One column a covariate, each as long as `time`; the first is usually all ones. */
  columns: readonly ArrayLike<number>[]
  /** Use at which a part came under observation; 0 new. */
  entry?: ArrayLike<number>
}
export interface AftFit {
  ok: true
  n: number
  failures: number
  /** One for each column: ln of the ratio by which life goes longer for one more of it. */
  coefficients: number[]
  logSigma: number
  logLik: number
  /** Of the coefficients and ln σ, in that order. */
  covariance: number[][]
  iterations: number
  converged: boolean
}
/** `noFailure`; `singular`: two columns tell the same; `diverges`: a column with no end on one side has no finite estimate. */
export type AftRefusal = { ok: false; reason: 'noFailure' | 'singular' | 'diverges' }

const MOST_STEPS = 60
const CLOSE = 1e-11
/** Scaled coefficients beyond this are on their way to infinity. */
const FAR = 60

/**
 * Weibull regression of accelerated life: ln T = x'β + σW, W the smallest extreme value, so T | x is Weibull of shape 1/σ and
 * scale exp(x'β). ln L = Σ_f (w − ln σ − ln t) − Σ e^w + Σ_entries e^w, w = (ln t − x'β)/σ, by Newton with halved steps on columns
 * brought to one scale; covariance is the inverse of the observed information. Times > 0; else misuse throws.
 * Source: Kalbfleisch & Prentice 2002; Lawless 2003.
 * @example fitAft({ time, event, columns: [ones, isPlated] }).coefficients[1] // ln of how many times longer plated ones last
 */
export function fitAft(lives: RegressedLives): AftFit | AftRefusal {
  checkRegressed(lives)
  const data = prepared(lives)
  if (data.failures === 0) return { ok: false, reason: 'noFailure' }
  if (!areApart(data)) return { ok: false, reason: 'singular' }
  const found = climb(data)
  if ('reason' in found) return { ok: false, reason: found.reason }
  const { theta, iterations, converged } = found
  const at = slopes(data, theta)
  const inverse = inverted(at.information)
  if (!inverse) return { ok: false, reason: 'diverges' }
  if (hasRunAway(data, theta, inverse)) return { ok: false, reason: 'diverges' }
  const back = unscaled(data, theta, inverse)
  return {
    ok: true,
    n: data.n,
    failures: data.failures,
    coefficients: back.theta.slice(0, -1),
    logSigma: back.theta.at(-1) ?? 0,
    logLik: at.logLik - data.logTimes,
    covariance: back.covariance,
    iterations,
    converged,
  }
}

function checkRegressed({ time, event, columns, entry }: RegressedLives): void {
  const n = time.length
  if (event.length !== n || columns.some((c) => c.length !== n) || (entry && entry.length !== n))
    throw new RangeError(`fitAft: expected columns as long as ${n} times`)
  if (columns.length === 0) throw new RangeError('fitAft: expected at least one column')
  for (let i = 0; i < n; i++) {
    const t = time[i] ?? 0
    const from = entry?.[i] ?? 0
    if (!(t > 0) || !Number.isFinite(t)) throw new RangeError(`fitAft: expected times > 0, got ${t}`)
    if (!(from >= 0 && from < t)) throw new RangeError(`fitAft: expected entries before their times, got ${from}, ${t}`)
    for (const c of columns)
      if (!Number.isFinite(c[i])) throw new RangeError(`fitAft: expected finite covariates, got ${c[i]}`)
  }
}

interface Prepared {
  n: number
  failures: number
  logTime: Float64Array
  logEntry: Float64Array | null
  event: Uint8Array
  /** Centred (where there is a constant to take it up) and of unit spread. */
  columns: Float64Array[]
  centre: number[]
  spread: number[]
  constant: number
  /** Σ ln t of failures, off which the likelihood is on the time scale. */
  logTimes: number
}
function prepared({ time, event, columns, entry }: RegressedLives): Prepared {
  const n = time.length
  const logTime = Float64Array.from({ length: n }, (_, i) => Math.log(time[i] ?? 1))
  const ends = Uint8Array.from({ length: n }, (_, i) => (event[i] === 1 ? 1 : 0))
  const isConstant = columns.map((c) => Array.prototype.every.call(c, (v: number) => v === c[0] && v !== 0))
  const constant = isConstant.indexOf(true)
  const centre = columns.map((c, j) => (constant < 0 || j === constant ? 0 : meanOf(c)))
  const spread = columns.map((c, j) => spreadOf(c, centre[j] ?? 0))
  let [failures, logTimes] = [0, 0]
  for (let i = 0; i < n; i++)
    if (ends[i]) {
      failures++
      logTimes += logTime[i] ?? 0
    }
  return {
    ...{ n, failures, logTime, event: ends, centre, spread, constant, logTimes },
    logEntry: entry ? Float64Array.from({ length: n }, (_, i) => Math.log(entry[i] ?? 0)) : null,
    columns: columns.map((c, j) =>
      Float64Array.from({ length: n }, (_, i) => ((c[i] ?? 0) - (centre[j] ?? 0)) / (spread[j] ?? 1)),
    ),
  }
}
function meanOf(c: ArrayLike<number>): number {
  let sum = 0
  for (let i = 0; i < c.length; i++) sum += c[i] ?? 0
  return sum / Math.max(1, c.length)
}
function spreadOf(c: ArrayLike<number>, centre: number): number {
  let sum = 0
  for (let i = 0; i < c.length; i++) sum += ((c[i] ?? 0) - centre) ** 2
  return Math.sqrt(sum / Math.max(1, c.length)) || 1
}

/** Does each column tell something that the others do not? */
function areApart({ columns, n }: Prepared): boolean {
  const gram = columns.map((a) => columns.map((b) => a.reduce((sum, v, i) => sum + v * (b[i] ?? 0), 0) / n))
  return (
    solve(
      gram.map((r) => [...r, 0]),
      1e-9,
    ).rank === columns.length
  )
}

interface Slopes {
  logLik: number
  gradient: Float64Array
  information: number[][]
}
/** ln L (off the time scale), its slope, and minus its second slopes, at (β, ln σ). */
function slopes(data: Prepared, theta: readonly number[]): Slopes {
  const p = data.columns.length
  const sigma = Math.exp(theta[p] ?? 0)
  const sums = { logLik: 0, gradient: new Float64Array(p + 1), second: new Float64Array((p + 1) * (p + 1)) }
  const row = new Float64Array(p)
  for (let i = 0; i < data.n; i++) {
    const mean = meanAt(data.columns, theta, { i, row })
    const isEnd = data.event[i] === 1
    const w = ((data.logTime[i] ?? 0) - mean) / sigma
    if (isEnd) sums.logLik += w - Math.log(sigma)
    add(sums, { w, end: isEnd ? 1 : 0, sign: 1, sigma, row })
    const from = data.logEntry?.[i] ?? -Infinity
    if (from > -Infinity) add(sums, { w: (from - mean) / sigma, end: 0, sign: -1, sigma, row })
  }
  sums.gradient[p] = (sums.gradient[p] ?? 0) - data.failures
  const information = Array.from({ length: p + 1 }, (_, a) =>
    Array.from({ length: p + 1 }, (_, b) => sums.second[Math.min(a, b) * (p + 1) + Math.max(a, b)] ?? 0),
  )
  return { logLik: sums.logLik, gradient: sums.gradient, information }
}
function meanAt(
  columns: readonly Float64Array[],
  theta: readonly number[],
  { i, row }: { i: number; row: Float64Array },
): number {
  let mean = 0
  for (let j = 0; j < row.length; j++) {
    const x = columns[j]?.[i] ?? 0
    row[j] = x
    mean += x * (theta[j] ?? 0)
  }
  return mean
}
interface Sums {
  logLik: number
  gradient: Float64Array
  second: Float64Array
}
/** One term of Σ e^w and its share of Σ_f w. */
function add(sums: Sums, at: { w: number; end: 0 | 1; sign: 1 | -1; sigma: number; row: Float64Array }): void {
  const { w, end, sign, sigma, row } = at
  const p = row.length
  const e = sign * Math.exp(Math.min(w, 700))
  const off = e - end
  sums.logLik -= e
  for (let a = 0; a < p; a++) {
    const x = row[a] ?? 0
    sums.gradient[a] = (sums.gradient[a] ?? 0) + (off * x) / sigma
    for (let b = a; b < p; b++) {
      const k = a * (p + 1) + b
      sums.second[k] = (sums.second[k] ?? 0) + (e * x * (row[b] ?? 0)) / (sigma * sigma)
    }
    const k = a * (p + 1) + p
    sums.second[k] = (sums.second[k] ?? 0) + (x * (off + w * e)) / sigma
  }
  sums.gradient[p] = (sums.gradient[p] ?? 0) + w * off
  const k = p * (p + 1) + p
  sums.second[k] = (sums.second[k] ?? 0) + w * off + w * w * e
}

/** Uphill by Newton; where the likelihood is not yet bowed, along the slope. */
function climb(
  data: Prepared,
): { theta: number[]; iterations: number; converged: boolean } | { reason: AftRefusal['reason'] } {
  let theta = startOf(data)
  let here = slopes(data, theta)
  for (let n = 0; n < MOST_STEPS; n++) {
    const step = stepOf(here)
    if (!step) return { reason: 'diverges' }
    let [rate, next, there] = [1, theta, here]
    for (let tries = 0; tries < 40; tries++, rate /= 2) {
      next = theta.map((t, j) => t + rate * (step[j] ?? 0))
      there = slopes(data, next)
      if (there.logLik >= here.logLik - 1e-12 * Math.abs(here.logLik)) break
    }
    const moved = Math.max(...next.map((t, j) => Math.abs(t - (theta[j] ?? 0))))
    ;[theta, here] = [next, there]
    if (theta.some((t) => !(Math.abs(t) < FAR * 10))) return { reason: 'diverges' }
    if (moved < CLOSE) return { theta, iterations: n + 1, converged: true }
  }
  return { theta, iterations: MOST_STEPS, converged: false }
}
/** Least squares is not needed: the mean log life, no covariate, σ 1. */
function startOf(data: Prepared): number[] {
  const theta = Array.from({ length: data.columns.length + 1 }, () => 0)
  if (data.constant >= 0) {
    const x = data.columns[data.constant]?.[0] ?? 1
    theta[data.constant] = (data.logTimes / data.failures + 0.5) / x
  }
  return theta
}
function stepOf({ gradient, information }: Slopes): number[] | null {
  const n = gradient.length
  const most = Math.max(...information.map((r, i) => Math.abs(r[i] ?? 0)))
  for (let ridge = 0; ridge < 1e6; ridge = ridge === 0 ? 1e-9 : ridge * 30) {
    const rows = information.map((r, i) => [...r.map((v, j) => v + (i === j ? ridge * most : 0)), gradient[i] ?? 0])
    const { x, rank } = solve(rows, most * 1e-13)
    const rise = x.reduce((sum, v, i) => sum + v * (gradient[i] ?? 0), 0)
    if (rank === n && rise >= 0) return x
  }
  return null
}

function inverted(m: readonly (readonly number[])[]): number[][] | null {
  const n = m.length
  const most = Math.max(...m.map((r, i) => Math.abs(r[i] ?? 0)))
  const columns: number[][] = []
  for (let c = 0; c < n; c++) {
    const { x, rank } = solve(
      m.map((r, i) => [...r, i === c ? 1 : 0]),
      most * 1e-13,
    )
    if (rank < n || !((x[c] ?? 0) > 0)) return null
    columns.push(x)
  }
  return columns
}

/** A coefficient that grew until the likelihood was flat: its standard error is beyond all data. */
const LOST_SE = 100
function hasRunAway(data: Prepared, theta: readonly number[], covariance: readonly (readonly number[])[]): boolean {
  return data.columns.some(
    (_, j) => j !== data.constant && (Math.abs(theta[j] ?? 0) > FAR || Math.sqrt(covariance[j]?.[j] ?? 0) > LOST_SE),
  )
}

/** Back to the columns as they were given. */
function unscaled(data: Prepared, theta: readonly number[], covariance: readonly (readonly number[])[]) {
  const p = data.columns.length
  const map = Array.from({ length: p + 1 }, (_, a) =>
    Array.from({ length: p + 1 }, (_, b) => {
      if (a === b) return a === p ? 1 : 1 / (data.spread[a] ?? 1)
      const constant =
        data.constant >= 0 ? (data.columns[data.constant]?.[0] ?? 1) * (data.spread[data.constant] ?? 1) : 1
      return a === data.constant && b < p ? -(data.centre[b] ?? 0) / (data.spread[b] ?? 1) / constant : 0
    }),
  )
  const times = (v: readonly number[]) => map.map((r) => r.reduce((sum, m, j) => sum + m * (v[j] ?? 0), 0))
  const half = map.map((r) => covariance.map((_, c) => r.reduce((s, m, j) => s + m * (covariance[j]?.[c] ?? 0), 0)))
  return {
    theta: times(theta),
    covariance: half.map((r) => map.map((m) => m.reduce((s, v, j) => s + v * (r[j] ?? 0), 0))),
  }
}
