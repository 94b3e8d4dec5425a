import { NO_ID } from '@core/ids/id.ts'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { type FloorAnswer } from '@contract/floor.ts'
import { type GunAnswer } from '@contract/gun.ts'
import { type ChangeAnswer } from '@contract/changeover.ts'
import { type FindingLine } from '@contract/rightparts.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import { Calendar, shiftSpan } from '@server/time/calendar.ts'
import { addDays, dayOf, wallToMs, wallToMsOrNext } from '@server/time/wall.ts'
import {
  driftOf,
  type Client,
  makePlaces,
  nextKey,
  openShop,
  startTestServer,
  type TestServer,
} from '@server/testing/testserver.ts'

/** A second shop, set up by hand: inch and pounds, two-roll feeders, one family, no telemetry, a night shift across a clock change. */
const ZONE = 'America/Chicago'
const HOUR = 3_600_000
/** Sunday 1 November 2026, 02:00: clocks go back; this is the evening before. */
const NOW = Date.UTC(2026, 9, 31, 20, 0)
let server: TestServer
let lead: Client
let ids: Map<string, string>
const id = (name: string) => ids.get(name) ?? ''
const gun = async (name: string) => (await lead.get<GunAnswer>(`/gun/${id(name)}`)).body
const tip = (g: GunAnswer) => g.positions.find((p) => p.position === 'tip')

beforeAll(async () => {
  server = await startTestServer({ nowMs: NOW })
  lead = await openShop(server, { zone: ZONE, units: 'us' })
  await lead.post('/shop/wire', {
    key: nextKey(),
    name: 'tubular',
    construction: 'flux-cored',
    size: '.045',
    densityGPerCm3: 6.1,
    spoolKg: 15,
  })
  const wireId = (await lead.get<{ wires: { id: string; diameterMm: number }[] }>('/shop')).body.wires[0]?.id
  ids = await makePlaces(lead, '01–04', {
    areaName: 'Frame shop',
    built: { wireId, rollCount: 2, wireSpeedMPerMin: 7, parts: {} },
  })
  await lead.post('/shop/shifts', {
    key: nextKey(),
    areaId: null,
    shifts: [{ name: 'night', weekdays: [1, 2, 3, 4, 5, 6, 7], start: '22:00', end: '06:00', breaks: [] }],
  })
  await lead.post('/shop/rule', {
    key: nextKey(),
    kindKey: 'tip',
    classKey: '*',
    changeLimit: 6,
    cleanLimit: null,
    lookDays: null,
  })
})
afterAll(() => server.close())

it('a shop in inches begins in dollars, until somebody says otherwise', async () => {
  const { site } = (await lead.get<ShopAnswer>('/shop')).body
  expect(site).toMatchObject({ units: 'us', currency: 'USD' })
})

describe('the second shop', () => {
  it('keeps the noughts of its numbers and knows its one wire', async () =>
    expect(await gun('01')).toMatchObject({ name: '01', wireMm: 1.2, areaName: 'Frame shop' }))
  it('before anybody looked, nothing is drawn as good and nothing opens a row', async () => {
    const floor = (await lead.get<FloorAnswer>('/floor')).body
    expect(floor.notSeenGuns).toBe(4)
    expect(floor.guns.every((g) => g.rank === null)).toBe(true)
  })
  it('a night with the clocks going back has nine hours, and its total is spread over all of them', async () => {
    const span = shiftSpan(ZONE, { start: '22:00', end: '06:00' }, '2026-10-31')
    expect((span.toMs - span.fromMs) / HOUR).toBe(9)
    await lead.post('/logbook', { key: nextKey(), acts: [{ stationId: id('01'), act: 'changed', position: 'tip' }] })
    server.clock.nowMs = span.toMs + HOUR
    await lead.post('/clock/usage', {
      key: nextKey(),
      stationId: id('01'),
      day: '2026-10-31',
      shift: 'night',
      arcHours: 4.5,
    })
    expect(tip(await gun('01'))?.used).toBeCloseTo(4.5, 5)
  })
  it('the next night runs on as estimate, is part-worn, then due, and opens a row', async () => {
    const next = shiftSpan(ZONE, { start: '22:00', end: '06:00' }, '2026-11-01')
    server.clock.nowMs = next.fromMs + HOUR
    const due = tip(await gun('01'))
    expect(due?.used).toBeGreaterThan(4.5)
    expect(due).toMatchObject({ state: 'due' })
    const floor = (await lead.get<FloorAnswer>('/floor')).body
    expect(floor.guns.find((g) => g.rank === 0)).toMatchObject({
      name: '01',
      wants: [{ position: 'tip', act: 'change', limit: 6 }],
    })
  })
  it('spools alone are a clock: a new one says the old one is used up', async () => {
    const load = (happenedMs: number) =>
      lead.post('/logbook', { key: nextKey(), acts: [{ stationId: id('02'), act: 'newSpool', happenedMs }] })
    const t0 = server.clock.nowMs - 3 * 24 * HOUR
    await load(t0)
    await lead.post('/logbook', {
      key: nextKey(),
      acts: [{ stationId: id('02'), act: 'changed', position: 'liner', happenedMs: t0 }],
    })
    await load(server.clock.nowMs - HOUR)
    const liner = (await gun('02')).positions.find((p) => p.position === 'liner')
    expect(liner?.used).toBeGreaterThan(14.5)
    expect(tip(await gun('02'))?.state).toBe('notSeen')
  })
  it('a gun hung elsewhere takes its hours along', async () => {
    const before = tip(await gun('01'))?.used ?? 0
    await lead.post('/shop/move', { key: nextKey(), stationId: id('03'), gunOfStationId: id('01') })
    expect(tip(await gun('03'))?.used).toBeCloseTo(before, 5)
    expect(tip(await gun('01'))?.fittedMs).toBeNull()
    const sum = await driftOf(server)
    expect(sum).toBe(0)
  })
  it('twenty like one copies what it lacks', async () => {
    await lead.post('/shop/station', { key: nextKey(), stationId: id('04'), absent: ['neck', 'insulator'] })
    const more = await makePlaces(lead, '05–24', { areaName: 'Frame shop', likeStationId: id('04') })
    expect(more.size).toBe(20)
    const g = (await lead.get<GunAnswer>(`/gun/${more.get('24')}`)).body
    expect(g.positions.map((p) => p.position)).not.toContain('neck')
    expect(g.cells[6]?.[0]).toBe(7)
  })
})

describe('right parts in inches, on two-roll feeders', () => {
  const ROLLS = 'knurled .045 / knurled 1/16'
  it('a sheet of parts, a look that reads faces, a wrong one, and the way to another wire', async () => {
    const sheet = 'code,kind,size,faces\nT-045,tip,.045,\nT-035,tip,.035,\nR-K,drive rolls,,.045 knurled / .035 V\n'
    expect((await lead.post('/ingest/take', { kind: 'parts', text: sheet })).status).toBe(200)
    expect(
      (await lead.post('/ingest/take', { kind: 'parts', text: `code,kind,faces\nR-X,drive rolls,${ROLLS}` })).status,
    ).toBe(422)
    await lead.post('/shop/wire', {
      key: nextKey(),
      name: 'thin solid',
      construction: 'solid',
      size: '.035',
      densityGPerCm3: 7.85,
      spoolKg: 15,
    })
    const { parts, wires } = (await lead.get<ShopAnswer>('/shop')).body
    const part = (code: string) => parts.find((p) => p.code === code)?.id
    const wire = (name: string) => wires.find((w) => w.name === name)?.id ?? ''
    const seen = await lead.post<{ findings: FindingLine[] }>('/rightparts/look', {
      key: nextKey(),
      stationId: id('02'),
      wireId: wire('tubular'),
      parts: [
        { position: 'tip', partId: part('T-045') },
        { position: 'rolls', partId: part('R-K') },
      ],
      settings: [
        { name: 'roll1', value: '045' },
        { name: 'roll2', value: '.035' },
      ],
    })
    expect(seen.body.findings).toMatchObject([{ rule: 'rollTurned', remedy: { do: 'turn', rolls: [2] } }])
    const plan = (await lead.get<ChangeAnswer>(`/changeover?stationIds=${id('02')}&wireId=${wire('thin solid')}`)).body
      .guns[0]
    expect(plan?.swaps.map((s) => s.to?.code)).toEqual(['T-035'])
    expect(plan?.turns).toEqual({ rolls: [1], readMm: 0.9 })
    expect(plan?.steps.find((s) => s.key === 'turnRolls')?.do).toBe('Turn roll 1 round.')
    expect(plan?.steps.find((s) => s.key === 'read-roll1')?.do).toBe('Roll 1: number .035 faces you.')
  })
})

describe('wall time', () => {
  it('a time that occurs twice is the first; one that does not exist is none, or the first moment after', () => {
    expect(wallToMs(ZONE, '2026-11-01', '01:30')).toBe(Date.UTC(2026, 10, 1, 6, 30))
    expect(wallToMs(ZONE, '2026-03-08', '02:30')).toBeNull()
    expect(wallToMsOrNext(ZONE, '2026-03-08', '02:30')).toBe(Date.UTC(2026, 2, 8, 8, 30))
    expect(wallToMs(ZONE, '2026-07-01', '12:00')).toBe(Date.UTC(2026, 6, 1, 17))
  })
  it('days follow the zone', () => {
    expect(dayOf('Asia/Tokyo', Date.UTC(2026, 0, 1, 20))).toBe('2026-01-02')
    expect(addDays('2026-02-28', 1)).toBe('2026-03-01')
  })
  it('a schedule leaves out breaks, weekends and days off', () => {
    const shifts = [
      {
        areaId: null,
        name: 'day',
        weekdays: [1, 2, 3, 4, 5],
        start: '06:00',
        end: '14:00',
        breaks: [{ start: '09:00', minutes: 30 }],
      },
    ]
    const schedule = new Calendar().scheduleFor(
      { zone: 'UTC', shifts, holidays: ['2026-11-24'] },
      NO_ID,
      Date.UTC(2026, 10, 23),
    )
    const week =
      schedule?.spans.filter((s) => s.fromMs >= Date.UTC(2026, 10, 23) && s.fromMs < Date.UTC(2026, 10, 30)) ?? []
    expect(week.reduce((sum, s) => sum + s.toMs - s.fromMs, 0) / HOUR).toBe(4 * 7.5)
  })
})
