import { NO_ID, type StationId } from '@core/ids/id.ts'
import { afterEach, describe, expect, it } from 'vitest'
import { eq, inArray } from 'drizzle-orm'
import { usualLife } from '@core/life/kaplanmeier.ts'
import { isWornOut } from '@core/path/columns.ts'
import { type FloorAnswer } from '@contract/floor.ts'
import { type CellsAnswer } from '@contract/cell.ts'
import { type CautionsAnswer } from '@contract/guide.ts'
import { type DragAnswer } from '@contract/drag.ts'
import { type HelpAnswer, type PaybackAnswer } from '@contract/payback.ts'
import { type ReadingAnswer } from '@contract/reading.ts'
import { explain } from '@core/drag/explain.ts'
import { READING } from '@core/reading/specs.ts'
import { watchSeries } from '@core/trend/series.ts'
import { type LifeAnswer } from '@contract/life.ts'
import { type LinerAnswer, type StuckAnswer } from '@contract/liner.ts'
import { type GunAnswer } from '@contract/gun.ts'
import { type JointsAnswer } from '@contract/rightparts.ts'
import { type CalendarAnswer, type ClassesAnswer, type TeachAnswer } from '@contract/classes.ts'
import { type PracticeAnswer, type SkillAnswer } from '@contract/practice.ts'
import { type SpareGun } from '@contract/spareguns.ts'
import { carrier, ledgerEvent, life, meta, mount, stationNow, station } from '@server/db/schema.ts'
import { rebuild } from '@server/projection/rebuild.ts'
import { Client, startTestServer, type TestServer } from '@server/testing/testserver.ts'
import { YARD_MS } from '@server/testing/worlds.ts'
import { forgetHalfDemo, HALF, isEmpty, isOldDemo } from './demo.ts'
import { DOUBTFUL, MISBUILT } from './fityard.ts'
import { type LateAnswer, type StockAnswer } from '@contract/stock.ts'
import { CELL_TIP, CUPBOARD } from './buyingstories.ts'
import { DEMO_LEAD, HUNGRY, PARTS, PLATED, STORIES } from './yard.ts'

/** The demo is built on whatever day it is installed: its stories must be there on any of them, so each run draws one more. */
const DAYS = [
  ['a working morning', YARD_MS],
  ['the day drawn for this run', Number(process.env['TEST_DRAWN_MS'] ?? YARD_MS)],
] as const

/** Told from eighteen months of lives, whatever the day: fitted once. */
const FITTED = new Set([
  'A nozzle that outlasts the usual one',
  'Two guns that take more than their share of tips',
  'A tip rule that pays',
  'Liners pulled every Monday on eight guns',
])

let server: TestServer
let lead: Client
let ids: Map<string, StationId>
afterEach(() => server.close())

async function openYard(nowMs: number): Promise<void> {
  server = await startTestServer({ nowMs, isYard: true })
  lead = new Client(server.url)
  await lead.post('/people/sign-in', DEMO_LEAD)
  ids = new Map((await server.parts.deps.db.select().from(station)).map((s) => [s.name, s.id]))
}
const gun = async (name: string) => (await lead.get<GunAnswer>(`/gun/${ids.get(name) ?? ''}`)).body
const read = async (name: string) => (await lead.get<ReadingAnswer>(`/reading?stationId=${ids.get(name) ?? ''}`)).body
const floor = async () => (await lead.get<FloorAnswer>('/floor')).body

/** Tip lives that ended on the gun of a place, in arc hours. */
async function tipLives(name: string) {
  const { db } = server.parts.deps
  const [now] = await db
    .select()
    .from(stationNow)
    .where(eq(stationNow.stationId, ids.get(name) ?? NO_ID))
  const rows = await db
    .select()
    .from(life)
    .where(eq(life.carrierId, now?.gunId ?? NO_ID))
  return rows.filter((r) => r.position === 'tip' && r.arcHours !== null && r.arcHours > 0)
}
/** The same of all cells, on their guns and on the necks that went round. */
async function cellTipLives() {
  const { db } = server.parts.deps
  const necks = (await db.select().from(carrier)).filter((c) => c.type === 'neck').map((c) => c.id)
  const rows = await db.select().from(life).where(inArray(life.carrierId, necks))
  const onNecks = rows.filter((r) => r.position === 'tip' && r.arcHours !== null && r.arcHours > 0)
  return [...(await Promise.all(['Cell 1', 'Cell 2', 'Cell 3'].map(tipLives))).flat(), ...onNecks]
}
async function tipMedian(names: readonly string[]): Promise<number> {
  const lives = (await Promise.all(names.map(tipLives))).flat()
  const usual = usualLife({
    time: lives.map((l) => l.arcHours ?? 0),
    event: lives.map((l) => (isWornOut(l.outReason) ? 1 : 0)),
  })
  if (!usual.ok) throw new Error(`too few lives on ${names.join(', ')}`)
  return usual.median
}
const named = (from: number, to: number, letter: string) =>
  Array.from({ length: to - from + 1 }, (_, i) => `${letter}${from + i}`)

const byPlace = (a: { where: string }, b: { where: string }) => (a.where < b.where ? -1 : 1)

const lifeOf = async (query: string) => (await lead.get<LifeAnswer>(`/life?${query}`)).body
const CHECKS: Record<string, () => Promise<void>> = {
  'A cheap tip that runs out while its order is late': async () => {
    const { parts, orders } = (await lead.get<StockAnswer>('/parts')).body
    const dearest = [...parts].sort((a, b) => (b.advice?.weekWithoutMinor ?? 0) - (a.advice?.weekWithoutMinor ?? 0))[0]
    expect(dearest).toMatchObject({ code: CELL_TIP, stands: ['Cell 1', 'Cell 2', 'Cell 3'] })
    expect(dearest?.advice?.eachMinor).toBeLessThan(100)
    expect(dearest?.advice?.bridge?.supplierName).toBe('Skerry counter')
    expect(orders.filter((o) => o.isLate).flatMap((o) => o.lines.map((l) => l.code))).toContain(CELL_TIP)
    const { late } = (await lead.get<LateAnswer>('/parts/late')).body
    expect(late.map((l) => l.code)).toEqual([CELL_TIP])
    expect(dearest?.lies.map((l) => l.storeId === null)).toEqual([true, false])
  },
  'A cupboard at the cells that does not last until it is filled again': async () => {
    const { stores } = (await lead.get<StockAnswer>('/parts')).body
    expect(stores).toMatchObject([{ name: CUPBOARD }])
    const tips = stores[0]?.fill.find((f) => f.code === CELL_TIP)
    expect(tips?.level).toBeGreaterThan(tips?.onHand ?? 0)
    expect(tips?.carry).toBeGreaterThan(0)
    expect(tips?.carry).toBeLessThanOrEqual(tips?.main ?? 0)
  },
  'A look-alike liner that somebody says fits': async () => {
    const { parts } = (await lead.get<StockAnswer>('/parts')).body
    const liner = parts.find((p) => p.code === 'KE-L10')
    expect(liner?.offers.filter((o) => !o.isSure)).toMatchObject([{ supplierName: 'Millrace copies' }])
    expect(liner?.advice?.supplierName).not.toBe('Millrace copies')
  },
  'A nozzle that outlasts the usual one': async () => {
    const { compared } = await lifeOf('kind=nozzle&where=class:booth&by=part')
    const plated = compared.find((c) => c.second.includes('plated'))
    expect(plated).toMatchObject({ verdict: 'longer', movedWith: [] })
    expect(plated?.low).toBeGreaterThan(2)
    expect(plated?.low).toBeLessThan(PLATED.longer)
    expect(plated?.high).toBeGreaterThan(PLATED.longer)
  },
  'Two guns that take more than their share of tips': async () => {
    const { hungry } = await lifeOf('kind=tip&where=class:booth')
    expect(
      hungry
        .filter((h) => h.verdict === 'hungry')
        .map((h) => h.name)
        .sort(),
    ).toEqual(Object.keys(HUNGRY))
    expect(hungry.find((h) => h.name === 'B3')?.readings).toContain('tension')
    for (const where of ['class:training', 'class:cell'])
      expect((await lifeOf(`kind=tip&where=${where}`)).hungry).toEqual([])
  },
  'A tip rule that pays': async () => {
    const { money } = await lifeOf('kind=tip&where=class:booth')
    const best = money?.lines.find((l) => l.school === 'leastCost')
    expect(money?.advised).toBe('leastCost')
    expect(best?.saving.low).toBeGreaterThan(0)
  },
  'A gun that wears tips twice as fast as its neighbours': async () => {
    const ratio = (await tipMedian(['A7'])) / (await tipMedian(named(1, 6, 'A')))
    expect(ratio).toBeGreaterThan(0.35)
    expect(ratio).toBeLessThan(0.65)
  },
  'A liner cut by two measurements, remembered': async () => {
    const liner = (await lead.get<LinerAnswer>(`/liner?stationId=${ids.get('A2') ?? ''}`)).body
    expect(liner.last).toMatchObject({ by: 'A', leftMm: 18 })
    expect(liner.autopsies[0]).toMatchObject({ found: ['bunched'], isCertain: false })
  },
  'Two liners stuck at one place of a cable, one kinked': async () => {
    const stationId = ids.get('B6') ?? ''
    const key = 'demo-test-third-liner'
    const said = await lead.post<StuckAnswer>('/liner/stuck', { key, stationId, atMm: 1440, isKinked: false })
    expect(said.body.is).toBe('cable')
    expect((await lead.get<LinerAnswer>(`/liner?stationId=${stationId}`)).body.spoiled.n).toBe(1)
  },
  'Liner jobs that took longer than the guess': async () => {
    const { minutes } = (await lead.get<LinerAnswer>(`/liner?stationId=${ids.get('A2') ?? ''}`)).body
    expect(minutes).toMatchObject({ n: 4 })
    expect(minutes.median).toBeGreaterThan(20)
  },
  'Spools let go, twice': async () => {
    const { cautions } = (await lead.get<CautionsAnswer>('/guide/cautions')).body
    expect(cautions.find((c) => c.hazard === 'spring')).toMatchObject({ nearMisses: 2, places: ['T2', 'T4'] })
  },
  'A knob that creeps under a dying liner': async () => {
    const before = server.clock.nowMs - 7 * 86_400_000
    const { readings } = await read('B3')
    const trend = readings.find((r) => r.what === 'tension')?.trend
    const known = (trend?.points ?? []).filter((p) => p.atMs < before)
    expect(known.length).toBeGreaterThanOrEqual(5)
    // With no more than what was read a week before it stopped, it was announced.
    const creep = watchSeries(known, { worse: 'up', limit: trend?.limit ?? null, sd: READING.tension.sd })
    expect(['creeps', 'over']).toContain(creep.is)
    expect((await floor()).creeping).toContainEqual({ name: 'B3', what: 'tension' })
  },
  'Liners pulled every Monday on eight guns': async () => {
    const { liner } = (await lead.get<LifeAnswer>('/life?kind=liner')).body
    const { of, ahead } = liner?.record?.byClause.pull ?? { of: 0, ahead: 0 }
    expect(of).toBeGreaterThan(15)
    expect(ahead / of).toBeGreaterThan(0.3)
  },
  'A knob that creeps, still within its window': async () => {
    const a8 = (await floor()).guns.find((g) => g.name === 'A8')
    expect(a8?.wants.find((w) => w.position === 'liner')?.signs).toMatchObject([{ clause: 'tension' }])
    const { readings } = await read('A8')
    const tension = readings.find((r) => r.what === 'tension')
    expect(tension).toMatchObject({ target: { by: 'window' }, trend: { is: 'creeps' } })
    const { crossing } = tension?.trend ?? {}
    expect(crossing?.earlyMs).toBeLessThan(crossing?.atMs ?? 0)
    expect(crossing?.lateMs ?? Infinity).toBeGreaterThan(crossing?.atMs ?? 0)
  },
  'A knob raised to keep going': async () => {
    const a3 = await gun('A3')
    expect(a3.tags).toMatchObject([{ tag: 'knobRaised', untilMs: expect.any(Number) as number }])
    expect(a3.followUps.map((f) => f.task)).toContain('linerCheck')
  },
  'A coiled cable': async () => {
    const { drag } = (await lead.get<DragAnswer>(`/drag?stationId=${ids.get('T2') ?? ''}`)).body
    expect(drag?.setup.values.coils).toBe(2)
    if (!drag) return
    const said = explain(drag.setup)
    expect(said.width).toBe('closed')
    expect(said.reopens[0]?.steps).toEqual(['uncoil'])
  },
  'A bore called round that measures oval': async () => {
    const { readings } = await read('B6')
    expect(readings.find((r) => r.what === 'bore')).toMatchObject({ last: { is: 'act' }, against: { is: 'good' } })
  },
  'Gas that somebody turned up': async () => {
    const { readings } = await read('A1')
    expect(readings.find((r) => r.what === 'gasFlow')?.changed).toMatchObject({ by: 8 })
  },
  'A hall where four in ten changes are never logged': async () => {
    const tip = PARTS.find((p) => p.position === 'tip')
    const truth = (tip?.scale ?? 0) * Math.log(2) ** (1 / (tip?.shape ?? 1))
    const forgetful = await tipMedian(named(3, 7, 'B'))
    expect(forgetful).toBeGreaterThan(1.25 * truth)
    // The careful hall reads long too, for tips that burned back count as still good; but less so.
    expect(forgetful / (await tipMedian(named(1, 6, 'A')))).toBeGreaterThan(1.15)
  },
  'Cells that began to change tips by rule ten weeks ago': async () => {
    const since = server.clock.nowMs - 60 * 86_400_000
    const lives = await cellTipLives()
    const byRule = lives.filter((l) => l.fromMs > since && l.outReason === 'due').map((l) => l.arcHours ?? 0)
    expect(byRule.length).toBeGreaterThan(10)
    const before = lives.filter((l) => l.toMs < since - 20 * 86_400_000 && l.outReason === 'due')
    expect(before.length).toBe(0)
    const sorted = byRule.sort((a, b) => a - b)
    expect(sorted[sorted.length >> 1]).toBeGreaterThan(7)
    expect(sorted[sorted.length >> 1]).toBeLessThan(11)
  },
  'The same rule, asked on Payback whether it helped': async () => {
    const { changes } = (await lead.get<PaybackAnswer>('/payback?days=90')).body
    const rule = changes.find((c) => c.rule?.change.of === 'houseRule' && c.rule.change.kindKey === 'tip')
    expect(rule?.classKey).toBe('cell')
    const asked = `/payback/helped?atMs=${rule?.happenedMs}&classKey=cell&column=tip`
    const { is, p, before, after, elsewhere } = (await lead.get<HelpAnswer>(asked)).body
    // Most tips of a cell burn back, which no limit spares: seldom more than chance, and never worse.
    expect(is).not.toBe('more')
    expect(is === 'fewer').toBe(p < 0.05)
    expect(before.stops + after.stops).toBeGreaterThan(20)
    expect(elsewhere).not.toBeNull()
  },
  'Apprentices who pull the machine by the gun': async () => {
    const { ofGroups, groups } = (await lead.get<TeachAnswer>('/classes/teach')).body
    const nameOf = (id: string) => groups.find((g) => g.id === id)?.name
    expect(ofGroups.filter((g) => g.isBeyond).map((g) => `${nameOf(g.group)} ${g.item}`)).toEqual(['Sedge gunHome'])
    const { occurrences } = (await lead.get<CalendarAnswer>('/calendar?days=14')).body
    const reed = occurrences.find((o) => o.name === 'Reed' && o.fromMs > server.clock.nowMs - 5 * 86_400_000)
    const of = (await lead.get<ClassesAnswer>(`/classes?entryId=${reed?.entryId}&day=${reed?.day}`)).body
    expect(of.lessons[0]).toMatchObject({ item: 'clamp', says: 'helped' })
  },
  'Apprentices who do not find a gun half out': async () => {
    const { skills } = (await lead.get<SkillAnswer>('/practice/skill')).body
    expect(skills[0]).toMatchObject({ groupName: 'Sedge', fault: 'gunOut' })
    const { sets } = (await lead.get<PracticeAnswer>('/practice')).body
    expect(sets.map((s) => [s.name, s.groupName, s.scenarios.length])).toEqual([['Half out', 'Sedge', 3]])
  },
  'A gun standing since this morning with the liner suspected': async () => {
    const first = (await floor()).guns.find((g) => g.rank === 0)
    expect(first).toMatchObject({ name: 'B3', downPosition: 'liner', downMinutes: 25 })
  },
  'A booth nobody uses': async () => {
    const t5 = (await floor()).guns.find((g) => g.name === 'T5')
    expect(t5).toMatchObject({ isParked: true, rank: null })
  },
  'A gun hung from one booth to the next': async () => {
    const { db } = server.parts.deps
    const [now] = await db
      .select()
      .from(stationNow)
      .where(eq(stationNow.stationId, ids.get('A10') ?? NO_ID))
    const links = await db
      .select()
      .from(mount)
      .where(eq(mount.childId, now?.gunId ?? NO_ID))
    expect(links.length).toBe(2)
    expect((await gun('A10')).gunName).toBe('gun A9')
    const liner = (await gun('A10')).positions.find((p) => p.position === 'liner')
    expect(liner?.used).toBeGreaterThan(0)
  },
  'A tip booked on the wrong gun and moved': async () => {
    const line = (await gun('A6')).tape.find((l) => l.note === 'booked on the wrong gun')
    expect(line).toMatchObject({ position: 'tip', standing: 'changed' })
  },
  'A bench without any usage for weeks': async () => {
    const r2 = await gun('R2')
    const limited = r2.positions.filter((p) => p.change ?? p.clean)
    expect(limited.length).toBeGreaterThan(0)
    for (const p of limited) expect(['notSeen', 'due']).toContain(p.state)
    expect(r2.positions.every((p) => p.state !== 'good')).toBe(true)
  },
  'Guns built wrong': async () => {
    const { guns, wrongGuns, checkedGuns } = await floor()
    const wrong = guns.flatMap((g) => g.wrong.map((f) => ({ where: g.name, rule: f.rule })))
    expect(wrong.sort(byPlace)).toEqual(MISBUILT.map(({ where, rule }) => ({ where, rule })).sort(byPlace))
    expect([wrongGuns, checkedGuns]).toEqual([MISBUILT.length, guns.length])
    for (const g of guns) {
      const doubted = (await gun(g.name)).findings.filter((f) => f.severity === 'harms')
      expect(doubted.map((f) => ({ where: g.name, rule: f.rule }))).toEqual(
        DOUBTFUL.filter((d) => d.where === g.name).map(({ where, rule }) => ({ where, rule })),
      )
    }
  },
  'Tips of one family that seize': async () => {
    const { joints } = (await lead.get<JointsAnswer>('/rightparts/joints')).body
    expect(joints).toMatchObject([{ familyName: 'Kelp', joint: 'tip', advise: 'stay', why: 'least', to: null }])
  },
  'Necks that go round at the cells': async () => {
    const { rounds, cells, bench } = (await lead.get<CellsAnswer>('/cells')).body
    expect(cells.every((c) => c.goesRound && c.neckName !== null)).toBe(true)
    expect(bench.filter((b) => b.type === 'neck')).toHaveLength(2)
    const [round] = rounds
    expect(round).toMatchObject({ familyName: 'Tarn', robots: 3, spares: 2, priceMinor: 21_900 })
    expect(round?.lifeH.by).toBe('yours')
    expect(round?.lifeH.n).toBeGreaterThan(5)
    expect(round?.mendH.n).toBeGreaterThan(4)
    expect(round?.mendH.mean).toBeGreaterThan(8)
    expect(round?.mendH.mean).toBeLessThan(60)
  },
  'A liner that dies while nobody looks': async () => {
    const watched = (await floor()).guns.flatMap((g) => g.found.filter((f) => f.isWatched).map((f) => [g.name, f.at]))
    expect(watched).toContainEqual(['Cell 1', 'liner'])
    expect(watched.every(([, where]) => where === 'liner' || where === 'tip')).toBe(true)
  },
  'A cutter that bends the wire’s end': async () => {
    const { cells } = (await lead.get<CellsAnswer>('/cells')).body
    expect(cells.map((c) => [c.name, c.reamer.fails !== null])).toEqual([
      ['Cell 1', false],
      ['Cell 2', true],
      ['Cell 3', false],
    ])
    expect((await gun('Cell 2')).alarms.find((a) => a.what === 'failedStarts')?.isWatched).toBe(true)
  },
  'Reamers and their sprayers': async () => {
    const { cells } = (await lead.get<CellsAnswer>('/cells')).body
    const every = cells.map((c) => c.reamer.reams?.every ?? 0)
    expect(every[0]).toBeGreaterThan(8)
    expect(every[1]).toBeLessThan(8)
    const [full, , dry] = cells.map((c) => c.reamer.tank?.now)
    expect(full?.litres).toBeGreaterThan(0.5)
    expect(dry?.litres).toBeLessThan(0.15)
    expect(cells.every((c) => (c.reamer.blade?.cycles ?? 0) > 5000)).toBe(true)
  },
  'A length of conduit that pulls harder': async () => {
    const { cells } = (await lead.get<CellsAnswer>('/cells')).body
    const rises = (name: string) =>
      (cells.find((c) => c.name === name)?.pulls ?? []).filter((p) => p.forceN > 1.5 * p.firstN).map((p) => p.piece)
    expect([rises('Cell 1'), rises('Cell 2'), rises('Cell 3')]).toEqual([[], [1], []])
  },
  'A torch that hit a clamp': async () => {
    const { cells } = (await lead.get<CellsAnswer>('/cells')).body
    const cell = cells.find((c) => c.name === 'Cell 3')
    expect(cell).toMatchObject({ centre: { offMm: 0.1 }, isDown: false })
    expect(cell?.todo.filter((t) => t.why === 'the torch hit something')).toEqual([])
  },
  'A brake left tight, and spare guns': async () => {
    const t2 = await gun('T2')
    expect(t2.tags.map((t) => t.tag)).toEqual(['brakeTight'])
    expect(t2.positions.find((p) => p.position === 'hub')?.state).toBe('look')
    const { guns } = (await lead.get<{ guns: SpareGun[] }>(`/gun/spares?stationId=${ids.get('A1') ?? ''}`)).body
    expect(guns.map((g) => [g.name, g.status, g.here?.is])).toEqual([
      ['spare K1', 'ready', 'right'],
      ['spare S1', 'ready', 'toMakeRight'],
      ['spare K2', 'toRefurbish', 'toMakeRight'],
    ])
  },
}

/** A shop's plain mix: few rows, most guns quiet, nothing in the future. */
async function looksLikeAShop(): Promise<void> {
  const { guns, notSeenGuns, quietChance } = await floor()
  const opened = guns.filter((g) => g.rank !== null).length
  expect(guns.length).toBeGreaterThanOrEqual(24)
  expect(opened).toBeGreaterThanOrEqual(2)
  expect(opened).toBeLessThan(guns.length / 2)
  expect(notSeenGuns).toBeLessThan(guns.length / 2)
  expect(quietChance).toBeGreaterThan(0)
  const ends = await server.parts.deps.db.select({ to: life.toMs }).from(life)
  expect(Math.max(...ends.map((e) => e.to))).toBeLessThanOrEqual(server.clock.nowMs)
}

describe('the demo built on', () => {
  it.each(DAYS)(
    '%s holds every story of its table, and its state is what its ledger says',
    { timeout: 300_000 },
    async (_, nowMs) => {
      await openYard(nowMs)
      await looksLikeAShop()
      expect(Object.keys(CHECKS).sort()).toEqual(STORIES.map((s) => s.story).sort())
      for (const [story, check] of Object.entries(CHECKS)) {
        if (FITTED.has(story) && nowMs !== DAYS[0][1]) continue
        await check().catch((cause: unknown) => {
          throw new Error(`not found: ${story}`, { cause })
        })
      }
      const rows = await rebuild(server.parts.deps, false)
      expect(Object.values(rows).reduce((a, b) => a + b, 0)).toBe(0)
      expect(server.faults).toEqual([])
      const { deps } = server.parts
      expect(await isOldDemo(deps)).toBe(false)
      await deps.db.update(meta).set({ value: '0' }).where(eq(meta.key, 'demo'))
      expect(await isOldDemo(deps)).toBe(true)
      // Cut short while it was built, all of it goes and it is built anew; whole, nothing of it does.
      expect(await forgetHalfDemo(deps)).toBe(false)
      expect(await isEmpty(deps)).toBe(false)
      await deps.db.update(meta).set({ value: HALF }).where(eq(meta.key, 'demo'))
      expect(await forgetHalfDemo(deps)).toBe(true)
      expect(await isEmpty(deps)).toBe(true)
      expect(await deps.db.$count(ledgerEvent)).toBe(0)
      expect(await deps.db.$count(meta, eq(meta.key, 'opened'))).toBe(0)
    },
  )
})
