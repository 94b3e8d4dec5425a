import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { type IgnoredAnswer } from '@contract/houserule.ts'
import { Client, makePlaces, nextKey, openShop, startTestServer, type TestServer } from '@server/testing/testserver.ts'

/** A tip's limit of two hours in a bay where everybody runs three. */
let server: TestServer
let lead: Client
let stationId: string
const ignored = async () => (await lead.get<IgnoredAnswer>('/houserule/ignored')).body.rules
const act = (what: Record<string, unknown>) => {
  server.clock.nowMs += 60_000
  return lead.post('/logbook', { key: nextKey(), acts: [{ stationId, ...what }] })
}
const rule = (changeLimit: number) =>
  lead.post('/shop/rule', {
    key: nextKey(),
    kindKey: 'tip',
    classKey: '*',
    changeLimit,
    cleanLimit: null,
    lookDays: null,
  })
async function dayOf(day: number, outReason: string): Promise<void> {
  const date = `2026-11-${String(day).padStart(2, '0')}`
  server.clock.nowMs = Date.parse(`${date}T14:05:00Z`)
  await lead.post('/clock/usage', { key: nextKey(), stationId, day: date, shift: 'early', arcHours: 3 })
  await act({ act: 'changed', position: 'tip', outReason })
}

beforeAll(async () => {
  server = await startTestServer({ nowMs: Date.UTC(2026, 10, 1, 12) })
  lead = await openShop(server)
  stationId = (await makePlaces(lead, 'A1')).get('A1') ?? ''
  const shift = { name: 'early', weekdays: [1, 2, 3, 4, 5, 6, 7], start: '06:00', end: '14:00', breaks: [] }
  await lead.post('/shop/shifts', { key: nextKey(), areaId: null, shifts: [shift] })
  await rule(2)
  await act({ act: 'changed', position: 'tip' })
})
afterAll(async () => {
  expect(server.faults).toEqual([])
  await server.close()
})

describe('a limit that everybody runs past', () => {
  it('says nothing after a few, asks to be changed after five without harm', async () => {
    for (const day of [2, 3, 4]) await dayOf(day, 'worn')
    expect(await ignored()).toEqual([])
    for (const day of [5, 6, 7]) await dayOf(day, 'worn')
    expect(await ignored()).toMatchObject([{ kindKey: 'tip', classKey: '*', limit: 2, past: 6 }])
    expect((await ignored())[0]?.suggested).toBeCloseTo(3, 1)
  })
  it('changed as it asks it is quiet', async () => {
    await rule(3)
    expect(await ignored()).toEqual([])
    await rule(2)
  })
  it('one that burned back, or ended a stop, is harm: the rule is right', async () => {
    await dayOf(8, 'burnedBack')
    expect(await ignored()).toEqual([])
  })
  it('is the lead’s to see', async () => {
    const stranger = new Client(server.url)
    expect((await stranger.get('/houserule/ignored')).status).toBe(401)
  })
})
