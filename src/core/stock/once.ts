import { normalLoss, normalQuantile } from '@core/stats/normal.ts'
import { atMost, beyond, enoughFor, meanOf, type Counts } from './counts.ts'

/** Bought once for a term: one too few costs that, one too many this. */
export interface OnceCosts {
  under: number
  over: number
}
export interface OnceBought {
  /** under/(under + over): the chance with which it is to be enough. */
  ratio: number
  quantity: number
  cost: number
}
const ratioOf = ({ under, over }: OnceCosts) => {
  if (!(under > 0 && over >= 0)) throw new RangeError(`once: expected under > 0 and over >= 0, got ${under}, ${over}`)
  return under / (under + over)
}

/** What it costs on average to have bought that many: under·E(D − Q)+ + over·E(Q − D)+. */
export function costOfOnce(demand: Counts, quantity: number, { under, over }: OnceCosts): number {
  const short = beyond(demand, quantity)
  return under * short + over * (quantity - meanOf(demand) + short)
}

const CLOSE = 1e-12
/**
 * How many to buy once: the smallest Q with F(Q) ≥ under/(under + over). Where F hits that exactly one more is as good (`alsoOptimal`).
 * Source: Silver, Pyke & Peterson (1998). Misuse throws.
 * @example buyOnce(poissonCounts(8.4), { under: 5, over: 2 }).quantity // 10
 */
export function buyOnce(demand: Counts, costs: OnceCosts): OnceBought & { alsoOptimal: number[] } {
  const ratio = ratioOf(costs)
  // Nothing lost by one too many: all that anybody could want.
  const quantity = ratio >= 1 ? demand.length - 1 : enoughFor(demand, ratio)
  const isTie = Math.abs(atMost(demand, quantity) - ratio) < CLOSE
  return { ratio, quantity, alsoOptimal: isTie ? [quantity + 1] : [], cost: costOfOnce(demand, quantity, costs) }
}

/** The same of a quantity that is normal: Q = μ + z·σ, cost = (under + over)·σ·φ(z) in the end. */
export function buyOnceNormal(of: { mean: number; sd: number }, costs: OnceCosts): OnceBought {
  const ratio = ratioOf(costs)
  if (!(of.sd > 0)) throw new RangeError(`buyOnceNormal: expected sd > 0, got ${of.sd}`)
  const z = normalQuantile(ratio)
  const short = of.sd * normalLoss(z)
  const quantity = of.mean + z * of.sd
  return { ratio, quantity, cost: costs.under * short + costs.over * (quantity - of.mean + short) }
}
