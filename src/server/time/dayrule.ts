import * as asModule from 'rrule'
import { DAY_MS } from '@core/units/time.ts'

/** The package is a module where it is bundled and none where Node runs it: both tell the same names. */
const { RRule } = 'default' in asModule ? (asModule.default as typeof asModule) : asModule

/**
 * Rules of days, as iCalendar says them. Days are the site's own and reckoned without a zone: the clock that goes forward between two of them moves
 * nothing. What time of the day is the entry's own and is set on the wall of each day.
 */
const MOST_DAYS = 2000
const midnight = (day: string) => new Date(`${day}T00:00:00Z`)
const dayOfDate = (date: Date) => date.toISOString().slice(0, 10)

export type RuleProblem =
  | { is: 'unreadable' }
  /** It comes more often than once a day. */
  | { is: 'often' }
  /** It never comes. */
  | { is: 'never' }

function parsed(rule: string, firstDay: string) {
  const options = RRule.parseString(rule.replace(/^RRULE:/i, ''))
  // What it says of the time of day is the entry's to say.
  const { byhour: _h, byminute: _m, bysecond: _s, ...days } = options
  return new RRule({ ...days, dtstart: midnight(firstDay), tzid: null })
}

/** What is wrong with a rule; null: it can be followed. */
export function ruleProblem(rule: string, firstDay: string): RuleProblem | null {
  try {
    const made = parsed(rule, firstDay)
    if (made.options.freq > RRule.DAILY) return { is: 'often' }
    if (made.all((_, i) => i < 1).length === 0) return { is: 'never' }
    return null
  } catch {
    return { is: 'unreadable' }
  }
}

/** The days of a rule from one day to another, both in it; without a rule its first day alone. At most two thousand. */
export function daysOf(of: { firstDay: string; rule: string | null }, fromDay: string, toDay: string): string[] {
  if (of.rule === null) return of.firstDay >= fromDay && of.firstDay <= toDay ? [of.firstDay] : []
  const rule = parsed(of.rule, of.firstDay)
  const days: string[] = []
  rule.between(midnight(fromDay), new Date(midnight(toDay).getTime() + DAY_MS - 1), true, (date, n) => {
    days.push(dayOfDate(date))
    return n < MOST_DAYS
  })
  return days
}

/** The rule of so many days of the week until a day, or for good. 1 Monday … 7 Sunday. */
export function weeklyRule(weekdays: readonly number[], untilDay: string | null, everyWeeks = 1): string {
  const names = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU']
  const by = [...new Set(weekdays)].sort().flatMap((n) => names[n - 1] ?? [])
  return [
    'FREQ=WEEKLY',
    ...(everyWeeks > 1 ? [`INTERVAL=${everyWeeks}`] : []),
    `BYDAY=${by.join(',')}`,
    ...(untilDay ? [`UNTIL=${untilDay.replaceAll('-', '')}T235959Z`] : []),
  ].join(';')
}
/** A weekly rule taken apart again; null: it is another one, and stays as it is. */
export function asWeekly(rule: string): { weekdays: number[]; untilDay: string | null; everyWeeks: number } | null {
  const parts = new Map(rule.split(';').map((p) => p.split('=') as [string, string]))
  const names = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU']
  const by = parts.get('BYDAY')?.split(',') ?? []
  const known = new Set(['FREQ', 'INTERVAL', 'BYDAY', 'UNTIL', 'WKST'])
  if (parts.get('FREQ') !== 'WEEKLY' || by.length === 0 || [...parts.keys()].some((k) => !known.has(k))) return null
  if (by.some((d) => !names.includes(d))) return null
  const until = parts.get('UNTIL')
  return {
    weekdays: by.map((d) => names.indexOf(d) + 1),
    untilDay: until ? `${until.slice(0, 4)}-${until.slice(4, 6)}-${until.slice(6, 8)}` : null,
    everyWeeks: Number(parts.get('INTERVAL') ?? 1),
  }
}
