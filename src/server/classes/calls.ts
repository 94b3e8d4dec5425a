import { gte } from 'drizzle-orm'
import { callsOf, type Calls } from '@core/classes/calls.ts'
import { type StationId } from '@core/ids/id.ts'
import { DAY_MS } from '@core/units/time.ts'
import { type Reader } from '@server/db/db.ts'
import { techniqueTold } from '@server/db/schema.ts'
import { stopsSince } from '@server/down/stops.ts'
import { type ShopModel } from '@server/shopmodel/model.ts'
import { activeBooths } from '@server/shopmodel/school.ts'

const DAYS = 7

/** What the booths of groups called for in the last seven days. Null: there is no such booth. */
export async function callsOfClasses(db: Reader, shop: ShopModel, nowMs: number): Promise<Calls | null> {
  const booths = new Set<StationId>(shop.school.groups.flatMap((g) => activeBooths(shop.school, g.id)))
  if (booths.size === 0) return null
  const sinceMs = nowMs - DAYS * DAY_MS
  const [stops, told] = await Promise.all([
    stopsSince(db, { shop, nowMs, sinceMs }),
    db.select().from(techniqueTold).where(gte(techniqueTold.atMs, sinceMs)),
  ])
  const isTheirs = (id: StationId | null) => id !== null && booths.has(id)
  return callsOf({
    stops: stops
      .filter((s) => isTheirs(s.stationId))
      .map((s) => ({ boothId: s.stationId, fromMs: s.fromMs, toMs: s.toMs, place: s.column })),
    told: told.filter((t) => isTheirs(t.stationId)).map((t) => ({ boothId: t.stationId, atMs: t.atMs, was: t.was })),
  })
}
