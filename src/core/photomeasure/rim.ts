import { fitEllipse, medianOf, radialResidual, type Ellipse, type Point } from './ellipse.ts'
import { sample, type Gray } from './gray.ts'

/** Which way it gets brighter across a rim, going out: a bore is dark inside, a face on a dark ground is bright inside. */
export type Rim = 'dark inside' | 'bright inside'

const RAYS = 180
const STEP = 0.25
const STRIDES = 160
/** Where brightness is read on either side of a rim, and where the rim is looked for, in shares of where it is thought to be. */
export interface Around {
  inside: readonly [number, number]
  outside: readonly [number, number]
  band: readonly [number, number]
  /** Share of the directions that have to show it. */
  leastShare: number
}
/** A rim with nothing near it. */
const ALONE: Around = { inside: [0.35, 0.7], outside: [1.3, 1.6], band: [0.55, 1.5], leastShare: 0.5 }

/** Brightness against distance, by what is seen in all directions: where a round thing's rims show as steps. */
function profileBy(image: Gray, of: { centre: Point; mostPx: number; pick: (round: number[]) => number }): number[] {
  const { centre, mostPx, pick } = of
  return Array.from({ length: Math.floor(mostPx) }, (_, r) =>
    pick(
      Array.from({ length: RAYS }, (__, k) => {
        const angle = (2 * Math.PI * k) / RAYS
        return sample(image, centre.x + r * Math.cos(angle), centre.y + r * Math.sin(angle))
      }),
    ),
  )
}
export const meanProfile = (image: Gray, centre: Point, mostPx: number) =>
  profileBy(image, { centre, mostPx, pick: (round) => round.reduce((s, v) => s + v, 0) / round.length })
/** The darkest quarter of the directions: what shines in the other three does not move it. */
export const darkProfile = (image: Gray, centre: Point, mostPx: number) =>
  profileBy(image, {
    centre,
    mostPx,
    pick: (round) => round.sort((a, b) => a - b)[Math.floor(round.length / 4)] ?? 0,
  })

/** A step of brightness that small is no rim. */
const LEAST_STEP = 30
/**
 * Radius at which the mean profile passes half way from its level at the middle to the level furthest from it, within a reach: a tap
 * beside the middle smears a rim, and its steepest place with it, but hardly moves its half way. Null where there is no step to speak of.
 */
export function halfWay(profile: readonly number[], rim: Rim, mostPx: number): number | null {
  const sign = rim === 'dark inside' ? 1 : -1
  const near = profile.slice(0, Math.max(2, Math.floor(mostPx)))
  const from = sign * (near[0] ?? 0)
  const to = Math.max(...near.map((v) => sign * v))
  if (to - from < LEAST_STEP) return null
  const at = near.findIndex((v) => sign * v >= (from + to) / 2)
  return at < 1 ? null : at
}

/** Radius of the steepest step down beyond a radius; null where there is none to speak of. */
export function steepestFall(profile: readonly number[], fromPx: number): number | null {
  let best: { r: number; fall: number } | null = null
  const reach = Math.max(1, Math.round(fromPx * 0.1))
  for (let r = Math.ceil(fromPx) + reach; r < profile.length - reach; r++) {
    const fall = (profile[r - reach] ?? 0) - (profile[r + reach] ?? 0)
    if (!best || fall > best.fall) best = { r, fall }
  }
  return best && best.fall > LEAST_STEP / 2 ? best.r : null
}

/** Share of the steepest step from which an earlier one counts. */
const AS_STEEP = 0.5
/**
 * Radius of the first step down beyond a radius that is at least half as steep as the steepest: spatter further out may shine brighter than
 * the tip in the middle. At the steepest place of that step; null where there is none to speak of.
 */
export function firstFall(profile: readonly number[], fromPx: number): number | null {
  const reach = Math.max(1, Math.round(fromPx * 0.1))
  const falls = profile.map((_, r) => (profile[r - reach] ?? NaN) - (profile[r + reach] ?? NaN))
  const from = Math.ceil(fromPx) + reach
  const near = falls.map((f, r) => (r >= from && Number.isFinite(f) ? f : -Infinity))
  const most = Math.max(...near)
  if (most <= LEAST_STEP / 2) return null
  const first = near.findIndex((f) => f >= AS_STEEP * most)
  let at = first
  while ((near[at + 1] ?? -Infinity) >= (near[at] ?? -Infinity)) at++
  return at
}

const SHIFTS = 6
/**
 * The middle of a dark round thing near a point: the centre of what is darker than half way, in a disc of one and a third of its radius,
 * moved there a few times (mean shift). A tap is several pixels off; a bore is a dozen across.
 */
export function middleOf(image: Gray, near: Point, radiusPx: number): Point {
  let centre = near
  const profile = meanProfile(image, near, radiusPx * 2)
  const half = (Math.min(...profile) + Math.max(...profile)) / 2
  const reach = Math.ceil(radiusPx * 1.35)
  for (let i = 0; i < SHIFTS; i++) {
    let [sum, sx, sy] = [0, 0, 0]
    for (let y = -reach; y <= reach; y++)
      for (let x = -reach; x <= reach; x++) {
        if (x * x + y * y > reach * reach) continue
        const dark = Math.max(0, half - sample(image, centre.x + x, centre.y + y))
        sum += dark
        sx += dark * x
        sy += dark * y
      }
    if (sum === 0) return centre
    centre = { x: centre.x + sx / sum, y: centre.y + sy / sum }
  }
  return centre
}

export interface FoundRim {
  ellipse: Ellipse
  /** Scatter of the edge points about the ellipse, px. */
  residualPx: number
  /** Blur of the edge as a standard deviation, px. */
  blurPx: number
  /** Share of the directions in which the edge was found and used. */
  share: number
}

/**
 * A rim found to a fraction of a pixel: along 180 rays the place where brightness passes half way between what lies inside and outside
 * of it there; an ellipse through those places, twice more from its own middle and size. Null where too few directions show it.
 */
export function findRim(
  image: Gray,
  rim: Rim,
  seed: { centre: Point; radiusPx: number; around?: Around },
): FoundRim | null {
  const around = seed.around ?? ALONE
  let { centre, radiusPx } = seed
  let found: FoundRim | null = null
  for (let round = 0; round < 4; round++) {
    const edges = edgesRound(image, rim, { centre, radiusPx, around, guide: found?.ellipse ?? null })
    const fit = fitEllipse(
      edges.map((e) => e.at),
      centre,
      { isNear: found !== null },
    )
    if (!fit) return found
    const near = edges.filter((e) => Math.abs(radialResidual(fit.ellipse, e.at)) < 4 * Math.max(fit.residualPx, 0.2))
    found = {
      ellipse: fit.ellipse,
      residualPx: fit.residualPx,
      blurPx: medianOf(near.map((e) => e.blurPx)),
      share: fit.used / RAYS,
    }
    centre = fit.ellipse.centre
    radiusPx = 1 / Math.sqrt(Math.sqrt(fit.ellipse.a * fit.ellipse.c - fit.ellipse.b ** 2))
  }
  return found && found.share > around.leastShare ? found : null
}

interface Edge {
  at: Point
  blurPx: number
}
function edgesRound(
  image: Gray,
  rim: Rim,
  seed: { centre: Point; radiusPx: number; guide: Ellipse | null; around: Around },
): Edge[] {
  const edges: Edge[] = []
  for (let k = 0; k < RAYS; k++) {
    const angle = (2 * Math.PI * k) / RAYS
    const edge = edgeAlong(image, rim, { ...seed, direction: { x: Math.cos(angle), y: Math.sin(angle) } })
    if (edge) edges.push(edge)
  }
  return edges
}

/** Where it is thought to be in one direction: on the ellipse found so far, else at the seed's radius. */
function expected(of: { radiusPx: number; guide: Ellipse | null; direction: Point }): number {
  const { guide: e, direction: d } = of
  return e ? 1 / Math.sqrt(e.a * d.x ** 2 + 2 * e.b * d.x * d.y + e.c * d.y ** 2) : of.radiusPx
}

/** The first place along a ray, going out, at which brightness passes a level the wanted way; straight between two samples. */
function firstOver(
  along: { at: (r: number) => number; sign: number },
  target: number,
  span: { from: number; to: number; step: number },
): number | null {
  const { at, sign } = along
  let before = at(span.from)
  for (let r = span.from + span.step; r <= span.to + 1e-9; r += span.step) {
    const now = at(r)
    if (sign * (now - target) >= 0 && sign * (before - target) < 0)
      return r - span.step * ((now - target) / (now - before))
    before = now
  }
  return null
}

function edgeAlong(
  image: Gray,
  rim: Rim,
  of: { centre: Point; radiusPx: number; guide: Ellipse | null; around: Around; direction: Point },
): Edge | null {
  const r0 = expected(of)
  const at = (r: number) => sample(image, of.centre.x + r * of.direction.x, of.centre.y + r * of.direction.y)
  const mean = (from: number, to: number) => {
    let [sum, n] = [0, 0]
    for (let r = from; r <= to; r += 0.5, n++) sum += at(r)
    return sum / n
  }
  const { band } = of.around
  const [inside, outside] = [of.around.inside, of.around.outside].map(([from, to]) => mean(r0 * from, r0 * to)) as [
    number,
    number,
  ]
  const sign = rim === 'dark inside' ? 1 : -1
  const step = sign * (outside - inside)
  if (step < 15) return null
  const level = (share: number) => inside + sign * step * share
  const along = { at, sign }
  // A large rim is looked for in strides, and only where it lies by quarters of a pixel.
  const stride = Math.max(STEP, r0 / STRIDES)
  const cross = (target: number): number | null => {
    const about = firstOver(along, target, { from: r0 * band[0], to: r0 * band[1], step: stride })
    if (about === null || stride === STEP) return about
    return firstOver(along, target, { from: about - stride, to: about + stride, step: STEP }) ?? about
  }
  const [low, middle, high] = [cross(level(0.25)), cross(level(0.5)), cross(level(0.75))]
  if (middle === null) return null
  // A quarter to three quarters of a blurred step is 1.349 standard deviations wide.
  const blurPx = low !== null && high !== null ? Math.abs(high - low) / 1.349 : NaN
  return {
    at: { x: of.centre.x + middle * of.direction.x, y: of.centre.y + middle * of.direction.y },
    blurPx: Number.isFinite(blurPx) ? blurPx : 1,
  }
}
