import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { count } from 'drizzle-orm'
import { type Problem } from '@contract/common.ts'
import { type GunAnswer } from '@contract/gun.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import { area, carrier, ledgerEvent, station } from '@server/db/schema.ts'
import {
  type Client,
  makePlaces,
  nextKey,
  openShop,
  startTestServer,
  type TestServer,
} from '@server/testing/testserver.ts'

let server: TestServer
let lead: Client
let ids: Map<string, string>
const id = (name: string) => ids.get(name) ?? ''
const shop = async () => (await lead.get<ShopAnswer>('/shop')).body
const gun = async (name: string) => (await lead.get<GunAnswer>(`/gun/${id(name)}`)).body
const rows = async (table: typeof station | typeof area | typeof carrier | typeof ledgerEvent) =>
  (await server.parts.deps.db.select({ n: count() }).from(table))[0]?.n ?? 0

beforeAll(async () => {
  server = await startTestServer({ nowMs: Date.UTC(2026, 10, 23, 8) })
  lead = await openShop(server)
  ids = await makePlaces(lead, 'A1–A8')
})
afterAll(() => server.close())
beforeEach(() => {
  server.clock.nowMs += 60_000
})

describe('places', () => {
  it('that are there already are kept, and only the new ones are made', async () => {
    const before = await rows(station)
    const again = await lead.post<{ made: { name: string }[]; kept: string[] }>('/shop/places', {
      key: nextKey(),
      names: 'A7–A10',
      areaName: 'bay a',
    })
    expect(again.body).toMatchObject({ kept: ['A7', 'A8'] })
    expect(again.body.made.map((m) => m.name)).toEqual(['A9', 'A10'])
    expect(await rows(station)).toBe(before + 2)
    expect(await rows(area)).toBe(1)
  })
  it('made by two leads at once are made once', async () => {
    const names = 'R1–R5'
    const made = await Promise.all(
      [1, 2, 3].map(() => lead.post('/shop/places', { key: nextKey(), names, areaName: 'Repair' })),
    )
    expect(made.filter((m) => m.status === 200).length).toBeGreaterThanOrEqual(1)
    expect((await shop()).stations.filter((s) => s.name.startsWith('R')).length).toBe(5)
  })
  it('that can’t be read are refused with what to write, and nothing is half made', async () => {
    const before = [await rows(station), await rows(carrier), await rows(ledgerEvent)]
    const bad = await lead.post<Problem>('/shop/places', { key: nextKey(), names: 'A9–A1', areaName: 'Bay A' })
    expect(bad.status).toBe(400)
    expect(bad.body.message).toContain('backwards')
    expect(
      (await lead.post<Problem>('/shop/places', { key: nextKey(), names: 'Q1', areaName: 'Bay Q', classKey: 'rocket' }))
        .status,
    ).toBe(404)
    expect([await rows(station), await rows(carrier), await rows(ledgerEvent)]).toEqual(before)
  })
  it('keep their order of the walk, and take another when it is drawn', async () => {
    const areaId = (await shop()).areas[0]?.id
    await lead.post('/shop/area', { key: nextKey(), areaId, walk: [id('A3'), id('A1'), id('A2')] })
    const walked = (await shop()).stations.filter((s) => s.areaId === areaId).map((s) => s.name)
    expect(walked.slice(0, 4)).toEqual(['A3', 'A1', 'A2', 'A4'])
  })
  it('may be renamed, but not to a name that is taken', async () => {
    expect((await lead.post('/shop/station', { key: nextKey(), stationId: id('A8'), name: 'A80' })).status).toBe(200)
    expect((await gun('A8')).name).toBe('A80')
    const taken = await lead.post<Problem>('/shop/station', { key: nextKey(), stationId: id('A8'), name: 'A1' })
    expect(taken).toMatchObject({ status: 409, body: { code: 'name-taken' } })
  })
})

describe('parts, wires, families', () => {
  it('a part is saved by its code, counted, and used up by fitting it', async () => {
    const part = { code: 'TIP-10', name: 'tip 1.0', kindKey: 'tip', wireSize: '1.0', priceMinor: 60 }
    await lead.post('/shop/part', { key: nextKey(), ...part, onHand: 40 })
    const saved = (await shop()).parts.find((p) => p.code === 'TIP-10')
    expect(saved).toMatchObject({ onHand: 40, wireSizeMm: 1, priceMinor: 60 })
    server.clock.nowMs += 60_000
    await lead.post('/logbook', {
      key: nextKey(),
      acts: [{ stationId: id('A1'), act: 'changed', position: 'tip', partId: saved?.id, count: 2 }],
    })
    expect((await shop()).parts.find((p) => p.code === 'TIP-10')?.onHand).toBe(38)
    await lead.post('/shop/part', { key: nextKey(), ...part, name: 'tip for 1.0' })
    expect((await shop()).parts.filter((p) => p.code === 'TIP-10')).toMatchObject([{ name: 'tip for 1.0', onHand: 38 }])
  })
  it('stock booked by a wrong act comes back when it is taken back', async () => {
    const partId = (await shop()).parts.find((p) => p.code === 'TIP-10')?.id
    const act = await lead.post<{ logged: { eventId: string }[] }>('/logbook', {
      key: nextKey(),
      acts: [{ stationId: id('A2'), act: 'changed', position: 'tip', partId }],
    })
    expect((await shop()).parts.find((p) => p.id === partId)?.onHand).toBe(37)
    await lead.post('/logbook/undo', { key: nextKey(), eventIds: act.body.logged.map((l) => l.eventId) })
    expect((await shop()).parts.find((p) => p.id === partId)?.onHand).toBe(38)
  })
  it('a size nobody sells is refused in words', async () => {
    const bad = await lead.post<Problem>('/shop/wire', {
      key: nextKey(),
      name: 'odd',
      construction: 'solid',
      size: '0.73',
      densityGPerCm3: 7.85,
      spoolKg: 15,
    })
    expect(bad.body.message).toContain('no wire size we know')
  })
  it('a family has its name once', async () => {
    expect((await lead.post('/shop/family', { key: nextKey(), name: 'Kite' })).status).toBe(200)
    expect((await lead.post<Problem>('/shop/family', { key: nextKey(), name: 'Kite' })).body.code).toBe('name-taken')
  })
  it('a change sent twice under one key is made once', async () => {
    const request = { key: nextKey(), name: 'Lark' }
    await lead.post('/shop/family', request)
    expect((await lead.post('/shop/family', request)).status).toBe(200)
    expect((await shop()).families.filter((f) => f.name === 'Lark')).toHaveLength(1)
  })
})

describe('as the bay, except', () => {
  it('the area’s description holds for its guns, and a gun’s own difference for it alone', async () => {
    await lead.post('/shop/wire', {
      key: nextKey(),
      name: 'thin',
      construction: 'solid',
      size: '.030',
      densityGPerCm3: 7.85,
      spoolKg: 15,
    })
    await lead.post('/shop/wire', {
      key: nextKey(),
      name: 'thick',
      construction: 'solid',
      size: '.045',
      densityGPerCm3: 7.85,
      spoolKg: 15,
    })
    const { wires, areas } = await shop()
    const wire = (name: string) => wires.find((w) => w.name === name)?.id
    await lead.post('/shop/area', { key: nextKey(), areaId: areas[0]?.id, built: { wireId: wire('thin'), cableM: 4 } })
    await lead.post('/shop/station', { key: nextKey(), stationId: id('A5'), except: { wireId: wire('thick') } })
    expect(await gun('A4')).toMatchObject({ wireName: 'thin', cableM: 4 })
    expect(await gun('A5')).toMatchObject({ wireName: 'thick', cableM: 4 })
  })
  it('a part that a gun does not have is absent on its line', async () => {
    await lead.post('/shop/station', { key: nextKey(), stationId: id('A6'), absent: ['neck'] })
    const g = await gun('A6')
    expect(g.positions.map((p) => p.position)).not.toContain('neck')
    expect(g.cells[6]?.[0]).toBe(7)
    await lead.post('/shop/station', { key: nextKey(), stationId: id('A6'), absent: [] })
    expect((await gun('A6')).positions.map((p) => p.position)).toContain('neck')
  })
})

describe('a gun that wandered', () => {
  it('swaps with what hung there, and swapping back restores both', async () => {
    const [one, two] = [(await gun('A1')).gunName, (await gun('A2')).gunName]
    const request = { key: nextKey(), stationId: id('A2'), gunOfStationId: id('A1') }
    await lead.post('/shop/move', request)
    await lead.post('/shop/move', request)
    expect([(await gun('A1')).gunName, (await gun('A2')).gunName]).toEqual([two, one])
    server.clock.nowMs += 60_000
    await lead.post('/shop/move', { key: nextKey(), stationId: id('A1'), gunOfStationId: id('A2') })
    expect([(await gun('A1')).gunName, (await gun('A2')).gunName]).toEqual([one, two])
  })
})

describe('money', () => {
  it('is told to leads only', async () => {
    await lead.post('/shop/class', {
      key: nextKey(),
      classKey: 'booth',
      labourMinorPerHour: 4000,
      stopMinorPerHour: 6000,
    })
    const link = await lead.post<{ path: string }>('/people/device-link', { key: nextKey(), name: 'tablet' })
    const { Client: Browser } = await import('@server/testing/testserver.ts')
    const tablet = new Browser(server.url)
    await tablet.post('/people/bind', { token: link.body.path.replace('/link/', '') })
    const seen = (await tablet.get<ShopAnswer>('/shop')).body
    expect(seen.classes.every((c) => c.stopMinorPerHour === 0)).toBe(true)
    expect(seen.parts.every((p) => p.priceMinor === null)).toBe(true)
    expect((await tablet.get<GunAnswer>(`/gun/${id('A1')}`)).body.stopMinorPerHour).toBeNull()
    expect((await gun('A1')).stopMinorPerHour).toBe(6000)
  })
})
