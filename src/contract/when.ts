import { isValid, parse } from 'date-fns'
import { type UnitWorld } from '@core/units/quantity.ts'

/** Days and months as people write them, in a sheet or in a field. */
const DAY_FORMATS = [
  'yyyy-MM-dd',
  'dd.MM.yyyy',
  'd.M.yyyy',
  'dd/MM/yyyy',
  'yyyy/MM/dd',
  'd MMM yyyy',
  'MMM d, yyyy',
  'd.M.yy',
  'd/M/yy',
]
const US_FORMATS = ['yyyy-MM-dd', 'MM/dd/yyyy', 'M/d/yyyy', 'yyyy/MM/dd', 'MMM d, yyyy', 'd MMM yyyy', 'M/d/yy']

/** Two figures of a year mean the one nearest to this. */
const NEAR = new Date(Date.UTC(2025, 0, 1))

/** Days whose year goes without saying. */
const YEARLESS = ['d.M.', 'd.M', 'd/M', 'd MMM', 'd MMMM', 'MMM d', 'MMMM d']
const US_YEARLESS = ['M/d', 'MMM d', 'MMMM d', 'd MMM', 'd MMMM']
const LEAP_YEARS = 5

/**
 * A day as people write it; day before month, unless the shop measures in US units. Null when it is no day. With `today` (yyyy-mm-dd) a day may stand
 * without its year, and is the last one of that name.
 * @example parseDay('Mon 3 Nov', 'metric', '2026-11-20') // '2026-11-03'
 */
export function parseDay(text: string, units: UnitWorld, today?: string): string | null {
  const plain = text
    .trim()
    .replace(/[T ]\d{1,2}:\d{2}(:\d{2}(\.\d+)?)?(Z|[+-]\d{2}:?\d{2})?$/, '')
    .replace(/^(mon|tues?|wed(nes)?|thu(rs)?|fri|sat(ur)?|sun)(day)?\.?,?\s+/i, '')
    .replace(/(\d)(st|nd|rd|th)\b/i, '$1')
  if (!/\d/.test(plain)) return null
  for (const format of units === 'us' ? US_FORMATS : DAY_FORMATS) {
    const day = dayIn(plain, format)
    if (day) return day
  }
  return today ? lastOfThatName(plain, units, today) : null
}

function dayIn(text: string, format: string): string | null {
  const day = parse(`${text} Z`, `${format} X`, NEAR)
  return isValid(day) && day.getUTCFullYear() > 1990 && day.getUTCFullYear() < 2200
    ? day.toISOString().slice(0, 10)
    : null
}

/** The last such day that is not still to come; the 29th of February may lie years back. */
function lastOfThatName(text: string, units: UnitWorld, today: string): string | null {
  const thisYear = Number(today.slice(0, 4))
  for (const format of units === 'us' ? US_YEARLESS : YEARLESS)
    for (let year = thisYear; year > thisYear - LEAP_YEARS; year--) {
      const day = dayIn(`${text} ${year}`, `${format} yyyy`)
      if (day && day <= today) return day
    }
  return null
}

const MONTH_FORMATS = ['yyyy-MM', 'MM/yyyy', 'M/yyyy', 'MM.yyyy', 'M.yyyy', 'MMM yyyy', 'MMMM yyyy', 'MMM yy', 'MMM-yy']

/** A month as people write it, or the month of a day: "2026-03", "03/2026", "Mar 26". Null when it is neither. */
export function parseMonth(text: string, units: UnitWorld): string | null {
  const plain = text.trim()
  for (const format of MONTH_FORMATS) {
    const month = parse(`${plain} Z`, `${format} X`, NEAR)
    if (isValid(month) && month.getUTCFullYear() > 1990 && month.getUTCFullYear() < 2200)
      return month.toISOString().slice(0, 7)
  }
  return parseDay(plain, units)?.slice(0, 7) ?? null
}

/** A day with the time of day that may stand behind it. */
export function parseWhen(text: string, units: UnitWorld, today?: string): { day: string; time: string | null } | null {
  const day = parseDay(text, units, today)
  if (!day) return null
  const time = /[T ]([01]?\d|2[0-3]):([0-5]\d)(:\d{2}(\.\d+)?)?$/.exec(text.trim())
  return { day, time: time ? `${(time[1] ?? '').padStart(2, '0')}:${time[2] ?? ''}` : null }
}
