import { type CalendarAnswer } from '@contract/classes.ts'
import { type Units } from '@web/format/numbers.ts'
import { writtenDay } from '@web/kit/day.ts'
import { clockTime } from '@web/format/times.ts'
import { listed } from '@web/format/words.ts'

type Occurrence = CalendarAnswer['occurrences'][number]
const DAY_NAMES = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun']
export const weekdayName = (n: number) => DAY_NAMES[n - 1] ?? ''

/** "Mon, Wed 10:00–11:45, every 2 weeks, until 11 Jun 2027." */
export function entryWords(e: CalendarAnswer['entries'][number], units: Units): string {
  const time = `${e.start}–${e.end}`
  if (!e.rule) return `once, ${writtenDay(e.firstDay, units)} ${time}`
  if (!e.weekly) return `${time}, by a rule of its own from ${writtenDay(e.firstDay, units)}`
  const { weekdays, everyWeeks, untilDay } = e.weekly
  return [
    `${weekdays.map(weekdayName).join(', ')} ${time}`,
    ...(everyWeeks > 1 ? [`every ${everyWeeks} weeks`] : []),
    ...(untilDay ? [`until ${writtenDay(untilDay, units)}`] : []),
  ].join(', ')
}

/** What the week says first: what falls on what, else how much there is. */
export function weekSentence(at: CalendarAnswer, units: Units): string {
  const [first] = at.clashes
  if (first) {
    const when = `${writtenDay(first.b.movedTo ?? first.b.day, units)} ${clockTime(first.b.fromMs, at.zone)}`
    const where = first.is === 'booths' ? `: ${listed(first.booths.slice(0, 4))} wanted twice` : ''
    return `${first.a.name} and ${first.b.name} fall on each other, ${when}${where}.`
  }
  const n = at.occurrences.filter((o) => o.kind === 'class').length
  const free = at.days.filter((d) => d.holiday).length
  if (at.entries.length === 0) return 'Nothing but shifts and holidays stands in the calendar yet.'
  return `${n} ${n === 1 ? 'class' : 'classes'} these days${free > 0 ? `, ${free} ${free === 1 ? 'day' : 'days'} off` : ''}.`
}

/** Bars of one day, one below the other where they overlap. */
export function lanesOf(occurrences: readonly Occurrence[]): { o: Occurrence; lane: number }[] {
  const ends: number[] = []
  return [...occurrences]
    .sort((a, b) => a.fromMs - b.fromMs)
    .map((o) => {
      const free = ends.findIndex((end) => end <= o.fromMs)
      const lane = free === -1 ? ends.length : free
      ends[lane] = o.toMs
      return { o, lane }
    })
}
