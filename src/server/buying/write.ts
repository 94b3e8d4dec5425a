import { makeId } from '@core/ids/id.ts'
import { type Fact } from '@core/ledger/event.ts'
import { priceAt } from '@core/stock/ordersize.ts'
import { DAY_MS } from '@core/units/time.ts'
import { and, eq, inArray } from 'drizzle-orm'
import { type z } from 'zod'
import {
  type offerRequest,
  type orderClosedRequest,
  type orderReceivedRequest,
  type orderRequest,
  type shelfRequest,
  type supplierRequest,
} from '@contract/stock.ts'
import { mustOwn, type Deps, type Who } from '@server/call/context.ts'
import { offer, part, partOrder, supplier } from '@server/db/schema.ts'
import { type Reader, type Tx } from '@server/db/db.ts'
import { codesOf, mustHaveParts, supplyAct } from '@server/parts/supply.ts'
import { DomainError } from '@server/problem/problem.ts'
import { dayOf, wallToMsOrNext } from '@server/time/wall.ts'
import { changing } from '@server/write/changing.ts'
import { learntLead, readOrders, type Order } from '@server/stock/orders.ts'

/** Somebody who sells parts. Prices and terms are the lead's. */
export async function saveSupplier(deps: Deps, who: Who, r: z.infer<typeof supplierRequest>) {
  mustOwn(who)
  return changing(deps, who, {
    key: r.key,
    change: { of: 'supplier', name: r.name },
    work: async (tx) => {
      const values = {
        name: r.name,
        leadDays: r.leadDays ?? null,
        orderMinor: r.orderMinor ?? null,
        columns: r.columns ?? null,
      }
      if (r.id) {
        await mustHaveSupplier(tx, r.id)
        await tx.update(supplier).set(values).where(eq(supplier.id, r.id))
      } else await tx.insert(supplier).values({ id: makeId('supplier', deps.now(), deps.random), ...values })
    },
  })
}

/** What somebody sells a part for: one row for a part and supplier, the newest word holds. */
export async function saveOffer(deps: Deps, who: Who, r: z.infer<typeof offerRequest>) {
  mustOwn(who)
  const said = { part: '', supplier: '' }
  return changing(deps, who, {
    key: r.key,
    change: () => ({ of: 'offer', ...said }),
    work: async (tx) => {
      said.supplier = (await mustHaveSupplier(tx, r.supplierId)).name
      said.part = (await mustHaveParts(tx, [r.partId])).get(r.partId) ?? ''
      const values = {
        theirCode: r.theirCode ?? null,
        packOf: r.packOf,
        bands: r.bands,
        leadDays: r.leadDays ?? null,
        isSure: r.isSure,
      }
      await tx
        .insert(offer)
        .values({
          id: makeId('offer', deps.now(), deps.random),
          partId: r.partId,
          supplierId: r.supplierId,
          ...values,
        })
        .onDuplicateKeyUpdate({ set: values })
    },
  })
}

/** Where a part lies, and how many go there. */
export function saveShelf(deps: Deps, who: Who, r: z.infer<typeof shelfRequest>) {
  const said = { part: '' }
  return changing(deps, who, {
    key: r.key,
    change: () => ({ of: 'shelf', ...said }),
    work: async (tx) => {
      said.part = (await mustHaveParts(tx, [r.partId])).get(r.partId) ?? ''
      await tx
        .update(part)
        .set({ shelf: r.shelf || null, shelfMost: r.shelfMost ?? null })
        .where(eq(part.id, r.partId))
    },
  })
}

/** Ordered now: at the prices that hold, due by the day that is said or the usual lead time. */
export function placeOrder(deps: Deps, who: Who, r: z.infer<typeof orderRequest>) {
  const said = { supplier: '' }
  return changing(deps, who, {
    key: r.key,
    change: () => ({ of: 'ordered', ...said, lines: r.lines.length }),
    work: async (tx, w) => {
      const from = await mustHaveSupplier(tx, r.supplierId)
      said.supplier = from.name
      const partIds = r.lines.map((l) => l.partId)
      await mustHaveParts(tx, partIds)
      const offers = await tx
        .select()
        .from(offer)
        .where(and(eq(offer.supplierId, r.supplierId), inArray(offer.partId, partIds)))
      const byPart = new Map(offers.map((o) => [o.partId, o]))
      const nowMs = deps.now()
      const { zone } = (await w.shop()).site
      const dueMs = r.due ? dueOn(zone, r.due, nowMs) : nowMs + (await leadOf(tx, from, nowMs)) * DAY_MS
      await tx.insert(partOrder).values({
        id: makeId('order', nowMs, deps.random),
        supplierId: r.supplierId,
        orderedMs: nowMs,
        dueMs: Math.round(dueMs),
        lines: r.lines.map((l) => {
          const of = byPart.get(l.partId)
          return { ...l, eachMinor: of ? priceAt(of, l.quantity) : null }
        }),
        closedMs: null,
        idempotencyKey: r.key,
      })
    },
  })
}

function dueOn(zone: string, day: string, nowMs: number): number {
  if (day < dayOf(zone, nowMs))
    throw new DomainError('time-refused', `${day} is past: an order of today cannot be due then.`, [
      'Give the day it should be here, or leave it out.',
    ])
  return wallToMsOrNext(zone, day, '16:00')
}
const LEAD_GUESS_DAYS = 7
async function leadOf(db: Reader, from: typeof supplier.$inferSelect, nowMs: number): Promise<number> {
  return learntLead(await readOrders(db, nowMs), from.id)?.days ?? from.leadDays ?? LEAD_GUESS_DAYS
}

/** What came of an order, put on the shelf. More than is still to come belongs to no order, and is refused in words. */
export function receiveOrder(deps: Deps, who: Who, r: z.infer<typeof orderReceivedRequest>) {
  return changing(deps, who, {
    key: r.key,
    change: { of: 'received' },
    work: async (tx, w) => {
      const order = await lockedOrder(tx, r.orderId, deps.now())
      const codes = await codesOf(
        tx,
        r.lines.map((l) => l.partId),
      )
      for (const { partId, quantity } of r.lines) {
        const line = order.row.lines.find((l) => l.partId === partId)
        const code = codes.get(partId) ?? 'That part'
        if (!line)
          throw new DomainError('bad-request', `${code} is not in this order.`, ['Put it on the shelf as a delivery.'])
        const left = line.quantity - (order.came.get(partId) ?? 0)
        if (quantity > left)
          throw new DomainError(
            'bad-request',
            left <= 0
              ? `${code}: all ${line.quantity} of this order are in already.`
              : `${code}: ${line.quantity} were ordered and ${line.quantity - left} are in, so ${left} at most belong to it, not ${quantity}.`,
            ['If more came, put the rest on the shelf as a delivery.'],
          )
      }
      const facts: Fact[] = r.lines.map((l) => ({ kind: 'received', ...l, orderId: r.orderId }))
      w.say(supplyAct(deps, facts))
    },
  })
}

/** The rest of it does not come. */
export function closeOrder(deps: Deps, who: Who, r: z.infer<typeof orderClosedRequest>) {
  const said = { supplier: '' }
  return changing(deps, who, {
    key: r.key,
    change: () => ({ of: 'orderClosed', ...said }),
    work: async (tx) => {
      const order = await lockedOrder(tx, r.orderId, deps.now())
      said.supplier = order.supplierName
      await tx.update(partOrder).set({ closedMs: deps.now() }).where(eq(partOrder.id, r.orderId))
    },
  })
}

/** Two who take in one order wait for each other. */
async function lockedOrder(tx: Tx, id: Order['row']['id'], nowMs: number): Promise<Order> {
  await tx.select({ id: partOrder.id }).from(partOrder).where(eq(partOrder.id, id)).for('update')
  const order = (await readOrders(tx, nowMs)).find((o) => o.row.id === id)
  if (!order) throw new DomainError('not-found', 'There is no such order.', ['Look under what is on its way.'])
  if (order.row.closedMs !== null)
    throw new DomainError(
      'bad-request',
      `This order from ${order.supplierName} was closed: the rest was not to come.`,
      ['Put what came on the shelf as a delivery.'],
    )
  return order
}

async function mustHaveSupplier(tx: Tx, id: (typeof supplier.$inferSelect)['id']) {
  const [row] = await tx.select().from(supplier).where(eq(supplier.id, id))
  if (!row) throw new DomainError('not-found', 'There is no such supplier.', ['Say who sells it first.'])
  return row
}
