import { beforeAll, describe, expect, it } from 'vitest'
import { type LogAnswer } from '@contract/logbook.ts'
import { DAY_MS, HOUR_MS } from '@core/units/time.ts'
import { nextKey, type Client, type TestServer } from '@server/testing/testserver.ts'
import { openFitShop, type FitShop } from '@server/testing/fitshop.ts'
import { serverForAll } from '@server/testing/serverforall.ts'
import { PutOnStore, readPutOn } from './puton.ts'

let server: TestServer
let lead: Client
let at: FitShop
const START = Date.UTC(2026, 10, 23, 12)
serverForAll({ nowMs: START }, async (here) => {
  ;({ server, lead } = here)
  at = await openFitShop(lead, 'A1–A4')
})

const store = new PutOnStore()
const since = () => server.clock.nowMs - 90 * DAY_MS
const kept = () => store.read(server.parts.deps.db, since(), server.clock.nowMs)
/** What reading all of it at once says. */
const whole = () => readPutOn(server.parts.deps.db, { sinceMs: since(), nowMs: server.clock.nowMs })
const byId = <T extends { eventId: string }>(list: T[]) => [...list].sort((a, b) => (a.eventId < b.eventId ? -1 : 1))
const same = async () => expect(byId(await kept())).toEqual(byId(await whole()))
const tip = async (name: string, notedMs: number | null = null) => {
  lead.notedMs = notedMs
  const acts = [{ stationId: at.ids.get(name), act: 'changed', position: 'tip', outReason: 'worn' }]
  const { body } = await lead.post<LogAnswer>('/logbook', { key: nextKey(), acts })
  lead.notedMs = null
  return body.logged[0]?.eventId ?? ''
}

describe('parts put on, kept as they stand', () => {
  beforeAll(async () => {
    await tip('A1')
  })
  it('are what reading them whole says: at first, after one more, after one that is noted late', async () => {
    await same()
    const before = (await kept()).length
    await tip('A2')
    await same()
    await tip('A3', server.clock.nowMs - 2 * HOUR_MS)
    await same()
    expect((await kept()).length).toBe(before + 2)
  })
  it('a line put right or taken back long after it was said is another at once', async () => {
    const eventId = await tip('A4')
    await kept()
    server.clock.nowMs += 3 * HOUR_MS
    await kept()
    const moved = await lead.post('/logbook/correct', { key: nextKey(), eventId, count: 2 })
    expect(moved.status).toBe(200)
    await same()
    expect((await kept()).find((p) => p.eventId === eventId)?.n).toBe(2)
    server.clock.nowMs += 3 * HOUR_MS
    await kept()
    expect((await lead.post('/logbook/correct', { key: nextKey(), eventId, withdraw: true })).status).toBe(200)
    await same()
    expect((await kept()).some((p) => p.eventId === eventId)).toBe(false)
  })
  it('asked further back than is kept, or by a clock that was put back, they are read anew', async () => {
    const { db } = server.parts.deps
    const far = await store.read(db, START - 400 * DAY_MS, server.clock.nowMs)
    expect(byId(far)).toEqual(byId(await readPutOn(db, { sinceMs: START - 400 * DAY_MS, nowMs: server.clock.nowMs })))
    const back = await store.read(db, START - 400 * DAY_MS, server.clock.nowMs - 5 * HOUR_MS)
    expect(byId(back)).toEqual(byId(far))
  })
  it('after a heap of past work was brought in they are what reading them whole says', async () => {
    await kept()
    const days = Array.from({ length: 45 }, (_, d) => new Date(START - (d + 2) * DAY_MS).toISOString().slice(0, 10))
    const lines = days.flatMap((day) =>
      ['A1', 'A2', 'A3', 'A4'].flatMap((gun) => Array(12).fill(`${gun},${day},new tip`)),
    )
    const text = ['gun,date,what', ...lines].join('\n')
    expect((await lead.post('/ingest/take', { kind: 'history', text })).status).toBe(200)
    expect((await kept()).length).toBeGreaterThan(2000)
    await same()
  })
  it('two who ask at once read it once', async () => {
    const [one, two] = await Promise.all([kept(), kept()])
    expect(byId(one)).toEqual(byId(two))
  })
})
