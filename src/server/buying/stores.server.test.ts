import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { type Problem } from '@contract/common.ts'
import { type GunAnswer } from '@contract/gun.ts'
import { type LogbookAnswer } from '@contract/logbook.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import { type KitAnswer, type StockAnswer } from '@contract/stock.ts'
import { rebuild } from '@server/projection/rebuild.ts'
import {
  type Client,
  LEAD,
  makePlaces,
  nextKey,
  openShop,
  startTestServer,
  type TestServer,
} from '@server/testing/testserver.ts'

/** Parts that lie in several places, on a shop made from nothing. */
const DAY = 86_400_000
const NOW = Date.UTC(2026, 10, 20, 12)
let server: TestServer
let lead: Client
let shop: ShopAnswer
let tip = ''
let ids: Map<string, string>
let cellArea = ''

const stock = async () => (await lead.get<StockAnswer>('/parts')).body
const liesOf = async () => {
  const at = await stock()
  const lies = at.parts.find((p) => p.partId === tip)?.lies ?? []
  return Object.fromEntries(
    lies.map((l) => [l.storeId === null ? 'main' : at.stores.find((s) => s.id === l.storeId)?.name, l.onHand]),
  )
}
const storeId = async (name = 'Cell cupboard') => (await stock()).stores.find((s) => s.name === name)?.id ?? ''
/** Nothing is said at the same instant as something else. */
const post = (path: string, body: object) => {
  server.clock.nowMs += 60_000
  return lead.post<Problem>(path, body)
}
const count = (quantity: number, where?: string) =>
  post('/parts/count', { key: nextKey(), counts: [{ partId: tip, quantity }], storeId: where })
const carry = (from: string | null, to: string | null, quantity: number) =>
  post('/parts/carry', {
    ...{ key: nextKey(), fromStoreId: from, toStoreId: to },
    lines: [{ partId: tip, quantity }],
  })
const putOn = (place: string) =>
  post('/logbook', {
    key: nextKey(),
    acts: [
      ...[{ stationId: ids.get(place), act: 'changed', position: 'tip', outReason: 'worn', count: 1, partId: tip }],
    ],
  })
const save = (name: string, areaIds: string[], more = {}) =>
  post('/parts/store', { key: nextKey(), name, fillDays: 7, areaIds, ...more })

beforeAll(async () => {
  server = await startTestServer({ nowMs: NOW - 60 * DAY })
  lead = await openShop(server)
  const cells = await makePlaces(lead, 'C1–C2', { areaName: 'Cells' })
  ids = new Map([...(await makePlaces(lead, 'A1–A2')), ...cells])
  await post('/shop/part', { key: nextKey(), code: 'K-T12', name: 'Kelp tip 1.2', kindKey: 'tip', priceMinor: 64 })
  shop = (await lead.get<ShopAnswer>('/shop')).body
  tip = shop.parts[0]?.id ?? ''
  cellArea = shop.areas.find((a) => a.name === 'Cells')?.id ?? ''
  for (const place of ids.keys()) await putOn(place)
  server.clock.nowMs = NOW
  await lead.post('/people/sign-in', LEAD)
})
afterAll(async () => {
  expect(server.faults).toEqual([])
  await server.close()
})

describe('another place for parts', () => {
  it('is made once, has a name of its own and serves areas there are', async () => {
    expect((await save('Cell cupboard', [cellArea])).status).toBe(200)
    expect((await save('Cell cupboard', [])).body.code).toBe('name-taken')
    expect((await save('Drawer', ['area_none'])).body.code).toBe('not-found')
    expect((await save('Cell cupboard', [cellArea], { id: 'store_none' })).body.code).toBe('not-found')
    expect((await save('Drawer', [], { fillDays: 0 })).status).toBe(400)
    expect((await stock()).stores).toMatchObject([
      { name: 'Cell cupboard', fillDays: 7, areaIds: [cellArea], fill: [] },
    ])
  })
  it('a round counted there leaves the main shelf as it was; what is put on comes from where its guns get theirs', async () => {
    server.clock.nowMs = NOW - 20 * DAY
    await count(60)
    await count(3, await storeId())
    server.clock.nowMs = NOW - 19 * DAY
    for (const place of ['C1', 'A1', 'C1']) await putOn(place)
    server.clock.nowMs = NOW
    expect(await liesOf()).toEqual({ main: 59, 'Cell cupboard': 1 })
    await putOn('C2')
    await putOn('C2')
    expect(await liesOf()).toEqual({ main: 58, 'Cell cupboard': 0 })
  })
  it('carried there: no more than lies there, not from a place to itself, each part once', async () => {
    const there = await storeId()
    expect((await carry(null, there, 5)).status).toBe(200)
    expect(await liesOf()).toEqual({ main: 53, 'Cell cupboard': 5 })
    const refused = await carry(there, null, 9)
    expect(refused.body.message).toBe('K-T12: by count and log 5 lie at Cell cupboard, not 9.')
    expect((await carry(there, there, 1)).status).toBe(400)
    expect((await carry(null, 'store_none', 1)).body.code).toBe('not-found')
    expect(await liesOf()).toEqual({ main: 53, 'Cell cupboard': 5 })
    const { lines } = (await lead.get<LogbookAnswer>('/logbook')).body
    expect(lines.map((l) => l.names)).toContainEqual(expect.objectContaining({ place: 'Cell cupboard', from: null }))
  })
  it('delivered there, and said where of each gun: its own place first', async () => {
    await post('/parts/received', { key: nextKey(), partId: tip, quantity: 2, storeId: await storeId() })
    const lies = async (place: string) =>
      (await lead.get<GunAnswer>(`/gun/${ids.get(place)}`)).body.positions.find((p) => p.kindKey === 'tip')?.lies
    expect(await lies('C1')).toEqual([
      { place: 'Cell cupboard', onHand: 7 },
      { place: null, onHand: 53 },
    ])
    expect((await lies('A1'))?.[0]).toEqual({ place: null, onHand: 53 })
  })
  it('two rounds tell what left each place, and what to carry there so that it lasts', async () => {
    await count(40)
    await count(1, await storeId())
    const at = await stock()
    const part = at.parts.find((p) => p.partId === tip)
    // 60 + 3 there, 2 came in, 41 left: what was carried between them was not taken.
    expect(part?.seen).toMatchObject({ taken: 24, by: 'counted' })
    const [fill] = at.stores[0]?.fill ?? []
    // Half the guns: about 24 × 7/20 ÷ 2 in a week.
    expect(fill?.mean).toBeGreaterThan(4)
    expect(fill?.mean).toBeLessThan(4.6)
    expect(fill?.level).toBeGreaterThan(6)
    expect(fill?.carry).toBe((fill?.level ?? 0) - 1)
  })
  it('a kit for its guns is taken from it first', async () => {
    const lines = [{ partId: tip, quantity: 4, guns: ['A1', 'C1', 'C2'] }]
    await post('/parts/kit', { key: nextKey(), name: 'Friday', lines })
    const { packed } = (await lead.get<KitAnswer>('/parts/kit')).body
    // Of the two for C1 and C2 one lies there; what is for no gun named comes from where the first gets its own.
    expect(packed[0]?.lines[0]?.from).toEqual([
      { store: 'Cell cupboard', quantity: 1 },
      { store: null, quantity: 3 },
    ])
  })
  it('built again from the ledger, nothing differs', async () => {
    expect((await rebuild(server.parts.deps, false)).stockNow).toBe(0)
  })
  it('another area served: what its guns put on since the counts comes from there', async () => {
    await putOn('A2')
    expect(await liesOf()).toEqual({ main: 39, 'Cell cupboard': 1 })
    const both = shop.areas.map((a) => a.id)
    await save('Cell cupboard', both, { id: await storeId() })
    expect(await liesOf()).toEqual({ main: 40, 'Cell cupboard': 0 })
    await save('Cell cupboard', [cellArea], { id: await storeId() })
    expect(await liesOf()).toEqual({ main: 39, 'Cell cupboard': 1 })
  })
  it('given up, what lies there goes to the main shelf; taken up again it is the same place', async () => {
    const before = await storeId()
    const said = { key: nextKey(), storeId: before }
    for (let i = 0; i < 2; i++) expect((await post('/parts/store/closed', said)).status).toBe(200)
    expect(await liesOf()).toEqual({ main: 40 })
    expect((await stock()).stores).toEqual([])
    expect((await carry(null, before, 1)).body.code).toBe('not-found')
    await save('Cell cupboard', [cellArea])
    expect(await storeId()).toBe(before)
    expect((await rebuild(server.parts.deps, false)).stockNow).toBe(0)
  })
})
