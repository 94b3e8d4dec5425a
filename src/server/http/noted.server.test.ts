import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { type LogbookAnswer } from '@contract/logbook.ts'
import { type GunAnswer } from '@contract/gun.ts'
import { type Problem } from '@contract/common.ts'
import {
  type Client,
  driftOf,
  makePlaces,
  nextKey,
  openShop,
  startTestServer,
  type TestServer,
} from '@server/testing/testserver.ts'

/** Writes that were noted on a device without a link and come hours later: facts at their own time. */
const HOUR = 3_600_000
let server: TestServer
let lead: Client
let ids: Map<string, string>
const id = (name: string) => ids.get(name) ?? ''
const lines = async (name: string) =>
  (await lead.get<LogbookAnswer>('/logbook')).body.lines.filter((l) => l.stationName === name)
const gun = async (name: string) => (await lead.get<GunAnswer>(`/gun/${id(name)}`)).body

/** Writes as a device that noted it at that time, and is back on line now. */
async function noted<T>(atMs: number | string, path: string, body: Record<string, unknown>) {
  lead.notedMs = atMs
  const answer = await lead.post<T>(path, { key: nextKey(), ...body })
  lead.notedMs = null
  return answer
}

beforeAll(async () => {
  server = await startTestServer({ nowMs: Date.UTC(2026, 10, 16, 14) })
  lead = await openShop(server)
  ids = await makePlaces(lead, 'A1–A6')
})
afterAll(async () => {
  expect(server.faults).toEqual([])
  expect(await driftOf(server)).toBe(0)
  await server.close()
})

describe('what was noted without a link', () => {
  it('is a fact at the time it was noted, whatever it is', async () => {
    const at = server.clock.nowMs - 3 * HOUR
    const here = (name: string) => ({ stationId: id(name) })
    const said = [
      ['A1', '/reading', { what: 'bore', method: 'look', how: 'looked', grade: 'oval' }],
      ['A2', '/guide/done', { guide: 'tip', did: 'changed', outReason: 'worn', minutes: 2, overrun: null }],
      ['A3', '/followup', { task: 'tension' }],
      ['A4', '/guide/nearmiss', { hazard: 'other' }],
      ['A5', '/rightparts/tag', { tag: 'knobRaised', isBack: false }],
    ] as const
    for (const [name, path, body] of said)
      expect((await noted(at, path, { ...here(name), ...body })).status, path).toBe(200)
    expect((await noted(at, '/logbook', { acts: [{ ...here('A6'), act: 'down' }] })).status).toBe(200)
    for (const name of ['A1', 'A2', 'A3', 'A4', 'A5', 'A6'])
      for (const line of await lines(name)) expect(line, name).toMatchObject({ happenedMs: at })
    expect((await gun('A2')).positions.find((p) => p.position === 'tip')).toMatchObject({ fittedMs: at })
    expect((await gun('A6')).downSinceMs).toBe(at)
  })
  it('an act that tells its own time keeps it', async () => {
    const own = server.clock.nowMs - 5 * HOUR
    await noted(server.clock.nowMs - HOUR, '/logbook', {
      acts: [{ stationId: id('A1'), act: 'changed', position: 'nozzle', happenedMs: own }],
    })
    expect((await gun('A1')).positions.find((p) => p.position === 'nozzle')).toMatchObject({ fittedMs: own })
  })
  it('sent again it is one fact; what came before it in truth comes before it in the log', async () => {
    const key = nextKey()
    const stationId = id('A3')
    const change = { key, stationId, guide: 'tip', did: 'changed', outReason: 'worn', minutes: 2, overrun: null }
    const [early, late] = [server.clock.nowMs - 4 * HOUR, server.clock.nowMs - HOUR]
    await noted(late, '/guide/done', { ...change, key: nextKey() })
    await noted(early, '/guide/done', change)
    const count = (await lines('A3')).length
    await noted(early, '/guide/done', change)
    expect((await lines('A3')).length).toBe(count)
    expect((await gun('A3')).positions.find((p) => p.position === 'tip')).toMatchObject({ fittedMs: late })
  })
  it('a time to come, one of long ago, and no time at all are refused in words', async () => {
    const reading = { stationId: id('A1'), what: 'bore', method: 'look', how: 'looked', grade: 'round' }
    for (const bad of [server.clock.nowMs + HOUR, server.clock.nowMs - 5 * 365 * 24 * HOUR, 'yesterday']) {
      const { status, body } = await noted<Problem>(bad, '/reading', reading)
      expect([status, body.message.length > 10, body.details.length > 0]).toEqual([
        bad === 'yesterday' ? 400 : 422,
        true,
        true,
      ])
    }
  })
})
