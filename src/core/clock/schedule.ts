import { DAY_MS, HOUR_MS } from '@core/units/time.ts'

/**
 * Working time as disjoint stretches in UTC. Clocks run only inside them; `null` stands for "no pattern known", and
 * then wall time is working time. Instants are UTC milliseconds.
 */
/** Where nobody has told the shifts: one a day, five days in seven. */
export const USUAL_SHIFTS_A_DAY = 5 / 7

export interface Span {
  fromMs: number
  toMs: number
}
export interface Schedule {
  spans: readonly Span[]
  workedBeforeMs: Float64Array
}

/** Sorts, checks and joins stretches. Overlaps are joined; an empty or reversed one is misuse. */
export function makeSchedule(stretches: readonly Span[]): Schedule {
  const sorted = [...stretches].sort((a, b) => a.fromMs - b.fromMs)
  const spans: Span[] = []
  for (const stretch of sorted) {
    if (!(stretch.toMs > stretch.fromMs))
      throw new RangeError(`makeSchedule: expected toMs > fromMs, got ${stretch.fromMs}…${stretch.toMs}`)
    const last = spans.at(-1)
    if (last && stretch.fromMs < last.toMs) last.toMs = Math.max(last.toMs, stretch.toMs)
    else spans.push({ ...stretch })
  }
  const workedBeforeMs = new Float64Array(spans.length + 1)
  spans.forEach((span, i) => (workedBeforeMs[i + 1] = (workedBeforeMs[i] ?? 0) + span.toMs - span.fromMs))
  return { spans, workedBeforeMs }
}

/** Index of the first stretch that ends after `atMs`. */
function stretchAfter(schedule: Schedule, atMs: number): number {
  let low = 0
  let high = schedule.spans.length
  while (low < high) {
    const mid = (low + high) >> 1
    if ((schedule.spans[mid]?.toMs ?? Infinity) > atMs) high = mid
    else low = mid + 1
  }
  return low
}

/** Working time from the start of the schedule to an instant, in ms. */
function workedUntilMs(schedule: Schedule, atMs: number): number {
  const i = stretchAfter(schedule, atMs)
  const span = schedule.spans[i]
  return (schedule.workedBeforeMs[i] ?? 0) + (span ? Math.max(0, atMs - span.fromMs) : 0)
}

/** Working time between two instants, in ms; wall time when no pattern is known. Never negative. */
export function workedMs(schedule: Schedule | null, fromMs: number, toMs: number): number {
  if (toMs <= fromMs) return 0
  if (!schedule) return toMs - fromMs
  return workedUntilMs(schedule, toMs) - workedUntilMs(schedule, fromMs)
}

/** The first instant by which `targetMs` of working time has passed since the schedule began; null past its end. */
function instantAt(schedule: Schedule, targetMs: number): number | null {
  let low = 0
  let high = schedule.spans.length
  while (low < high) {
    const mid = (low + high) >> 1
    if ((schedule.workedBeforeMs[mid + 1] ?? Infinity) >= targetMs) high = mid
    else low = mid + 1
  }
  const span = schedule.spans[low]
  return span ? span.fromMs + targetMs - (schedule.workedBeforeMs[low] ?? 0) : null
}

/** The instant at which `amountMs` of working time has passed since `fromMs`; null when the schedule ends before. */
export function afterWorked(schedule: Schedule | null, fromMs: number, amountMs: number): number | null {
  if (!schedule) return fromMs + amountMs
  if (amountMs <= 0) return fromMs
  return instantAt(schedule, workedUntilMs(schedule, fromMs) + amountMs)
}

/** The instant from which `amountMs` of working time has passed until `toMs`; the schedule's start at the earliest. */
export function backWorked(schedule: Schedule | null, toMs: number, amountMs: number): number {
  if (!schedule) return toMs - amountMs
  const target = workedUntilMs(schedule, toMs) - amountMs
  if (target <= 0) return schedule.spans[0]?.fromMs ?? toMs
  return instantAt(schedule, target) ?? toMs
}

/** Days with work in them, counted in steps of 24 h from an instant; without a pattern five days of seven. */
export function workingDays(schedule: Schedule | null, fromMs: number, toMs: number): number {
  const dayMs = DAY_MS
  if (!schedule) return Math.max(0, ((toMs - fromMs) / dayMs) * USUAL_SHIFTS_A_DAY)
  let days = 0
  for (let at = fromMs; at < toMs && days < 400; at += dayMs)
    if (workedMs(schedule, at, Math.min(at + dayMs, toMs)) > 0) days++
  return days
}

const SHORT_NOTICE_MS = 10 * 60_000
const NO_PATTERN_AHEAD_MS = 4 * HOUR_MS

/**
 * The next moment when guns stand still anyway: the end of the stretch being worked, or of the next one before work.
 * A stretch with less than ten minutes left is skipped: nobody can act before it ends.
 */
export function nextWindow(schedule: Schedule | null, nowMs: number): { atMs: number; isKnown: boolean } {
  const first = schedule ? stretchAfter(schedule, nowMs) : -1
  const span = schedule?.spans[first]
  if (!schedule || !span) return { atMs: nowMs + NO_PATTERN_AHEAD_MS, isKnown: false }
  const next = schedule.spans[first + 1]
  const isShort = span.fromMs <= nowMs && span.toMs - nowMs < SHORT_NOTICE_MS
  return { atMs: isShort && next ? next.toMs : span.toMs, isKnown: true }
}

const LONGEST_BREAK_MS = 90 * 60_000
const LONGEST_SHIFT_MS = 10 * HOUR_MS

/**
 * The end of the shift an instant lies in: breaks up to 90 minutes are inside a shift; where shift follows shift without a
 * gap, ten hours after the instant. Without a pattern, ten hours too.
 */
export function shiftEndMs(schedule: Schedule | null, atMs: number): number {
  const latest = atMs + LONGEST_SHIFT_MS
  if (!schedule) return latest
  let i = stretchAfter(schedule, atMs)
  let endMs = schedule.spans[i]?.toMs ?? latest
  while (endMs < latest) {
    const next = schedule.spans[++i]
    if (!next || next.fromMs - endMs > LONGEST_BREAK_MS) break
    endMs = next.toMs
  }
  return Math.min(endMs, latest)
}
