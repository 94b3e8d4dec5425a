import {
  type AreaId,
  type CarrierId,
  type FamilyId,
  NO_ID,
  type PartId,
  type StationId,
  type StoreId,
} from '@core/ids/id.ts'
import { type KindKey } from '@core/path/columns.ts'
import { kgPerArcHour } from '@core/spools/wire.ts'
import { builtOf, NOTHING_BUILT, type Built } from '@core/shop/built.ts'
import { type Schedule } from '@core/clock/schedule.ts'
import { windowAt, type Booked, type Window } from '@core/clock/window.ts'
import { HOUR_MS } from '@core/units/time.ts'
import {
  type area,
  type feederType,
  type fitFamily,
  type houseChoice,
  type houseRule,
  type keptFinding,
  type part,
  type partKind,
  type procedure,
  type site,
  type station,
  type stationClass,
  type store,
  type tryout,
  type wire,
} from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { TASK_KEYS } from '@core/guide/keys.ts'
import { minutesOf, type MinutesOf, type TaskTotals } from '@server/minutes/minutes.ts'
import { type ShiftOfWeek } from '@server/time/calendar.ts'
import { bookedAhead, schoolOf, type School } from './school.ts'
import { type ShopStore, type ShopTables } from './store.ts'
import { DomainError } from '@server/problem/problem.ts'

export type StationRow = typeof station.$inferSelect
export type KindRow = typeof partKind.$inferSelect
export type RuleRow = typeof houseRule.$inferSelect
export type PartRow = typeof part.$inferSelect
export type StoreRow = typeof store.$inferSelect
export interface ClockSetup {
  schedule: Schedule | null
  kgPerArcHour: number | null
}

/** Where guns are: areas, places, what hangs there of itself, and the class each place is of. */
export interface ShopPlaces {
  areas: (typeof area.$inferSelect)[]
  stations: StationRow[]
  stationById: Map<StationId, StationRow>
  stationOfCarrier: Map<CarrierId, StationId>
  carrierOfStation: Map<StationId, CarrierId>
  classes: Map<string, typeof stationClass.$inferSelect>
  /** Places where parts lie besides the main one. */
  stores: StoreRow[]
  /** Which of them serves a place; null: the main one. */
  storeOf: (stationId: StationId) => StoreId | null
}
/** Kinds of parts, and the minutes they take. */
export interface ShopKinds {
  kinds: KindRow[]
  kindByKey: Map<string, KindRow>
  /** Minutes of a task on a family, learnt from the jobs logged. */
  learnt: MinutesOf
  /** Minutes a change of one kind takes on a family: what the shop says, until its own jobs say better. */
  changeMinOf: (kindKey: KindKey, familyId: FamilyId | null) => number
}
/** What fits what, and how guns are built. */
export interface ShopFit {
  wires: Map<string, typeof wire.$inferSelect>
  families: Map<string, string>
  familyById: Map<string, typeof fitFamily.$inferSelect>
  partById: Map<string, PartRow>
  feederTypes: Map<string, typeof feederType.$inferSelect>
  procedures: Map<string, typeof procedure.$inferSelect>
  /** Parts being tried out, by place. */
  tryingAt: ReadonlyMap<string, readonly PartId[]>
  keptByStation: Map<string, (typeof keptFinding.$inferSelect)[]>
  built: (stationId: StationId) => Built
}
/** How it is done here: schools, limits, what standing costs. */
export interface ShopRules {
  choices: (typeof houseChoice.$inferSelect)[]
  ruleFor: (kindKey: KindKey, classKey: string) => RuleRow | null
  /** What an hour of standing costs there, with all that halt together with it; minor units, 0: nobody said. */
  stopRateOf: (stationId: StationId) => number
}
/** When work is done. */
export interface ShopTimes {
  shifts: ShiftOfWeek[]
  holidays: string[]
  scheduleOfArea: (areaId: AreaId) => Schedule | null
  /** When the guns of a place stand still anyway, next: by its shifts, its classes and its planned stops. */
  windowOf: (stationId: StationId) => Window
  school: School
  clockSetup: (stationId: StationId | null) => ClockSetup
}
/** Name, zone, units, currency. */
export interface ShopSite {
  site: typeof site.$inferSelect
}
/** The shop as it is set up, read once per request or projection; who needs a part of it asks for that part. No history in it. */
export interface ShopModel extends ShopSite, ShopPlaces, ShopKinds, ShopFit, ShopRules, ShopTimes {
  /** Which set-up this is; null where it is in the middle of being changed, or was changed in hand. */
  revision: number | null
}

const FALLBACK_MIN = 5
function changeMinutes(
  kinds: ReadonlyMap<string, KindRow>,
  of: { kindKey: KindKey; familyId: FamilyId | null; learnt: MinutesOf },
): number {
  const said = kinds.get(of.kindKey)?.changeMin ?? FALLBACK_MIN
  const task = TASK_KEYS.find((t) => t === of.kindKey)
  if (!task || !(said > 0)) return said
  const { n, others, median } = of.learnt(task, of.familyId, said)
  return n + others > 0 ? median : said
}

export const loadShop = (db: Reader, shops: ShopStore, nowMs: number): Promise<ShopModel> =>
  readShop(db, shops, { nowMs, isReshaped: false })
/** The same inside a transaction that has changed the set-up: nothing that was kept is right. */
export const loadReshaped = (db: Reader, shops: ShopStore, nowMs: number): Promise<ShopModel> =>
  readShop(db, shops, { nowMs, isReshaped: true })

async function readShop(
  db: Reader,
  shops: ShopStore,
  { nowMs, isReshaped }: { nowMs: number; isReshaped: boolean },
): Promise<ShopModel> {
  const { revision, tables } = await shops.tables(db, isReshaped)
  return modelOf(tables, { revision, totals: await shops.taskTotals(db), shops, nowMs })
}

interface ModelAt {
  revision: number | null
  totals: TaskTotals[]
  shops: Pick<ShopStore, 'calendar' | 'booked'>
  nowMs: number
}
function modelOf(tables: ShopTables, { revision, totals, shops, nowMs }: ModelAt): ShopModel {
  const [sites, areas, stations, classes, kinds, wires, families, patterns, calendar, rules, ...more] = tables
  const [only] = sites
  if (!only)
    throw new DomainError('not-found', 'The shop has no name yet.', ['Open the first page and say what it is called.'])
  const [places, wireById] = [placesOf({ areas, stations, classes, carriers: more[5], stores: more[7] }), byId(wires)]
  const built = builtBy(places)
  const school = schoolOf(calendar)
  const input = { zone: only.zone, shifts: patterns, holidays: school.holidays.map((h) => h.day) }
  const scheduleOfArea = once((areaId: AreaId) => shops.calendar.scheduleFor(input, areaId, nowMs))
  return {
    revision,
    site: only,
    ...places,
    ...kindsOf(kinds, minutesOf(totals)),
    ...{ wires: wireById, built, families: new Map(families.map((f) => [f.id, f.name])), tryingAt: triedAt(more[6]) },
    ...fitOfShop(families, more),
    choices: more[3],
    stopRateOf: stopRates(stations, classes),
    ruleFor: rulesBy(rules),
    ...{ shifts: patterns, holidays: input.holidays, scheduleOfArea, school },
    windowOf: windows(tables, { shops, school, places, scheduleOfArea, zone: only.zone, nowMs }),
    clockSetup: (stationId) =>
      clockSetupOf(stationId, { ...places, built, wires: wireById, scheduleOfArea, anyArea: areas[0]?.id ?? NO_ID }),
  }
}

const NONE_BOOKED: readonly Booked[] = []
/** The next window of each place; those of an area with nothing booked share theirs. */
function windows(
  tables: ShopTables,
  at: Pick<ShopModel, 'school' | 'scheduleOfArea'> & {
    shops: Pick<ShopStore, 'booked'>
    places: ShopPlaces
    zone: string
    nowMs: number
  },
): ShopTimes['windowOf'] {
  const { places, scheduleOfArea, nowMs } = at
  const unbooked = once((areaId: AreaId) => windowAt(scheduleOfArea(areaId), NONE_BOOKED, nowMs))
  return once((stationId) => {
    const areaId = places.stationById.get(stationId)?.areaId ?? NO_ID
    const own = bookedKept(tables, at).get(stationId)
    return own ? windowAt(scheduleOfArea(areaId), own, nowMs) : unbooked(areaId)
  })
}
function bookedKept(tables: ShopTables, at: Parameters<typeof windows>[1]): Map<StationId, Booked[]> {
  const hour = Math.floor(at.nowMs / HOUR_MS)
  const known = at.shops.booked.get(tables)
  if (known?.hour === hour) return known.booked
  const { school, zone, places } = at
  const booked = bookedAhead(school, { zone, nowMs: hour * HOUR_MS, stations: places.stations })
  at.shops.booked.set(tables, { hour, booked })
  return booked
}

function placesOf(of: {
  areas: ShopPlaces['areas']
  stations: StationRow[]
  classes: readonly (typeof stationClass.$inferSelect)[]
  carriers: readonly { id: CarrierId; stationId: StationId | null }[]
  stores: StoreRow[]
}): ShopPlaces {
  const stationById = byId(of.stations)
  const storeOfArea = new Map(of.areas.map((a) => [a.id, a.storeId]))
  return {
    areas: of.areas,
    stations: of.stations,
    stationById,
    stationOfCarrier: new Map(of.carriers.map((c) => [c.id, c.stationId ?? NO_ID])),
    carrierOfStation: new Map(of.carriers.map((c) => [c.stationId ?? NO_ID, c.id])),
    classes: new Map(of.classes.map((c) => [c.key, c])),
    stores: of.stores,
    storeOf: (stationId) => storeOfArea.get(stationById.get(stationId)?.areaId ?? NO_ID) ?? null,
  }
}
function builtBy({ areas, stationById }: ShopPlaces): ShopFit['built'] {
  const areaById = byId(areas)
  return (stationId) => {
    const row = stationById.get(stationId)
    return row ? builtOf({ ...NOTHING_BUILT, ...areaById.get(row.areaId)?.built }, row.except) : NOTHING_BUILT
  }
}
function rulesBy(rules: readonly RuleRow[]): ShopRules['ruleFor'] {
  const ruleBy = new Map(rules.map((r) => [`${r.kindKey} ${r.classKey}`, r]))
  return (kindKey, classKey) => ruleBy.get(`${kindKey} ${classKey}`) ?? ruleBy.get(`${kindKey} *`) ?? null
}

/** What halts together has the same; a place that names none halts alone. */
export const stopGroupOf = (station: StationRow): string => station.stopGroup ?? station.id

function stopRates(stations: readonly StationRow[], classes: readonly (typeof stationClass.$inferSelect)[]) {
  const perHour = new Map(classes.map((c) => [c.key, c.stopMinorPerHour]))
  const rateOf = ({ classKey }: StationRow) => perHour.get(classKey) ?? 0
  const together = groupBy(stations, stopGroupOf)
  const totals = new Map<string, number>()
  for (const group of together.values()) {
    const total = group.reduce((sum, s) => sum + rateOf(s), 0)
    group.forEach((s) => totals.set(s.id, total))
  }
  return (stationId: StationId) => totals.get(stationId) ?? 0
}

function kindsOf(kinds: KindRow[], learnt: MinutesOf): ShopKinds {
  const kindByKey = new Map(kinds.map((k) => [k.key, k]))
  return {
    ...{ kinds, kindByKey, learnt },
    changeMinOf: (kindKey, familyId) => changeMinutes(kindByKey, { kindKey, familyId, learnt }),
  }
}

/** Parts under try-out, by the place they were dealt to. */
function triedAt(running: (typeof tryout.$inferSelect)[]): Map<string, PartId[]> {
  const dealt = running.flatMap(({ stationsA, stationsB, partAId, partBId }) => [
    ...stationsA.map((stationId) => ({ stationId, partId: partAId })),
    ...stationsB.map((stationId) => ({ stationId, partId: partBId })),
  ])
  const by = groupBy(dealt, (d) => d.stationId)
  return new Map([...by].map(([id, list]) => [id, list.flatMap((d) => d.partId ?? [])]))
}

/** What the rules of fit go by. */
function fitOfShop(
  families: (typeof fitFamily.$inferSelect)[],
  [parts, feederTypes, procedures, , kept]: readonly [
    (typeof part.$inferSelect)[],
    (typeof feederType.$inferSelect)[],
    (typeof procedure.$inferSelect)[],
    (typeof houseChoice.$inferSelect)[],
    (typeof keptFinding.$inferSelect)[],
    ...unknown[],
  ],
): Pick<ShopFit, 'familyById' | 'partById' | 'feederTypes' | 'procedures' | 'keptByStation'> {
  return {
    familyById: byId(families),
    partById: byId(parts),
    feederTypes: byId(feederTypes),
    procedures: byId(procedures),
    keptByStation: groupBy(kept, (k) => k.stationId),
  }
}

const byId = <T extends { id: string }>(rows: readonly T[]): Map<T['id'], T> =>
  new Map(rows.map((row) => [row.id, row]))

export function groupBy<T>(rows: readonly T[], keyOf: (row: T) => string): Map<string, T[]> {
  const groups = new Map<string, T[]>()
  for (const row of rows) {
    const key = keyOf(row)
    const group = groups.get(key)
    if (group) group.push(row)
    else groups.set(key, [row])
  }
  return groups
}

/** Works out once per id what is asked for many times in one request or projection. */
export function once<I extends string, T>(make: (id: I) => T): (id: I) => T {
  const known = new Map<I, T>()
  return (id) => {
    const kept = known.get(id)
    if (kept !== undefined || known.has(id)) return kept as T
    const made = make(id)
    known.set(id, made)
    return made
  }
}

type SetupNeeds = Pick<ShopModel, 'stationById' | 'built' | 'wires' | 'scheduleOfArea'> & { anyArea: AreaId }

/** Working time and the kg ↔ arc hours factor of a place; the factor rests on the place's wire speed, a guess until procedures exist. */
function clockSetupOf(stationId: StationId | null, needs: SetupNeeds): ClockSetup {
  const row = stationId ? needs.stationById.get(stationId) : undefined
  if (!stationId || !row) return { schedule: needs.scheduleOfArea(needs.anyArea), kgPerArcHour: null }
  const built = needs.built(stationId)
  const wireRow = built.wireId ? needs.wires.get(built.wireId) : undefined
  const factor = wireRow && built.wireSpeedMPerMin ? kgPerArcHour(wireRow, built.wireSpeedMPerMin) : null
  return { schedule: needs.scheduleOfArea(row.areaId), kgPerArcHour: factor }
}

/** Refuses an area that is none; undefined is all of them. */
export function mustHaveArea(shop: Pick<ShopPlaces, 'areas'>, areaId: AreaId | undefined): void {
  if (areaId && !shop.areas.some((a) => a.id === areaId))
    throw new DomainError('not-found', 'There is no such area.', ['Choose one of those shown.'])
}
/** A place where parts lie; one that is not there, or was given up, is refused. */
export function mustHaveStore({ stores }: Pick<ShopPlaces, 'stores'>, id: StoreId): StoreRow {
  const row = stores.find((s) => s.id === id && s.isActive)
  if (!row) throw new DomainError('not-found', 'There is no such place for parts.', ['Choose one of those shown.'])
  return row
}
/** What a place where parts lie is called; null: the main one. */
export const storeName = (id: StoreId | null, { stores }: Pick<ShopPlaces, 'stores'>): string | null =>
  id === null ? null : (stores.find((s) => s.id === id)?.name ?? null)
