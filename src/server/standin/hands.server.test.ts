import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { type HandsState } from '@core/simulator/hands.ts'
import { type LogbookAnswer } from '@contract/logbook.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import { device } from '@server/db/schema.ts'
import { digest } from '@server/people/people.ts'
import {
  makePlaces,
  nextKey,
  openShop,
  startTestServer,
  type Client,
  type TestServer,
} from '@server/testing/testserver.ts'
import { makeId } from '@core/ids/id.ts'
import { playRound, type HandsPlay } from './hands.ts'
import { isWorking } from './work.ts'

/** A Monday morning of the yard. */
const MORNING_MS = Date.UTC(2026, 10, 23, 8)
const MINUTE_MS = 60_000
const here = (playedMs: number): HandsState => ({ playedMs, forgotten: {} })
let server: TestServer
let lead: Client
let play: HandsPlay
beforeAll(async () => {
  server = await startTestServer({ nowMs: MORNING_MS })
  lead = await openShop(server)
  await makePlaces(lead, 'A1–A3', { areaName: 'Pontoon hall' })
  const { deps } = server.parts
  const id = makeId('device', deps.now(), deps.random)
  await deps.db.insert(device).values({ id, name: 'tablet', tokenHash: digest('a token'), boundMs: deps.now() })
  // Whatever can happen happens.
  play = { url: server.url, token: 'a token', random: () => 0 }
})
afterAll(async () => {
  expect(server.faults).toEqual([])
  await server.close()
})
const lines = async () => (await lead.get<LogbookAnswer>('/logbook')).body.lines.filter((l) => l.stationName)

describe('the yard’s people', () => {
  it('work when the yard does', () => {
    expect(isWorking('Pontoon hall', MORNING_MS)).toBe(true)
    expect(isWorking('Pontoon hall', MORNING_MS - 30 * 60 * MINUTE_MS)).toBe(false)
    expect(isWorking('a hall of another shop', MORNING_MS)).toBe(false)
  })
  it('log on their tablet what they do, at most once a minute, and get going what they stopped', async () => {
    expect(await playRound(null, play, MORNING_MS)).toEqual(here(MORNING_MS))
    const first = await playRound(here(MORNING_MS - 5 * MINUTE_MS), play, MORNING_MS)
    expect(first?.playedMs).toBe(MORNING_MS)
    expect((await lines()).map((l) => l.fact.kind)).toEqual(['stopped', 'stopped', 'stopped'])
    expect(await playRound(first, play, MORNING_MS + 30_000)).toBe(first)
    server.clock.nowMs += 10 * MINUTE_MS
    await playRound(first, play, MORNING_MS + 10 * MINUTE_MS)
    expect((await lines()).filter((l) => l.fact.kind === 'restarted')).toHaveLength(3)
  })
  it('log no more once the lead has put the tablet away', async () => {
    const before = (await lines()).length
    const { devices } = (await lead.get<ShopAnswer>('/shop')).body
    await lead.post('/people/device-drop', { key: nextKey(), deviceId: devices[0]?.id })
    const state = here(MORNING_MS)
    expect(await playRound(state, play, MORNING_MS + 20 * MINUTE_MS)).toBe(state)
    expect(await lines()).toHaveLength(before)
  })
  it('wait where the shop cannot be reached', async () => {
    const state = here(MORNING_MS)
    expect(await playRound(state, { ...play, url: 'http://127.0.0.1:9' }, MORNING_MS + 20 * MINUTE_MS)).toBe(state)
  })
})
