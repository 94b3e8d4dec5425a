import { describe, expect, it } from 'vitest'
import { and, eq } from 'drizzle-orm'
import { type Problem } from '@contract/common.ts'
import { type FloorAnswer } from '@contract/floor.ts'
import { type GunAnswer } from '@contract/gun.ts'
import { type LogAnswer } from '@contract/logbook.ts'
import { type FindingLine, type JointsAnswer, type LookAnswer } from '@contract/rightparts.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import { life, stockNow } from '@server/db/schema.ts'
import { lookOf, openFitShop, type FitShop } from '@server/testing/fitshop.ts'
import { contentOf } from '@server/testing/powercut.ts'
import { nextKey, statementsOf, type Client, type TestServer } from '@server/testing/testserver.ts'
import { serverForAll } from '@server/testing/serverforall.ts'

let server: TestServer
let lead: Client
let at: FitShop
const id = (name: string) => at.ids.get(name) ?? ''
const gun = async (name: string) => (await lead.get<GunAnswer>(`/gun/${id(name)}`)).body
const rules = async (name: string) => (await gun(name)).findings.filter((f) => !f.kept).map((f) => f.rule)
const state = async (name: string, position: string) =>
  (await gun(name)).positions.find((p) => p.position === position)?.state
const look = (name: string, but: Parameters<typeof lookOf>[2] = {}) =>
  lead.post<{ findings: FindingLine[] }>('/rightparts/look', lookOf(at, name, but))
const stockOf = async (code: string) =>
  (
    await server.parts.deps.db
      .select()
      .from(stockNow)
      .where(eq(stockNow.partId, at.part(code)))
  )[0]?.onHand

serverForAll({ nowMs: Date.UTC(2026, 10, 23, 12) }, async (here) => {
  ;({ server, lead } = here)
  at = await openFitShop(lead, 'A1–A9')
})

describe('first look', () => {
  it('knows nothing before it, and accuses nobody', async () => {
    const { guns } = (await lead.get<LookAnswer>('/rightparts/look')).body
    expect(guns.every((g) => g.findings.length === 0 && g.lookedMs === null)).toBe(true)
    expect(guns[0]).toMatchObject({ name: 'A1', bayReadMm: 0.9, rollCount: 4 })
    expect((await lead.get<FloorAnswer>('/floor')).body).toMatchObject({ wrongGuns: 0, checkedGuns: 0 })
  })
  it('as the bay: right', async () => expect((await look('A1')).body.findings).toEqual([]))
  it('with a tip for another wire: wrong on Floor and gun, with the one to put on and its count', async () => {
    const said = await look('A2', { parts: { tip: at.part('T12') } })
    expect(said.body.findings).toMatchObject([
      { rule: 'tipLarge', severity: 'stops', at: 'tip', put: { code: 'T9', onHand: 5 } },
    ])
    const floor = (await lead.get<FloorAnswer>('/floor')).body
    expect(floor).toMatchObject({ wrongGuns: 1, checkedGuns: 2 })
    expect(floor.guns.find((g) => g.name === 'A2')).toMatchObject({
      rank: 0,
      minutes: 2,
      wrong: [{ rule: 'tipLarge' }],
    })
    expect(await state('A2', 'tip')).toBe('wrong')
    expect((await gun('A2')).chain.find((l) => l.link === 'tip')?.is).toBe('wrong')
  })
  it('a roll that reads the other size is turned, not bought; set right it is gone', async () => {
    await look('A3', { settings: [{ name: 'roll2', value: '1.0' }] })
    const [finding] = (await gun('A3')).findings
    expect(finding).toMatchObject({ rule: 'rollTurned', remedy: { do: 'turn', rolls: [2] }, put: null })
    expect(finding?.set).toEqual([{ name: 'roll2', value: '0.9' }])
    await lead.post('/rightparts/set', { key: nextKey(), stationId: id('A3'), how: 'set', settings: finding?.set })
    expect(await rules('A3')).toEqual([])
  })
  it('is a fact of its own: it ends no life of the same part, and one of another part at a time nobody knows', async () => {
    await lead.post('/logbook', { key: nextKey(), acts: [{ stationId: id('A4'), act: 'changed', position: 'tip' }] })
    server.clock.nowMs += 60_000
    await look('A4')
    const fitted = (await gun('A4')).positions.find((p) => p.position === 'tip')
    expect(fitted).toMatchObject({ partCode: 'T9', entryAge: 'new' })
    server.clock.nowMs += 60_000
    await look('A4', { parts: { tip: at.part('T10') } })
    expect((await gun('A4')).positions.find((p) => p.position === 'tip')).toMatchObject({
      partCode: 'T10',
      entryAge: 'unknown',
    })
    const ended = await server.parts.deps.db
      .select()
      .from(life)
      .where(and(eq(life.position, 'tip'), eq(life.partId, at.part('T9'))))
    expect(ended).toMatchObject([{ parts: 0, outReason: 'notSaid' }])
  })
  it('done twice under one key is done once', async () => {
    const body = lookOf(at, 'A5')
    await lead.post('/rightparts/look', body)
    const before = await contentOf(server)
    await lead.post('/rightparts/look', body)
    expect(await contentOf(server)).toEqual(before)
  })
})

describe('what a look refuses, with nothing saved', () => {
  it.each([
    ['a number no wire has', { settings: [{ name: 'roll1', value: '3.3' }] }, 'Roll: "3.3" is no wire size'],
    ['a length that is none', { settings: [{ name: 'tipOut', value: 'far' }] }, '"far" is no length in mm'],
  ])('%s', async (_, but, words) => {
    const before = await contentOf(server)
    const answer = await lead.post<Problem>('/rightparts/look', lookOf(at, 'A6', but))
    expect([answer.status, answer.body.message]).toEqual([400, expect.stringContaining(words)])
    expect(await contentOf(server)).toEqual(before)
  })
  it('a part of another kind', async () => {
    const answer = await lead.post<Problem>('/rightparts/look', lookOf(at, 'A6', { parts: { tip: at.part('NZ') } }))
    expect(answer).toMatchObject({ status: 400, body: { message: 'That part is no tip.' } })
  })
})

describe('a change that is logged', () => {
  it('with a wrong part is taken all the same, and shown', async () => {
    const acts = [{ stationId: id('A1'), act: 'changed', position: 'diffuser', partId: at.part('DF') }]
    expect((await lead.post('/logbook', { key: nextKey(), acts })).status).toBe(200)
    const wrong = [{ stationId: id('A1'), act: 'changed', position: 'tip', partId: at.part('T12') }]
    expect((await lead.post('/logbook', { key: nextKey(), acts: wrong })).status).toBe(200)
    expect(await rules('A1')).toEqual(['tipLarge'])
  })
  it('without saying which part takes the one that fits, never a wrong one', async () => {
    const acts = [{ stationId: id('A1'), act: 'changed', position: 'tip' }]
    await lead.post('/logbook', { key: nextKey(), acts })
    expect((await gun('A1')).positions.find((p) => p.position === 'tip')?.partCode).toBe('T9')
    expect(await rules('A1')).toEqual([])
  })
})

describe('the lead’s decision', () => {
  it('takes a finding off the floor as long as the same thing is on', async () => {
    const kept = { key: nextKey(), stationId: id('A2'), rule: 'tipLarge', at: 'tip', isKept: true, note: 'a try' }
    await lead.post('/rightparts/keep', kept)
    expect((await gun('A2')).findings[0]?.kept).toMatchObject({ note: 'a try', by: 'Lead' })
    expect(await state('A2', 'tip')).not.toBe('wrong')
    await look('A2', { parts: { tip: at.part('T10') } })
    expect(await rules('A2')).toEqual(['tipLarge'])
    server.clock.nowMs += 60_000
    await look('A2', { parts: { tip: at.part('T12') } })
    expect(await rules('A2')).toEqual([])
    await lead.post('/rightparts/keep', { ...kept, key: nextKey(), isKept: false })
    expect(await rules('A2')).toEqual(['tipLarge'])
  })
  it('needs something to be found', async () => {
    const body = { key: nextKey(), stationId: id('A1'), rule: 'polarity', at: 'off', isKept: true }
    expect((await lead.post('/rightparts/keep', body)).status).toBe(404)
  })
})

describe('a part handed out for a gun', () => {
  const ask = (name: string, code: string) => ({ key: nextKey(), stationId: id(name), partId: at.part(code) })
  it('that does not fit is refused with the reason, and stays on the shelf', async () => {
    const before = await contentOf(server)
    const answer = await lead.post<Problem>('/parts/issue', ask('A5', 'T12'))
    expect(answer).toMatchObject({ status: 422, body: { code: 'wrong-part' } })
    expect(answer.body.details[0]).toContain('The tip is for 1.2 mm, the wire is 0.9 mm.')
    expect(await contentOf(server)).toEqual(before)
  })
  it('that fits leaves the shelf once, though it is put on later', async () => {
    const before = (await stockOf('T9')) ?? 0
    expect((await lead.post('/parts/issue', ask('A5', 'T9'))).body).toMatchObject({ onHand: before - 1 })
    server.clock.nowMs += 60_000
    const acts = [{ stationId: id('A5'), act: 'changed', position: 'tip', partId: at.part('T9') }]
    await lead.post('/logbook', { key: nextKey(), acts })
    expect(await stockOf('T9')).toBe(before - 1)
    server.clock.nowMs += 60_000
    const statements = await statementsOf(server, () => lead.post('/logbook', { key: nextKey(), acts }))
    expect(await stockOf('T9')).toBe(before - 2)
    // A tip put on, its wait is one round trip each: more than these is a tap that got slower.
    expect(statements).toBeGreaterThan(10)
    expect(statements).toBeLessThanOrEqual(35)
  })
  it('for a place the gun does not have is refused', async () => {
    await lead.post('/shop/station', { key: nextKey(), stationId: id('A9'), absent: ['liner'] })
    expect((await lead.post<Problem>('/parts/issue', ask('A9', 'LS10'))).body.message).toContain('no liner on this gun')
  })
})

describe('reminders', () => {
  it('hang on the path until one tap says it is back', async () => {
    const tag = (isBack: boolean) =>
      lead.post('/rightparts/tag', { key: nextKey(), stationId: id('A6'), tag: 'brakeTight', isBack })
    await tag(false)
    expect((await gun('A6')).tags).toMatchObject([{ tag: 'brakeTight' }])
    expect(await state('A6', 'hub')).toBe('look')
    expect((await lead.get<FloorAnswer>('/floor')).body.tags).toBe(1)
    server.clock.nowMs += 60_000
    await tag(true)
    expect((await gun('A6')).tags).toEqual([])
  })
})

describe('joints', () => {
  const trouble = (fault: string, thread: string | null = null) =>
    lead.post('/rightparts/joint', { key: nextKey(), stationId: id('A7'), joint: 'tip', fault, thread })
  it('are counted both ways, and a step is advised when it is clear', async () => {
    for (let i = 0; i < 26; i++) await trouble('cameLoose')
    await trouble('seized')
    const { joints } = (await lead.get<JointsAnswer>('/rightparts/joints')).body
    expect(joints).toMatchObject([
      {
        joint: 'tip',
        step: 2,
        slack: 26,
        tight: 1,
        advise: 'one tighter',
        to: 3,
        places: [{ name: 'A7', faults: 27 }],
      },
    ])
  })
  it('are counted anew from the day the step is changed', async () => {
    server.clock.nowMs += 60_000
    const family = (await lead.get<ShopAnswer>('/shop')).body.families.find((f) => f.name === 'Kelp')
    const fit = { ...family?.fit, tightness: { tip: { step: 3, sinceMs: 0 } } }
    await lead.post('/shop/family', { key: nextKey(), id: family?.id, name: 'Kelp', fit })
    expect((await lead.get<JointsAnswer>('/rightparts/joints')).body.joints).toEqual([])
  })
  it('scrapped threads take the tip and what it screws into', async () => {
    await look('A7')
    server.clock.nowMs += 60_000
    await trouble('crossThreaded', 'scrapped')
    const { positions } = await gun('A7')
    for (const position of ['tip', 'diffuser'])
      expect(positions.find((p) => p.position === position)?.partCode).toBeNull()
  })
})

describe('the set-up', () => {
  it('refuses a part of a family that is not there', async () => {
    const body = { key: nextKey(), code: 'X1', name: 'x', kindKey: 'tip', familyId: 'fam_none' }
    expect(await lead.post<Problem>('/shop/part', body)).toMatchObject({
      status: 404,
      body: { message: 'X1: there is no such fit family.' },
    })
  })
  it('takes optional parts only when they are said', async () => {
    expect((await gun('A8')).positions.some((p) => p.position === 'jump')).toBe(false)
    await lead.post('/shop/station', { key: nextKey(), stationId: id('A8'), extra: ['jump'] })
    expect((await gun('A8')).positions.some((p) => p.position === 'jump')).toBe(true)
  })
  it('undo of a wrong part takes its finding along', async () => {
    const { logged } = (
      await lead.post<LogAnswer>('/logbook', {
        key: nextKey(),
        acts: [{ stationId: id('A8'), act: 'changed', position: 'tip', partId: at.part('T12') }],
      })
    ).body
    expect(await rules('A8')).toEqual(['tipLarge'])
    await lead.post('/logbook/undo', { key: nextKey(), eventIds: logged.map((l) => l.eventId) })
    expect(await rules('A8')).toEqual([])
  })
})
