import { type UnitWorld } from '@core/units/quantity.ts'
import { parseDay } from '@contract/when.ts'
import { type Reader } from './readform.ts'

const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec']
/** A day as this shop writes it, whatever the browser's country: "20 Nov 2026", in a US shop "Nov 20, 2026". @param day yyyy-mm-dd */
export function writtenDay(day: string, units: UnitWorld): string {
  const [year = '', month = '', date = ''] = day.split('-')
  const name = MONTHS[Number(month) - 1]
  if (!name) return day
  return units === 'us' ? `${name} ${Number(date)}, ${year}` : `${Number(date)} ${name} ${year}`
}

/** Reads a day as people write it, a day without its year too; one that is still to come is refused. */
export const pastDay =
  (units: UnitWorld, today: string): Reader<string> =>
  (typed) => {
    const day = parseDay(typed, units, today)
    if (!day) return { ok: false, why: `That is no day; write ${writtenDay(today, units)}.` }
    return day > today ? { ok: false, why: 'That day is still to come.' } : { ok: true, value: day }
  }

/** A day that is still to come, or today; a day without its year is the next of its name. */
export const comingDay =
  (units: UnitWorld, today: string): Reader<string> =>
  (typed) => {
    if (typed.trim() === '') return { ok: true, value: '' }
    const day = parseDay(typed, units, today)
    if (!day) return { ok: false, why: `That is no day; write ${writtenDay(today, units)}.` }
    if (day >= today) return { ok: true, value: day }
    const next = `${Number(day.slice(0, 4)) + 1}${day.slice(4)}`
    const isYearGiven = /\d{4}/.test(typed)
    return isYearGiven || next < today ? { ok: false, why: 'That day is past.' } : { ok: true, value: next }
  }
