import { type KindKey } from '@core/path/columns.ts'
import { DAY_MS } from '@core/units/time.ts'
import { and, eq, isNull } from 'drizzle-orm'
import { type z } from 'zod'
import { compareGroups } from '@core/life/compare.ts'
import { endsNeeded } from '@core/life/needed.ts'
import { dealOut, tryoutNow } from '@core/life/tryout.ts'
import { type ShopChange } from '@core/ledger/shopchange.ts'
import { makeId, type PartId, type StationId } from '@core/ids/id.ts'
import { UNTOLD_PART } from '@core/rightparts/untold.ts'
import { type LifeAnswer, type tryoutEndRequest, type tryoutRequest } from '@contract/life.ts'
import { part, partKind, tryout } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { type Deps, type Who } from '@server/call/context.ts'
import { DomainError } from '@server/problem/problem.ts'
import { changing } from '@server/write/changing.ts'
import { type ShopFit, type ShopPlaces } from '@server/shopmodel/model.ts'
import { type Told } from './compared.ts'

type Row = typeof tryout.$inferSelect
type Line = LifeAnswer['tryouts'][number]
/** Until lives here tell otherwise. */
const SHAPE_GUESS = 2

/** Try-outs of a kind, the newest first, as they stand. */
export async function tryoutsOf(
  db: Reader,
  shop: ShopPlaces & ShopFit,
  at: { kindKey: KindKey; all: readonly Told[]; nowMs: number },
): Promise<Line[]> {
  const rows = await db.select().from(tryout).where(eq(tryout.kindKey, at.kindKey))
  return rows.sort((a, b) => b.fromMs - a.fromMs).map((row) => lineOf(row, shop, at))
}
function lineOf(row: Row, shop: ShopPlaces & ShopFit, at: { all: readonly Told[]; nowMs: number }): Line {
  const now = row.verdict ?? standNow(row, at.all)
  const nameOf = (id: StationId) => shop.stationById.get(id)?.name ?? '?'
  const days = ((row.toMs ?? at.nowMs) - row.fromMs) / DAY_MS
  const perDay = days > 0 ? now.ends / days : 0
  return {
    ...{ id: row.id, question: row.question, nameA: row.nameA, nameB: row.nameB },
    placesA: row.stationsA.map(nameOf),
    placesB: row.stationsB.map(nameOf),
    unproven: unprovenOf(row, shop).map((p) => p.code),
    ...{ ratio: row.ratio, needed: row.needed, fromMs: row.fromMs, toMs: row.toMs, now },
    daysLeft: row.toMs !== null || perDay <= 0 ? null : Math.max(0, row.needed - now.ends) / perDay,
  }
}
/** Its parts of which nobody has confirmed that they fit. */
const unprovenOf = (row: Row, shop: ShopFit) =>
  [row.partAId, row.partBId]
    .flatMap((id) => shop.partById.get(id ?? '') ?? [])
    .filter((p) => p.fit?.proof === 'claimed' || p.fit?.proof === 'rumour')

/** What is being tried at a place, and which side it was dealt: told to whoever puts the part on. */
export async function tryoutsAt(
  db: Reader,
  stationId: StationId,
): Promise<{ kindKey: KindKey; question: string; gets: string }[]> {
  const running = await db.select().from(tryout).where(isNull(tryout.toMs))
  return running.flatMap(({ kindKey, question, nameA, nameB, stationsA, stationsB }) =>
    stationsA.includes(stationId)
      ? [{ kindKey, question, gets: nameA }]
      : stationsB.includes(stationId)
        ? [{ kindKey, question, gets: nameB }]
        : [],
  )
}

/** Lives that began at its places since then; where two parts are tried, only those two. */
function standNow(row: Row, all: readonly Told[]) {
  const side = (stations: readonly string[], partId: PartId | null) =>
    all
      .filter(({ life }) => life.fromMs >= row.fromMs && life.stationId !== null && stations.includes(life.stationId))
      .filter(({ life }) => partId === null || life.partId === null || life.partId === partId)
      .map((t) => t.gap)
  return tryoutNow(compareGroups(side(row.stationsA, row.partAId), side(row.stationsB, row.partBId)), row.needed)
}

const begun = ({ question, nameA, nameB, stationIds }: z.output<typeof tryoutRequest>): ShopChange => ({
  of: 'tryout',
  question,
  nameA,
  nameB,
  places: stationIds.length,
})
/** Deals the places out by lot and says how many worn ones an answer takes. */
export const startTryout = (deps: Deps, who: Who, r: z.output<typeof tryoutRequest>) =>
  changing(deps, who, {
    key: r.key,
    change: begun(r),
    work: async (tx, w) => {
      const shop = await w.shop()
      const ids = [...new Set(r.stationIds)]
      if (!(await tx.select().from(partKind).where(eq(partKind.key, r.kindKey)))[0])
        throw new DomainError('not-found', `There is no part called "${r.kindKey}".`)
      if (ids.length < 2 || ids.some((id) => !shop.stationById.has(id)))
        throw new DomainError('not-found', 'One of those places is not here.', ['Choose two or more of those shown.'])
      for (const id of [r.partAId, r.partBId])
        if (id !== null && !(await tx.select().from(part).where(eq(part.id, id)))[0])
          throw new DomainError('not-found', 'There is no such part.', ['Add it under parts and wires first.'])
      const running = await tx
        .select()
        .from(tryout)
        .where(and(eq(tryout.kindKey, r.kindKey), isNull(tryout.toMs)))
      const busy = new Set(running.flatMap((t) => [...t.stationsA, ...t.stationsB]))
      const taken = ids.find((id) => busy.has(id))
      if (taken)
        throw new DomainError(
          'bad-request',
          `${shop.stationById.get(taken)?.name ?? 'A place'} is in another try-out of this part.`,
          ['End that one first, or leave the place out.'],
        )
      const [stationsA, stationsB] = dealOut(ids, Math.floor(deps.random() * 2 ** 31))
      const { kindKey, question, nameA, nameB, partAId, partBId, ratio } = r
      await tx.insert(tryout).values({
        id: makeId('tryout', deps.now(), deps.random),
        ...{ kindKey, question, nameA, nameB, partAId, partBId, ratio, stationsA, stationsB },
        needed: endsNeeded(ratio, SHAPE_GUESS),
        fromMs: deps.now(),
        startedById: who.person?.id ?? null,
      })
    },
  })

/** Ends it; what it had come to is kept as it is now. */
export const endTryout = (
  deps: Deps,
  who: Who,
  at: { request: z.output<typeof tryoutEndRequest>; told: (kindKey: KindKey) => Promise<Told[]> },
) =>
  changing(deps, who, {
    key: at.request.key,
    change: { of: 'tryoutEnd', isConfirmed: Boolean(at.request.fits) },
    work: async (tx, w) => {
      const [row] = await tx.select().from(tryout).where(eq(tryout.id, at.request.id)).for('update')
      if (!row) throw new DomainError('not-found', 'There is no such try-out.')
      if (row.toMs !== null) return
      const verdict = standNow(row, await at.told(row.kindKey))
      await tx.update(tryout).set({ toMs: deps.now(), verdict }).where(eq(tryout.id, row.id))
      if (!at.request.fits) return
      for (const p of unprovenOf(row, await w.shop()))
        await tx
          .update(part)
          .set({ fit: { ...(p.fit ?? UNTOLD_PART), proof: 'confirmed' } })
          .where(eq(part.id, p.id))
    },
  })
