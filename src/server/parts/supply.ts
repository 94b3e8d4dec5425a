import { eq, inArray } from 'drizzle-orm'
import { type z } from 'zod'
import { LOSS_GUESS } from '@core/life/loggingshare.ts'
import { makeId, type PartId, type StoreId } from '@core/ids/id.ts'
import { type Fact } from '@core/ledger/event.ts'
import { type countRequest, type receivedRequest, type SupplyAnswer, type tinRequest } from '@contract/parts.ts'
import { area, part, partKind, tinWeighing } from '@server/db/schema.ts'
import { insertMany, type Reader } from '@server/db/db.ts'
import { mustLead, type Deps, type Who } from '@server/call/context.ts'
import { DomainError } from '@server/problem/problem.ts'
import { type SaidAct, type Writing } from '@server/write/act.ts'
import { changing } from '@server/write/changing.ts'
import { loadShop, mustHaveStore } from '@server/shopmodel/model.ts'
import { dayOf, wallToMsOrNext } from '@server/time/wall.ts'
import { LOOK_BACK_MS } from './shares.ts'
import { readSupplyOf } from './sharestore.ts'
import { readTins } from './stretches.ts'

/** What purchases, shelves and tins tell: how much of what is changed gets logged, and what a part costs in wire. */
export async function readSupply(deps: Deps, who: Who): Promise<SupplyAnswer> {
  mustLead(who)
  const nowMs = deps.now()
  const shop = await loadShop(deps.db, deps.shops, nowMs)
  const [{ shares, bought }, tins] = await Promise.all([
    readSupplyOf(deps.db, shop, nowMs),
    readTins(deps.db, nowMs - LOOK_BACK_MS),
  ])
  const newest = new Map(tins.map((t) => [`${t.areaId} ${t.kindKey}`, t]))
  return {
    nowMs,
    zone: shop.site.zone,
    lossShare: LOSS_GUESS,
    shares,
    bought,
    tins: [...newest.values()].map(({ areaId, kindKey, day, grams, gramsEach, pieces, isEmptied }) => ({
      areaId,
      kindKey,
      day,
      grams,
      gramsEach,
      pieces,
      isEmptied,
    })),
  }
}

/** A round of the shelves: what is there of each part, now. */
export const countShelves = (deps: Deps, who: Who, r: z.infer<typeof countRequest>) =>
  changing(deps, who, {
    key: r.key,
    change: { of: 'counted', parts: r.counts.length },
    work: async (_, w) => {
      const where = await placeOf(w, r.storeId)
      return sayOfParts(
        w,
        r.counts.map((c) => ({ kind: 'counted', partId: c.partId, quantity: c.quantity, ...where })),
      )
    },
  })
/** Which place is meant; without one it is the main one, and the fact says nothing of it. */
async function placeOf(w: Writing, storeId: StoreId | null | undefined): Promise<{ storeId?: StoreId }> {
  return storeId ? { storeId: mustHaveStore(await w.shop(), storeId).id } : {}
}

/** A delivery, put on the shelf. */
export const receiveParts = (deps: Deps, who: Who, r: z.infer<typeof receivedRequest>) =>
  changing(deps, who, {
    key: r.key,
    change: { of: 'received' },
    work: async (_, w) =>
      sayOfParts(w, [{ kind: 'received', partId: r.partId, quantity: r.quantity, ...(await placeOf(w, r.storeId)) }]),
  })

/** What some parts are ordered by; those that are not there are left out. */
export async function codesOf(tx: Reader, ids: readonly PartId[]): Promise<Map<PartId, string>> {
  const rows = await tx
    .select({ id: part.id, code: part.code })
    .from(part)
    .where(inArray(part.id, [...ids]))
  return new Map(rows.map((r) => [r.id, r.code]))
}
/** The same; one that is not there is refused. */
export async function mustHaveParts(tx: Reader, ids: readonly PartId[]): Promise<Map<PartId, string>> {
  const codes = await codesOf(tx, ids)
  if (ids.some((id) => !codes.has(id)))
    throw new DomainError('not-found', 'There is no such part.', ['Add it under parts and wires first.'])
  return codes
}

async function sayOfParts(w: Writing, facts: (Fact & { partId: PartId })[]): Promise<void> {
  await mustHaveParts(
    w.tx,
    facts.map((f) => f.partId),
  )
  w.say(supplyAct(w.deps, facts))
}
/** What is said of shelves, now. */
export const supplyAct = (deps: Pick<Deps, 'now'>, facts: readonly Fact[]): SaidAct => ({
  kind: 'supply',
  lines: facts.map((fact) => ({ fact, stationId: null, happenedMs: deps.now() })),
})

/** An area's tin of old parts on the scale. Weighed again on the same day, the later weighing holds. */
export const weighTin = (deps: Deps, who: Who, r: z.infer<typeof tinRequest>) =>
  changing(deps, who, {
    key: r.key,
    change: { of: 'tin', kindKey: r.kindKey, grams: Math.round(r.grams), isEmptied: r.isEmptied },
    work: async (tx, w) => {
      const [place] = await tx.select().from(area).where(eq(area.id, r.areaId))
      const [kind] = await tx.select().from(partKind).where(eq(partKind.key, r.kindKey))
      if (!place || !kind)
        throw new DomainError('not-found', place ? 'There is no such part.' : 'There is no such area.')
      const { zone } = (await w.shop()).site
      const today = dayOf(zone, deps.now())
      const day = r.day ?? today
      if (day > today)
        throw new DomainError('time-refused', 'That day is still to come.', ['Give the day it was weighed.'])
      const atMs = day === today ? deps.now() : wallToMsOrNext(zone, day, '12:00')
      const row = {
        id: makeId('tin', deps.now(), deps.random),
        areaId: r.areaId,
        kindKey: r.kindKey,
        day,
        atMs,
        grams: r.grams,
        gramsEach: r.gramsOfPieces / r.pieces,
        pieces: r.pieces,
        isEmptied: r.isEmptied,
        loggedMs: deps.now(),
        idempotencyKey: r.key,
      }
      await insertMany(tx, tinWeighing, { rows: [row] })
    },
  })
