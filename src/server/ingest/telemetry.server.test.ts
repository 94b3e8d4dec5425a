import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { asc, eq } from 'drizzle-orm'
import { makeRandom } from '@core/random/random.ts'
import { type GunAnswer } from '@contract/gun.ts'
import { type FloorAnswer } from '@contract/floor.ts'
import { type FeederRowSent, type TelemetryAnswer } from '@contract/telemetry.ts'
import { feeder, telemetryHour, telemetryRow } from '@server/db/schema.ts'
import { answered, bootUp, catchUp, tick, type FeederSetUp } from '@server/standin/feederplayer.ts'
import { contentOf, withPowerCut } from '@server/testing/powercut.ts'
import {
  driftOf,
  type Client,
  LEAD,
  makePlaces,
  nextKey,
  openShop,
  startTestServer,
  type TestServer,
} from '@server/testing/testserver.ts'
import { thinRows } from '@server/settle/thin.ts'
import { settle, sweepRows } from '@server/settle/settle.ts'

const HOUR = 3_600_000
const DAY = 24 * HOUR
let server: TestServer
let lead: Client
let ids: Map<string, string>
let made = 0
beforeAll(async () => {
  server = await startTestServer({ nowMs: Date.UTC(2026, 10, 23, 12) })
  lead = await openShop(server)
  ids = await makePlaces(lead, 'A1–A9')
  await lead.post('/shop/wire', {
    key: nextKey(),
    name: 'solid 1.0',
    construction: 'solid',
    size: '1.0',
    densityGPerCm3: 7.85,
    spoolKg: 15,
  })
})
afterAll(async () => {
  expect(server.faults).toEqual([])
  await server.close()
})
beforeEach(() => {
  server.clock.nowMs += HOUR
})

/** A feeder at a place with a token of its own. */
async function connect(place: string): Promise<{ equipmentId: string; token: string }> {
  const equipmentId = `WF-${made++}`
  return (
    await lead.post<{ equipmentId: string; token: string }>('/shop/feeder', {
      key: nextKey(),
      stationId: ids.get(place),
      equipmentId,
    })
  ).body
}
async function send(
  at: { token: string },
  rows: unknown[],
  sentMs = server.clock.nowMs,
): Promise<{ status: number; body: TelemetryAnswer }> {
  const response = await fetch(`${server.url}/api/ingest`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', authorization: `Bearer ${at.token}` },
    body: JSON.stringify({ sentMs, rows }),
  })
  return { status: response.status, body: (await response.json()) as TelemetryAnswer }
}
const row = (equipmentId: string, seq: number, over: Partial<FeederRowSent> = {}): FeederRowSent => ({
  equipmentId,
  bootId: 'b1',
  seq,
  deviceMs: server.clock.nowMs - 600_000 + seq * 10_000,
  wireFedM: seq,
  arcOnS: seq * 5,
  arcStarts: seq,
  ...over,
})
const hoursOf = async (equipmentId: string) =>
  (
    await server.parts.deps.db
      .select()
      .from(telemetryHour)
      .where(eq(telemetryHour.equipmentId, equipmentId))
      .orderBy(asc(telemetryHour.hourMs))
  ).map(({ hourMs, arcOnS, wireFedM, arcStarts }) => [
    hourMs,
    ...[arcOnS, wireFedM, arcStarts].map((n) => Math.round(n * 1e6) / 1e6),
  ])
const arcOf = async (equipmentId: string) => (await hoursOf(equipmentId)).reduce((sum, [, arc = 0]) => sum + arc, 0)

describe('a message of a feeder', () => {
  it('is counted once, however often it comes', async () => {
    const f = await connect('A1')
    const rows = [0, 1, 2, 3].map((seq) => row(f.equipmentId, seq))
    expect((await send(f, rows)).body).toMatchObject({ accepted: 4, duplicates: 0, refused: [] })
    expect((await send(f, rows)).body).toMatchObject({ accepted: 0, duplicates: 4 })
    expect((await send(f, [...rows, row(f.equipmentId, 4)])).body).toMatchObject({ accepted: 1, duplicates: 4 })
    expect(await arcOf(f.equipmentId)).toBeCloseTo(20, 6)
  })
  it('sent five times at once is there once', async () => {
    const f = await connect('A1')
    const rows = [0, 1, 2].map((seq) => row(f.equipmentId, seq))
    const answers = await Promise.all([1, 2, 3, 4, 5].map(() => send(f, rows)))
    expect(answers.map((a) => a.status)).toEqual([200, 200, 200, 200, 200])
    expect(answers.reduce((sum, a) => sum + a.body.accepted, 0)).toBe(3)
    expect(await arcOf(f.equipmentId)).toBeCloseTo(10, 6)
  })
  it('bad rows are refused one by one, each with its reason; the others are taken', async () => {
    const f = await connect('A2')
    const id = f.equipmentId
    const { body } = await send(f, [
      row(id, 0),
      { ...row(id, 1), arcOnS: -5 },
      row('WF-other', 2),
      row(id, 3, { deviceMs: server.clock.nowMs + HOUR }),
      row(id, 4, { deviceMs: server.clock.nowMs - 15 * DAY }),
      'nonsense',
      row(id, 6),
    ])
    expect(body.accepted).toBe(2)
    expect(body.refused.map((r) => r.index)).toEqual([1, 2, 3, 4, 5])
    expect(body.refused.map((r) => r.why).join('\n')).toMatch(
      /arcOnS[^]*belongs to[^]*before it was sent[^]*older than 14 days/,
    )
  })
  it('of a device whose clock is a year ahead is put at the right time, and told how far off it is', async () => {
    const f = await connect('A3')
    const year = 365 * DAY
    const rows = [0, 1].map((seq) =>
      row(f.equipmentId, seq, { deviceMs: server.clock.nowMs + year - 20_000 + seq * 10_000 }),
    )
    const { body } = await send(f, rows, server.clock.nowMs + year)
    expect(body.clockOffMs).toBe(year)
    const kept = await server.parts.deps.db
      .select()
      .from(telemetryRow)
      .where(eq(telemetryRow.equipmentId, f.equipmentId))
    expect(kept.map((r) => server.clock.nowMs - r.atMs).sort()).toEqual([10_000, 20_000])
  })
  it('without a token, with a wrong one or an ended one is refused, and nothing is written', async () => {
    const f = await connect('A4')
    const before = await contentOf(server)
    expect((await send({ token: 'guess' }, [row(f.equipmentId, 0)])).status).toBe(401)
    await lead.post('/shop/feeder', { key: nextKey(), stationId: ids.get('A4'), equipmentId: f.equipmentId })
    expect((await send(f, [row(f.equipmentId, 0)])).status).toBe(401)
    const { feeder: _, ...rest } = before
    expect(await contentOf(server, ['feeder'])).toEqual(rest)
  })
  it('cut off at the last moment leaves nothing, and sent again counts once', async () => {
    const f = await connect('A4')
    const rows = [0, 1, 2].map((seq) => row(f.equipmentId, seq))
    const before = await contentOf(server)
    expect((await withPowerCut(server, () => send(f, rows))).status).toBe(500)
    expect(await contentOf(server)).toEqual(before)
    await send(f, rows)
    expect(await arcOf(f.equipmentId)).toBeCloseTo(10, 6)
  })
})

/** Three hours of a feeder that welds, restarts and rests. */
function someHours(equipmentId: string, seed: number): FeederRowSent[] {
  const random = makeRandom(seed)
  const startMs = server.clock.nowMs - 3 * HOUR
  const rows: FeederRowSent[] = []
  let now = row(equipmentId, 0, { bootId: 'b0', wireFedM: 0, arcOnS: 0, arcStarts: 0 })
  for (let i = 0; i < 300; i++) {
    if (random() < 0.02) now = { ...now, bootId: `b${i}`, seq: -1, wireFedM: 0, arcOnS: 0, arcStarts: 0 }
    const arc = random() < 0.5 ? Math.round(random() * 20) : 0
    now = {
      ...now,
      seq: i === 0 ? 0 : now.seq + 1,
      deviceMs: startMs + i * 30_000,
      arcOnS: now.arcOnS + arc,
      wireFedM: now.wireFedM + arc / 8,
      arcStarts: now.arcStarts + (arc > 0 ? 1 : 0),
    }
    rows.push(now)
  }
  return rows
}

describe('the order in which rows come', () => {
  it('changes nothing: in one go, in pieces, late, twice and shuffled they make the same hours', async () => {
    const plain = await connect('A5')
    const truth = someHours(plain.equipmentId, 5)
    await send(plain, truth)
    const wanted = await hoursOf(plain.equipmentId)
    expect(wanted.length).toBeGreaterThanOrEqual(3)
    for (const seed of [1, 2, 3]) {
      const random = makeRandom(seed)
      const f = await connect('A6')
      const rows = someHours(f.equipmentId, 5)
      const pieces: FeederRowSent[][] = []
      for (let i = 0; i < rows.length;) {
        const n = 1 + Math.floor(random() * 40)
        pieces.push(rows.slice(i, i + n))
        i += n
      }
      for (let i = pieces.length - 1; i > 0; i--) {
        const j = seed === 1 ? i : Math.floor(random() * (i + 1))
        ;[pieces[i], pieces[j]] = [pieces[j] as FeederRowSent[], pieces[i] as FeederRowSent[]]
      }
      for (const piece of pieces) {
        await send(f, piece)
        if (random() < 0.3) await send(f, piece)
      }
      expect(await hoursOf(f.equipmentId)).toEqual(wanted)
    }
  })
})

describe('clocks from feeders', () => {
  it('move the parts of their gun, count as measured, and are what a rebuild says', async () => {
    const f = await connect('A7')
    const stationId = ids.get('A7') ?? ''
    await lead.post('/logbook', {
      key: nextKey(),
      acts: [{ stationId, act: 'changed', position: 'tip', happenedMs: server.clock.nowMs - 2 * HOUR }],
    })
    await send(
      f,
      someHours(f.equipmentId, 8).map((r) => ({ ...r, isArcOn: true })),
    )
    while ((await settle(server.parts.deps)) > 0);
    const tip = (await lead.get<GunAnswer>(`/gun/${stationId}`)).body.positions.find((p) => p.position === 'tip')
    expect(tip?.used).toBeGreaterThan(0)
    expect(tip?.isEstimated).toBe(false)
    expect((await lead.get<FloorAnswer>('/floor')).body.guns.find((g) => g.name === 'A7')?.isArcOn).toBe(true)
    server.clock.nowMs += 2 * 60_000
    expect((await lead.get<FloorAnswer>('/floor')).body.guns.find((g) => g.name === 'A7')?.isArcOn).toBeNull()
    expect(await driftOf(server)).toBe(0)
  })
  it('old rows are swept, their hours stay, and a late row for swept time is refused', async () => {
    const f = await connect('A8')
    await send(f, someHours(f.equipmentId, 9))
    const hours = await hoursOf(f.equipmentId)
    server.clock.nowMs += 15 * DAY
    await sweepRows(server.parts.deps)
    await lead.post('/people/sign-in', LEAD)
    expect(await server.parts.deps.db.select().from(telemetryRow)).toEqual([])
    expect(await hoursOf(f.equipmentId)).toEqual(hours)
  })
})

describe('rows that are past', () => {
  it('are thinned to one in ten seconds, but for the minute before a stop; hours and what is sent again stay as they were', async () => {
    const f = await connect('A6')
    const { db } = server.parts.deps
    const fromMs = server.clock.nowMs
    const dense = (n: number) =>
      Array.from({ length: n }, (_, i) => ({
        ...{ equipmentId: f.equipmentId, bootId: 'dense', seq: i, deviceMs: fromMs + i * 1000 },
        ...{ wireFedM: i * 0.15, arcOnS: i * 0.9, arcStarts: Math.floor(i / 30) },
      }))
    server.clock.nowMs += 1800_000
    await send(f, dense(1800))
    const stationId = ids.get('A6') ?? ''
    const happenedMs = fromMs + 900_000
    await lead.post('/logbook', { key: nextKey(), acts: [{ stationId, act: 'down', position: 'tip', happenedMs }] })
    const hours = await hoursOf(f.equipmentId)
    server.clock.nowMs += 3 * HOUR
    while (await thinRows(server.parts.deps));
    const left = await db.select().from(telemetryRow).where(eq(telemetryRow.equipmentId, f.equipmentId))
    const isNear = (ms: number) => ms >= happenedMs - 60_000 && ms <= happenedMs + 10_000
    expect(left.filter((r) => isNear(r.atMs))).toHaveLength(71)
    expect(left.length).toBeLessThan(71 + 182)
    expect(left.length).toBeGreaterThan(71 + 170)
    expect(await hoursOf(f.equipmentId)).toEqual(hours)
    await send(f, dense(1800))
    expect(await hoursOf(f.equipmentId)).toEqual(hours)
    // What came again late is thinned again.
    while (await thinRows(server.parts.deps));
    const again = await db.select().from(telemetryRow).where(eq(telemetryRow.equipmentId, f.equipmentId))
    expect(again.length).toBeLessThan(left.length + 4)
  })
})

describe('the stand-in', () => {
  const setUp = (equipmentId: string): FeederSetUp => ({
    equipmentId,
    plan: { seed: 4, duty: 0.6, wireMPerMin: 8 },
    motor: { seed: 4, baseA: 2, creep: null },
    starts: { seed: 4, share: 0.02, worse: null },
    feeding: null,
    schedule: null,
  })
  it('unplugged for a day and plugged in again gives the same clocks as never unplugging', async () => {
    const [steady, absent] = [await connect('A8'), await connect('A9')]
    const startMs = server.clock.nowMs
    const at = (h: number) => ({ nowMs: startMs + h * HOUR, everyMs: 60_000 })
    let [a, b] = [bootUp('one', startMs), bootUp('one', startMs)]
    for (let hour = 1; hour <= 30; hour++) {
      server.clock.nowMs = startMs + hour * HOUR
      a = catchUp(a, setUp(steady.equipmentId), at(hour))
      b = catchUp(b, setUp(absent.equipmentId), at(hour))
      await send(steady, a.buffer)
      a = answered(a, a.nextSeq - 1)
      // From the third hour to the twenty-seventh the other one finds no server.
      if (hour < 3 || hour > 27) {
        await send(absent, b.buffer)
        b = answered(b, b.nextSeq - 1)
      }
    }
    const told = await hoursOf(steady.equipmentId)
    expect(told.length).toBeGreaterThanOrEqual(30)
    expect(await hoursOf(absent.equipmentId)).toEqual(told)
  })
  it('that restarts in the middle of a shift begins a new boot, and loses only what it counted since its last row', async () => {
    const f = await connect('A9')
    const startMs = server.clock.nowMs
    const first = catchUp(bootUp('one', startMs), setUp(f.equipmentId), { nowMs: startMs + HOUR, everyMs: 60_000 })
    const second = catchUp(bootUp('two', startMs + HOUR), setUp(f.equipmentId), {
      nowMs: startMs + 2 * HOUR,
      everyMs: 60_000,
    })
    server.clock.nowMs = startMs + 2 * HOUR
    await send(f, [...first.buffer, ...second.buffer])
    expect(await arcOf(f.equipmentId)).toBeCloseTo(first.counters.arcOnS + second.counters.arcOnS, 3)
  })
  it('keeps a row until it is answered for', () => {
    const s = tick(tick(bootUp('x', 0), setUp('E'), 10_000), setUp('E'), 20_000)
    expect(s.buffer.map((r) => r.seq)).toEqual([0, 1])
    expect(answered(s, 0).buffer.map((r) => r.seq)).toEqual([1])
  })
  it('shows in the feeder’s line what the server last heard', async () => {
    const f = await connect('A9')
    await send(f, [row(f.equipmentId, 0, { isArcOn: true })])
    const [line] = await server.parts.deps.db.select().from(feeder).where(eq(feeder.equipmentId, f.equipmentId))
    expect(line).toMatchObject({ isArcOn: true, seq: 0, receivedMs: server.clock.nowMs })
  })
})
