import { type AreaId, type CarrierId, NO_ID, type PartId } from '@core/ids/id.ts'
import { DAY_MS } from '@core/units/time.ts'
import { and, gte, inArray } from 'drizzle-orm'
import { kindOfPosition, type KindKey } from '@core/path/columns.ts'
import { loggingShare } from '@core/life/loggingshare.ts'
import { takenByPurchases } from '@core/parts/taken.ts'
import { type LoggingShareLine } from '@contract/parts.ts'
import { carriersAt } from '@server/gunnow/setup.ts'
import { life, positionNow, stationNow } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { type ShopModel, type ShopPlaces, type ShopSite } from '@server/shopmodel/model.ts'
import { dayOf } from '@server/time/wall.ts'
import { lastMonthOf, monthBefore, monthsOf, readPurchases, type PurchaseRow } from './purchases.ts'
import { shelfStretches, tinStretches, type Evidence } from './stretches.ts'

/** Habits change: what is older than half a year says little of how people log now. */
export const LOOK_BACK_MS = 183 * DAY_MS
const MONTHS = 6

export interface PutOn {
  areaId: AreaId | null
  kindKey: KindKey
  partId: PartId | null
  atMs: number
  count: number
}

/** Every share that can be told, kind by kind: the whole shop's first, then area by area; counted before tin before bought. */
export async function readShares(db: Reader, shop: ShopModel, nowMs: number): Promise<LoggingShareLine[]> {
  const sinceMs = nowMs - LOOK_BACK_MS
  const [shelves, tins, bought] = await Promise.all([
    shelfStretches(db, sinceMs),
    tinStretches(db, sinceMs),
    readPurchases(db, { zone: shop.site.zone, nowMs, months: MONTHS }),
  ])
  const kinds = new Set([...shelves, ...tins, ...bought].flatMap((e) => e.kindKey ?? []))
  const logged = await putOn(db, shop, { kinds: [...kinds], sinceMs })
  const evidence = [...shelves, ...tins, ...boughtStretches(bought, { shop, nowMs, logged })]
  return evidence.flatMap((e) => {
    if (e.taken < 1) return []
    const kind = shop.kindByKey.get(e.kindKey)
    return kind ? [lineOf(e, kind.name, logged)] : []
  })
}

function lineOf(evidence: Evidence, kindName: string, all: readonly PutOn[]): LoggingShareLine {
  const { areaId, kindKey, source, fromMs, toMs, taken, sdTaken, partIds } = evidence
  const logged = all
    .filter((l) => l.kindKey === kindKey && l.atMs > fromMs && l.atMs <= toMs)
    .filter((l) => areaId === null || l.areaId === areaId)
    .filter((l) => partIds === null || l.partId === null || partIds.has(l.partId))
    .reduce((sum, l) => sum + l.count, 0)
  const answer = loggingShare({ logged, taken, sdTaken, isOld: source === 'tin' })
  const told = answer.ok
    ? { share: answer.share, low: answer.low, high: answer.high, isOver: answer.isOver, reason: null }
    : { share: null, low: null, high: null, isOver: false, reason: answer.reason }
  return { areaId, kindKey, kindName, source, fromMs, toMs, taken, sdTaken, logged, ...told }
}

/**
 * Parts put on since, with the area of the gun. A change booked as "×3" took three: the life it ended says so. A gun counts
 * where it hangs now: one that moved lately brings its log along.
 */
export async function putOn(
  db: Reader,
  shop: ShopPlaces,
  at: { kinds: readonly KindKey[]; sinceMs: number },
): Promise<PutOn[]> {
  if (at.kinds.length === 0) return []
  const [ended, open, nows] = await Promise.all([
    readEnded(db, at),
    readOpen(db, at.sinceMs),
    db.select().from(stationNow),
  ])
  const countOf = new Map(ended.map((l) => [l.toEventId, l.parts]))
  const areaOf = areasOf(nows, shop)
  const isIn = (l: { entryAge: string | null; kindKey: KindKey; atMs: number }) =>
    l.entryAge === 'new' && l.atMs >= at.sinceMs && at.kinds.includes(l.kindKey)
  return [...ended, ...open].filter(isIn).map(({ carrierId, eventId, kindKey, partId, atMs }) => ({
    areaId: areaOf(carrierId),
    kindKey,
    partId,
    atMs,
    count: countOf.get(eventId) ?? 1,
  }))
}

function areasOf(nows: readonly (typeof stationNow.$inferSelect)[], shop: ShopPlaces) {
  const stationOf = new Map(
    nows.flatMap((n) => carriersAt(n.stationId, n, shop).map((id) => [id, n.stationId] as const)),
  )
  return (carrierId: CarrierId) => shop.stationById.get(stationOf.get(carrierId) ?? NO_ID)?.areaId ?? null
}

const readEnded = (db: Reader, at: { kinds: readonly KindKey[]; sinceMs: number }) =>
  db
    .select({
      carrierId: life.carrierId,
      eventId: life.fromEventId,
      kindKey: life.kindKey,
      partId: life.partId,
      atMs: life.fromMs,
      entryAge: life.entryAge,
      toEventId: life.toEventId,
      parts: life.parts,
    })
    .from(life)
    .where(and(gte(life.toMs, at.sinceMs), inArray(life.kindKey, [...at.kinds])))

async function readOpen(db: Reader, sinceMs: number) {
  const rows = await db
    .select({
      carrierId: positionNow.carrierId,
      eventId: positionNow.fittedEventId,
      position: positionNow.position,
      partId: positionNow.partId,
      atMs: positionNow.fittedMs,
      entryAge: positionNow.entryAge,
    })
    .from(positionNow)
    .where(gte(positionNow.fittedMs, sinceMs))
  return rows.map(({ position, atMs, eventId, ...row }) => ({
    ...row,
    eventId: eventId ?? NO_ID,
    atMs: atMs ?? 0,
    kindKey: kindOfPosition(position),
  }))
}

/** Whole months since the first change of the kind was logged: before that nothing could have been logged. */
function boughtStretches(
  rows: readonly PurchaseRow[],
  at: { shop: ShopSite; nowMs: number; logged: readonly PutOn[] },
): Evidence[] {
  const { zone } = at.shop.site
  const to = lastMonthOf(rows, { zone, nowMs: at.nowMs })
  const areas = [null, ...new Set(rows.flatMap((r) => r.areaId ?? []))]
  const kinds = [...new Set(rows.flatMap((r) => r.kindKey ?? []))]
  return kinds.flatMap((kindKey) =>
    areas.flatMap((areaId) => {
      const own = rows.filter((r) => r.kindKey === kindKey && (areaId === null || r.areaId === areaId))
      const first = at.logged
        .filter((l) => l.kindKey === kindKey && (areaId === null || l.areaId === areaId))
        .reduce((least, l) => Math.min(least, l.atMs), Infinity)
      const [oldest] = own.map((r) => r.month).sort()
      if (!oldest || first === Infinity) return []
      const afterFirst = monthBefore(dayOf(zone, first).slice(0, 7), -1)
      const from = oldest > afterFirst ? oldest : afterFirst
      const taken = from > to ? null : takenByPurchases(monthsOf(own, { zone, from, to }))
      return taken ? [{ ...taken, areaId, kindKey, partIds: null }] : []
    }),
  )
}
