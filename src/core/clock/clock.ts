import { HOUR_MS } from '@core/units/time.ts'
import { bestPieces, share, type ClockPiece, type UsageSpan } from './sweep.ts'
import { isEstimate, SOURCE_SPREAD, type Clocked, type Counter, type UsageSource } from './source.ts'
import { workedMs, type Schedule } from './schedule.ts'

/**
 * The clock of one feeder head and counter.
 * 1. Monotone in time: later never reads less. (A late entry may lower what today reads.)
 * 2. Piecewise linear in working time; outside working time it stands, unless an entry covers only such time.
 * 3. Best source wins per moment; entries marked estimate stay marked through every sum.
 * 4. Holes of a day or more with working time in them are filled at the clock's own mean rate, as estimate;
 *    shorter holes are shifts in which nobody entered anything because nothing ran.
 * 5. Past the last entry it runs on at the mean rate of the last 14 working days, as estimate.
 */
export interface Clock {
  counter: Clocked
  pieces: readonly ClockPiece[]
  /** Totals before piece i: amount, estimated part, and amount × spread. */
  totals: { amount: Float64Array; estimated: Float64Array; spread: Float64Array }
  schedule: Schedule | null
  runOn: RunOn
}
export interface RunOn {
  fromMs: number
  perWorkedHour: number
  dayCv: number
  days: number
}
/** What it takes to say what a clock used past its end. */
export type ClockEnd = Pick<RunOn, 'fromMs' | 'perWorkedHour'>
export interface Amount {
  amount: number
  estimated: number
  sd: number
}

const DAY_MS = 24 * HOUR_MS
const WORKING_DAYS = 14
/** Spread of one day's usage about its mean when there are too few days to tell; a guess. */
const GUESS_DAY_CV = 0.6
/** Entries typed as the same round number every day do not make tomorrow certain. */
const LEAST_DAY_CV = 0.1

/** Builds a clock from entries; null when no entry says anything about this counter. */
export function buildClock(counter: Counter, spans: readonly UsageSpan[], schedule: Schedule | null): Clock | null {
  const pieces = fillHoles(bestPieces(counter, spans, schedule), schedule)
  return pieces.length === 0 ? null : clockOf(counter, pieces, schedule)
}

/** A clock of pieces that follow on each other; at least one. */
export function clockOf(counter: Clocked, pieces: readonly ClockPiece[], schedule: Schedule | null): Clock {
  const totals = {
    amount: new Float64Array(pieces.length + 1),
    estimated: new Float64Array(pieces.length + 1),
    spread: new Float64Array(pieces.length + 1),
  }
  pieces.forEach((piece, i) => {
    totals.amount[i + 1] = (totals.amount[i] ?? 0) + piece.amount
    totals.estimated[i + 1] = (totals.estimated[i] ?? 0) + (isEstimate(piece.source) ? piece.amount : 0)
    totals.spread[i + 1] = (totals.spread[i] ?? 0) + piece.amount * SOURCE_SPREAD[piece.source]
  })
  const clock = {
    counter,
    pieces,
    totals,
    schedule,
    runOn: { fromMs: 0, perWorkedHour: 0, dayCv: GUESS_DAY_CV, days: 0 },
  }
  return { ...clock, runOn: runOnOf(clock) }
}

function fillHoles(pieces: readonly ClockPiece[], schedule: Schedule | null): ClockPiece[] {
  if (!schedule || pieces.length < 2) return [...pieces]
  const isHole = (a: ClockPiece, b: ClockPiece) =>
    b.fromMs - a.toMs >= DAY_MS && workedMs(schedule, a.toMs, b.fromMs) > 0
  let holesMs = 0
  pieces.forEach((piece, i) => {
    const after = pieces[i + 1]
    if (after && isHole(piece, after)) holesMs += workedMs(schedule, piece.toMs, after.fromMs)
  })
  const knownMs = workedMs(schedule, pieces[0]?.fromMs ?? 0, pieces.at(-1)?.toMs ?? 0) - holesMs
  if (holesMs === 0 || knownMs <= 0) return [...pieces]
  const perMs = pieces.reduce((sum, piece) => sum + piece.amount, 0) / knownMs
  return pieces.flatMap((piece, i) => {
    const after = pieces[i + 1]
    if (!after || !isHole(piece, after)) return [piece]
    const amount = perMs * workedMs(schedule, piece.toMs, after.fromMs)
    return [piece, { fromMs: piece.toMs, toMs: after.fromMs, amount, source: 'rate' as const }]
  })
}

/** Mean and spread of the last 14 working days: days with working time when a pattern is known, else days with usage. */
function runOnOf(clock: Clock): RunOn {
  const endMs = clock.pieces.at(-1)?.toMs ?? 0
  const startMs = clock.pieces[0]?.fromMs ?? 0
  const days: number[] = []
  let fromMs = endMs
  while (fromMs > startMs && days.length < WORKING_DAYS) {
    const dayStart = Math.max(startMs, fromMs - DAY_MS)
    const used = readInside(clock, fromMs).amount - readInside(clock, dayStart).amount
    const isWorking = clock.schedule ? workedMs(clock.schedule, dayStart, fromMs) > 0 : used > 0
    if (isWorking) days.push(used)
    fromMs = dayStart
  }
  const total = days.reduce((sum, day) => sum + day, 0)
  const worked = workedMs(clock.schedule, fromMs, endMs) || endMs - fromMs
  return { fromMs: endMs, perWorkedHour: (total / worked) * HOUR_MS, dayCv: cvOf(days), days: days.length }
}

function cvOf(days: readonly number[]): number {
  if (days.length < 4) return GUESS_DAY_CV
  const mean = days.reduce((sum, day) => sum + day, 0) / days.length
  if (mean === 0) return GUESS_DAY_CV
  const variance = days.reduce((sum, day) => sum + (day - mean) ** 2, 0) / (days.length - 1)
  return Math.max(LEAST_DAY_CV, Math.sqrt(variance) / mean)
}

function pieceAt(clock: Clock, atMs: number): number {
  let low = 0
  let high = clock.pieces.length
  while (low < high) {
    const mid = (low + high) >> 1
    if ((clock.pieces[mid]?.toMs ?? Infinity) > atMs) high = mid
    else low = mid + 1
  }
  return low
}

/** The clock between its first and last entry; `sd` here is the running sum of amount × spread. */
function readInside(clock: Clock, atMs: number): Amount {
  const i = pieceAt(clock, atMs)
  const piece = clock.pieces[i]
  const done =
    piece && atMs > piece.fromMs ? piece.amount * share(clock.schedule, { fromMs: piece.fromMs, toMs: atMs }, piece) : 0
  const source: UsageSource = piece?.source ?? 'telemetry'
  return {
    amount: (clock.totals.amount[i] ?? 0) + done,
    estimated: (clock.totals.estimated[i] ?? 0) + (isEstimate(source) ? done : 0),
    sd: (clock.totals.spread[i] ?? 0) + done * SOURCE_SPREAD[source],
  }
}

/**
 * What the clock reads at an instant, how much of it is estimated, and its standard error (sources taken as wholly
 * correlated within themselves: the safe side). 0 before the first entry.
 * @example clockAt(clock, Date.UTC(2026, 0, 5)) // { amount: 41.2, estimated: 0, sd: 2.1 }
 */
export function clockAt(clock: Clock, atMs: number): Amount {
  const inside = readInside(clock, Math.min(atMs, clock.runOn.fromMs))
  return addRunOn(inside, clock.runOn, workedMs(clock.schedule, clock.runOn.fromMs, atMs))
}

/** Usage between two instants; reversed instants are misuse. */
export function usedBetween(clock: Clock, fromMs: number, toMs: number): Amount {
  if (toMs < fromMs) throw new RangeError(`usedBetween: expected toMs >= fromMs, got ${fromMs}…${toMs}`)
  const a = readInside(clock, Math.min(fromMs, clock.runOn.fromMs))
  const b = readInside(clock, Math.min(toMs, clock.runOn.fromMs))
  const inside = { amount: b.amount - a.amount, estimated: b.estimated - a.estimated, sd: b.sd - a.sd }
  return addRunOn(inside, clock.runOn, workedMs(clock.schedule, Math.max(fromMs, clock.runOn.fromMs), toMs))
}

/** Mean working day in hours that the day-to-day spread belongs to. */
const HOURS_A_DAY = 8

/**
 * Adds what ran on since the last entry: rate × time, all of it estimated; variance = amount² · cv²·(1/days ahead + 1/days seen),
 * the first from day to day, the second from not knowing the mean.
 */
export function addRunOn(base: Amount, runOn: RunOn, workedSinceMs: number): Amount {
  const hours = workedSinceMs / HOUR_MS
  if (hours <= 0) return base
  const extra = hours * runOn.perWorkedHour
  const daysAhead = Math.max(hours / HOURS_A_DAY, 0.25)
  const sd = extra * runOn.dayCv * Math.sqrt(1 / daysAhead + 1 / Math.max(runOn.days, 1))
  return { amount: base.amount + extra, estimated: base.estimated + extra, sd: Math.hypot(base.sd, sd) }
}

/**
 * What ran on since the last entry, counted no earlier than what it is counted for: rate × time worked from the latest of these instants to now.
 * In the counter's own unit; nothing where the clock does not run on.
 */
export function ranOn(
  runOn: Pick<RunOn, 'fromMs' | 'perWorkedHour'> | null | undefined,
  at: { schedule: Schedule | null; sinceMs: readonly number[]; nowMs: number },
): number {
  if (!runOn) return 0
  const fromMs = Math.max(runOn.fromMs, ...at.sinceMs)
  return (workedMs(at.schedule, fromMs, at.nowMs) / HOUR_MS) * runOn.perWorkedHour
}
