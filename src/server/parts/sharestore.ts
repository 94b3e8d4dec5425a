import { type AreaId } from '@core/ids/id.ts'
import { type ShareBand } from '@core/life/facts.ts'
import { type KindKey } from '@core/path/columns.ts'
import { type Deps } from '@server/call/context.ts'
import { type BoughtLine, type LoggingShareLine } from '@contract/parts.ts'
import { type Reader } from '@server/db/db.ts'
import { type ShopModel } from '@server/shopmodel/model.ts'
import { KeptFor } from '@server/time/keptfor.ts'
import { boughtLines, readPurchases } from './purchases.ts'
import { readShares } from './shares.ts'

const KEPT_MS = 60_000
export interface Supply {
  shares: LoggingShareLine[]
  bought: BoughtLine[]
}

/**
 * Shares for Floor, which asks every few seconds for what moves in weeks: worked out once a minute by each server.
 */
export class ShareStore {
  private readonly kept = new KeptFor<Supply>(KEPT_MS)

  read = (db: Reader, shop: ShopModel, nowMs: number): Promise<Supply> =>
    this.kept.read(nowMs, () => readSupplyOf(db, shop, nowMs))
}

/** Shares and what purchases tell, worked out now. */
export async function readSupplyOf(db: Reader, shop: ShopModel, nowMs: number): Promise<Supply> {
  const [shares, purchases] = await Promise.all([
    readShares(db, shop, nowMs),
    readPurchases(db, { zone: shop.site.zone, nowMs, months: 12 }),
  ])
  return { shares, bought: boughtLines(purchases, shop, nowMs) }
}

/**
 * The share to own up to: of the area shown where one is told, else of the whole shop, else of the area most is known of; the
 * kind that is spoken of, else the one most were taken of.
 */
export function shareFor(
  shares: readonly LoggingShareLine[],
  of: { areaId: AreaId | null; kindKey?: KindKey },
): LoggingShareLine | null {
  const { areaId, kindKey } = of
  const rank = (s: LoggingShareLine) => (areaId !== null && s.areaId === areaId ? 0 : s.areaId === null ? 1 : 2)
  const fits = shares
    .filter((s) => s.share !== null && (kindKey === undefined || s.kindKey === kindKey))
    .filter((s) => areaId === null || s.areaId === null || s.areaId === areaId)
  return [...fits].sort((a, b) => rank(a) - rank(b) || b.taken - a.taken)[0] ?? null
}

/** Where nothing tells how much is written down. A guess, wide enough to hold most shops. */
const SHARE_GUESS: ShareBand = { value: 0.85, low: 0.6, high: 1 }

/** The logging share of a kind at an area; counts go before the guess. */
export function shareOf(
  shares: readonly LoggingShareLine[],
  of: { areaId: AreaId | null; kindKey: KindKey },
): ShareBand & { isGuess: boolean } {
  const line = shareFor(shares, of)
  if (!line || line.share === null) return { ...SHARE_GUESS, isGuess: true }
  const upTo1 = (x: number | null) => Math.min(1, Math.max(0.01, x ?? 1))
  return { value: upTo1(line.share), low: upTo1(line.low), high: upTo1(line.high), isGuess: false }
}

/** What it takes to say how much of what is changed gets logged: the shares, kept. */
export type ShareDeps = Deps & { shares: ShareStore }
