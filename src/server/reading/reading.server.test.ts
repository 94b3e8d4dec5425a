import { describe, expect, it } from 'vitest'
import { type Problem } from '@contract/common.ts'
import { type ChangeAnswer } from '@contract/changeover.ts'
import { type DragAnswer } from '@contract/drag.ts'
import { type FloorAnswer } from '@contract/floor.ts'
import { type GunAnswer } from '@contract/gun.ts'
import { type LogbookAnswer } from '@contract/logbook.ts'
import { type ReadingAnswer, type ReadingDone } from '@contract/reading.ts'
import { STATES } from '@core/floor/state.ts'
import { COLUMNS } from '@core/path/columns.ts'
import { CORED, lookOf, openFitShop, STEEL, type FitShop } from '@server/testing/fitshop.ts'
import { contentOf } from '@server/testing/powercut.ts'
import { nextKey, type Client, type TestServer } from '@server/testing/testserver.ts'
import { serverForAll } from '@server/testing/serverforall.ts'

const DAY_MS = 86_400_000
let server: TestServer
let lead: Client
let at: FitShop
const id = (name: string) => at.ids.get(name) ?? ''
const readings = async (name: string) => (await lead.get<ReadingAnswer>(`/reading?stationId=${id(name)}`)).body
const line = async (name: string, what: string) => (await readings(name)).readings.find((r) => r.what === what)
const drag = async (name: string) => (await lead.get<DragAnswer>(`/drag?stationId=${id(name)}`)).body
const read = <T = ReadingDone>(name: string, over: Record<string, unknown>) => {
  later(1000)
  return lead.post<T>('/reading', { key: nextKey(), stationId: id(name), how: 'measured', ...over })
}
const knob = (name: string, value: number, over: Record<string, unknown> = {}) =>
  read(name, { what: 'tension', method: 'block', grade: 'curls', value, ...over })
const cell = async (name: string, column: (typeof COLUMNS)[number]) => {
  const floor = (await lead.get<FloorAnswer>('/floor')).body
  const gun = floor.guns.find((g) => g.name === name)
  return STATES[gun?.cells[COLUMNS.indexOf(column)]?.[0] ?? 0]
}
const later = (ms: number) => {
  server.clock.nowMs += ms
}

serverForAll({ nowMs: Date.UTC(2026, 10, 2, 6) }, async (here) => {
  ;({ server, lead } = here)
  at = await openFitShop(lead, 'B1–B8')
  for (const name of at.ids.keys()) await lead.post('/rightparts/look', lookOf(at, name))
})

describe('a reading', () => {
  it('is kept with its verdict as typed, its window, and how it was come by', async () => {
    const made = await read('B1', { what: 'gap', method: 'feeler', value: 13 })
    expect(made.body).toMatchObject({ is: 'look', because: 'above', target: { to: 11, by: 'guess' } })
    expect(await line('B1', 'gap')).toMatchObject({ last: { value: 13, how: 'measured', is: 'look' } })
    expect(await cell('B1', 'outlet')).toBe('look')
    await read('B1', { what: 'gap', method: 'feeler', value: 13, left: 8 })
    expect(await cell('B1', 'outlet')).not.toBe('look')
  })
  it('outside what is written down on purpose asks for its reason, and then for nothing more', async () => {
    const tip = (over: object) => read('B2', { what: 'recess', method: 'rule', value: 4, ...over })
    expect((await tip({})).body).toMatchObject({ is: 'look', because: 'above' })
    expect(await cell('B2', 'nozzle')).toBe('look')
    expect((await tip({ isOnPurpose: true })).status).toBe(400)
    const note = 'On purpose: to reach the joint.'
    expect((await tip({ isOnPurpose: true, note })).body).toMatchObject({ is: 'good', because: 'above' })
    expect(await cell('B2', 'nozzle')).not.toBe('look')
    const { lines } = (await lead.get<LogbookAnswer>('/logbook?day=2026-11-02')).body
    expect(lines.some((l) => l.stationName === 'B2' && l.note === note)).toBe(true)
    // What may be drift only is judged, whatever is said of it.
    const gap = { what: 'gap', method: 'feeler', isOnPurpose: true, note }
    expect((await read('B2', { ...gap, value: 13 })).body.is).toBe('look')
    expect((await read('B2', { ...gap, value: 13, left: 8 })).body.is).toBe('good')
  })
  it('is one reading however often it is sent, and undone it is gone', async () => {
    const key = nextKey()
    const send = () => read('B1', { key, what: 'orings', method: 'look', how: 'looked', grade: 'torn' })
    const first = await send()
    const before = await contentOf(server)
    const again = await send()
    expect(again.body.eventId).toBe(first.body.eventId)
    expect(await contentOf(server)).toEqual(before)
    expect(await cell('B1', 'pin')).toBe('due')
    const undone = await lead.post('/logbook/undo', { key: nextKey(), eventIds: [first.body.eventId] })
    expect(undone.status).toBe(200)
    expect((await line('B1', 'orings'))?.last).toBeNull()
    expect(await cell('B1', 'pin')).not.toBe('due')
  })
  it('to be put right opens a row on Floor, with what was seen, until the place is looked at', async () => {
    const row = async () => {
      const { guns } = (await lead.get<FloorAnswer>('/floor')).body
      return guns.find((g) => g.name === 'B4')
    }
    expect(await row()).toMatchObject({ rank: null, found: [] })
    await read('B4', { what: 'continuity', method: 'meter', grade: 'conducts' })
    const found = { what: 'continuity', at: 'insulator', seen: { method: 'meter', grade: 'conducts' } }
    expect(await row()).toMatchObject({ rank: expect.any(Number) as number, found: [found] })
    // A cable that lies in coils is laid straight in passing.
    await read('B5', { what: 'layout', method: 'look', grade: 'coiled' })
    expect((await lead.get<FloorAnswer>('/floor')).body.guns.find((g) => g.name === 'B5')?.rank).toBeNull()
    later(60_000)
    await lead.post('/logbook', {
      key: nextKey(),
      acts: [{ stationId: id('B4'), act: 'seen', position: 'insulator' }],
    })
    expect(await row()).toMatchObject({ rank: null })
  })
  it('asks back what no gun can show, with what was most likely meant; meant, it is kept', async () => {
    const asked = await read<Problem>('B1', { what: 'hubDrag', method: 'scale', value: 450 })
    expect([asked.status, asked.body.code, asked.body.details]).toEqual([400, 'asked-back', ['Did you mean 4.5?']])
    const meant = await read('B1', { what: 'hubDrag', method: 'scale', value: 90, isMeant: true })
    expect(meant.body.is).toBe('act')
  })
  it('refuses what is none, in words', async () => {
    const refused = async (over: Record<string, unknown>) => (await read<Problem>('B1', over)).body.message
    expect(await refused({ what: 'bore', method: 'twoDiameters', from: { maxMm: 1, minMm: 1.2 } })).toMatch(/widest/)
    expect(await refused({ what: 'holes', method: 'count', from: { open: 9, total: 8 }, value: 1 })).toMatch(/not over/)
    expect(await refused({ what: 'gap', method: 'laser', value: 8 })).toMatch(/no way to read it/)
    expect(await refused({ what: 'gap', method: 'feeler', grade: 'near' })).toMatch(/number is wanted/)
    expect(await refused({ what: 'wiper', method: 'look', value: 1 })).toMatch(/what was seen/)
  })
  it('tells an oval of 10 % from one of 5 %, worked out from two diameters', async () => {
    const bore = (maxMm: number) =>
      read('B2', { what: 'bore', method: 'twoDiameters', value: 0, from: { maxMm, minMm: 1 } })
    expect((await bore(1.05)).body.is).toBe('good')
    expect((await bore(1.1)).body.is).toBe('act')
    expect((await line('B2', 'bore'))?.last?.value).toBeCloseTo(0.1, 9)
    expect(await cell('B2', 'tip')).toBe('due')
    later(1000)
    await lead.post('/logbook', {
      key: nextKey(),
      acts: [{ stationId: id('B2'), act: 'changed', position: 'tip', outReason: 'worn' }],
    })
    expect(await cell('B2', 'tip')).not.toBe('look')
  })
  it('keeps two looks that cannot both be right, and says so', async () => {
    await read('B3', { what: 'bore', method: 'look', how: 'looked', grade: 'round' })
    later(60_000)
    await read('B3', { what: 'bore', method: 'twoDiameters', value: 0, from: { maxMm: 1.2, minMm: 1 } })
    const bore = await line('B3', 'bore')
    expect(bore?.against).toMatchObject({ method: 'look', is: 'good' })
    expect(bore?.history).toHaveLength(2)
  })
  it('found otherwise than it was left: changed since', async () => {
    await read('B3', { what: 'gasFlow', method: 'meter', value: 14, left: 14 })
    later(8 * 3_600_000)
    await read('B3', { what: 'gasFlow', method: 'meter', value: 22 })
    expect((await line('B3', 'gasFlow'))?.changed).toMatchObject({ by: 8, leftBy: expect.any(String) })
  })
  it('reads as a sentence’s worth in the log', async () => {
    await knob('B3', 2.2, { left: 2.6 })
    const log = (await lead.get<LogbookAnswer>(`/logbook?stationId=${id('B3')}`)).body
    const read = { what: 'tension', method: 'block', grade: 'curls', value: 2.2, left: 2.6 }
    expect(log.lines[0]?.fact).toMatchObject({ kind: 'reading', ...read })
  })
})

describe('the knob', () => {
  it('settles what asked for it, and creeping it points at the liner before it is at its limit', async () => {
    await lead.post('/logbook', { key: nextKey(), acts: [{ stationId: id('B4'), act: 'newSpool' }] })
    const gun = async () => (await lead.get<GunAnswer>(`/gun/${id('B4')}`)).body
    expect((await gun()).followUps.map((f) => f.task)).toContain('tension')
    for (const mark of [2.0, 2.1, 2.25, 2.4, 2.5, 2.65]) {
      await knob('B4', mark)
      later(2 * DAY_MS)
    }
    expect((await gun()).followUps.map((f) => f.task)).not.toContain('tension')
    const tension = await line('B4', 'tension')
    expect(tension?.trend).toMatchObject({ is: 'creeps', unit: 'days', baseline: 2, limit: 3, n: 6 })
    expect(tension?.trend?.crossing?.atMs).toBeGreaterThan(server.clock.nowMs)
    // Creeping on the same wire is one of the signs on which the usual house rule changes a liner.
    expect(await cell('B4', 'liner')).toBe('due')
    expect((await readings('B4')).alarms).toMatchObject([{ what: 'tension', at: 'liner', is: 'creeps' }])
  })
  it('another method begins no trend with it, and a new liner begins it anew', async () => {
    await knob('B4', 2.7, { method: 'pinch', grade: 'stops' })
    expect((await line('B4', 'tension'))?.trend).toBeNull()
    await lead.post('/logbook', {
      key: nextKey(),
      acts: [{ stationId: id('B4'), act: 'changed', position: 'liner', outReason: 'worn' }],
    })
    later(60_000)
    await knob('B4', 2.0)
    expect((await readings('B4')).alarms).toEqual([])
  })
  it('ends with its wire: what it asked for is not said of the next one, and the same wire again goes on', async () => {
    for (const mark of [2.0, 2.1, 2.25, 2.4, 2.5, 2.65]) {
      await knob('B8', mark)
      later(DAY_MS / 4)
    }
    expect((await readings('B8')).alarms).toMatchObject([{ what: 'tension', is: 'creeps' }])
    const load = (wire: string) =>
      lead.post('/logbook', {
        key: nextKey(),
        acts: [{ stationId: id('B8'), act: 'newSpool', wireId: at.wire(wire) }],
      })
    expect((await load(STEEL)).status).toBe(200)
    later(60_000)
    expect((await readings('B8')).alarms).toMatchObject([{ what: 'tension', is: 'creeps' }])
    expect((await load('steel 1.0')).status).toBe(200)
    expect((await readings('B8')).alarms).toEqual([])
    // Where it is left for a wire is where the knob begins when that wire comes again.
    await knob('B8', 1.8, { left: 2.1 })
    await load(STEEL)
    const changeTo = async (wire: string) => {
      const { guns } = (await lead.get<ChangeAnswer>(`/changeover?stationIds=${id('B8')}&wireId=${at.wire(wire)}`)).body
      return guns[0]?.steps.find((step) => step.key === 'armClosed')?.do
    }
    expect(await changeTo('steel 1.0')).toMatch(/^Knob to 2.1: there it stood for steel 1.0/)
    expect(await changeTo('alu 1.2')).toMatch(/^Knob slackened right off/)
  })
  it('beyond the feeder’s own scale is asked back, and raised to keep going it never becomes the norm', async () => {
    const off = await read<Problem>('B7', { what: 'tension', method: 'block', grade: 'curls', value: 9 })
    expect(off).toMatchObject({ status: 400, body: { code: 'asked-back' } })
    expect(off.body.message).toContain('9 is not on it')
    await knob('B7', 2.4, { left: 3.4, keepGoing: { days: 5 } })
    expect(await line('B7', 'tension')).toMatchObject({ target: { to: 3.4, actAbove: 4.4, by: 'baseline' } })
    // The next one finds it high: against what it was before.
    await knob('B7', 3.6)
    expect(await line('B7', 'tension')).toMatchObject({ last: { value: 3.6, is: 'look' }, target: { to: 3.4 } })
  })
  it('of a bore narrower than the wire is asked back; one much wider is worn, however round', async () => {
    const bore = (maxMm: number, minMm: number) =>
      read<Problem & ReadingDone>('B7', { what: 'bore', method: 'twoDiameters', value: 0, from: { maxMm, minMm } })
    expect((await bore(0.8, 0.8)).body.message).toContain('does not go through it')
    expect((await bore(1.5, 1.48)).body).toMatchObject({ is: 'act', because: 'wide' })
  })
  it('raised to keep going: a reminder with its day, and somebody looks at the liner', async () => {
    await knob('B5', 2.4, { left: 3.4, keepGoing: { days: 5 } })
    const gun = async () => (await lead.get<GunAnswer>(`/gun/${id('B5')}`)).body
    const { tags, followUps } = await gun()
    expect(tags).toMatchObject([{ tag: 'knobRaised', untilMs: server.clock.nowMs + 5 * DAY_MS }])
    expect(followUps.map((f) => f.task)).toContain('linerCheck')
    expect((await readings('B5')).raised?.untilMs).toBe(server.clock.nowMs + 5 * DAY_MS)
    later(60_000)
    await lead.post('/logbook', { key: nextKey(), acts: [{ stationId: id('B5'), act: 'seen', position: 'liner' }] })
    expect((await gun()).followUps.map((f) => f.task)).not.toContain('linerCheck')
    expect((await gun()).tags).toHaveLength(1)
  })
})

describe('drag', () => {
  it('takes what is told and read, and says what is a guess', async () => {
    const before = await drag('B6')
    expect(before.drag?.setup.shape).toMatchObject({ material: 'steel', diameterMm: 0.9, linerKind: 'steel coil' })
    expect(before.drag?.sources).toMatchObject({ cableMm: { by: 'told' } })
    expect(before.drag?.sources.friction).toBeUndefined()
    await read('B6', {
      what: 'pull',
      method: 'pulls',
      from: { straightN: [6.1, 6.4, 6.0], loopedN: [14.9, 15.6, 15.1], loops: 1 },
      value: 0,
    })
    await read('B6', { what: 'layout', method: 'look', how: 'looked', grade: 'coiled', value: 2 })
    const after = await drag('B6')
    expect(after.drag?.setup.values.friction).toBeCloseTo(0.1436, 3)
    expect(after.drag?.setup.values.coils).toBe(2)
    expect(after.drag?.sources).toMatchObject({ friction: { by: 'read' }, coils: { by: 'read' } })
  })
  it('two liners stuck at one place of its cable: drawn with a kink, and since when', async () => {
    for (const atMm of [1400, 1450]) {
      later(60_000)
      await lead.post('/liner/stuck', { key: nextKey(), stationId: id('B8'), atMm, isKinked: false })
    }
    const { drag: of } = await drag('B8')
    expect(of?.setup.values.kinkDeg).toBeGreaterThan(0)
    expect(of?.sources.kinkDeg).toEqual({ by: 'read', atMs: server.clock.nowMs })
  })
  it('refuses pulls that tell nothing, with what to do', async () => {
    const pull = (straightN: number[], loopedN: number[]) =>
      read<Problem>('B6', { what: 'pull', method: 'pulls', value: 0, from: { straightN, loopedN, loops: 1 } })
    expect((await pull([1.2], [3])).body.message).toMatch(/under 2 N/)
    expect((await pull([9], [8])).body.details[0]).toMatch(/near the gun/)
  })
  it('a knob calibrated by slip pulls tells marks, till other rolls or another wire go on', async () => {
    const pulls = [
      { mark: 1, forcesN: [43, 45, 44] },
      { mark: 4, forcesN: [150, 153, 156] },
    ]
    const body = { key: nextKey(), stationId: id('B7'), pulls }
    const made = await lead.post<{ atZeroN: number; perMarkN: number }>('/drag/calibrate', body)
    expect(made.body.perMarkN).toBeCloseTo(36.33, 1)
    expect((await lead.post('/drag/calibrate', body)).body).toEqual(made.body)
    const { drag: of, calibratedMs } = await drag('B7')
    expect(of?.setup.shape.slip?.perMarkN).toBeCloseTo(36.33, 1)
    expect(calibratedMs).toBe(server.clock.nowMs)
    expect((await knob('B7', 2.2)).body.target).toMatchObject({ by: 'window' })
    expect((await knob('B7', 4.6)).body.is).toBe('act')
    later(60_000)
    await lead.post('/logbook', {
      key: nextKey(),
      acts: [{ stationId: id('B7'), act: 'changed', position: 'rolls', outReason: 'worn' }],
    })
    expect((await drag('B7')).calibratedMs).toBeNull()
  })
  it('refuses a calibration that cannot be one', async () => {
    const post = (over: Record<string, unknown>) =>
      lead.post<Problem>('/drag/calibrate', { key: nextKey(), stationId: id('B7'), ...over })
    const at4 = { mark: 4, forcesN: [40] }
    expect((await post({ pulls: [{ mark: 1, forcesN: [60] }, at4] })).body.message).toMatch(/did not slip harder/)
    expect((await post({ pulls: [{ mark: 1, forcesN: [20, 40] }, at4] })).body.message).toMatch(/differ/)
    expect((await post({ pulls: [{ mark: 4, forcesN: [20] }, at4] })).body.details[0]).toMatch(
      /both marks are the same/,
    )
    expect((await post({ pulls: [{ mark: 1, forcesN: [3] }, at4], backTensionN: 5 })).body.message).toMatch(
      /back tension/,
    )
  })
})

describe('guns alike', () => {
  it('read for the first time it is judged by the others of its feeder type with its wire, and told so', async () => {
    const names = ['B1', 'B2', 'B3', 'B5', 'B7', 'B6']
    for (const name of names)
      await lead.post('/logbook', {
        key: nextKey(),
        acts: [{ stationId: id(name), act: 'newSpool', wireId: at.wire(CORED) }],
      })
    later(60_000)
    for (const [i, name] of names.slice(0, 5).entries()) await knob(name, 2 + i / 20)
    const odd = await knob('B6', 4.6)
    expect(odd.body).toMatchObject({ is: 'act', target: { by: 'shop', n: 5 } })
    // Its own first reading is no beginning to go by.
    expect((await knob('B6', 4.5)).body).toMatchObject({ is: 'act', target: { by: 'shop' } })
    expect((await knob('B1', 2.1)).body).toMatchObject({ is: 'good', target: { by: 'baseline' } })
  })
})

describe('house rules about readings', () => {
  const choose = (code: string, option: string | null) =>
    lead.post('/houserule', { key: nextKey(), code, scopeType: 'site', scopeKey: '*', option })
  const whats = async (name: string) => (await readings(name)).readings.map((r) => r.what)
  it('tension: how it is tested is told; raised without a day where the shop sets none, refused where it never raises', async () => {
    expect((await readings('B5')).schools).toEqual({ tension: 'block', raise: 'forATime' })
    await choose('D02', 'pinchBare')
    await choose('D25', 'raise')
    expect((await readings('B5')).schools).toEqual({ tension: 'pinchBare', raise: 'raise' })
    await knob('B5', 2, { left: 3, keepGoing: { days: null } })
    expect((await readings('B5')).raised).toMatchObject({ untilMs: null })
    const gun = (await lead.get<GunAnswer>(`/gun/${id('B5')}`)).body
    expect(gun.followUps.map((f) => f.task)).not.toContain('linerCheck')
    await choose('D25', 'never')
    const refused = await read<Problem>('B5', {
      ...{ what: 'tension', method: 'block', grade: 'curls', value: 2, left: 3 },
      keepGoing: { days: 7 },
    })
    expect([refused.status, refused.body.message]).toEqual([400, 'House rule: tension is not raised to keep going.'])
    await choose('D02', null)
    await choose('D25', null)
  })
  it('dirt: no wiper is read where the shop has none, and a conduit where the wire is sheathed all the way', async () => {
    expect(await whats('B6')).toContain('wiper')
    expect(await whats('B6')).not.toContain('conduitPull')
    await choose('D31', 'sheath')
    expect(await whats('B6')).not.toContain('wiper')
    expect(await whats('B6')).toContain('conduitPull')
    await choose('D31', null)
  })
  it('what is told and no rule cannot be chosen; to go back to nothing chosen always can', async () => {
    expect((await choose('D04', 'over')).status).toBe(400)
    expect((await choose('D21', 'now')).status).toBe(400)
    expect((await choose('D04', null)).status).toBe(200)
  })
})

describe('numbers made of others', () => {
  it('slip is worked out from roll, turns and wire; one missing is asked for', async () => {
    const slip = (from: Record<string, number>) => read<Problem>('B7', { what: 'slip', method: 'twoSpeeds', from })
    expect((await slip({ rollMm: 30, turns: 10, wireMm: 850 })).status).toBe(200)
    expect((await line('B7', 'slip'))?.last?.value).toBeCloseTo(1 - 850 / (Math.PI * 300), 9)
    expect((await slip({ rollMm: 30, turns: 10 })).body.message).toMatch(/the wire that came/)
  })
  it('a cylinder lasts by its gauge, what it holds and the flow that was read; nobody said what it holds, it is not told', async () => {
    const gauge = (from: Record<string, number>) => read('B7', { what: 'cylinder', method: 'gauge', from })
    await gauge({ bar: 100 })
    expect((await readings('B7')).gasLeft).toBeNull()
    await gauge({ bar: 50, fullM3: 10 })
    // Nobody read the flow: the middle of its window stands in.
    const window = (await line('B7', 'gasFlow'))?.target
    const flowLPerMin = ((window?.from ?? NaN) + (window?.to ?? NaN)) / 2
    expect((await readings('B7')).gasLeft).toMatchObject({ flowLPerMin, isFlowRead: false })
    await read('B7', { what: 'gasFlow', method: 'meter', value: 20 })
    const { gasLeft } = await readings('B7')
    expect(gasLeft).toMatchObject({ flowLPerMin: 20, isFlowRead: true })
    expect(gasLeft?.hours).toBeCloseTo(2500 / 20 / 60, 6)
    // Told once what it holds, the gauge alone is enough.
    later(60_000)
    await gauge({ bar: 6 })
    expect((await readings('B7')).gasLeft?.hours).toBeCloseTo(300 / 20 / 60, 6)
    expect((await line('B7', 'cylinder'))?.last?.is).toBe('act')
  })
  it('the knob only read settles nothing; set or tried it does', async () => {
    await lead.post('/logbook', { key: nextKey(), acts: [{ stationId: id('B8'), act: 'newSpool' }] })
    const tasks = async () => (await lead.get<GunAnswer>(`/gun/${id('B8')}`)).body.followUps.map((f) => f.task)
    later(1000)
    await read('B8', { what: 'tension', method: 'knob', how: 'looked', value: 2.2 })
    expect(await tasks()).toContain('tension')
    await knob('B8', 2.2)
    expect(await tasks()).not.toContain('tension')
  })
})
