import { type PartId } from '@core/ids/id.ts'
import { type ShareBand } from '@core/life/facts.ts'
import { takenByPurchases } from '@core/parts/taken.ts'
import { type Seen } from '@core/stock/forecast.ts'
import { Z_90 } from '@core/stats/normal.ts'
import { DAY_MS } from '@core/units/time.ts'
import { stockNow } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { lastMonthOf, monthsOf, readPurchases } from '@server/parts/purchases.ts'
import { LOOK_BACK_MS, putOn, type PutOn } from '@server/parts/shares.ts'
import { readSupplyOf, shareOf } from '@server/parts/sharestore.ts'
import { takenByShelf } from '@server/parts/stretches.ts'
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
}
export interface Shelves {
  of: (part: PartRow) => Shelf | null
  seen: (part: PartRow) => (Seen & { by: 'counted' | 'bought' }) | null
}

/** What lies on the shelves, and what left them. */
export async function readShelves(db: Reader, shop: ShopModel, nowMs: number): Promise<Shelves> {
  const sinceMs = nowMs - LOOK_BACK_MS
  const kinds = [...new Set([...shop.partById.values()].map((p) => p.kindKey))]
  const [rows, taken, { shares }, put, bought] = await Promise.all([
    db.select().from(stockNow),
    takenByShelf(db, sinceMs),
    readSupplyOf(db, shop, nowMs),
    putOn(db, shop, { kinds, sinceMs }),
    readPurchases(db, { zone: shop.site.zone, nowMs, months: MONTHS }),
  ])
  const kept = new Map(rows.map((r) => [r.partId, r]))
  const putOf = byPart(put)
  const { zone } = shop.site
  const lastMonth = lastMonthOf(bought, { zone, nowMs })
  return {
    of: (part) => {
      const row = kept.get(part.id)
      if (!row) return null
      const { onHand, countedMs } = row
      const band = shareOf(shares, { areaId: null, kindKey: part.kindKey })
      const logged = (putOf.get(part.id) ?? [])
        .filter((p) => p.atMs > (countedMs ?? 0))
        .reduce((n, p) => n + p.count, 0)
      return { onHand, countedMs: countedMs ?? 0, ...likelyOf(onHand, logged, band), share: band.value }
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
