import { type AreaId } from '@core/ids/id.ts'
import { makeSchedule, type Schedule, type Span } from '@core/clock/schedule.ts'
import { addDays, dayOf, wallToMsOrNext, weekdayOf } from './wall.ts'

export interface ShiftOfWeek {
  areaId: AreaId | null
  name: string
  weekdays: number[]
  start: string
  end: string
  breaks: { start: string; minutes: number }[]
}
export interface CalendarInput {
  zone: string
  shifts: readonly ShiftOfWeek[]
  holidays: readonly string[]
}

const YEARS_BACK = 6
/** From the first of the year: five months from its last day. */
const DAYS_AHEAD = 516

/** Shifts that an area works: its own, or the site's. */
export function shiftsOf(shifts: readonly ShiftOfWeek[], areaId: AreaId): ShiftOfWeek[] {
  const own = shifts.filter((s) => s.areaId === areaId)
  return own.length > 0 ? own : shifts.filter((s) => s.areaId === null)
}

/** One shift on one day as an instant span; a shift that ends at or before it starts runs into the next day. */
export function shiftSpan(zone: string, shift: { start: string; end: string }, day: string): Span {
  const fromMs = wallToMsOrNext(zone, day, shift.start)
  const toMs = wallToMsOrNext(zone, shift.end <= shift.start ? addDays(day, 1) : day, shift.end)
  return { fromMs, toMs }
}

function workStretches(zone: string, shift: ShiftOfWeek, day: string): Span[] {
  const { fromMs, toMs } = shiftSpan(zone, shift, day)
  const breaks = shift.breaks
    .map((pause) => {
      const from = wallToMsOrNext(zone, pause.start < shift.start ? addDays(day, 1) : day, pause.start)
      return { fromMs: from, toMs: from + pause.minutes * 60_000 }
    })
    .sort((a, b) => a.fromMs - b.fromMs)
  const stretches: Span[] = []
  let at = fromMs
  for (const pause of breaks) {
    if (pause.fromMs > at && pause.toMs <= toMs) {
      stretches.push({ fromMs: at, toMs: pause.fromMs })
      at = pause.toMs
    }
  }
  if (toMs > at) stretches.push({ fromMs: at, toMs })
  return stretches
}

/**
 * Working time of every area in UTC, from six years back to five months ahead at least. Built once a year and pattern: the result
 * depends only on what is passed in, so keeping it does not make a server stateful.
 */
export class Calendar {
  private readonly kept = new Map<string, Schedule | null>()

  scheduleFor(input: CalendarInput, areaId: AreaId, nowMs: number): Schedule | null {
    const shifts = shiftsOf(input.shifts, areaId)
    const first = `${dayOf(input.zone, nowMs).slice(0, 4)}-01-01`
    const key = JSON.stringify([input.zone, first, shifts, input.holidays])
    const known = this.kept.get(key)
    if (known !== undefined) return known
    if (this.kept.size > 40) this.kept.clear()
    const made = shifts.length === 0 ? null : build(input, shifts, first)
    this.kept.set(key, made)
    return made
  }
}

function build(input: CalendarInput, shifts: readonly ShiftOfWeek[], first: string): Schedule {
  const holidays = new Set(input.holidays)
  const stretches: Span[] = []
  for (
    let day = addDays(first, -365 * YEARS_BACK), i = 0;
    i <= 365 * YEARS_BACK + DAYS_AHEAD;
    i++, day = addDays(day, 1)
  ) {
    if (holidays.has(day)) continue
    const weekday = weekdayOf(day)
    for (const shift of shifts)
      if (shift.weekdays.includes(weekday)) stretches.push(...workStretches(input.zone, shift, day))
  }
  return makeSchedule(stretches)
}
