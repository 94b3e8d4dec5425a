import { type SchoolOf } from '@core/houserule/schools.ts'
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

/**
 * Whether a ready gun is offered (D20): where the shop swaps first, as soon as what is left takes longer than it is worth; where it mends in place,
 * only when the search takes twice what it should.
 */
export function isSwapOffered(of: {
  school: SchoolOf<'D20'>
  leftMin: number
  worthOverMin: number
  stoodMin: number
  /** What the search was thought to take at its beginning; null: not told. */
  firstMin: number | null
}): boolean {
  const isLate = of.firstMin !== null && of.stoodMin > 2 * of.firstMin
  return isLate || (of.school === 'swapFirst' && of.leftMin > of.worthOverMin)
}
