import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { type AuditAnswer } from '@contract/audit.ts'
import { type FloorAnswer } from '@contract/floor.ts'
import { type GunAnswer } from '@contract/gun.ts'
import { type HandoverAnswer } from '@contract/handover.ts'
import { type LogbookAnswer } from '@contract/logbook.ts'
import { type WalkAnswer, type WalkFoundAnswer } from '@contract/walk.ts'
import { type Problem } from '@contract/common.ts'
import { contentOf, withPowerCut } from '@server/testing/powercut.ts'
import {
  Client,
  driftOf,
  LEAD,
  makePlaces,
  nextKey,
  openShop,
  startTestServer,
  type TestServer,
} from '@server/testing/testserver.ts'

const HOUR = 3_600_000
const DAY = 24 * HOUR
let server: TestServer
let lead: Client
let ids: Map<string, string>
const id = (name: string) => ids.get(name) ?? ''
const walk = async (query = '') => (await lead.get<WalkAnswer>(`/walk${query}`)).body
const names = (w: WalkAnswer) => w.stops.map((s) => s.name)
const entry = (name: string, over: Record<string, unknown> = {}) => ({
  key: nextKey(),
  stationId: id(name),
  happenedMs: server.clock.nowMs,
  looks: [{ what: 'nozzleOpen', grade: 'ring' }],
  acts: [],
  ...over,
})
const found = (...entries: unknown[]) => lead.post<WalkFoundAnswer>('/walk/found', { entries })
const gun = async (name: string) => (await lead.get<GunAnswer>(`/gun/${id(name)}`)).body
const lines = async () => (await lead.get<LogbookAnswer>('/logbook')).body.lines

beforeAll(async () => {
  server = await startTestServer({ nowMs: Date.UTC(2026, 10, 16, 6) })
  lead = await openShop(server)
  ids = await makePlaces(lead, 'A1–A8')
  for (const [name, station] of await makePlaces(lead, 'C1–C3', {
    areaName: 'Cells',
    classKey: 'cell',
    placeWord: 'cell',
  }))
    ids.set(name, station)
})
beforeEach(() => {
  server.clock.nowMs += 60_000
})
afterAll(async () => {
  expect(server.faults).toEqual([])
  expect(await driftOf(server)).toBe(0)
  await server.close()
})

describe('a walk', () => {
  it('in a shop nobody has looked at takes all guns when there is time, in the order of the shop', async () => {
    const all = await walk('?minutes=120')
    expect(names(all)).toEqual(['A1', 'A2', 'A3', 'A4', 'A5', 'A6', 'A7', 'A8', 'C1', 'C2', 'C3'])
    expect(all.left).toEqual([])
    expect(all.leftStops).toBe(0)
    expect(all.stops[0]?.looks.map((l) => l.what)).toContain('bore')
  })
  it('keeps to the minutes, says what it leaves and the chance that one of those stops', async () => {
    const short = await walk('?minutes=10')
    expect(short.taskMin + short.walkMin).toBeLessThanOrEqual(10)
    expect(short.stops.length + short.left.length).toBe(11)
    expect(short.leftStops).toBeGreaterThan(0)
    expect((await walk('?minutes=20')).stops.length).toBeGreaterThan(short.stops.length)
  })
  it('starts from here, stays in an area, is split over people; a parked gun is passed', async () => {
    await lead.post('/logbook', { key: nextKey(), acts: [{ stationId: id('A3'), act: 'parked' }] })
    expect(names(await walk('?minutes=60'))).not.toContain('A3')
    const cells = (await walk()).areas.find((a) => a.name === 'Cells')?.id ?? ''
    expect(names(await walk(`?areaId=${cells}&minutes=60`))).toEqual(['C1', 'C2', 'C3'])
    expect(names(await walk(`?areaId=${cells}&minutes=60&from=${id('C3')}`))).toEqual(['C3', 'C2', 'C1'])
    const parts = (await walk('?minutes=120&people=5&walk=handOver')).parts
    expect(parts).toHaveLength(5)
    expect(parts.flat()).toHaveLength(10)
    expect((await lead.get<Problem>('/walk?areaId=area_no')).status).toBe(404)
    expect((await lead.get<Problem>('/walk?minutes=0')).status).toBe(400)
  })
  it('comes on paper in its own order, and a walk of nothing does not', async () => {
    const pdf = await lead.bytes('/print/walk.pdf?minutes=60')
    expect(pdf.subarray(0, 5).toString()).toBe('%PDF-')
    const parked = await makePlaces(lead, 'P1', { areaName: 'Yard' })
    await lead.post('/logbook', { key: nextKey(), acts: [{ stationId: parked.get('P1'), act: 'parked' }] })
    const yard = (await walk()).areas.find((a) => a.name === 'Yard')?.id ?? ''
    expect((await lead.get<Problem>(`/print/walk.pdf?areaId=${yard}`)).status).toBe(404)
  })
  it('what was looked at is not asked again until its time', async () => {
    await found(
      entry('A1', {
        looks: [
          { what: 'bore', grade: 'round' },
          { what: 'nozzleOpen', grade: 'clean' },
        ],
      }),
    )
    const a1 = async () =>
      (await walk('?minutes=240')).stops.find((s) => s.name === 'A1')?.looks.map((l) => l.what) ?? []
    expect(await a1()).not.toContain('bore')
    expect(await a1()).toContain('wiper')
    server.clock.nowMs += DAY
    expect(await a1()).toContain('bore')
  })
})

describe('what is found on a walk', () => {
  it('is a reading at its own time, with what was done after it', async () => {
    const at = server.clock.nowMs - 2 * HOUR
    const made = await found(
      entry('A2', {
        happenedMs: at,
        looks: [
          { what: 'pinHome', grade: 'home' },
          { what: 'bore', grade: 'keyhole' },
        ],
        acts: [{ act: 'changed', position: 'tip', outReason: 'worn' }],
      }),
    )
    expect(made.body.entries).toMatchObject([{ is: 'kept', message: null }])
    const tip = (await gun('A2')).positions.find((p) => p.position === 'tip')
    expect(tip).toMatchObject({ fittedMs: at + 1 })
    const said = (await lines()).filter((l) => l.stationName === 'A2')
    expect(said.map((l) => l.fact.kind)).toEqual(['fitted', 'reading'])
  })
  it('a bad find that nobody mends shows on the gun', async () => {
    await found(
      entry('A4', {
        looks: [
          { what: 'layout', grade: 'coiled' },
          { what: 'bore', grade: 'round' },
        ],
      }),
    )
    expect((await gun('A4')).positions.find((p) => p.position === 'liner')).toMatchObject({ state: 'look' })
    const floor = (await lead.get<FloorAnswer>('/floor')).body
    expect(floor.guns.find((g) => g.name === 'A4')?.cells.length).toBeGreaterThan(0)
  })
  it('what followed from another act is settled with the gun, once', async () => {
    await lead.post('/logbook', {
      key: nextKey(),
      acts: [{ stationId: id('A3'), act: 'unparked' }],
    })
    await lead.post('/logbook', { key: nextKey(), acts: [{ stationId: id('A3'), act: 'changed', position: 'liner' }] })
    const open = async () => (await gun('A3')).followUps.map((f) => f.task)
    const asked = await open()
    expect(asked.length).toBeGreaterThan(0)
    server.clock.nowMs += 1000
    const done = entry('A3', { looks: [], settled: asked })
    expect((await found(done)).body.entries[0]?.is).toBe('kept')
    expect(await open()).toEqual([])
    expect((await found(done)).body.entries[0]?.is).toBe('before')
  })
  it('sent again it is kept once, alone or among others, also both at once', async () => {
    const [one, two] = [entry('A5'), entry('A6')]
    expect((await found(one)).body.entries[0]?.is).toBe('kept')
    const content = await contentOf(server)
    expect((await found(one)).body.entries[0]?.is).toBe('before')
    expect(await contentOf(server)).toEqual(content)
    const both = await Promise.all([found(one, two), found(two, one)])
    const kept = both.flatMap((b) => b.body.entries).filter((e) => e.is === 'kept')
    expect(kept.map((e) => e.key)).toEqual([two.key])
  })
  it('one that cannot be kept is refused by itself, with the reason; the others are kept', async () => {
    const bad = [
      entry('A5', { stationId: 'stn_00000000' }),
      entry('A5', { looks: [{ what: 'bore', grade: 'blue' }] }),
      entry('A5', { happenedMs: server.clock.nowMs + HOUR }),
      entry('A5', { looks: [] }),
      entry('A5', { looks: [], acts: [{ act: 'changed', position: 'sail' }] }),
    ]
    const good = entry('A7')
    const made = (await found(...bad, good)).body.entries
    expect(made.map((e) => e.is)).toEqual(['refused', 'refused', 'refused', 'refused', 'refused', 'kept'])
    for (const e of made.slice(0, 5)) expect(e.message?.length).toBeGreaterThan(10)
  })
  it('a power cut in the middle leaves nothing, and the next try keeps all', async () => {
    const entries = ['A5', 'A6', 'A7'].map((name) => entry(name))
    const before = await contentOf(server)
    await withPowerCut(server, () => found(...entries))
    expect(await contentOf(server)).toEqual(before)
    expect((await found(...entries)).body.entries.map((e) => e.is)).toEqual(['kept', 'kept', 'kept'])
  })
  it('nobody signed in writes nothing', async () => {
    const nobody = new Client(server.url)
    expect((await nobody.post('/walk/found', { entries: [entry('A1')] })).status).toBe(401)
    await nobody.post('/people/sign-in', LEAD)
    expect((await nobody.post('/walk/found', { entries: [entry('A1')] })).status).toBe(200)
  })
})

describe('what is at hand', () => {
  it('is said of a place and kept; what is neither there nor missing is refused', async () => {
    const audit = async () => (await lead.get<AuditAnswer>('/audit')).body.places
    expect((await audit()).every((p) => p.saidMs === null)).toBe(true)
    const say = (value: string) =>
      lead.post('/rightparts/set', {
        key: nextKey(),
        stationId: id('A2'),
        how: 'read',
        settings: [{ name: 'hangGun', value }],
      })
    expect((await say('there')).status).toBe(200)
    server.clock.nowMs += 1000
    await say('missing')
    expect((await audit()).find((p) => p.name === 'A2')).toMatchObject({ has: { hangGun: 'missing' } })
    expect((await say('perhaps')).status).toBe(400)
    expect((await lead.get<AuditAnswer>('/audit?areaId=area_no')).status).toBe(404)
  })
})

describe('honest looks', () => {
  it('nozzles found open are counted by whoever looked; one look in twenty is chosen for the lead to look again', async () => {
    for (let n = 0; n < 60; n++) {
      server.clock.nowMs += 90_000
      await found(entry('A5', { looks: [{ what: 'nozzleOpen', grade: n % 3 === 0 ? 'ring' : 'clean' }] }))
    }
    const { foundOpen, again } = await walk()
    expect(foundOpen.of).toBeGreaterThanOrEqual(60)
    expect(foundOpen.good / foundOpen.of).toBeLessThan(0.75)
    expect(again?.agreed.of).toBeLessThanOrEqual(12)
    const hands = new Client(server.url)
    const link = await lead.post<{ path: string }>('/people/device-link', {
      key: nextKey(),
      name: 'Wall',
      areaId: null,
      stationId: null,
    })
    await hands.post('/people/bind', { token: link.body.path.split('/').at(-1) })
    expect((await hands.get<WalkAnswer>('/walk')).body.again).toBeNull()
  })
})

describe('a walk in no time', () => {
  it('counts for less in what is learnt, and for nothing against anybody', async () => {
    const chance = async () =>
      (await walk('?walk=weekly&minutes=240')).stops
        .find((s) => s.name === 'C3')
        ?.looks.find((l) => l.what === 'insulator')?.chance ?? 0
    const round = async (gapMs: number) => {
      for (let n = 0; n < 12; n++) {
        server.clock.nowMs += gapMs
        await found(entry(`A${1 + (n % 2)}`, { looks: [{ what: 'insulator', grade: 'tight' }] }))
      }
    }
    const before = await chance()
    await round(300)
    const afterQuick = await chance()
    server.clock.nowMs += 3_600_000
    await round(30_000)
    const afterFair = await chance()
    expect(before - afterQuick).toBeLessThan(afterQuick - afterFair)
    expect(afterFair).toBeLessThan(afterQuick)
  })
})

describe('a walk on which nothing is found though something should be', () => {
  it('counts for less from then on; with one find it counts whole', async () => {
    const tell = async (what: string, grade: string) => {
      server.clock.nowMs += 60_000
      await found(entry(`A${1 + (Math.floor(server.clock.nowMs / 60_000) % 2)}`, { looks: [{ what, grade }] }))
    }
    const chance = async () =>
      (await walk('?walk=gunOut&minutes=240')).stops
        .find((s) => s.name === 'C3')
        ?.looks.find((l) => l.what === 'orings')?.chance ?? 0
    // A shop that found four in ten, long enough ago to be another walk.
    for (let n = 0; n < 40; n++) await tell('orings', n % 5 < 2 ? 'cut' : 'whole')
    server.clock.nowMs += 2 * HOUR
    const before = await chance()
    for (let n = 0; n < 11; n++) await tell('orings', 'whole')
    const fair = await chance()
    for (let n = 0; n < 30; n++) await tell('orings', 'whole')
    const round = await chance()
    expect((before - fair) / 11).toBeGreaterThan(2 * ((fair - round) / 30))
    expect(round).toBeLessThan(fair)
  })
})

describe('the hand-over page', () => {
  const handover = async (query = '') => (await lead.get<HandoverAnswer>(`/handover${query}`)).body
  it('makes itself from the log: down with what was tried, settings that stand, what asks, what was done', async () => {
    const act = (name: string, what: Record<string, unknown>) => {
      server.clock.nowMs += 60_000
      return lead.post('/logbook', { key: nextKey(), acts: [{ stationId: id(name), ...what }] })
    }
    const before = await handover()
    expect(before.down).toEqual([])
    await act('A8', { act: 'changed', position: 'nozzle' })
    await act('A8', { act: 'down', position: 'liner' })
    await act('A8', { act: 'changed', position: 'tip', outReason: 'toTry' })
    await act('A8', { act: 'down', position: 'liner' })
    await act('A8', { act: 'changed', position: 'tip', outReason: 'toTry' })
    await act('A8', { act: 'down', position: 'liner' })
    await act('C1', { act: 'parked' })
    await lead.post('/reading', {
      key: nextKey(),
      stationId: id('A6'),
      what: 'tension',
      method: 'block',
      how: 'measured',
      value: 2,
      left: 3,
      grade: 'curls',
      keepGoing: { days: 7 },
    })
    const after = await handover()
    expect(after.down).toMatchObject([
      { name: 'A8', position: 'liner', tried: [{ position: 'tip' }, { position: 'tip' }] },
    ])
    expect(after.parked.map((g) => g.name)).toContain('C1')
    // It ran two hours since: another trouble, and what was put on before is no longer a try at it.
    await act('A8', { act: 'running' })
    server.clock.nowMs += 2 * HOUR
    await act('A8', { act: 'changed', position: 'nozzle' })
    await act('A8', { act: 'down', position: 'tip' })
    expect((await handover()).down).toMatchObject([{ name: 'A8', position: 'tip', tried: [] }])
    expect(after.standing).toMatchObject([{ name: 'A6', tag: 'knobRaised' }])
    expect(after.asks.map((a) => a.name)).toContain('A4')
    expect(after.done.find((d) => d.position === 'tip' && d.act === 'changed')?.times).toBeGreaterThanOrEqual(2)
    const cells = after.areas.find((a) => a.name === 'Cells')?.id ?? ''
    expect(await handover(`?areaId=${cells}`)).toMatchObject({ guns: 3, down: [], standing: [] })
    await act('A8', { act: 'running' })
    expect((await handover()).down).toEqual([])
    expect((await lead.get('/handover?areaId=area_no')).status).toBe(404)
  })
  it('one act said by two devices within minutes is kept twice and asked about; answered it is asked no more', async () => {
    const hands = new Client(server.url)
    const link = await lead.post<{ path: string }>('/people/device-link', { key: nextKey(), name: 'Booth 7' })
    await hands.post('/people/bind', { token: link.body.path.split('/').at(-1) })
    const change = (client: Client, position: string) => {
      server.clock.nowMs += 3 * 60_000
      return client.post<{ logged: { eventId: string }[] }>('/logbook', {
        key: nextKey(),
        acts: [{ stationId: id('A7'), act: 'changed', position }],
      })
    }
    const asked = async () => (await handover()).doubles.filter((d) => d.name === 'A7').map((d) => d.position)
    for (const position of ['tip', 'nozzle']) {
      await change(lead, position)
      await change(hands, position)
    }
    expect(await asked()).toEqual(['tip', 'nozzle'])
    const [tip, nozzle] = (await handover()).doubles.filter((d) => d.name === 'A7')
    await lead.post('/logbook/undo', { key: nextKey(), eventIds: [tip?.secondId] })
    await lead.post('/logbook/correct', { key: nextKey(), eventId: nozzle?.secondId, note: 'two, not one' })
    expect(await asked()).toEqual([])
  })
})
