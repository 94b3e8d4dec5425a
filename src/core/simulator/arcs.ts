import { makeRandom } from '@core/random/random.ts'

/**
 * A feeder's arcs as a function of time: the same feeder and moment always give the same, so that one that was unplugged and
 * one that was not can be held against each other. Arcs come in stretches of some ten to ninety seconds with pauses between.
 */
export interface ArcPlan {
  /** Tells feeders apart. */
  seed: number
  /** Share of the time in which an arc burns, 0–1. */
  duty: number
  wireMPerMin: number
}
export interface Counters {
  wireFedM: number
  arcOnS: number
  arcStarts: number
}

const BLOCK_MS = 120_000

/** Arc stretches in the two-minute block that begins at `blockMs`, as [from, to) in ms. */
function arcsIn(plan: ArcPlan, blockMs: number): [number, number][] {
  const random = makeRandom((plan.seed * 7919 + Math.floor(blockMs / BLOCK_MS)) >>> 0)
  if (random() > Math.min(1, plan.duty * 1.6)) return []
  const length = Math.round(BLOCK_MS * Math.min(0.9, 0.625 * (0.6 + 0.8 * random())))
  const start = blockMs + Math.floor(random() * (BLOCK_MS - length))
  return [[start, start + length]]
}

/** What a feeder uses between two moments: Σ of arc time; wire = speed × arc time; a start for each arc that begins inside. */
export function usedByArcs(plan: ArcPlan, fromMs: number, toMs: number): Counters {
  if (toMs < fromMs) throw new RangeError(`usedByArcs: expected toMs >= fromMs, got ${fromMs}…${toMs}`)
  let arcMs = 0
  let arcStarts = 0
  for (let blockMs = Math.floor(fromMs / BLOCK_MS) * BLOCK_MS; blockMs < toMs; blockMs += BLOCK_MS)
    for (const [a, b] of arcsIn(plan, blockMs)) {
      arcMs += Math.max(0, Math.min(b, toMs) - Math.max(a, fromMs))
      if (a >= fromMs && a < toMs) arcStarts++
    }
  return { arcOnS: arcMs / 1000, wireFedM: (arcMs / 60_000) * plan.wireMPerMin, arcStarts }
}

/** The moments at which arcs began to burn, from one moment to another. */
export function arcStartsIn(plan: ArcPlan, fromMs: number, toMs: number): number[] {
  const starts: number[] = []
  for (let blockMs = Math.floor(fromMs / BLOCK_MS) * BLOCK_MS; blockMs < toMs; blockMs += BLOCK_MS)
    for (const [a] of arcsIn(plan, blockMs)) if (a >= fromMs && a < toMs) starts.push(a)
  return starts
}

/** The stretch of arc that burns at a moment, as [from, to) in ms; null: none does. */
export const arcStretchAt = (plan: ArcPlan, atMs: number): [number, number] | null =>
  arcsIn(plan, Math.floor(atMs / BLOCK_MS) * BLOCK_MS).find(([a, b]) => atMs >= a && atMs < b) ?? null

export const isArcAt = (plan: ArcPlan, atMs: number): boolean => arcStretchAt(plan, atMs) !== null
