import { pOfRise } from '@core/trend/mannkendall.ts'
import { median } from '@core/trend/theilsen.ts'
import { LEAST_HOURS, type FoundClosed } from './interval.ts'

const LEAST = 6
const CHANCE = 0.1
const RATIO = 1.3

/**
 * Whether the nozzle closes ever faster: closure per arc hour of each cleaning, newest last; Mann–Kendall for a rise at 1 in 10, and the later
 * half at least 1.3 times the earlier. It says: more spatter is made, look at settings and gas, before cleaning oftener. False with under six.
 * Source: Mann 1945, Kendall 1975.
 */
export function cleaningRises(found: readonly FoundClosed[]): boolean {
  const rates = found.filter((f) => f.arcHours >= LEAST_HOURS).map((f) => f.closedShare / f.arcHours)
  if (rates.length < LEAST) return false
  const half = Math.floor(rates.length / 2)
  const [early, late] = [median(rates.slice(0, half)), median(rates.slice(-half))]
  return early > 0 && late / early >= RATIO && pOfRise(rates) < CHANCE
}
