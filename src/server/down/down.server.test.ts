import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { anId } from '@core/testing/ids.ts'
import { SHIPPED } from '@core/diagnose/shipped/knowledge.ts'
import { type Problem } from '@contract/common.ts'
import { type DownAnswer, type DownNowAnswer, type KnowledgeAnswer } from '@contract/down.ts'
import { type GunAnswer } from '@contract/gun.ts'
import { type LogbookAnswer } from '@contract/logbook.ts'
import { knowledge } from '@server/db/schema.ts'
import { contentOf } from '@server/testing/powercut.ts'
import {
  Client,
  driftOf,
  makePlaces,
  nextKey,
  openShop,
  startTestServer,
  type TestServer,
} from '@server/testing/testserver.ts'

let server: TestServer
let lead: Client
let ids: Map<string, string>
const id = (name: string) => ids.get(name) ?? ''
const act = (name: string, what: Record<string, unknown>) =>
  lead.post('/logbook', { key: nextKey(), acts: [{ stationId: id(name), ...what }] })
const down = async (name: string) => (await lead.get<DownAnswer>(`/down?stationId=${id(name)}`)).body
const now = async (query = '') => (await lead.get<DownNowAnswer>(`/down/now${query}`)).body
const gun = async (name: string) => (await lead.get<GunAnswer>(`/gun/${id(name)}`)).body
const body = (name: string, over: Record<string, unknown> = {}) => ({
  key: nextKey(),
  stationId: id(name),
  symptom: 'burnback',
  cause: 'tipWorn',
  isCertain: true,
  by: 'search',
  closing: 'good',
  ...over,
})
const later = (minutes: number) => (server.clock.nowMs += minutes * 60_000)

beforeAll(async () => {
  server = await startTestServer({ nowMs: Date.UTC(2026, 10, 16, 8) })
  lead = await openShop(server)
  ids = await makePlaces(lead, 'A1–A6')
  for (const [name, station] of await makePlaces(lead, 'C1', {
    areaName: 'Cells',
    classKey: 'cell',
    placeWord: 'cell',
  }))
    ids.set(name, station)
})
beforeEach(() => later(30))
afterAll(async () => {
  expect(server.faults).toEqual([])
  expect(await driftOf(server)).toBe(0)
  await server.close()
})

describe('a stop', () => {
  it('goes on while parts are only tried, and ends when it is said to run', async () => {
    await act('A1', { act: 'down' })
    const since = server.clock.nowMs
    later(3)
    await act('A1', { act: 'changed', position: 'tip', outReason: 'toTry' })
    expect((await gun('A1')).downSinceMs).toBe(since)
    later(5)
    await act('A1', { act: 'running' })
    expect((await gun('A1')).downSinceMs).toBeNull()
    expect((await down('A1')).lastStops[0]).toMatchObject({ fromMs: since, minutes: 8, cause: null })
  })
  it('ended by another log, and said to run later the same shift, stood till then', async () => {
    await act('A2', { act: 'down' })
    later(4)
    await act('A2', { act: 'cleaned', position: 'nozzle' })
    expect((await gun('A2')).downSinceMs).toBeNull()
    later(6)
    await act('A2', { act: 'running' })
    expect((await down('A2')).lastStops[0]).toMatchObject({ minutes: 10 })
  })
  it('is explained, at once or the next day, and the last word on it counts', async () => {
    await act('A3', { act: 'down' })
    const fromMs = server.clock.nowMs
    later(10)
    await act('A3', { act: 'running' })
    later(24 * 60)
    const first = body('A3', { stopFromMs: fromMs, isCertain: false, by: 'later', closing: 'notTested' })
    expect((await lead.post('/down/explained', first)).status).toBe(200)
    const content = await contentOf(server)
    expect((await lead.post('/down/explained', first)).status).toBe(200)
    expect(await contentOf(server)).toEqual(content)
    expect((await down('A3')).lastStops[0]).toMatchObject({ symptom: 'burnback', cause: 'tipWorn', isCertain: false })
    expect((await down('A4')).turned).toEqual([{ symptom: 'burnback', cause: 'tipWorn', n: 0.5 }])
    later(1)
    await lead.post('/down/explained', body('A3', { stopFromMs: fromMs, cause: 'linerWorn' }))
    expect((await down('A4')).turned).toEqual([{ symptom: 'burnback', cause: 'linerWorn', n: 1 }])
    const { body: log } = await lead.get<LogbookAnswer>('/logbook')
    expect(log.lines[0]).toMatchObject({
      fact: { kind: 'explained', isCertain: true },
      names: { cause: 'groove worn in the liner' },
    })
  })
  it('is learnt for its own class of places', async () => {
    expect((await down('C1')).turned).toEqual([])
    expect((await down('C1')).isCell).toBe(true)
  })
  it('with a symptom or a cause that is not there is refused, in words', async () => {
    for (const over of [{ symptom: 'blue' }, { cause: 'moon' }]) {
      const answer = await lead.post<Problem>('/down/explained', body('A3', over))
      expect([answer.status, answer.body.message.length > 10]).toEqual([400, true])
    }
    expect((await lead.get('/down?stationId=stn_00000000')).status).toBe(404)
  })
  it('others that stopped of the gas in the same hours are told', async () => {
    await act('A5', { act: 'down', position: 'gas' })
    await act('A6', { act: 'down', position: 'gas' })
    expect((await down('A4')).others).toMatchObject({ gas: 2 })
    expect((await down('C1')).others).toMatchObject({ gas: 0 })
  })
})

describe('where the minutes went', () => {
  it('what is down now, a stroke for each stop at its column, by what it turned out to be', async () => {
    const all = await now()
    expect(all.down.map((d) => d.name)).toEqual(['A5', 'A6'])
    const a3 = all.stops.find((s) => s.name === 'A3')
    expect(a3).toMatchObject({ column: 'liner', minutes: 10, isSure: true, cause: 'groove worn in the liner' })
    expect(all.stops.find((s) => s.name === 'A1')).toMatchObject({ column: null, isExplained: false })
    expect(all.causes).toMatchObject([{ key: 'linerWorn', n: 1, minutes: 10 }])
    expect(all.firstFix).toEqual({ right: 1, of: 1 })
    const cells = all.areas.find((a) => a.name === 'Cells')?.id ?? ''
    expect(await now(`?areaId=${cells}`)).toMatchObject({ down: [], stops: [] })
    expect((await lead.get('/down/now?areaId=area_no')).status).toBe(404)
  })
})

describe('cards of what to look at first', () => {
  it('come as paper, one symptom or all; of none there is no card', async () => {
    const one = await lead.bytes('/print/symptoms.pdf?symptom=jerk')
    const all = await lead.bytes('/print/symptoms.pdf')
    expect(one.subarray(0, 5).toString()).toBe('%PDF-')
    expect(all.length).toBeGreaterThan(2 * one.length)
    expect((await lead.get('/print/symptoms.pdf?symptom=blue')).status).toBe(404)
  })
})

describe('why a gun stops, as the shop has it', () => {
  const own = {
    ...SHIPPED,
    causes: SHIPPED.causes.map((c) => (c.key === 'tipWorn' ? { ...c, says: 'tip egg-shaped' } : c)),
  }
  it('goes out, comes in changed, holds at once, and goes back to what ships', async () => {
    const set = (knowledge: unknown) => lead.post<Problem>('/down/knowledge', { key: nextKey(), knowledge })
    expect((await lead.get<{ knowledge: unknown }>('/down/knowledge')).body).toMatchObject({
      version: 0,
      isShipped: true,
    })
    expect((await set(own)).status).toBe(200)
    const after = await down('A1')
    expect([after.version, after.isShipped]).toEqual([1, false])
    expect(after.knowledge.causes.find((c) => c.key === 'tipWorn')?.says).toBe('tip egg-shaped')
    later(1)
    expect((await set(null)).status).toBe(200)
    expect(await down('A1')).toMatchObject({ version: 2, isShipped: true })
  })
  it('written before something new shipped, holds the shop’s words and what is new', async () => {
    const lacks = (k: typeof SHIPPED) => ({
      ...k,
      checks: k.checks.filter((c) => c.key !== 'otherGun'),
    })
    const row = { id: anId('knowledge', 'before'), body: lacks(own), base: lacks(SHIPPED) }
    await server.parts.deps.db.insert(knowledge).values({ ...row, atMs: server.clock.nowMs })
    const { body: shown } = await lead.get<KnowledgeAnswer>('/down/knowledge')
    expect(shown.came).toEqual({ symptoms: 0, causes: 0, checks: 1 })
    const after = await down('A1')
    expect(after.knowledge.causes.find((c) => c.key === 'tipWorn')?.says).toBe('tip egg-shaped')
    expect(after.knowledge.checks.some((c) => c.key === 'otherGun')).toBe(true)
    later(1)
    // Kept as it is, it is the shop's own from now on: nothing came since.
    expect((await lead.post('/down/knowledge', { key: nextKey(), knowledge: shown.knowledge })).status).toBe(200)
    const kept = (await lead.get<KnowledgeAnswer>('/down/knowledge')).body
    expect(kept).toMatchObject({ isShipped: false, came: { checks: 0 } })
    expect(kept.knowledge).toEqual(shown.knowledge)
    later(1)
    await lead.post('/down/knowledge', { key: nextKey(), knowledge: null })
  })
  it('with a fault in it is refused whole, by place', async () => {
    const content = await contentOf(server)
    const [first, ...rest] = SHIPPED.symptoms
    const off = { ...SHIPPED, symptoms: [{ ...first, causes: ['noSuch'] }, ...rest] }
    const answer = await lead.post<Problem>('/down/knowledge', { key: nextKey(), knowledge: off })
    expect(answer.status).toBe(422)
    expect(answer.body.details.join()).toContain('noSuch')
    expect(await contentOf(server)).toEqual(content)
  })
  it('hands read what they search with, and change nothing of it', async () => {
    const hands = new Client(server.url)
    const link = await lead.post<{ path: string }>('/people/device-link', { key: nextKey(), name: 'Wall' })
    await hands.post('/people/bind', { token: link.body.path.split('/').at(-1) })
    expect((await hands.get(`/down?stationId=${id('A1')}`)).status).toBe(200)
    expect((await hands.post('/down/knowledge', { key: nextKey(), knowledge: null })).status).toBe(403)
  })
})

describe('what is seen, said while it is looked into', () => {
  const seen = (name: string, over: Record<string, unknown> = {}) =>
    body(name, { cause: null, isCertain: false, by: 'seen', closing: 'notTested', ...over })
  it('counts for the neighbours, explains nothing, and gives way to what it was', async () => {
    const { gas } = (await down('A4')).others
    await act('A1', { act: 'down' })
    const fromMs = server.clock.nowMs
    await lead.post('/down/explained', seen('A1', { symptom: 'porosity', stopFromMs: fromMs }))
    expect((await down('A4')).others).toMatchObject({ gas: gas + 1 })
    expect((await now()).stops.find((s) => s.name === 'A1' && s.fromMs === fromMs)?.isExplained).toBe(false)
    expect((await down('A1')).turned).toEqual((await down('A4')).turned)
    const { body: log } = await lead.get<LogbookAnswer>('/logbook')
    expect(log.lines[0]).toMatchObject({ fact: { by: 'seen' }, names: { cause: 'pinholes in the weld' } })
    later(5)
    await lead.post('/down/explained', body('A1', { symptom: 'porosity', cause: 'gasFlow', stopFromMs: fromMs }))
    later(1)
    await lead.post('/down/explained', seen('A1', { symptom: 'porosity', stopFromMs: fromMs }))
    expect((await down('A1')).lastStops[0]).toMatchObject({ cause: 'gasFlow', isCertain: true })
    await act('A1', { act: 'running' })
  })
  it('has no cause, and is of a stop that stands', async () => {
    for (const over of [{ cause: 'gasFlow', stopFromMs: server.clock.nowMs }, { stopFromMs: null }])
      expect((await lead.post('/down/explained', seen('A1', over))).status).toBe(400)
  })
  it('a torch that hit something leaves the tool centre to be checked, until somebody says it is', async () => {
    await act('C1', { act: 'down' })
    await lead.post('/down/explained', seen('C1', { symptom: 'crash', stopFromMs: server.clock.nowMs }))
    const open = async () => (await gun('C1')).followUps.map((f) => f.task)
    expect(await open()).toContain('toolCentre')
    await act('C1', { act: 'running' })
    expect(await open()).toContain('toolCentre')
    later(1)
    await lead.post('/followup', { key: nextKey(), stationId: id('C1'), task: 'toolCentre' })
    expect(await open()).not.toContain('toolCentre')
  })
  it('a lead sees where the knowledge is poor, once there are enough stops to tell', async () => {
    expect((await now()).searches).toEqual([])
    for (const [cause, said] of [
      ['tipWorn', []],
      [
        'linerWorn',
        [
          { type: 'check', key: 'tipFace', outcome: 'well' },
          { type: 'fix', key: 'changed tip' },
        ],
      ],
      ['linerWorn', [{ type: 'check', key: 'tipFace', outcome: 'well' }]],
    ] as const) {
      await act('A2', { act: 'down' })
      const fromMs = server.clock.nowMs
      later(4)
      await act('A2', { act: 'running' })
      await lead.post('/down/explained', body('A2', { symptom: 'jerk', cause, said, stopFromMs: fromMs }))
      later(1)
    }
    expect((await now()).searches).toEqual([
      {
        ...{ key: 'jerk', says: 'wire jerks though the rolls turn evenly', n: 3, firstRight: 2 },
        inVain: [{ says: 'Look at the tip’s face', n: 2 }],
      },
    ])
  })
})
