import { type Position, type KindKey, kindOfPosition, ridesOnNeck } from '@core/path/columns.ts'
import { DAY_MS, HOUR_MS, MIN_MS } from '@core/units/time.ts'
import { count, eq, inArray, sql } from 'drizzle-orm'
import { hash } from '@node-rs/argon2'
import {
  type AreaId,
  type CarrierId,
  type DeviceId,
  type FamilyId,
  type IdName,
  makeId,
  NO_ID,
  type PartId,
  type PersonId,
  type WireId,
} from '@core/ids/id.ts'
import { makeRandom, pick } from '@core/random/random.ts'
import { kgPerArcHour } from '@core/spools/wire.ts'
import { simulate, type SimEvent, type SimGun, type SimUsage } from '@core/simulator/simulator.ts'
import { type Fact } from '@core/ledger/event.ts'
import { type ShopChange } from '@core/ledger/shopchange.ts'
import { parseNameRange } from '@core/shop/range.ts'
import {
  area,
  carrier,
  device,
  fitFamily,
  houseRule,
  meta,
  part,
  person,
  shiftPattern,
  site,
  stationClass,
  usageSpan,
  wire,
} from '@server/db/schema.ts'
import { transact, type Tx } from '@server/db/db.ts'
import { takingOver } from '@server/db/carry.ts'
import { inTurn } from '@server/db/lease.ts'
import { type Deps } from '@server/call/context.ts'
import { rebuild } from '@server/projection/rebuild.ts'
import { rememberingMore, writeUnprojected, type SaidAct, type SaidLine, type Writing } from '@server/write/act.ts'
import { ensureArea, insertStations, type MadeStation } from '@server/shop/places.ts'
import { seedShop } from '@server/people/seed.ts'
import { shiftSpan } from '@server/time/calendar.ts'
import { addDays, dayOf, weekdayOf } from '@server/time/wall.ts'
import {
  AREAS,
  DEMO_LEAD,
  EXCEPTIONS,
  FAMILIES,
  FAMILY_PARTS,
  HUNGRY,
  PARTS,
  PLATED,
  PULLED,
  LET_GO,
  PEOPLE,
  RULES,
  WIRES,
  YARD,
  type AreaPlan,
} from './yard.ts'
import { insertPurchases, insertTins, shelfFacts } from './supply.ts'
import { type FollowUp } from '@core/followup/keys.ts'
import { plantStories } from './stories.ts'
import { insertFit, rightSettings, type FitIds } from './insertfit.ts'
import { AREA_FIT, CODES_BY_WIRE, FAMILY_FIT, OTHER_PARTS, partFitOf, PLACE_FIT, WIRE_FIT } from './fityard.ts'
import { NECK_POSITIONS, planRound, type Round } from './cellround.ts'
import { weeklyPulls } from './pullstories.ts'
import { whyOf } from './whystories.ts'

const SEED = 20_417
const HISTORY_DAYS = 540
export const DEMO_VERSION = '9'
/** Until its last story is planted. */
export const HALF = 'half built'

export async function isEmpty(deps: Deps): Promise<boolean> {
  const [rows] = await deps.db.select({ n: count() }).from(site)
  return (rows?.n ?? 0) === 0
}

/** A demo yard that another version of the program built: it lacks what was added since. */
export async function isOldDemo(deps: Deps): Promise<boolean> {
  const [built] = await deps.db.select().from(meta).where(eq(meta.key, 'demo'))
  return built !== undefined && built.value !== DEMO_VERSION
}

const LONGEST_MS = 60 * MIN_MS
/**
 * The demo where there is no shop yet, by one server at a time. One whose building was cut short is emptied first and built anew: no server listens before
 * it stands, so nobody has done anything in it.
 */
export async function demoWhereNone(deps: Deps, say: (text: string) => void): Promise<void> {
  await inTurn(deps.db, { name: 'demo', waitMs: LONGEST_MS }, async () => {
    if (await forgetHalfDemo(deps)) say('The demo yard was cut short while it was built; it is built anew.')
    if (!(await isEmpty(deps))) return
    say('Building the demo yard with 18 months of history (once, about a minute) …')
    await buildDemo(deps)
  })
}

/** What tells of the database and not of the shop. */
const OF_DATABASE: ReadonlySet<string> = new Set(['__drizzle_migrations', 'lease', 'meta'])
/** What stands beside it of the shop that was begun. */
const OF_SHOP = ['demo', 'opened']
/** Empties a demo whose building was cut short; answers whether there was one. */
export async function forgetHalfDemo(deps: Deps): Promise<boolean> {
  const [demo] = await deps.db.select().from(meta).where(eq(meta.key, 'demo'))
  if (demo?.value !== HALF) return false
  const [rows] = (await deps.db.execute(
    sql`select table_name as name from information_schema.tables where table_schema = database()`,
  )) as unknown as [{ name: string }[]]
  await transact(deps.db, async (tx) => {
    // The ledger lets nothing be taken away, but of a shop that never was one.
    await takingOver(tx, async () => {
      for (const { name } of rows)
        if (!OF_DATABASE.has(name)) await tx.execute(sql`delete from ${sql.identifier(name)}`)
    })
    await tx.delete(meta).where(inArray(meta.key, [...OF_SHOP]))
  })
  return true
}

/** The name of a shop that is somebody's own; null for a demo, or where there is none. */
export async function ownShop(deps: Deps): Promise<string | null> {
  const [demo] = await deps.db.select().from(meta).where(eq(meta.key, 'demo'))
  const [own] = await deps.db.select({ name: site.name }).from(site)
  return demo ? null : (own?.name ?? null)
}

export interface Made {
  station: MadeStation
  plan: AreaPlan
}
export interface Ids {
  wires: Map<string, WireId>
  families: Map<string, FamilyId>
  parts: Map<string, PartId>
  people: PersonId[]
  devices: Map<string, DeviceId>
  areas: Map<string, AreaId>
}
export type AllIds = Ids & FitIds

/** In lines. */
const ALL_OF_IT = 150_000
/** Builds the yard with 18 months of history that ends today: whole or not at all, then projected. */
export async function buildDemo(deps: Deps): Promise<void> {
  const random = makeRandom(SEED)
  const demoDeps: Deps = { ...deps, random }
  await transact(deps.db, (tx) =>
    writeUnprojected(tx, demoDeps, async (w) => {
      await seedShop(tx, { deps: demoDeps, ...YARD, units: 'metric' })
      const ids = await insertShop(tx, demoDeps)
      const made = await insertPlaces(w, ids)
      await insertHistory(w, { deps: demoDeps, made, ids })
      await tx.insert(meta).values([{ key: 'demo', value: HALF }])
    }),
  )
  await rebuild(demoDeps, true)
  await rememberingMore(demoDeps, ALL_OF_IT, () => plantStories(demoDeps))
  await deps.db.update(meta).set({ value: DEMO_VERSION }).where(eq(meta.key, 'demo'))
}

async function insertShop(tx: Tx, deps: Deps): Promise<AllIds> {
  const id = <N extends IdName>(name: N) => makeId(name, deps.now(), deps.random)
  const wires = WIRES.map((w) => ({ id: id('wire'), ...w, fit: WIRE_FIT[w.name] ?? null }))
  await tx.insert(wire).values(wires)
  const families = FAMILIES.map((name) => ({ id: id('family'), name, fit: FAMILY_FIT[name] ?? null }))
  await tx.insert(fitFamily).values(families)
  const sizes = [...new Set(WIRES.map((w) => w.diameterMm))]
  const parts = families.flatMap((family) =>
    FAMILY_PARTS.flatMap((p) =>
      (p.isSized ? sizes : [null]).map((size) => ({
        id: id('part'),
        code: `${family.name.slice(0, 2).toUpperCase()}-${p.stem}${size ? Math.round(size * 10) : ''}`,
        name: `${family.name} ${p.name}${size ? ` ${size.toFixed(1)}` : ''}`,
        kindKey: p.kind,
        familyId: family.id,
        wireSizeMm: size,
        priceMinor: p.cents,
        fit: partFitOf(p.kind, family.name, size),
      })),
    ),
  )
  const others = OTHER_PARTS.map((p) => ({
    id: id('part'),
    code: p.code,
    name: p.name,
    kindKey: p.kind,
    familyId: families.find((f) => f.name === p.family)?.id ?? null,
    wireSizeMm: p.sizeMm,
    priceMinor: p.cents,
    fit: p.fit,
  }))
  await tx.insert(part).values([...parts, ...others])
  const fit = await insertFit(tx, { id, wires })
  const people = PEOPLE.map((p) => ({ id: id('person'), ...p, passwordHash: null as string | null }))
  for (const p of people) if (p.name === DEMO_LEAD.name) p.passwordHash = await hash(DEMO_LEAD.password)
  await tx.insert(person).values(people)
  const rates: Record<string, [number, number, number]> = {
    booth: [3800, 5200, 3500],
    training: [3800, 1500, 400],
    cell: [4200, 14500, 9000],
    bench: [3800, 2600, 2500],
  }
  for (const [key, [labour, stop, scrap]] of Object.entries(rates))
    await tx
      .update(stationClass)
      .set({ labourMinorPerHour: labour, stopMinorPerHour: stop, scrapMinorPerPiece: scrap })
      .where(eq(stationClass.key, key))
  const lead = people[0]?.id ?? null
  await tx.insert(houseRule).values(
    RULES.map((r) => ({
      id: id('rule'),
      kindKey: r.kind,
      classKey: r.cls,
      changeLimit: r.change,
      cleanLimit: r.clean,
      lookDays: r.look,
      chosenById: lead,
      chosenMs: deps.now() - CELL_RULE_MS,
    })),
  )
  return {
    wires: new Map(wires.map((w) => [w.name, w.id])),
    families: new Map(families.map((f) => [f.name, f.id])),
    ...fit,
    parts: new Map([...parts, ...others].map((p) => [p.code, p.id])),
    people: people.filter((p) => p.role === 'hand').map((p) => p.id),
    devices: new Map(),
    areas: new Map(),
  }
}

async function insertPlaces(w: Writing, ids: AllIds): Promise<Made[]> {
  const { tx, deps } = w
  const made: Made[] = []
  const { kinds } = await w.shop()
  for (const plan of AREAS) {
    const areaId = await ensureArea(w, {
      name: plan.name,
      built: {
        wireId: ids.wires.get(plan.wire) ?? null,
        familyId: ids.families.get(plan.family) ?? null,
        cableM: plan.cableM,
        mode: plan.mode,
        wireSpeedMPerMin: plan.speed,
        rollCount: plan.rolls,
        parts: partsFor(plan.family, plan.wire, ids),
        feederTypeId: ids.feeders.get(AREA_FIT[plan.name]?.feeder ?? '') ?? null,
        procedureId: ids.procedures.get(AREA_FIT[plan.name]?.procedure ?? '') ?? null,
        gas: AREA_FIT[plan.name]?.gas ?? null,
      },
    })
    ids.areas.set(plan.name, areaId)
    await tx
      .update(area)
      .set({ walkOrder: made.length + 1 })
      .where(eq(area.id, areaId))
    await tx
      .insert(shiftPattern)
      .values(plan.shifts.map((s) => ({ id: makeId('pattern', deps.now(), deps.random), areaId, ...s })))
    const deviceId = makeId('device', deps.now(), deps.random)
    await tx
      .insert(device)
      .values({ id: deviceId, name: `${plan.name} tablet`, areaId, boundMs: deps.now() - HISTORY_DAYS * DAY_MS })
    ids.devices.set(plan.name, deviceId)
    const range = parseNameRange(plan.names)
    const names = range.ok ? range.names : []
    const rows = names.map((name, i) => ({
      name,
      areaId,
      placeWord: plan.placeWord,
      classKey: plan.classKey,
      walkMinutes: 1,
      walkOrder: made.length + i + 1,
      except: exceptOf(name, plan, ids),
    }))
    const mountedMs = deps.now() - (HISTORY_DAYS + 1) * DAY_MS
    const stations = await insertStations(w, { rows, kinds, mountedMs })
    made.push(...stations.map((station) => ({ station, plan })))
  }
  return made
}

function exceptOf(name: string, plan: AreaPlan, ids: AllIds) {
  const own = EXCEPTIONS[name]
  const fit = PLACE_FIT[name]
  if (!own) return {}
  return {
    ...(fit ? { procedureId: ids.procedures.get(fit.procedure) ?? null } : {}),
    ...(fit?.gas ? { gas: fit.gas } : {}),
    ...(fit?.mode ? { mode: fit.mode } : {}),
    ...(own.wire ? { wireId: ids.wires.get(own.wire) ?? null, parts: partsFor(plan.family, own.wire, ids) } : {}),
    ...(own.cableM ? { cableM: own.cableM } : {}),
  }
}

function partsFor(family: string, wireName: string, ids: Ids): Record<string, PartId> {
  const size = WIRES.find((w) => w.name === wireName)?.diameterMm ?? 1
  const stem = family.slice(0, 2).toUpperCase()
  const own = CODES_BY_WIRE[wireName] ?? {}
  const codes: [string, string][] = FAMILY_PARTS.filter((p) => !own[p.kind]).map((p) => [
    p.kind,
    `${stem}-${p.stem}${p.isSized ? Math.round(size * 10) : ''}`,
  ])
  return Object.fromEntries(
    [...codes, ...Object.entries(own)].flatMap(([kind, code]) => {
      const id = ids.parts.get(code)
      return id ? [[kind, id]] : []
    }),
  )
}

export const wireOf = (made: Made) =>
  WIRES.find((w) => w.name === (EXCEPTIONS[made.station.name]?.wire ?? made.plan.wire)) ?? WIRES[0]

function simGun(made: Made, nowMs: number): SimGun {
  const { plan, station } = made
  const firstDay = addDays(dayOf(YARD.zone, nowMs), -HISTORY_DAYS)
  const shifts = []
  for (let i = 0; i <= HISTORY_DAYS; i++) {
    const day = addDays(firstDay, i)
    for (const shift of plan.shifts) {
      const span = shiftSpan(YARD.zone, shift, day)
      const isOldBench = station.name === 'R2' && span.fromMs > nowMs - 30 * DAY_MS
      const isParked = station.name === 'T5' && span.toMs > nowMs - 12 * DAY_MS
      // Nothing may be logged on it after it went down, and on a Monday before dawn that was on Friday.
      const isStanding = station.name === 'B3' && span.toMs > nowMs - 3 * DAY_MS
      const isQuiet = isOldBench || isParked || isStanding
      if (shift.weekdays.includes(weekdayOf(day)) && span.toMs < nowMs && !isQuiet) shifts.push(span)
    }
  }
  const rule = plan.classKey === 'cell' ? { limit: 7, fromMs: nowMs - CELL_RULE_MS, kept: 0.9 } : undefined
  const parts = PARTS.map((p) => {
    if (p.position === 'tip' && rule) return { ...p, rule }
    return isPlated(made, p.position) ? { ...p, scale: p.scale * PLATED.longer } : p
  })
  return {
    key: station.name,
    shifts,
    busy: plan.busy,
    arcHoursPerShift: plan.arcHours,
    kgPerArcHour: kgPerArcHour(wireOf(made), plan.speed),
    spoolKg: wireOf(made).spoolKg,
    parts,
    cleans: [{ position: 'nozzle', everyArcHours: plan.classKey === 'cell' ? 5 : 3.6, logShare: plan.cleanShare }],
    logShare: plan.logShare,
    spoolLogShare: plan.spoolShare,
    lateShare: plan.lateShare,
    wear: HUNGRY[station.name] ?? 1,
  }
}

interface HistoryAt {
  deps: Deps
  made: Made[]
  ids: Ids
  /** Necks that go round at the cells. */
  round: Round
}

async function insertHistory(w: Writing, given: Omit<HistoryAt, 'round'>): Promise<void> {
  const { tx } = w
  const nowMs = given.deps.now()
  const byName = new Map(given.made.map((m) => [m.station.name, m]))
  const history = simulate(
    given.made.map((m) => simGun(m, nowMs)),
    SEED,
  )
  const round = await cellRound(tx, history.events, given)
  const at: HistoryAt = { ...given, round }
  const facts = history.events
    .filter((e) => e.isLogged && e.atMs < nowMs && !isLetGo(e, nowMs) && !round.isTaken(e))
    .flatMap((e) => eventDraft(e, byName.get(e.gun), at))
  const supply = trueSupply(history, byName, at)
  const told = [...firstFittings(at), ...firstSettings(at), ...facts, ...weeklyLooks(at), ...shelves(supply, at)]
  told.forEach(w.say)
  roundActs(at, byName).forEach(w.say)
  pulls(history.events, byName, at).forEach(w.say)
  await insertPurchases(tx, supply)
  await insertTins(tx, supply)
  const usage = history.usage.flatMap((u) => usageRow(u, byName.get(u.gun), at))
  for (let i = 0; i < usage.length; i += 2000) await tx.insert(usageSpan).values(usage.slice(i, i + 2000))
  w.say({
    ...said(at, null, { fact: { kind: 'shopChanged', change: CELL_RULE }, happenedMs: nowMs - CELL_RULE_MS }),
    kind: 'shop',
  })
}
const CELL_TIP_H = RULES.find((r) => r.kind === 'tip' && r.cls === 'cell')?.change ?? 8
const CELL_RULE: ShopChange = {
  ...{ of: 'houseRule', kindKey: 'tip', classKey: 'cell', changeAt: CELL_TIP_H },
  ...{ cleanAt: null, lookDays: null, school: null, lives: null },
}
/** So long ago the cells began to change tips by rule. */
const CELL_RULE_MS = 70 * DAY_MS

/** What nobody did in the last days on some guns. */
const isLetGo = ({ gun, atMs, act }: SimEvent, nowMs: number) =>
  act.kind === 'fitted' &&
  LET_GO.some((l) => l.place === gun && l.positions.includes(act.position) && nowMs - atMs < l.days * DAY_MS)

/** One line of the yard's past: somebody said it within the minute, three times in ten by name. */
function said(
  at: HistoryAt,
  made: Made | null,
  what: { fact: Fact; happenedMs: number; precision?: SaidLine['precision'] },
): SaidAct {
  return { kind: 'log', lines: [lineOf(at, made, what)] }
}
function lineOf(at: HistoryAt, made: Made | null, what: Parameters<typeof said>[2]): SaidLine {
  const { random } = at.deps
  return {
    ...{ fact: what.fact, happenedMs: what.happenedMs, precision: what.precision ?? 'exact' },
    loggedMs: what.happenedMs + Math.round(random() * 60_000),
    stationId: made?.station.stationId ?? null,
    personId: random() < 0.3 ? pick(random, at.ids.people) : null,
    deviceId: made ? (at.ids.devices.get(made.plan.name) ?? null) : null,
  }
}

const onHead = new Set(['rolls', 'outlet', 'inlet', 'hub'])
const onGun = ({ station }: Made, position: Position): CarrierId =>
  onHead.has(position) ? station.headId : position === 'gas' ? station.stationCarrierId : station.gunId
/** What a position rode on then: from some day on the front of a cell's gun rides on the neck that hung there. */
const carrierFor = (made: Made, position: Position, of: { round: Round; atMs: number }): CarrierId =>
  (ridesOnNeck(position) ? of.round.neckAt(made.station.name, of.atMs) : null) ?? onGun(made, position)

/** Cells whose necks go round, with two to spare, from a month ago on. */
async function cellRound(tx: Tx, events: readonly SimEvent[], at: Omit<HistoryAt, 'round'>): Promise<Round> {
  const cells = at.made.filter((m) => m.plan.classKey === 'cell')
  const [first] = cells
  const own = makeRandom(SEED + 2)
  const familyId = at.ids.families.get(first?.plan.family ?? '') ?? null
  const necks = Array.from({ length: cells.length + SPARE_NECKS }, (_, i) => ({
    ...{ id: makeId('carrier', at.deps.now(), at.deps.random), type: 'neck' as const, name: `N${i + 1}` },
    ...{ stationId: null, positions: [...NECK_POSITIONS], built: { familyId, cableM: null } },
  }))
  await tx.insert(carrier).values(necks)
  for (const { station } of cells) {
    const [gun] = await tx.select().from(carrier).where(eq(carrier.id, station.gunId))
    const positions = (gun?.positions ?? []).filter((p) => !ridesOnNeck(p))
    await tx.update(carrier).set({ positions }).where(eq(carrier.id, station.gunId))
  }
  return planRound({
    cells: cells.map((m) => m.station),
    neckIds: necks.map((n) => n.id),
    ...{ events, nowMs: at.deps.now(), random: own },
    partOf: (position) => (first ? partFor(first, position, at.ids) : null),
  })
}
const SPARE_NECKS = 2

/** What was said of the round, each act at its cell or on the bench. */
const roundActs = (at: HistoryAt, byName: ReadonlyMap<string, Made>): SaidAct[] =>
  at.round.facts.map(({ atMs, cell, fact }) => ({
    kind: cell === null ? 'bench' : 'neck',
    lines: [lineOf(at, cell === null ? null : (byName.get(cell) ?? null), { fact, happenedMs: atMs })],
  }))
const partFor = (made: Made, position: Position, ids: Ids) =>
  isPlated(made, position)
    ? (ids.parts.get(PLATED.code) ?? null)
    : (partsFor(made.plan.family, wireOf(made).name, ids)[position] ?? null)
const isPlated = (made: Made, position: Position) => position === 'nozzle' && PLATED.places.includes(made.station.name)

function eventDraft(e: SimEvent, made: Made | undefined, at: HistoryAt): SaidAct[] {
  if (!made) return []
  const say = (fact: Fact) => [said(at, made, { fact, happenedMs: e.atMs, precision: e.precision })]
  switch (e.act.kind) {
    case 'fitted':
      return withFollowUps(
        e,
        { made, at },
        say({
          kind: 'fitted',
          carrierId: carrierFor(made, e.act.position, { round: at.round, atMs: e.atMs }),
          position: e.act.position,
          partId: partFor(made, e.act.position, at.ids),
          outReason: e.act.reason,
          count: 1,
          entryAge: 'new',
        }),
      )
    case 'cleaned':
      return say({
        kind: 'cleaned',
        carrierId: carrierFor(made, e.act.position, { round: at.round, atMs: e.atMs }),
        position: e.act.position,
      })
    case 'wireLoaded':
      return withFollowUps(
        e,
        { made, at },
        say({
          kind: 'wireLoaded',
          carrierId: made.station.headId,
          wireId: at.ids.wires.get(wireOf(made).name) ?? null,
          labelKg: e.act.labelKg,
          leftKg: null,
        }),
      )
    case 'stopped':
      return explained(
        e,
        { made, at },
        say({ kind: 'stopped', carrierId: made.station.stationCarrierId, position: e.act.position }),
      )
    case 'restarted':
      return say({ kind: 'restarted', carrierId: made.station.stationCarrierId })
  }
}

/** Half an hour after it began somebody said what it was, of some. */
function explained(e: SimEvent, { made, at }: { made: Made; at: HistoryAt }, first: SaidAct[]): SaidAct[] {
  const saidMs = e.atMs + 2 * QUARTER_MS
  const position = e.act.kind === 'stopped' ? e.act.position : null
  const isSaid = position !== null && saidMs < at.deps.now()
  const fact = isSaid ? whyOf({ atMs: e.atMs, position }, made.station.stationCarrierId) : null
  return fact ? [...first, said(at, made, { fact, happenedMs: saidMs })] : first
}

/** Most hands say what followed within the quarter hour; what is older nobody asks for any more. */
const SAID_SHARE = 0.8
const ASKED_FOR_MS = 21 * DAY_MS
function withFollowUps(e: SimEvent, of: { made: Made; at: HistoryAt }, first: SaidAct[]): SaidAct[] {
  const { made, at } = of
  const { deps } = at
  if (e.atMs < deps.now() - ASKED_FOR_MS || e.atMs + QUARTER_MS > deps.now()) return first
  const isLiner = e.act.kind === 'fitted' && e.act.position === 'liner'
  const tasks: FollowUp[] = isLiner
    ? ['tension', 'freeFeed', 'orings', 'seat']
    : e.act.kind === 'wireLoaded'
      ? ['tension']
      : []
  if (tasks.length === 0 || deps.random() > SAID_SHARE) return first
  const happenedMs = e.atMs + Math.round(deps.random() * QUARTER_MS)
  const facts = tasks.flatMap((task) =>
    [made.station.headId, made.station.gunId].map((carrierId): Fact => ({ kind: 'followedUp', carrierId, task })),
  )
  return [...first, ...facts.map((fact) => said(at, made, { fact, happenedMs }))]
}
const QUARTER_MS = 15 * 60_000

/** Every part that was on when the records began: age unknown, but for what is fast and was changed at the start. */
function firstFittings(at: HistoryAt): SaidAct[] {
  const startMs = at.deps.now() - HISTORY_DAYS * DAY_MS
  return at.made.flatMap((made) =>
    PARTS.map((p) =>
      said(at, made, {
        happenedMs: startMs + Math.round(at.deps.random() * HOUR_MS),
        fact: {
          kind: 'fitted',
          carrierId: onGun(made, p.position),
          position: p.position,
          partId: partFor(made, p.position, at.ids),
          outReason: 'notSaid',
          count: 1,
          entryAge: p.position === 'tip' || p.position === 'nozzle' ? 'new' : 'unknown',
        },
      }),
    ),
  )
}

/** How every gun was set when the records began: as its wire and feeder want it. */
function firstSettings(at: HistoryAt): SaidAct[] {
  const startMs = at.deps.now() - HISTORY_DAYS * DAY_MS
  return at.made.flatMap((made) =>
    rightSettings(made).map(({ name, value }) =>
      said(at, made, {
        happenedMs: startMs + Math.round(at.deps.random() * HOUR_MS),
        fact: { kind: 'setting', carrierId: made.station.headId, name, value, how: 'read' },
      }),
    ),
  )
}

/** The walk that looks at every gun, every week or two, over the last half year. */
function weeklyLooks(at: HistoryAt): SaidAct[] {
  const nowMs = at.deps.now()
  return at.made.flatMap((made) => {
    const looks: SaidAct[] = []
    if (made.station.name === 'R2' || made.station.name === 'T5') return looks
    for (let week = 0; week < 26; week += made.plan.walkEveryWeeks) {
      const offset = made.plan.walkEveryWeeks > 1 ? 9 : 2
      const happenedMs = nowMs - (week * 7 + offset) * DAY_MS + Math.round(at.deps.random() * HOUR_MS)
      const { headId, gunId, stationCarrierId } = made.station
      const neckId = at.round.neckAt(made.station.name, happenedMs)
      const facts = [headId, gunId, stationCarrierId, ...(neckId ? [neckId] : [])].map((carrierId): Fact => ({
        kind: 'confirmed',
        carrierId,
        position: null,
      }))
      looks.push({ kind: 'seen', lines: facts.map((fact) => lineOf(at, made, { fact, happenedMs })) })
    }
    return looks
  })
}

/** Every Monday some liners are pulled; each is held against its own beginning. */
function pulls(events: readonly SimEvent[], byName: Map<string, Made>, at: HistoryAt): SaidAct[] {
  const nowMs = at.deps.now()
  const own: HistoryAt = { ...at, deps: { ...at.deps, random: makeRandom(SEED + 1) } }
  const weekly = weeklyPulls(events, { guns: PULLED, fromMs: nowMs - PULLED_DAYS * DAY_MS, nowMs })
  return weekly.flatMap(({ gun, atMs, value }) => {
    const made = byName.get(gun)
    if (!made) return []
    const fact: Fact = {
      ...{ kind: 'reading', carrierId: made.station.gunId, what: 'pull', method: 'pulls', how: 'measured' },
      ...{ value, left: null, grade: null, is: 'good', headId: made.station.headId, limit: null, from: {} },
      wireId: at.ids.wires.get(wireOf(made).name) ?? null,
    }
    return [said(own, made, { fact, happenedMs: atMs })]
  })
}
/** So far back; before that nobody had a scale. */
const PULLED_DAYS = 400

/** What was really put on and welded away, logged or not: the purchase list, the shelf and the tin go by it. */
function trueSupply(history: ReturnType<typeof simulate>, byName: Map<string, Made>, at: HistoryAt) {
  const nowMs = at.deps.now()
  const codeOf = new Map([...at.ids.parts].map(([code, id]) => [id, code]))
  return {
    deps: at.deps,
    areaIds: at.ids.areas,
    spoolKgOf: (name: string) => WIRES.find((w) => w.name === name)?.spoolKg ?? 15,
    changes: history.events.flatMap((e) => {
      const made = byName.get(e.gun)
      const partId = made && e.act.kind === 'fitted' ? partFor(made, e.act.position, at.ids) : null
      if (!made || !partId || e.act.kind !== 'fitted' || e.atMs >= nowMs) return []
      return [
        {
          atMs: e.atMs,
          areaName: made.plan.name,
          kindKey: kindOfPosition(e.act.position),
          partId,
          code: codeOf.get(partId) ?? '',
        },
      ]
    }),
    wires: history.usage.flatMap((u) => {
      const made = byName.get(u.gun)
      if (!made) return []
      const { name } = wireOf(made)
      return [{ atMs: u.fromMs, wireName: name, wireId: at.ids.wires.get(name) ?? NO_ID, kg: u.kg }]
    }),
  }
}

/** The shelf, counted twice. */
function shelves(supply: ReturnType<typeof trueSupply>, at: HistoryAt): SaidAct[] {
  const stems = new Map<string, { count: number; kind: KindKey }>(FAMILY_PARTS.map((p) => [p.stem, p]))
  const parts = [...at.ids.parts].map(([code, partId]) => {
    const plan = stems.get(code.split('-')[1]?.[0] ?? '')
    return { partId, kindKey: code.startsWith('ROLL') ? 'rolls' : (plan?.kind ?? null), usual: plan?.count ?? 4 }
  })
  return shelfFacts(supply, parts).map((line) => said(at, null, line))
}

function usageRow(u: SimUsage, made: Made | undefined, at: HistoryAt): (typeof usageSpan.$inferInsert)[] {
  if (!made || made.plan.usage === 'spools') return []
  const { usage } = made.plan
  const round = (value: number) => Math.round(value * 10) / 10
  const id = makeId('usage', u.fromMs, at.deps.random)
  return [
    {
      id,
      headId: made.station.headId,
      fromMs: u.fromMs,
      toMs: u.toMs,
      source: 'shiftLog',
      loggedMs: u.toMs,
      idempotencyKey: `demo/${id}`,
      arcHours: usage === 'kg' ? null : round(u.arcHours),
      kg: usage === 'arcHours' ? null : round(u.kg),
      starts: usage === 'all' ? Math.round(u.arcHours * 210) : null,
    },
  ]
}
