import { type Replacement, type ChangeCosts } from './agereplace.ts'
import { meanLife, mustBeWeibull, type Weibull } from './residual.ts'

const CELLS = 1500

/**
 * Renewal function of a part changed at once when it fails, M(t) = F(t) + ∫₀ᵗ M(t − s) dF(s): failures to be expected by t. Answered at
 * equal steps up to `until`, by the midpoint rule for Riemann–Stieltjes sums, on two grids and drawn out to none.
 * Source: Xie 1989; Smith & Leadbetter 1963.
 * @example renewals({ shape: 1, scale: 2 }, 4).at(4) // 2
 */
export function renewals(wear: Weibull, until: number): { at: (t: number) => number } {
  mustBeWeibull('renewals', wear)
  if (!(until > 0)) throw new RangeError(`renewals: expected a time > 0, got ${until}`)
  const [coarse, fine] = [gridOf(wear, until, CELLS), gridOf(wear, until, 2 * CELLS)]
  const values = Float64Array.from(coarse, (c, i) => (4 * (fine[2 * i] ?? 0) - c) / 3)
  return {
    at: (t) => {
      if (!(t >= 0 && t <= until * (1 + 1e-12))) throw new RangeError(`renewals: expected 0…${until}, got ${t}`)
      const x = Math.min(CELLS, (t / until) * CELLS)
      const i = Math.min(CELLS - 1, Math.floor(x))
      return between(values, i, x - i)
    },
  }
}
/** Through four neighbours (Lagrange), so that what is read off between steps is as good as the steps. */
function between(values: Float64Array, i: number, f: number): number {
  const first = Math.min(Math.max(0, i - 1), values.length - 4)
  const x = i - first + f
  let sum = 0
  for (let a = 0; a < 4; a++) {
    let weight = 1
    for (let b = 0; b < 4; b++) if (b !== a) weight *= (x - b) / (a - b)
    sum += weight * (values[first + a] ?? 0)
  }
  return sum
}
function gridOf({ shape, scale }: Weibull, until: number, cells: number): Float64Array {
  const step = until / cells
  const failed = (t: number) => -Math.expm1(-((t / scale) ** shape))
  const half = Float64Array.from({ length: cells }, (_, j) => failed((j + 0.5) * step))
  const m = new Float64Array(cells + 1)
  const first = half[0] ?? 0
  for (let i = 1; i <= cells; i++) {
    let sum = failed(i * step) - (m[i - 1] ?? 0) * first
    for (let j = 1; j < i; j++) sum += ((m[j] ?? 0) - (m[j - 1] ?? 0)) * (half[i - j] ?? 0)
    m[i] = sum / (1 - first)
  }
  return m
}

/** How far block changes are looked at, in mean lives: later, the cost hardly differs from never. */
const FAR = 4
/**
 * Changed at T, 2T, … whatever its age, and at once when it fails between ("every Friday"): C(T) = (c_p + c_f M(T))/T, its least by
 * looking at all T up to four mean lives. Nothing under run to failure: not finite. Source: Nakagawa 2005.
 */
export function bestBlock(
  wear: Weibull,
  { cp, cf }: ChangeCosts,
): Replacement & { M: number | null; failuresBy: (T: number) => number } {
  const mean = meanLife(wear)
  const { at } = renewals(wear, FAR * mean)
  const cost = (T: number) => (cp + cf * at(T)) / T
  let best = 0
  for (let i = 1; i <= CELLS; i++) {
    const T = (i / CELLS) * FAR * mean
    if (best === 0 || cost(T) < cost(best)) best = T
  }
  const step = (FAR * mean) / CELLS
  const T = lowest(cost, [Math.max(step / 2, best - step), Math.min(FAR * mean, best + step)])
  const costRunToFailure = cf / mean
  const finite = cost(T) < costRunToFailure && T < FAR * mean * 0.999
  return {
    ...{ finite, costRunToFailure, T: finite ? T : null, M: finite ? at(T) : null, failuresBy: at },
    cost: finite ? cost(T) : costRunToFailure,
    relativeSaving: finite ? 1 - cost(T) / costRunToFailure : 0,
  }
}
const GOLD = (Math.sqrt(5) - 1) / 2
/** Least of a function with one dip between two ends, by the golden section, to within a share of where it lies. */
export function lowest(f: (x: number) => number, [from, to]: readonly [number, number], within = 1e-10): number {
  let [low, high] = [from, to]
  for (let n = 0; n < 80 && high - low > within * Math.abs(high); n++) {
    const [a, b] = [high - GOLD * (high - low), low + GOLD * (high - low)]
    if (f(a) < f(b)) high = b
    else low = a
  }
  return (low + high) / 2
}
