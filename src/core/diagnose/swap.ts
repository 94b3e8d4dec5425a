import { type StopRates } from '@core/payback/stopcost.ts'

/** Where nobody said what an hour costs, standing counts as twice a hand's. A guess. */
const USUAL = { stopMinorPerHour: 2, labourMinorPerHour: 1 }

/**
 * Minutes of search and repair from which another gun is the cheaper way. Swapping stands s minutes, and this gun is mended on the bench all the
 * same: the hand spends s more, twice with hanging it back. (E − s) · stop > 2s · labour, so E > s · (1 + 2 · labour/stop). Minutes > 0, costs of
 * an hour ≥ 0.
 * @example swapWorth(6, { stopMinorPerHour: 6000, labourMinorPerHour: 3000 }) // 12
 */
export function swapWorth(swapMin: number, rates: Pick<StopRates, 'stopMinorPerHour' | 'labourMinorPerHour'>): number {
  if (!(swapMin >= 0)) throw new RangeError(`swapWorth: expected minutes >= 0, got ${swapMin}`)
  const { stopMinorPerHour, labourMinorPerHour } = rates.stopMinorPerHour > 0 ? rates : USUAL
  return swapMin * (1 + (2 * labourMinorPerHour) / stopMinorPerHour)
}
