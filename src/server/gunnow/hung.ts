import { inArray } from 'drizzle-orm'
import { headNow, stationNow } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { readPositions } from './positions.ts'
import { DomainError } from '@server/problem/problem.ts'
import { type ShopModel } from '@server/shopmodel/model.ts'
import { carrierIdsOf, type Hung } from './setup.ts'

/** Some places with what hangs there, for the rules of fit. A place that is not there any more is said. */
export async function hungAt(db: Reader, shop: ShopModel, stationIds: readonly string[]): Promise<Hung[]> {
  const nows = await db
    .select()
    .from(stationNow)
    .where(inArray(stationNow.stationId, stationIds.length > 0 ? [...stationIds] : ['']))
  const nowOf = new Map(nows.map((n) => [n.stationId, n]))
  const ids = nows.flatMap((n) => carrierIdsOf(n, shop)).filter((id) => id !== null)
  const [states, heads] = await Promise.all([
    readPositions(db, ids),
    db
      .select({ headId: headNow.headId, wireId: headNow.spoolWireId })
      .from(headNow)
      .where(inArray(headNow.headId, ids.length > 0 ? ids : [''])),
  ])
  const wireOf = new Map(heads.map((h) => [h.headId, h.wireId]))
  return stationIds.map((id) => {
    const station = shop.stationById.get(id)
    const now = nowOf.get(id)
    if (!station || !now)
      throw new DomainError('not-found', 'There is no such place.', [
        'It may have been renamed; find it by its number.',
      ])
    return {
      station,
      now,
      stateOf: (carrierId) => (carrierId ? states.get(carrierId) : undefined),
      spoolWireId: now.headId ? (wireOf.get(now.headId) ?? null) : null,
    }
  })
}

export async function hungOne(db: Reader, shop: ShopModel, stationId: string): Promise<Hung> {
  const [hung] = await hungAt(db, shop, [stationId])
  if (!hung) throw new DomainError('not-found', 'There is no such place.')
  return hung
}
