import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { count } from 'drizzle-orm'
import { type FloorAnswer } from '@contract/floor.ts'
import { type GunAnswer } from '@contract/gun.ts'
import { type LogAnswer, type LogbookAnswer } from '@contract/logbook.ts'
import { type Problem } from '@contract/common.ts'
import { ledgerEvent } from '@server/db/schema.ts'
import {
  driftOf,
  Client,
  makePlaces,
  nextKey,
  openShop,
  startTestServer,
  type TestServer,
} from '@server/testing/testserver.ts'

const HOUR = 3_600_000
const START = Date.UTC(2026, 10, 23, 8, 0)
let server: TestServer
let lead: Client
let ids: Map<string, string>
const id = (name: string) => ids.get(name) ?? ''
const gun = async (name: string) => (await lead.get<GunAnswer>(`/gun/${id(name)}`)).body
const tip = (g: GunAnswer) => g.positions.find((p) => p.position === 'tip')
const change = (name: string, over: Record<string, unknown> = {}) => ({
  key: nextKey(),
  acts: [{ stationId: id(name), act: 'changed', position: 'tip', outReason: 'worn', ...over }],
})
const events = async () => (await server.parts.deps.db.select({ n: count() }).from(ledgerEvent))[0]?.n ?? 0
const rebuilt = () => driftOf(server)

beforeAll(async () => {
  server = await startTestServer({ nowMs: START })
  lead = await openShop(server)
  ids = await makePlaces(lead, 'A1–A6')
})
afterAll(() => server.close())

describe('logging', () => {
  it('a tip change shows at once, and the part that came out pays back its use', async () => {
    await lead.post('/logbook', change('A1'))
    server.clock.nowMs += 8 * HOUR
    await lead.post('/clock/usage', { key: nextKey(), stationId: id('A1'), day: '2026-11-23', arcHours: 4 })
    const second = await lead.post<LogAnswer>('/logbook', change('A1'))
    expect(second.body.logged[0]).toMatchObject({ position: 'tip', unit: 'arcHours', usualAmount: null })
    expect(second.body.logged[0]?.didAmount).toBeCloseTo(2, 0)
    expect(tip(await gun('A1'))).toMatchObject({ fittedMs: server.clock.nowMs, entryAge: 'new' })
  })
  it('the same request again answers the same and is there once', async () => {
    const request = change('A2')
    const [first, before] = [await lead.post<LogAnswer>('/logbook', request), await events()]
    const again = await lead.post<LogAnswer>('/logbook', request)
    expect(again.body).toMatchObject({ isRepeat: true, logged: [{ eventId: first.body.logged[0]?.eventId }] })
    expect(await events()).toBe(before)
  })
  it('sent ten times at once it is there once', async () => {
    const request = change('A3')
    const before = await events()
    const answers = await Promise.all(Array.from({ length: 10 }, () => lead.post<LogAnswer>('/logbook', request)))
    expect(new Set(answers.map((a) => a.body.logged[0]?.eventId)).size).toBe(1)
    expect(answers.every((a) => a.status === 200)).toBe(true)
    expect(await events()).toBe(before + 1)
  })
  it('two people who log on one gun at once are both kept, and the fold holds both', async () => {
    const before = (await gun('A4')).tape.length
    await Promise.all(
      Array.from({ length: 6 }, (_, i) =>
        lead.post('/logbook', {
          key: nextKey(),
          acts: [
            { stationId: id('A4'), act: 'cleaned', position: 'nozzle', happenedMs: server.clock.nowMs - i * 60_000 },
          ],
        }),
      ),
    )
    expect((await gun('A4')).tape.length).toBe(before + 6)
    expect(await rebuilt()).toBe(0)
  })
  it('an act that can’t be read is refused with what and where, and nothing of its request is written', async () => {
    const before = await events()
    const bad = await lead.post<Problem>('/logbook', {
      key: nextKey(),
      acts: [
        { stationId: id('A1'), act: 'cleaned', position: 'nozzle' },
        { stationId: 'stn_nowhere', act: 'cleaned', position: 'nozzle' },
      ],
    })
    expect(bad).toMatchObject({ status: 404, body: { code: 'not-found' } })
    expect(
      (await lead.post<Problem>('/logbook', { key: nextKey(), acts: [{ stationId: id('A1'), act: 'changed' }] })).body
        .details[0],
    ).toContain('say which part')
    expect(
      (await lead.post<Problem>('/logbook', change('A1', { happenedMs: server.clock.nowMs + HOUR }))).body.message,
    ).toContain('still to come')
    expect(await events()).toBe(before)
  })
  it('needs somebody: a stranger is told how to become one', async () => {
    const answer = await new Client(server.url).post<Problem>('/logbook', change('A1'))
    expect(answer).toMatchObject({ status: 401, body: { code: 'not-signed-in' } })
  })
})

describe('putting right', () => {
  it('undo takes the act back, and the part before is on again', async () => {
    const before = tip(await gun('A1'))
    const logged = await lead.post<LogAnswer>('/logbook', change('A1'))
    const undo = { key: nextKey(), eventIds: logged.body.logged.map((l) => l.eventId) }
    expect((await lead.post('/logbook/undo', undo)).status).toBe(200)
    expect((await lead.post('/logbook/undo', undo)).status).toBe(200)
    expect(tip(await gun('A1'))?.fittedMs).toBe(before?.fittedMs)
    expect(await rebuilt()).toBe(0)
  })
  it('undo ends with the next act on that part', async () => {
    const first = await lead.post<LogAnswer>('/logbook', change('A5'))
    server.clock.nowMs += 60_000
    await lead.post('/logbook', change('A5'))
    const late = await lead.post<Problem>('/logbook/undo', {
      key: nextKey(),
      eventIds: first.body.logged.map((l) => l.eventId),
    })
    expect(late).toMatchObject({ status: 409, body: { code: 'too-late-to-undo' } })
  })
  it('"not this gun" moves the act: both guns are counted again', async () => {
    const [five, six] = [tip(await gun('A5'))?.fittedMs, tip(await gun('A6'))?.fittedMs]
    server.clock.nowMs += 60_000
    const wrong = await lead.post<LogAnswer>('/logbook', change('A5'))
    await lead.post('/logbook/correct', { key: nextKey(), eventId: wrong.body.logged[0]?.eventId, stationId: id('A6') })
    expect(tip(await gun('A5'))?.fittedMs).toBe(five)
    expect(tip(await gun('A6'))?.fittedMs).not.toBe(six)
    const book = (await lead.get<LogbookAnswer>('/logbook')).body
    expect(book.lines.find((l) => l.eventId === wrong.body.logged[0]?.eventId)).toMatchObject({
      stationName: 'A6',
      standing: 'changed',
    })
    expect(await rebuilt()).toBe(0)
  })
  it('an act logged late finds its place between those that came before and after', async () => {
    const now = server.clock.nowMs
    await lead.post(
      '/logbook',
      change('A3', { happenedMs: now - 2 * HOUR, outReason: 'burnedBack', precision: 'shift' }),
    )
    const g = await gun('A3')
    expect(tip(g)?.fittedMs).toBe(Math.max(now - 2 * HOUR, tip(g)?.fittedMs ?? 0))
    expect(await rebuilt()).toBe(0)
  })
  it('"all looked at" is taken back whole', async () => {
    const seen = await lead.post<LogAnswer>('/logbook', {
      key: nextKey(),
      acts: [{ stationId: id('A6'), act: 'seen' }],
    })
    expect((await gun('A6')).positions.every((p) => p.seenMs !== null)).toBe(true)
    await lead.post('/logbook/undo', { key: nextKey(), eventIds: seen.body.logged.map((l) => l.eventId) })
    expect((await gun('A6')).positions.filter((p) => p.seenMs === null).length).toBeGreaterThan(5)
  })
})

describe('down, parked, many', () => {
  it('down opens the row first and ends with running', async () => {
    await lead.post('/logbook', { key: nextKey(), acts: [{ stationId: id('A2'), act: 'down', position: 'liner' }] })
    server.clock.nowMs += 20 * 60_000
    const floor = (await lead.get<FloorAnswer>('/floor')).body
    expect(floor.guns.find((g) => g.rank === 0)).toMatchObject({ name: 'A2', downPosition: 'liner', downMinutes: 20 })
    await lead.post('/logbook', { key: nextKey(), acts: [{ stationId: id('A2'), act: 'running' }] })
    expect((await gun('A2')).downSinceMs).toBeNull()
  })
  it('parked is one tap, and the next log puts it back in use', async () => {
    await lead.post('/logbook', { key: nextKey(), acts: [{ stationId: id('A2'), act: 'parked' }] })
    expect((await gun('A2')).isParked).toBe(true)
    server.clock.nowMs += 60_000
    await lead.post('/logbook', change('A2'))
    expect((await gun('A2')).isParked).toBe(false)
  })
  it('one act on many guns is one request', async () => {
    const acts = ['A1', 'A2', 'A3', 'A4'].map((name) => ({ stationId: id(name), act: 'cleaned', position: 'nozzle' }))
    const answer = await lead.post<LogAnswer>('/logbook', { key: nextKey(), acts })
    expect(answer.body.logged.map((l) => l.stationName)).toEqual(['A1', 'A2', 'A3', 'A4'])
  })
  it('two tips since the last log are a coarse life that pays nothing back', async () => {
    await lead.post('/logbook', change('A4'))
    server.clock.nowMs += HOUR
    const twice = await lead.post<LogAnswer>('/logbook', change('A4', { count: 2 }))
    expect(twice.body.logged[0]?.didAmount).toBeNull()
  })
})

describe('the Logbook', () => {
  it('exports a day as CSV in which no cell is a formula', async () => {
    await lead.post('/logbook', change('A1', { note: '=1+1' }))
    const day = new Date(server.clock.nowMs).toISOString().slice(0, 10)
    const { body } = await lead.get<string>(`/logbook.csv?from=${day}&to=${day}`)
    expect(body).toContain("'=1+1")
    expect(body.split('\r\n')[0]).toContain('day,time,precision,place,what,part')
  })
})
