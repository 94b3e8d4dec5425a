import { NO_ID } from '@core/ids/id.ts'
import { type Position } from '@core/path/columns.ts'
import { asc, inArray } from 'drizzle-orm'
import { standsAt, type KeptReading } from '@core/reading/alarms.ts'
import { type ReadingKey } from '@core/reading/keys.ts'
import { type Read } from '@core/drag/ofgun.ts'
import { headNow, reading } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { type HeadRow } from '@server/projection/rows.ts'
import { keptReading, type ReadingRow } from '@server/projection/rows.ts'
import { carrierIdsOf, type Hung } from './setup.ts'
import { type ShopPlaces } from '@server/shopmodel/model.ts'

/** Everything read on what hangs at one place, oldest first, and its feeder's clock. */
export interface ReadHere {
  rows: ReadingRow[]
  kept: KeptReading[]
  head: HeadRow | null
}

export async function readingsHere(db: Reader, hung: Hung, shop: ShopPlaces): Promise<ReadHere> {
  const ids = carrierIdsOf(hung.now, shop).filter((id) => id !== null)
  const [rows, heads] = await Promise.all([
    db.select().from(reading).where(inArray(reading.carrierId, ids)).orderBy(asc(reading.atMs), asc(reading.eventId)),
    db
      .select()
      .from(headNow)
      .where(inArray(headNow.headId, [hung.now.headId ?? NO_ID])),
  ])
  return { rows, kept: rows.map(keptReading), head: heads[0] ?? null }
}

/** When a position was last changed, cleaned or looked at; the whole of what hangs here looked over counts. */
export function touchedHere(hung: Hung, shop: ShopPlaces): (position: Position) => number | null {
  const rows = carrierIdsOf(hung.now, shop).flatMap((id) => hung.stateOf(id)?.rows ?? [])
  return (position) => rows.find((r) => r.position === position)?.seenMs ?? null
}
/** When the part now on went on; the series of a reading begins with it. */
export function fittedHere(hung: Hung, shop: ShopPlaces): (position: Position) => number[] {
  const rows = carrierIdsOf(hung.now, shop).flatMap((id) => hung.stateOf(id)?.rows ?? [])
  return (position) => rows.filter((r) => r.position === position).flatMap((r) => r.fittedMs ?? [])
}

/** The last number of a reading, as left, while nothing else went on there since. */
export function lastNumber(here: ReadHere, what: ReadingKey, sinceMs: number | null): Read | null {
  const last = here.kept.findLast((r) => r.what === what && standsAt(r) !== null)
  const value = last ? standsAt(last) : null
  if (!last || value === null || (sinceMs !== null && last.atMs < sinceMs)) return null
  return { value, atMs: last.atMs }
}
