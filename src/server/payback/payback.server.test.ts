import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { type Problem } from '@contract/common.ts'
import { type HelpAnswer, type PaybackAnswer, type StopsAnswer } from '@contract/payback.ts'
import {
  Client,
  driftOf,
  LEAD,
  makePlaces,
  nextKey,
  openShop,
  startTestServer,
  type TestServer,
} from '@server/testing/testserver.ts'

const DAY = 24 * 60
let server: TestServer
let lead: Client
let ids: Map<string, string>
const id = (name: string) => ids.get(name) ?? ''
const act = (name: string, what: Record<string, unknown>) =>
  lead.post('/logbook', { key: nextKey(), acts: [{ stationId: id(name), ...what }] })
const payback = async (query = '?days=30', who = lead) => (await who.get<PaybackAnswer>(`/payback${query}`)).body
const helped = (query: string) => lead.get<HelpAnswer & Problem>(`/payback/helped?${query}`)
const later = (minutes: number) => (server.clock.nowMs += minutes * 60_000)
const explain = (name: string, over: Record<string, unknown> = {}) =>
  lead.post('/down/explained', {
    ...{ key: nextKey(), stationId: id(name), symptom: 'burnback', cause: 'tipWorn', isCertain: true },
    ...{ by: 'search', closing: 'good', ...over },
  })
/** A stop of so many minutes, mended by a new part. */
const stop = async (name: string, minutes: number, position = 'tip') => {
  await act(name, { act: 'down' })
  later(minutes)
  await act(name, { act: 'changed', position, outReason: 'worn' })
  await act(name, { act: 'running' })
}
const heapAt = (at: PaybackAnswer, column: string) => at.heaps.find((h) => h.column === column)

beforeAll(async () => {
  server = await startTestServer({ nowMs: Date.UTC(2026, 10, 2, 8) })
  lead = await openShop(server)
  ids = await makePlaces(lead, 'A1–A6')
  for (const [name, station] of await makePlaces(lead, 'C1', {
    areaName: 'Cells',
    classKey: 'cell',
    placeWord: 'cell',
  }))
    ids.set(name, station)
  await lead.post('/shop/class', {
    ...{ key: nextKey(), classKey: 'booth', labourMinorPerHour: 3000, stopMinorPerHour: 6000 },
    scrapMinorPerPiece: 2500,
  })
  await lead.post('/shop/part', { key: nextKey(), code: 'T-1', name: 'Tip 1.0', kindKey: 'tip', priceMinor: 60 })
})
beforeEach(() => later(30))
afterAll(async () => {
  expect(server.faults).toEqual([])
  expect(await driftOf(server)).toBe(0)
  await server.close()
})

describe('what stops cost', () => {
  it('is time, hands, the parts put on while it stood, and what was scrapped', async () => {
    const before = await payback()
    expect(before.total.now.stops).toBe(0)
    await stop('A1', 20)
    await explain('A1', { scrapped: 1 })
    const { total, heaps } = await payback()
    expect(total.now.stops).toBe(1)
    expect(total.now.minutes).toBeCloseTo(20)
    expect(total.now.cost).toEqual({
      standMinor: 2000,
      handsMinor: 1000,
      partsMinor: 60,
      wireMinor: 0,
      scrapMinor: 2500,
    })
    expect(heaps.map((h) => [h.column, h.parts, h.partKind, h.partMinor])).toEqual([['tip', 1, 'tip', 60]])
  })
  it('does not count parts that were changed while nothing stood', async () => {
    await act('A2', { act: 'changed', position: 'tip', outReason: 'due' })
    expect(heapAt(await payback(), 'tip')?.parts).toBe(1)
  })
  it('counts a nest with wire as long as the gun, where nobody said how much was lost', async () => {
    const wire = { name: 'steel 1.0', construction: 'solid', diameterMm: 1, densityGPerCm3: 7.85, spoolKg: 15 }
    await lead.post('/shop/wire', { key: nextKey(), ...wire, size: '1.0' })
    await stop('A3', 10)
    await explain('A3', { symptom: 'nest', cause: 'tipPlugged' })
    const { nests } = await payback()
    expect(nests).toMatchObject({ n: 1, guessedWire: 1, lowMinor: null })
    expect(nests?.meanMinor).toBeCloseTo(1000 + 500 + 60)
  })
  it('of places that halt together is what all of them cost', async () => {
    for (const name of ['A5', 'A6'])
      await lead.post('/shop/station', { key: nextKey(), stationId: id(name), stopGroup: 'line' })
    const cost = async () => (await payback()).total.now.cost?.standMinor ?? 0
    const before = await cost()
    await stop('A5', 10)
    expect((await cost()) - before).toBeCloseTo(2 * 1000)
  })
  it('is told stop by stop too, newest first, and comes to the same', async () => {
    const { body } = await lead.get<StopsAnswer>('/payback/stops?days=90')
    const { total } = await payback()
    expect([body.of, body.stops.length]).toEqual([total.now.stops, total.now.stops])
    expect(body.stops.reduce((sum, s) => sum + s.minutes, 0)).toBeCloseTo(total.now.minutes)
    const money = Object.values(total.now.cost ?? {}).reduce((a, b) => a + b, 0)
    expect(body.stops.reduce((sum, s) => sum + (s.minor ?? 0), 0)).toBeCloseTo(money)
    const fromMs = body.stops.map((s) => s.fromMs)
    expect(fromMs).toEqual([...fromMs].sort((a, b) => b - a))
    expect(body.stops.find((s) => s.name === 'A1')).toMatchObject({ column: 'tip', parts: 1, toMs: expect.any(Number) })
  })
  it('is minutes alone for whoever may not see money', async () => {
    const areaId = (await payback()).areas[0]?.id ?? ''
    const link = await lead.post<{ path: string }>('/people/device-link', { key: nextKey(), name: 'tablet', areaId })
    const tablet = new Client(server.url)
    await tablet.post('/people/bind', { token: link.body.path.replace('/link/', '') })
    const seen = await payback('?days=30', tablet)
    expect(seen.isMoney).toBe(false)
    expect(seen.total.now).toMatchObject({ stops: 3, cost: null })
    expect(seen.heaps.every((h) => h.partMinor === null && h.now.cost === null)).toBe(true)
    expect(seen.nests?.meanMinor).toBeNull()
    const { body } = await tablet.get<StopsAnswer>('/payback/stops?days=30')
    expect([body.isMoney, body.stops.length, body.stops.every((s) => s.minor === null)]).toEqual([false, 3, true])
  })
  it('is asked for known stretches and places only', async () => {
    expect((await lead.get<Problem>('/payback?days=31')).status).toBe(400)
    expect((await lead.get<Problem>('/payback?areaId=none')).status).toBe(404)
  })
})

describe('how often', () => {
  it('is for what was welded in these days, by area, with its interval', async () => {
    const day = new Date(server.clock.nowMs).toISOString().slice(0, 10)
    for (const name of ['A1', 'A2'])
      await lead.post('/clock/usage', { key: nextKey(), stationId: id(name), day, arcHours: 5, kg: 8 })
    const { rates } = await payback()
    const [all, bay, cells] = rates
    expect(all).toMatchObject({ areaId: null, stops: 3 })
    expect(bay?.arcHours).toBeCloseTo(10, 1)
    expect(bay?.kg).toBeCloseTo(16, 1)
    expect(bay?.per100h?.rate).toBeCloseTo(30, 0)
    expect(bay?.per100h?.low).toBeLessThan(15)
    expect(bay?.betweenArcH).toBeCloseTo(10 / 3, 1)
    expect(cells).toMatchObject({ stops: 0, per100h: null, betweenArcH: null })
  })
  it('counts diffusers for the tips that were used', async () => {
    await act('A2', { act: 'changed', position: 'diffuser', outReason: 'stripped' })
    const [all] = (await payback()).rates
    expect(all?.diffusers).toBe(1)
    expect(all?.diffusersFor100Tips?.rate).toBeCloseTo(100 / (all?.tips ?? 1))
  })
})

describe('did it help?', () => {
  const signIn = () => lead.post('/people/sign-in', { key: nextKey(), ...LEAD })
  it('offers lasting parts and house rules, and no tip', async () => {
    await act('A1', { act: 'changed', position: 'liner', outReason: 'worn' })
    await lead.post('/shop/rule', {
      ...{ key: nextKey(), kindKey: 'tip', classKey: 'booth', changeLimit: 9, cleanLimit: null, lookDays: null },
    })
    const { changes } = await payback()
    expect(changes.some((c) => c.what === 'part' && c.position === 'liner' && c.name === 'A1')).toBe(true)
    expect(changes.some((c) => c.position === 'tip')).toBe(false)
    const change = { of: 'houseRule', kindKey: 'tip', classKey: 'booth', changeAt: 9 }
    expect(changes.find((c) => c.classKey === 'booth')).toMatchObject({ what: 'rule', rule: { change } })
  })
  it('is not asked of today', async () => {
    const { status, body } = await helped(`atMs=${server.clock.nowMs - 60_000}`)
    expect(status).toBe(422)
    expect(body.message).toContain('less than a day ago')
  })
  it('compares stops before and since, where it was changed, and looks at the other places', async () => {
    for (let i = 0; i < 12; i++) {
      await stop('A4', 5)
      later(DAY)
      if (i % 4 === 3) await signIn()
    }
    const atMs = server.clock.nowMs
    for (let i = 0; i < 12; i++) {
      await stop('A1', 5)
      later(DAY)
      if (i % 4 === 3) await signIn()
    }
    await signIn()
    const { body } = await helped(`atMs=${atMs}&stationId=${id('A4')}`)
    expect([body.before.stops, body.after.stops]).toEqual([12, 0])
    expect(body.is).toBe('fewer')
    expect(body.elsewhere).toBe('not')
    expect((await helped(`atMs=${atMs}&stationId=${id('A4')}&column=liner`)).body.before.stops).toBe(0)
  })
  it('of nothing welded says so', async () => {
    const { status } = await helped(`atMs=${server.clock.nowMs - 2 * 86_400_000}&stationId=nowhere`)
    expect(status).toBe(404)
  })
})

describe('what was not the feed', () => {
  it('counts what was explained as not the feed, and by what', async () => {
    const before = (await payback()).notFeed
    expect(before?.n).toBe(0)
    await act('C1', { act: 'down' })
    later(12)
    await act('C1', { act: 'running' })
    await explain('C1', { symptom: 'porosity', cause: 'seamTracking' })
    const after = (await payback()).notFeed
    expect(after).toMatchObject({ explained: (before?.explained ?? 0) + 1, n: 1, whys: [{ n: 1 }] })
    expect(after?.minutes).toBeCloseTo(12)
    expect(after?.whys[0]?.says).toContain('program')
  })
})
