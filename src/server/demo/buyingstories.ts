import { type Id, type PartId } from '@core/ids/id.ts'
import { DAY_MS } from '@core/units/time.ts'
import { desc, eq } from 'drizzle-orm'
import { area, offer, part, partOrder, store, supplier } from '@server/db/schema.ts'
import { placeOrder, receiveOrder, saveOffer, saveShelf, saveSupplier } from '@server/buying/write.ts'
import { saveStore } from '@server/buying/stores.ts'
import { type Deps, type Who } from '@server/call/context.ts'
import { countShelves } from '@server/parts/supply.ts'
import { insertMany } from '@server/db/db.ts'

/** Packs as they are sold by post. */
const PACK: Record<string, number> = {
  tip: 100,
  nozzle: 10,
  diffuser: 10,
  insulator: 10,
  liner: 2,
  orings: 20,
  rolls: 2,
}
const COUNTER = 'Skerry counter'
const POST = 'Longshore by post'
const COPIES = 'Millrace copies'
/** Days each order took, oldest first. */
const TOOK: Readonly<Record<string, readonly number[]>> = { [COUNTER]: [1, 1, 2, 1], [POST]: [11, 14, 10, 17, 12] }
/** Before the shelf was first counted: what came then is no part of what was taken since. */
const OLDEST_DAYS = 190
export const CELL_TIP = 'TA-T12'
export const CUPBOARD = 'Cell cupboard'
const CELL_AREA = 'Robot cells'

/** Who sells what, how long their orders took, one order that is late, and the cheap part that would stop the line. */
export async function plantBuying(deps: Deps, who: Who): Promise<void> {
  const parts = await deps.db.select().from(part)
  const ago = (days: number): Deps => ({ ...deps, now: () => deps.now() - days * DAY_MS })
  await sellers(ago(OLDEST_DAYS + 10), who)
  const [counter, post, copies] = await Promise.all([COUNTER, POST, COPIES].map((name) => supplierId(deps, name)))
  if (!counter || !post || !copies) throw new Error('plantBuying: a supplier is missing')
  await insertMany(deps.db, offer, { rows: offersOf(deps, parts, { counter, post }) })
  const idOf = (code: string) => parts.find((p) => p.code === code)?.id ?? ('' as PartId)
  await saveOffer(deps, who, {
    ...{ key: 'story-offer-copies', partId: idOf('KE-L10'), supplierId: copies, theirCode: 'fits K type 1.0' },
    ...{ packOf: 1, bands: [{ from: 0, each: 1140 }], leadDays: null, isSure: false },
  })
  for (const [name, took] of Object.entries(TOOK))
    await pastOrders(
      { ago, who, deps },
      { name, took, partId: idOf('KE-O'), supplierId: name === POST ? post : counter },
    )
  let bin = 1
  for (const p of parts) {
    const shelf = `rack ${'ABC'[Math.floor(bin / 24)] ?? 'C'}, bin ${(bin++ % 24) + 1}`
    await deps.db
      .update(part)
      .set({ shelf, shelfMost: p.kindKey === 'tip' ? 600 : null })
      .where(eq(part.id, p.id))
  }
  await saveShelf(deps, who, {
    key: 'story-shelf-tip',
    partId: idOf(CELL_TIP),
    shelf: 'rack A, bin 24',
    shelfMost: 300,
  })
  await cupboard({ deps, ago }, who, idOf)
  const lines = [
    { partId: idOf(CELL_TIP), quantity: 100 },
    { partId: idOf('TA-N'), quantity: 10 },
  ]
  await placeOrder(ago(16), who, { key: 'story-order-late', supplierId: post, lines })
}

/** The cells have a cupboard of their own. Counted yesterday, both: few tips are left in all, and those on order should have been here on Monday. */
async function cupboard(
  { deps, ago }: { deps: Deps; ago: (days: number) => Deps },
  who: Who,
  idOf: (code: string) => PartId,
): Promise<void> {
  const areas = await deps.db.select().from(area).where(eq(area.name, CELL_AREA))
  const areaIds = areas.map((a) => a.id)
  await saveStore(ago(120), who, { key: 'story-store', name: CUPBOARD, fillDays: 7, areaIds })
  const [at] = await deps.db.select({ id: store.id }).from(store).where(eq(store.name, CUPBOARD))
  if (!at || areaIds.length === 0) throw new Error('cupboard: it was not made')
  await countShelves(ago(1), who, { key: 'story-count-cell', counts: [{ partId: idOf(CELL_TIP), quantity: 10 }] })
  const there = [
    { partId: idOf(CELL_TIP), quantity: 4 },
    { partId: idOf('TA-N'), quantity: 1 },
  ]
  await countShelves(ago(1), who, { key: 'story-count-cupboard', storeId: at.id, counts: there })
}

async function sellers(deps: Deps, who: Who): Promise<void> {
  const say = (key: string, name: string, more: { leadDays: number | null; orderMinor: number | null }) =>
    saveSupplier(deps, who, { key, name, ...more })
  await say('story-sup-counter', COUNTER, { leadDays: 1, orderMinor: 2600 })
  await saveSupplier(deps, who, {
    ...{ key: 'story-sup-post', name: POST, leadDays: 10, orderMinor: 1400 },
    columns: [
      { head: 'Item', is: 'theirCode' },
      { head: 'Qty (packs)', is: 'packs' },
      { head: 'Remark', is: 'name' },
    ],
  })
  await say('story-sup-copies', COPIES, { leadDays: 15, orderMinor: 1400 })
}
async function supplierId(deps: Deps, name: string): Promise<Id<'supplier'> | undefined> {
  const [row] = await deps.db.select({ id: supplier.id }).from(supplier).where(eq(supplier.name, name))
  return row?.id
}

const roundUp = (minor: number) => Math.max(1, Math.round(minor))
function offersOf(
  deps: Deps,
  parts: readonly (typeof part.$inferSelect)[],
  { counter, post }: { counter: Id<'supplier'>; post: Id<'supplier'> },
): (typeof offer.$inferInsert)[] {
  const id = () => ({
    id: `offer_${Array.from({ length: 20 }, () => Math.floor(deps.random() * 10)).join('')}` as Id<'offer'>,
  })
  return parts.flatMap((p, i) => {
    const price = p.priceMinor ?? 100
    const packOf = PACK[p.kindKey] ?? 1
    const cheaper = p.kindKey === 'tip' ? [{ from: 500, each: roundUp(price * 0.86) }] : []
    return [
      {
        ...{ ...id(), partId: p.id, supplierId: post, theirCode: `L${4100 + i * 7}`, packOf, leadDays: null },
        ...{ bands: [{ from: 0, each: price }, ...cheaper], isSure: true },
      },
      {
        ...{
          ...id(),
          partId: p.id,
          supplierId: counter,
          theirCode: null,
          packOf: packOf > 20 ? 10 : 1,
          leadDays: null,
        },
        ...{ bands: [{ from: 0, each: roundUp(price * 1.55) }], isSure: true },
      },
    ]
  })
}

/** Orders that came: how long each took is what a lead time is learnt from. */
async function pastOrders(
  by: { ago: (days: number) => Deps; who: Who; deps: Deps },
  of: { name: string; took: readonly number[]; partId: PartId; supplierId: Id<'supplier'> },
): Promise<void> {
  for (const [i, days] of of.took.entries()) {
    const placed = by.ago(OLDEST_DAYS - i * 17)
    await placeOrder(placed, by.who, {
      ...{ key: `story-order-${of.name.slice(0, 4)}-${i}`, supplierId: of.supplierId },
      lines: [{ partId: of.partId, quantity: 20 }],
    })
    const [row] = await by.deps.db
      .select({ id: partOrder.id })
      .from(partOrder)
      .where(eq(partOrder.supplierId, of.supplierId))
      .orderBy(desc(partOrder.orderedMs))
      .limit(1)
    if (!row) continue
    await receiveOrder(by.ago(OLDEST_DAYS - i * 17 - days), by.who, {
      ...{ key: `story-came-${of.name.slice(0, 4)}-${i}`, orderId: row.id },
      lines: [{ partId: of.partId, quantity: 20 }],
    })
  }
}
