import { anId } from '@core/testing/ids.ts'
import { describe, expect, it } from 'vitest'
import { eq } from 'drizzle-orm'
import { site, stationClass } from '@server/db/schema.ts'
import { nextKey, type Client, type TestServer } from '@server/testing/testserver.ts'
import { serverForAll } from '@server/testing/serverforall.ts'
import { withPowerCut } from '@server/testing/powercut.ts'
import { writeAct } from '@server/write/act.ts'
import { changing } from '@server/write/changing.ts'
import { loadShop } from './model.ts'
import { ShopStore } from './store.ts'

/** How the shop is set up, kept by its revision; numbers in the names are the store's own invariants. */
let server: TestServer
let lead: Client
serverForAll({ nowMs: Date.UTC(2026, 10, 25, 8) }, async (here) => {
  ;({ server, lead } = here)
  await rates(4000)
})
const LEADING = { person: { id: anId('person', 'per_x'), name: 'x', role: 'lead' as const }, device: null }
const rates = (minor: number) =>
  lead.post('/shop/class', { key: nextKey(), classKey: 'booth', labourMinorPerHour: minor, stopMinorPerHour: 0 })
const deps = () => server.parts.deps
const shopBy = (store: ShopStore) => loadShop(deps().db, store, server.clock.nowMs)
const labour = async (store: ShopStore) => (await shopBy(store)).classes.get('booth')?.labourMinorPerHour

describe('the set-up of a shop', () => {
  it('is read once while nobody changes it', async () => {
    const store = new ShopStore()
    const [first, second] = [await store.tables(deps().db), await store.tables(deps().db)]
    expect(second.tables).toBe(first.tables)
    expect(second.revision).toBe(first.revision)
  })
  it('2: changed on one server it is another revision on all of them', async () => {
    const [here, there] = [new ShopStore(), new ShopStore()]
    const before = (await shopBy(here)).revision ?? 0
    await labour(there)
    await rates(4100)
    expect([await labour(here), await labour(there)]).toEqual([4100, 4100])
    expect((await shopBy(here)).revision).toBe(before + 1)
  })
  it('3: a change that is cut off at its last moment leaves nothing of it in the store', async () => {
    await withPowerCut(server, () => rates(9999))
    expect(await labour(deps().shops)).toBe(4100)
  })
  it('3: what is read in the middle of a change is that change, and is not kept for others', async () => {
    const store = new ShopStore()
    const seen: unknown[] = []
    const halfWay = changing({ ...deps(), shops: store }, LEADING, {
      key: nextKey(),
      change: { of: 'rates', classKey: 'booth' },
      work: async (tx, w) => {
        await tx.update(stationClass).set({ labourMinorPerHour: 7777 }).where(eq(stationClass.key, 'booth'))
        seen.push((await w.shop()).classes.get('booth')?.labourMinorPerHour, (await w.shop()).revision)
        throw new Error('cut off')
      },
    })
    await expect(halfWay).rejects.toThrow('cut off')
    expect(seen).toEqual([7777, null])
    expect(await labour(store)).toBe(4100)
  })
  it('is told anew within the act that changed it, and not counted where nothing changed', async () => {
    const before = (await shopBy(deps().shops)).revision
    await writeAct(deps(), LEADING, async (w) => void (await w.shop()))
    expect((await shopBy(deps().shops)).revision).toBe(before)
    const key = nextKey()
    const request = { key, name: 'Renamed', zone: 'UTC', units: 'metric', currency: 'EUR' }
    await lead.post('/shop/site', request)
    await lead.post('/shop/site', request)
    const after = await shopBy(deps().shops)
    expect([after.site.name, after.revision]).toEqual(['Renamed', (before ?? 0) + 1])
  })
  it('4: without a revision it is read anew each time', async () => {
    const store = new ShopStore()
    const [first, second] = [await store.tables(deps().db, true), await store.tables(deps().db, true)]
    expect(second.tables).not.toBe(first.tables)
    expect([first.revision, second.revision]).toEqual([null, null])
    expect((await deps().db.select().from(site)).map((s) => s.name)).toEqual(second.tables[0].map((s) => s.name))
  })
})
