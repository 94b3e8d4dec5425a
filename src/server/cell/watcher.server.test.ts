import { describe, expect, it } from 'vitest'
import { type TraceAnswer } from '@contract/cell.ts'
import { type FloorAnswer } from '@contract/floor.ts'
import { type GunAnswer } from '@contract/gun.ts'
import { type ReadingAnswer } from '@contract/reading.ts'
import { snagNear } from '@core/simulator/feeding.ts'
import { bootUp, catchUp, type FeederSetUp } from '@server/standin/feederplayer.ts'
import { openFitShop, type FitShop } from '@server/testing/fitshop.ts'
import { serverForAll } from '@server/testing/serverforall.ts'
import { nextKey, type Client, type TestServer } from '@server/testing/testserver.ts'
import { settle } from '@server/settle/settle.ts'
import { watchFeeders } from './watcher.ts'

/** A robot's feeder that sends its motor's current: what creeps is said on the gun before it stops. */
let server: TestServer
let lead: Client
let at: FitShop
let token = ''
const HOUR = 3_600_000
const id = () => at.ids.get('C1') ?? ''
const counters = { seq: 0, wireFedM: 0, arcOnS: 0 }

/** Some hours of arc, a row a minute, sent as equipment would; the clock of the shop goes with it. */
async function weld(hours: number, ampsAt: (arcH: number) => number) {
  const { clock } = server
  const rows = Array.from({ length: hours * 60 }, (_, i) => {
    counters.arcOnS += 60
    counters.wireFedM += 9
    const deviceMs = clock.nowMs + (i + 1) * 60_000
    return {
      ...{ equipmentId: 'WF-9', bootId: 'b1', seq: counters.seq++, deviceMs, isArcOn: true, arcStarts: counters.seq },
      ...{ wireFedM: counters.wireFedM, arcOnS: counters.arcOnS, motorAmps: ampsAt(counters.arcOnS / 3600) },
    }
  })
  clock.nowMs += hours * HOUR
  const sent = await fetch(`${server.url}/api/ingest`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', authorization: `Bearer ${token}` },
    body: JSON.stringify({ sentMs: clock.nowMs, rows }),
  })
  expect(sent.status).toBe(200)
  while (await settle(server.parts.deps));
  while (await watchFeeders(server.parts.deps));
}
const alarms = async () => (await lead.get<GunAnswer>(`/gun/${id()}`)).body.alarms
const read = async () =>
  (await lead.get<ReadingAnswer>(`/reading?stationId=${id()}`)).body.readings.find((r) => r.what === 'motorAmps')

serverForAll({ nowMs: Date.UTC(2026, 10, 2, 6) }, async (here) => {
  ;({ server, lead } = here)
  at = await openFitShop(lead, 'C1', { classKey: 'cell', placeWord: 'cell' })
  await lead.post('/logbook', {
    key: nextKey(),
    acts: [{ stationId: id(), act: 'changed', position: 'liner', partId: at.part('LS10') }],
  })
  server.clock.nowMs += 60_000
  const made = await lead.post<{ token: string }>('/shop/feeder', {
    ...{ key: nextKey(), stationId: id(), equipmentId: 'WF-9' },
  })
  token = made.body.token
})

describe('the watch of a feeder', () => {
  it('says nothing while nothing creeps, and writes down how it goes', async () => {
    await weld(24, (h) => 2 + 0.02 * Math.sin(h))
    expect(await alarms()).toEqual([])
    const line = await read()
    expect(line?.history.length).toBeGreaterThan(0)
    expect(line?.last).toMatchObject({ method: 'watched', is: 'good', who: null })
    expect(line?.last?.value).toBeCloseTo(2, 1)
  })
  it('watched again without anything new changes nothing', async () => {
    const before = await read()
    await watchFeeders(server.parts.deps)
    expect(await read()).toEqual(before)
  })
  it('says a creeping current on the gun, at the liner, at once', async () => {
    const from = counters.arcOnS / 3600
    await weld(24, (h) => 2 * (1 + 0.02 * (h - from)))
    expect(await alarms()).toMatchObject([{ what: 'motorAmps', at: 'liner', isWatched: true }])
    expect((await lead.get<GunAnswer>(`/gun/${id()}`)).body.positions.find((p) => p.position === 'liner')?.state).toBe(
      'look',
    )
  })
  it('is quiet again once the liner was changed, and begins anew', async () => {
    await lead.post('/logbook', {
      key: nextKey(),
      acts: [{ stationId: id(), act: 'changed', position: 'liner', outReason: 'worn', partId: at.part('LS10') }],
    })
    server.clock.nowMs += 60_000
    expect(await alarms()).toEqual([])
    await weld(20, () => 2.6)
    expect(await alarms()).toEqual([])
  })
})

describe('a stop that nobody said', () => {
  /** Rows two seconds apart; from some row on the rolls turn and no wire comes. */
  async function send(n: number, slipsAt: number) {
    const { clock } = server
    let rollFedM = counters.wireFedM
    const rows = Array.from({ length: n }, (_, i) => {
      counters.arcOnS += 2
      rollFedM += 0.3
      if (i < slipsAt) counters.wireFedM += 0.3
      const deviceMs = clock.nowMs + (i + 1) * 2000
      return {
        ...{ equipmentId: 'WF-9', bootId: 'b1', seq: counters.seq++, deviceMs, isArcOn: true, arcStarts: counters.seq },
        ...{
          wireFedM: counters.wireFedM,
          arcOnS: counters.arcOnS,
          motorAmps: 2.6,
          rollFedM,
          volts: i < slipsAt ? 26 : 33,
        },
      }
    })
    clock.nowMs += n * 2000
    await fetch(`${server.url}/api/ingest`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', authorization: `Bearer ${token}` },
      body: JSON.stringify({ sentMs: clock.nowMs, rows }),
    })
    while (await settle(server.parts.deps));
    while (await watchFeeders(server.parts.deps));
  }
  it('opens by itself within seconds, once, with what was seen and the minute before it', async () => {
    await send(40, Infinity)
    expect((await lead.get<GunAnswer>(`/gun/${id()}`)).body.downSinceMs).toBeNull()
    await send(10, 2)
    const { downSinceMs, alarms: told, tape } = (await lead.get<GunAnswer>(`/gun/${id()}`)).body
    expect(downSinceMs).not.toBeNull()
    expect(told.find((a) => a.what === 'slip')).toMatchObject({ isWatched: true })
    expect(tape.find((l) => l.fact.kind === 'stopped')?.note).toBe(
      'as the feeder sent it: rolls turn, wire does not come, the arc climbs',
    )
    const row = (await lead.get<FloorAnswer>('/floor')).body.guns.find((g) => g.stationId === id())
    expect(row?.downSays).toBe('as the feeder sent it: rolls turn, wire does not come, the arc climbs')
    const { points } = (await lead.get<TraceAnswer>(`/cells/trace?stationId=${id()}`)).body
    expect(points.length).toBeGreaterThan(20)
    expect(points.at(-1)?.wireMPerMin).toBeLessThan(1)
    await send(10, 0)
    expect((await lead.get<GunAnswer>(`/gun/${id()}`)).body.downSinceMs).toBe(downSinceMs)
  })
  it('that lies in the past is left to what was said then', async () => {
    await lead.post('/logbook', { key: nextKey(), acts: [{ stationId: id(), act: 'running' }] })
    server.clock.nowMs += HOUR
    const { body } = await lead.get<TraceAnswer>(`/cells/trace?stationId=${id()}`)
    expect(body).toMatchObject({ atMs: null, points: [] })
  })
  it('opens from what a made-up controller sends second by second, with arc and gas in its picture', async () => {
    const { clock } = server
    const arcs = { seed: 4, duty: 0.6, wireMPerMin: 9 }
    const setUp: FeederSetUp = {
      equipmentId: 'WF-9',
      plan: arcs,
      motor: { seed: 4, baseA: 2, creep: null },
      starts: { seed: 4, share: 0, worse: null },
      feeding: { seed: 7, arcs, volts: 26, gasLpm: 15, slip: 0.02, snagEveryH: 3 },
      schedule: null,
    }
    const { feeding } = setUp
    let snag = null
    while (feeding && !snag) snag = snagNear(feeding, (clock.nowMs += 3 * HOUR))
    if (!snag) throw new Error('it never snags')
    if (snag.fromMs < clock.nowMs) clock.nowMs = snag.fromMs
    const from = bootUp('b2', snag.fromMs - 10 * 60_000)
    clock.nowMs = snag.outMs + 30_000
    const { buffer } = catchUp(from, setUp, { nowMs: clock.nowMs, everyMs: 10_000 })
    await fetch(`${server.url}/api/ingest`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', authorization: `Bearer ${token}` },
      body: JSON.stringify({ sentMs: clock.nowMs, rows: buffer }),
    })
    while (await settle(server.parts.deps));
    while (await watchFeeders(server.parts.deps));
    const { downSinceMs } = (await lead.get<GunAnswer>(`/gun/${id()}`)).body
    expect(Math.abs((downSinceMs ?? 0) - snag.outMs)).toBeLessThan(5000)
    const { points } = (await lead.get<TraceAnswer>(`/cells/trace?stationId=${id()}`)).body
    expect(points.length).toBeGreaterThan(50)
    expect(points.some((p) => p.gasLpm === 15)).toBe(true)
    expect(Math.max(...points.map((p) => p.volts ?? 0))).toBeGreaterThan(30)
  })
})
