import { gte } from 'drizzle-orm'
import { kgPerPart, takenByPurchases, type Bought, type Taken } from '@core/parts/taken.ts'
import { type BoughtLine } from '@contract/parts.ts'
import { purchase } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { type ShopSite, type ShopKinds } from '@server/shopmodel/model.ts'
import { dayOf, wallToMsOrNext } from '@server/time/wall.ts'

export type PurchaseRow = typeof purchase.$inferSelect
/** One item of one month in one place is one line, however often it is brought in. */
export const purchaseIdentity = (p: Pick<PurchaseRow, 'month' | 'areaId' | 'item'>) =>
  `${p.month} ${p.areaId ?? '-'} ${p.item.toLowerCase()}`

export const monthBefore = (month: string, back: number): string => {
  const [year = 0, of = 1] = month.split('-').map(Number)
  const at = year * 12 + (of - 1) - back
  return `${String(Math.floor(at / 12)).padStart(4, '0')}-${String((at % 12) + 1).padStart(2, '0')}`
}

/** Purchases of the last so many months, each item and month once: the entry logged last holds. */
export async function readPurchases(
  db: Reader,
  at: { zone: string; nowMs: number; months: number },
): Promise<PurchaseRow[]> {
  const since = monthBefore(dayOf(at.zone, at.nowMs).slice(0, 7), at.months)
  const rows = await db.select().from(purchase).where(gte(purchase.month, since))
  const held = new Map<string, PurchaseRow>()
  for (const row of rows.sort((a, b) => a.loggedMs - b.loggedMs || (a.id < b.id ? -1 : 1)))
    held.set(purchaseIdentity(row), row)
  return [...held.values()]
}

/** Whole months from one to another, each with what was bought in it. The month that still runs is no whole one. */
export function monthsOf(
  rows: readonly Pick<PurchaseRow, 'month' | 'quantity'>[],
  at: { zone: string; from: string; to: string },
): Bought[] {
  const list: Bought[] = []
  for (let month = at.from; month <= at.to; month = monthBefore(month, -1))
    list.push({
      fromMs: wallToMsOrNext(at.zone, `${month}-01`, '00:00'),
      toMs: wallToMsOrNext(at.zone, `${monthBefore(month, -1)}-01`, '00:00'),
      quantity: rows.filter((r) => r.month === month).reduce((sum, r) => sum + r.quantity, 0),
    })
  return list
}

/** The last whole month that the list speaks of: it may end before the calendar does. */
export function lastMonthOf(rows: readonly PurchaseRow[], at: { zone: string; nowMs: number }): string {
  const whole = monthBefore(dayOf(at.zone, at.nowMs).slice(0, 7), 1)
  const listed = rows.map((r) => r.month).filter((month) => month <= whole)
  return listed.sort().at(-1) ?? whole
}

const YEAR = 12

/** "One tip per 3.0 kg of wire": what the last year's purchases tell, kind by kind, most pieces first. */
export function boughtLines(rows: readonly PurchaseRow[], shop: ShopSite & ShopKinds, nowMs: number): BoughtLine[] {
  const { zone } = shop.site
  const to = lastMonthOf(rows, { zone, nowMs })
  const whole = rows.filter((r) => r.month <= to && r.month >= monthBefore(to, YEAR - 1))
  const [from] = whole.map((r) => r.month).sort()
  if (!from) return []
  const over = (list: readonly PurchaseRow[]): Taken | null => takenByPurchases(monthsOf(list, { zone, from, to }))
  const wire = over(whole.filter((r) => r.kindKey === null))
  if (!wire) return []
  const months = monthsOf([], { zone, from, to }).length
  return shop.kinds
    .flatMap((kind) => {
      const parts = over(whole.filter((r) => r.kindKey === kind.key))
      return parts ? [{ kindKey: kind.key, kindName: kind.name, months, ...kgPerPart(parts, wire) }] : []
    })
    .sort((a, b) => b.pieces - a.pieces)
}
