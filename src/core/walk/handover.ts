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

/** A gun that ran for less work than this between two stops has one trouble: what was done at the first did not help. */
const RAN_MS = HOUR_MS

/**
 * When the trouble of a gun that is down now began: with this stop, or with one before after which it hardly ran. Times in ms; `workedMs` is the work
 * there is between two instants.
 * @example troubleFromMs({ downSinceMs: 90, stops: [{ fromMs: 10, toMs: 80 }] }, (from, to) => to - from) // 10
 */
export function troubleFromMs(
  { downSinceMs, stops }: { downSinceMs: number; stops: readonly { fromMs: number; toMs: number | null }[] },
  workedMs: (fromMs: number, toMs: number) => number,
): number {
  let beganMs = downSinceMs
  for (const stop of [...stops].sort((a, b) => b.fromMs - a.fromMs)) {
    if (stop.fromMs >= beganMs) continue
    if (stop.toMs === null || workedMs(stop.toMs, beganMs) >= RAN_MS) break
    beganMs = stop.fromMs
  }
  return beganMs
}
