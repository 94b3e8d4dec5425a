import { HOUR_MS } from '@core/units/time.ts'
import { afterWorked, backWorked, workedMs, type Schedule } from '@core/clock/schedule.ts'
import { addRunOn, type Amount, type RunOn } from '@core/clock/clock.ts'
import { normalCdf, Z_80 } from '@core/stats/normal.ts'

/** A fixed-usage house rule: change or clean at this much use. */
export interface UsageLimit {
  act: 'change' | 'clean'
  limit: number
}
export interface DueInput {
  limit: number
  base: Amount
  runOn: RunOn | null
  schedule: Schedule | null
  nowMs: number
  /** The moment that `chanceBy` speaks of; now when left out. */
  byMs?: number
}
export interface Due {
  used: number
  usedSd: number
  usedFraction: number
  estimatedShare: number
  isReached: boolean
  /** Chance that use is at the limit by `byMs`: Φ((use then − limit) ÷ its standard error). */
  chanceBy: number
  /** When use reaches the limit at the present rate; in the past once reached; null when it stands still. */
  reachedMs: number | null
  earlyMs: number | null
  lateMs: number | null
}

/**
 * How far a part is through its limit and when it gets there. Use now = what the clock counted to its last entry plus the
 * run-on; the instant solves used + rate·t = limit in working time; early and late shift the use by ±1.28 of its standard
 * error at that instant, so the span holds about 8 in 10.
 */
export function dueOf(input: DueInput): Due {
  if (!(input.limit > 0)) throw new RangeError(`dueOf: expected limit > 0, got ${input.limit}`)
  const { runOn, schedule, nowMs, limit } = input
  const used = runOn ? addRunOn(input.base, runOn, workedMs(schedule, runOn.fromMs, nowMs)) : input.base
  const at = (shift: number) => reachedAt(input, used, shift)
  return {
    used: used.amount,
    usedSd: used.sd,
    usedFraction: used.amount / limit,
    estimatedShare: used.amount > 0 ? used.estimated / used.amount : 0,
    isReached: used.amount >= limit,
    chanceBy: chanceBy(input, used),
    reachedMs: at(0),
    earlyMs: at(Z_80),
    lateMs: at(-Z_80),
  }
}

function chanceBy(input: DueInput, used: Amount): number {
  const { runOn, schedule, byMs, limit, base } = input
  const then = runOn && byMs !== undefined ? addRunOn(base, runOn, workedMs(schedule, runOn.fromMs, byMs)) : used
  if (then.sd <= 0) return then.amount >= limit ? 1 : 0
  return normalCdf((then.amount - limit) / then.sd)
}

function reachedAt(input: DueInput, used: Amount, z: number): number | null {
  const { runOn, schedule, nowMs, limit } = input
  if (!runOn || runOn.perWorkedHour <= 0) return null
  const hoursTo = (limit - used.amount) / runOn.perWorkedHour
  const sd = spreadAt(input, used, Math.max(0, hoursTo))
  const shifted = hoursTo - (z * sd) / runOn.perWorkedHour
  if (shifted < 0) return backWorked(schedule, nowMs, -shifted * HOUR_MS)
  return afterWorked(schedule, nowMs, shifted * HOUR_MS)
}

function spreadAt(input: DueInput, used: Amount, hoursAhead: number): number {
  if (!input.runOn) return used.sd
  return addRunOn(used, input.runOn, hoursAhead * HOUR_MS).sd
}
