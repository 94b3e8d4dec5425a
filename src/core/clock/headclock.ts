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
}

export interface SpoolLoad {
  atMs: number
  labelKg: number
  loggedMs: number
  leftKg?: number | null
}

/**
 * Spool loads as usage: when the next spool goes on, the one before has been used but for what was left on it.
 * The spool that is on now says nothing yet. Loads at the same instant count once, the later-logged one.
 */
export function spoolUsage(loads: readonly SpoolLoad[]): UsageEntry[] {
  const sorted = [...loads].sort((a, b) => a.atMs - b.atMs || a.loggedMs - b.loggedMs)
  const distinct = sorted.filter((load, i) => sorted[i + 1]?.atMs !== load.atMs)
  return distinct.slice(0, -1).map((load, i) => {
    const next = distinct[i + 1] as SpoolLoad
    const kg = Math.max(0, load.labelKg - (next.leftKg ?? 0))
    return {
      fromMs: load.atMs,
      toMs: next.atMs,
      source: 'label',
      loggedMs: next.loggedMs,
      kg,
      arcHours: null,
      starts: null,
    }
  })
}

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
  const kg = spansOf('kg', entries)
  const arcHours = spansOf('arcHours', entries)
  const toKg = kgPerArcHour ? converted(arcHours, kgPerArcHour) : []
  const toHours = kgPerArcHour ? converted(kg, 1 / kgPerArcHour) : []
  return {
    kg: buildClock('kg', [...kg, ...toKg], schedule),
    arcHours: buildClock('arcHours', [...arcHours, ...toHours], schedule),
    starts: buildClock('starts', spansOf('starts', entries), schedule),
  }
}

export interface Disagreement {
  better: UsageSource
  weaker: UsageSource
  betterAmount: number
  weakerAmount: number
}
const SHOWN_ABOVE = 0.15

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
