import { LOOKED_AT_DAYS } from '@core/cleaning/interval.ts'
import { type FamilyId } from '@core/ids/id.ts'
import { type HeadRow } from '@server/projection/rows.ts'
import { ranOn, type RunOn } from '@core/clock/clock.ts'
import { workingDays, type Schedule } from '@core/clock/schedule.ts'
import { shiftsOver } from '@core/floor/rank.ts'
import { stateOf, type PositionVerdict } from '@core/floor/state.ts'
import { dueOf, type Due } from '@core/houserule/due.ts'
import { lengthTimes, limitKm } from '@core/spools/bylength.ts'
import { linerAskedBy } from '@core/liner/clauses.ts'
import { judgeLiner, NO_EVIDENCE, type LinerVerdict } from '@core/liner/signs.ts'
import { isMeasured } from '@core/ledger/exposure.ts'
import { leavingIt, type Leaving } from '@core/life/kept.ts'
import { isToPutRight, type Alarm } from '@core/reading/alarms.ts'
import { type WireFacts } from '@core/rightparts/facts.ts'
import { type FloorWant } from '@contract/floor.ts'
import { type stationNow } from '@server/db/schema.ts'
import { keptKey, type KeptFits } from '@server/lifekept/kept.ts'
import { type CleaningHere } from '@server/gunnow/limit.ts'
import { type LinerHere } from '@server/gunnow/rulehere.ts'
import { type KindRow, type RuleRow, type ShopModel, type StationRow } from '@server/shopmodel/model.ts'
import { type PositionRow } from '@server/gunnow/positions.ts'

export interface SurveyedPosition {
  row: PositionRow
  kind: KindRow
  rule: RuleRow | null
  verdict: PositionVerdict
  change: FloorWant | null
  clean: FloorWant | null
  /** Chance that one of its limits is reached before the next window. */
  chanceBy: number
  /** Leaving it till this time tomorrow; null: its life is not known. */
  leave: Leaving | null
  /** Of a liner ruled by signs: what they say. */
  signs: LinerVerdict | null
}

const CLOCK_STALE_DAYS = 10

/** What holds for every position of one gun. */
export interface JudgeAt {
  station: StationRow
  /** Of the gun that hangs there: minutes go by it. */
  familyId: FamilyId | null
  now: typeof stationNow.$inferSelect
  head: HeadRow | null
  /** The wire that is on; null where nobody knows. */
  wire: WireFacts | null
  schedule: Schedule | null
  nowMs: number
  cutoffMs: number
  shop: ShopModel
  freshness: (unit: string) => boolean
  /** Positions with a finding that stops, and with one that harms or a reminder tied there. */
  wrong: ReadonlySet<string>
  questioned: ReadonlySet<string>
  /** How the nozzle is cleaned here. */
  cleaning: CleaningHere
  /** When the liner is changed here, and what speaks of the one that is in. */
  liner: LinerHere
  alarms: readonly Alarm[]
  /** How long parts last at places of its class. */
  fits: KeptFits
  /** Working hours until this time tomorrow. */
  aheadH: number
  /** One gun looked at closely: lives of parts without a limit are told too. */
  isClose: boolean
}

/** Has the counter behind a unit been entered within ten working days; told once per head, not per position. */
export function clockFreshness(
  head: HeadRow | null,
  schedule: Schedule | null,
  nowMs: number,
): (unit: string) => boolean {
  const known = new Map<string, boolean>()
  return (unit) => {
    const kept = known.get(unit)
    if (kept !== undefined) return kept
    const runOn = head && isMeasured(unit as 'kg') ? head.runOn[unit as 'kg'] : null
    const isFresh =
      !isMeasured(unit as 'kg') || (runOn != null && workingDays(schedule, runOn.fromMs, nowMs) <= CLOCK_STALE_DAYS)
    known.set(unit, isFresh)
    return isFresh
  }
}

/** State of one position, and its limits run on to now. */
export function judge(row: PositionRow, kind: KindRow, at: JudgeAt): SurveyedPosition {
  const rule = at.shop.ruleFor(kind.key, at.station.classKey)
  const limits = limitsOf(rule, kind, at.cleaning)
  const asLong = lengthTimes(kind, at.wire)
  const limit = (rule?.changeLimit ?? 0) * asLong
  const change =
    limit > 0 && row.fittedMs !== null ? dueBy(row, at, { kind, act: 'change', limit, sinceMs: row.fittedMs }) : null
  const clean =
    limits.clean !== null && row.cleanedMs !== null && row.fittedMs !== null
      ? dueBy(row, at, { kind, act: 'clean', limit: limits.clean, sinceMs: row.cleanedMs })
      : null
  const dues = [
    ...(change ? [{ act: 'change' as const, due: change }] : []),
    ...(clean ? [{ act: 'clean' as const, due: clean }] : []),
  ]
  const signs = kind.key === 'liner' ? linerSays(row, at, change) : null
  const hasLimit = Boolean(rule?.changeLimit ?? limits.clean)
  const verdict = verdictOf(row, at, { kind, dues, limits, hasLimit, signs })
  // With a sign its age is no longer what speaks.
  const leave = signs?.say === 'change' ? null : leavingHere(row, at, { kind, used: change?.used ?? null })
  return {
    row,
    kind,
    rule,
    verdict,
    change: changeWant(row, at, { kind, due: change, limit, leave, signs, verdict }),
    clean: clean && wantOf(row, at, { kind, act: 'clean', due: clean, limit: limits.clean ?? 0, ...limits }),
    chanceBy: Math.max(signs ? 0 : (change?.chanceBy ?? 0), clean?.chanceBy ?? 0),
    leave,
    signs,
  }
}

function verdictOf(
  row: PositionRow,
  at: JudgeAt,
  of: {
    kind: KindRow
    dues: { act: 'change' | 'clean'; due: Due }[]
    limits: ReturnType<typeof limitsOf>
    hasLimit: boolean
    signs: LinerVerdict | null
  },
): PositionVerdict {
  return stateOf({
    isOnGun: true,
    isDownHere: at.now.downSinceMs !== null && (at.now.downPosition ?? 'orings') === row.position,
    hasWrongPart: at.wrong.has(row.position),
    isQuestioned: at.questioned.has(row.position),
    isToPutRight: at.alarms.some((a) => a.at === row.position && isToPutRight(a, at.nowMs)),
    dues: of.dues,
    hasLimit: of.hasLimit,
    bySign: of.signs && { isChange: of.signs.say === 'change', sinceMs: of.signs.signs[0]?.atMs ?? null },
    lookEveryDays: of.limits.lookDays,
    confirmDays: of.kind.confirmDays,
    seenMs: row.seenMs,
    hasFittingDate: row.fittedMs !== null && row.entryAge === 'new',
    isClockFresh: at.freshness(of.kind.lifeUnit),
    nowMs: at.nowMs,
    cutoffMs: at.cutoffMs,
  })
}

/** The shop's rule for liners, where it goes by signs; null where it goes by use. */
function linerSays(row: PositionRow, at: JudgeAt, change: Due | null): LinerVerdict | null {
  const { liner, alarms } = at
  const by = linerAskedBy(liner.school)
  if (by === 'use') return null
  const { terms, evidence } = liner
  // The other schools wait until it stops: no sign opens a row, and use alone asks for a look.
  const on = by === 'signs' ? terms.on : []
  const isIn = row.fittedMs !== null
  const usedFraction = change?.usedFraction ?? null
  return judgeLiner(isIn ? evidence : NO_EVIDENCE, { terms: { ...terms, on }, alarms, usedFraction })
}

/** What its use and its signs ask for; null where neither is known. */
function changeWant(
  row: PositionRow,
  at: JudgeAt,
  of: {
    kind: KindRow
    due: Due | null
    limit: number
    leave: Leaving | null
    signs: LinerVerdict | null
    verdict: PositionVerdict
  },
): FloorWant | null {
  const { kind, limit, signs, verdict } = of
  const isSigned = signs?.say === 'change'
  const due = isSigned ? verdict.due : of.due
  if (!due) return null
  const want = wantOf(row, at, { kind, act: 'change', due, limit })
  const leave = told(of.leave)
  if (!signs) return { ...want, leave }
  return {
    ...want,
    leave,
    act: isSigned ? 'change' : 'look',
    signs: signs.signs.map(({ clause, n }) => ({ clause, n: n === null ? null : tenths(n) })),
  }
}

/** What the house rule sets, and for a nozzle what its cleaning school makes of it. */
function limitsOf(
  rule: RuleRow | null,
  kind: KindRow,
  cleaning: CleaningHere,
): { clean: number | null; foundN: number | null; lookDays: number | null } {
  const lookDays = rule?.lookDays ?? null
  if (kind.key !== 'nozzle' || kind.lifeUnit !== 'arcHours')
    return { clean: rule?.cleanLimit ?? null, foundN: null, lookDays }
  const { limit, way } = cleaning
  const days = way === 'hours' ? null : LOOKED_AT_DAYS[way]
  return {
    clean: limit?.hours ?? null,
    foundN: limit?.by === 'found' ? limit.n : null,
    lookDays: days === null ? lookDays : Math.min(lookDays ?? days, days),
  }
}

function dueBy(
  row: PositionRow,
  at: JudgeAt,
  what: { kind: KindRow; act: 'change' | 'clean'; limit: number; sinceMs: number },
): Due | null {
  const unit = what.kind.lifeUnit
  const { schedule, nowMs, cutoffMs: byMs } = at
  const { limit } = what
  if (!isMeasured(unit)) {
    const amount = what.act === 'clean' ? 0 : row[unit]
    return dueOf({ limit, base: { amount, estimated: 0, sd: 0 }, runOn: null, schedule, nowMs, byMs })
  }
  const base = (what.act === 'change' ? row.sinceFitted : row.sinceCleaned)?.[unit]
  const runOn: RunOn | null = at.head?.runOn[unit] ?? null
  if (!base || row.chainFromMs === null) return null
  if (!runOn) return dueOf({ limit, base, runOn: null, schedule, nowMs, byMs })
  const fromMs = Math.max(runOn.fromMs, what.sinceMs, row.chainFromMs)
  // A clock nobody has entered for ten working days stands: what it counted holds, what it would have counted is unknown.
  const perWorkedHour = at.freshness(unit) ? runOn.perWorkedHour : 0
  return dueOf({
    limit,
    base,
    runOn: { fromMs, perWorkedHour, dayCv: runOn.dayCv, days: runOn.days },
    schedule,
    nowMs,
    byMs,
  })
}

const told = (leave: Leaving | null) => leave && { chance: thousandths(leave.chance), minutes: tenths(leave.minutes) }

/** What a part at this age does until this time tomorrow, at the present rate of its head. */
function leavingHere(row: PositionRow, at: JudgeAt, of: { kind: KindRow; used: number | null }): Leaving | null {
  const unit = of.kind.lifeUnit
  const fit = at.fits.get(keptKey(of.kind.key, at.station.classKey))
  if (!fit || !isMeasured(unit) || row.fittedMs === null || at.now.isParked) return null
  if (of.used === null && !at.isClose) return null
  const runOn = at.head?.runOn[unit]
  const base = row.sinceFitted?.[unit]?.amount
  if (!runOn || base === undefined || row.chainFromMs === null || !at.freshness(unit)) return null
  const { schedule, nowMs } = at
  const used = of.used ?? base + ranOn(runOn, { schedule, sinceMs: [row.fittedMs, row.chainFromMs], nowMs })
  // Lives are kept as of one wire; with another it is the length that counts.
  const asLong = lengthTimes(of.kind, at.wire)
  return leavingIt(fit, used / asLong, (at.aheadH * runOn.perWorkedHour) / asLong)
}

const MOSTLY = 0.5

function wantOf(
  row: PositionRow,
  at: JudgeAt,
  what: { kind: KindRow; act: 'change' | 'clean'; due: Due; limit: number; foundN?: number | null },
): FloorWant {
  const { kind, act, due, limit } = what
  return {
    position: row.position,
    act,
    minutes: act === 'change' ? tenths(at.shop.changeMinOf(kind.key, at.familyId)) : kind.cleanMin,
    used: thousandths(due.used),
    limit: what.foundN ? thousandths(limit) : limit,
    unit: kind.lifeUnit,
    reachedMs: whole(due.reachedMs),
    earlyMs: whole(due.earlyMs),
    lateMs: whole(due.lateMs),
    shiftsOver: thousandths(shiftsOver(due, at.schedule, at.nowMs)),
    isEstimated: due.estimatedShare > MOSTLY,
    foundN: what.foundN ?? null,
    limitKm: act === 'change' ? limitKm(limit, kind, at.wire) : null,
    leave: null,
    signs: [],
  }
}
/** As fine as anyone reads it; all digits of a double double the answer's size. */
const tenths = (n: number) => Math.round(n * 10) / 10
const thousandths = (n: number) => Math.round(n * 1000) / 1000
const whole = (ms: number | null) => (ms === null ? null : Math.max(0, Math.round(ms)))
