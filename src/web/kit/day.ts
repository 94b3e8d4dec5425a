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

/** A day behind or ahead; empty is none where one may be. */
export const anyDay =
  (units: UnitWorld, today: string, none: string | null = null): Reader<string | null> =>
  (typed) => {
    if (typed.trim() === '') return none === null ? { ok: true, value: null } : { ok: false, why: none }
    const day = parseDay(typed, units, today)
    return day ? { ok: true, value: day } : { ok: false, why: `That is no day; write ${writtenDay(today, units)}.` }
  }

/** A time of the day as people write it: "8:50", "0850", "8.50", "1 pm". @example wallText('1:30 pm') // 13:30 */
export const wallText: Reader<string> = (typed) => {
  const [, h = '', m = '00', half] = /^(\d{1,2})[:.h]?(\d{2})?\s*([ap]m)?$/i.exec(typed.trim()) ?? []
  const hour = half ? (Number(h) % 12) + (half.toLowerCase() === 'pm' ? 12 : 0) : Number(h)
  const isTime = h !== '' && hour < 24 && Number(m) < 60 && (!half || (Number(h) >= 1 && Number(h) <= 12))
  return isTime
    ? { ok: true, value: `${String(hour).padStart(2, '0')}:${m}` }
    : { ok: false, why: `“${typed}” is no time of the day; write 08:50.` }
}
