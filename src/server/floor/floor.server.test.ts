import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { STATES } from '@core/floor/state.ts'
import { COLUMNS } from '@core/path/columns.ts'
import { type FloorAnswer } from '@contract/floor.ts'
import { type GunAnswer } from '@contract/gun.ts'
import {
  type Client,
  LEAD,
  makePlaces,
  nextKey,
  openShop,
  startTestServer,
  type TestServer,
} from '@server/testing/testserver.ts'

const HOUR = 3_600_000
const DAY = 24 * HOUR
/** Monday 06:00. */
const MONDAY = Date.UTC(2026, 10, 23, 6, 0)
let server: TestServer
let lead: Client
let ids: Map<string, string>
const id = (name: string) => ids.get(name) ?? ''
const floor = async (query = '') => (await lead.get<FloorAnswer>(`/floor${query}`)).body
const gunOn = async (name: string) => (await floor()).guns.find((g) => g.name === name)
const stateOf = async (name: string, column: (typeof COLUMNS)[number]) =>
  STATES[(await gunOn(name))?.cells[COLUMNS.indexOf(column)]?.[0] ?? 0]
const log = (name: string, act: Record<string, unknown>) => {
  server.clock.nowMs += 1000
  return lead.post('/logbook', { key: nextKey(), acts: [{ stationId: id(name), ...act }] })
}
const usage = (name: string, day: string, arcHours: number) =>
  lead.post('/clock/usage', { key: nextKey(), stationId: id(name), day, shift: 'early', arcHours })

beforeAll(async () => {
  server = await startTestServer({ nowMs: MONDAY - 7 * DAY })
  lead = await openShop(server)
  ids = await makePlaces(lead, 'A1–A6')
  for (const [name, station] of await makePlaces(lead, 'C1', {
    areaName: 'Cells',
    classKey: 'cell',
    placeWord: 'cell',
  }))
    ids.set(name, station)
  await lead.post('/shop/shifts', {
    key: nextKey(),
    areaId: null,
    shifts: [
      {
        name: 'early',
        weekdays: [1, 2, 3, 4, 5],
        start: '06:00',
        end: '14:00',
        breaks: [{ start: '09:00', minutes: 15 }],
      },
    ],
  })
  await lead.post('/shop/rule', {
    key: nextKey(),
    kindKey: 'tip',
    classKey: '*',
    changeLimit: 10,
    cleanLimit: null,
    lookDays: null,
  })
  await lead.post('/shop/rule', {
    key: nextKey(),
    kindKey: 'rolls',
    classKey: '*',
    changeLimit: null,
    cleanLimit: null,
    lookDays: 5,
  })
  for (const name of ['A1', 'A2', 'A3', 'C1']) await log(name, { act: 'changed', position: 'tip' })
  for (const name of ids.keys()) await log(name, { act: 'seen' })
  server.clock.nowMs = MONDAY
  for (const name of ['A1', 'A2', 'C1'])
    for (const day of ['2026-11-16', '2026-11-17', '2026-11-18', '2026-11-19', '2026-11-20'])
      await usage(name, day, name === 'A1' ? 2.1 : 1.2)
})
afterAll(() => server.close())

describe('Floor', () => {
  it('opens a row when a limit is reached, with use, limit and how far past', async () => {
    const a1 = await gunOn('A1')
    expect(a1).toMatchObject({
      rank: 0,
      minutes: 2,
      wants: [{ position: 'tip', act: 'change', limit: 10, unit: 'arcHours' }],
    })
    expect(a1?.wants[0]?.used).toBeCloseTo(10.5, 1)
    expect(await stateOf('A1', 'tip')).toBe('due')
  })
  it('keeps a part over half of its limit quiet, drawn part-worn, with the date it gets there and a span', async () => {
    const a2 = await gunOn('A2')
    expect(a2?.rank).toBeNull()
    expect(await stateOf('A2', 'tip')).toBe('partWorn')
    const next = a2?.next
    expect(next?.reachedMs).toBeGreaterThan(MONDAY + 3 * DAY)
    expect(next?.reachedMs).toBeLessThan(MONDAY + 8 * DAY)
    expect(next?.earlyMs ?? 0).toBeLessThan(next?.reachedMs ?? 0)
    expect(next?.lateMs ?? 0).toBeGreaterThan(next?.reachedMs ?? 0)
  })
  it('a part without any usage is not seen, never good', async () => expect(await stateOf('A3', 'tip')).toBe('notSeen'))
  it('a part that nobody said was put on is not seen, though looked at', async () =>
    expect(await stateOf('A4', 'tip')).toBe('notSeen'))
  it('a look that is due is a tooth, and opens nothing', async () => {
    expect(await stateOf('A4', 'rolls')).toBe('look')
    expect((await gunOn('A4'))?.rank).toBeNull()
  })
  it('names the next break as the cut-off', async () =>
    expect((await floor()).cutoff).toEqual({
      atMs: MONDAY + 3 * HOUR,
      byMs: MONDAY + 3 * HOUR,
      isKnown: true,
      of: null,
    }))
  it('a class with a rule of its own goes by that', async () => {
    await lead.post('/shop/rule', {
      key: nextKey(),
      kindKey: 'tip',
      classKey: 'cell',
      changeLimit: 5,
      cleanLimit: null,
      lookDays: null,
    })
    expect((await gunOn('C1'))?.wants[0]).toMatchObject({ limit: 5 })
    expect((await gunOn('A2'))?.wants).toEqual([])
  })
  it('of one area holds that area, and of one column its limits', async () => {
    const { areas } = await floor()
    const cells = await floor(`?areaId=${areas.find((a) => a.name === 'Cells')?.id}&column=tip`)
    expect(cells.guns.map((g) => g.name)).toEqual(['C1'])
    expect(cells.guns[0]?.columnWant).toMatchObject({ position: 'tip', limit: 5 })
  })
  it('a parked gun opens nothing until it is in use again', async () => {
    await log('A1', { act: 'parked' })
    expect((await gunOn('A1'))?.rank).toBeNull()
    await log('A1', { act: 'unparked' })
    expect((await gunOn('A1'))?.rank).not.toBeNull()
  })
  it('puts what stands before what is due, and changing the tip closes its row', async () => {
    await log('A6', { act: 'down' })
    expect((await gunOn('A6'))?.rank).toBe(0)
    await log('A6', { act: 'running' })
    await log('A1', { act: 'changed', position: 'tip', outReason: 'due' })
    expect((await gunOn('A1'))?.rank).toBeNull()
    expect(await stateOf('A1', 'tip')).toBe('good')
  })
  it('an entry that comes late may lower what today reads, but the clock never runs backwards in time', async () => {
    server.clock.nowMs = MONDAY + 2 * DAY
    const before = (await lead.get<GunAnswer>(`/gun/${id('A2')}`)).body.positions.find((p) => p.position === 'tip')
    expect(before?.isEstimated).toBe(false)
    await usage('A2', '2026-11-23', 0.1)
    const after = (await lead.get<GunAnswer>(`/gun/${id('A2')}`)).body.positions.find((p) => p.position === 'tip')
    expect(after?.used ?? 99).toBeLessThan(before?.used ?? 0)
    expect(after?.used ?? 0).toBeGreaterThan(6)
  })
  it('a clock that nobody entered for ten working days makes its limits not seen', async () => {
    server.clock.nowMs = MONDAY + 20 * DAY
    await lead.post('/people/sign-in', LEAD)
    await log('A2', { act: 'seen' })
    expect(await stateOf('A2', 'tip')).toBe('notSeen')
  })
})

describe('shift totals', () => {
  it('typed twice count once, the later one', async () => {
    await usage('A5', '2026-12-11', 3)
    await usage('A5', '2026-12-11', 4)
    await log('A5', { act: 'changed', position: 'tip', happenedMs: Date.UTC(2026, 11, 11, 6) })
    const tip = (await lead.get<GunAnswer>(`/gun/${id('A5')}`)).body.positions.find((p) => p.position === 'tip')
    expect(tip?.used).toBeCloseTo(4, 0)
  })
  it('that do not fit into their shift, or lie ahead, are refused with the likely slip', async () => {
    const long = await usage('A5', '2026-12-10', 20)
    expect(long).toMatchObject({ status: 400, body: { details: ['Were these minutes? Divide by 60.'] } })
    expect((await usage('A5', '2027-05-01', 2)).status).toBe(422)
    expect(
      await lead.post('/clock/usage', {
        key: nextKey(),
        stationId: id('A5'),
        day: '2026-12-10',
        shift: 'moon',
        arcHours: 2,
      }),
    ).toMatchObject({ status: 422 })
    expect(await lead.post('/clock/usage', { key: nextKey(), stationId: id('A5'), day: '2026-12-10' })).toMatchObject({
      status: 400,
    })
  })
  it('sent twice under one key are one entry', async () => {
    const request = { key: nextKey(), stationId: id('A5'), day: '2026-12-10', shift: 'early', kg: 5 }
    expect(await lead.post('/clock/usage', request)).toMatchObject({ body: { isRepeat: false } })
    expect(await lead.post('/clock/usage', request)).toMatchObject({ body: { isRepeat: true } })
  })
})
