import { makeRandom } from '@core/random/random.ts'
import { HOUR_MS, MIN_MS } from '@core/units/time.ts'
import { arcStretchAt, usedByArcs, type ArcPlan, type Counters } from './arcs.ts'

/**
 * What a controller tells beside its counts, as a function of time: travel of the rolls, volts at the arc, gas. Now and then the wire snags: for some
 * seconds the rolls go on turning and little wire comes, the arc climbs until it is out, and the place stands until somebody has freed it.
 */
export interface FeedPlan {
  /** Tells controllers apart. */
  seed: number
  arcs: ArcPlan
  volts: number
  gasLpm: number
  /** Share of what the rolls turn that never comes as wire, 0–1, while all is well. */
  slip: number
  /** One in so many hours; null: never. */
  snagEveryH: number | null
}
/** Wire stops coming at `fromMs`, the arc is out at `outMs`, and at `freeMs` it welds again. */
export interface Snag {
  fromMs: number
  outMs: number
  freeMs: number
}
const ARC_GOES_ON_MS = 3000
/** The controller sees it, and stops its rolls a little later. */
const ROLLS_GO_ON_MS = 2000
/** Into a stretch too short to tell anything by it does not snag; so long it looks for another. */
const LEAST_ARC_MS = 40_000
const LOOKED_MS = 10 * MIN_MS
/** So far from the ends of its stretch of time, so that a row never lies across two. */
const EDGE_MS = 2 * MIN_MS
const SNAG_SLIP = 0.9
const VOLTS_PER_S = 0.12
/** What the motor draws against a wire that stands, to what it draws else. */
const SNAG_LOAD = 1.6

/** The snag of the stretch of time a moment lies in; null: it had none, or no arc burned long enough there. */
export function snagNear({ snagEveryH, seed, arcs }: FeedPlan, atMs: number): Snag | null {
  if (snagEveryH === null) return null
  const everyMs = snagEveryH * HOUR_MS
  const block = Math.floor(atMs / everyMs)
  const random = makeRandom((seed * 6101 + block) >>> 0)
  const standsMs = (8 + 14 * random()) * MIN_MS
  const from = block * everyMs + EDGE_MS + random() * (everyMs - standsMs - LOOKED_MS - 2 * EDGE_MS)
  for (let ms = from; ms < from + LOOKED_MS; ms += 30_000) {
    const arc = arcStretchAt(arcs, ms)
    if (!arc || arc[1] - arc[0] < LEAST_ARC_MS) continue
    const fromMs = Math.floor((arc[0] + arc[1]) / 2)
    return { fromMs, outMs: fromMs + ARC_GOES_ON_MS, freeMs: fromMs + Math.floor(standsMs) }
  }
  return null
}

type Told = Counters & { rollFedM: number }
const NOTHING: Told = { wireFedM: 0, arcOnS: 0, arcStarts: 0, rollFedM: 0 }
const plus = (a: Told, b: Told): Told => ({
  wireFedM: a.wireFedM + b.wireFedM,
  arcOnS: a.arcOnS + b.arcOnS,
  arcStarts: a.arcStarts + b.arcStarts,
  rollFedM: a.rollFedM + b.rollFedM,
})

/** What is used between two moments that lie within one stretch of snags. */
export function fedBetween(plan: FeedPlan, fromMs: number, toMs: number): Told {
  const snag = snagNear(plan, fromMs)
  const within = (a: number, b: number) => [Math.max(a, fromMs), Math.max(a, fromMs, Math.min(b, toMs))] as const
  const fed = (a: number, b: number, slip: number): Told => {
    const used = usedByArcs(plan.arcs, ...within(a, b))
    const rollFedM = used.wireFedM / (1 - plan.slip)
    return { ...used, wireFedM: rollFedM * (1 - slip), rollFedM }
  }
  if (!snag) return fed(fromMs, toMs, plan.slip)
  const [offMs, stillMs] = within(snag.outMs, snag.outMs + ROLLS_GO_ON_MS)
  return [
    fed(fromMs, snag.fromMs, plan.slip),
    fed(snag.fromMs, snag.outMs, SNAG_SLIP),
    { ...NOTHING, rollFedM: ((stillMs - offMs) / MIN_MS) * plan.arcs.wireMPerMin },
    fed(snag.freeMs, toMs, plan.slip),
  ].reduce(plus)
}

/** Volts at the arc; null while none burns. */
export function voltsAt(plan: FeedPlan, atMs: number): number | null {
  const snag = snagNear(plan, atMs)
  if (snag && atMs >= snag.outMs && atMs < snag.freeMs) return null
  if (!arcStretchAt(plan.arcs, atMs)) return null
  const noise = 1 + 0.01 * (makeRandom((plan.seed * 31 + Math.floor(atMs / 1000)) >>> 0)() - 0.5)
  const climbedS = snag && atMs >= snag.fromMs && atMs < snag.outMs ? (atMs - snag.fromMs) / 1000 : 0
  return Math.round(plan.volts * noise * (1 + VOLTS_PER_S * climbedS) * 10) / 10
}

/** What the motor has to draw, to what it draws while all is well. */
export function loadAt(plan: FeedPlan, atMs: number): number {
  const snag = snagNear(plan, atMs)
  return snag && atMs > snag.fromMs && atMs <= snag.outMs + ROLLS_GO_ON_MS ? SNAG_LOAD : 1
}

/** How long before and after a snag a controller keeps what it saw second by second. */
const FINE = { beforeMs: MIN_MS, afterMs: 10_000 }
/** The next moment at which a row is kept: each `everyMs`, and each second around a snag. */
export function nextRowMs(plan: FeedPlan | null, at: { fromMs: number; everyMs: number }): number {
  const next = at.fromMs + at.everyMs
  const snag = plan ? snagNear(plan, at.fromMs) : null
  if (!snag) return next
  const [low, high] = [snag.fromMs - FINE.beforeMs, snag.outMs + FINE.afterMs]
  if (at.fromMs >= high || next <= low) return next
  return at.fromMs < low ? low : at.fromMs + 1000
}
