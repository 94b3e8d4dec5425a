import { NO_ID } from '@core/ids/id.ts'
import { describe, expect, it } from 'vitest'
import { type Problem } from '@contract/common.ts'
import { type ChangeAnswer, type GunChange, type DayAnswer, type DedicateAnswer } from '@contract/changeover.ts'
import { type GunAnswer } from '@contract/gun.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import { type SpareGun } from '@contract/spareguns.ts'
import { hungOne } from '@server/gunnow/hung.ts'
import { setupOf } from '@server/gunnow/setup.ts'
import { loadShop } from '@server/shopmodel/model.ts'
import { ALUMINIUM, CORED, lookOf, openFitShop, STEEL, type FitShop } from '@server/testing/fitshop.ts'
import { contentOf } from '@server/testing/powercut.ts'
import { nextKey, type Client, type TestServer } from '@server/testing/testserver.ts'
import { serverForAll } from '@server/testing/serverforall.ts'

let server: TestServer
let lead: Client
let at: FitShop
const id = (name: string) => at.ids.get(name) ?? NO_ID
const gun = async (name: string) => (await lead.get<GunAnswer>(`/gun/${id(name)}`)).body
const plan = async (names: readonly string[], wire: string) =>
  (await lead.get<ChangeAnswer>(`/changeover?stationIds=${names.map(id).join(',')}&wireId=${at.wire(wire)}`)).body
const change = (names: readonly string[], wire: string, over: Record<string, unknown> = {}) =>
  lead.post<{ eventIds: string[] }>('/changeover', {
    key: nextKey(),
    stationIds: names.map(id),
    wireId: at.wire(wire),
    isScrapped: false,
    stillTied: [],
    skipped: [],
    ...over,
  })
const setup = async (name: string) => {
  const { db, shops } = server.parts.deps
  const shop = await loadShop(db, shops, server.clock.nowMs)
  return setupOf(await hungOne(db, shop, id(name)), shop)
}
const codes = async (name: string) =>
  Object.fromEntries(Object.entries((await setup(name)).parts).map(([kind, part]) => [kind, part?.code ?? null]))

serverForAll({ nowMs: Date.UTC(2026, 10, 23, 12) }, async (here) => {
  ;({ server, lead } = here)
  at = await openFitShop(lead, 'B1–B9')
  const right = [
    ['polarity', 'gun positive'],
    ['machineWire', '0.9'],
    ['machineMode', 'short circuit'],
    ['machineMaterial', 'steel'],
    ['gas', 'argon mix'],
    ['unwind', 'over the top'],
  ].map(([name = '', value = '']) => ({ name, value }))
  for (const name of at.ids.keys()) await lead.post('/rightparts/look', lookOf(at, name, { settings: right }))
  await lead.post('/shop/class', {
    key: nextKey(),
    classKey: 'booth',
    labourMinorPerHour: 4000,
    stopMinorPerHour: 2000,
  })
})

describe('steel to aluminium', () => {
  it('is planned with parts, order, minutes and money', async () => {
    const { guns, parts, minutes } = await plan(['B1'], ALUMINIUM)
    expect(guns[0]?.swaps.map((s) => [s.from?.code, s.to?.code])).toEqual([
      ['RV0910', 'RU12'],
      ['LS10', 'LP12'],
      ['T9', 'T12A'],
    ])
    expect(guns[0]).toMatchObject({ outletGuide: 'out', left: [] })
    expect(parts.map((p) => [p.code, p.wanted, p.onHand])).toEqual([
      ['LP12', 1, 5],
      ['RU12', 1, 5],
      ['T12A', 1, 5],
    ])
    expect(guns[0]?.steps.map((s) => s.key)).toContain('screwOut')
    expect(guns[0]?.cost.standMinor).toBeCloseTo(minutes * 100, 6)
  })
  it('is logged as one act: parts, settings, spool and reminders', async () => {
    await change(['B1'], ALUMINIUM, { stillTied: ['brakeTight'], minutes: 31 })
    expect(await codes('B1')).toMatchObject({ rolls: 'RU12', liner: 'LP12', tip: 'T12A', outlet: null })
    const g = await gun('B1')
    expect(g).toMatchObject({ wireName: ALUMINIUM })
    expect(g.findings.filter((f) => f.severity !== 'note' && f.rule !== 'gasMode').map((f) => f.rule)).toEqual([])
    expect(Object.fromEntries(g.tags.map((t) => [t.tag, t.parts.map((p) => p.code)]))).toEqual({
      brakeTight: [],
      guideOut: ['GO'],
      partsKept: ['RV0910', 'LS10'],
    })
    expect(g.tape.map((l) => l.fact.kind).sort()).toContain('changedOver')
    expect(g.tape.some((l) => l.fact.kind === 'setting' && l.happenedMs === server.clock.nowMs)).toBe(false)
  })
  it('taken back is as if it had never been', async () => {
    const before = await setup('B2')
    const { body } = await change(['B2'], ALUMINIUM)
    expect(await codes('B2')).toMatchObject({ tip: 'T12A' })
    server.clock.nowMs += 1000
    expect((await lead.post('/logbook/undo', { key: nextKey(), eventIds: body.eventIds })).status).toBe(200)
    expect(await setup('B2')).toEqual(before)
    expect((await gun('B2')).tags).toEqual([])
  })
  it('there and back again is the same set-up, with the parts that were put by', async () => {
    const before = await setup('B3')
    await change(['B3'], ALUMINIUM)
    server.clock.nowMs += 60_000
    await change(['B3'], STEEL)
    const after = await setup('B3')
    expect({ ...after, settings: { ...after.settings, gas: before.settings.gas } }).toEqual(before)
    expect((await gun('B3')).tags).toMatchObject([{ tag: 'partsKept', parts: [{ code: 'RU12' }, { code: 'LP12' }] }])
    expect((await gun('B3')).tape.filter((l) => l.fact.kind === 'changedOver').length).toBe(2)
  })
  it('wire that is binned is not told to be wound back, whatever the rule of the house', async () => {
    const wireOut = async (isScrapped: string) => {
      const query = `stationIds=${id('B9')}&wireId=${at.wire(ALUMINIUM)}&isScrapped=${isScrapped}`
      const { steps } = (await lead.get<ChangeAnswer>(`/changeover?${query}`)).body.guns[0] as GunChange
      return steps.find((s) => s.key === 'wireOut')
    }
    expect(await wireOut('yes')).toMatchObject({ do: expect.stringContaining('bin it') as string, byRule: null })
    expect((await wireOut('no'))?.do).toContain('Wind the wire back')
  })
  it('done by hands that read no roll, it writes no number on one that nobody had read', async () => {
    server.clock.nowMs += 60_000
    const acts = [{ stationId: id('B8'), act: 'changed', position: 'rolls' }]
    await lead.post('/logbook', { key: nextKey(), acts })
    server.clock.nowMs += 60_000
    expect((await plan(['B8'], STEEL)).guns[0]?.unread?.rolls).toEqual([1, 2, 3, 4])
    await change(['B8'], STEEL, { isUnread: true })
    expect((await setup('B8')).settings.roll1).toBeUndefined()
  })
  it('a swap that was skipped is not logged, and shows as wrong', async () => {
    await change(['B4'], ALUMINIUM, { skipped: ['liner'] })
    expect(await codes('B4')).toMatchObject({ liner: 'LS10' })
    expect((await gun('B4')).findings.map((f) => f.rule)).toContain('linerKind')
  })
})

describe('a change', () => {
  it('sent twice, also at once, is one', async () => {
    const body = {
      key: nextKey(),
      stationIds: [id('B5')],
      wireId: at.wire(CORED),
      isScrapped: true,
      stillTied: [],
      skipped: [],
    }
    const both = await Promise.all([lead.post('/changeover', body), lead.post('/changeover', body)])
    expect(both.map((b) => b.status)).toEqual([200, 200])
    const content = await contentOf(server)
    await lead.post('/changeover', body)
    expect(await contentOf(server)).toEqual(content)
    expect((await gun('B5')).tape.filter((l) => l.fact.kind === 'changedOver').length).toBe(1)
    expect((await setup('B5')).settings.polarity).toBe('gun negative')
  })
  it('of many guns is all or none, with one list to fetch', async () => {
    const { parts } = await plan(['B6', 'B7', 'B8'], 'steel 1.0')
    expect(parts.map((p) => [p.code, p.wanted])).toEqual([['T10', 3]])
    await change(['B6', 'B7', 'B8'], 'steel 1.0')
    for (const name of ['B6', 'B7', 'B8']) expect(await codes(name)).toMatchObject({ tip: 'T10', rolls: 'RV0910' })
    const before = await contentOf(server)
    expect((await change(['B6'], 'none')).status).toBe(400)
    expect(
      (
        await lead.post('/changeover', {
          key: nextKey(),
          stationIds: [id('B6'), 'stn_none'],
          wireId: at.wire(STEEL),
          isScrapped: false,
          stillTied: [],
          skipped: [],
        })
      ).status,
    ).toBe(404)
    expect(await contentOf(server)).toEqual(before)
  })
  it('for which the shop has no rolls is refused in words, and nothing is saved', async () => {
    await lead.post('/shop/wire', {
      key: nextKey(),
      name: 'thick 1.6',
      construction: 'solid',
      size: '1.6',
      densityGPerCm3: 7.85,
      spoolKg: 15,
    })
    const { wires } = (await lead.get<ShopAnswer>('/shop')).body
    const wireId = wires.find((w) => w.name === 'thick 1.6')?.id ?? ''
    const before = await contentOf(server)
    const answer = await change(['B9'], 'none', { wireId })
    expect(answer.status).toBe(422)
    expect((answer.body as unknown as Problem).message).toContain('the shop has no drive rolls, no')
    expect(await contentOf(server)).toEqual(before)
  })
  it('goes by the shop’s schools', async () => {
    const keys = async () => (await plan(['B9'], ALUMINIUM)).guns[0]?.steps.map((s) => s.key) ?? []
    expect(await keys()).not.toContain('lockLast')
    await lead.post('/houserule', { key: nextKey(), code: 'D14', scopeType: 'site', scopeKey: '*', option: 'last' })
    await lead.post('/houserule', { key: nextKey(), code: 'D24', scopeType: 'site', scopeKey: '*', option: 'unscrew' })
    const feederType = at.shop.feederTypes[0]?.id ?? ''
    await lead.post('/houserule', {
      key: nextKey(),
      code: 'D12',
      scopeType: 'feederType',
      scopeKey: feederType,
      option: 'shut',
    })
    const after = await keys()
    expect(after).toEqual(expect.arrayContaining(['lockLast', 'gasShut', 'closeGas']))
    // A set screw that is known to be there is a gate, not a school.
    expect(after).toContain('screwOut')
  })
})

describe('a day grouped by wire', () => {
  const lines = (rows: [string, string, string][]) => ({
    lines: rows.map(([booth, period, wire]) => ({ booth, period, wireId: at.wire(wire) })),
  })
  it('does the same work with fewer changes', async () => {
    const day = await lead.post<DayAnswer>(
      '/changeover/day',
      lines([
        ['B6', 'one', 'steel 1.0'],
        ['B9', 'one', STEEL],
        ['B6', 'two', STEEL],
        ['B9', 'two', 'steel 1.0'],
      ]),
    )
    expect(day.body.entered.changes).toBe(2)
    expect(day.body.grouped).toMatchObject({ changes: 0, minutes: 0, minor: 0 })
    expect(day.body.isExact).toBe(true)
    expect(day.body.entered.minutes).toBeGreaterThan(10)
  })
  it('names lines it cannot read', async () => {
    const bad = await lead.post<Problem>('/changeover/day', lines([['Z9', 'one', STEEL]]))
    expect(bad).toMatchObject({ status: 400, body: { details: ['Line 1: there is no place "Z9".'] } })
  })
})

describe('a gun kept for one wire', () => {
  it('is judged by the changes there were', async () => {
    const ask = (gunMinor: number) =>
      lead.get<DedicateAnswer>(`/changeover/dedicate?stationId=${id('B3')}&gunMinor=${gunMinor}&gunYears=1`)
    const cheap = (await ask(0)).body
    expect(cheap).toMatchObject({ changes: 1, says: 'pays' })
    expect(cheap.costPerChangeMinor).toBeGreaterThan(1000)
    expect((await ask(1e8)).body.says).toBe('does not pay')
  })
})

describe('swapping the gun', () => {
  const spares = async (name: string) =>
    (await lead.get<{ guns: SpareGun[] }>(`/gun/spares?stationId=${id(name)}`)).body.guns
  it('hangs a ready one, and the old one waits to be put right with its own parts', async () => {
    const family = at.shop.families.find((f) => f.name === 'Kelp')?.id
    await lead.post('/gun/spare', { key: nextKey(), name: '31', familyId: family, cableM: 3 })
    const [spare] = await spares('B9')
    expect(spare).toMatchObject({ name: '31', status: 'ready', here: { is: 'toMakeRight' } })
    server.clock.nowMs += 1000
    const old = (await gun('B9')).gunName
    const body = { key: nextKey(), stationId: id('B9'), gunId: spare?.gunId, oldGun: 'toRefurbish' }
    await lead.post('/gun/swap', body)
    expect(await gun('B9')).toMatchObject({ gunName: '31', cableM: 3, familyName: 'Kelp' })
    expect(await spares('B9')).toMatchObject([{ name: old, status: 'toRefurbish', familyName: 'Kelp', cableM: 4 }])
    const before = await contentOf(server)
    await lead.post('/gun/swap', body)
    expect(await contentOf(server)).toEqual(before)
  })
  it('refuses a gun that hangs, and tells one that does not seat', async () => {
    const hanging = (await gun('B1')).gunId
    const body = { key: nextKey(), stationId: id('B9'), gunId: hanging, oldGun: 'ready' }
    expect(await lead.post<Problem>('/gun/swap', body)).toMatchObject({ status: 400 })
    const reed = at.shop.families.find((f) => f.name === 'Reed')?.id
    await lead.post('/gun/spare', { key: nextKey(), name: '32', familyId: reed, cableM: 3 })
    expect((await spares('B9')).find((g) => g.name === '32')?.here?.is).toBe('never')
  })
  it('two who take the same gun at once: one gets it', async () => {
    await lead.post('/gun/spare', { key: nextKey(), name: '33', familyId: null, cableM: null })
    server.clock.nowMs += 1000
    const gunId = (await spares('B1')).find((g) => g.name === '33')?.gunId
    const take = (name: string) =>
      lead.post('/gun/swap', { key: nextKey(), stationId: id(name), gunId, oldGun: 'ready' })
    const both = await Promise.all([take('B1'), take('B2')])
    expect(both.map((b) => b.status).sort()).toEqual([200, 400])
  })
  it('a loose gun is put right with one tap', async () => {
    const [first] = (await spares('B1')).filter((g) => g.status === 'toRefurbish')
    server.clock.nowMs += 1000
    await lead.post('/gun/status', { key: nextKey(), gunId: first?.gunId, status: 'ready' })
    expect((await spares('B1')).find((g) => g.gunId === first?.gunId)?.status).toBe('ready')
  })
})
