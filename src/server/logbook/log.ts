import { type ActKind } from '@core/ledger/acts.ts'
import { type ActRead, type LogAnswer } from '@contract/logbook.ts'
import { type Reader } from '@server/db/db.ts'
import { once } from '@server/call/once.ts'
import { mustLogAt, mustRead, type Deps, type Who } from '@server/call/context.ts'
import { DomainError } from '@server/problem/problem.ts'
import { actsByKeys, toRow, type EventRow } from '@server/ledger/lines.ts'
import { loadShop, type ShopModel } from '@server/shopmodel/model.ts'
import { hungWith } from '@server/gunnow/hung.ts'
import { likelyPart } from '@server/gunnow/setup.ts'
import { keyOf, writeAct, type Writing } from '@server/write/act.ts'
import { placeOf, type Place, type PlaceNow } from '@server/write/place.ts'
import { actOf } from '@server/write/said.ts'
import { payBack } from './payback.ts'

/**
 * Logs what was done, all of it or none. The same key again answers as the first time and writes nothing, also when both
 * arrive at once: the key is unique in the database.
 */
export async function logActs(deps: Deps, who: Who, request: { key: string; acts: ActRead[] }): Promise<LogAnswer> {
  mustRead(who)
  const known = async () => {
    const rows = await loggedBefore(deps.db, request.key, request.acts.length)
    if (!rows) return null
    const shop = await loadShop(deps.db, deps.shops, deps.now())
    return { logged: await payBack(deps.db, shop, rows), isRepeat: true }
  }
  return once(known, async () => {
    const { shop, rows } = await writeAct(deps, who, (w) => sayAll(w, request))
    return { logged: await payBack(deps.db, shop, rows), isRepeat: false }
  })
}

/** What a hand says at one place, or of all that hangs there. */
export const SAID_KINDS: readonly ActKind[] = ['log', 'seen']

async function loggedBefore(db: Reader, key: string, acts: number): Promise<EventRow[] | null> {
  const keys = Array.from({ length: acts }, (_, i) => keyOf(key, i))
  const known = await actsByKeys(db, SAID_KINDS, keys)
  if (!known.has(keyOf(key))) return null
  if (known.size !== acts)
    throw new DomainError('key-used', 'This key was used before for something else.', [
      'Send it again under a new key.',
    ])
  return keys.flatMap((k) => known.get(k) ?? [])
}

async function sayAll(
  w: Writing,
  request: { key: string; acts: ActRead[] },
): Promise<{ shop: ShopModel; rows: EventRow[] }> {
  const shop = await w.shop()
  const rows: EventRow[] = []
  for (const [i, act] of request.acts.entries()) {
    const place = await withLikelyPart(w.tx, shop, { place: await placeOf(w.tx, act.stationId, shop), act })
    const station = shop.stationById.get(act.stationId)
    if (station) mustLogAt(w.who, station)
    const [first] = w.say(actOf(act, { place, shop, deps: w.deps, key: keyOf(request.key, i) }))
    if (first) rows.push(toRow(first))
  }
  return { shop, rows }
}

/** Which part went on when nobody says: asked of the rules of fit, and only for a change. */
async function withLikelyPart(tx: Reader, shop: ShopModel, at: { place: PlaceNow; act: ActRead }): Promise<Place> {
  const { place, act } = at
  if (act.act !== 'changed' || act.partId) return place
  const [hung] = await hungWith(tx, shop, [place.now])
  if (!hung) return place
  return { ...place, partFor: (position) => likelyPart(hung, shop, position) }
}
