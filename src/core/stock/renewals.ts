import { survivalOf, type WearAndChance } from '@core/life/renewalgrid.ts'
import { normalCdf } from '@core/stats/normal.ts'
import { meanOf, together, varianceOf, type Counts } from './counts.ts'

/** Steps to a mean life, and mean lives that are gone through step by step; beyond them moments are enough. */
const STEPS = 32
const LIVES = 6
const CELLS = STEPS * LIVES
const REST = 1e-9
/** So far in mean lives goes the longest of a life. */
const LONGEST = 60

/**
 * How many of a part are wanted on one gun within some use: each that wears out, goes by chance or reaches the limit is followed by a new one.
 *
 * Lives lie on a lattice of a 32nd of a mean life; Gₙ(x) = P(n lives one after the other end by x) by convolution, P(N ≥ n) = Σ rⱼ Gₙ₋₁(x − j) with r what
 * is left of the one that is on. Beyond six mean lives N is normal with E N = 1 + (x − E r)/μ + (σ² − μ²)/(2μ²), Var N = σ²(x − E r)/μ³ + Var r/μ² (and 1/12 for being whole).
 * Source: Cox (1962), Renewal Theory.
 */
export class Renewals {
  /** Use of a mean life, changed at the limit at the latest. */
  readonly mean: number
  private readonly sd: number
  private readonly step: number
  /** In cells: older is as good as none. */
  private readonly oldest: number
  /** Of n lives: the chance that they are over by the end of each cell. */
  private readonly over: Float64Array[]

  constructor(
    readonly life: WearAndChance,
    readonly limit: number | null,
  ) {
    if (!(life.shape > 0 && life.scale > 0 && life.rate >= 0) || (limit !== null && !(limit > 0)))
      throw new RangeError(
        `Renewals: expected a life and a limit above zero, got ${life.shape}, ${life.scale}, ${limit}`,
      )
    const { mean, sd } = this.moments()
    this.mean = mean
    this.sd = sd
    // A limit lies in the middle of a cell.
    this.step = limit === null ? mean / STEPS : limit / Math.max(1, Math.round((limit * STEPS) / mean))
    this.over = this.convolved()
    this.oldest = Math.floor(endOf(life, life.scale * LONGEST) / this.step)
  }

  /** Alive at that use, and not yet changed by rule. */
  private readonly stands = (x: number): number =>
    this.limit !== null && x >= this.limit ? 0 : survivalOf(this.life, x)

  /** ∫ S and 2∫ x S in steps, to the limit or to where nothing is left. */
  private moments(): { mean: number; sd: number } {
    const guess = this.life.scale
    const to = Math.min(this.limit ?? Infinity, endOf(this.life, guess * LONGEST))
    const n = 2000
    let [area, moment] = [0, 0]
    for (let i = 0; i < n; i++) {
      // Finer where it begins: a life of a shape below one falls steeply there.
      const [a, b] = [to * (i / n) ** 2, to * ((i + 1) / n) ** 2]
      const [s, m, e] = [survivalOf(this.life, a), survivalOf(this.life, (a + b) / 2), survivalOf(this.life, b)]
      area += ((b - a) * (s + 4 * m + e)) / 6
      moment += ((b - a) * (a * s + 2 * (a + b) * m + b * e)) / 6
    }
    return { mean: area, sd: Math.sqrt(Math.max(0, 2 * moment - area ** 2)) }
  }

  private convolved(): Float64Array[] {
    const one = Float64Array.from({ length: CELLS + 1 }, (_, j) => {
      const before = j === 0 ? 1 : this.stands((j - 0.5) * this.step)
      return before - this.stands((j + 0.5) * this.step)
    })
    const over = [new Float64Array(CELLS + 1).fill(1)]
    let ends: Float64Array = new Float64Array(CELLS + 1)
    ends[0] = 1
    while ((over.at(-1)?.[CELLS] ?? 0) > REST) {
      ends = convolve(ends, one)
      let sum = 0
      over.push(ends.map((p) => (sum += p)))
    }
    return over
  }

  /** P(n lives are over within that many whole cells): half of the last cell lies before its middle. */
  private overBy(n: number, cells: number): number {
    if (n === 0) return 1
    const g = this.over[n]
    if (!g || cells < 0) return 0
    const before = cells > 0 ? (g[cells - 1] ?? 0) : 0
    return (before + (g[cells] ?? 1)) / 2
  }

  /** What is left of a part of an age in cells, cell by cell; of one whose age nobody knows, as of any that stands somewhere in its life. */
  private left(age: Age): Float64Array {
    const known = this.leftOf.get(age)
    if (known) return known
    const stands = (cells: number) => this.stands(cells * this.step)
    const cells = new Float64Array(CELLS + 1)
    if (age === 'unknown')
      for (let j = 0; j <= CELLS; j++) {
        const [a, b] = [Math.max(0, j - 0.5), j + 0.5]
        cells[j] = ((b - a) * this.step * (stands(a) + 4 * stands((a + b) / 2) + stands(b))) / 6 / this.mean
      }
    else if (age !== 'due') {
      const now = stands(age)
      for (let j = 0, before = now; j <= CELLS; j++) {
        const after = stands(age + j + 0.5)
        cells[j] = (before - after) / now
        before = after
      }
    }
    this.leftOf.set(age, cells)
    return cells
  }
  private readonly leftOf = new Map<Age, Float64Array>()

  /** P(N ≥ n) within a whole number of cells, for n = 0, 1, 2 …; kept, for many guns ask for the same. */
  private atLeast(age: Age, x: number): number[] {
    if (x === 0) return age === 'due' ? [1, 1] : [1]
    const name = `${age} ${x}`
    const known = this.atLeastOf.get(name)
    if (known) return known
    const left = this.left(age)
    const list = [1]
    for (let n = 1; n < this.over.length; n++) {
      let sum = age === 'due' ? this.overBy(n - 1, x) : 0
      const g = this.over[n - 1] as Float64Array
      // The last cells lie half before x.
      if (n === 1) for (let j = 0; j <= x; j++) sum += (j < x ? 1 : 0.5) * (left[j] as number)
      else
        for (let j = 0; j <= x; j++)
          sum += ((left[j] as number) * ((j < x ? (g[x - j - 1] as number) : 0) + (g[x - j] as number))) / 2
      if (sum < REST) break
      list.push(Math.min(sum, list[n - 1] ?? 1))
    }
    this.atLeastOf.set(name, list)
    return list
  }
  private readonly atLeastOf = new Map<string, number[]>()

  /**
   * Chances of 0, 1, 2 … within `use`, of one that was put on `age` ago by the log; `share` of the changes are written down, so that it may be younger:
   * with S/Ḡ it is as old as the log says (Ḡ the open gap of the thinned log), else somewhere in its life.
   */
  within(use: number, age: number | null, share = 1): Counts {
    if (!(use >= 0)) throw new RangeError(`Renewals.within: expected use >= 0, got ${use}`)
    const isOld = age === null ? 0 : this.isThatOne(age, share)
    // Past its limit, or older than any: it is wanted at once.
    const at: Age =
      age === null ? 'unknown' : this.stands(age) <= NONE ? 'due' : Math.min(Math.round(age / this.step), this.oldest)
    const x = use / this.step
    if (x >= CELLS) return this.far(use, [isOld, at])
    const [below, f] = [Math.floor(x), x - Math.floor(x)]
    const sum: number[] = []
    const add = (of: number[], weight: number) => {
      if (weight > 0) of.forEach((p, n) => (sum[n] = (sum[n] ?? 0) + weight * p))
    }
    for (const [weight, of] of [[isOld, at] as const, [1 - isOld, 'unknown' as const] as const])
      if (weight > 0) {
        add(this.atLeast(of, below), weight * (1 - f))
        if (f > 0) add(this.atLeast(of, below + 1), weight * f)
      }
    return sum.map((p, n) => Math.max(0, p - (sum[n + 1] ?? 0)))
  }

  private far(use: number, [isOld, at]: readonly [number, Age]): Counts {
    let [mass, first, second] = [0, 0, 0]
    for (const [weight, of] of [[isOld, at] as const, [1 - isOld, 'unknown' as const] as const]) {
      if (of === 'due') mass += weight
      else
        this.left(of).forEach((p, j) => {
          mass += weight * p
          first += weight * p * j * this.step
          second += weight * p * (j * this.step) ** 2
        })
    }
    const [mu, sigma] = [this.mean, this.sd]
    // What is left beyond the cells lies at their end.
    first += (1 - mass) * CELLS * this.step
    second += (1 - mass) * (CELLS * this.step) ** 2
    const mean = 1 + (use - first) / mu + (sigma ** 2 - mu ** 2) / (2 * mu ** 2)
    const variance = (sigma ** 2 * (use - first)) / mu ** 3 + Math.max(0, second - first ** 2) / mu ** 2
    return normalCounts(mean, variance)
  }

  /** That no change since went unlogged. */
  private isThatOne(age: number, share: number): number {
    if (share >= 1) return 1
    const x = Math.round(age / this.step)
    if (x >= CELLS) return 0
    const alive = 1 - this.overBy(1, x)
    let [open, q] = [0, 1]
    for (let n = 0; n + 1 < this.over.length; n++, q *= 1 - share)
      open += q * (this.overBy(n, x) - this.overBy(n + 1, x))
    return open > 0 ? Math.min(1, Math.max(0, alive / open)) : 0
  }
}
/** An age in cells. */
type Age = number | 'unknown' | 'due'
/** As good as nothing. */
const NONE = 1e-12

function endOf(life: WearAndChance, most: number): number {
  let [low, high] = [0, most]
  for (let i = 0; i < 60; i++) {
    const middle = (low + high) / 2
    if (survivalOf(life, middle) > 1e-10) low = middle
    else high = middle
  }
  return high
}

function convolve(a: Float64Array, b: Float64Array): Float64Array {
  const sum = new Float64Array(CELLS + 1)
  for (let i = 0; i <= CELLS; i++) {
    const p = a[i] as number
    if (p > 0) for (let j = 0; i + j <= CELLS; j++) sum[i + j] = (sum[i + j] as number) + p * (b[j] as number)
  }
  return sum
}

/** A normal count, cut at zero: what lies about each whole number. */
export function normalCounts(mean: number, variance: number): number[] {
  const sd = Math.sqrt(Math.max(variance, 1e-12))
  const counts: number[] = []
  const last = Math.ceil(Math.max(0, mean) + 8 * sd + 1)
  for (let k = 0, below = 0; k <= last; k++) {
    const to = normalCdf((k + 0.5 - mean) / sd)
    counts.push(to - below)
    below = to
  }
  return counts
}

/** As many together as there are, of things that do not know of each other: pair by pair while they are few, by their moments once they are many. */
export function sumOf(list: readonly Counts[]): Counts {
  const mean = list.reduce((sum, c) => sum + meanOf(c), 0)
  if (mean > MANY)
    return normalCounts(
      mean,
      list.reduce((sum, c) => sum + varianceOf(c), 0),
    )
  return list.reduce<Counts>(together, [1])
}
const MANY = 60
