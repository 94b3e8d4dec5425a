import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { type Problem } from '@contract/common.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import { type KitAnswer, type StockAnswer } from '@contract/stock.ts'
import {
  type Client,
  LEAD,
  makePlaces,
  nextKey,
  openShop,
  startTestServer,
  type TestServer,
} from '@server/testing/testserver.ts'

/** What to buy: stock, suppliers, orders, on a shop made from nothing. */
const DAY = 86_400_000
const NOW = Date.UTC(2026, 10, 20, 12)
let server: TestServer
let lead: Client
let ids: Map<string, string>
let tip = ''
let cable = ''

const stock = async (until?: string) => (await lead.get<StockAnswer>(until ? `/parts?until=${until}` : '/parts')).body
const partOf = async (id: string) => (await stock()).parts.find((p) => p.partId === id)
const at = async (nowMs: number, work: () => Promise<unknown>) => {
  server.clock.nowMs = nowMs
  await work()
  server.clock.nowMs = NOW
}
const count = (partId: string, quantity: number) =>
  lead.post('/parts/count', { key: nextKey(), counts: [{ partId, quantity }] })
const supplierId = async (name: string) => (await stock()).suppliers.find((s) => s.name === name)?.id ?? ''

beforeAll(async () => {
  server = await startTestServer({ nowMs: NOW - 60 * DAY })
  lead = await openShop(server)
  ids = await makePlaces(lead, 'A1–A4')
  for (const [code, kindKey] of [
    ['K-T10', 'tip'],
    ['K-C3', 'cable'],
  ])
    await lead.post('/shop/part', { key: nextKey(), code, name: `Kelp ${kindKey} 1.0`, kindKey, priceMinor: 64 })
  const shop = (await lead.get<ShopAnswer>('/shop')).body
  tip = shop.parts.find((p) => p.code === 'K-T10')?.id ?? ''
  cable = shop.parts.find((p) => p.code === 'K-C3')?.id ?? ''
  for (const id of ids.values()) {
    const acts = [{ stationId: id, act: 'changed', position: 'tip', outReason: 'worn', count: 1, partId: tip }]
    await lead.post('/logbook', { key: nextKey(), acts })
  }
  server.clock.nowMs = NOW
  await lead.post('/people/sign-in', LEAD)
})
afterAll(async () => {
  expect(server.faults).toEqual([])
  await server.close()
})

describe('what will be wanted', () => {
  it('says nothing of a part that is on no gun and was never counted', async () => {
    expect(await partOf(cable)).toBeUndefined()
  })
  it('goes by what left the shelf where no gun has a clock', async () => {
    await at(NOW - 50 * DAY, () => count(tip, 200))
    await at(NOW - 1 * DAY, () => count(tip, 102))
    const part = await partOf(tip)
    expect(part).toMatchObject({ inUse: 4, untold: 4, by: 'counts', onHand: 102, seen: { taken: 98, by: 'counted' } })
    const month = part?.need.find((n) => n.days === 30)
    // 98 in 49 days: two a day.
    expect(month?.mean).toBeGreaterThan(58)
    expect(month?.mean).toBeLessThan(62.5)
    expect(month?.low).toBeLessThan(52)
    expect(part?.advice?.runsOut.middle).toBeGreaterThan(45)
    expect(part?.advice?.runsOut.middle).toBeLessThan(57)
  })
  it('to a day: the end of term', async () => {
    const part = (await stock('2027-01-19')).parts.find((p) => p.partId === tip)
    const term = part?.need.at(-1)
    expect(term?.days).toBeGreaterThan(60)
    expect(term?.mean).toBeGreaterThan(115)
    expect((await stock('2026-11-01')).untilDays).toBe(0)
    expect((await lead.get<Problem>('/parts?until=tomorrow')).status).toBe(400)
  })
  it('without anybody who sells it a week is guessed, and said to be', async () => {
    const part = await partOf(tip)
    expect(part?.offers).toMatchObject([{ supplierName: null, leadBy: 'guess', leadDays: 7, packOf: 1 }])
    expect(part?.advice?.point).toBeGreaterThan(14)
  })
})

describe('suppliers and offers', () => {
  it('are the lead’s, and make the point and the packs', async () => {
    const say = (more: object) => lead.post<Problem>('/parts/supplier', { key: nextKey(), ...more })
    expect((await say({ name: 'By post', leadDays: 12, orderMinor: 900 })).status).toBe(200)
    expect((await say({ name: 'by post' })).body.code).toBe('name-taken')
    const [before, post] = [await partOf(tip), await supplierId('By post')]
    const offer = {
      ...{ partId: tip, supplierId: post, packOf: 100, theirCode: 'P-4', isSure: true },
      bands: [
        { from: 0, each: 60 },
        { from: 500, each: 40 },
      ],
    }
    expect((await lead.post('/parts/offer', { key: nextKey(), ...offer })).status).toBe(200)
    const part = await partOf(tip)
    expect(part?.offers).toMatchObject([{ supplierName: 'By post', leadBy: 'told', leadDays: 12, packOf: 100 }])
    expect((part?.advice?.quantity ?? 1) % 100).toBe(0)
    expect(part?.advice?.point).toBeGreaterThan(before?.advice?.point ?? 1e9)
  })
  it.each([
    ['a pack of none', { packOf: 0 }],
    ['a price of nothing', { bands: [{ from: 0, each: 0 }] }],
    ['no price from the first on', { bands: [{ from: 10, each: 5 }] }],
    [
      'prices in no order',
      {
        bands: [
          { from: 0, each: 5 },
          { from: 0, each: 4 },
        ],
      },
    ],
  ])('refuse %s, and keep what was there', async (_, wrong) => {
    const good = {
      partId: tip,
      supplierId: await supplierId('By post'),
      packOf: 1,
      bands: [{ from: 0, each: 9 }],
      isSure: true,
    }
    const { status } = await lead.post<Problem>('/parts/offer', { key: nextKey(), ...good, ...wrong })
    expect(status).toBe(400)
    expect((await partOf(tip))?.offers[0]?.packOf).toBe(100)
  })
  it('what is only said to fit is weighed, and never ordered by', async () => {
    await lead.post('/parts/supplier', { key: nextKey(), name: 'Copies' })
    const copies = await supplierId('Copies')
    const offer = { partId: tip, supplierId: copies, packOf: 1, bands: [{ from: 0, each: 1 }], isSure: false }
    await lead.post('/parts/offer', { key: nextKey(), ...offer })
    const part = await partOf(tip)
    expect(part?.offers).toHaveLength(2)
    expect(part?.advice?.supplierName).toBe('By post')
  })
})

describe('an order', () => {
  let orderId = ''
  const key = nextKey()
  it('is placed once, counts as coming, and is due by the usual time', async () => {
    const order = { key, supplierId: await supplierId('By post'), lines: [{ partId: tip, quantity: 100 }] }
    for (let i = 0; i < 2; i++) expect((await lead.post('/parts/order', order)).status).toBe(200)
    const { orders } = await stock()
    expect(orders).toMatchObject([{ supplierName: 'By post', isLate: false, lines: [{ quantity: 100, received: 0 }] }])
    expect(orders[0]?.dueMs).toBe(NOW + 12 * DAY)
    orderId = orders[0]?.id ?? ''
    expect((await partOf(tip))?.coming).toMatchObject([{ quantity: 100, isLate: false }])
  })
  it('goes out in columns, theirs where they want some', async () => {
    const csv = async () => (await lead.get<string>(`/parts/order.csv?id=${orderId}`)).body
    expect(await csv()).toContain('P-4,K-T10,Kelp tip 1.0,100,1,0.60,60.00')
    const post = { id: await supplierId('By post'), name: 'By post', leadDays: 12, orderMinor: 900 }
    const columns = [
      { head: 'Art', is: 'theirCode' },
      { head: 'Packs', is: 'packs' },
    ]
    await lead.post('/parts/supplier', { key: nextKey(), ...post, columns })
    expect(await csv()).toMatch(/Art,Packs\r\nP-4,1/)
    expect((await lead.bytes(`/parts/order.pdf?id=${orderId}`)).toString('latin1').slice(0, 5)).toBe('%PDF-')
  })
  it('comes in two parts; what is more than ordered, or came already, is told in words and not booked', async () => {
    const came = (quantity: number, k = nextKey()) =>
      lead.post<Problem>('/parts/order/received', { key: k, orderId, lines: [{ partId: tip, quantity }] })
    const again = nextKey()
    for (let i = 0; i < 2; i++) expect((await came(60, again)).status).toBe(200)
    expect((await partOf(tip))?.onHand).toBe(162)
    const more = await came(60)
    expect(more.status).toBe(400)
    expect(more.body.message).toBe('K-T10: 100 were ordered and 60 are in, so 40 at most belong to it, not 60.')
    expect((await came(40)).status).toBe(200)
    expect((await came(1)).body.message).toBe('K-T10: all 100 of this order are in already.')
    expect((await stock()).orders).toEqual([])
    expect((await partOf(tip))?.onHand).toBe(202)
  })
  it('whose rest does not come is closed, and no longer counts as coming', async () => {
    const supplier = await supplierId('By post')
    await lead.post('/parts/order', { key: nextKey(), supplierId: supplier, lines: [{ partId: tip, quantity: 5 }] })
    const id = (await stock()).orders[0]?.id
    expect((await lead.post('/parts/order/closed', { key: nextKey(), orderId: id })).status).toBe(200)
    expect((await stock()).orders).toEqual([])
    const lines = [{ partId: tip, quantity: 5 }]
    const late = await lead.post<Problem>('/parts/order/received', { key: nextKey(), orderId: id, lines })
    expect(late.body.message).toContain('was closed')
  })
  it('of yesterday, of no part, of a part twice is refused', async () => {
    const supplier = await supplierId('By post')
    const order = (more: object) =>
      lead.post<Problem>('/parts/order', {
        ...{ key: nextKey(), supplierId: supplier, lines: [{ partId: tip, quantity: 5 }] },
        ...more,
      })
    expect((await order({ due: '2026-11-01' })).body.message).toContain('is past')
    expect((await order({ lines: [] })).status).toBe(400)
    const twice = [
      { partId: tip, quantity: 5 },
      { partId: tip, quantity: 6 },
    ]
    expect((await order({ lines: twice })).status).toBe(400)
    expect((await order({ lines: [{ partId: 'part_nowhere00', quantity: 5 }] })).body.code).toBe('not-found')
    expect((await stock()).orders).toEqual([])
  })
  it('teaches how long one takes, from three on', async () => {
    const supplier = await supplierId('Copies')
    for (const [i, days] of [20, 24, 22].entries()) {
      const placed = NOW - (200 - i) * DAY
      await at(placed, () =>
        lead.post('/parts/order', { key: nextKey(), supplierId: supplier, lines: [{ partId: tip, quantity: 1 }] }),
      )
      const id = (await stock()).orders[0]?.id
      const lines = [{ partId: tip, quantity: 1 }]
      await at(placed + days * DAY, () => lead.post('/parts/order/received', { key: nextKey(), orderId: id, lines }))
    }
    const { suppliers } = await stock()
    expect(suppliers.find((s) => s.name === 'Copies')?.learnt).toMatchObject({ n: 3, days: 22 })
    const offer = (await partOf(tip))?.offers.find((o) => o.supplierName === 'Copies')
    expect(offer).toMatchObject({ leadBy: 'orders', leadDays: 22 })
  })
})

describe('a kit', () => {
  const kits = async (query = '') => (await lead.get<KitAnswer>(`/parts/kit${query}`)).body
  it('of nothing due is empty; packed once, on paper, given back once', async () => {
    expect(await kits()).toMatchObject({ lines: [], unknown: [], packed: [] })
    const key = nextKey()
    const body = { key, name: 'noon, bay A', lines: [{ partId: tip, quantity: 2, guns: ['A1', 'A2'] }] }
    for (let i = 0; i < 2; i++) expect((await lead.post('/parts/kit', body)).status).toBe(200)
    const { packed } = await kits()
    expect(packed).toMatchObject([{ name: 'noon, bay A', lines: [{ code: 'K-T10', quantity: 2, guns: ['A1', 'A2'] }] }])
    const id = packed[0]?.id
    expect((await lead.bytes(`/parts/kit.pdf?id=${id}`)).toString('latin1').slice(0, 5)).toBe('%PDF-')
    expect((await lead.post('/parts/kit/closed', { key: nextKey(), kitId: id })).status).toBe(200)
    expect((await lead.post<Problem>('/parts/kit/closed', { key: nextKey(), kitId: id })).body.code).toBe('not-found')
    expect((await kits()).packed).toEqual([])
  })
  it('holds what is due, for which guns, by area', async () => {
    await lead.post('/shop/rule', {
      key: nextKey(),
      ...{ kindKey: 'tip', classKey: '*', changeLimit: 1, cleanLimit: null, lookDays: null },
    })
    for (const day of ['2026-11-17', '2026-11-18', '2026-11-19'])
      await lead.post('/clock/usage', { key: nextKey(), stationId: ids.get('A1'), day, arcHours: 3 })
    const { areas } = (await lead.get<ShopAnswer>('/shop')).body
    const lines = (await kits(`?areaId=${areas[0]?.id}`)).lines
    expect(lines).toMatchObject([{ code: 'K-T10', quantity: 1, guns: ['A1'] }])
    expect((await lead.get('/parts/kit?areaId=area_nowhere0')).status).toBe(404)
  })
  it('packed, its guns are served and its parts are nobody else’s, until they are on', async () => {
    const [line] = (await kits()).lines
    expect(line).toMatchObject({ code: 'K-T10', guns: ['A1'] })
    const lines = [{ partId: tip, quantity: 3, guns: ['A1'] }]
    await lead.post('/parts/kit', { key: nextKey(), name: 'A1', lines })
    expect((await kits()).lines).toEqual([])
    expect((await partOf(tip))?.packed).toBe(3)
    server.clock.nowMs += 60_000
    const acts = [
      { stationId: ids.get('A1'), act: 'changed', position: 'tip', outReason: 'worn', count: 1, partId: tip },
    ]
    await lead.post('/logbook', { key: nextKey(), acts })
    expect((await partOf(tip))?.packed).toBe(2)
    await lead.post('/parts/kit/closed', { key: nextKey(), kitId: (await kits()).packed[0]?.id })
    expect((await partOf(tip))?.packed).toBe(0)
  })
  it('of a part there is not is refused', async () => {
    const lines = [{ partId: 'part_nowhere00', quantity: 1, guns: [] }]
    expect((await lead.post<Problem>('/parts/kit', { key: nextKey(), name: 'x', lines })).body.code).toBe('not-found')
  })
})

describe('the whole of it', () => {
  it('lies where somebody said', async () => {
    await lead.post('/parts/shelf', { key: nextKey(), partId: tip, shelf: 'rack A, bin 3', shelfMost: 250 })
    expect(await partOf(tip)).toMatchObject({ shelf: 'rack A, bin 3', shelfMost: 250 })
  })
  it('goes out with the shop and stands in its Logbook', async () => {
    const book = (await lead.get<{ lines: { fact: { kind: string; change?: { of: string } } }[] }>('/logbook')).body
    const kinds = new Set(book.lines.flatMap((l) => l.fact.change?.of ?? []))
    for (const of of ['supplier', 'offer', 'ordered', 'orderClosed', 'shelf']) expect(kinds).toContain(of)
  })
})
