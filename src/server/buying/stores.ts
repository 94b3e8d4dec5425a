import { makeId, type PartId, type StoreId } from '@core/ids/id.ts'
import { type Fact } from '@core/ledger/event.ts'
import { eq, inArray } from 'drizzle-orm'
import { type z } from 'zod'
import { type carryRequest, type storeClosedRequest, type storeRequest } from '@contract/parts.ts'
import { type Deps, type Who } from '@server/call/context.ts'
import { area, stockNow, store } from '@server/db/schema.ts'
import { type Tx } from '@server/db/db.ts'
import { mustHaveParts, supplyAct } from '@server/parts/supply.ts'
import { DomainError } from '@server/problem/problem.ts'
import { readLies } from '@server/projection/stock.ts'
import { mustHaveArea, mustHaveStore, storeName } from '@server/shopmodel/model.ts'
import { changing } from '@server/write/changing.ts'

/** A place where parts lie, new or changed. One that was given up is taken up again under its old name. */
export const saveStore = (deps: Deps, who: Who, r: z.output<typeof storeRequest>) =>
  changing(deps, who, {
    key: r.key,
    change: { of: 'store', name: r.name, isClosed: false },
    work: async (tx, w) => {
      const shop = await w.shop()
      r.areaIds.forEach((id) => mustHaveArea(shop, id))
      if (r.id) mustHaveStore(shop, r.id)
      const again = shop.stores.find((s) => !s.isActive && s.name.toLowerCase() === r.name.toLowerCase())
      const id = r.id ?? again?.id ?? makeId('store', deps.now(), deps.random)
      const values = { name: r.name, fillDays: r.fillDays, isActive: true }
      if (r.id ?? again) await tx.update(store).set(values).where(eq(store.id, id))
      else await tx.insert(store).values({ id, ...values })
      await serve(tx, id, r.areaIds)
      // What its guns took since the last counts comes from another place now.
      return { partIds: await countedParts(tx) }
    },
  })

async function serve(tx: Tx, storeId: StoreId, areaIds: readonly (typeof area.$inferSelect)['id'][]): Promise<void> {
  await tx.update(area).set({ storeId: null }).where(eq(area.storeId, storeId))
  if (areaIds.length > 0)
    await tx
      .update(area)
      .set({ storeId })
      .where(inArray(area.id, [...areaIds]))
}
const countedParts = async (tx: Tx): Promise<Set<PartId>> =>
  new Set((await tx.selectDistinct({ id: stockNow.partId }).from(stockNow)).map((p) => p.id))

/** Given up: what lies there is carried to the main place, and its areas get theirs from there. */
export function closeStore(deps: Deps, who: Who, r: z.output<typeof storeClosedRequest>) {
  const said = { name: '' }
  return changing(deps, who, {
    key: r.key,
    change: () => ({ of: 'store', ...said, isClosed: true }),
    work: async (tx, w) => {
      said.name = mustHaveStore(await w.shop(), r.storeId).name
      const there = [...(await readLies(tx))].flatMap(([partId, lies]) =>
        lies.filter((l) => l.storeId === r.storeId && l.onHand > 0).map((l) => ({ partId, quantity: l.onHand })),
      )
      if (there.length > 0) w.say(supplyAct(deps, there.map(carriedFact(r.storeId, null))))
      await serve(tx, r.storeId, [])
      await tx.update(store).set({ isActive: false }).where(eq(store.id, r.storeId))
      return { partIds: await countedParts(tx) }
    },
  })
}

const carriedFact =
  (fromStoreId: StoreId | null, toStoreId: StoreId | null) =>
  (line: { partId: PartId; quantity: number }): Fact => ({ kind: 'carried', ...line, fromStoreId, toStoreId })

/** Carried from one place to another. More than lies there by count and log is refused: one of the two is wrong, and a count says which. */
export const carryParts = (deps: Deps, who: Who, r: z.output<typeof carryRequest>) =>
  changing(deps, who, {
    key: r.key,
    change: { of: 'carried', parts: r.lines.length },
    work: async (tx, w) => {
      const shop = await w.shop()
      for (const id of [r.fromStoreId, r.toStoreId]) if (id) mustHaveStore(shop, id)
      const codes = await mustHaveParts(
        tx,
        r.lines.map((l) => l.partId),
      )
      const lies = await readLies(tx)
      for (const { partId, quantity } of r.lines) {
        const from = lies.get(partId)?.find((l) => l.storeId === r.fromStoreId)
        if (from && quantity > from.onHand)
          throw new DomainError(
            'bad-request',
            `${codes.get(partId) ?? ''}: by count and log ${Math.max(0, from.onHand)} lie at ${storeName(r.fromStoreId, shop) ?? 'the main shelf'}, not ${quantity}.`,
            ['Count what lies there first; then carry.'],
          )
      }
      w.say(supplyAct(deps, r.lines.map(carriedFact(r.fromStoreId, r.toStoreId))))
    },
  })
