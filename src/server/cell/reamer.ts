import { agentLeft, type TankLook } from '@core/cell/agent.ts'
import { cyclesIn, reaming, type ReamLook } from '@core/cell/reaming.ts'
import { ranOn } from '@core/clock/clock.ts'
import { usedOver } from '@core/clock/months.ts'
import { afterWorked } from '@core/clock/schedule.ts'
import { type KindKey } from '@core/path/columns.ts'
import { type CellFit } from '@core/rightparts/facts.ts'
import { type Built } from '@core/shop/built.ts'
import { DAY_MS, HOUR_MS, MIN_MS } from '@core/units/time.ts'
import { type CellLine } from '@contract/cell.ts'
import { type reading } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { type Surveyed } from '@server/floor/survey.ts'
import { closureHere } from '@server/gunnow/limit.ts'
import { usesSince, type HeadUse } from '@server/payback/usagein.ts'

type ReadingRow = typeof reading.$inferSelect
/** Looks at the reamer and its tank count for so long. */
export const REAMER_MS = 120 * DAY_MS
/** What a look means where no number stands beside it: guesses. */
const SHUT_BY_LOOK: Readonly<Record<string, number>> = { free: 0.05, clean: 0.03, ring: 0.15, third: 0.33, half: 0.55 }
const shutIn = ({ value, grade }: ReadingRow): number | null =>
  value !== null ? 1 - value : (SHUT_BY_LOOK[grade ?? ''] ?? null)

export interface ReamerAt {
  built: Built
  cell: CellFit
  readings: readonly ReadingRow[]
  use: HeadUse | undefined
  nowMs: number
}

/** What the heads of some cells used since the first look at their tanks. */
export const usesOfCells = (db: Reader, surveyed: readonly Surveyed[], nowMs: number) =>
  usesSince(
    db,
    surveyed.flatMap((s) => s.head ?? []),
    nowMs - REAMER_MS,
  )

/** Reamer, cutter and sprayer of one cell: what they have done, how often the reamer need come, what is in the tank. */
export function reamerOf(s: Surveyed, at: ReamerAt): CellLine['reamer'] {
  const { cell } = at
  return {
    blade: bladeOf(s, 'reamer', at),
    cutter: bladeOf(s, 'cutter', at),
    every: cell.reamEvery,
    reams: cell.reamEvery === null ? null : reamsOf(s, at, cell.reamEvery),
    tank: tankOf(s, at),
    fails: failsOf(s, at.readings),
  }
}

/** Arc hours and cycles that a blade has done since it went on; null: there is none, or nobody knows since when. */
function bladeOf(s: Surveyed, kindKey: KindKey, { cell, nowMs }: ReamerAt): CellLine['reamer']['blade'] {
  const of = s.positions.find((p) => p.kind.key === kindKey)
  const base = of?.row.sinceFitted?.arcHours?.amount
  if (!of || of.row.fittedMs === null || base === undefined) return null
  const runOn = s.head?.runOn.arcHours
  const since = { schedule: s.schedule, sinceMs: [of.row.fittedMs, of.row.chainFromMs ?? 0], nowMs }
  const arcHours = base + (runOn ? ranOn(runOn, since) : 0)
  return { arcHours, cycles: cyclesIn(arcHours, cell.cycleArcS), sinceMs: of.row.fittedMs }
}

/** Told twice within minutes it is one look at one ream: the last of them holds. */
const ROUND_MS = 10 * MIN_MS
const onePerRound = (readings: readonly ReadingRow[], what: ReadingRow['what']): ReadingRow[] =>
  readings.filter((r) => r.what === what).filter((r, i, all) => (all[i + 1]?.atMs ?? Infinity) - r.atMs >= ROUND_MS)

function reamsOf(s: Surveyed, { built, cell, readings }: ReamerAt, everyNow: number): CellLine['reamer']['reams'] {
  const bladeMs = s.positions.find((p) => p.kind.key === 'reamer')?.row.fittedMs ?? 0
  const wire = s.checked.setup.wire
  const due = onePerRound(readings, 'beforeReam').flatMap((r): ReamLook[] => {
    const shut = r.wireId === s.head?.spoolWireId ? shutIn(r) : null
    const cycles = r.madeFrom['cycles']
    return shut === null || typeof cycles !== 'number' ? [] : [{ closedShare: shut, cycles }]
  })
  const left = onePerRound(readings, 'afterReam').flatMap((r) => {
    const shut = r.atMs >= bladeMs ? shutIn(r) : null
    return shut === null ? [] : [shut]
  })
  const prior = closureHere(built, wire)
  return reaming({ everyNow, due, left, priorPerH: prior.perHour, cycleArcS: cell.cycleArcS })
}

/** What is left in the sprayer's tank, and when it is empty; null: it was never read, or nobody said what a shot takes. */
function tankOf(s: Surveyed, at: ReamerAt): CellLine['reamer']['tank'] {
  const { cell, nowMs } = at
  const { sprayMl, shotsPerReam, reamEvery, cycleArcS } = cell
  const read = at.readings.filter((r) => r.what === 'agentTank' && r.value !== null)
  const last = read.at(-1)
  if (!last) return null
  const arcH = (fromMs: number, toMs: number): number | null => {
    const { use } = at
    return use ? usedOver(use.days, { fromMs, toMs, schedule: s.schedule, runOn: use.runOn }).arcHours : null
  }
  const looks = read.map((r, i): TankLook => {
    const before = read[i - 1]
    const foundL = r.value ?? 0
    return { foundL, leftL: r.leftAt ?? foundL, arcHours: before ? arcH(before.atMs, r.atMs) : null }
  })
  const atLast = { readL: last.leftAt ?? last.value ?? 0, atMs: last.atMs }
  const sinceH = arcH(last.atMs, nowMs)
  if (sinceH === null || sprayMl === null || !shotsPerReam || reamEvery === null || cycleArcS === null)
    return { ...atLast, now: null }
  const left = agentLeft({ looks, sinceH, shotMl: sprayMl, shotsPerReam, reamEvery, cycleArcS })
  if (!left) return { ...atLast, now: null }
  const dateOf = (hours: number): number | null => {
    const rate = s.head?.runOn.arcHours?.perWorkedHour
    if (!rate || !Number.isFinite(hours)) return null
    const ms = afterWorked(s.schedule, nowMs, (hours / rate) * HOUR_MS)
    return ms === null ? null : Math.round(ms)
  }
  const { litres, low, high, n, times } = left
  return { ...atLast, now: { litres, low, high, n, times, emptyMs: dateOf(left.hours), earlyMs: dateOf(left.earlyH) } }
}

/** As long as it asks: starts that come to nothing, and how it was. */
function failsOf(s: Surveyed, readings: readonly ReadingRow[]): CellLine['reamer']['fails'] {
  if (!s.alarms.some((a) => a.what === 'failedStarts')) return null
  const last = readings.findLast((r) => r.what === 'failedStarts')
  if (!last || last.value === null) return null
  const [wellShare, sinceMs] = [last.madeFrom['wellShare'], last.madeFrom['sinceMs']]
  return {
    share: last.value,
    wellShare: typeof wellShare === 'number' ? wellShare : null,
    sinceMs: typeof sinceMs === 'number' ? sinceMs : last.atMs,
  }
}
