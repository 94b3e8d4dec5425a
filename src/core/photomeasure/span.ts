import { medianOf, type Point } from './ellipse.ts'
import { sample, type Gray } from './gray.ts'

/** From one edge to the other of something, across it. */
export interface Line {
  from: Point
  to: Point
}
export interface SpanAsked {
  image: Gray
  /** Across a part of known size, in the same plane as what is measured. */
  known: Line
  /** What it measures across; 1 where lengths are told in its own size. */
  knownMm: number
  span: Line
  /** Ends of a line that were put by hand and stay where they are. */
  byHand?: { known?: boolean; span?: boolean }
}
export interface SpanMeasured {
  ok: true
  /** In the unit of `knownMm`. */
  length: number
  sd: number
  pxPer: number
  blurPx: number
  known: Line
  span: Line
}
export type SpanAnswer = SpanMeasured | { ok: false; reason: 'noKnown' | 'noSpan' | 'blurred' | 'tilted' | 'tooSmall' }

/** Shorter than this on the picture a thing tells no scale. */
const LEAST_KNOWN_PX = 40
const LEAST_SPAN_PX = 6
/** Blur over a length, and in px, up to which its edges are no guesswork. */
const MOST_BLUR_SHARE = 0.06
const BLUR_ALWAYS_FINE_PX = 2.5
/** An edge is looked for within this share of the line's length beside its end, and across so much of it. */
const REACH_SHARE = 0.18
const BAND_SHARE = 0.12
const LEAST_REACH_PX = 8
/** Edges of the known part that differ by more than this from square or from each other: it is seen from the side. */
const MOST_SLANT_DEG = 9
const LEAST_STEP = 12
/** What a known size is known to; that both lie in one plane; where a hand puts a line, px; what averaging leaves of an edge, px. Guesses. */
const KNOWN_SIZE_SD = 0.004
const PLANE_SD = 0.012
const HAND_SD_PX = 1.5
const EDGE_SD_PX = 0.12

/**
 * A length on a picture taken from the side, by a part of known size in it: each line's ends are moved to the nearest edges across it, found
 * in rows beside it to a fraction of a pixel (half way between what lies on either side), and its length is that between the two. length =
 * known · span px / known px; variance from the edges' scatter, the known size and that the two may not lie in one plane. Two edges of
 * the known part that are not parallel: it is seen from the side, and refused.
 */
export function measureSpan(of: SpanAsked): SpanAnswer {
  const { image, knownMm } = of
  if (!(knownMm > 0)) throw new RangeError(`measureSpan: expected a known size > 0, got ${knownMm}`)
  if (lengthOf(of.known) < LEAST_KNOWN_PX * 0.6 || lengthOf(of.span) < LEAST_SPAN_PX * 0.6)
    return { ok: false, reason: 'tooSmall' }
  const known = of.byHand?.known ? byHand(of.known) : edgesOf(image, of.known)
  if (!known) return { ok: false, reason: 'noKnown' }
  const span = of.byHand?.span ? byHand(of.span) : edgesOf(image, of.span)
  if (!span) return { ok: false, reason: 'noSpan' }
  const [knownPx, spanPx] = [lengthOf(known.line), lengthOf(span.line)]
  if (knownPx < LEAST_KNOWN_PX || spanPx < LEAST_SPAN_PX) return { ok: false, reason: 'tooSmall' }
  const blurPx = Math.max(known.blurPx, span.blurPx)
  if (isBlurred(known, knownPx) || isBlurred(span, spanPx)) return { ok: false, reason: 'blurred' }
  if (known.slantDeg > MOST_SLANT_DEG) return { ok: false, reason: 'tilted' }
  const length = (knownMm * spanPx) / knownPx
  const share = Math.hypot(span.sdPx / spanPx, known.sdPx / knownPx, KNOWN_SIZE_SD, PLANE_SD)
  return { ok: true, length, sd: length * share, pxPer: knownPx / knownMm, blurPx, known: known.line, span: span.line }
}

const isBlurred = ({ blurPx }: Edges, px: number) => blurPx > Math.max(BLUR_ALWAYS_FINE_PX, MOST_BLUR_SHARE * px)
export const lengthOf = ({ from, to }: Line) => Math.hypot(to.x - from.x, to.y - from.y)

interface Edges {
  line: Line
  sdPx: number
  blurPx: number
  slantDeg: number
}
const byHand = (line: Line): Edges => ({ line, sdPx: Math.SQRT2 * HAND_SD_PX, blurPx: 0, slantDeg: 0 })

/** Both ends of a line moved to the edges they stand at. */
function edgesOf(image: Gray, line: Line): Edges | null {
  const length = lengthOf(line)
  const u = { x: (line.to.x - line.from.x) / length, y: (line.to.y - line.from.y) / length }
  const ends = [line.from, line.to].map((end) => edgeAt(image, end, { u, length }))
  const [from, to] = ends
  if (!from || !to) return null
  return {
    line: { from: from.at, to: to.at },
    sdPx: Math.hypot(from.sdPx, to.sdPx),
    blurPx: Math.max(from.blurPx, to.blurPx),
    slantDeg: Math.max(Math.abs(from.slantDeg), Math.abs(to.slantDeg), Math.abs(from.slantDeg - to.slantDeg)),
  }
}

interface EdgeFound {
  at: Point
  sdPx: number
  blurPx: number
  slantDeg: number
}
/** The edge at one end: in rows beside the line the strongest step near it, a straight line through those by the median of slopes. */
function edgeAt(image: Gray, end: Point, of: { u: Point; length: number }): EdgeFound | null {
  const { u, length } = of
  const n = { x: -u.y, y: u.x }
  const reach = Math.max(LEAST_REACH_PX, REACH_SHARE * length)
  const half = Math.max(2, Math.round((BAND_SHARE * length) / 2))
  const rows: { v: number; s: number; blurPx: number }[] = []
  for (let v = -half; v <= half; v++) {
    const read = (s: number) => sample(image, end.x + s * u.x + v * n.x, end.y + s * u.y + v * n.y)
    const found = stepIn(read, reach)
    if (found) rows.push({ v, ...found })
  }
  if (rows.length < Math.max(3, half)) return null
  const slope = medianOf(
    rows.flatMap((a, i) => rows.slice(i + 1).flatMap((b) => (b.v === a.v ? [] : [(b.s - a.s) / (b.v - a.v)]))),
  )
  const s = medianOf(rows.map((r) => r.s - slope * r.v))
  const scatter = 1.4826 * medianOf(rows.map((r) => Math.abs(r.s - slope * r.v - s)))
  return {
    at: { x: end.x + s * u.x, y: end.y + s * u.y },
    sdPx: Math.hypot((1.25 * scatter) / Math.sqrt(rows.length), EDGE_SD_PX),
    blurPx: medianOf(rows.map((r) => r.blurPx)),
    slantDeg: (Math.atan(slope) * 180) / Math.PI,
  }
}

const STRIDE = 0.5
/** The strongest step within reach along one row, told to where it passes half way; and how wide it is as a standard deviation. */
function stepIn(read: (s: number) => number, reach: number): { s: number; blurPx: number } | null {
  const arm = Math.max(1.5, reach * 0.12)
  let best: { s: number; step: number } | null = null
  for (let s = -reach; s <= reach; s += STRIDE) {
    const step = Math.abs(read(s + arm) - read(s - arm)) * (1 - 0.35 * Math.abs(s / reach))
    if (!best || step > best.step) best = { s, step }
  }
  if (!best || best.step < LEAST_STEP) return null
  const wide = 0.9 * reach
  const [low, high] = [mean(read, best.s - wide, best.s - wide / 2), mean(read, best.s + wide / 2, best.s + wide)]
  const level = (share: number) => low + share * (high - low)
  const cross = (target: number) => crossing(read, target, { from: best.s - wide, to: best.s + wide, near: best.s })
  const [q1, q2, q3] = [cross(level(0.25)), cross(level(0.5)), cross(level(0.75))]
  if (q2 === null) return null
  // A quarter to three quarters of a blurred step is 1.349 standard deviations wide.
  return { s: q2, blurPx: q1 !== null && q3 !== null ? Math.abs(q3 - q1) / 1.349 : 1 }
}

function mean(read: (s: number) => number, from: number, to: number): number {
  let [sum, n] = [0, 0]
  for (let s = from; s <= to + 1e-9; s += STRIDE, n++) sum += read(s)
  return sum / n
}

/** The place nearest to where the step is at which a level is passed, straight between two samples. */
function crossing(
  read: (s: number) => number,
  target: number,
  span: { from: number; to: number; near: number },
): number | null {
  let found: number | null = null
  let before = read(span.from)
  for (let s = span.from + STRIDE; s <= span.to + 1e-9; s += STRIDE) {
    const now = read(s)
    if ((before - target) * (now - target) <= 0 && now !== before) {
      const at = s - STRIDE * ((now - target) / (now - before))
      if (found === null || Math.abs(at - span.near) < Math.abs(found - span.near)) found = at
    }
    before = now
  }
  return found
}
