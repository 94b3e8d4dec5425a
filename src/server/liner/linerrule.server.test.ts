import { describe, expect, it } from 'vitest'
import { type z } from 'zod'
import { type Problem } from '@contract/common.ts'
import { type DownAnswer } from '@contract/down.ts'
import { type FloorAnswer } from '@contract/floor.ts'
import { type GunAnswer } from '@contract/gun.ts'
import { type choicesAnswer } from '@contract/houserule.ts'
import { type LifeAnswer, type previewAnswer, type signsAnswer } from '@contract/life.ts'
import { type LogbookAnswer } from '@contract/logbook.ts'
import { USUAL_TERMS, type LinerTerms } from '@core/liner/clauses.ts'
import { lookOf, openFitShop, type FitShop } from '@server/testing/fitshop.ts'
import { contentOf, withPowerCut } from '@server/testing/powercut.ts'
import { nextKey, type Client, type TestServer } from '@server/testing/testserver.ts'
import { serverForAll } from '@server/testing/serverforall.ts'

const DAY_MS = 86_400_000
let server: TestServer
let lead: Client
let at: FitShop
const id = (name: string) => at.ids.get(name) ?? ''
const later = (ms: number) => (server.clock.nowMs += ms)
const act = (name: string, what: Record<string, unknown>) =>
  lead.post('/logbook', { key: nextKey(), acts: [{ stationId: id(name), ...what }] })
const newLiner = async (name: string) => {
  later(60_000)
  await act(name, { act: 'changed', position: 'liner', outReason: 'worn' })
  later(60_000)
}
const pull = async (name: string, loopedN: number) => {
  later(DAY_MS / 24)
  const from = { straightN: [8, 8, 8], loopedN: [loopedN, loopedN, loopedN], loops: 1 }
  const sent = await lead.post('/reading', {
    ...{ key: nextKey(), stationId: id(name), what: 'pull', method: 'pulls', how: 'measured', from },
  })
  expect(sent.status).toBe(200)
}
const liner = async (name: string) => {
  const { positions } = (await lead.get<GunAnswer>(`/gun/${id(name)}`)).body
  return positions.find((p) => p.position === 'liner')
}
const row = async (name: string) => {
  const floor = (await lead.get<FloorAnswer>('/floor')).body
  const gun = floor.guns.find((g) => g.name === name)
  return { isOpen: gun?.rank !== null, wants: (gun?.wants ?? []).filter((w) => w.position === 'liner') }
}
const choose = (option: string | null, terms?: LinerTerms) =>
  lead.post<Problem>('/houserule', {
    ...{ key: nextKey(), code: 'D06', scopeType: 'site', scopeKey: '*', option },
    ...(terms ? { terms } : {}),
  })
const explain = async (name: string, said: Record<string, string>[], over: Record<string, unknown> = {}) => {
  await act(name, { act: 'down', position: 'liner' })
  later(5 * 60_000)
  await act(name, { act: 'running' })
  const sent = await lead.post('/down/explained', {
    ...{ key: nextKey(), stationId: id(name), stopFromMs: null, symptom: 'jerk', touched: null, said },
    ...{ cause: null, isCertain: false, by: 'search', closing: 'still', scrapped: null },
    ...over,
  })
  expect(sent.status).toBe(200)
  later(60_000)
}

serverForAll({ nowMs: Date.UTC(2026, 10, 2, 6) }, async (here) => {
  ;({ server, lead } = here)
  at = await openFitShop(lead, 'B1–B6')
  for (const name of at.ids.keys()) await lead.post('/rightparts/look', lookOf(at, name))
})

describe('a liner by signs', () => {
  it('a pull above its own beginning opens the gun, with the number; a new liner begins anew', async () => {
    await newLiner('B1')
    await pull('B1', 14)
    expect((await liner('B1'))?.signs).toMatchObject({ say: 'nothing', signs: [] })
    await pull('B1', 26)
    const { isOpen, wants } = await row('B1')
    expect(isOpen).toBe(true)
    expect(wants).toMatchObject([{ act: 'change', signs: [{ clause: 'pull' }], leave: null }])
    expect(wants[0]?.signs[0]?.n).toBeGreaterThan(1.5)
    await newLiner('B1')
    expect((await liner('B1'))?.signs).toMatchObject({ say: 'nothing', signs: [], weak: [] })
    expect((await row('B1')).wants).toEqual([])
  })
  it('each clause is a switch, the ratio the shop’s own; what was chosen is a line of the Logbook with its terms', async () => {
    await newLiner('B2')
    await pull('B2', 14)
    await pull('B2', 26)
    expect((await liner('B2'))?.signs?.say).toBe('change')
    const off = { ...USUAL_TERMS, on: USUAL_TERMS.on.filter((c) => c !== 'pull') }
    expect((await choose('signs', off)).status).toBe(200)
    expect((await liner('B2'))?.signs?.signs).toEqual([])
    const { choices } = (await lead.get<z.infer<typeof choicesAnswer>>('/houserule')).body
    expect(choices.find((c) => c.code === 'D06')?.terms).toEqual(off)
    await choose('signs', { ...USUAL_TERMS, pullRatio: 4 })
    expect((await liner('B2'))?.signs?.signs).toEqual([])
    const log = (await lead.get<LogbookAnswer>('/logbook')).body
    const change = { of: 'school', code: 'D06', terms: { pullRatio: 4 } }
    expect(log.lines[0]?.fact).toMatchObject({ kind: 'shopChanged', change })
    await choose(null)
    expect((await liner('B2'))?.signs?.say).toBe('change')
  })
  it('a stop in which straightening cured it speaks, unless it was surely something else', async () => {
    await newLiner('B3')
    const said = [{ type: 'check', key: 'straighten', outcome: 'smooth' }]
    await explain('B3', said, { cause: 'cableCoiled', isCertain: true, closing: 'good' })
    expect((await liner('B3'))?.signs?.say).toBe('nothing')
    await explain('B3', said)
    expect((await liner('B3'))?.signs?.signs).toMatchObject([{ clause: 'straighten' }])
  })
  it('a gun carries its liner’s signs along to another place', async () => {
    const gunId = (await lead.get<GunAnswer>(`/gun/${id('B3')}`)).body.gunId ?? ''
    for (const name of ['K-1', 'K-2'])
      await lead.post('/gun/spare', { key: nextKey(), name, familyId: null, cableM: 3 })
    const { guns } = (await lead.get<{ guns: { gunId: string; name: string }[] }>(`/gun/spares?stationId=${id('B3')}`))
      .body
    const hang = async (name: string, gun: string | undefined) => {
      const sent = await lead.post('/gun/swap', { key: nextKey(), stationId: id(name), gunId: gun, oldGun: 'ready' })
      expect(sent.status).toBe(200)
      later(60_000)
    }
    await hang('B3', guns.find((g) => g.name === 'K-1')?.gunId)
    expect((await liner('B3'))?.signs?.say).not.toBe('change')
    await hang('B4', gunId)
    expect((await liner('B4'))?.signs?.signs).toMatchObject([{ clause: 'straighten' }])
  })
  it('terms belong to the rule by signs alone, and half a choice is none', async () => {
    expect((await choose('last', USUAL_TERMS)).body.message).toContain('Only the liner’s rule by signs has terms')
    const before = await contentOf(server)
    await withPowerCut(server, () => choose('signs', { ...USUAL_TERMS, tips: 3 }))
    expect(await contentOf(server)).toEqual(before)
  })
})

describe('in a search', () => {
  it('the rule, its terms and what speaks of the liner come along', async () => {
    await choose('afterTips')
    const down = (await lead.get<DownAnswer>(`/down?stationId=${id('B2')}`)).body
    expect(down.schools.liner).toBe('afterTips')
    expect(down.liner).toMatchObject({ terms: USUAL_TERMS, evidence: { kinkMs: null } })
    expect(down.liner.evidence.pull?.value).toBeGreaterThan(down.liner.evidence.pull?.baseline ?? 9)
    await choose(null)
  })
})

describe('the bench', () => {
  const change = async (name: string, old: Record<string, unknown>) => {
    later(DAY_MS)
    const day = new Date(server.clock.nowMs - DAY_MS).toISOString().slice(0, 10)
    await lead.post('/clock/usage', { key: nextKey(), stationId: id(name), day, kg: 12 })
    const done = await lead.post('/liner/done', {
      ...{ key: nextKey(), stationId: id(name), outReason: 'worn', minutes: null, overrun: null, cut: null },
      ...{ isBlown: false, settled: [], stillTied: [], old: { lengthMm: null, atMm: null, ...old } },
    })
    expect(done.status).toBe(200)
  }
  it('goes before the reason that was said where it was sure; where not, it is by choice', async () => {
    await newLiner('B6')
    const begunMs = server.clock.nowMs - 60_000
    await change('B6', { found: ['nothing'], isCertain: true })
    await change('B6', { found: ['worn'], isCertain: true })
    await change('B6', { found: ['kinked'], isCertain: false })
    const told = async (how: string) => {
      const { seen, strokes } = (await lead.get<LifeAnswer>(`/life?kind=liner${how}`)).body
      const ends = strokes.filter((s) => s.name === 'B6' && s.toMs !== null && s.fromMs >= begunMs).map((s) => s.end)
      return { benched: seen.benched, unsure: seen.unsure, ends: [...ends].sort() }
    }
    expect(await told('')).toMatchObject({ benched: 3, unsure: 1, ends: ['cut', 'worn', 'worn'] })
    expect((await told('&unsure=found')).ends).toEqual(['chance', 'cut', 'worn'])
    expect((await told('&unsure=open')).ends).toEqual(['cut', 'cut', 'worn'])
  })
})

describe('on Part life', () => {
  it('the rule by signs is told with what it would have seen, under any terms', async () => {
    const asked = await lead.get<z.infer<typeof signsAnswer>>('/life/signs?on=kink,pull&pullRatio=1.3&tips=3')
    expect(asked.status).toBe(200)
    expect(asked.body.signs.terms).toEqual({ on: ['kink', 'pull'], pullRatio: 1.3, tips: 3 })
    const life = (await lead.get<LifeAnswer>('/life?kind=liner')).body
    expect(life.liner).toMatchObject({ school: 'signs', terms: USUAL_TERMS })
    expect((await lead.get<LifeAnswer>('/life?kind=tip')).body.liner).toBeNull()
    expect((await lead.get<Problem>('/life/signs?on=colour')).status).toBe(400)
  })
  it('chosen there, Floor goes by it: on signs with its terms, by use, or not before it stops', async () => {
    const classKey = (await lead.get<GunAnswer>(`/gun/${id('B2')}`)).body.ruledBy.class
    const body = (over: Record<string, unknown>) => ({ key: nextKey(), kindKey: 'liner', classKey, at: 300, ...over })
    const moves = await lead.get<z.infer<typeof previewAnswer>>(
      `/life/preview?kind=liner&classKey=${classKey}&school=signs&on=,&at=300`,
    )
    expect(moves.body.closes).toContain('B2')
    expect((await row('B2')).isOpen).toBe(true)
    await lead.post('/life/rule', body({ school: 'signs', terms: { ...USUAL_TERMS, on: [] } }))
    expect((await liner('B2'))?.signs).toMatchObject({ say: 'nothing', signs: [] })
    await lead.post('/life/rule', body({ school: 'fixed' }))
    expect((await liner('B2'))?.signs).toBeNull()
    await lead.post('/life/rule', body({ school: 'runToFailure', at: null }))
    expect((await liner('B2'))?.signs).toMatchObject({ say: 'nothing' })
    expect((await lead.post('/life/rule', body({ kindKey: 'tip', school: 'signs' }))).status).toBe(400)
    const life = (await lead.get<LifeAnswer>(`/life?kind=liner&where=class:${classKey}`)).body
    expect(life.rule.school).toBe('runToFailure')
  })
})
