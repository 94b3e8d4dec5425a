import { logGamma } from '@core/stats/beta.ts'
import { lowerGamma } from '@core/stats/gamma.ts'
import { meanLife, mustBeWeibull, type Weibull } from './residual.ts'

/** Whole cost of a change made in time, and of one that came too late (minor units, or any one unit). */
export interface ChangeCosts {
  cp: number
  cf: number
}
/** A time to change at, by age or by the calendar, and what it costs. */
export interface Replacement {
  /** False where no finite age is cheapest: run to failure. */
  finite: boolean
  T: number | null
  /** For one unit of use, at T or run to failure. */
  cost: number
  costRunToFailure: number
  relativeSaving: number
}
export interface AgeReplacement extends Replacement {
  /** Share of parts that get as old as T; null where there is none. */
  reliabilityAtT: number | null
  /** There is none, or hardly a part gets that old: the age is of paper, and run to failure is what is said. */
  isPracticallyNever: boolean
}

/**
 * Cost for one unit of use when each part is changed at age T or when it fails: C(T) = (c_p R(T) + c_f F(T)) / ∫₀ᵀR,
 * ∫₀ᵀR = (λ/k) γ(1/k, (T/λ)^k). T > 0. Source: Barlow & Proschan 1965.
 * @example costAt({ shape: 2, scale: 100 }, { cp: 1, cf: 10 }, 25) // 0.0631
 */
export function costAt(wear: Weibull, { cp, cf }: ChangeCosts, T: number): number {
  const { reliability, failed, used } = cycle(wear, T)
  return (cp * reliability + cf * failed) / used
}

function cycle({ shape, scale }: Weibull, T: number) {
  const u = (T / scale) ** shape
  const used = (scale / shape) * Math.exp(logGamma(1 / shape)) * lowerGamma(1 / shape, u)
  return {
    reliability: Math.exp(-u),
    failed: -Math.expm1(-u),
    used,
    hazard: (shape / scale) * (T / scale) ** (shape - 1),
  }
}

/**
 * The age of least cost: h(T)∫₀ᵀR − F(T) = c_p/(c_f − c_p), where C* = (c_f − c_p) h(T*). The left side rises with T when k > 1;
 * k ≤ 1 or c_f ≤ c_p has no finite one; k barely above 1 has one that hardly a part reaches. Costs > 0; else misuse throws. Source: Barlow & Hunter 1960.
 * @example bestAge({ shape: 2, scale: 100 }, { cp: 1, cf: 10 }).T // 33.6
 */
export function bestAge(wear: Weibull, costs: ChangeCosts): AgeReplacement {
  mustBeWeibull('bestAge', wear)
  const { cp, cf } = costs
  if (!(cp > 0) || !(cf > 0)) throw new RangeError(`bestAge: expected costs > 0, got ${cp}, ${cf}`)
  const costRunToFailure = cf / meanLife(wear)
  const none = { finite: false, T: null, reliabilityAtT: null, isPracticallyNever: true }
  const never = { ...none, cost: costRunToFailure, costRunToFailure, relativeSaving: 0 }
  if (wear.shape <= 1 || cf <= cp) return never
  const T = rootOf(wear, cp / (cf - cp))
  if (T === null) return never
  const cost = costAt(wear, costs, T)
  const { reliability } = cycle(wear, T)
  const at = { finite: true, T, reliabilityAtT: reliability, isPracticallyNever: reliability < HARDLY }
  return { ...at, cost, costRunToFailure, relativeSaving: 1 - cost / costRunToFailure }
}
/** One part in a thousand. */
const HARDLY = 1e-3

/** ln (T/λ) between these; later than the last means never. */
const REACH = { least: -60, most: 60 }
function rootOf(wear: Weibull, ratio: number): number | null {
  const isEarly = (logAge: number) => {
    const { hazard, used, failed } = cycle(wear, wear.scale * Math.exp(logAge))
    return hazard * used - failed < ratio
  }
  let [low, high] = [REACH.least, REACH.most]
  if (isEarly(high)) return null
  for (let n = 0; n < 200 && high - low > 1e-15 * Math.max(1, Math.abs(low)); n++) {
    const middle = (low + high) / 2
    if (isEarly(middle)) low = middle
    else high = middle
  }
  return wear.scale * Math.exp((low + high) / 2)
}
