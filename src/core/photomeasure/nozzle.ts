import { axesOf, type Ellipse, type Point } from './ellipse.ts'
import { darkProfile, findRim, firstFall, halfWay, meanProfile, type Around, type FoundRim } from './rim.ts'
import { sample, type Gray } from './gray.ts'

export interface NozzleAsked {
  image: Gray
  /** About the middle of the tip in the nozzle. */
  centre: Point
  /** About how far the tip's edge and the nozzle's inner edge are from it, px; null: looked for. */
  tipPx: number | null
  innerPx: number | null
}
export interface NozzleMeasured {
  ok: true
  /** Share of the ring between tip and nozzle that is open: dark, with nothing in it. */
  open: number
  openSd: number
  /** How far the tip stands off the nozzle's middle, in tip diameters. */
  offCentre: number
  tiltDeg: number
  tip: Ellipse
  inner: Ellipse
}
export type NozzleAnswer =
  NozzleMeasured | { ok: false; reason: 'noTip' | 'noNozzle' | 'blurred' | 'tilted' | 'tooSmall' }

/** A tip smaller than this on the picture tells nothing of what sits round it. */
const LEAST_TIP_PX = 14
const MOST_TILT_DEG = 28
const MOST_BLUR_SHARE = 0.08
/** The tip has the ring beside it, the wall the ring within and little without; spatter hides part of the wall. */
const TIP: Around = { inside: [0.35, 0.75], outside: [1.1, 1.25], band: [0.7, 1.35], leastShare: 0.5 }
const WALL: Around = { inside: [0.8, 0.93], outside: [1.05, 1.18], band: [0.85, 1.15], leastShare: 0.3 }
const ANGLES = 240
const RADII = 24
/** Next to either edge the ring is half edge: left out. */
const MARGIN = 0.08

/**
 * What of a nozzle's opening is free, on a picture taken end-on: the bright tip in the middle, the dark ring, the bright rim of the nozzle;
 * both edges as ellipses. Open is what of the ring is darker than half way between its darkest tenth and the rim; spatter shines. By 240
 * directions and 24 radii of the ring, each weighted by its area. Its standard deviation: the share of the ring that is near the half way.
 */
export function measureNozzle(of: NozzleAsked): NozzleAnswer {
  const { image, centre } = of
  const most = Math.min(image.width, image.height) * 0.6
  const profile = meanProfile(image, centre, most)
  const tipPx = of.tipPx ?? firstFall(profile.slice(0, Math.floor(most * 0.6)), 4)
  if (tipPx === null) return { ok: false, reason: 'noTip' }
  const tip = findRim(image, 'bright inside', { centre, radiusPx: tipPx, around: TIP })
  if (!tip) return { ok: false, reason: 'noTip' }
  const round = axesOf(tip.ellipse)
  if (2 * round.short < LEAST_TIP_PX) return { ok: false, reason: 'tooSmall' }
  const outward = darkProfile(image, tip.ellipse.centre, most)
  const beyond = Math.ceil(round.long * 1.25)
  const rise = halfWay(outward.slice(beyond), 'dark inside', most)
  const innerPx = of.innerPx ?? (rise === null ? null : rise + beyond)
  const inner =
    innerPx === null
      ? null
      : findRim(image, 'dark inside', { centre: tip.ellipse.centre, radiusPx: innerPx, around: WALL })
  if (!inner || isNoWall(inner, round.long)) return { ok: false, reason: 'noNozzle' }
  return judged(image, tip, inner)
}

/** A nozzle's bore is wider than this many tips; what lies nearer, or is that lumpy, is spatter all round and not its wall. Guesses. */
const LEAST_TIPS_ACROSS = 1.5
const LUMPY_SHARE = 0.03
function isNoWall({ ellipse, residualPx }: FoundRim, tipPx: number): boolean {
  const { short, long } = axesOf(ellipse)
  return short < LEAST_TIPS_ACROSS * tipPx || residualPx > LUMPY_SHARE * long
}

function judged(
  image: Gray,
  tip: NonNullable<ReturnType<typeof findRim>>,
  inner: NonNullable<ReturnType<typeof findRim>>,
): NozzleAnswer {
  const seen = axesOf(inner.ellipse)
  const tiltDeg = (Math.acos(Math.min(1, seen.short / seen.long)) * 180) / Math.PI
  if (tiltDeg > MOST_TILT_DEG) return { ok: false, reason: 'tilted' }
  const tipAxes = axesOf(tip.ellipse)
  if (Math.max(tip.blurPx, inner.blurPx) > MOST_BLUR_SHARE * 2 * tipAxes.short) return { ok: false, reason: 'blurred' }
  const off = Math.hypot(tip.ellipse.centre.x - inner.ellipse.centre.x, tip.ellipse.centre.y - inner.ellipse.centre.y)
  const { open, unsure } = openShare(image, tip.ellipse, inner.ellipse)
  return {
    ok: true,
    open,
    openSd: Math.max(0.01, unsure / 2),
    offCentre: off / (2 * tipAxes.long),
    tiltDeg,
    tip: tip.ellipse,
    inner: inner.ellipse,
  }
}

/** Distance from the ellipse's own middle to its edge in a direction. */
const reach = (e: Ellipse, x: number, y: number) => 1 / Math.sqrt(e.a * x * x + 2 * e.b * x * y + e.c * y * y)

function openShare(image: Gray, tip: Ellipse, inner: Ellipse): { open: number; unsure: number } {
  const { x: cx, y: cy } = inner.centre
  const spots: { v: number; area: number }[] = []
  let [rim, n] = [0, 0]
  for (let k = 0; k < ANGLES; k++) {
    const [dx, dy] = [Math.cos((2 * Math.PI * k) / ANGLES), Math.sin((2 * Math.PI * k) / ANGLES)]
    const to = reach(inner, dx, dy)
    const from = edgeOfTip(tip, inner.centre, { dx, dy, most: to })
    rim += sample(image, cx + dx * to * 1.12, cy + dy * to * 1.12)
    n += 1
    const [a, b] = [from + MARGIN * (to - from), to - MARGIN * (to - from)]
    for (let i = 0; i < RADII; i++) {
      const r = a + ((i + 0.5) / RADII) * (b - a)
      spots.push({ v: sample(image, cx + dx * r, cy + dy * r), area: r * (b - a) })
    }
  }
  const dark = [...spots].sort((p, q) => p.v - q.v)[Math.floor(spots.length * 0.1)]?.v ?? 0
  const half = (dark + rim / n) / 2
  const band = 0.12 * (rim / n - dark)
  const whole = spots.reduce((s, p) => s + p.area, 0)
  const sum = (keep: (v: number) => boolean) => spots.reduce((s, p) => (keep(p.v) ? s + p.area : s), 0) / whole
  return { open: sum((v) => v < half), unsure: sum((v) => Math.abs(v - half) < band) }
}

/** Where a ray from the nozzle's middle leaves the tip: by halving, since the tip may stand off that middle. */
function edgeOfTip(tip: Ellipse, from: Point, ray: { dx: number; dy: number; most: number }): number {
  const isIn = (r: number) => {
    const [x, y] = [from.x + ray.dx * r - tip.centre.x, from.y + ray.dy * r - tip.centre.y]
    return tip.a * x * x + 2 * tip.b * x * y + tip.c * y * y < 1
  }
  if (!isIn(0)) return 0
  let [low, high] = [0, ray.most]
  for (let i = 0; i < 24; i++) {
    const middle = (low + high) / 2
    if (isIn(middle)) low = middle
    else high = middle
  }
  return high
}
