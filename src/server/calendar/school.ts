import { type BoothFound } from '@core/classes/beyond.ts'
import { clashesOf, type Clash } from '@core/classes/calendar.ts'
import { DAY_MS } from '@core/units/time.ts'
import { type Reader } from '@server/db/db.ts'
import { standingOfKind } from '@server/ledger/standings.ts'
import { activeBooths, timesOf, type School } from '@server/shopmodel/school.ts'

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
