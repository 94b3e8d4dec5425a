import { afterAll, beforeAll, expect, describe, it } from 'vitest'
import { type FloorAnswer } from '@contract/floor.ts'
import { type GunAnswer } from '@contract/gun.ts'
import { type ReadingAnswer } from '@contract/reading.ts'
import {
  driftOf,
  makePlaces,
  nextKey,
  openShop,
  startTestServer,
  type Client,
  type TestServer,
} from '@server/testing/testserver.ts'

const HOUR = 3_600_000
const DAY = 24 * HOUR
let server: TestServer
let lead: Client
let ids: Map<string, string>
const id = (name: string) => ids.get(name) ?? ''
const act = (name: string, what: Record<string, unknown>) => {
  server.clock.nowMs += 1000
  return lead.post('/logbook', { key: nextKey(), acts: [{ stationId: id(name), ...what }] })
}
const cleaningOf = async (name: string) =>
  (await lead.get<ReadingAnswer>(`/reading?stationId=${id(name)}`)).body.cleaning
const gun = async (name: string) => (await lead.get<GunAnswer>(`/gun/${id(name)}`)).body
const nozzle = async (name: string) => (await gun(name)).positions.find((p) => p.position === 'nozzle')
const choose = (option: string | null) =>
  lead.post('/houserule', { key: nextKey(), code: 'D16', scopeType: 'site', scopeKey: '*', option })
/** A day's welding, the nozzle found so far open at its end, then cleaned. */
async function dayOf(name: string, day: string, of: { arcHours: number; open: number | null; grade?: string }) {
  server.clock.nowMs = Date.parse(`${day}T14:05:00Z`)
  await lead.post('/clock/usage', { key: nextKey(), stationId: id(name), day, shift: 'early', arcHours: of.arcHours })
  await lead.post('/reading', {
    key: nextKey(),
    stationId: id(name),
    what: 'nozzleOpen',
    method: 'look',
    how: 'looked',
    value: of.open,
    grade: of.grade ?? null,
  })
  await act(name, { act: 'cleaned', position: 'nozzle' })
}
const DAYS = ['2026-11-09', '2026-11-10', '2026-11-11', '2026-11-12', '2026-11-13']

beforeAll(async () => {
  server = await startTestServer({ nowMs: Date.UTC(2026, 10, 8, 12) })
  lead = await openShop(server)
  ids = await makePlaces(lead, 'A1–A3', { built: { mode: 'spray', gas: 'argon mix' } })
  const shift = { name: 'early', weekdays: [1, 2, 3, 4, 5], start: '06:00', end: '14:00', breaks: [] }
  await lead.post('/shop/shifts', { key: nextKey(), areaId: null, shifts: [shift] })
  const rule = { kindKey: 'nozzle', classKey: '*', changeLimit: null, cleanLimit: 2, lookDays: null }
  await lead.post('/shop/rule', { key: nextKey(), ...rule })
  for (const name of ids.keys()) {
    await act(name, { act: 'changed', position: 'nozzle' })
    await act(name, { act: 'changed', position: 'diffuser' })
  }
})
afterAll(async () => {
  expect(server.faults).toEqual([])
  expect(await driftOf(server)).toBe(0)
  await server.close()
})

describe('how often a nozzle is cleaned', () => {
  it('is the house rule until it was found three times, then as it is found here', async () => {
    expect(await cleaningOf('A1')).toMatchObject({ limitH: 2, by: 'rule', n: 0 })
    await dayOf('A1', '2026-11-09', { arcHours: 2, open: 0.4 })
    await dayOf('A1', '2026-11-10', { arcHours: 2, open: 0.4 })
    expect(await cleaningOf('A1')).toMatchObject({ limitH: 2, by: 'rule', n: 2 })
    await dayOf('A1', '2026-11-11', { arcHours: 2, open: 0.4 })
    const made = await cleaningOf('A1')
    expect(made).toMatchObject({ by: 'found', n: 3 })
    expect(made?.limitH).toBeLessThan(0.8)
  })
  it('that is what is due, on the gun and on Floor, and who set it is told', async () => {
    server.clock.nowMs = Date.UTC(2026, 10, 12, 14, 5)
    await lead.post('/clock/usage', {
      key: nextKey(),
      stationId: id('A1'),
      day: '2026-11-12',
      shift: 'early',
      arcHours: 1,
    })
    const at = await nozzle('A1')
    expect(at).toMatchObject({ state: 'due', clean: { foundN: 3 } })
    expect(at?.clean?.limit).toBeLessThan(0.8)
    const row = (await lead.get<FloorAnswer>('/floor')).body.guns.find((g) => g.name === 'A1')
    expect(row?.wants).toMatchObject([{ position: 'nozzle', act: 'clean', foundN: 3 }])
  })
  it('found clean every time it stretches, by a half at most at a step', async () => {
    await dayOf('A2', DAYS[0] ?? '', { arcHours: 2, open: 0.99 })
    expect(await nozzle('A2')).toMatchObject({ clean: { foundN: null, limit: 2 } })
    for (const day of DAYS.slice(1)) await dayOf('A2', day, { arcHours: 2, open: 0.99 })
    const made = await cleaningOf('A2')
    expect(made?.limitH).toBeGreaterThan(2)
    expect(made?.limitH).toBeLessThanOrEqual(2 * 1.5 ** 5)
  })
  it('a look without a number counts as about so much', async () => {
    for (const day of DAYS) await dayOf('A3', day, { arcHours: 2, open: null, grade: 'half' })
    expect((await cleaningOf('A3'))?.n).toBe(5)
    expect((await cleaningOf('A3'))?.limitH).toBeLessThan(1)
  })
  it('by the school of the house: as set whatever is found, each hour, or daily', async () => {
    await choose('fixed')
    expect(await cleaningOf('A1')).toMatchObject({ limitH: 2, by: 'rule', n: 3 })
    await choose('hourly')
    expect(await nozzle('A1')).toMatchObject({ clean: { limit: 1, foundN: null } })
    await choose('cleanUp')
    expect(await cleaningOf('A1')).toMatchObject({ limitH: null, way: 'cleanUp' })
    expect(await nozzle('A1')).toMatchObject({ clean: null, state: 'look' })
    await act('A1', { act: 'seen', position: 'nozzle' })
    expect(await nozzle('A1')).toMatchObject({ clean: null, state: 'good' })
    server.clock.nowMs += 3 * DAY
    expect(await nozzle('A1')).toMatchObject({ clean: null, state: 'look' })
    await choose(null)
    expect(await cleaningOf('A1')).toMatchObject({ by: 'found' })
  })
  it('every eighth cleaning asks for the diffuser; brushed out it is quiet again', async () => {
    const asked = async () => (await gun('A1')).followUps.map((f) => f.task)
    for (let i = 0; i < 4; i++) await act('A1', { act: 'cleaned', position: 'nozzle' })
    expect(await asked()).not.toContain('deepClean')
    await act('A1', { act: 'cleaned', position: 'nozzle' })
    expect(await asked()).toContain('deepClean')
    await act('A1', { act: 'cleaned', position: 'diffuser' })
    expect(await asked()).not.toContain('deepClean')
  })
})
