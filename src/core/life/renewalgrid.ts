import { type Weibull } from './residual.ts'

/** Wear, and hazards that do not grow with age (burnback, knocks): S(t) = exp(−(t/λ)^k − r t). */
export interface WearAndChance extends Weibull {
  /** Ends by chance for one unit of use. */
  rate: number
}
export const survivalOf = ({ shape, scale, rate }: WearAndChance, t: number): number =>
  Math.exp(-((t / scale) ** shape) - rate * t)
/** Density of an end by wear, f_w = h_w S. */
export const wornDensity = (life: WearAndChance, t: number): number =>
  t <= 0 ? 0 : (life.shape / life.scale) * (t / life.scale) ** (life.shape - 1) * survivalOf(life, t)

export const CELLS = 400

/**
 * What is seen of a part that is changed each time it ends, when only a share q of the changes is written down: the gap between two lines of
 * the log holds a geometric number of lives. With U = Σ ((1 − q) f)^*n on a lattice (u₀ = 1/(1 − p₀), u_j = u₀ Σ p_i u_{j−i}):
 * open gap Ḡ = S ∗ U, gap ended by wear g_w = q f_w ∗ U, by chance g_r = q r Ḡ. The part of no unlogged change is kept exact; only the rest
 * is read off the grid, so that q = 1 gives the plain model. Beyond the grid the tail runs on at its last rate.
 * Source: Cox 1962, Renewal Theory; thinning of renewal processes.
 */
export interface SeenGaps {
  survival: (x: number) => number
  wornAt: (x: number) => number
  /** Chance that the gap ended by wear before x. */
  wornBy: (x: number) => number
  /** ∫₀ˣ Ḡ. */
  openArea: (x: number) => number
  /** Mean of one life, and the share of lives that end by wear. */
  mean: number
  share: number
}

export function seenGaps(life: WearAndChance, share: number, until: number): SeenGaps {
  if (!(share > 0 && share <= 1)) throw new RangeError(`seenGaps: expected a logging share in 0…1, got ${share}`)
  const grid = new Grid(life, until)
  return share === 1 ? plain(grid) : thinned(grid, share)
}

/** The model's own curves at equal steps. */
class Grid {
  readonly step: number
  readonly survival = new Float64Array(CELLS + 1)
  /** ∫₀ᵗ S, by Simpson's rule in each cell. */
  readonly area = new Float64Array(CELLS + 1)
  readonly mean: number
  constructor(
    readonly life: WearAndChance,
    readonly until: number,
  ) {
    this.step = until / CELLS
    this.survival[0] = 1
    for (let i = 1; i <= CELLS; i++) {
      const [before, here] = [this.survival[i - 1] ?? 0, survivalOf(life, i * this.step)]
      const middle = survivalOf(life, (i - 0.5) * this.step)
      this.survival[i] = here
      this.area[i] = (this.area[i - 1] ?? 0) + (this.step * (before + 4 * middle + here)) / 6
    }
    this.mean = (this.area[CELLS] ?? 0) + tailArea(life, until)
  }
  read(values: Float64Array, x: number): number {
    const at = x / this.step
    const i = Math.min(CELLS - 1, Math.floor(at))
    const f = at - i
    return (values[i] ?? 0) * (1 - f) + (values[i + 1] ?? 0) * f
  }
  areaAt(x: number): number {
    if (x >= this.until) return this.mean - tailArea(this.life, x)
    const i = Math.floor(x / this.step)
    const from = i * this.step
    return (this.area[i] ?? 0) + ((x - from) * ((this.survival[i] ?? 0) + survivalOf(this.life, x))) / 2
  }
}
/** ∫ from t of S, in steps of where it falls to a tenth: only reached where the grid ends early. */
function tailArea(life: WearAndChance, from: number): number {
  const at = (t: number) => survivalOf(life, t)
  let [sum, t, step] = [0, from, life.scale / 40]
  for (let n = 0; n < 4000 && at(t) > 1e-12; n++) {
    sum += (step * (at(t) + 4 * at(t + step / 2) + at(t + step))) / 6
    t += step
    step *= 1.01
  }
  return sum
}

function plain(grid: Grid): SeenGaps {
  const { life, until, survival, area } = grid
  const worn = survival.map((s, i) => Math.max(0, 1 - s - life.rate * (area[i] ?? 0)))
  return {
    survival: (x) => survivalOf(life, x),
    wornAt: (x) => wornDensity(life, x),
    wornBy: (x) => (x < until ? grid.read(worn, x) : Math.max(0, 1 - survivalOf(life, x) - life.rate * grid.areaAt(x))),
    openArea: (x) => (x < until ? grid.read(area, x) : grid.areaAt(x)),
    mean: grid.mean,
    share: 1 - life.rate * grid.mean,
  }
}

function thinned(grid: Grid, share: number): SeenGaps {
  const { life, step, until } = grid
  const unlogged = unloggedOf(grid, share)
  const { open, worn } = restOf(grid, unlogged, share)
  const seen = plain(grid)
  const [restArea, restWorn] = [summed(open, step), summed(worn, step)]
  const openArea = grid.area.map((v, i) => v + (restArea[i] ?? 0))
  const wornBy = restWorn.map((v, i) => v + share * seen.wornBy(i * step))
  const last = (f: (x: number) => number) => Math.max(f(until), 1e-300)
  const survival = (x: number) => survivalOf(life, x) + grid.read(open, Math.min(x, until))
  const wornAt = (x: number) => share * wornDensity(life, x) + grid.read(worn, Math.min(x, until))
  const fall = Math.max(1e-9, Math.log(last((x) => survival(x - 4 * step)) / last(survival)) / (4 * step))
  const beyond = (x: number) => (x <= until ? 1 : Math.exp(-fall * (x - until)))
  const tail = (x: number) => (x <= until ? 0 : (1 - beyond(x)) / fall)
  return {
    survival: (x) => survival(Math.min(x, until)) * beyond(x),
    wornAt: (x) => wornAt(Math.min(x, until)) * beyond(x),
    wornBy: (x) => grid.read(wornBy, Math.min(x, until)) + (x > until ? wornAt(until) * tail(x) : 0),
    openArea: (x) => grid.read(openArea, Math.min(x, until)) + (x > until ? survival(until) * tail(x) : 0),
    mean: seen.mean,
    share: seen.share,
  }
}

/** U less the life without any unlogged change. Each cell's mass lies half at either end. */
function unloggedOf(grid: Grid, share: number): Float64Array {
  const p = new Float64Array(CELLS + 1)
  for (let i = 0; i < CELLS; i++) {
    const half = ((1 - share) * ((grid.survival[i] ?? 0) - (grid.survival[i + 1] ?? 0))) / 2
    p[i] = (p[i] ?? 0) + half
    p[i + 1] = (p[i + 1] ?? 0) + half
  }
  const u = new Float64Array(CELLS + 1)
  const first = 1 / (1 - (p[0] ?? 0))
  u[0] = first
  for (let j = 1; j <= CELLS; j++) {
    let sum = 0
    for (let i = 1; i <= j; i++) sum += (p[i] as number) * (u[j - i] as number)
    u[j] = sum * first
  }
  u[0] = first - 1
  return u
}

/** What unlogged changes add to the open gap, and to the density of its end by wear. */
function restOf(grid: Grid, u: Float64Array, share: number): { open: Float64Array; worn: Float64Array } {
  const { life, step, survival, area } = grid
  const density = new Float64Array(CELLS + 1)
  const by = (i: number) => 1 - (survival[i] ?? 0) - life.rate * (area[i] ?? 0)
  for (let i = 0; i < CELLS; i++)
    density[i] = (share * (by(i + 1) - by(Math.max(0, i - 1)))) / (i === 0 ? step : 2 * step)
  density[0] = wornDensity(life, step / 1e3) * share
  const open = new Float64Array(CELLS + 1)
  const worn = new Float64Array(CELLS + 1)
  for (let i = 0; i <= CELLS; i++) {
    let [o, w] = [0, 0]
    for (let j = 0; j <= i; j++) {
      const uj = u[j] as number
      o += uj * (survival[i - j] as number)
      w += uj * (density[i - j] as number)
    }
    // Of the mass that lies in the cells about this node, half came before it.
    open[i] = o - (u[i] ?? 0) / (i > 0 ? 2 : 1)
    worn[i] = w - ((u[i] ?? 0) * (density[0] ?? 0)) / (i > 0 ? 2 : 1)
  }
  return { open, worn }
}
function summed(values: Float64Array, step: number): Float64Array {
  const sums = new Float64Array(values.length)
  for (let i = 1; i < values.length; i++)
    sums[i] = (sums[i - 1] ?? 0) + (step * ((values[i - 1] ?? 0) + (values[i] ?? 0))) / 2
  return sums
}

/** n lives one after the other, all told of: density that the nth ends by wear at x, and the chance that they are not all over by then. */
export function sumOfLives(life: WearAndChance, parts: number, until: number): Pick<SeenGaps, 'survival' | 'wornAt'> {
  const grid = new Grid(life, until)
  const one = new Float64Array(CELLS + 1)
  for (let i = 0; i < CELLS; i++) {
    const half = ((grid.survival[i] ?? 0) - (grid.survival[i + 1] ?? 0)) / 2
    one[i] = (one[i] ?? 0) + half
    one[i + 1] = (one[i + 1] ?? 0) + half
  }
  const before = powerOf(one, parts - 1)
  const { open, worn } = restOf(grid, before, 1)
  let sum = 0
  const done = before.map((v, i) => {
    sum += v
    return i === 0 ? 0 : sum - v / 2
  })
  return {
    // Not all over: still in an earlier one, or in the last.
    survival: (x) => Math.max(0, 1 - grid.read(done, Math.min(x, until))) + grid.read(open, Math.min(x, until)),
    wornAt: (x) => grid.read(worn, Math.min(x, until)),
  }
}
function powerOf(one: Float64Array, n: number): Float64Array {
  return n === 1 ? one : convolved(powerOf(one, n - 1), one)
}
function convolved(a: Float64Array, b: Float64Array): Float64Array {
  const c = new Float64Array(a.length)
  for (let i = 0; i < a.length; i++) {
    let sum = 0
    for (let j = 0; j <= i; j++) sum += (a[j] as number) * (b[i - j] as number)
    c[i] = sum
  }
  return c
}
