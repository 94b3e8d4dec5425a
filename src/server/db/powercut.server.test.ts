import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { type LogAnswer } from '@contract/logbook.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import { UNTOLD_FEEDER, UNTOLD_PROCEDURE } from '@core/rightparts/untold.ts'
import { type SpareGun } from '@contract/spareguns.ts'
import { buildDemo } from '@server/demo/demo.ts'
import { contentOf, withPowerCut } from '@server/testing/powercut.ts'
import {
  Client,
  LEAD,
  makePlaces,
  nextKey,
  openShop,
  startTestServer,
  type TestServer,
} from '@server/testing/testserver.ts'

/** Every write of the program, cut off at its last moment: the database is as it was, and the same request then goes through. */
let server: TestServer
let lead: Client
let ids: Map<string, string>
let shop: ShopAnswer
let logged: string
let spareId: string
let wireId: string
let partId: string
const id = (name: string) => ids.get(name) ?? ''

beforeAll(async () => {
  server = await startTestServer({ nowMs: Date.UTC(2026, 10, 23, 12) })
  lead = await openShop(server)
  ids = await makePlaces(lead, 'A1–A4')
  await lead.post('/shop/shifts', {
    key: nextKey(),
    areaId: null,
    shifts: [{ name: 'early', weekdays: [1, 2, 3, 4, 5, 6, 7], start: '06:00', end: '14:00', breaks: [] }],
  })
  await lead.post('/shop/family', { key: nextKey(), name: 'Kite' })
  await lead.post('/people/person', { key: nextKey(), name: 'Ana', role: 'hand', isActive: true })
  const log = await lead.post<LogAnswer>('/logbook', {
    key: nextKey(),
    acts: [{ stationId: id('A1'), act: 'changed', position: 'tip', outReason: 'worn' }],
  })
  logged = log.body.logged[0]?.eventId ?? ''
  await fitSomething()
  shop = (await lead.get<ShopAnswer>('/shop')).body
})
/** Two wires, a tip for each, a gun that hangs free, and one gun with the wrong tip on it. */
async function fitSomething(): Promise<void> {
  for (const size of ['0.9', '1.2']) {
    const wire = { name: `steel ${size}`, construction: 'solid', size, densityGPerCm3: 7.85, spoolKg: 15 }
    await lead.post('/shop/wire', { key: nextKey(), ...wire })
    const tip = { code: `T-${size}`, name: 'tip', kindKey: 'tip', wireSize: size, onHand: 9 }
    await lead.post('/shop/part', { key: nextKey(), ...tip })
  }
  await lead.post('/gun/spare', { key: nextKey(), name: 'K0', familyId: null, cableM: 4 })
  const { wires, parts } = (await lead.get<ShopAnswer>('/shop')).body
  const codeId = (code: string) => parts.find((p) => p.code === code)?.id ?? ''
  wireId = wires.find((w) => w.name === 'steel 0.9')?.id ?? ''
  partId = codeId('T-0.9')
  spareId = (await lead.get<{ guns: SpareGun[] }>('/gun/spares')).body.guns[0]?.gunId ?? ''
  await lead.post('/rightparts/look', {
    key: nextKey(),
    stationId: id('A4'),
    parts: [{ position: 'tip', partId: codeId('T-1.2') }],
    settings: [],
    wireId,
  })
}
afterAll(() => server.close())
beforeEach(() => {
  server.clock.nowMs += 60_000
})

const WRITES: { what: string; path: string; body: () => object }[] = [
  {
    what: 'a log of several acts',
    path: '/logbook',
    body: () => ({
      acts: [
        { stationId: id('A1'), act: 'changed', position: 'liner', outReason: 'worn' },
        { stationId: id('A2'), act: 'down', position: 'tip' },
        { stationId: id('A3'), act: 'newSpool', labelKg: 15 },
      ],
    }),
  },
  {
    what: 'work done by a guide',
    path: '/guide/done',
    body: () => ({
      stationId: id('A3'),
      guide: 'tip',
      did: 'changed',
      minutes: 4,
      overrun: null,
      settled: ['tension'],
    }),
  },
  {
    what: 'a liner job',
    path: '/liner/done',
    body: () => ({
      stationId: id('A3'),
      old: { found: ['bunched'], isCertain: true, atMm: 900, lengthMm: 3400 },
      isBlown: true,
      cut: null,
      minutes: 30,
      overrun: 'baked',
    }),
  },
  { what: 'a kinked liner', path: '/liner/stuck', body: () => ({ stationId: id('A3'), atMm: 900, isKinked: true }) },
  { what: 'a liner cut short', path: '/liner/spoiled', body: () => ({ stationId: id('A3'), why: 'cutShort' }) },
  { what: 'a follow-up done', path: '/followup', body: () => ({ stationId: id('A3'), task: 'seat' }) },
  { what: 'a near miss', path: '/guide/nearmiss', body: () => ({ stationId: id('A3'), hazard: 'spring' }) },
  {
    what: 'own words in a guide',
    path: '/guide/note',
    body: () => ({ guide: 'tip', step: 'tipOn', familyId: '*', words: 'a nip', isInstead: false }),
  },
  { what: 'own words of a caution', path: '/guide/caution', body: () => ({ hazard: 'hot', words: 'Hot. Gloves.' }) },
  { what: 'a correction', path: '/logbook/correct', body: () => ({ eventId: logged, stationId: id('A2') }) },
  { what: 'an undo', path: '/logbook/undo', body: () => ({ eventIds: [logged] }) },
  {
    what: 'a shift total',
    path: '/clock/usage',
    body: () => ({ stationId: id('A1'), day: '2026-11-22', shift: 'early', arcHours: 3 }),
  },
  { what: 'new places', path: '/shop/places', body: () => ({ names: 'C1–C9', areaName: 'Bay C' }) },
  {
    what: 'the site',
    path: '/shop/site',
    body: () => ({ name: 'Other', zone: 'Europe/Oslo', units: 'us', currency: 'NOK' }),
  },
  {
    what: 'an area',
    path: '/shop/area',
    body: () => ({ areaId: shop.areas[0]?.id, name: 'North', built: { cableM: 4 }, walk: [id('A4'), id('A1')] }),
  },
  {
    what: 'a place',
    path: '/shop/station',
    body: () => ({ stationId: id('A4'), name: 'A40', absent: ['neck'], except: { cableM: 3 } }),
  },
  {
    what: 'a gun that moved',
    path: '/shop/move',
    body: () => ({ stationId: id('A2'), gunOfStationId: id('A3') }),
  },
  {
    what: 'a house rule',
    path: '/shop/rule',
    body: () => ({ kindKey: 'tip', classKey: '*', changeLimit: 6, cleanLimit: null, lookDays: null }),
  },
  {
    what: 'rates',
    path: '/shop/class',
    body: () => ({ classKey: 'booth', labourMinorPerHour: 3000, stopMinorPerHour: 4000 }),
  },
  { what: 'a part kind', path: '/shop/kind', body: () => ({ kindKey: 'tip', changeMin: 9, synonyms: ['point'] }) },
  {
    what: 'a part and its count',
    path: '/shop/part',
    body: () => ({ code: 'T-1', name: 'tip', kindKey: 'tip', wireSize: '1.0', onHand: 12 }),
  },
  { what: 'a family', path: '/shop/family', body: () => ({ name: 'Gull' }) },
  { what: 'a feeder', path: '/shop/feedertype', body: () => ({ name: 'four', fit: UNTOLD_FEEDER }) },
  { what: 'a procedure', path: '/shop/procedure', body: () => ({ name: 'fillet', fit: UNTOLD_PROCEDURE }) },
  {
    what: 'a look at a gun',
    path: '/rightparts/look',
    body: () => ({
      stationId: id('A1'),
      parts: [{ position: 'tip', partId: null }],
      settings: [{ name: 'roll1', value: '0.9' }],
    }),
  },
  {
    what: 'a setting',
    path: '/rightparts/set',
    body: () => ({ stationId: id('A1'), how: 'set', settings: [{ name: 'polarity', value: 'gun positive' }] }),
  },
  {
    what: 'a reminder',
    path: '/rightparts/tag',
    body: () => ({ stationId: id('A1'), tag: 'brakeTight', isBack: false }),
  },
  {
    what: 'a joint that seized, both parts scrapped',
    path: '/rightparts/joint',
    body: () => ({ stationId: id('A1'), joint: 'tip', fault: 'seized', thread: 'scrapped' }),
  },
  { what: 'a spare gun', path: '/gun/spare', body: () => ({ name: 'K1', familyId: null, cableM: 4 }) },
  {
    what: 'a gun swapped',
    path: '/gun/swap',
    body: () => ({ stationId: id('A1'), gunId: spareId, oldGun: 'toRefurbish' }),
  },
  { what: 'a loose gun put right', path: '/gun/status', body: () => ({ gunId: spareId, status: 'ready' }) },
  {
    what: 'a change of wire',
    path: '/changeover',
    body: () => ({ stationIds: [id('A1')], wireId, isScrapped: true, stillTied: ['brakeTight'], skipped: [] }),
  },
  { what: 'a part handed out', path: '/parts/issue', body: () => ({ stationId: id('A1'), partId }) },
  {
    what: 'a finding the lead keeps',
    path: '/rightparts/keep',
    body: () => ({ stationId: id('A4'), rule: 'tipLarge', at: 'tip', isKept: true }),
  },
  {
    what: 'a sheet of parts',
    path: '/ingest/take',
    body: () => ({ kind: 'parts', text: 'code,kind,size,on hand\nZ-1,tip,1.0,5\nZ-2,nozzle,,3' }),
  },
  {
    what: 'a sheet of families',
    path: '/ingest/take',
    body: () => ({ kind: 'families', text: 'family,pin\nWren,long\nLark,short' }),
  },
  {
    what: 'a wire',
    path: '/shop/wire',
    body: () => ({ name: 'w', construction: 'solid', size: '.035', densityGPerCm3: 7.85, spoolKg: 15 }),
  },
  {
    what: 'shifts and days off',
    path: '/shop/shifts',
    body: () => ({
      areaId: null,
      shifts: [{ name: 'late', weekdays: [1], start: '14:00', end: '22:00', breaks: [] }],
      holidays: [{ day: '2026-12-25', name: 'off' }],
    }),
  },
  { what: 'a person', path: '/people/person', body: () => ({ name: 'Bo', role: 'hand', isActive: true }) },
  {
    what: 'a person who leaves',
    path: '/people/person',
    body: () => ({ id: shop.people.find((p) => p.name === 'Ana')?.id, name: 'Ana', role: 'hand', isActive: false }),
  },
  { what: 'a link for a device', path: '/people/device-link', body: () => ({ name: 'tablet' }) },
  {
    what: 'a sheet of places',
    path: '/ingest/take',
    body: () => ({
      kind: 'places',
      text: 'booth,area,part kind,put on\nK1,Bay K,tip,2026-11-01\nK2,Bay K,tip,2026-11-02',
    }),
  },
  {
    what: 'a sheet of usage',
    path: '/ingest/take',
    body: () => ({ kind: 'usage', text: 'date,booth,arc hours\n2026-11-20,A1,2\n2026-11-21,A1,3' }),
  },
]

describe('a power cut at the last moment of', () => {
  it.each(WRITES)('$what leaves nothing behind, and the same request then goes through, once', async (write) => {
    const body = { key: nextKey(), ...write.body() }
    const before = await contentOf(server)
    const cut = await withPowerCut(server, () => lead.post(write.path, body))
    expect(cut).toMatchObject({ status: 500, body: { code: 'server-fault' } })
    expect(await contentOf(server)).toEqual(before)
    expect(await lead.post(write.path, body)).toMatchObject({ status: 200 })
    const after = await contentOf(server)
    expect(after).not.toEqual(before)
    expect((await lead.post(write.path, body)).status).toBe(200)
    // A link asked for again is a new link for the same device: only its hash differs.
    const again = await contentOf(server)
    expect({ ...again, device: '' }).toEqual({ ...after, device: '' })
    expect(server.faults).toEqual([])
  })
})

describe('a power cut while', () => {
  it('a device is bound leaves the link good', async () => {
    const link = await lead.post<{ path: string }>('/people/device-link', { key: nextKey(), name: 'wall' })
    const token = link.body.path.split('/').at(-1) ?? ''
    const tablet = new Client(server.url)
    const before = await contentOf(server)
    expect((await withPowerCut(server, () => tablet.post('/people/bind', { token }))).status).toBe(500)
    expect(await contentOf(server)).toEqual(before)
    expect((await tablet.post('/people/bind', { token })).status).toBe(200)
    expect((await tablet.get('/floor')).status).toBe(200)
  })
  it('a shop is opened leaves an empty shop, which can then be opened', async () => {
    const fresh = await startTestServer({ nowMs: server.clock.nowMs })
    const person = new Client(fresh.url)
    const request = { shopName: 'Fresh', zone: 'UTC', units: 'metric', ...LEAD }
    const before = await contentOf(fresh)
    expect((await withPowerCut(fresh, () => person.post('/people/first-lead', request))).status).toBe(500)
    expect(await contentOf(fresh)).toEqual(before)
    expect((await person.post('/people/first-lead', request)).status).toBe(200)
    await fresh.close()
  })
  it('the demo is built leaves nothing of it', async () => {
    const fresh = await startTestServer({ nowMs: server.clock.nowMs })
    const before = await contentOf(fresh)
    await expect(withPowerCut(fresh, () => buildDemo(fresh.parts.deps))).rejects.toThrow('power cut')
    expect(await contentOf(fresh)).toEqual(before)
    await fresh.close()
  })
})
