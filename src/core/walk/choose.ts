import { type StationId } from '@core/ids/id.ts'
/** One gun on the walk: what looking there is worth, what it takes, and where it stands along the walk. */
export interface Stop {
  stationId: StationId
  /** Minutes from the first gun of the walk, as people walk it. */
  atMin: number
  /** Minutes at the gun. */
  minutes: number
  /** Expected cost avoided by looking now, in any one unit. */
  worth: number
  /** Chance that it stops within a day's work when it is left. */
  stopsIfLeft: number
}
export interface ChooseAsked {
  stops: readonly Stop[]
  minutes: number
  /** Where the walk starts, along the walk; null: at whichever gun is first. */
  fromMin: number | null
}
export interface ChosenWalk {
  /** In walking order. */
  chosen: Stop[]
  left: Stop[]
  taskMin: number
  walkMin: number
  worth: number
  /** Chance that at least one of those left stops within a day's work. */
  leftStops: number
}

/**
 * The walk worth most within its minutes, tasks and walking together: guns lie along one way, so walking is from the start to the nearer
 * end of what is chosen and on to the other. Greedy insertion by worth per added minute, then exchanges (one in, one in for one out, one in
 * for two out) until none gains. Deterministic: ties go by the walk. Minutes > 0.
 */
export function chooseWalk(of: ChooseAsked): ChosenWalk {
  if (!(of.minutes > 0)) throw new RangeError(`chooseWalk: expected minutes > 0, got ${of.minutes}`)
  const stops = [...of.stops].sort((a, b) => a.atMin - b.atMin || (a.stationId < b.stationId ? -1 : 1))
  const starts = [...seeds(stops, of)]
  const best = starts
    .map((seed) => improved(inserted(seed, stops, of), stops, of))
    .reduce((a, b) => (worthOf(b) > worthOf(a) + 1e-12 ? b : a), new Set<Stop>())
  return told(best, stops, of)
}

/** Beginnings: nothing; and each stretch of the walk, so that a rich bay far off is not passed over for its way. */
function* seeds(stops: readonly Stop[], of: ChooseAsked): Generator<Set<Stop>> {
  yield new Set()
  const most = Math.min(STRETCHES, stops.length)
  for (let i = 0; i < most; i++) {
    const stop = stops[Math.floor(((i + 0.5) * stops.length) / most)]
    if (stop && minutesOf(new Set([stop]), of) <= of.minutes) yield new Set([stop])
  }
}
const STRETCHES = 4

const worthOf = (set: ReadonlySet<Stop>) => [...set].reduce((s, x) => s + x.worth, 0)

interface Span {
  from: number
  to: number
}
const NO_SPAN: Span = { from: Infinity, to: -Infinity }
const withStop = (span: Span, { atMin }: Stop): Span => ({
  from: Math.min(span.from, atMin),
  to: Math.max(span.to, atMin),
})
/** Walking along one way: to the nearer end of the span, then to the other. */
function walkOf({ from, to }: Span, start: number | null): number {
  if (from > to) return 0
  if (start === null) return to - from
  return to - from + Math.min(Math.abs(start - from), Math.abs(start - to))
}
const spanOf = (set: Iterable<Stop>) => [...set].reduce(withStop, NO_SPAN)
function minutesOf(set: ReadonlySet<Stop>, { fromMin }: ChooseAsked): number {
  let [minutes, from, to] = [0, Infinity, -Infinity]
  for (const { minutes: m, atMin } of set) {
    minutes += m
    if (atMin < from) from = atMin
    if (atMin > to) to = atMin
  }
  return minutes + walkOf({ from, to }, fromMin)
}

/** Adds, the most worth per added minute first, until nothing fits. */
function inserted(seed: ReadonlySet<Stop>, stops: readonly Stop[], of: ChooseAsked): Set<Stop> {
  const set = new Set(seed)
  let span = spanOf(set)
  let taskMin = [...set].reduce((s, x) => s + x.minutes, 0)
  for (;;) {
    const walked = walkOf(span, of.fromMin)
    let best: { stop: Stop; rate: number } | null = null
    for (const stop of stops) {
      if (set.has(stop) || stop.worth <= 0) continue
      const added = stop.minutes + walkOf(withStop(span, stop), of.fromMin) - walked
      if (taskMin + walked + added > of.minutes + 1e-9) continue
      const rate = stop.worth / Math.max(added, 1e-6)
      if (!best || rate > best.rate + 1e-12) best = { stop, rate }
    }
    if (!best) return set
    set.add(best.stop)
    span = withStop(span, best.stop)
    taskMin += best.stop.minutes
  }
}

const MOST_ROUNDS = 40
/** Exchanges one or two for one that was left, filling up again, as long as that gains. */
function improved(start: Set<Stop>, stops: readonly Stop[], of: ChooseAsked): Set<Stop> {
  let set = start
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const next = exchange(set, stops, of)
    if (!next) return set
    set = next
  }
  return set
}

/** Of those left only so many that are worth most a minute are tried: the rest would not get in either. */
const TRIED = 16
function exchange(set: ReadonlySet<Stop>, stops: readonly Stop[], of: ChooseAsked): Set<Stop> | null {
  const now = worthOf(set)
  const left = stops
    .filter((s) => !set.has(s) && s.worth > 0)
    .sort((a, b) => b.worth / b.minutes - a.worth / a.minutes)
    .slice(0, TRIED)
  const chosen = [...set].sort((a, b) => a.worth / a.minutes - b.worth / b.minutes).slice(0, TRIED)
  const outs = [[], ...chosen.map((a) => [a]), ...pairs(chosen.slice(0, 8)), ...ends(set)]
  for (const stop of left)
    for (const out of outs) {
      // So little for so much is hardly made up by what fits in beside it.
      if (stop.worth < 0.3 * out.reduce((s, x) => s + x.worth, 0)) continue
      const next = new Set(set)
      for (const x of out) next.delete(x)
      next.add(stop)
      if (minutesOf(next, of) > of.minutes + 1e-9) continue
      const filled = inserted(next, stops, of)
      if (worthOf(filled) > now + 1e-9) return filled
    }
  return null
}
const pairs = (list: readonly Stop[]): Stop[][] => list.flatMap((a, i) => list.slice(i + 1).map((b) => [a, b]))
/** The outermost guns at either end: they cost the way there. */
function ends(set: ReadonlySet<Stop>): Stop[][] {
  const along = [...set].sort((a, b) => a.atMin - b.atMin)
  return [1, 2, 3].flatMap((n) => [along.slice(0, n), along.slice(-n)])
}

function told(set: ReadonlySet<Stop>, stops: readonly Stop[], of: ChooseAsked): ChosenWalk {
  const chosen = stops.filter((s) => set.has(s))
  const left = stops.filter((s) => !set.has(s))
  return {
    // Started at the far end it is walked the other way round.
    chosen: isFromFarEnd(chosen, of.fromMin) ? [...chosen].reverse() : chosen,
    left,
    taskMin: chosen.reduce((s, x) => s + x.minutes, 0),
    walkMin: walkOf(spanOf(chosen), of.fromMin),
    worth: worthOf(set),
    leftStops: 1 - left.reduce((none, s) => none * (1 - s.stopsIfLeft), 1),
  }
}
function isFromFarEnd(chosen: readonly Stop[], start: number | null): boolean {
  const [first, last] = [chosen[0], chosen.at(-1)]
  return start !== null && first !== undefined && last !== undefined && start - first.atMin > last.atMin - start
}

/** One walk over several people at once: stretches of it of about equal minutes, each in walking order. */
export function splitWalk(chosen: readonly Stop[], people: number): Stop[][] {
  if (!(people >= 1)) throw new RangeError(`splitWalk: expected people ≥ 1, got ${people}`)
  const whole = chosen.reduce((s, x) => s + x.minutes, 0)
  const parts: Stop[][] = Array.from({ length: Math.min(people, Math.max(1, chosen.length)) }, () => [])
  let before = 0
  for (const stop of chosen) {
    const at = whole > 0 ? Math.floor(((before + stop.minutes / 2) / whole) * parts.length) : 0
    parts[Math.min(at, parts.length - 1)]?.push(stop)
    before += stop.minutes
  }
  return parts.filter((p) => p.length > 0)
}
