import { rateInterval, type RateInterval } from '@core/stats/poisson.ts'
import { compareRates } from '@core/stats/rates.ts'

/** Per 100 of what it was counted over (kg, arc hours); null where nothing was. Exact Poisson (Garwood 1936). */
export const perHundred = (count: number, over: number): RateInterval | null =>
  over > 0 ? rateInterval(count, over / 100) : null

/**
 * So many of one for 100 of another, diffusers for 100 tips: 100 · n/m, with the exact interval of a ratio of two Poisson counts (Clopper–Pearson of
 * n/(n + m), turned). Null where there is none of the other. `high` is Infinity only where m is 0.
 * @example forHundred(3, 120) // { rate: 2.5, low: 0.5, high: 7.4 }
 */
export function forHundred(n: number, m: number): RateInterval | null {
  const { ratio, low, high } = compareRates({ n: m, over: 1 }, { n, over: 1 })
  return ratio === null ? null : { rate: 100 * ratio, low: 100 * low, high: 100 * high }
}

export interface RunAndStop {
  stops: number
  /** Minutes it stood. */
  minutes: number
  /** Minutes in which it should have run. */
  scheduledMin: number
  arcHours: number
}
export interface Availability {
  /** Arc hours from stop to stop; null: it never stopped. */
  betweenArcH: number | null
  /** Minutes a stop takes on average; null: it never stopped. */
  meanMin: number | null
  /** Share of scheduled time in which it could run; null: no times are set. */
  upShare: number | null
}
/** MTBF = arc hours ÷ stops, MTTR = minutes ÷ stops, availability = 1 − minutes stood ÷ minutes scheduled, not below 0. */
export const availability = ({ stops, minutes, scheduledMin, arcHours }: RunAndStop): Availability => ({
  betweenArcH: stops > 0 && arcHours > 0 ? arcHours / stops : null,
  meanMin: stops > 0 ? minutes / stops : null,
  upShare: scheduledMin > 0 ? Math.max(0, 1 - minutes / scheduledMin) : null,
})
