import { type BoughtLine, type LoggingShareLine } from '@contract/parts.ts'
import { type Reader } from '@server/db/db.ts'
import { type ShopModel } from '@server/shop/model.ts'
import { boughtLines, readPurchases } from './purchases.ts'
import { readShares } from './shares.ts'

const KEPT_MS = 60_000
export interface Supply {
  shares: LoggingShareLine[]
  bought: BoughtLine[]
}

/**
 * Shares for Floor, which asks every few seconds for what moves in weeks: worked out once a minute by each server. Two who ask
 * at once wait for the same work. A failed reading is not kept.
 */
export class ShareStore {
  private kept: { untilMs: number; supply: Promise<Supply> } | null = null

  read(db: Reader, shop: ShopModel, nowMs: number): Promise<Supply> {
    if (this.kept && nowMs < this.kept.untilMs) return this.kept.supply
    const supply = readSupplyOf(db, shop, nowMs)
    this.kept = { untilMs: nowMs + KEPT_MS, supply }
    supply.catch(() => {
      this.kept = null
    })
    return supply
  }
}

async function readSupplyOf(db: Reader, shop: ShopModel, nowMs: number): Promise<Supply> {
  const [shares, purchases] = await Promise.all([
    readShares(db, shop, nowMs),
    readPurchases(db, { zone: shop.site.zone, nowMs, months: 12 }),
  ])
  return { shares, bought: boughtLines(purchases, shop, nowMs) }
}
