import { describe, expect, it } from 'vitest'
import { NOTHING_OF_CELL, type CellFit } from '@core/rightparts/facts.ts'
import { type CellsAnswer } from '@contract/cell.ts'
import { type GunAnswer } from '@contract/gun.ts'
import { type ReadingAnswer } from '@contract/reading.ts'
import { openFitShop, type FitShop } from '@server/testing/fitshop.ts'
import { serverForAll } from '@server/testing/serverforall.ts'
import { nextKey, type Client, type TestServer } from '@server/testing/testserver.ts'
import { settle } from '@server/settle/settle.ts'
import { watchFeeders } from './watcher.ts'

/** Reamer, cutter and sprayer of one robot, told by hand and by what its feeder sends. */
let server: TestServer
let lead: Client
let at: FitShop
const HOUR = 3_600_000
const DAY = 24 * HOUR
const id = () => at.ids.get('C1') ?? ''
const reamer = async () => {
  const { body } = await lead.get<CellsAnswer>('/cells')
  const cell = body.cells.find((c) => c.name === 'C1')
  if (!cell) throw new Error('no cell C1')
  return { ...cell.reamer, todo: cell.todo }
}
async function read(what: string, over: Record<string, unknown>) {
  const sent = await lead.post('/reading', {
    ...{ key: nextKey(), stationId: id(), what, method: 'look', how: 'looked', grade: null, value: null, left: null },
    ...{ from: {}, isMeant: false, keepGoing: null, ...over },
  })
  expect(sent.status).toBe(200)
  server.clock.nowMs += 60_000
}
let built: CellFit = NOTHING_OF_CELL
const tell = async (cell: Partial<CellFit>) => {
  built = { ...built, ...cell }
  const body = { key: nextKey(), stationId: id(), except: { cell: built } }
  expect((await lead.post('/shop/station', body)).status).toBe(200)
  server.clock.nowMs += 60_000
}
const weld = async (hours: number, days: number) => {
  server.clock.nowMs += days * DAY
  const day = new Date(server.clock.nowMs).toISOString().slice(0, 10)
  await lead.post('/clock/usage', { key: nextKey(), stationId: id(), day, shift: null, kg: null, arcHours: hours })
  while (await settle(server.parts.deps));
}

serverForAll({ nowMs: Date.UTC(2026, 10, 2, 6) }, async (here) => {
  ;({ server, lead } = here)
  at = await openFitShop(lead, 'C1', { classKey: 'cell', placeWord: 'cell' })
})

describe('what stands beside the torch', () => {
  it('is nothing until it is told of; then its blades have lives of their own', async () => {
    expect(await reamer()).toMatchObject({ blade: null, cutter: null, every: null, reams: null, tank: null })
    const has = async () => (await lead.get<GunAnswer>(`/gun/${id()}`)).body.positions.map((p) => p.position)
    expect(await has()).not.toContain('cutter')
    await tell({ cutter: 'shears only', reamEvery: 10, cycleArcS: 60, shotsPerReam: 1, sprayMl: 2, tankL: 2 })
    expect(await has()).toEqual(expect.arrayContaining(['cutter', 'reamer']))
    await tell({ cutter: 'none' })
    expect(await has()).not.toContain('cutter')
    await tell({ cutter: 'clamps and shears' })
    await lead.post('/logbook', {
      key: nextKey(),
      acts: ['reamer', 'cutter'].map((position) => ({ stationId: id(), act: 'changed', position })),
    })
    await weld(4, 1)
    const { blade, cutter } = await reamer()
    expect(blade?.arcHours).toBeGreaterThan(0)
    expect(blade?.cycles).toBe(Math.round((blade?.arcHours ?? 0) * 60))
    expect(cutter).toEqual({ ...blade, sinceMs: cutter?.sinceMs })
  })
  it('looks as the ream is due, with the cycles set then, tell how often it need come', async () => {
    // Tapped twice it is one look.
    for (let i = 0; i < 3; i++) {
      await read('beforeReam', { grade: 'half' })
      await read('beforeReam', { grade: 'free' })
      server.clock.nowMs += HOUR
    }
    const told = (await reamer()).reams
    expect(told).toMatchObject({ n: 3, doesLeaveIt: false, isHeld: 'up' })
    expect(told?.every).toBe(15)
    const { body } = await lead.get<ReadingAnswer>(`/reading?stationId=${id()}`)
    expect(body.cleaning).toMatchObject({ way: 'machine', limitH: null })
  })
  it('a clean ream says that blade and clamp go with what is on; one that leaves it says what to look at', async () => {
    await lead.post('/cells/crash', { key: nextKey(), stationId: id() })
    server.clock.nowMs += 60_000
    expect((await reamer()).todo.map((t) => t.task)).toContain('reamer')
    await read('afterReam', { grade: 'clean' })
    expect((await reamer()).todo.map((t) => t.task)).not.toContain('reamer')
    for (let i = 0; i < 3; i++) {
      server.clock.nowMs += HOUR
      await read('afterReam', { grade: 'half' })
    }
    expect((await reamer()).reams).toMatchObject({ doesLeaveIt: true, every: null })
    expect((await lead.get<GunAnswer>(`/gun/${id()}`)).body.alarms).toMatchObject([{ what: 'afterReam', is: 'act' }])
  })
  it('the tank goes down by shots and arc, and is told with its day; filled it is full again', async () => {
    expect((await reamer()).tank).toBeNull()
    await read('agentTank', { method: 'level', how: 'measured', value: 0.2, left: 2 })
    await weld(8, 1)
    await weld(8, 1)
    const { tank } = await reamer()
    expect(tank?.readL).toBe(2)
    // 6 reams an arc hour of 2 ml each.
    expect(tank?.now?.litres).toBeGreaterThan(2 - 0.012 * 20)
    expect(tank?.now?.litres).toBeLessThan(2 - 0.012 * 12)
    expect(tank?.now?.emptyMs).toBeGreaterThan(server.clock.nowMs + 5 * DAY)
    expect(tank?.now?.earlyMs).toBeLessThan(tank?.now?.emptyMs ?? 0)
    await tell({ sprayMl: null })
    expect((await reamer()).tank).toMatchObject({ readL: 2, now: null })
  })
})

describe('starts that a feeder counts', () => {
  let token = ''
  const counters = { seq: 0, arcStarts: 0, startsFailed: 0, arcOnS: 0, wireFedM: 0 }
  /** A day of 1,600 starts, forty a row; every `nth` comes to nothing. */
  async function day(nth: number) {
    const { clock } = server
    const rows = Array.from({ length: 40 }, (_, i) => {
      const failed = Math.floor((40 * (i + 1)) / nth) - Math.floor((40 * i) / nth)
      counters.startsFailed += failed
      counters.arcStarts += 40 - failed
      counters.arcOnS += 300
      counters.wireFedM += 45
      return {
        ...{ equipmentId: 'WF-9', bootId: 'b1', deviceMs: clock.nowMs + (i + 1) * 600_000, isArcOn: true },
        ...counters,
        seq: counters.seq++,
      }
    })
    clock.nowMs += 40 * 600_000
    const sent = await fetch(`${server.url}/api/ingest`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', authorization: `Bearer ${token}` },
      body: JSON.stringify({ sentMs: clock.nowMs, rows }),
    })
    expect(sent.status).toBe(200)
    clock.nowMs += DAY - 40 * 600_000
    while (await settle(server.parts.deps));
    while (await watchFeeders(server.parts.deps));
  }
  it('say on the cell that more come to nothing, and that it is well again once it is', async () => {
    const made = await lead.post<{ token: string }>('/shop/feeder', {
      ...{ key: nextKey(), stationId: id(), equipmentId: 'WF-9' },
    })
    token = made.body.token
    for (let i = 0; i < 2; i++) await day(100)
    expect((await reamer()).fails).toBeNull()
    for (let i = 0; i < 3; i++) await day(12)
    const { fails } = await reamer()
    expect(fails?.share).toBeGreaterThan(0.06)
    expect(fails?.wellShare).toBeLessThan(0.02)
    const { alarms } = (await lead.get<GunAnswer>(`/gun/${id()}`)).body
    expect(alarms.find((a) => a.what === 'failedStarts')).toMatchObject({ at: 'tip', isWatched: true })
    await lead.post('/logbook', {
      key: nextKey(),
      acts: [{ stationId: id(), act: 'changed', position: 'cutter', outReason: 'worn' }],
    })
    await day(100)
    expect((await reamer()).fails).toBeNull()
  })
})

describe('a way that was turned from spool to drum', () => {
  const conduit = [{ name: 'post to arm', lengthM: 3, bends: 2, lining: 'polymer' as const }]
  const pull = (value: number) => read('segmentPull', { method: 'scale', how: 'measured', value, from: { piece: 0 } })
  const cell = async () => (await lead.get<CellsAnswer>('/cells')).body.cells.find((c) => c.name === 'C1')
  it('keeps its plan, and forgets it when it is given up', async () => {
    await tell({ payoff: 'spool', conduit })
    await pull(9)
    await tell({ plan: { booster: 'electric', conduit, sinceMs: server.clock.nowMs, done: ['before'] } })
    expect((await cell())?.cell.plan).toMatchObject({ done: ['before'] })
    await tell({ plan: null })
    expect((await cell())?.cell.plan).toBeNull()
    expect((await cell())?.turned).toBeNull()
  })
  it('has the pulls of the old way as those before, and begins its own anew', async () => {
    await tell({ payoff: 'drum', drumSinceMs: server.clock.nowMs })
    const turned = await cell()
    expect(turned?.turned).toMatchObject({ pullBeforeN: 9, pullAfterN: null })
    expect(turned?.pulls).toEqual([])
    await pull(6)
    expect((await cell())?.turned).toMatchObject({ pullBeforeN: 9, pullAfterN: 6 })
    expect((await cell())?.pulls).toMatchObject([{ forceN: 6, firstN: 6 }])
  })
})
