import { type StationId } from '@core/ids/id.ts'
import { inArray } from 'drizzle-orm'
import { stationNow } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { readPositions } from './positions.ts'
import { type StationNowRow } from '@server/projection/stationrows.ts'
import { DomainError } from '@server/problem/problem.ts'
import { type ShopPlaces } from '@server/shopmodel/model.ts'
import { carrierIdsOf, type Hung } from './setup.ts'

/** Some places with what hangs there, for the rules of fit. A place that is not there any more is said. */
export async function hungAt(db: Reader, shop: ShopPlaces, stationIds: readonly StationId[]): Promise<Hung[]> {
  const nows = await db
    .select()
    .from(stationNow)
    .where(inArray(stationNow.stationId, [...stationIds]))
  const hung = new Map((await hungWith(db, shop, nows)).map((h) => [h.station.id, h]))
  return stationIds.map((id) => hung.get(id) ?? notThere())
}

/** The same of places that were read before. */
export async function hungWith(db: Reader, shop: ShopPlaces, nows: readonly StationNowRow[]): Promise<Hung[]> {
  const ids = nows.flatMap((n) => carrierIdsOf(n, shop)).filter((id) => id !== null)
  const states = await readPositions(db, ids)
  return nows.map((now) => ({
    station: shop.stationById.get(now.stationId) ?? notThere(),
    now,
    stateOf: (carrierId) => (carrierId ? states.get(carrierId) : undefined),
    spoolWireId: now.headId ? (states.get(now.headId)?.spoolWireId ?? null) : null,
  }))
}

export const hungOne = async (db: Reader, shop: ShopPlaces, stationId: StationId): Promise<Hung> =>
  (await hungAt(db, shop, [stationId]))[0] ?? notThere()

function notThere(): never {
  throw new DomainError('not-found', 'There is no such place.', ['It may have been renamed; find it by its number.'])
}
