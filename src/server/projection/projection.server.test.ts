import { NO_ID } from '@core/ids/id.ts'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { asc, count, eq } from 'drizzle-orm'
import { makeRandom, pick } from '@core/random/random.ts'
import { type GunAnswer } from '@contract/gun.ts'
import { type LogAnswer } from '@contract/logbook.ts'
import { ledgerEvent, life, positionNow, stationNow } from '@server/db/schema.ts'
import { transact } from '@server/db/db.ts'
import { rebuild } from '@server/projection/rebuild.ts'
import { isSame } from '@server/projection/sync.ts'
import { stoppedMinutes } from '@server/projection/stationrows.ts'
import { makeSchedule } from '@core/clock/schedule.ts'
import {
  driftOf,
  LEAD,
  Client,
  makePlaces,
  nextKey,
  openShop,
  sentOf,
  startTestServer,
  type TestServer,
} from '@server/testing/testserver.ts'
import { withPowerCut } from '@server/testing/powercut.ts'

const HOUR = 3_600_000
const NOW = Date.UTC(2026, 10, 23, 12)
let server: TestServer
let second: TestServer
let lead: Client
/** The same lead at another server on the same database: each remembers for itself. */
let there: Client
let ids: string[]
const differing = () => driftOf(server)

beforeAll(async () => {
  server = await startTestServer({ nowMs: NOW })
  second = await server.second()
  lead = await openShop(server)
  there = new Client(second.url)
  await there.post('/people/sign-in', LEAD)
  ids = [...(await makePlaces(lead, 'A1–A4')).values()]
})
afterAll(async () => {
  await second.close()
  await server.close()
})

/** A seeded day of a shop where people log late, wrong, twice, at either server, and move guns about. */
async function liveADay(seed: number, steps: number): Promise<void> {
  const random = makeRandom(seed)
  const logged: string[] = []
  for (let i = 0; i < steps; i++) {
    server.clock.nowMs += Math.floor(random() * 20 * 60_000)
    const stationId = pick(random, ids)
    const dice = random()
    const at = random() < 0.7 ? lead : there
    if (dice < 0.5) {
      const act = pick(random, [
        'changed',
        'changed',
        'cleaned',
        'removed',
        'putBack',
        'seen',
        'down',
        'running',
        'parked',
        'newSpool',
      ] as const)
      const position = ['changed', 'cleaned', 'removed', 'putBack'].includes(act)
        ? pick(random, ['tip', 'nozzle', 'liner'])
        : undefined
      const happenedMs = server.clock.nowMs - Math.floor(random() * 5 * HOUR)
      const answer = await at.post<LogAnswer>('/logbook', {
        key: nextKey(),
        acts: [
          { stationId, act, happenedMs, labelKg: 15, count: random() < 0.2 ? 2 : 1, ...(position ? { position } : {}) },
        ],
      })
      expect(answer.status).toBe(200)
      logged.push(...answer.body.logged.map((l) => l.eventId))
    } else if (dice < 0.65) {
      await at.post('/clock/usage', {
        key: nextKey(),
        stationId,
        day: new Date(server.clock.nowMs).toISOString().slice(0, 10),
        arcHours: Math.round(random() * 40) / 10,
      })
    } else if (dice < 0.75) {
      await at.post('/shop/move', {
        key: nextKey(),
        stationId,
        gunOfStationId: pick(
          random,
          ids.filter((x) => x !== stationId),
        ),
      })
    } else if (logged.length > 0) {
      const eventId = pick(random, logged)
      const change =
        random() < 0.4
          ? { withdraw: true }
          : random() < 0.5
            ? { stationId }
            : { happenedMs: server.clock.nowMs - Math.floor(random() * 8 * HOUR) }
      const answer = await at.post('/logbook/correct', { key: nextKey(), eventId, ...change })
      expect([200, 400, 404]).toContain(answer.status)
    }
  }
}

describe('the projection', () => {
  it(
    'is what the ledger says after days of late, wrong, corrected and moved entries',
    { timeout: 120_000 },
    async () => {
      for (const seed of [3, 14, 159]) {
        await liveADay(seed, 40)
        expect(await differing()).toBe(0)
      }
      expect([...server.faults, ...second.faults]).toEqual([])
    },
  )
  it('does not read a gun’s lines again for the next act, but where another server or a correction spoke of it', async () => {
    const tip = (by: Client) =>
      by.post<LogAnswer>('/logbook', {
        key: nextKey(),
        acts: [{ stationId: ids[0], act: 'changed', position: 'tip', happenedMs: (server.clock.nowMs += 60_000) }],
      })
    const linesRead = async (by: Client, work = () => tip(by) as Promise<unknown>) =>
      (await sentOf(server, work)).filter(
        (q) => /straight_join/.test(q) && /where `?ledger_event`?\.`?carrier_id/.test(q),
      ).length
    const first = (await tip(lead)).body.logged[0]?.eventId
    expect(await linesRead(lead)).toBe(0)
    await tip(there)
    expect(await linesRead(lead)).toBe(1)
    expect(await linesRead(lead)).toBe(0)
    const undone = () => lead.post('/logbook/correct', { key: nextKey(), eventId: first, withdraw: true })
    expect(await linesRead(lead, undone)).toBe(1)
    expect(await linesRead(lead)).toBe(0)
    expect(await differing()).toBe(0)
  })
  it('forgets what was rolled back, and counts use that is entered for a gun it remembers', async () => {
    const stationId = ids[1] ?? ''
    const log = (act: object) => lead.post('/logbook', { key: nextKey(), acts: [{ stationId, ...act }] })
    const used = async () =>
      (await lead.get<GunAnswer>(`/gun/${stationId}`)).body.positions.find((p) => p.position === 'tip')?.used ?? 0
    server.clock.nowMs += 72 * HOUR
    await log({ act: 'changed', position: 'tip', happenedMs: server.clock.nowMs - 60 * HOUR })
    await withPowerCut(server, () => log({ act: 'down' }))
    await log({ act: 'cleaned', position: 'nozzle' })
    expect(await differing()).toBe(0)
    const before = await used()
    const day = new Date(server.clock.nowMs - 24 * HOUR).toISOString().slice(0, 10)
    expect((await lead.post('/clock/usage', { key: nextKey(), stationId, day, arcHours: 5 })).status).toBe(200)
    expect((await used()) - before).toBeGreaterThan(1)
    await log({ act: 'newSpool', labelKg: 15 })
    expect(await differing()).toBe(0)
  })
  it('tells, and puts right, what was tampered with', async () => {
    const { deps } = server.parts
    const [one] = await deps.db.select().from(positionNow).limit(1)
    await deps.db
      .update(positionNow)
      .set({ cleanings: 99 })
      .where(eq(positionNow.carrierId, one?.carrierId ?? NO_ID))
    await deps.db.delete(life)
    expect((await rebuild(deps, false)).life).toBeGreaterThan(0)
    expect(await differing()).toBeGreaterThan(0)
    await rebuild(deps, true)
    expect(await differing()).toBe(0)
  })
  it('is rolled back whole with the lines that caused it', async () => {
    const { deps } = server.parts
    const before = [
      await deps.db.select({ n: count() }).from(ledgerEvent),
      await deps.db.select().from(stationNow).orderBy(asc(stationNow.stationId)),
    ]
    const answer = await withPowerCut(server, () =>
      lead.post('/logbook', { key: nextKey(), acts: [{ stationId: ids[0], act: 'down' }] }),
    )
    expect(answer).toMatchObject({ status: 500, body: { code: 'server-fault' } })
    expect([
      await deps.db.select({ n: count() }).from(ledgerEvent),
      await deps.db.select().from(stationNow).orderBy(asc(stationNow.stationId)),
    ]).toEqual(before)
    expect(await differing()).toBe(0)
  })
  it('two guns that swap places while both are logged on end in one state that the ledger agrees with', async () => {
    await Promise.all([
      lead.post('/shop/move', { key: nextKey(), stationId: ids[0], gunOfStationId: ids[1] }),
      ...[0, 1, 0, 1].map((i) =>
        lead.post('/logbook', { key: nextKey(), acts: [{ stationId: ids[i], act: 'changed', position: 'tip' }] }),
      ),
      lead.post('/clock/usage', { key: nextKey(), stationId: ids[0], day: '2026-11-23', arcHours: 2 }),
    ])
    expect(server.faults).toEqual([])
    expect(await differing()).toBe(0)
  })
})

describe('transactions', () => {
  it('are tried again after a deadlock, and give up on anything else', async () => {
    let tries = 0
    const deadlock = Object.assign(new Error('deadlock'), { errno: 1213 })
    const done = await transact(server.parts.deps.db, async () => {
      if (++tries < 3) throw deadlock
      return tries
    })
    expect(done).toBe(3)
    await expect(
      transact(server.parts.deps.db, async () => {
        throw new Error('no')
      }),
    ).rejects.toThrow('no')
  })
})

describe('what is compared', () => {
  it('numbers agree to nine figures, everything else exactly', () => {
    expect(isSame({ a: 1, b: [{ c: 0.1 + 0.2 }] }, { a: 1, b: [{ c: 0.3 }] })).toBe(true)
    expect(isSame({ a: 1 }, { a: 1, b: null })).toBe(false)
    expect(isSame({ a: '1' }, { a: 1 })).toBe(false)
    expect(isSame(1000, 1000.1)).toBe(false)
  })
})

describe('minutes stood', () => {
  const day = makeSchedule([
    { fromMs: 0, toMs: 8 * HOUR },
    { fromMs: 24 * HOUR, toMs: 32 * HOUR },
  ])
  it('count scheduled time only', () =>
    expect(stoppedMinutes({ fromMs: 7 * HOUR, toMs: 25 * HOUR, endedBy: 'running' }, day, 0)).toBe(120))
  it('end with the shift when nobody said that it ran again', () =>
    expect(stoppedMinutes({ fromMs: 7 * HOUR, toMs: 25 * HOUR, endedBy: 'log' }, day, 0)).toBe(60))
  it('of an open one run to now, within its shift', () =>
    expect(stoppedMinutes({ fromMs: 7 * HOUR, toMs: null, endedBy: null }, day, 7.5 * HOUR)).toBe(30))
})

describe('a liner taken out good and put back', () => {
  const DAY = 24 * HOUR
  it('is one life over two stretches: what was fed while another was in is not its own', async () => {
    const stationId = ids[0] ?? ''
    const monday = Math.ceil(server.clock.nowMs / (7 * DAY)) * 7 * DAY + 4 * DAY
    const log = async (act: string, happenedMs: number, over: Record<string, unknown> = {}) => {
      server.clock.nowMs = Math.max(server.clock.nowMs, happenedMs + HOUR)
      const acts = [{ stationId, act, position: 'liner', happenedMs, ...over }]
      expect((await lead.post<LogAnswer>('/logbook', { key: nextKey(), acts })).status).toBe(200)
    }
    const fed = async (day: number, kg: number) => {
      server.clock.nowMs = monday + (day + 1) * DAY - HOUR
      await lead.post('/people/sign-in', LEAD)
      const date = new Date(monday + day * DAY).toISOString().slice(0, 10)
      expect((await lead.post('/clock/usage', { key: nextKey(), stationId, day: date, kg })).status).toBe(200)
    }
    server.clock.nowMs = monday
    await lead.post('/people/sign-in', LEAD)
    await log('changed', monday, { outReason: 'worn' })
    await fed(0, 10)
    await log('removed', monday + DAY, { outReason: 'toTry' })
    await fed(1, 5)
    await log('putBack', monday + 2 * DAY, { outReason: 'notSaid' })
    await fed(2, 7)
    const gun = async () => (await lead.get<GunAnswer>(`/gun/${stationId}`)).body
    const liner = (await gun()).positions.find((p) => p.position === 'liner')
    expect(liner).toMatchObject({ fittedMs: monday, entryAge: 'new' })
    expect(liner?.used).toBeCloseTo(17, 0)
    expect((await gun()).tape.map((l) => l.fact)).toContainEqual(
      expect.objectContaining({ kind: 'fitted', again: true }),
    )
    await log('changed', monday + 3 * DAY, { outReason: 'worn' })
    const [ended] = await server.parts.deps.db.select().from(life).where(eq(life.fromMs, monday))
    expect(ended?.kg).toBeCloseTo(17, 0)
    expect(await differing()).toBe(0)
  })
})
