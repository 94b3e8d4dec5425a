import { buildClock, type Clock } from './clock.ts'
import { bestPieces, type UsageSpan } from './sweep.ts'
import { type Schedule } from './schedule.ts'
import { rankOf, type Counter, type UsageSource } from './source.ts'

/** One entry as kept: a stretch of time with any of the three counts. */
export interface UsageEntry {
  fromMs: number
  toMs: number
  source: UsageSource
  loggedMs: number
  kg: number | null
  arcHours: number | null
  starts: number | null
}
export interface HeadClocks {
  kg: Clock | null
  arcHours: Clock | null
  starts: Clock | null
  /** Length of wire; left out where no kind of part of the shop goes by it. */
  km?: Clock | null
}

export interface SpoolLoad {
  atMs: number
  labelKg: number
  loggedMs: number
  /** What was left on the spool before this one. */
  leftKg?: number | null
  /** When it came off again, and what was then left on it. */
  offMs?: number | null
  offLeftKg?: number | null
  /** What was found on it while it hung there. */
  reads?: readonly { atMs: number; kg: number; loggedMs: number; isWeighed: boolean }[]
}
interface Mark {
  atMs: number
  kg: number
  loggedMs: number
  isWeighed: boolean
}

/**
 * Spool loads as usage: what was on a spool at one mark (its label, a weighing) less what was on it at the next (a weighing,
 * what was left when it came off; nothing left when the next one went on and nobody said). The spool that is on now tells as
 * far as it was read. Between two weighings the source is "weighed". Loads at the same instant count once, the later-logged one.
 */
export function spoolUsage(loads: readonly SpoolLoad[]): UsageEntry[] {
  const sorted = [...loads].sort((a, b) => a.atMs - b.atMs || a.loggedMs - b.loggedMs)
  const distinct = sorted.filter((load, i) => sorted[i + 1]?.atMs !== load.atMs)
  return distinct.flatMap((load, i) => {
    const marks = marksOf(load, distinct[i + 1])
    return marks.slice(1).map((mark, j) => between(marks[j] as Mark, mark))
  })
}

function marksOf(load: SpoolLoad, next: SpoolLoad | undefined): Mark[] {
  const endMs = load.offMs ?? next?.atMs ?? Infinity
  const start: Mark = { atMs: load.atMs, kg: load.labelKg, loggedMs: load.loggedMs, isWeighed: false }
  const reads = (load.reads ?? []).filter((r) => r.atMs > load.atMs && r.atMs < endMs)
  const known = [start, ...[...reads].sort((a, b) => a.atMs - b.atMs)]
  // Read twice in half an hour it is the same wire read better, not wire that ran off.
  const apart = known.filter((mark, i) => (known[i + 1]?.atMs ?? Infinity) - mark.atMs >= SAME_WIRE_MS)
  return [...apart, ...endOf(load, next)]
}
const SAME_WIRE_MS = 30 * 60_000

function endOf(load: SpoolLoad, next: SpoolLoad | undefined): Mark[] {
  if (typeof load.offMs === 'number') {
    if (typeof load.offLeftKg !== 'number') return []
    return [{ atMs: load.offMs, kg: load.offLeftKg, loggedMs: load.loggedMs, isWeighed: false }]
  }
  return next ? [{ atMs: next.atMs, kg: next.leftKg ?? 0, loggedMs: next.loggedMs, isWeighed: false }] : []
}

const between = (from: Mark, to: Mark): UsageEntry => ({
  fromMs: from.atMs,
  toMs: to.atMs,
  source: from.isWeighed && to.isWeighed ? 'weighed' : 'label',
  loggedMs: Math.max(from.loggedMs, to.loggedMs),
  kg: Math.max(0, from.kg - to.kg),
  arcHours: null,
  starts: null,
})

function spansOf(counter: Counter, entries: readonly UsageEntry[]): UsageSpan[] {
  return entries.flatMap((entry) => {
    const amount = entry[counter]
    return amount === null
      ? []
      : [{ fromMs: entry.fromMs, toMs: entry.toMs, amount, source: entry.source, loggedMs: entry.loggedMs }]
  })
}

function converted(spans: readonly UsageSpan[], factor: number): UsageSpan[] {
  return spans.map((span) => ({ ...span, amount: span.amount * factor, source: 'converted' as const }))
}

/**
 * The three clocks of a head. Where one of kg and arc hours is missing it comes from the other by the station's own
 * kg per arc hour (wire and wire speed); starts are never invented.
 * @param kgPerArcHour null when wire or speed is not known: then nothing is converted
 */
export function buildHeadClocks(
  entries: readonly UsageEntry[],
  kgPerArcHour: number | null,
  schedule: Schedule | null,
): HeadClocks {
  return {
    ...buildWeldClocks(entries, kgPerArcHour, schedule),
    starts: buildClock('starts', spansOf('starts', entries), schedule),
  }
}
/** The two of them that tell how much was welded. */
function buildWeldClocks(
  entries: readonly UsageEntry[],
  kgPerArcHour: number | null,
  schedule: Schedule | null,
): Omit<HeadClocks, 'starts'> {
  const kg = spansOf('kg', entries)
  const arcHours = spansOf('arcHours', entries)
  const toKg = kgPerArcHour ? converted(arcHours, kgPerArcHour) : []
  const toHours = kgPerArcHour ? converted(kg, 1 / kgPerArcHour) : []
  return {
    kg: buildClock('kg', [...kg, ...toKg], schedule),
    arcHours: buildClock('arcHours', [...arcHours, ...toHours], schedule),
  }
}

export interface Disagreement {
  better: UsageSource
  weaker: UsageSource
  betterAmount: number
  weakerAmount: number
}
const SHOWN_ABOVE = 0.15

/** Of kilos and of arc hours: what a weaker source says against a better one, as a share over (or under) it. */
export const disagreementsOf = (
  entries: readonly UsageEntry[],
  schedule: Schedule | null,
): { better: UsageSource; weaker: UsageSource; overFraction: number }[] =>
  (['kg', 'arcHours'] as const).flatMap((counter) =>
    sourceDisagreement(counter, entries, schedule).map(({ better, weaker, weakerAmount, betterAmount }) => ({
      better,
      weaker,
      overFraction: weakerAmount / betterAmount - 1,
    })),
  )

/**
 * Where two sources tell of the same time, does the weaker differ from the better one by over 15%?
 * Only spans that better ones cover wholly are compared.
 */
export function sourceDisagreement(
  counter: Counter,
  entries: readonly UsageEntry[],
  schedule: Schedule | null,
): Disagreement[] {
  const spans = spansOf(counter, entries)
  const sources = [...new Set(spans.map((s) => s.source))].sort((a, b) => rankOf(counter, a) - rankOf(counter, b))
  return sources.slice(1).flatMap((weaker) => {
    const better = sources[0] as UsageSource
    const pieces = bestPieces(
      counter,
      spans.filter((s) => s.source === better),
      schedule,
    )
    const sums = spans
      .filter((s) => s.source === weaker)
      .reduce((acc, span) => addCovered(acc, span, pieces), { betterAmount: 0, weakerAmount: 0 })
    const isFar = sums.betterAmount > 0 && Math.abs(sums.weakerAmount / sums.betterAmount - 1) > SHOWN_ABOVE
    return isFar ? [{ better, weaker, ...sums }] : []
  })
}

function addCovered(
  acc: { betterAmount: number; weakerAmount: number },
  span: UsageSpan,
  pieces: readonly { fromMs: number; toMs: number; amount: number }[],
): { betterAmount: number; weakerAmount: number } {
  const inside = pieces.filter((piece) => piece.fromMs >= span.fromMs && piece.toMs <= span.toMs)
  const coveredMs = inside.reduce((sum, piece) => sum + piece.toMs - piece.fromMs, 0)
  if (coveredMs < (span.toMs - span.fromMs) * 0.999) return acc
  const amount = inside.reduce((sum, piece) => sum + piece.amount, 0)
  return { betterAmount: acc.betterAmount + amount, weakerAmount: acc.weakerAmount + span.amount }
}
