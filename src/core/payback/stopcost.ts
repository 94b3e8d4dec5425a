import { type KindKey } from '@core/path/columns.ts'
/** What a class of places costs by the hour, and what a piece costs that is scrapped; 0: nobody said. */
export interface StopRates {
  stopMinorPerHour: number
  labourMinorPerHour: number
  scrapMinorPerPiece: number
}
export interface UsedPart {
  kindKey: KindKey
  n: number
  /** Null: no price stands beside it. */
  priceMinor: number | null
}
export interface StopUsed {
  minutes: number
  parts: readonly UsedPart[]
  wireKg: number
  wireMinorPerKg: number | null
  /** Pieces of work that were scrapped; null: nobody said. */
  scrapped: number | null
}
/** Where the money of a stop went, minor units. */
export interface StopCost {
  standMinor: number
  handsMinor: number
  partsMinor: number
  wireMinor: number
  scrapMinor: number
}
export const COST_PARTS = ['standMinor', 'handsMinor', 'partsMinor', 'wireMinor', 'scrapMinor'] as const
/** Nobody stands beside a gun for longer: after that it waits, and no hand is paid for it. A guess. */
export const HANDS_MOST_MIN = 60

/**
 * Money of one stop: standing = minutes · rate/60; hands = min(minutes, 60) · labour/60; parts = Σ n · price; wire = kg · price; scrap = pieces ·
 * price of one. What nobody priced counts nothing, so that it is at least that. Minutes, kg, pieces ≥ 0.
 * @example costOfStop({ minutes: 20, parts: [], wireKg: 0, wireMinorPerKg: null, scrapped: null }, rates).standMinor
 */
export function costOfStop(used: StopUsed, rates: StopRates): StopCost {
  if (!(used.minutes >= 0) || !(used.wireKg >= 0))
    throw new RangeError(`costOfStop: expected minutes and kg >= 0, got ${used.minutes}, ${used.wireKg}`)
  return {
    standMinor: (used.minutes * rates.stopMinorPerHour) / 60,
    handsMinor: (Math.min(used.minutes, HANDS_MOST_MIN) * rates.labourMinorPerHour) / 60,
    partsMinor: used.parts.reduce((sum, p) => sum + p.n * (p.priceMinor ?? 0), 0),
    wireMinor: used.wireKg * (used.wireMinorPerKg ?? 0),
    scrapMinor: (used.scrapped ?? 0) * rates.scrapMinorPerPiece,
  }
}

export const NO_COST: StopCost = { standMinor: 0, handsMinor: 0, partsMinor: 0, wireMinor: 0, scrapMinor: 0 }
export function addCost(a: StopCost, b: StopCost): StopCost {
  const sum = { ...a }
  for (const part of COST_PARTS) sum[part] += b[part]
  return sum
}
export const totalMinor = (cost: StopCost): number => COST_PARTS.reduce((sum, part) => sum + cost[part], 0)
