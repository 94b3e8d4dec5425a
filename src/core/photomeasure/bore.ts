import { axesOf, rectified, type Ellipse, type Point } from './ellipse.ts'
import { findRim, halfWay, meanProfile, middleOf, steepestFall, type FoundRim } from './rim.ts'
import { type Gray } from './gray.ts'

export interface BoreAsked {
  image: Gray
  /** About the middle of the bore. */
  centre: Point
  /** About how far the bore's rim and the outer rim are from it, px; null: looked for. */
  borePx: number | null
  outerPx: number | null
  /** What the outer rim measures across: a round thing of known size in the same plane. */
  outerMm: number
}
export interface BoreMeasured {
  ok: true
  maxMm: number
  minMm: number
  oval: number
  /** One standard deviation of either diameter, mm; and of the oval. */
  sdMm: number
  ovalSd: number
  pxPerMm: number
  tiltDeg: number
  blurPx: number
  bore: Ellipse
  outer: Ellipse
}
export type BoreAnswer = BoreMeasured | { ok: false; reason: 'noBore' | 'noRim' | 'blurred' | 'tilted' | 'tooSmall' }

/** Below so many pixels a millimetre a bore is a dozen pixels: nothing is told from that. */
export const LEAST_PX_PER_MM = 10
/** Beyond this the face is seen too much from the side: the rim nearer the lens hides part of it. */
export const MOST_TILT_DEG = 28
/** Blur over the bore's own diameter beyond which its rim is guesswork. */
const MOST_BLUR_SHARE = 0.14
/** What a known size is known to, and what is left of an edge's place after averaging, px: guesses. */
const KNOWN_SIZE_SD = 0.004
const EDGE_SD_PX = 0.06

/**
 * A tip's bore on a picture taken end-on. The outer rim is round and of known size: its ellipse tells tilt and scale, and the bore is
 * turned back by it before its longest and shortest diameter are told. Tilt = acos(short/long) of the outer rim; standard deviation of
 * a diameter from the scatter of its edge points, 2·s/√(n/4), a floor for what averaging leaves, and the known size.
 */
export function measureBore(of: BoreAsked): BoreAnswer {
  const { image, outerMm } = of
  if (!(outerMm > 0)) throw new RangeError(`measureBore: expected an outer diameter > 0, got ${outerMm}`)
  const seeds = seedsOf(of)
  if (seeds.borePx === null) return { ok: false, reason: 'noBore' }
  const bore = findRim(image, 'dark inside', { centre: seeds.centre, radiusPx: seeds.borePx })
  if (!bore) return { ok: false, reason: 'noBore' }
  if (seeds.outerPx === null) return { ok: false, reason: 'noRim' }
  const outer = findRim(image, 'bright inside', { centre: bore.ellipse.centre, radiusPx: seeds.outerPx })
  if (!outer) return { ok: false, reason: 'noRim' }
  return judged(bore, outer, outerMm)
}

/** From a tap: the bore's middle and size, twice over, then the outer rim about that middle. */
function seedsOf({ image, centre: tap, borePx, outerPx }: BoreAsked) {
  const most = Math.min(image.width, image.height) * 0.6
  let centre = tap
  let bore = borePx
  for (let i = 0; i < 2; i++) {
    bore = borePx ?? halfWay(meanProfile(image, centre, most), 'dark inside', most * BORE_REACH)
    if (bore === null) return { centre, borePx: null, outerPx: null }
    centre = middleOf(image, centre, bore)
  }
  const outer = outerPx ?? steepestFall(meanProfile(image, centre, most), (bore ?? 0) * 1.6)
  return { centre, borePx: bore, outerPx: outer }
}
/** A bore is looked for within this share of the way to the picture's edge. */
const BORE_REACH = 0.5

function judged(bore: FoundRim, outer: FoundRim, outerMm: number): BoreAnswer {
  const seen = axesOf(outer.ellipse)
  const tiltDeg = (Math.acos(Math.min(1, seen.short / seen.long)) * 180) / Math.PI
  const pxPerMm = (2 * seen.long) / outerMm
  if (pxPerMm < LEAST_PX_PER_MM) return { ok: false, reason: 'tooSmall' }
  if (tiltDeg > MOST_TILT_DEG) return { ok: false, reason: 'tilted' }
  const { long, short } = rectified(bore.ellipse, outer.ellipse)
  const [maxMm, minMm] = [long * outerMm, short * outerMm]
  if (bore.blurPx > MOST_BLUR_SHARE * minMm * pxPerMm) return { ok: false, reason: 'blurred' }
  const edgePx = Math.hypot((2 * bore.residualPx) / Math.sqrt(45), EDGE_SD_PX)
  const sdMm = Math.hypot(edgePx / pxPerMm, KNOWN_SIZE_SD * minMm)
  return {
    ok: true,
    maxMm,
    minMm,
    oval: (maxMm - minMm) / minMm,
    sdMm,
    ovalSd: (Math.SQRT2 * (edgePx / pxPerMm)) / minMm,
    pxPerMm,
    tiltDeg,
    blurPx: bore.blurPx,
    bore: bore.ellipse,
    outer: outer.ellipse,
  }
}
