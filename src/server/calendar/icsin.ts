import ICAL from 'ical.js'
import { type IcsLine, type IcsPreview } from '@contract/classes.ts'
import { DomainError } from '@server/problem/problem.ts'
import { addDays, dayOf, isZone, wallOf, wallToMsOrNext } from '@server/time/wall.ts'
import { asWeekly, daysOf, ruleProblem, weeklyRule } from '@server/time/dayrule.ts'

/**
 * A calendar of somebody else’s making, read into this shop’s wall time. Each entry is taken or told in words why it cannot be; what is changed by the
 * reading (another zone, extra days) is noted at its line.
 */
export interface IcsAt {
  zone: string
  nowMs: number
  /** Their own names of entries that are in the calendar already. */
  known: ReadonlySet<string>
  groups: readonly { id: IcsLine['groupId']; name: string }[]
}
/** What is shown of an entry that was refused. */
type Refused = IcsPreview['refused'][number]
/** Our own shifts come back under such a name; they are told under Our shop. */
export const SHIFT_UID = 'shift-'

export function readIcs(text: string, at: IcsAt): IcsPreview {
  const events = eventsIn(text)
  const isOverride = (e: ICAL.Component) => e.hasProperty('recurrence-id')
  const lines: IcsLine[] = []
  const refused: Refused[] = []
  for (const event of events.filter((e) => !isOverride(e))) {
    const name = nameOf(event)
    const overrides = events.filter((e) => isOverride(e) && uidOf(e) === uidOf(event) && uidOf(e) !== '')
    const read = lineOf(event, overrides, at)
    if ('why' in read) refused.push({ name, why: read.why })
    else if (lines.some((l) => l.uid === read.uid)) refused.push({ name, why: 'It is in the file twice.' })
    else lines.push(read)
  }
  for (const lone of events.filter(
    (e) => isOverride(e) && !events.some((o) => !isOverride(o) && uidOf(o) === uidOf(e)),
  ))
    refused.push({ name: nameOf(lone), why: 'It moves a time of something that is not in the file.' })
  return { lines, refused }
}

function eventsIn(text: string): ICAL.Component[] {
  const noCalendar = (what: string) =>
    new DomainError('bad-request', `That is no calendar file: ${what}.`, [
      'Give a file that ends in .ics, as calendars give it out. Nothing was taken.',
    ])
  if (!/BEGIN:VCALENDAR/i.test(text)) throw noCalendar('it does not begin with BEGIN:VCALENDAR')
  try {
    const root = ICAL.parse(text) as unknown[]
    // Several calendars in one file come as a list of them.
    const all = (Array.isArray(root[0]) ? root : [root]) as ConstructorParameters<typeof ICAL.Component>[0][]
    return all.flatMap((one) => new ICAL.Component(one).getAllSubcomponents('vevent'))
  } catch (problem) {
    throw noCalendar(problem instanceof Error ? problem.message.slice(0, 120) : 'it cannot be read')
  }
}

const textOf = (event: ICAL.Component, name: string): string => {
  const value: unknown = event.getFirstPropertyValue(name)
  return typeof value === 'string' ? value.trim() : ''
}
const uidOf = (event: ICAL.Component) => textOf(event, 'uid').slice(0, 200)
const nameOf = (event: ICAL.Component) => textOf(event, 'summary').slice(0, 80) || 'without a name'

/** A moment of another calendar on the site's wall. */
interface OnWall {
  day: string
  wall: string
  isDay: boolean
  /** Days it moved by, between their wall and the site's. */
  shifted: number
  otherZone: string | null
}
const pad = (n: number) => String(n).padStart(2, '0')

function onWall(event: ICAL.Component, name: string, zone: string): OnWall | null {
  const property = event.getFirstProperty(name)
  const time: unknown = property?.getFirstValue()
  return property && time instanceof ICAL.Time ? wallOfTime(time, property, zone) : null
}
function wallOfTime(time: ICAL.Time, property: ICAL.Property, zone: string): OnWall {
  const day = `${time.year}-${pad(time.month)}-${pad(time.day)}`
  const wall = `${pad(time.hour)}:${pad(time.minute)}`
  const as = (ms: number, otherZone: string | null): OnWall => {
    const here = dayOf(zone, ms)
    const shifted = Math.round((Date.parse(here) - Date.parse(day)) / 86_400_000)
    return { day: here, wall: wallOf(zone, ms), isDay: false, shifted, otherZone }
  }
  if (time.isDate) return { day, wall: '00:00', isDay: true, shifted: 0, otherZone: null }
  const told = property.getFirstParameter('tzid') as string | undefined
  if (told === zone) return { day, wall, isDay: false, shifted: 0, otherZone: null }
  if (time.zone === ICAL.Timezone.utcTimezone) return as(time.toUnixTime() * 1000, null)
  if (told && isZone(told)) return as(wallToMsOrNext(told, day, wall), told)
  // A zone of the file's own making.
  if (told && time.zone !== ICAL.Timezone.localTimezone) return as(time.toUnixTime() * 1000, told)
  return { day, wall, isDay: false, shifted: 0, otherZone: told ?? null }
}

function lineOf(event: ICAL.Component, overrides: readonly ICAL.Component[], at: IcsAt): IcsLine | { why: string } {
  const start = onWall(event, 'dtstart', at.zone)
  if (!start) return { why: 'It has no beginning.' }
  if (textOf(event, 'status').toUpperCase() === 'CANCELLED') return { why: 'It is called off in that calendar.' }
  const uid = uidOf(event) || `${nameOf(event)} ${start.day} ${start.wall}`
  if (uid.startsWith(SHIFT_UID))
    return { why: 'It is a shift of this shop: those are said under Our shop, people and papers.' }
  const span = spanOf(event, start, at.zone)
  if ('why' in span) return span
  const rule = ruleOf(event, start, at.zone)
  if (rule && 'why' in rule) return rule
  const name = nameOf(event)
  const entry = { firstDay: start.day, rule: rule?.rule ?? null }
  const year = daysOf(entry, dayOf(at.zone, at.nowMs), addDays(dayOf(at.zone, at.nowMs), 365)).length
  const lower = name.toLowerCase()
  return {
    ...{ uid, name, ...entry, start: start.wall, end: span.end, isHoliday: start.isDay, days: span.days },
    ...{ times: year, isKnown: at.known.has(uid) },
    groupId: at.groups.find((g) => lower.includes(g.name.toLowerCase()))?.id ?? null,
    notes: notesOf(event, start),
    moves: movesOf(event, overrides, { zone: at.zone, start: start.wall, end: span.end }),
  }
}

function spanOf(event: ICAL.Component, start: OnWall, zone: string): { end: string; days: number } | { why: string } {
  const told = onWall(event, 'dtend', zone)
  const lasts: unknown = event.getFirstPropertyValue('duration')
  const startMs = wallToMsOrNext(zone, start.day, start.wall)
  const endMs = told
    ? wallToMsOrNext(zone, told.day, told.wall)
    : lasts instanceof ICAL.Duration
      ? startMs + lasts.toSeconds() * 1000
      : start.isDay
        ? wallToMsOrNext(zone, addDays(start.day, 1), '00:00')
        : startMs
  if (start.isDay) return { end: '00:00', days: Math.max(1, Math.round((endMs - startMs) / 86_400_000)) }
  if (endMs <= startMs) return { why: 'It takes no time: it has no end after its beginning.' }
  if (endMs - startMs >= 86_400_000) return { why: 'It lasts a day or longer, and has hours: say it day by day.' }
  return { end: wallOf(zone, endMs), days: 1 }
}

/** Its rule with the site's days; null: it is once. */
function ruleOf(event: ICAL.Component, start: OnWall, zone: string): { rule: string } | { why: string } | null {
  const recur: unknown = event.getFirstPropertyValue('rrule')
  if (!(recur instanceof ICAL.Recur)) return null
  const until = recur.until ? `UNTIL=${lastDay(recur.until, start, zone).replaceAll('-', '')}T235959Z` : null
  const rest = recur
    .toString()
    .split(';')
    .filter((p) => !/^(UNTIL|BYHOUR|BYMINUTE|BYSECOND|WKST)=/i.test(p))
  const rule = [...rest, ...(until ? [until] : [])].join(';')
  const problem = ruleProblem(rule, start.day)
  if (problem?.is === 'often') return { why: 'It comes more than once a day: say each by itself.' }
  if (problem?.is === 'unreadable') return { why: 'The rule of when it comes cannot be read.' }
  if (start.shifted === 0) return problem ? { why: 'By its own rule it never comes.' } : { rule }
  const weekly = asWeekly(rule)
  if (!weekly) return { why: 'It is told in another time zone and falls on other days here: say it anew.' }
  const turn = (n: number) => ((n - 1 + start.shifted + 7) % 7) + 1
  return { rule: weeklyRule(weekly.weekdays.map(turn), weekly.untilDay, weekly.everyWeeks) }
}
/** The last day on which it still begins. */
function lastDay(until: ICAL.Time, start: OnWall, zone: string): string {
  const day = `${until.year}-${pad(until.month)}-${pad(until.day)}`
  if (until.isDate || until.zone !== ICAL.Timezone.utcTimezone) return day
  const ms = until.toUnixTime() * 1000
  return wallOf(zone, ms) < start.wall ? addDays(dayOf(zone, ms), -1) : dayOf(zone, ms)
}

function movesOf(
  event: ICAL.Component,
  overrides: readonly ICAL.Component[],
  of: { zone: string; start: string; end: string },
): IcsLine['moves'] {
  const dropped = event
    .getAllProperties('exdate')
    .flatMap((property) =>
      (property.getValues() as unknown[]).flatMap((time) =>
        time instanceof ICAL.Time
          ? [{ day: wallOfTime(time, property, of.zone).day, toDay: null, start: null, end: null }]
          : [],
      ),
    )
  const moved = overrides.flatMap((one): IcsLine['moves'] => {
    const was = onWall(one, 'recurrence-id', of.zone)
    const start = onWall(one, 'dtstart', of.zone)
    if (!was) return []
    if (!start || textOf(one, 'status').toUpperCase() === 'CANCELLED')
      return [{ day: was.day, toDay: null, start: null, end: null }]
    const span = spanOf(one, start, of.zone)
    return [{ day: was.day, toDay: start.day, start: start.wall, end: 'end' in span ? span.end : of.end }]
  })
  const movedDays = new Set(moved.map((m) => m.day))
  return [...dropped.filter((d) => !movedDays.has(d.day)), ...moved]
}

function notesOf(event: ICAL.Component, start: OnWall): string[] {
  const extra = event.getAllProperties('rdate').length
  return [
    ...(start.otherZone
      ? [
          `Told in ${start.otherZone}; here it begins at ${start.wall}. Where only one of the two clocks has changed it may be an hour off.`,
        ]
      : []),
    ...(extra > 0 ? [`${extra} extra ${extra === 1 ? 'date is' : 'dates are'} left out: say them by themselves.`] : []),
  ]
}
