import { type AreaId, type CarrierId, type FamilyId, NO_ID, type PartId, type StationId } from '@core/ids/id.ts'
import { type KindKey } from '@core/path/columns.ts'
import { kgPerArcHour } from '@core/spools/wire.ts'
import { builtOf, NOTHING_BUILT, type Built } from '@core/shop/built.ts'
import { nextWindow, type Schedule } from '@core/clock/schedule.ts'
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
  type tryout,
  type wire,
} from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { TASK_KEYS } from '@core/guide/keys.ts'
import { minutesOf, readTaskTotals, type MinutesOf } from '@server/minutes/minutes.ts'
import { type Calendar, type ShiftOfWeek } from '@server/time/calendar.ts'
import { type ShopStore, type ShopTables } from './store.ts'
import { DomainError } from '@server/problem/problem.ts'

export type StationRow = typeof station.$inferSelect
export type KindRow = typeof partKind.$inferSelect
export type RuleRow = typeof houseRule.$inferSelect
export type PartRow = typeof part.$inferSelect
export interface ClockSetup {
  schedule: Schedule | null
  kgPerArcHour: number | null
}

/** The shop as it is set up, read once per request or projection. No history in it. */
export interface ShopModel {
  /** Which set-up this is; null where it is in the middle of being changed, or was changed in hand. */
  revision: number | null
  site: typeof site.$inferSelect
  areas: (typeof area.$inferSelect)[]
  stations: StationRow[]
  stationById: Map<StationId, StationRow>
  stationOfCarrier: Map<CarrierId, StationId>
  carrierOfStation: Map<StationId, CarrierId>
  classes: Map<string, typeof stationClass.$inferSelect>
  kinds: KindRow[]
  kindByKey: Map<string, KindRow>
  wires: Map<string, typeof wire.$inferSelect>
  families: Map<string, string>
  familyById: Map<string, typeof fitFamily.$inferSelect>
  partById: Map<string, PartRow>
  feederTypes: Map<string, typeof feederType.$inferSelect>
  procedures: Map<string, typeof procedure.$inferSelect>
  choices: (typeof houseChoice.$inferSelect)[]
  /** Parts being tried out, by place. */
  tryingAt: ReadonlyMap<string, readonly PartId[]>
  keptByStation: Map<string, (typeof keptFinding.$inferSelect)[]>
  shifts: ShiftOfWeek[]
  holidays: string[]
  built: (stationId: StationId) => Built
  scheduleOfArea: (areaId: AreaId) => Schedule | null
  /** When its guns stand still anyway, next. */
  windowOfArea: (areaId: AreaId) => ReturnType<typeof nextWindow>
  clockSetup: (stationId: StationId | null) => ClockSetup
  /** What an hour of standing costs there, with all that halt together with it; minor units, 0: nobody said. */
  stopRateOf: (stationId: StationId) => number
  ruleFor: (kindKey: KindKey, classKey: string) => RuleRow | null
  /** Minutes of a task on a family, learnt from the jobs logged. */
  learnt: MinutesOf
  /** Minutes a change of one kind takes on a family: what the shop says, until its own jobs say better. */
  changeMinOf: (kindKey: KindKey, familyId: FamilyId | null) => number
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
  return modelOf(tables, { revision, totals: await readTaskTotals(db), calendar: shops.calendar, nowMs })
}

interface ModelAt {
  revision: number | null
  totals: Awaited<ReturnType<typeof readTaskTotals>>
  calendar: Calendar
  nowMs: number
}
function modelOf(tables: ShopTables, { revision, totals, calendar, nowMs }: ModelAt): ShopModel {
  const [sites, areas, stations, classes, kinds, wires, families, patterns, holidays, rules, ...more] = tables
  const kindByKey = new Map(kinds.map((k) => [k.key, k]))
  const [only] = sites
  if (!only)
    throw new DomainError('not-found', 'The shop has no name yet.', ['Open the first page and say what it is called.'])
  const [areaById, stationById, wireById] = [byId(areas), byId(stations), byId(wires)]
  const ruleBy = new Map(rules.map((r) => [`${r.kindKey} ${r.classKey}`, r]))
  const input = { zone: only.zone, shifts: patterns, holidays: holidays.map((h) => h.day) }
  const scheduleOfArea = once((areaId: AreaId) => calendar.scheduleFor(input, areaId, nowMs))
  const built = (stationId: StationId): Built => {
    const row = stationById.get(stationId)
    return row ? builtOf({ ...NOTHING_BUILT, ...areaById.get(row.areaId)?.built }, row.except) : NOTHING_BUILT
  }
  return {
    revision,
    site: only,
    areas,
    stations,
    stationById,
    kinds,
    shifts: patterns,
    holidays: input.holidays,
    wires: wireById,
    built,
    scheduleOfArea,
    windowOfArea: once((areaId) => nextWindow(scheduleOfArea(areaId), nowMs)),
    stationOfCarrier: new Map(more[5].map((c) => [c.id, c.stationId ?? NO_ID])),
    carrierOfStation: new Map(more[5].map((c) => [c.stationId ?? NO_ID, c.id])),
    classes: new Map(classes.map((c) => [c.key, c])),
    kindByKey,
    ...minutesHere(kindByKey, minutesOf(totals)),
    families: new Map(families.map((f) => [f.id, f.name])),
    ...{ ...fitOfShop(families, more), tryingAt: triedAt(more[6]) },
    stopRateOf: stopRates(stations, classes),
    clockSetup: (stationId) =>
      clockSetupOf(stationId, { stationById, built, wireById, scheduleOfArea, anyArea: areas[0]?.id ?? NO_ID }),
    ruleFor: (kindKey, classKey) => ruleBy.get(`${kindKey} ${classKey}`) ?? ruleBy.get(`${kindKey} *`) ?? null,
  }
}

function stopRates(stations: readonly StationRow[], classes: readonly (typeof stationClass.$inferSelect)[]) {
  const perHour = new Map(classes.map((c) => [c.key, c.stopMinorPerHour]))
  const rateOf = ({ classKey }: StationRow) => perHour.get(classKey) ?? 0
  const together = groupBy(stations, (s) => s.stopGroup ?? s.id)
  const totals = new Map<string, number>()
  for (const group of together.values()) {
    const total = group.reduce((sum, s) => sum + rateOf(s), 0)
    group.forEach((s) => totals.set(s.id, total))
  }
  return (stationId: StationId) => totals.get(stationId) ?? 0
}

const minutesHere = (
  kindByKey: ReadonlyMap<string, KindRow>,
  learnt: MinutesOf,
): Pick<ShopModel, 'learnt' | 'changeMinOf'> => ({
  learnt,
  changeMinOf: (kindKey, familyId) => changeMinutes(kindByKey, { kindKey, familyId, learnt }),
})

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
  [parts, feederTypes, procedures, choices, kept]: readonly [
    (typeof part.$inferSelect)[],
    (typeof feederType.$inferSelect)[],
    (typeof procedure.$inferSelect)[],
    (typeof houseChoice.$inferSelect)[],
    (typeof keptFinding.$inferSelect)[],
    ...unknown[],
  ],
): Pick<ShopModel, 'familyById' | 'partById' | 'feederTypes' | 'procedures' | 'choices' | 'keptByStation'> {
  return {
    familyById: byId(families),
    partById: byId(parts),
    feederTypes: byId(feederTypes),
    procedures: byId(procedures),
    choices,
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

/** Works out once per id what is asked for many times in one request. */
function once<I extends string, T>(make: (id: I) => T): (id: I) => T {
  const known = new Map<I, T>()
  return (id) => {
    const kept = known.get(id)
    if (kept !== undefined || known.has(id)) return kept as T
    const made = make(id)
    known.set(id, made)
    return made
  }
}

interface SetupNeeds {
  stationById: Map<StationId, StationRow>
  built: (stationId: StationId) => Built
  wireById: Map<string, typeof wire.$inferSelect>
  scheduleOfArea: (areaId: AreaId) => Schedule | null
  anyArea: AreaId
}

/** Working time and the kg ↔ arc hours factor of a place; the factor rests on the place's wire speed, a guess until procedures exist. */
function clockSetupOf(stationId: StationId | null, needs: SetupNeeds): ClockSetup {
  const row = stationId ? needs.stationById.get(stationId) : undefined
  if (!stationId || !row) return { schedule: needs.scheduleOfArea(needs.anyArea), kgPerArcHour: null }
  const built = needs.built(stationId)
  const wireRow = built.wireId ? needs.wireById.get(built.wireId) : undefined
  const factor = wireRow && built.wireSpeedMPerMin ? kgPerArcHour(wireRow, built.wireSpeedMPerMin) : null
  return { schedule: needs.scheduleOfArea(row.areaId), kgPerArcHour: factor }
}

/** Refuses an area that is none; undefined is all of them. */
export function mustHaveArea(shop: Pick<ShopModel, 'areas'>, areaId: AreaId | undefined): void {
  if (areaId && !shop.areas.some((a) => a.id === areaId))
    throw new DomainError('not-found', 'There is no such area.', ['Choose one of those shown.'])
}
