import { rateInterval } from '@core/stats/poisson.ts'

const DAYS_A_YEAR = 365

export interface Dedicated {
  /** Money a year that changing costs now, and its 95% span from how few changes were counted. */
  perYearMinor: number
  lowMinor: number
  highMinor: number
  /** Changes a year at which a gun of its own costs the same. */
  breakEvenPerYear: number
  changesPerYear: number
  says: 'pays' | 'does not pay' | 'too few to tell'
}

/**
 * When a gun kept for one wire pays (P015, P020): changing costs n·c a year, where n changes were counted over so many days
 * (exact Poisson 95% span, Garwood 1936) and c is one change there and back; a gun of its own costs its price over the years it
 * lasts. It pays when even the low end costs more, and does not when even the high end costs less.
 */
export function dedicating(input: {
  changes: number
  days: number
  costPerChangeMinor: number
  gunMinor: number
  gunYears: number
}): Dedicated {
  const { changes, days, costPerChangeMinor, gunMinor, gunYears } = input
  if (!(days > 0) || !(gunYears > 0))
    throw new RangeError(`dedicating: expected days and years > 0, got ${days}, ${gunYears}`)
  const perYear = DAYS_A_YEAR / days
  const span = rateInterval(changes, 1, 0.95)
  const gunPerYear = gunMinor / gunYears
  const low = span.low * perYear * costPerChangeMinor
  const high = span.high * perYear * costPerChangeMinor
  return {
    perYearMinor: changes * perYear * costPerChangeMinor,
    lowMinor: low,
    highMinor: high,
    breakEvenPerYear: costPerChangeMinor > 0 ? gunPerYear / costPerChangeMinor : Infinity,
    changesPerYear: changes * perYear,
    says: low > gunPerYear ? 'pays' : high < gunPerYear ? 'does not pay' : 'too few to tell',
  }
}
