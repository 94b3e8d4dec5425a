import { parseDay, parseMonth } from '@contract/when.ts'
import { type AreaId, type PartId, type WireId } from '@core/ids/id.ts'
import { type KindKey } from '@core/path/columns.ts'
import { purchaseIdentity } from '@server/parts/purchases.ts'
import { readAmount, readItem, type Item, type Known } from '@core/ingest/purchase.ts'
import { type BadRow } from '@contract/ingest.ts'
import { part } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { type ShopModel, type ShopSite, type ShopPlaces } from '@server/shopmodel/model.ts'
import { dayOf } from '@server/time/wall.ts'
import { badCell, cellOf, type Sheet } from './sheet.ts'

export interface PlannedPurchase {
  month: string
  areaId: AreaId | null
  item: string
  kindKey: KindKey | null
  partId: PartId | null
  wireId: WireId | null
  quantity: number
}
export interface PurchasePlan {
  rows: PlannedPurchase[]
  /** Gloves, coffee, freight: whatever names no part and no wire. */
  leftOut: { row: number; text: string }[]
  bad: BadRow[]
}

export async function readPurchases(
  db: Reader,
  sheet: Sheet,
  at: { shop: ShopModel; nowMs: number },
): Promise<PurchasePlan> {
  const parts = await db.select().from(part)
  return planPurchases(sheet, at, { kinds: at.shop.kinds, parts, wires: [...at.shop.wires.values()] })
}

/** What a purchase list says, item and month at a time: lines of one item in one month are put together. */
function planPurchases(sheet: Sheet, at: { shop: ShopModel; nowMs: number }, known: Known): PurchasePlan {
  const plan: PurchasePlan = { rows: [], leftOut: [], bad: [] }
  const sums = new Map<string, PlannedPurchase>()
  const read = purchaseReader(sheet, at, known)
  sheet.rows.forEach((row, i) => {
    const number = sheet.numbers[i] ?? 0
    const text = cellOf(sheet, row, 'item')
    const item = readItem(text, known)
    if (!item) return void plan.leftOut.push({ row: number, text: text || 'no item' })
    if (cellOf(sheet, row, 'quantity') === '')
      return void plan.leftOut.push({ row: number, text: `${text}: none bought` })
    const bad = (key: string, why: string) => void plan.bad.push(badCell(sheet, row, { key, why, number }))
    const bought = read(row, { item, text }, bad)
    if (!bought) return
    const same = purchaseIdentity(bought)
    const before = sums.get(same)
    if (before) before.quantity += bought.quantity
    else sums.set(same, bought)
  })
  plan.rows = [...sums.values()]
  return plan
}

type Bad = (key: string, why: string) => void

/** A bill has one date, above its lines: "Invoice 4711 of 12.11.2026". */
function monthAbove(above: readonly string[], units: ShopSite['site']['units']): string | null {
  const words = above.flatMap((text) => [text, ...text.split(/\s+/)])
  return words.map((w) => parseDay(w.replace(/[,;]$/, ''), units)?.slice(0, 7)).find(Boolean) ?? null
}

function purchaseReader(sheet: Sheet, at: { shop: ShopSite & ShopPlaces; nowMs: number }, known: Known) {
  const { site, areas } = at.shop
  const areaBy = new Map(areas.map((a) => [a.name.toLowerCase(), a.id]))
  const thisMonth = dayOf(site.zone, at.nowMs).slice(0, 7)
  const own = monthAbove(sheet.above, site.units)
  const kindOfPart = new Map(known.parts.map((p) => [p.id, p.kindKey]))
  return (row: readonly string[], what: { item: Item; text: string }, bad: Bad): PlannedPurchase | void => {
    const hasColumn = sheet.columns['month'] !== undefined
    const month = hasColumn ? parseMonth(cellOf(sheet, row, 'month'), site.units) : own
    if (!month)
      return bad(
        'month',
        hasColumn ? 'that is no month; write 2026-03' : 'no month stands in the sheet; say it once for all rows',
      )
    if (month > thisMonth) return bad('month', 'that month is still to come')
    const areaName = cellOf(sheet, row, 'area')
    const areaId = areaBy.get(areaName.toLowerCase()) ?? null
    const amount = readAmount(cellOf(sheet, row, 'quantity'), cellOf(sheet, row, 'unit'), what.item)
    if (!amount.ok) return bad('quantity', amount.reason)
    const { item } = what
    const partId = item.kind === 'part' ? item.partId : null
    return {
      month,
      areaId,
      item: what.text.slice(0, 120),
      partId,
      kindKey:
        item.kind === 'wire' ? null : item.kind === 'part' ? (kindOfPart.get(item.partId) ?? null) : item.kindKey,
      wireId: item.kind === 'wire' ? item.wireId : null,
      quantity: amount.quantity,
    }
  }
}
