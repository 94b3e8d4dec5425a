import { inArray } from 'drizzle-orm'
import { type RunOn } from '@core/clock/clock.ts'
import { nextWindow, workingDays, type Schedule } from '@core/clock/schedule.ts'
import { shiftsOver } from '@core/floor/rank.ts'
import { stateOf, type PositionVerdict } from '@core/floor/state.ts'
import { dueOf, type Due } from '@core/houserule/due.ts'
import { isMeasured } from '@core/ledger/exposure.ts'
import { kindOfPosition } from '@core/path/columns.ts'
import { type FloorWant } from '@contract/floor.ts'
import { carrier, headNow, positionNow, stationNow } from '@server/db/schema.ts'
import { readMany, type Reader } from '@server/db/db.ts'
import { type KindRow, type RuleRow, type ShopModel, type StationRow } from '@server/shop/model.ts'

export type PositionRow = typeof positionNow.$inferSelect
type HeadRow = typeof headNow.$inferSelect
export interface SurveyedPosition {
  row: PositionRow
  kind: KindRow
  rule: RuleRow | null
  verdict: PositionVerdict
  change: FloorWant | null
  clean: FloorWant | null
}
export interface Surveyed {
  station: StationRow
  now: typeof stationNow.$inferSelect
  head: HeadRow | null
  schedule: Schedule | null
  positions: SurveyedPosition[]
}

const CLOCK_STALE_DAYS = 10

/** The state of every position at some places, or at all: what is stored, run on to now. */
export async function survey(
  db: Reader,
  shop: ShopModel,
  at: { nowMs: number; stationIds?: readonly string[] },
): Promise<Surveyed[]> {
  const { nowMs, stationIds } = at
  const nows = await db
    .select()
    .from(stationNow)
    .where(stationIds ? inArray(stationNow.stationId, [...stationIds]) : undefined)
  const carrierIds = nows
    .flatMap((n) => [n.headId, n.gunId, shop.carrierOfStation.get(n.stationId) ?? null])
    .filter((id): id is string => id !== null)
  const [rows, heads] = await Promise.all([
    readMany(
      db,
      positionNow,
      stationIds ? inArray(positionNow.carrierId, carrierIds.length > 0 ? carrierIds : ['']) : undefined,
    ),
    db
      .select()
      .from(headNow)
      .where(stationIds ? inArray(headNow.headId, carrierIds.length > 0 ? carrierIds : ['']) : undefined),
  ])
  const rowsOf = groupRows(rows)
  const headOf = new Map(heads.map((h) => [h.headId, h]))
  const byStation = new Map(nows.map((n) => [n.stationId, n]))
  const windows = new Map<string, number>()
  return shop.stations.flatMap((station) => {
    const now = byStation.get(station.id)
    if (!now) return []
    const schedule = shop.scheduleOfArea(station.areaId)
    const cutoffMs = windows.get(station.areaId) ?? nextWindow(schedule, nowMs).atMs
    windows.set(station.areaId, cutoffMs)
    const head = now.headId ? (headOf.get(now.headId) ?? null) : null
    const freshness = clockFreshness(head, schedule, nowMs)
    const ids = [shop.carrierOfStation.get(station.id), now.headId, now.gunId]
    const positions = ids
      .flatMap((id) => (id ? (rowsOf.get(id) ?? []) : []))
      .flatMap((row) => {
        const kind = shop.kindByKey.get(kindOfPosition(row.position))
        return kind ? judge(row, { kind, station, now, head, schedule, nowMs, cutoffMs, shop, freshness }) : []
      })
    positions.sort((a, b) => a.kind.walkOrder - b.kind.walkOrder)
    return [{ station, now, head, schedule, positions }]
  })
}

function groupRows(rows: PositionRow[]): Map<string, PositionRow[]> {
  const groups = new Map<string, PositionRow[]>()
  for (const row of rows) {
    const group = groups.get(row.carrierId)
    if (group) group.push(row)
    else groups.set(row.carrierId, [row])
  }
  return groups
}

interface JudgeAt {
  kind: KindRow
  station: StationRow
  now: typeof stationNow.$inferSelect
  head: HeadRow | null
  schedule: Schedule | null
  nowMs: number
  cutoffMs: number
  shop: ShopModel
  freshness: (unit: string) => boolean
}

/** Has the counter behind a unit been entered within ten working days; told once per head, not per position. */
function clockFreshness(head: HeadRow | null, schedule: Schedule | null, nowMs: number): (unit: string) => boolean {
  const known = new Map<string, boolean>()
  return (unit) => {
    const kept = known.get(unit)
    if (kept !== undefined) return kept
    const runOn = head && isMeasured(unit as 'kg') ? head.runOn[unit as 'kg'] : null
    const isFresh =
      !isMeasured(unit as 'kg') || (runOn !== null && workingDays(schedule, runOn.fromMs, nowMs) <= CLOCK_STALE_DAYS)
    known.set(unit, isFresh)
    return isFresh
  }
}

function judge(row: PositionRow, at: JudgeAt): SurveyedPosition {
  const { kind, now, station, shop } = at
  const rule = shop.ruleFor(kind.key, station.classKey)
  const change =
    rule?.changeLimit && row.fittedMs !== null
      ? dueBy(row, at, { act: 'change', limit: rule.changeLimit, sinceMs: row.fittedMs })
      : null
  const clean =
    rule?.cleanLimit && row.cleanedMs !== null && row.fittedMs !== null
      ? dueBy(row, at, { act: 'clean', limit: rule.cleanLimit, sinceMs: row.cleanedMs })
      : null
  const dues: { act: 'change' | 'clean'; due: Due }[] = []
  if (change) dues.push({ act: 'change', due: change })
  if (clean) dues.push({ act: 'clean', due: clean })
  const isDown = now.downSinceMs !== null
  const verdict = stateOf({
    isOnGun: true,
    isDownHere: isDown && (now.downPosition ?? 'orings') === row.position,
    hasWrongPart: false,
    dues,
    hasLimit: Boolean(rule?.changeLimit ?? rule?.cleanLimit),
    lookEveryDays: rule?.lookDays ?? null,
    confirmDays: kind.confirmDays,
    seenMs: row.seenMs,
    hasFittingDate: row.fittedMs !== null && row.entryAge === 'new',
    isClockFresh: at.freshness(kind.lifeUnit),
    nowMs: at.nowMs,
    cutoffMs: at.cutoffMs,
  })
  return {
    row,
    kind,
    rule,
    verdict,
    change: change && wantOf(row, at, { act: 'change', due: change, limit: rule?.changeLimit ?? 0 }),
    clean: clean && wantOf(row, at, { act: 'clean', due: clean, limit: rule?.cleanLimit ?? 0 }),
  }
}

function dueBy(
  row: PositionRow,
  at: JudgeAt,
  what: { act: 'change' | 'clean'; limit: number; sinceMs: number },
): Due | null {
  const unit = at.kind.lifeUnit
  const { schedule, nowMs } = at
  const { limit } = what
  if (!isMeasured(unit)) {
    const amount = what.act === 'clean' ? 0 : row[unit]
    return dueOf({ limit, base: { amount, estimated: 0, sd: 0 }, runOn: null, schedule, nowMs })
  }
  const base = (what.act === 'change' ? row.sinceFitted : row.sinceCleaned)?.[unit]
  const runOn: RunOn | null = at.head?.runOn[unit] ?? null
  if (!base || row.chainFromMs === null) return null
  if (!runOn) return dueOf({ limit, base, runOn: null, schedule, nowMs })
  const fromMs = Math.max(runOn.fromMs, what.sinceMs, row.chainFromMs)
  // A clock nobody has entered for ten working days stands: what it counted holds, what it would have counted is unknown.
  const perWorkedHour = at.freshness(unit) ? runOn.perWorkedHour : 0
  return dueOf({
    limit,
    base,
    runOn: { fromMs, perWorkedHour, dayCv: runOn.dayCv, days: runOn.days },
    schedule,
    nowMs,
  })
}

const MOSTLY = 0.5

function wantOf(row: PositionRow, at: JudgeAt, what: { act: 'change' | 'clean'; due: Due; limit: number }): FloorWant {
  const { act, due, limit } = what
  return {
    position: row.position,
    act,
    minutes: act === 'change' ? at.kind.changeMin : at.kind.cleanMin,
    used: thousandths(due.used),
    limit,
    unit: at.kind.lifeUnit,
    reachedMs: whole(due.reachedMs),
    earlyMs: whole(due.earlyMs),
    lateMs: whole(due.lateMs),
    shiftsOver: thousandths(shiftsOver(due, at.schedule, at.nowMs)),
    isEstimated: due.estimatedShare > MOSTLY,
  }
}
/** As fine as anyone reads it; all digits of a double double the answer's size. */
const thousandths = (n: number) => Math.round(n * 1000) / 1000
const whole = (ms: number | null) => (ms === null ? null : Math.max(0, Math.round(ms)))

export async function carrierNames(db: Reader, ids: readonly (string | null)[]): Promise<Map<string, string>> {
  const wanted = ids.filter((id): id is string => id !== null)
  const rows =
    wanted.length === 0
      ? []
      : await db.select({ id: carrier.id, name: carrier.name }).from(carrier).where(inArray(carrier.id, wanted))
  return new Map(rows.map((r) => [r.id, r.name]))
}
