import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { type FloorAnswer } from '@contract/floor.ts'
import { type ImportPreview } from '@contract/ingest.ts'
import { type Problem } from '@contract/common.ts'
import { type SupplyAnswer } from '@contract/parts.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import { contentOf, withPowerCut } from '@server/testing/powercut.ts'
import {
  type Client,
  LEAD,
  makePlaces,
  nextKey,
  openShop,
  startTestServer,
  type TestServer,
} from '@server/testing/testserver.ts'

/** What cannot forget: purchases, shelves and tins, and the share of changes that gets logged. */
const DAY = 86_400_000
const NOW = Date.UTC(2026, 10, 20, 12)
let server: TestServer
let lead: Client
let ids: Map<string, string>
let areaId = ''
const supply = async () => (await lead.get<SupplyAnswer>('/parts/supply')).body
const at = async (nowMs: number, work: () => Promise<unknown>) => {
  server.clock.nowMs = nowMs
  await work()
  server.clock.nowMs = NOW
}
const change = (name: string, count = 1) =>
  lead.post('/logbook', {
    key: nextKey(),
    acts: [{ stationId: ids.get(name), act: 'changed', position: 'tip', outReason: 'worn', count }],
  })
const tin = (over: Record<string, unknown> = {}) =>
  lead.post('/parts/tin', {
    key: nextKey(),
    areaId,
    kindKey: 'tip',
    grams: 0,
    pieces: 50,
    gramsOfPieces: 600,
    isEmptied: true,
    ...over,
  })

beforeAll(async () => {
  server = await startTestServer({ nowMs: NOW - 60 * DAY })
  lead = await openShop(server)
  ids = await makePlaces(lead, 'A1–A4')
  for (const [name, id] of await makePlaces(lead, 'B1–B2', { areaName: 'Bay B' })) ids.set(name, id)
  areaId = (await lead.get<ShopAnswer>('/shop')).body.areas.find((a) => a.name === 'Bay A')?.id ?? ''
  for (const name of ['A1', 'A2', 'B1']) await change(name)
  server.clock.nowMs = NOW
  await lead.post('/people/sign-in', LEAD)
})
afterAll(async () => {
  expect(server.faults).toEqual([])
  await server.close()
})

describe('the purchase list', () => {
  const SHEET = [
    'Article;Month;Qty;Unit',
    'Contact tips 1.0;2026-08;10;box of 50',
    'Contact tips 1.0;2026-08;2;box of 50',
    'contact tips 1.2;09/2026;500;pcs',
    'liner 4 m;Sep 2026;4;',
    'Welding wire;2026-08;1,5;t',
    'Welding wire;2026-09;1.500;kg',
    'gloves;2026-09;40;pairs',
  ].join('\n')
  it('is read in words: boxes, tonnes, other goods left out', async () => {
    const { body } = await lead.post<ImportPreview>('/ingest/preview', { kind: 'purchases', text: SHEET })
    expect(body).toMatchObject({ bad: [], canTake: true, leftOut: [{ row: 8, text: 'gloves' }] })
    expect(body.would).toMatchObject({ 'purchases new': 5, 'rows of other goods left out': 1 })
  })
  it('what can’t be read is named by its row, and nothing is written', async () => {
    const before = await contentOf(server)
    const text = 'item,month,qty\ncontact tips,soon,4\ncontact tips,2027-03,4\nwelding wire,2026-03,many'
    const answer = await lead.post<Problem>('/ingest/take', { kind: 'purchases', text })
    expect(answer.status).toBe(422)
    expect(answer.body.details).toEqual([
      'row 2, month, "soon": that is no month; write 2026-03',
      'row 3, month, "2027-03": that month is still to come',
      'row 4, qty, "many": that is not a number',
    ])
    expect(await contentOf(server)).toEqual(before)
  })
  it('a power cut leaves nothing of it', () =>
    withPowerCut(server, async () => {
      const before = await contentOf(server)
      await lead.post('/ingest/take', { kind: 'purchases', text: SHEET })
      expect(await contentOf(server)).toEqual(before)
    }))
  it('tells what a part costs in wire, and goes in once', async () => {
    for (const isRepeat of [false, true])
      expect((await lead.post('/ingest/take', { kind: 'purchases', text: SHEET })).body).toMatchObject({ isRepeat })
    const [tips, liners] = (await supply()).bought
    // 1,100 tips and 4 liners for 3,000 kg in two months
    expect(tips).toMatchObject({ kindKey: 'tip', pieces: 1100, kg: 3000, months: 2 })
    expect(tips?.kgEach).toBeCloseTo(3000 / 1100, 9)
    expect(liners).toMatchObject({ kindKey: 'liner', pieces: 4, kgEach: 750 })
    expect(liners?.lowKg).toBeLessThan(400)
  })
  it('a mended line holds over the one before it', async () => {
    const text = 'item,month,qty\ncontact tips 1.2,2026-09,400'
    await lead.post('/ingest/take', { kind: 'purchases', text })
    expect((await supply()).bought[0]).toMatchObject({ pieces: 1000 })
  })
  it('Floor says so while nobody has looked at anything', async () => {
    const floor = (await lead.get<FloorAnswer>('/floor')).body
    expect(floor.bought.map((b) => b.kindKey)).toEqual(['tip', 'liner'])
  })
})

describe('the tin', () => {
  it('two weighings and the log tell the share, per bay', async () => {
    await at(NOW - 14 * DAY, () => tin({ grams: 500 }))
    for (let day = 13; day > 1; day--) await at(NOW - day * DAY, () => change('A3'))
    await at(NOW - 9 * DAY, () => change('B2'))
    await at(NOW - DAY, () => tin({ grams: 252 }))
    const line = (await supply()).shares.find((s) => s.source === 'tin')
    expect(line).toMatchObject({ areaId, kindKey: 'tip', taken: 21, logged: 12 })
    expect(line?.share).toBeGreaterThan(0.5)
    expect(line?.share).toBeLessThan(0.65)
    expect((line?.high ?? 0) - (line?.low ?? 0)).toBeGreaterThan(0.25)
  })
  it('weighed again on the same day the later weighing holds', async () => {
    await at(NOW - DAY + 3_600_000, () => tin({ grams: 180 }))
    expect((await supply()).shares.find((s) => s.source === 'tin')).toMatchObject({ taken: 15 })
    await at(NOW - DAY + 7_200_000, () => tin({ grams: 252 }))
  })
  it('a change booked as three took three', async () => {
    await at(NOW - 2 * DAY, () => change('A3', 3))
    expect((await supply()).shares.find((s) => s.source === 'tin')).toMatchObject({ logged: 15 })
  })
  it('a day to come, an unknown bay and a key used twice are told apart', async () => {
    expect(await tin({ day: '2026-12-24' })).toMatchObject({ status: 422 })
    expect(await tin({ areaId: 'area_none' })).toMatchObject({ status: 404 })
    const before = (await supply()).tins
    const key = nextKey()
    for (let i = 0; i < 2; i++) expect(await tin({ key, grams: 12, day: '2026-11-18' })).toMatchObject({ status: 200 })
    expect((await supply()).tins).toEqual(before)
  })
})

describe('the shelf', () => {
  let partId = ''
  it('between two counts and a delivery so many were taken', async () => {
    await lead.post('/shop/part', { key: nextKey(), code: 'QX-T', name: 'tip', kindKey: 'tip' })
    partId = (await lead.get<ShopAnswer>('/shop')).body.parts[0]?.id ?? ''
    const count = (quantity: number) => lead.post('/parts/count', { key: nextKey(), counts: [{ partId, quantity }] })
    await at(NOW - 20 * DAY, () => count(60))
    await at(NOW - 10 * DAY, () => lead.post('/parts/received', { key: nextKey(), partId, quantity: 50 }))
    expect(await count(80)).toMatchObject({ status: 200 })
    const line = (await supply()).shares.find((s) => s.source === 'counted')
    expect(line).toMatchObject({ areaId: null, kindKey: 'tip', taken: 30, logged: 16 })
    expect((await lead.get<ShopAnswer>('/shop')).body.parts[0]?.onHand).toBe(80)
  })
  it('Floor owns up to it in one line: the whole shop’s first, a bay’s own where it has one', async () => {
    server.clock.nowMs = NOW + 120_000
    expect((await lead.get<FloorAnswer>('/floor')).body.logging).toMatchObject({ areaId: null, kindKey: 'tip' })
    expect((await lead.get<FloorAnswer>(`/floor?areaId=${areaId}`)).body.logging).toMatchObject({
      areaId,
      source: 'tin',
    })
    server.clock.nowMs = NOW
  })
  it('a part nobody knows is refused whole', async () => {
    const before = await contentOf(server)
    const counts = [
      { partId, quantity: 1 },
      { partId: 'part_none', quantity: 2 },
    ]
    expect(await lead.post('/parts/count', { key: nextKey(), counts })).toMatchObject({ status: 404 })
    expect(await contentOf(server)).toEqual(before)
  })
  it('a power cut leaves nothing of a count, a delivery or a weighing', () =>
    withPowerCut(server, async () => {
      const before = await contentOf(server)
      await lead.post('/parts/count', { key: nextKey(), counts: [{ partId, quantity: 1 }] })
      await lead.post('/parts/received', { key: nextKey(), partId, quantity: 1 })
      await tin({ grams: 5 })
      expect(await contentOf(server)).toEqual(before)
    }))
})
