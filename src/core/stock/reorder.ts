import { normalLoss, normalQuantile } from '@core/stats/normal.ts'
import { atMost, beyond, enoughFor, meanOf, poissonCounts, type Counts } from './counts.ts'

/** When to order: what has to lie there when the order goes out, so that it lasts until the parts are in. */
export interface ReorderPoint {
  meanDemand: number
  point: number
  /** Chance that it lasts, with that many and with one fewer. */
  service: number
  serviceBelow: number
  /** Parts that are wanted and not there, on average each time. */
  shortage: number
  safety: number
}

/**
 * The fewest parts that last over a lead time with a chance: the smallest r with P(D ≤ r) ≥ service. Nothing wanted is nothing kept.
 * Source: Hadley & Whitin (1963). Misuse throws.
 * @example reorderPoint(poissonCounts(3.2 * 2), 0.95).point // 11
 */
export function reorderPoint(demand: Counts, service: number): ReorderPoint {
  const [point, meanDemand] = [enoughFor(demand, service), meanOf(demand)]
  return {
    ...{ meanDemand, point, safety: point - meanDemand },
    service: atMost(demand, point),
    serviceBelow: atMost(demand, point - 1),
    shortage: beyond(demand, point),
  }
}
export const poissonReorder = (of: { perDay: number; leadDays: number; service: number }): ReorderPoint =>
  reorderPoint(poissonCounts(of.perDay * of.leadDays), of.service)

export interface NormalReorder {
  meanDemand: number
  sdDemand: number
  z: number
  safety: number
  point: number
  shortage: number
}
/**
 * The same of what is wanted in quantities and not by the piece: r = dL + z·√(L·s² + d²·s_L²), d and s a day's mean and spread, L and s_L the lead
 * time's in days. Not rounded; below the mean where less than every second time is asked for.
 * @example normalReorder({ perDay: 20, sdPerDay: 6, leadDays: 5, sdLeadDays: 0, service: 0.95 }).point // 122.07
 */
export function normalReorder(of: {
  perDay: number
  sdPerDay: number
  leadDays: number
  sdLeadDays: number
  service: number
}): NormalReorder {
  const { perDay, sdPerDay, leadDays, sdLeadDays, service } = of
  if (!(perDay >= 0 && sdPerDay >= 0 && leadDays >= 0 && sdLeadDays >= 0))
    throw new RangeError('normalReorder: expected nothing below zero')
  const z = normalQuantile(service)
  const sdDemand = Math.sqrt(leadDays * sdPerDay ** 2 + perDay ** 2 * sdLeadDays ** 2)
  const [meanDemand, safety] = [perDay * leadDays, z * sdDemand]
  return { meanDemand, sdDemand, z, safety, point: meanDemand + safety, shortage: sdDemand * normalLoss(z) }
}
