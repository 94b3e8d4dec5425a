import { HOUR_MS } from '@core/units/time.ts'
import { type Schedule, type Span } from '@core/clock/schedule.ts'

/** A gap up to this long is a break, not the end of work. */
const BREAK_MS = 2 * HOUR_MS
/** What is handed over is no more than a long shift of it. */
const MOST_MS = 10 * HOUR_MS

/**
 * The stretch of work that is handed over: the one that runs, up to now, else the last one that ended; breaks do not cut it, and of round the
 * clock it is the last ten hours. Without a pattern of shifts: the last ten hours.
 */
export function handOverSpan(schedule: Schedule | null, nowMs: number): Span {
  const before = (schedule?.spans ?? []).filter((s) => s.fromMs <= nowMs)
  const last = before.at(-1)
  if (!last) return { fromMs: nowMs - MOST_MS, toMs: nowMs }
  const toMs = Math.min(last.toMs, nowMs)
  let fromMs = last.fromMs
  for (const span of [...before].reverse()) {
    if (fromMs - span.toMs > BREAK_MS) break
    fromMs = Math.min(fromMs, span.fromMs)
  }
  return { fromMs: Math.max(fromMs, toMs - MOST_MS), toMs }
}
