import { eq } from 'drizzle-orm'
import { type GroupId, type StationId } from '@core/ids/id.ts'
import { type BoothFound } from '@core/classes/beyond.ts'
import { clashesOf, type Clash, type Occurrence } from '@core/classes/calendar.ts'
import { DAY_MS } from '@core/units/time.ts'
import { calendarEntry, calendarMove, groupBooth, holiday, learnerGroup } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { occurrencesOf } from '@server/calendar/expand.ts'
import { standingOfKind } from '@server/ledger/standings.ts'

export type GroupRow = typeof learnerGroup.$inferSelect
export type BoothRow = typeof groupBooth.$inferSelect
export interface School {
  groups: GroupRow[]
  boothsOf: ReadonlyMap<GroupId, BoothRow[]>
  entries: (typeof calendarEntry.$inferSelect)[]
  moves: (typeof calendarMove.$inferSelect)[]
  holidays: { day: string; name: string }[]
}

/** Groups with their booths, and the calendar: a few hundred rows in all. */
export async function readSchool(db: Reader): Promise<School> {
  const groups = await db.select().from(learnerGroup)
  const booths = await db.select().from(groupBooth)
  const entries = await db.select().from(calendarEntry).where(eq(calendarEntry.isActive, true))
  const moves = entries.length > 0 ? await db.select().from(calendarMove) : []
  const holidays = await db.select().from(holiday)
  const boothsOf = new Map<GroupId, BoothRow[]>(groups.map((g) => [g.id, []]))
  for (const row of booths) boothsOf.get(row.groupId)?.push(row)
  return { groups: groups.sort((a, b) => (a.name < b.name ? -1 : 1)), boothsOf, entries, moves, holidays }
}

export const timesOf = (school: School, zone: string, span: { fromMs: number; toMs: number }): Occurrence[] =>
  occurrencesOf({ ...school, zone, holidays: new Set(school.holidays.map((h) => h.day)) }, span.fromMs, span.toMs)
/** A group that is there; one that left had its booths, and has none. */
export const activeBooths = (school: School, groupId: GroupId): StationId[] =>
  school.groups.find((g) => g.id === groupId)?.isActive === false
    ? []
    : (school.boothsOf.get(groupId) ?? []).map((b) => b.stationId)

/** Where classes of the next weeks fall on each other. */
export const clashesAhead = (school: School, zone: string, nowMs: number): Clash[] =>
  clashesOf(timesOf(school, zone, { fromMs: nowMs - DAY_MS, toMs: nowMs + 60 * DAY_MS }), (id) =>
    activeBooths(school, id),
  )

/** Looks before class since then, as they stand now: booth by booth, without anybody. */
export async function looksSince(db: Reader, sinceMs: number) {
  const lines = await standingOfKind(db, 'handedOver', sinceMs)
  return lines.flatMap(({ fact, happenedMs, stationId, eventId }) =>
    fact.kind === 'handedOver' && stationId ? [{ ...fact, happenedMs, stationId, eventId }] : [],
  )
}
export type LookBefore = Awaited<ReturnType<typeof looksSince>>[number]
export const asFound = (looks: readonly LookBefore[]): BoothFound[] =>
  looks.map((l) => ({ boothId: l.stationId, leftBy: l.leftBy, day: l.day, found: l.found }))
