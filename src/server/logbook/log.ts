import { eq, inArray } from 'drizzle-orm'
import { type ActRead, type LogAnswer } from '@contract/logbook.ts'
import { ledgerEvent, stationNow } from '@server/db/schema.ts'
import { transact, type Reader } from '@server/db/db.ts'
import { once } from '@server/http/once.ts'
import { mustLogAt, mustRead, type Deps, type Who } from '@server/http/context.ts'
import { DomainError } from '@server/http/problem.ts'
import { append, eventByKey, type Draft, type EventRow } from '@server/ledger/append.ts'
import { project } from '@server/projection/project.ts'
import { loadShop, type ShopModel } from '@server/shop/model.ts'
import { hungOne } from '@server/rightparts/hung.ts'
import { likelyPart } from '@server/rightparts/setup.ts'
import { draftsOf, type Place } from './draft.ts'
import { payBack } from './payback.ts'

/**
 * Logs what was done, all of it or none. The same key again answers as the first time and writes nothing, also when both
 * arrive at once: the key is unique in the database.
 */
export async function logActs(deps: Deps, who: Who, request: { key: string; acts: ActRead[] }): Promise<LogAnswer> {
  mustRead(who)
  const answer = async (rows: EventRow[], isRepeat: boolean) => ({ logged: await payBack(deps, rows), isRepeat })
  const known = async () => {
    const rows = await loggedBefore(deps.db, request.key, request.acts.length)
    return rows && (await answer(rows, true))
  }
  return once(known, async () => answer(await write(deps, who, request), false))
}

const keyOf = (key: string, i: number) => `${key}#${i}`

async function loggedBefore(db: Reader, key: string, acts: number): Promise<EventRow[] | null> {
  const first = await eventByKey(db, keyOf(key, 0))
  if (!first) return null
  const keys = Array.from({ length: acts }, (_, i) => keyOf(key, i))
  const rows = await db.select().from(ledgerEvent).where(inArray(ledgerEvent.idempotencyKey, keys))
  if (rows.length !== acts)
    throw new DomainError('key-used', 'This key was used before for something else.', [
      'Send it again under a new key.',
    ])
  return rows.sort((a, b) => keys.indexOf(a.idempotencyKey) - keys.indexOf(b.idempotencyKey))
}

async function write(deps: Deps, who: Who, request: { key: string; acts: ActRead[] }): Promise<EventRow[]> {
  return transact(deps.db, async (tx) => {
    const shop = await loadShop(tx, deps.calendar, deps.now())
    const drafts: Draft[] = []
    for (const [i, act] of request.acts.entries()) {
      const place = await withLikelyPart(tx, shop, { place: await placeOf(tx, act.stationId, shop), act })
      const station = shop.stationById.get(act.stationId)
      if (station) mustLogAt(who, station)
      drafts.push(...draftsOf(act, { place, shop, who, deps, key: keyOf(request.key, i) }))
    }
    const touched = await append(tx, drafts)
    await project(tx, touched, { calendar: deps.calendar, nowMs: deps.now() })
    const keys = new Set(request.acts.map((_, i) => keyOf(request.key, i)))
    const rows = await tx
      .select()
      .from(ledgerEvent)
      .where(
        inArray(
          ledgerEvent.id,
          drafts.filter((d) => keys.has(d.idempotencyKey)).map((d) => d.id),
        ),
      )
    return drafts.flatMap((d) => rows.find((r) => r.id === d.id) ?? [])
  })
}

/** Which part went on when nobody says: asked of the rules of fit, and only for a change. */
async function withLikelyPart(tx: Reader, shop: ShopModel, at: { place: Place; act: ActRead }): Promise<Place> {
  const { place, act } = at
  if (act.act !== 'changed' || act.partId) return place
  const hung = await hungOne(tx, shop, place.stationId)
  return { ...place, partFor: (position) => likelyPart(hung, shop, position) }
}

export async function placeOf(db: Reader, stationId: string, shop: ShopModel): Promise<Place> {
  const stationCarrierId = shop.carrierOfStation.get(stationId)
  const [now] = await db.select().from(stationNow).where(eq(stationNow.stationId, stationId))
  if (!stationCarrierId || !now)
    throw new DomainError('not-found', 'There is no such place.', ['It may have been renamed; find it by its number.'])
  return { stationId, stationCarrierId, now }
}

/** Every place by its name in small letters, for sheets that speak of many. */
export async function placesByName(db: Reader, shop: ShopModel): Promise<Map<string, Place>> {
  const nows = new Map((await db.select().from(stationNow)).map((n) => [n.stationId, n]))
  return new Map(
    shop.stations.flatMap((s) => {
      const now = nows.get(s.id)
      const stationCarrierId = shop.carrierOfStation.get(s.id)
      return now && stationCarrierId
        ? [[s.name.toLowerCase(), { stationId: s.id, stationCarrierId, now }] as const]
        : []
    }),
  )
}
