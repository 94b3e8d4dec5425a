import { type OrderId, type PartId, type SupplierId } from '@core/ids/id.ts'
import { meanAndNext } from '@core/stats/mean.ts'
import { DAY_MS } from '@core/units/time.ts'
import { desc, gte, isNull, or } from 'drizzle-orm'
import { type OrderAnswer } from '@contract/stock.ts'
import { partOrder, supplier } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { standingOfShelves } from '@server/ledger/standings.ts'
import { type ShopFit } from '@server/shopmodel/model.ts'

type OrderRow = typeof partOrder.$inferSelect
export interface Order {
  row: OrderRow
  supplierName: string
  /** Come in of each part, and when the first and the last came. */
  came: Map<PartId, number>
  firstMs: number | null
  isOpen: boolean
}
/** Lead times are learnt from the orders of so long. */
const LEARN_MS = 730 * DAY_MS

/** Orders with what came of them: the open ones, and those of two years for their lead times. */
export async function readOrders(db: Reader, nowMs: number): Promise<Order[]> {
  const rows = await db
    .select()
    .from(partOrder)
    .where(or(isNull(partOrder.closedMs), gte(partOrder.orderedMs, nowMs - LEARN_MS)))
    .orderBy(desc(partOrder.orderedMs))
  if (rows.length === 0) return []
  const names = new Map((await db.select().from(supplier)).map((s) => [s.id, s.name]))
  const partIds = [...new Set(rows.flatMap((r) => r.lines.map((l) => l.partId)))]
  const oldest = Math.min(...rows.map((r) => r.orderedMs ?? nowMs))
  const standing = await standingOfShelves(db, partIds, oldest)
  const came = new Map<OrderId, { partId: PartId; quantity: number; atMs: number }[]>()
  for (const list of standing.values())
    for (const { fact, happenedMs } of list) {
      if (fact.kind !== 'received' || !fact.orderId) continue
      const { partId, quantity } = fact
      came.set(fact.orderId, [...(came.get(fact.orderId) ?? []), { partId, quantity, atMs: happenedMs }])
    }
  return rows.map((row) =>
    orderOf(row, { came: came.get(row.id) ?? [], supplierName: names.get(row.supplierId) ?? '' }),
  )
}

function orderOf(
  row: OrderRow,
  of: { came: readonly { partId: PartId; quantity: number; atMs: number }[]; supplierName: string },
): Order {
  const came = new Map<PartId, number>()
  for (const c of of.came) came.set(c.partId, (came.get(c.partId) ?? 0) + c.quantity)
  const isWhole = row.lines.every((l) => (came.get(l.partId) ?? 0) >= l.quantity)
  return {
    row,
    supplierName: of.supplierName,
    came,
    firstMs: of.came.length > 0 ? Math.min(...of.came.map((c) => c.atMs)) : null,
    isOpen: row.closedMs === null && !isWhole,
  }
}

/** What is still to come of a part. */
export const toCome = (orders: readonly Order[], partId: PartId) =>
  orders.flatMap((o) => {
    if (!o.isOpen) return []
    const line = o.row.lines.find((l) => l.partId === partId)
    const quantity = (line?.quantity ?? 0) - (o.came.get(partId) ?? 0)
    return quantity > 0 ? [{ quantity, dueMs: o.row.dueMs, supplierId: o.row.supplierId }] : []
  })

const LEAST_LEARNT = 3
export interface LearntLead {
  n: number
  days: number
  sd: number
}
/** Days from order to its first delivery, of a supplier's orders; null under three of them. */
export function learntLead(orders: readonly Order[], supplierId: SupplierId): LearntLead | null {
  const days = orders.flatMap((o) =>
    o.row.supplierId === supplierId && o.firstMs !== null ? [(o.firstMs - (o.row.orderedMs ?? 0)) / DAY_MS] : [],
  )
  if (days.length < LEAST_LEARNT) return null
  const { mean, sd } = meanAndNext(days)
  return { n: days.length, days: mean, sd }
}

export const orderTold = (order: Order, shop: ShopFit, nowMs: number): OrderAnswer => ({
  id: order.row.id,
  supplierId: order.row.supplierId,
  supplierName: order.supplierName,
  orderedMs: order.row.orderedMs ?? 0,
  dueMs: order.row.dueMs,
  isLate: order.row.dueMs < nowMs,
  lines: order.row.lines.map((l) => ({
    partId: l.partId,
    code: shop.partById.get(l.partId)?.code ?? '',
    name: shop.partById.get(l.partId)?.name ?? '',
    quantity: l.quantity,
    received: order.came.get(l.partId) ?? 0,
    eachMinor: l.eachMinor,
  })),
})
