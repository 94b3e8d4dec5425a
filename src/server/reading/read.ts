import { type EventId } from '@core/ids/id.ts'
import { DAY_MS, HOUR_MS } from '@core/units/time.ts'
import { type z } from 'zod'
import { ranOn } from '@core/clock/clock.ts'
import { afterWorked } from '@core/clock/schedule.ts'
import {
  isAlarmLive,
  pointsOf,
  seriesOf,
  standsAt,
  watch,
  type KeptReading,
  type Series,
} from '@core/reading/alarms.ts'
import { USUAL_FLOW_L_PER_MIN } from '@core/changeover/cost.ts'
import { gasLeftH } from '@core/reading/made.ts'
import { gasOn } from '@core/rightparts/supplyrules.ts'
import { changedSince, contradicts } from '@core/reading/judge.ts'
import { flowPair } from '@core/reading/flowpair.ts'
import { READINGS, type ReadingKey } from '@core/reading/keys.ts'
import { READING } from '@core/reading/specs.ts'
import { targetFor, type Target } from '@core/reading/target.ts'
import { runsToRolls } from '@core/drag/ofgun.ts'
import {
  type KeptLine,
  type ReadingAnswer,
  type ReadingLine,
  type readingQuery,
  type TrendLine,
} from '@contract/reading.ts'
import { inArray } from 'drizzle-orm'
import { ledgerEvent, person } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { isLead, mustRead, type Deps, type Who } from '@server/call/context.ts'
import { cleaningHere } from '@server/gunnow/limit.ts'
import { dragHere, isFromDrum, knobWindow } from '@server/drag/ofplace.ts'
import { hungOne } from '@server/gunnow/hung.ts'
import { builtHere, carrierIdsOf, schoolHere, setupOf, tagsHere, type Hung } from '@server/gunnow/setup.ts'
import { loadShop, type ShopModel, type ShopPlaces } from '@server/shopmodel/model.ts'
import { knobNormHere, type NormBy } from './norm.ts'
import { fittedHere, readingsHere, touchedHere, type ReadHere } from '@server/gunnow/readingkept.ts'

interface At {
  hung: Hung
  shop: ShopModel
  here: ReadHere
  normBy: NormBy
}

/** Where a reading should lie here and now. */
export function targetHere(what: ReadingKey, at: At & { method: string }): Target | null {
  const { hung, shop, here, normBy } = at
  const setup = setupOf(hung, shop)
  const like = here.kept.filter((r) => r.what !== what || r.method === at.method)
  const baseline = seriesOf(like, what, fittedHere(hung, shop))?.baseline ?? null
  const drag = what === 'tension' ? dragHere(hung, shop, here) : null
  const norm = what === 'tension' ? normBy(at.method) : null
  return targetFor(what, { setup, window: drag && knobWindow(drag), baseline, norm, runsToRolls: runsToRolls(setup) })
}

/** Everything read at one place: the last of each with its window, its trend, and what speaks against it. */
export async function readReadings(deps: Deps, who: Who, q: z.output<typeof readingQuery>): Promise<ReadingAnswer> {
  mustRead(who)
  const nowMs = deps.now()
  const shop = await loadShop(deps.db, deps.shops, nowMs)
  const hung = await hungOne(deps.db, shop, q.stationId)
  const here = await readingsHere(deps.db, hung, shop)
  const nameOf = await readers(deps.db, who, here)
  const at = { hung, shop, here, normBy: await knobNormHere(deps.db, hung, shop) }
  const setup = setupOf(hung, shop)
  const raised = tagsHere(hung, shop).find((t) => t.tag === 'knobRaised')
  return {
    nowMs,
    zone: shop.site.zone,
    stationId: q.stationId,
    name: hung.station.name,
    wireName: setup.wire?.name ?? null,
    isCell: Boolean(setup.cell),
    readings: READINGS.filter((what) => isHere(what, hung, shop)).map((what) =>
      lineFor(what, { ...at, nameOf, nowMs }),
    ),
    alarms: carrierIdsOf(hung.now, shop)
      .flatMap((id) => hung.stateOf(id)?.now?.alarms ?? [])
      .filter((a) => isAlarmLive(a, nowMs)),
    schools: { tension: schoolHere('D02', hung, shop), raise: schoolHere('D25', hung, shop) },
    raised: raised ? { sinceMs: raised.sinceMs, untilMs: raised.untilMs ?? null } : null,
    flow: flowPair(here.kept),
    gasLeft: gasLeftHere(here, targetHere('gasFlow', { ...at, method: 'meter' })),
    antiSpatter: agentHere(hung, shop),
    cleaning: nozzleCleaning(at, nowMs),
  }
}

/** A gun without such a part is not asked for its reading; nor one that draws from a spool for a conduit's, or a shop without wipers for theirs. */
function isHere(what: ReadingKey, hung: Hung, shop: ShopModel): boolean {
  const dirt = schoolHere('D31', hung, shop)
  if (what === 'conduitPull' && dirt !== 'sheath' && !isFromDrum(hung, shop)) return false
  if (what === 'wiper' && dirt !== 'wiper') return false
  // Pulled length by length from the cell's own picture.
  if (what === 'segmentPull' || (READING[what].isOfCells && hung.station.classKey !== 'cell')) return false
  if ((what === 'cylinder' || what === 'gasFlow') && gasOn(setupOf(hung, shop)) === 'none') return false
  const { at } = READING[what]
  const rows = carrierIdsOf(hung.now, shop).flatMap((id) => hung.stateOf(id)?.rows ?? [])
  return rows.some((r) => r.position === at)
}

type NameOf = (eventId: EventId) => string | null
/** Who read what, for leads only. */
async function readers(db: Reader, who: Who, here: ReadHere): Promise<NameOf> {
  if (!isLead(who) || here.rows.length === 0) return () => null
  const ids = here.rows.map((r) => r.eventId)
  const [lines, people] = await Promise.all([
    db
      .select({ id: ledgerEvent.id, personId: ledgerEvent.personId })
      .from(ledgerEvent)
      .where(inArray(ledgerEvent.id, ids)),
    db.select({ id: person.id, name: person.name }).from(person),
  ])
  const names = new Map(people.map((p) => [p.id, p.name]))
  const by = new Map(lines.map((l) => [l.id, l.personId ? (names.get(l.personId) ?? null) : null]))
  return (id) => by.get(id) ?? null
}

const SHOWN = 6
type LineAt = At & { nameOf: NameOf; nowMs: number }
type Kept = KeptReading & { eventId: EventId }

function lineFor(what: ReadingKey, at: LineAt): ReadingLine {
  const { here, hung, shop } = at
  const mine: Kept[] = here.rows.flatMap((row, i) => {
    const kept = here.kept[i]
    return row.what === what && kept ? [{ ...kept, eventId: row.eventId }] : []
  })
  const last = mine.at(-1) ?? null
  const before = mine.at(-2) ?? null
  const series = seriesOf(mine, what, fittedHere(hung, shop))
  const changed = last && changedSince(last, before)
  const rival = last && contradicts(last, mine.slice(0, -1), touchedHere(hung, shop)(READING[what].at))
  const against = rival ? mine.find((r) => r.atMs === rival.atMs && r.method === rival.method) : undefined
  const method = last?.method ?? READING[what].methods[0]?.key ?? ''
  return {
    what,
    target: targetHere(what, { ...at, method }),
    last: last && keptLine(last, at),
    history: mine
      .slice(-SHOWN)
      .reverse()
      .map((r) => keptLine(r, at)),
    trend: series && series.readings.length > 1 ? trendOf(series, at) : null,
    changed: changed && { ...changed, leftBy: before ? at.nameOf(before.eventId) : null },
    against: against ? keptLine(against, at) : null,
  }
}

const keptLine = (r: Kept, { nameOf }: LineAt): KeptLine => ({
  eventId: r.eventId,
  atMs: r.atMs,
  method: r.method,
  how: r.how,
  value: r.value,
  left: r.left,
  grade: r.grade,
  is: r.is,
  who: nameOf(r.eventId),
})

function trendOf(series: Series, at: LineAt): TrendLine {
  const creep = watch(series)
  const { points, unit } = pointsOf(series)
  const made = creep.is === 'few' ? null : creep
  const jumped = made?.stepAt ?? null
  const stand = series.readings.filter((r) => standsAt(r) !== null)
  return {
    is: creep.is,
    n: creep.n,
    method: series.method,
    unit,
    points: points.map((p, i) => ({ ...p, atMs: stand[i]?.atMs ?? 0 })),
    baseline: series.baseline,
    limit: series.limit,
    risen: made?.risen ?? null,
    slope: made?.line.slope ?? null,
    intercept: made?.line.intercept ?? null,
    jumpedMs: jumped === null ? null : (stand[jumped]?.atMs ?? null),
    crossing: made?.crossing ? { ...made.crossing, ...datesOf(made.crossing, { unit, stand, at }) } : null,
  }
}

/** The dates at which so much wire will have run, at the feeder's own rate; by days where no clock tells wire. */
function datesOf(
  crossing: { usage: number; early: number; late: number | null },
  of: { unit: 'kg' | 'days'; stand: readonly KeptReading[]; at: LineAt },
): { atMs: number | null; earlyMs: number | null; lateMs: number | null } {
  const { at, stand, unit } = of
  const firstMs = stand[0]?.atMs ?? at.nowMs
  if (unit === 'days') {
    const dateOf = (usage: number) => Math.round(firstMs + usage * DAY_MS)
    return {
      atMs: dateOf(crossing.usage),
      earlyMs: dateOf(crossing.early),
      lateMs: crossing.late === null ? null : dateOf(crossing.late),
    }
  }
  const runOn = at.here.head?.runOn.kg
  const last = stand.at(-1)
  const schedule = at.shop.scheduleOfArea(at.hung.station.areaId)
  const nowUsage = (last?.kg ?? 0) - (stand[0]?.kg ?? 0)
  const dateOf = (usage: number | null): number | null => {
    if (usage === null || !runOn || !(runOn.perWorkedHour > 0) || !last) return null
    const ahead = Math.max(0, usage - nowUsage) / runOn.perWorkedHour
    const atMs = afterWorked(schedule, last.atMs, ahead * HOUR_MS)
    return atMs === null ? null : Math.round(atMs)
  }
  return { atMs: dateOf(crossing.usage), earlyMs: dateOf(crossing.early), lateMs: dateOf(crossing.late) }
}

/** What the cylinder still lasts: by its last gauge, what somebody said it holds when full, and the flow that was read last, else the middle of its window. */
function gasLeftHere(here: ReadHere, window: Target | null): ReadingAnswer['gasLeft'] {
  const gauges = here.rows.filter((r) => r.what === 'cylinder')
  const last = gauges.at(-1)
  if (!last || last.value === null) return null
  const told = gauges.findLast((r) => typeof r.madeFrom['fullM3'] === 'number')?.madeFrom['fullM3']
  const flow = here.kept.findLast((r) => r.what === 'gasFlow' && standsAt(r) !== null)
  const usual = window?.from != null && window.to !== null ? (window.from + window.to) / 2 : USUAL_FLOW_L_PER_MIN
  const flowLPerMin = (flow && standsAt(flow)) || usual
  const left = gasLeftH({ bar: last.value, fullM3: typeof told === 'number' ? told : null, flowLPerMin })
  return left && { ...left, flowLPerMin, isFlowRead: flow !== undefined, atMs: last.atMs }
}

function agentHere(hung: Hung, shop: ShopPlaces): ReadingAnswer['antiSpatter'] {
  const said = hung.stateOf(shop.carrierOfStation.get(hung.station.id))?.now?.settings.antiSpatter
  return said ? { agent: said.value, sinceMs: said.sinceMs } : null
}

/** How often the nozzle that hangs here is cleaned, and how long it has been. */
function nozzleCleaning(at: At, nowMs: number): ReadingAnswer['cleaning'] {
  const { hung, shop } = at
  const rows = carrierIdsOf(hung.now, shop).flatMap((id) => hung.stateOf(id)?.rows ?? [])
  const nozzle = rows.find((r) => r.position === 'nozzle')
  if (!nozzle) return null
  const { limit, learnt, way } = cleaningHere(hung, shop, builtHere(hung, shop))
  return {
    limitH: limit?.hours ?? null,
    by: limit?.by ?? null,
    way,
    learntH: learnt.hours,
    n: learnt.n,
    isHeld: limit?.isHeld ?? null,
    sinceH: arcSinceCleaned(at, nozzle, nowMs),
  }
}

/** Arc hours since this nozzle was clean, run on to now; null where no clock tells. */
export function arcSinceCleaned(
  { hung, shop, here }: Omit<At, 'normBy'>,
  nozzle: {
    cleanedMs: number | null
    chainFromMs: number | null
    sinceCleaned: { arcHours: { amount: number } | null } | null
  },
  nowMs: number,
): number | null {
  const base = nozzle.sinceCleaned?.arcHours?.amount
  const runOn = here.head?.runOn.arcHours
  if (base === undefined || nozzle.cleanedMs === null || !runOn) return base ?? null
  const schedule = shop.scheduleOfArea(hung.station.areaId)
  return base + ranOn(runOn, { schedule, sinceMs: [nozzle.cleanedMs, nozzle.chainFromMs ?? 0], nowMs })
}
