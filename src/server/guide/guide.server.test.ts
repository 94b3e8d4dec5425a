import { describe, expect, it } from 'vitest'
import { UNTOLD_FAMILY } from '@core/rightparts/untold.ts'
import { GUIDE_KEYS, type GuideKey } from '@core/guide/keys.ts'
import { type Problem } from '@contract/common.ts'
import { type FloorAnswer } from '@contract/floor.ts'
import { type CautionsAnswer, type GuideAnswer } from '@contract/guide.ts'
import { type GunAnswer } from '@contract/gun.ts'
import { type LogbookAnswer } from '@contract/logbook.ts'
import { ALUMINIUM, openFitShop, type FitShop } from '@server/testing/fitshop.ts'
import { nextKey, type Client, type TestServer } from '@server/testing/testserver.ts'
import { serverForAll } from '@server/testing/serverforall.ts'

/** Guides, follow-ups, minutes and near misses, over a shop set up by hand. */
let server: TestServer
let lead: Client
let at: FitShop
const id = (name: string) => at.ids.get(name) ?? ''
const gun = async (name: string) => (await lead.get<GunAnswer>(`/gun/${id(name)}`)).body
const guide = async (name: string, key: GuideKey) =>
  (await lead.get<GuideAnswer>(`/guide?stationId=${id(name)}&guide=${key}`)).body
const done = (name: string, over: Record<string, unknown> = {}) =>
  lead.post<{ eventId: string }>('/guide/done', {
    key: nextKey(),
    stationId: id(name),
    guide: 'tip',
    did: 'changed',
    outReason: 'worn',
    minutes: null,
    overrun: null,
    ...over,
  })
const asked = async (name: string) => (await gun(name)).followUps.filter((f) => f.isAsked).map((f) => f.task)
const stateAt = async (name: string, position: string) =>
  (await gun(name)).positions.find((p) => p.position === position)?.state
const tape = async (name: string) => (await gun(name)).tape.map((l) => l.fact.kind)

serverForAll({ nowMs: Date.UTC(2026, 10, 23, 6) }, async (here) => {
  ;({ server, lead } = here)
  at = await openFitShop(lead, 'B1–B9')
})

describe('a guide', () => {
  it('is there for every piece of work on the gun, in its own parts, sizes and house rules', async () => {
    const tip = await guide('B1', 'tip')
    expect(tip).toMatchObject({ title: 'Contact tip', familyName: 'Kelp', put: { code: 'T9' }, canClean: true })
    const on = tip.steps.find((s) => s.key === 'tipOn')
    expect(on?.do).toContain('T9')
    expect(on).toMatchObject({ tight: 'a nip', byRule: 'D03', drawing: 'threadStart' })
    expect(on?.school).toContain('each joint its own')
    // Anti-spatter goes by cell: nobody told of any here.
    const here = GUIDE_KEYS.filter((key) => key !== 'antispatter')
    expect(tip.guides.map((g) => g.key)).toEqual(here)
    for (const key of here) expect((await guide('B1', key)).steps.length).toBeGreaterThan(1)
  })
  it('asks for isolation once, where the power goes off, and only tells it where hands are in the feeder', async () => {
    const { steps } = await guide('B1', 'rolls')
    const how = (key: string) => steps.find((s) => s.key === key)?.cautions.find((c) => c.hazard === 'isolate')?.how
    expect(['isolate', 'rollsOff', 'rollsOn'].map(how)).toEqual(['ask', 'tell', 'tell'])
  })
  it('isolation and what closes something cannot be skipped; air can', async () => {
    const { steps } = await guide('B1', 'liner')
    const can = (key: string) => steps.find((s) => s.key === key)?.canSkip
    expect(['isolate', 'screwOut', 'diffuserOn', 'trim', 'push'].map(can)).toEqual([false, false, false, false, false])
    expect(can('air')).toBe(true)
  })
  it('reads otherwise under another school, and says which holds', async () => {
    await lead.post('/houserule', { key: nextKey(), code: 'D01', scopeType: 'site', scopeKey: '*', option: 'never' })
    await lead.post('/houserule', { key: nextKey(), code: 'D11', scopeType: 'site', scopeKey: '*', option: 'unplug' })
    const { steps } = await guide('B1', 'liner')
    expect(steps.map((s) => s.key)).not.toContain('air')
    expect(steps[0]).toMatchObject({ do: 'Power off and unplugged.', byRule: 'D11' })
    await lead.post('/houserule', {
      key: nextKey(),
      code: 'D01',
      scopeType: 'site',
      scopeKey: '*',
      option: 'emptyTube',
    })
  })
  it('is there for a family that hangs nowhere, and told in inches where the shop has them', async () => {
    const tarn = { ...UNTOLD_FAMILY, linerRule: 'B', pushBackMm: 3, doesTipSeatLiner: true, nozzleStyle: 'threaded' }
    await lead.post('/shop/family', { key: nextKey(), name: 'Alder', fit: tarn })
    const family = (await lead.get<{ families: { id: string; name: string }[] }>('/shop')).body.families
    const alder = family.find((f) => f.name === 'Alder')?.id ?? ''
    const { body } = await lead.get<GuideAnswer>(`/guide?familyId=${alder}&guide=liner`)
    expect(body).toMatchObject({ stationId: null, name: 'Alder' })
    expect(body.steps.find((s) => s.key === 'trim')?.look).toContain('pushed back 3 mm, it is level')
    await lead.post('/shop/site', { key: nextKey(), name: 'Shop', zone: 'UTC', units: 'us', currency: 'EUR' })
    const inches = (await lead.get<GuideAnswer>(`/guide?familyId=${alder}&guide=liner`)).body
    expect(inches.steps.find((s) => s.key === 'trim')?.look).toContain('pushed back 1/8 in, it is level')
    await lead.post('/shop/site', { key: nextKey(), name: 'Shop', zone: 'UTC', units: 'metric', currency: 'EUR' })
    expect(await lead.get('/guide?familyId=fam_none&guide=tip')).toMatchObject({ status: 404 })
  })
  it('carries the shop’s own words at a step, a feeder type’s before a family’s before those for all, until they are taken back', async () => {
    const kelp = at.shop.families.find((f) => f.name === 'Kelp')?.id ?? ''
    const say = (familyId: string, words: string, isInstead = false) =>
      lead.post('/guide/note', { key: nextKey(), guide: 'tip', step: 'tipOn', familyId, words, isInstead })
    await say('*', 'like a jar lid', true)
    await say(kelp, 'two fingers on the short spanner')
    const own = async () => (await guide('B1', 'tip')).steps.find((s) => s.key === 'tipOn')?.own
    expect(await own()).toMatchObject({ words: 'two fingers on the short spanner', isInstead: false, by: 'Lead' })
    const feeder = at.shop.feederTypes[0]?.id ?? ''
    await say(feeder, 'here the arm is on the left')
    expect(await own()).toMatchObject({ words: 'here the arm is on the left' })
    await say(feeder, '')
    await say(kelp, '')
    expect(await own()).toMatchObject({ words: 'like a jar lid', isInstead: true })
    await say('*', '')
    expect(await own()).toBeNull()
  })
  it('says the site’s own words of a caution wherever it stands', async () => {
    await lead.post('/guide/caution', {
      key: nextKey(),
      hazard: 'hot',
      words: 'Yard rule 4: gloves on for anything in front.',
    })
    const hot = async () =>
      (await guide('B1', 'tip')).steps.find((s) => s.key === 'nozzleOff')?.cautions.map((c) => c.words)
    expect(await hot()).toEqual(['Yard rule 4: gloves on for anything in front.'])
    await lead.post('/guide/caution', { key: nextKey(), hazard: 'hot', words: '' })
    expect((await hot())?.[0]).toContain('Nozzle and tip stay hot')
  })
})

describe('work done by a guide', () => {
  it('is one act: the part, its minutes, what it settled; taken back it never was', async () => {
    const { body } = await done('B2', { minutes: 4 })
    expect(await tape('B2')).toEqual(['fitted'])
    expect((await guide('B2', 'tip')).minutes).toMatchObject({ n: 1 })
    await lead.post('/logbook/undo', { key: nextKey(), eventIds: [body.eventId] })
    expect((await guide('B2', 'tip')).minutes).toMatchObject({ n: 0 })
    expect(await tape('B2')).toEqual([])
  })
  it('of a nozzle may be a cleaning, of a wire a new spool, of a machine only that it was done', async () => {
    await done('B2', { guide: 'nozzle', did: 'cleaned' })
    await done('B2', { guide: 'wire', did: 'changed', settled: ['tension'] })
    const seen = async () => (await gun('B2')).positions.map((p) => [p.position, p.seenMs])
    const before = await seen()
    await done('B2', { guide: 'machine', did: 'done' })
    expect((await tape('B2')).sort()).toEqual(['cleaned', 'taskDone', 'wireLoaded'])
    // Nobody looked at a part because a machine was started.
    expect(await seen()).toEqual(before)
    await done('B2', { guide: 'cylinder', did: 'done' })
    expect(await seen()).not.toEqual(before)
    expect(await asked('B2')).toEqual([])
  })
  it('sent twice is done once', async () => {
    const key = nextKey()
    const twice = await Promise.all([done('B3', { key }), done('B3', { key })])
    expect(twice[0].body.eventId).toBe(twice[1].body.eventId)
    expect(await tape('B3')).toEqual(['fitted'])
  })
  it('teaches minutes by family: four jobs weigh as much as the guess, and Floor plans by them', async () => {
    const before = (await guide('B4', 'rolls')).minutes
    expect(before).toMatchObject({ n: 0, others: 0 })
    for (let i = 0; i < 4; i++) {
      server.clock.nowMs += 60_000
      await done('B4', { guide: 'rolls', minutes: 12, overrun: i === 0 ? 'partMissing' : null })
    }
    const after = (await guide('B4', 'rolls')).minutes
    expect(after?.n).toBe(4)
    expect(after?.median).toBeGreaterThan((before?.median ?? 0) * 1.2)
    await lead.post('/shop/rule', {
      key: nextKey(),
      kindKey: 'rolls',
      classKey: '*',
      changeLimit: 1,
      cleanLimit: null,
      lookDays: null,
    })
    await lead.post('/clock/usage', { key: nextKey(), stationId: id('B4'), day: '2026-11-22', kg: 40 })
    const { guns } = (await lead.get<FloorAnswer>('/floor')).body
    const want = guns.find((g) => g.stationId === id('B4'))?.wants.find((w) => w.position === 'rolls')
    if (want) expect(want.minutes).toBeCloseTo(after?.median ?? 0, 0)
    expect((await lead.get<Problem>(`/guide?stationId=${id('B4')}&guide=song`)).status).toBe(400)
  })
  it('of a change of wire, the ratio of worked to planned', async () => {
    const ask = `/changeover?stationIds=${id('B5')}&wireId=${at.wire(ALUMINIUM)}`
    const planned = (await lead.get<{ guns: { cost: { minutes: number } }[] }>(ask)).body.guns[0]?.cost.minutes ?? 0
    const body = { stationIds: [id('B5')], wireId: at.wire(ALUMINIUM), isScrapped: false, stillTied: [], skipped: [] }
    await lead.post('/changeover', { key: nextKey(), ...body, minutes: planned * 2 })
    const other = (await lead.get<{ guns: { cost: Record<string, number> }[] }>(ask.replace(id('B5'), id('B6')))).body
      .guns[0]?.cost
    expect(other).toMatchObject({ learntFrom: 1 })
    expect((other?.['minutes'] ?? 0) / planned).toBeGreaterThan(1)
    expect((other?.['minutes'] ?? 0) / planned).toBeLessThan(2)
  })
})

describe('what follows', () => {
  it('stands on the gun and on Floor at once, until it is said', async () => {
    await lead.post('/logbook', {
      key: nextKey(),
      acts: [{ stationId: id('B7'), act: 'changed', position: 'rolls', outReason: 'worn' }],
    })
    expect((await gun('B7')).followUps.map((f) => [f.task, f.why, f.isAsked])).toEqual([
      ['tension', 'rolls changed', true],
      ['outlet', 'rolls changed', true],
    ])
    expect(await stateAt('B7', 'outlet')).toBe('look')
    expect((await lead.get<FloorAnswer>('/floor')).body.followUps).toBeGreaterThanOrEqual(2)
    server.clock.nowMs += 60_000
    await lead.post('/followup', { key: nextKey(), stationId: id('B7'), task: 'tension' })
    await lead.post('/logbook', { key: nextKey(), acts: [{ stationId: id('B7'), act: 'seen', position: 'outlet' }] })
    expect(await asked('B7')).toEqual([])
  })
  it('goes with a correction: the rolls were another gun’s', async () => {
    const { body } = await lead.post<{ logged: { eventId: string }[] }>('/logbook', {
      key: nextKey(),
      acts: [{ stationId: id('B8'), act: 'changed', position: 'rolls', outReason: 'worn' }],
    })
    expect(await asked('B8')).toEqual(['tension', 'outlet'])
    await lead.post('/logbook/correct', { key: nextKey(), eventId: body.logged[0]?.eventId, stationId: id('B9') })
    expect(await asked('B8')).toEqual([])
    expect(await asked('B9')).toEqual(['tension', 'outlet'])
  })
  it('is not asked for at a parked gun', async () => {
    await lead.post('/logbook', { key: nextKey(), acts: [{ stationId: id('B9'), act: 'parked' }] })
    expect(await asked('B9')).toEqual([])
  })
})

describe('a near miss', () => {
  it('is two taps, a line of the log, and counted by place for the lead; no name stands anywhere', async () => {
    await lead.post('/guide/nearmiss', { key: nextKey(), stationId: id('B1'), hazard: 'spring' })
    server.clock.nowMs += 60_000
    await lead.post('/guide/nearmiss', { key: nextKey(), stationId: id('B2'), hazard: 'other' })
    const { body } = await lead.get<CautionsAnswer>('/guide/cautions')
    expect(body.other).toBe(1)
    expect(body.cautions.find((c) => c.hazard === 'spring')).toMatchObject({ nearMisses: 1, places: ['B1'] })
    expect(JSON.stringify(body)).not.toContain('Lead')
    const { lines } = (await lead.get<LogbookAnswer>('/logbook')).body
    expect(
      lines
        .filter((l) => l.fact.kind === 'nearMiss')
        .map((l) => [l.fact.kind === 'nearMiss' ? l.fact.hazard : null, l.who]),
    ).toEqual([
      ['other', null],
      ['spring', null],
    ])
  })
})
