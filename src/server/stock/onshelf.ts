import { type AreaId, type PartId, type StoreId } from '@core/ids/id.ts'
import { type ShareBand } from '@core/life/facts.ts'
import { takenByPurchases } from '@core/parts/taken.ts'
import { type Seen } from '@core/stock/forecast.ts'
import { allTogether, type LiesAt } from '@core/stock/onhand.ts'
import { Z_90 } from '@core/stats/normal.ts'
import { DAY_MS } from '@core/units/time.ts'
import { type Reader } from '@server/db/db.ts'
import { lastMonthOf, monthsOf, readPurchases } from '@server/parts/purchases.ts'
import { LOOK_BACK_MS, putOn, type PutOn } from '@server/parts/shares.ts'
import { readSupplyOf, shareOf } from '@server/parts/sharestore.ts'
import { takenByShelf } from '@server/parts/stretches.ts'
import { readLies } from '@server/projection/stock.ts'
import { type PartRow, type ShopModel } from '@server/shopmodel/model.ts'
import { dayOf } from '@server/time/wall.ts'

const MONTHS = 12
export interface Shelf {
  onHand: number
  countedMs: number
  /** What is likely there: what was put on since the count and not written down is gone too. */
  mean: number
  sd: number
  share: number
  /** Place by place. */
  lies: readonly LiesAt[]
}
export interface Shelves {
  of: (part: PartRow) => Shelf | null
  seen: (part: PartRow) => (Seen & { by: 'counted' | 'bought' }) | null
}

/** What lies on the shelves, and what left them. */
export async function readShelves(db: Reader, shop: ShopModel, nowMs: number): Promise<Shelves> {
  const sinceMs = nowMs - LOOK_BACK_MS
  const kinds = [...new Set([...shop.partById.values()].map((p) => p.kindKey))]
  const [lies, taken, { shares }, put, bought] = await Promise.all([
    readLies(db),
    takenByShelf(db, sinceMs),
    readSupplyOf(db, shop, nowMs),
    putOn(db, shop, { kinds, sinceMs }),
    readPurchases(db, { zone: shop.site.zone, nowMs, months: MONTHS }),
  ])
  const areaStore = new Map(shop.areas.map((a) => [a.id, a.storeId]))
  const putOf = byPart(put)
  const { zone } = shop.site
  const lastMonth = lastMonthOf(bought, { zone, nowMs })
  return {
    of: (part) => {
      const at = lies.get(part.id) ?? []
      const all = allTogether(at)
      if (!all) return null
      const band = shareOf(shares, { areaId: null, kindKey: part.kindKey })
      const logged = at.reduce(
        (sum, { storeId, countedMs }) =>
          sum + loggedAt(putOf.get(part.id) ?? [], { storeId, countedMs, at, areaStore }),
        0,
      )
      return { ...all, ...likelyOf(all.onHand, logged, band), share: band.value, lies: at }
    },
    seen: (part) => {
      const counted = taken.get(part.id)
      if (counted) return { ...seenOf(counted), by: 'counted' }
      const own = bought.filter((p) => p.partId === part.id && p.month <= lastMonth)
      const [from] = own.map((p) => p.month).sort()
      const told = from ? takenByPurchases(monthsOf(own, { zone, from, to: lastMonth })) : null
      return told && dayOf(zone, told.fromMs) < dayOf(zone, told.toMs) ? { ...seenOf(told), by: 'bought' } : null
    },
  }
}

/** Put on since a place was counted, by guns that get theirs there: where nothing of it lies at an area's own place, the main one serves it. */
function loggedAt(
  put: readonly PutOn[],
  {
    storeId,
    countedMs,
    at,
    areaStore,
  }: Pick<LiesAt, 'storeId' | 'countedMs'> & {
    at: readonly LiesAt[]
    areaStore: ReadonlyMap<AreaId, StoreId | null>
  },
): number {
  const isOnly = at.length === 1
  const servedBy = (areaId: AreaId | null) => {
    const own = (areaId && areaStore.get(areaId)) ?? null
    return at.some((l) => l.storeId === own) ? own : null
  }
  return put
    .filter((p) => p.atMs > countedMs && (isOnly || servedBy(p.areaId) === storeId))
    .reduce((n, p) => n + p.count, 0)
}

const seenOf = (t: { fromMs: number; toMs: number; taken: number; sdTaken: number }): Seen => ({
  days: (t.toMs - t.fromMs) / DAY_MS,
  taken: t.taken,
  sd: t.sdTaken,
})

/** Less of it logged is as good as no log. */
const LEAST_SHARE = 0.05
/** Of L written down since the count, L/q were put on; its spread by the share's band and by chance, √(L(1 − q))/q. */
export function likelyOf(
  onHand: number,
  logged: number,
  { value, low, high }: ShareBand,
): { mean: number; sd: number } {
  const q = Math.max(LEAST_SHARE, value)
  const missed = logged / q - logged
  const byShare = (logged / Math.max(LEAST_SHARE, low) - logged / Math.max(LEAST_SHARE, high)) / (2 * Z_90)
  const byChance = Math.sqrt(logged * (1 - q)) / q
  return { mean: Math.max(0, onHand - missed), sd: Math.hypot(byShare, byChance) }
}

function byPart(put: readonly PutOn[]): Map<PartId, PutOn[]> {
  const by = new Map<PartId, PutOn[]>()
  for (const p of put) {
    if (!p.partId) continue
    const list = by.get(p.partId)
    if (list) list.push(p)
    else by.set(p.partId, [p])
  }
  return by
}
