import { eq } from 'drizzle-orm'
import { type Booked } from '@core/clock/window.ts'
import { type Occurrence } from '@core/classes/calendar.ts'
import { type GroupId, type StationId } from '@core/ids/id.ts'
import { DAY_MS } from '@core/units/time.ts'
import { calendarEntry, calendarMove, groupBooth, holiday, learnerGroup, type station } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { occurrencesOf } from '@server/time/occurrences.ts'

export type GroupRow = typeof learnerGroup.$inferSelect
export type BoothRow = typeof groupBooth.$inferSelect
/** Groups with their booths, and the calendar. */
export interface School {
  groups: GroupRow[]
  boothsOf: ReadonlyMap<GroupId, BoothRow[]>
  entries: (typeof calendarEntry.$inferSelect)[]
  moves: (typeof calendarMove.$inferSelect)[]
  holidays: { day: string; name: string }[]
}

/** Its tables: a few hundred rows in all. */
export const schoolTables = (db: Reader) =>
  Promise.all([
    db.select().from(learnerGroup),
    db.select().from(groupBooth),
    db.select().from(calendarEntry).where(eq(calendarEntry.isActive, true)),
    db.select().from(calendarMove),
    db.select().from(holiday),
  ])
export function schoolOf([groups, booths, entries, moves, holidays]: Awaited<ReturnType<typeof schoolTables>>): School {
  const boothsOf = new Map<GroupId, BoothRow[]>(groups.map((g) => [g.id, []]))
  for (const row of booths) boothsOf.get(row.groupId)?.push(row)
  return { groups: [...groups].sort((a, b) => (a.name < b.name ? -1 : 1)), boothsOf, entries, moves, holidays }
}
/** As it stands in the middle of a change; who has the shop has it there. */
export const readSchool = async (db: Reader): Promise<School> => schoolOf(await schoolTables(db))

export const timesOf = (school: School, zone: string, span: { fromMs: number; toMs: number }): Occurrence[] =>
  occurrencesOf({ ...school, zone, holidays: new Set(school.holidays.map((h) => h.day)) }, span.fromMs, span.toMs)
/** A group that is there; one that left had its booths, and has none. */
export const activeBooths = (school: School, groupId: GroupId): StationId[] =>
  school.groups.find((g) => g.id === groupId)?.isActive === false
    ? []
    : (school.boothsOf.get(groupId) ?? []).map((b) => b.stationId)

/** So far ahead the next window can lie. */
const AHEAD_MS = 8 * DAY_MS
/** What the calendar holds for each place in the days to come: its groups’ classes, its bay’s planned stops. Places without any are not in it. */
export function bookedAhead(
  school: School,
  at: { zone: string; nowMs: number; stations: readonly (typeof station.$inferSelect)[] },
): Map<StationId, Booked[]> {
  const booked = new Map<StationId, Booked[]>()
  if (school.entries.length === 0) return booked
  for (const o of timesOf(school, at.zone, { fromMs: at.nowMs, toMs: at.nowMs + AHEAD_MS })) {
    if (o.kind === 'other') continue
    const { fromMs, toMs } = o
    const group = school.groups.find((g) => g.id === o.groupId)
    const one: Booked = { is: o.kind === 'class' ? 'class' : 'stop', name: group?.name ?? o.name, fromMs, toMs }
    for (const id of placesOf(o, school, at.stations)) booked.set(id, [...(booked.get(id) ?? []), one])
  }
  return booked
}
/** A class is at its group's booths; a planned stop at the cells of its bay, of the whole shop where none is named. */
function placesOf(o: Occurrence, school: School, stations: readonly (typeof station.$inferSelect)[]): StationId[] {
  if (o.kind === 'class') return o.groupId ? activeBooths(school, o.groupId) : []
  return stations.flatMap((s) => (s.classKey === 'cell' && (o.areaId === null || o.areaId === s.areaId) ? [s.id] : []))
}
