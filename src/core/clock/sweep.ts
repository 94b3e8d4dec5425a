import { rankOf, type Counter, type UsageSource } from './source.ts'
import { workedMs, type Schedule, type Span } from './schedule.ts'

/** An amount used between two instants, as one source tells it. */
export interface UsageSpan extends Span {
  amount: number
  source: UsageSource
  loggedMs: number
}
/** A stretch of the clock told by one source. */
export interface ClockPiece extends Span {
  amount: number
  source: UsageSource
}

/** How much of a stretch lies in a part of it, by working time; by the clock on the wall where nobody works in all of it. */
export function share(schedule: Schedule | null, part: Span, whole: Span): number {
  const worked = workedMs(schedule, whole.fromMs, whole.toMs)
  if (worked > 0) return workedMs(schedule, part.fromMs, part.toMs) / worked
  return (part.toMs - part.fromMs) / (whole.toMs - whole.fromMs)
}

/**
 * For each moment the best source that covers it; of equals the one logged last, so a corrected total wins over the first.
 * Amounts spread over the working time of their span. O(n log n + n·m), m the spans that overlap at once (a few); where none do, as with totals of
 * one shift after the other, each is its own piece.
 */
export function bestPieces(counter: Counter, spans: readonly UsageSpan[], schedule: Schedule | null): ClockPiece[] {
  const usable = spans.filter((s) => rankOf(counter, s.source) < Infinity && s.toMs > s.fromMs)
  const sorted = [...usable].sort((a, b) => a.fromMs - b.fromMs)
  if (sorted.every((s, i) => i === 0 || s.fromMs >= (sorted[i - 1]?.toMs ?? 0)))
    return sorted.map(({ fromMs, toMs, amount, source }) => ({ fromMs, toMs, amount, source }))
  const edges = [...new Set(sorted.flatMap((s) => [s.fromMs, s.toMs]))].sort((a, b) => a - b)
  const pieces: ClockPiece[] = []
  let open: UsageSpan[] = []
  let next = 0
  let last: UsageSpan | null = null
  for (let i = 0; i + 1 < edges.length; i++) {
    const part = { fromMs: edges[i] ?? 0, toMs: edges[i + 1] ?? 0 }
    open = open.filter((s) => s.toMs > part.fromMs)
    while (next < sorted.length && (sorted[next]?.fromMs ?? Infinity) <= part.fromMs)
      open.push(sorted[next++] as UsageSpan)
    const best = winner(counter, open)
    if (best)
      appendPiece(
        pieces,
        { ...part, amount: best.amount * share(schedule, part, best), source: best.source },
        best === last,
      )
    last = best
  }
  return pieces
}

function winner(counter: Counter, open: readonly UsageSpan[]): UsageSpan | null {
  let best: UsageSpan | null = null
  for (const span of open) {
    if (!best || isBetter(counter, span, best)) best = span
  }
  return best
}

function isBetter(counter: Counter, span: UsageSpan, best: UsageSpan): boolean {
  const rank = rankOf(counter, span.source) - rankOf(counter, best.source)
  if (rank !== 0) return rank < 0
  if (span.loggedMs !== best.loggedMs) return span.loggedMs > best.loggedMs
  return span.toMs - span.fromMs < best.toMs - best.fromMs
}

/** Pieces of one span that only a boundary of a weaker span cut are joined again. */
function appendPiece(pieces: ClockPiece[], piece: ClockPiece, isSameSpan: boolean): void {
  const before = pieces.at(-1)
  if (isSameSpan && before && before.toMs === piece.fromMs) {
    before.toMs = piece.toMs
    before.amount += piece.amount
  } else pieces.push(piece)
}
