import { TZDate } from '@date-fns/tz'
import { getVtimezoneComponent } from '@touch4it/ical-timezones'
import ical, { ICalEventBusyStatus, type ICalCalendar } from 'ical-generator'
import { mustRead, type Deps, type Who } from '@server/call/context.ts'
import { type School } from '@server/shopmodel/school.ts'
import { loadShop, type ShopModel } from '@server/shopmodel/model.ts'
import { shiftSpan } from '@server/time/calendar.ts'
import { addDays, wallToMsOrNext } from '@server/time/wall.ts'
import { SHIFT_UID } from './icsin.ts'
import { daysOf, weeklyRule } from '@server/time/dayrule.ts'

/** The shop's calendar as others read it: classes, planned stops, holidays, shifts; each time moved or dropped as it is. */
export async function calendarIcs(deps: Deps, who: Who): Promise<string> {
  mustRead(who)
  const shop = await loadShop(deps.db, deps.shops, deps.now())
  const { school } = shop
  const { zone, name } = shop.site
  const calendar = ical({
    name,
    prodId: { company: 'Idle Spool', product: 'calendar' },
    timezone: { name: zone, generator: (of: string) => getVtimezoneComponent(of) ?? null },
  })
  const at = { calendar, zone, stamp: new Date(deps.now()) }
  for (const entry of school.entries) addEntry(at, entry, school)
  for (const { day, name: summary } of school.holidays)
    calendar.createEvent({
      ...{ id: `holiday-${day}`, summary, start: new Date(`${day}T12:00:00Z`), allDay: true, stamp: at.stamp },
      ...{ end: new Date(`${addDays(day, 1)}T12:00:00Z`), busystatus: ICalEventBusyStatus.FREE },
    })
  for (const shift of shop.shifts) addShift(at, shift, shop)
  return calendar.toString()
}

interface At {
  calendar: ICalCalendar
  zone: string
  stamp: Date
}
const compact = (day: string) => day.replaceAll('-', '')
/** Its last day as the instant others count to. */
function ruleLine(rule: string, zone: string): string {
  const [until, ...parts] = /UNTIL=(\d{4})(\d\d)(\d\d)T\d{6}Z/.exec(rule) ?? []
  if (!until) return rule
  const ms = wallToMsOrNext(zone, parts.join('-'), '23:59')
  return rule.replace(until, `UNTIL=${new Date(ms).toISOString().replace(/[-:]|\.\d{3}/g, '')}`)
}

function addEntry({ calendar, zone, stamp }: At, entry: School['entries'][number], school: School): void {
  const moves = school.moves.filter((m) => m.entryId === entry.id)
  const first = entry.rule
    ? (daysOf(entry, entry.firstDay, addDays(entry.firstDay, 800))[0] ?? entry.firstDay)
    : entry.firstDay
  const [dropped, moved] = [moves.filter((m) => m.toDay === null), moves.filter((m) => m.toDay !== null)]
  // A single one that was moved is where it went; one that was called off is not given out.
  if (!entry.rule && dropped.length > 0) return
  const on = (day: string, to?: (typeof moves)[number]) => {
    const { fromMs, toMs } = shiftSpan(zone, { start: to?.start ?? entry.start, end: to?.end ?? entry.end }, day)
    return { start: new TZDate(fromMs, zone), end: new TZDate(toMs, zone) }
  }
  const base = { id: entry.uid, summary: entry.name, stamp, timezone: zone }
  if (!entry.rule) {
    const [to] = moved
    calendar.createEvent({ ...base, ...on(to?.toDay ?? first, to) })
    return
  }
  const out = dropped.map((m) => `EXDATE;TZID=${zone}:${compact(m.day)}T${entry.start.replace(':', '')}00`)
  const repeating = [`RRULE:${ruleLine(entry.rule, zone)}`, ...out].join('\r\n')
  calendar.createEvent({ ...base, ...on(first), repeating })
  for (const m of moved) calendar.createEvent({ ...base, ...on(m.toDay ?? m.day, m), recurrenceId: on(m.day).start })
}

function addShift({ calendar, zone, stamp }: At, shift: ShopModel['shifts'][number], shop: ShopModel): void {
  const area = shop.areas.find((a) => a.id === shift.areaId)?.name
  const rule = weeklyRule(shift.weekdays, null)
  const [first] = daysOf({ firstDay: '2026-01-01', rule }, '2026-01-01', '2026-01-08')
  if (!first) return
  const { fromMs, toMs } = shiftSpan(zone, shift, first)
  const where = [shift.areaId ?? 'shop', shift.name, shift.start, shift.weekdays.join('')].join('-')
  calendar.createEvent({
    ...{ id: `${SHIFT_UID}${where}`, summary: area ? `${shift.name}, ${area}` : shift.name, stamp, timezone: zone },
    ...{ start: new TZDate(fromMs, zone), end: new TZDate(toMs, zone), repeating: `RRULE:${rule}` },
  })
}
