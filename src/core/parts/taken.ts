import { Z_90 } from '@core/stats/normal.ts'
import { DAY_MS, HOUR_MS } from '@core/units/time.ts'

/**
 * How many parts left the crib, from things that cannot forget: two counts of the shelf, the weighed tin of old tips, the
 * purchase list. Each answer has a spread (one standard deviation) and the time it speaks of.
 */
export const TAKEN_SOURCES = ['counted', 'tin', 'bought'] as const
export type TakenSource = (typeof TAKEN_SOURCES)[number]

export interface Taken {
  source: TakenSource
  fromMs: number
  toMs: number
  taken: number
  sdTaken: number
}
interface At {
  atMs: number
  quantity: number
}

/** Counting a shelf is off by about one piece in a hundred: handfuls, a box that was not opened. */
const COUNT_ERROR = 0.01

/**
 * Between two counts of one part: taken = before + received − after. Spread: each count's own error. A stretch in which the
 * shelf grew without a delivery tells nothing and is left out.
 * @example takenByCounts({ counts: [{ atMs: 0, quantity: 100 }, { atMs: 9, quantity: 40 }], received: [] }) // 60
 */
export function takenByCounts(shelf: { counts: readonly At[]; received: readonly At[] }): Taken[] {
  const counts = [...shelf.counts].sort((a, b) => a.atMs - b.atMs)
  return counts.slice(1).flatMap((after, i) => {
    const before = counts[i]
    if (!before || before.atMs === after.atMs) return []
    const received = shelf.received
      .filter((r) => r.atMs > before.atMs && r.atMs <= after.atMs)
      .reduce((sum, r) => sum + r.quantity, 0)
    const taken = before.quantity + received - after.quantity
    if (taken < 0) return []
    const sdTaken = COUNT_ERROR * Math.hypot(before.quantity, after.quantity)
    return [{ source: 'counted' as const, fromMs: before.atMs, toMs: after.atMs, taken, sdTaken }]
  })
}

/** What was said of a part's shelves, place by place. */
export type ShelfSaid =
  | { said: 'counted' | 'received'; at: string; quantity: number; atMs: number }
  | { said: 'carried'; from: string; to: string; quantity: number; atMs: number }

/**
 * Taken from all places where a part lies. Each place between its own counts, what was carried from one to another counting as come in here and gone
 * there; over the days of the place that was counted longest, the others at their own pace in those days. What was carried to a place that was not
 * counted twice was taken, as far as anybody can tell. Counted again within half a day it is the same count, made better; what a day or less tells is
 * not carried on to weeks. Null: no place was counted twice, two days apart.
 */
export function takenFromPlaces(all: readonly ShelfSaid[]): Taken | null {
  const said = withoutRecounted(all)
  const countedAt = (at: string) => said.filter((s) => s.said === 'counted' && s.at === at)
  const places = [...new Set(said.flatMap((s) => (s.said === 'counted' ? [s.at] : [])))]
  const twice = new Set(places.filter((at) => countedAt(at).length > 1))
  const runs = [...twice].flatMap((at) => longestRun(takenByCounts(shelfAt(said, { at, twice }))) ?? [])
  const longest = longestOf(runs)
  if (!longest || longest.toMs - longest.fromMs < LEAST_MS) return null
  const scaled = runs.map((run) => {
    const times = (longest.toMs - longest.fromMs) / (run.toMs - run.fromMs)
    return { taken: run.taken * times, sd: run.sdTaken * times }
  })
  return {
    ...longest,
    taken: scaled.reduce((sum, s) => sum + s.taken, 0),
    sdTaken: Math.hypot(...scaled.map((s) => s.sd)),
  }
}

const [RECOUNT_MS, LEAST_MS] = [12 * HOUR_MS, 2 * DAY_MS]
const withoutRecounted = (said: readonly ShelfSaid[]): ShelfSaid[] =>
  said.filter(
    (s) =>
      s.said !== 'counted' ||
      !said.some((o) => o.said === 'counted' && o.at === s.at && o.atMs > s.atMs && o.atMs - s.atMs < RECOUNT_MS),
  )

function shelfAt(
  said: readonly ShelfSaid[],
  { at, twice }: { at: string; twice: ReadonlySet<string> },
): { counts: At[]; received: At[] } {
  const counts = said.filter((s) => s.said === 'counted' && s.at === at)
  const received = said.flatMap((s): At[] => {
    if (s.said === 'received' && s.at === at) return [s]
    if (s.said !== 'carried') return []
    if (s.to === at) return [s]
    return s.from === at && twice.has(s.to) ? [{ atMs: s.atMs, quantity: -s.quantity }] : []
  })
  return { counts, received }
}

export interface Weighing {
  atMs: number
  grams: number
  isEmptied: boolean
}
/** Old parts differ in weight (spatter on, copper gone) by about a twelfth; a shop scale shows steps of about two grams. */
const PIECE_CV = 0.08
const SCALE_G = 2

/**
 * Old parts that came into the tin between two weighings: (grams now − grams left in it then) ÷ grams each. `pieces` is how
 * many were counted to find `gramsEach`. Spread: √(n·cv² + (n·cv/√pieces)² + (√2·scale/each)²), cv 0.08, scale 2 g.
 * A tin that grew lighter without being emptied tells nothing there.
 */
export function takenByTin(weighings: readonly Weighing[], each: { gramsEach: number; pieces: number }): Taken[] {
  if (!(each.gramsEach > 0 && each.pieces >= 1))
    throw new RangeError(`takenByTin: expected gramsEach > 0 and pieces >= 1, got ${each.gramsEach}, ${each.pieces}`)
  const ordered = [...weighings].sort((a, b) => a.atMs - b.atMs)
  return ordered.slice(1).flatMap((now, i) => {
    const before = ordered[i]
    if (!before) return []
    const grams = now.grams - (before.isEmptied ? 0 : before.grams)
    if (grams < 0) return []
    const taken = grams / each.gramsEach
    const sdTaken = Math.sqrt(
      taken * PIECE_CV ** 2 + (taken * PIECE_CV) ** 2 / each.pieces + 2 * (SCALE_G / each.gramsEach) ** 2,
    )
    return [{ source: 'tin' as const, fromMs: before.atMs, toMs: now.atMs, taken, sdTaken }]
  })
}

export interface Bought {
  fromMs: number
  toMs: number
  quantity: number
}

/**
 * Taken over some months as bought in them. What lay on the shelf at both ends is not known: anything between nothing and
 * one usual delivery Q, so the spread is Q·√(2/12). Null where nothing was bought.
 */
export function takenByPurchases(months: readonly Bought[]): Taken | null {
  const bought = months.filter((m) => m.quantity > 0)
  if (bought.length === 0) return null
  const taken = bought.reduce((sum, m) => sum + m.quantity, 0)
  return {
    source: 'bought',
    fromMs: Math.min(...months.map((m) => m.fromMs)),
    toMs: Math.max(...months.map((m) => m.toMs)),
    taken,
    sdTaken: (taken / bought.length) * Math.sqrt(1 / 6),
  }
}

/** Stretches of one source that follow on each other as one; a gap keeps them apart. */
export function joined(windows: readonly Taken[]): Taken[] {
  const done: Taken[] = []
  for (const next of [...windows].sort((a, b) => a.fromMs - b.fromMs)) {
    const last = done.at(-1)
    if (last?.toMs === next.fromMs && last.source === next.source)
      done[done.length - 1] = {
        ...last,
        toMs: next.toMs,
        taken: last.taken + next.taken,
        sdTaken: Math.hypot(last.sdTaken, next.sdTaken),
      }
    else done.push(next)
  }
  return done
}

/** Of stretches put together where they follow on each other, the longest: the others are older or stand alone. */
export const longestRun = (windows: readonly Taken[]): Taken | null => longestOf(joined(windows))

const longestOf = (windows: readonly Taken[]): Taken | null =>
  windows.reduce<Taken | null>((best, w) => (!best || w.toMs - w.fromMs > best.toMs - best.fromMs ? w : best), null)

export interface PerKg {
  pieces: number
  kg: number
  kgEach: number
  lowKg: number
  highKg: number
}

/**
 * What a purchase list tells before anything was logged: so many kg of wire to one part. The 9-in-10 band takes what may
 * have lain on the shelf of both, and that n parts come at random (relative 1/√n): r·exp(±1.645·√(s²/n² + …)).
 * @example kgPerPart({ parts: 3100 of 12 deliveries, wire: 9400 kg of 12 }) // about 3.0 kg, 2.7–3.3
 */
export function kgPerPart(parts: Taken, wire: Taken): PerKg {
  if (!(parts.taken > 0 && wire.taken > 0))
    throw new RangeError(`kgPerPart: expected parts and wire above 0, got ${parts.taken}, ${wire.taken}`)
  const kgEach = wire.taken / parts.taken
  const relative = Math.sqrt((parts.sdTaken / parts.taken) ** 2 + (wire.sdTaken / wire.taken) ** 2 + 1 / parts.taken)
  const factor = Math.exp(Z_90 * relative)
  return { pieces: parts.taken, kg: wire.taken, kgEach, lowKg: kgEach / factor, highKg: kgEach * factor }
}
