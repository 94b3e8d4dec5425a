import { and, eq, inArray, isNull } from 'drizzle-orm'
import { type AreaId, type StationId } from '@core/ids/id.ts'
import { DAY_MS, MIN_MS } from '@core/units/time.ts'
import { type KeptDeps } from '@server/lifekept/kept.ts'
import { type ShareDeps } from '@server/parts/sharestore.ts'
import { doesCreep, opensRow } from '@core/reading/alarms.ts'
import { type Column } from '@core/path/columns.ts'
import { workedMs } from '@core/clock/schedule.ts'
import { windowAt, type Window } from '@core/clock/window.ts'
import { openedRows, type OpenedRow } from '@core/floor/rank.ts'
import { chanceOfAny } from '@core/stats/normal.ts'
import { type Leaving } from '@core/life/kept.ts'
import { isToUndo } from '@core/changeover/tags.ts'
import { doesStop, type Stocked } from '@core/rightparts/check.ts'
import { type FloorAnswer, type FloorGun, type FloorMoved } from '@contract/floor.ts'
import { ledgerEvent, stoppage } from '@server/db/schema.ts'
import { mustRead, type Who } from '@server/call/context.ts'
import { liveArcs } from '@server/gunnow/livearcs.ts'
import { standing, type Checked } from '@server/gunnow/findings.ts'
import { findingLine, stockedParts } from '@server/gunnow/line.ts'
import { shareFor } from '@server/parts/sharestore.ts'
import { loadShop, type ShopModel, type ShopKinds, type ShopRules } from '@server/shopmodel/model.ts'
import { cellsOf, nextWant, openWants, wantInColumn } from './cells.ts'
import { type LineBeside } from './said.ts'
import { survey, type Surveyed } from './survey.ts'
import { type SurveyDeps } from './surveystore.ts'

type Needs = SurveyDeps & KeptDeps & ShareDeps
interface Filter {
  areaId?: AreaId | undefined
  column?: Column | undefined
}

/** What needs hands now, over the whole floor or one area. */
export async function readFloor(deps: Needs, who: Who, filter: Filter): Promise<FloorAnswer> {
  mustRead(who)
  return answerOf(deps, filter, await lookOver(deps, filter))
}

/** The same for who has an answer already: of its guns only those that are another since. */
export async function readMoved(deps: Needs, who: Who, filter: Filter & { since: string }): Promise<FloorMoved> {
  const whole = await readFloor(deps, who, filter)
  const moved = deps.said.moved(whole.guns, filter.since)
  return { ...whole, guns: moved ?? whole.guns, isWhole: moved === null }
}

type Seen = Awaited<ReturnType<typeof lookOver>>
async function lookOver(deps: Needs, { areaId }: Filter) {
  const nowMs = deps.now()
  const [shop, fits] = await Promise.all([loadShop(deps.db, deps.shops, nowMs), deps.lives.read(deps.db, nowMs)])
  const wanted = areaId ? shop.stations.filter((s) => s.areaId === areaId).map((s) => s.id) : undefined
  const by = { nowMs, fits, store: deps.positions, kept: deps.surveys, ...(wanted ? { stationIds: wanted } : {}) }
  const [surveyed, arcs, supply] = await Promise.all([
    survey(deps.db, shop, by),
    liveArcs(deps),
    deps.shares.read(deps.db, shop, nowMs),
  ])
  return { nowMs, shop, surveyed, arcs, supply, notes: await stopNotes(deps.db, surveyed) }
}

/** What was said of stops that still stand and of which nobody said where they are: the feeder itself may have told what it saw. */
async function stopNotes(db: Needs['db'], surveyed: readonly Surveyed[]): Promise<ReadonlyMap<StationId, string>> {
  const ids = surveyed.flatMap(({ now, station }) =>
    now.downSinceMs !== null && now.downPosition === null ? [station.id] : [],
  )
  if (ids.length === 0) return new Map()
  const rows = await db
    .select({ stationId: stoppage.stationId, note: ledgerEvent.note })
    .from(stoppage)
    .innerJoin(ledgerEvent, eq(ledgerEvent.id, stoppage.fromEventId))
    .where(and(isNull(stoppage.toMs), inArray(stoppage.stationId, ids)))
  return new Map(rows.flatMap(({ stationId, note }) => (note ? [[stationId, note] as const] : [])))
}

async function answerOf(deps: Needs, filter: Filter, seen: Seen): Promise<FloorAnswer> {
  const { nowMs, shop, surveyed, supply } = seen
  const opened = openedRows(
    surveyed.map((s) => rankInput(s, shop, nowMs)),
    nowMs,
  )
  const rows = new Map(opened.map((row, i) => [row.stationId, { ...row, place: i }]))
  const cutoff = cutoffOf(surveyed, rows, nowMs)
  const guns = await linesOf(deps, filter.column ?? null, { ...seen, rows, cutoff })
  return {
    ...{ nowMs, stamp: deps.said.stamp(guns), shopName: shop.site.name, zone: shop.site.zone, cutoff },
    areas: shop.areas.map((a) => ({ id: a.id, name: a.name })),
    guns,
    ...tallies(surveyed, guns, cutoff.atMs),
    logging: shareFor(supply.shares, { areaId: filter.areaId ?? null }),
    bought: isCold(surveyed) ? supply.bought.slice(0, MOST_BOUGHT) : [],
  }
}

type Row = OpenedRow & { place: number }
async function linesOf(
  deps: Needs,
  column: Column | null,
  { nowMs, shop, surveyed, arcs, rows, cutoff, notes }: Seen & { rows: ReadonlyMap<string, Row>; cutoff: Window },
): Promise<FloorGun[]> {
  const isSomeWrong = surveyed.some((s) => rows.has(s.station.id) && isBuiltWrong(s))
  const parts = isSomeWrong ? await stockedParts(deps.db) : []
  return surveyed.map((s) => {
    const row = rows.get(s.station.id) ?? null
    const beside: LineBeside = {
      rank: row?.place ?? null,
      minutes: row?.minutes ?? 0,
      isArcOn: s.now.headId ? (arcs.get(s.now.headId) ?? null) : null,
      downMinutes: downMinutes(s, nowMs),
      wrong: row ? wrongLines(s, shop, parts) : [],
      downSays: notes.get(s.station.id) ?? null,
      by: row && s.window.byMs < cutoff.byMs ? s.window : null,
    }
    return deps.said.line({ surveyed: s, column, beside }, () => ({
      ...gunLine(s, row !== null, nowMs),
      ...beside,
      columnWant: column ? wantInColumn(s, column) : null,
    }))
  })
}

export const isBuiltWrong = (s: Surveyed) => doesStop(standing(s.checked.findings))
const isHarming = (s: Surveyed) => standing(s.checked.findings).some((f) => f.severity === 'harms')
/** Something is known to be on it, so that a rule can speak; or one did. */
const isChecked = (s: Surveyed) =>
  s.checked.findings.length > 0 || Object.values(s.checked.setup.parts).some((p) => p !== null && p !== undefined)

/** Kept as long as the same is found and the shelf is as it was: the parts of a shop are gone through for each. */
const lines = new WeakMap<Checked, { shelf: string; lines: FloorGun['wrong'] }>()
const shelves = new WeakMap<readonly Stocked[], string>()
function keptLines(checked: Checked, parts: readonly Stocked[], make: () => FloorGun['wrong']): FloorGun['wrong'] {
  const shelf = shelves.get(parts) ?? parts.map((p) => `${p.id} ${p.onHand ?? ''} ${p.priceMinor ?? ''}`).join()
  shelves.set(parts, shelf)
  const known = lines.get(checked)
  if (known?.shelf === shelf) return known.lines
  const made = make()
  lines.set(checked, { shelf, lines: made })
  return made
}

function wrongLines(s: Surveyed, shop: ShopModel, parts: readonly Stocked[]): FloorGun['wrong'] {
  const at = { setup: s.checked.setup, shop, parts }
  return keptLines(s.checked, parts, () =>
    standing(s.checked.findings).flatMap((f) => (f.severity === 'stops' ? [findingLine(f, at)] : [])),
  )
}

const MOST_BOUGHT = 3
/** Nobody has looked at anything yet. */
const isCold = (surveyed: readonly Surveyed[]) =>
  surveyed.length > 0 && surveyed.every((s) => s.positions.some((p) => p.verdict.state === 'notSeen'))

/** What the sentence and the honesty line count. */
function tallies(surveyed: readonly Surveyed[], guns: readonly FloorGun[], cutoffMs: number) {
  const isQuiet = new Set(guns.filter((g) => g.rank === null && !g.isParked).map((g) => g.stationId))
  const quiet = surveyed.filter((s) => isQuiet.has(s.station.id))
  const isNotSeen = (s: Surveyed) => s.positions.some((p) => p.verdict.state === 'notSeen')
  return {
    laterGuns: guns.filter((g) => isQuiet.has(g.stationId) && isBefore(g.next?.reachedMs, cutoffMs + DAY_MS)).length,
    wrongGuns: surveyed.filter(isBuiltWrong).length,
    checkedGuns: surveyed.filter(isChecked).length,
    harming: quiet.filter(isHarming).map((s) => s.station.name),
    creeping: surveyed.flatMap((s) =>
      s.alarms
        .filter(doesCreep)
        .slice(0, 1)
        .map((a) => ({ name: s.station.name, what: a.what })),
    ),
    followUps: surveyed.reduce((sum, s) => sum + s.followUps.filter((f) => f.isAsked).length, 0),
    tags: surveyed.reduce((sum, s) => sum + s.tags.filter((t) => isToUndo(t.tag)).length, 0),
    notSeenGuns: surveyed.filter((s) => !s.now.isParked && isNotSeen(s)).length,
    estimatedGuns: guns.filter((g) => g.cells.some((c) => c[2] === 1)).length,
    quietChance: chanceOfAny(quiet.flatMap((s) => s.positions.map((p) => p.chanceBy))),
  }
}

/**
 * "Before 09:15": the window most of the opened rows share, the soonest of several; a row whose own comes sooner says so itself. Where nothing wants
 * hands, the first by which any gun is judged: before that nothing does.
 */
function cutoffOf(surveyed: readonly Surveyed[], rows: ReadonlyMap<string, unknown>, nowMs: number): Window {
  const windows = surveyed.filter((s) => rows.size === 0 || rows.has(s.station.id)).map((s) => s.window)
  if (rows.size === 0) return windows.reduce<Window | null>(earlier('atMs'), null) ?? windowAt(null, [], nowMs)
  const counts = new Map<number, number>()
  for (const { byMs } of windows) counts.set(byMs, (counts.get(byMs) ?? 0) + 1)
  const most = Math.max(...counts.values())
  return (
    windows.filter((w) => counts.get(w.byMs) === most).reduce<Window | null>(earlier('byMs'), null) ??
    windowAt(null, [], nowMs)
  )
}
const earlier = (of: 'atMs' | 'byMs') => (first: Window | null, w: Window) => (!first || w[of] < first[of] ? w : first)

const isBefore = (ms: number | null | undefined, limitMs: number) => ms !== null && ms !== undefined && ms < limitMs

/** What was read and is to be put right. */
const foundOn = (s: Surveyed, nowMs: number) => s.alarms.filter((a) => opensRow(a, nowMs))

export function rankInput(s: Surveyed, shop: ShopKinds & ShopRules, nowMs: number) {
  return {
    stationId: s.station.id,
    walkOrder: s.station.walkOrder,
    isParked: s.now.isParked,
    downSinceMs: s.now.downSinceMs,
    wrongMinutes: wrongMinutes(s, shop),
    foundMinutes: foundMinutes(s, shop, nowMs),
    wants: s.positions.map((p) => ({
      position: p.row.position,
      // What was read opens the row by itself.
      state: p.verdict.state === 'due' && p.verdict.act === 'look' ? ('look' as const) : p.verdict.state,
      act: p.verdict.act,
      minutes: p.verdict.act === 'clean' ? p.kind.cleanMin : shop.changeMinOf(p.kind.key, s.familyId),
      due: p.verdict.due,
      leaveMinor: p.verdict.act === 'change' && p.leave ? worthOf(p.leave) : null,
    })),
    stopRateMinorPerHour: shop.stopRateOf(s.station.id),
    schedule: s.schedule,
  }
}

/** Money where there is some; where nobody priced anything, minutes keep the order. */
const worthOf = ({ minor, minutes }: Leaving) => (minor > 0 ? minor : minutes)

const SET_MIN = 2
/** Minutes to put right what is wrong: the parts' own, a moment for each that is only turned or set. */
function wrongMinutes(s: Surveyed, shop: ShopKinds): number {
  const remedies = standing(s.checked.findings).flatMap((f) => (f.severity === 'stops' ? [f.remedy] : []))
  const kinds = new Set(remedies.flatMap((r) => (r.do === 'change' ? [r.kindKey] : [])))
  const changed = [...kinds].reduce((sum, key) => sum + shop.changeMinOf(key, s.familyId), 0)
  return changed + SET_MIN * remedies.filter((r) => r.do !== 'change').length
}

/** Minutes to put right what was read: a change of the part there, as the shop knows it. */
const foundMinutes = (s: Surveyed, shop: ShopKinds, nowMs: number): number =>
  [...new Set(foundOn(s, nowMs).map((a) => a.at))].reduce(
    (sum, at) => sum + Math.max(SET_MIN, Math.min(shop.changeMinOf(at, s.familyId), FOUND_MOST_MIN)),
    0,
  )
/** It is put right, which is not always a new part. */
const FOUND_MOST_MIN = 5

export function downMinutes(s: Surveyed, nowMs: number): number | null {
  return s.now.downSinceMs === null ? null : Math.round(workedMs(s.schedule, s.now.downSinceMs, nowMs) / MIN_MS)
}

function gunLine(s: Surveyed, isOpen: boolean, nowMs: number): Omit<FloorGun, 'columnWant' | keyof LineBeside> {
  return {
    stationId: s.station.id,
    name: s.station.name,
    areaId: s.station.areaId,
    cells: cellsOf(s),
    isParked: s.now.isParked,
    downSinceMs: s.now.downSinceMs,
    downPosition: s.now.downPosition,
    wants: isOpen ? openWants(s) : [],
    found: isOpen ? foundOn(s, nowMs) : [],
    next: nextWant(s, nowMs),
  }
}
