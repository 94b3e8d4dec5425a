import { mean, variance } from '@core/stats/mean.ts'
import { studentQuantile } from '@core/stats/student.ts'

/** The least a straight pull may be to tell a friction: below it the brake's own play is read. */
export const LEAST_PULL_N = 2

export type FrictionFromPulls =
  | { ok: true; friction: number; standardError: number | null; freedom: number | null }
  | { ok: false; reason: 'pullTooSmall' | 'notHarder' }

/**
 * Friction of the whole gun from pulls straight and with loops on the floor: µ = (mean ln F₂ − mean ln F₁)/(2πn); standard error
 * √(s₁²/n₁ + s₂²/n₂)/(2πn) with Welch–Satterthwaite degrees of freedom, none from single pulls. It reads low by 10 to 30 %, for drag that
 * arises after the loop does not scale: "at least". Pulls under 2 N tell nothing. Capstan equation (Euler–Eytelwein).
 * @example frictionFromPulls([6.1, 6.4, 6.0], [14.9, 15.6, 15.1], 1) // friction 0.1436 ± 0.0038
 */
export function frictionFromPulls(
  straightN: readonly number[],
  loopedN: readonly number[],
  loops: number,
): FrictionFromPulls {
  if (
    straightN.length === 0 ||
    loopedN.length === 0 ||
    !(loops > 0) ||
    [...straightN, ...loopedN].some((f) => !(f > 0))
  )
    throw new RangeError(`frictionFromPulls: expected pulls > 0 in both lays and loops > 0, got ${loops} loops`)
  if (mean(straightN) < LEAST_PULL_N) return { ok: false, reason: 'pullTooSmall' }
  const [a, b] = [straightN.map(Math.log), loopedN.map(Math.log)]
  const turn = 2 * Math.PI * loops
  const friction = (mean(b) - mean(a)) / turn
  if (friction <= 0) return { ok: false, reason: 'notHarder' }
  if (a.length < 2 || b.length < 2) return { ok: true, friction, standardError: null, freedom: null }
  const [va, vb] = [variance(a) / a.length, variance(b) / b.length]
  const sum = va + vb
  const freedom = sum === 0 ? null : sum ** 2 / (va ** 2 / (a.length - 1) + vb ** 2 / (b.length - 1))
  return { ok: true, friction, standardError: Math.sqrt(sum) / turn, freedom }
}

/** 95% interval of a friction from pulls, by Student's t; null where single pulls leave nothing to tell it by. */
export function frictionInterval(made: {
  friction: number
  standardError: number | null
  freedom: number | null
}): { low: number; high: number } | null {
  if (made.standardError === null || made.freedom === null) return null
  const half = studentQuantile(0.975, made.freedom) * made.standardError
  return { low: Math.max(0, made.friction - half), high: made.friction + half }
}

/** Mean pull in one lay with one weight on the wire's tail, N. */
export interface TailPulls {
  lightN: readonly number[]
  heavyN: readonly number[]
}

/**
 * The exact way: two tail weights in each lay. µ = ln[(F_loop,heavy − F_loop,light)/(F_straight,heavy − F_straight,light)]/(2πn), wherever
 * the loop lies, since what arises after the loop cancels in the differences. Standard error by the delta method from the scatter of the
 * pulls; null from single ones.
 */
export function frictionFromWeights(straight: TailPulls, looped: TailPulls, loops: number): FrictionFromPulls {
  const lists = [straight.lightN, straight.heavyN, looped.lightN, looped.heavyN]
  if (!(loops > 0) || lists.some((l) => l.length === 0 || l.some((f) => !(f > 0))))
    throw new RangeError(`frictionFromWeights: expected pulls > 0 in both lays and loops > 0, got ${loops} loops`)
  const [a, b] = [mean(straight.heavyN) - mean(straight.lightN), mean(looped.heavyN) - mean(looped.lightN)]
  if (mean(straight.lightN) < LEAST_PULL_N || a < LEAST_PULL_N) return { ok: false, reason: 'pullTooSmall' }
  const turn = 2 * Math.PI * loops
  const friction = b > 0 ? Math.log(b / a) / turn : 0
  if (friction <= 0) return { ok: false, reason: 'notHarder' }
  if (lists.some((l) => l.length < 2)) return { ok: true, friction, standardError: null, freedom: null }
  const of = (l: readonly number[], over: number) => variance(l) / l.length / over ** 2
  const parts = [of(straight.lightN, a), of(straight.heavyN, a), of(looped.lightN, b), of(looped.heavyN, b)]
  return { ok: true, friction, standardError: Math.sqrt(sum(parts)) / turn, freedom: freedomOf(parts, lists) }
}

/**
 * Three lays with 0, 1 and 2 loops in the same place: µ ≈ ln[(F₂ − F₁)/(F₁ − F₀)]/(2π). What comes before and after the loops cancels in
 * the differences; no weight is needed.
 */
export function frictionFromThreeLays(
  none: readonly number[],
  one: readonly number[],
  two: readonly number[],
): FrictionFromPulls {
  const lists = [none, one, two]
  if (lists.some((l) => l.length === 0 || l.some((f) => !(f > 0))))
    throw new RangeError('frictionFromThreeLays: expected pulls > 0 in each lay')
  if (mean(none) < LEAST_PULL_N) return { ok: false, reason: 'pullTooSmall' }
  const [a, b] = [mean(one) - mean(none), mean(two) - mean(one)]
  if (!(a > 0) || !(b > a)) return { ok: false, reason: 'notHarder' }
  const friction = Math.log(b / a) / (2 * Math.PI)
  if (lists.some((l) => l.length < 2)) return { ok: true, friction, standardError: null, freedom: null }
  // ∂ ln(b/a): −1/b − 1/a for the lay both differences share.
  const of = (l: readonly number[], slope: number) => (variance(l) / l.length) * slope ** 2
  const parts = [of(none, 1 / a), of(one, 1 / a + 1 / b), of(two, 1 / b)]
  return { ok: true, friction, standardError: Math.sqrt(sum(parts)) / (2 * Math.PI), freedom: freedomOf(parts, lists) }
}

const sum = (list: readonly number[]) => list.reduce((s, x) => s + x, 0)
/** Welch–Satterthwaite. */
function freedomOf(parts: readonly number[], lists: readonly (readonly number[])[]): number | null {
  const below = parts.reduce((s, v, i) => s + v ** 2 / ((lists[i]?.length ?? 2) - 1), 0)
  return below === 0 ? null : sum(parts) ** 2 / below
}

/** Steady pulls at one end of a conduit with two weights on the wire's tail at the other, N; and its bends of a quarter turn. */
export interface ConduitPulls {
  lightN: number
  heavyN: number
  pullLightN: number
  pullHeavyN: number
  bends: number
}
const QUARTER = Math.PI / 2

/**
 * Friction of a conduit by two tail weights: what weighs on the wire does not depend on the weight, so the slope is e^(µθ):
 * µ = ln[(F_heavy − F_light)/(W_heavy − W_light)]/θ, θ = bends · π/2. Forces > 0 N. Capstan equation (Euler–Eytelwein).
 * @example conduitFriction({ lightN: 5, heavyN: 15, pullLightN: 12.3, pullHeavyN: 31.6, bends: 3 }) // friction 0.1395
 */
export function conduitFriction(
  of: Partial<ConduitPulls>,
): { ok: true; friction: number } | { ok: false; reason: 'missing' | 'pullTooSmall' | 'notHarder' } {
  const { lightN = 0, heavyN = 0, pullLightN = 0, pullHeavyN = 0, bends = 0 } = of
  if (!(lightN > 0) || !(heavyN > lightN) || !(bends > 0) || !(pullHeavyN > 0)) return { ok: false, reason: 'missing' }
  if (pullLightN < LEAST_PULL_N) return { ok: false, reason: 'pullTooSmall' }
  const slope = (pullHeavyN - pullLightN) / (heavyN - lightN)
  return slope > 1 ? { ok: true, friction: Math.log(slope) / (bends * QUARTER) } : { ok: false, reason: 'notHarder' }
}

/** Ways to tell friction from pulls, and which lists of pulls each wants, in the order they are pulled. */
export const PULL_WAYS = {
  pulls: ['straightN', 'loopedN'],
  threeLays: ['noneN', 'oneN', 'twoN'],
  weights: ['straightLightN', 'straightHeavyN', 'loopedLightN', 'loopedHeavyN'],
} as const
export type PullWay = keyof typeof PULL_WAYS
export const isPullWay = (key: string): key is PullWay => key in PULL_WAYS

/** Friction by one of the ways; lists that are missing, empty or hold no force are refused as `missing`. */
export function frictionBy(
  way: PullWay,
  lists: Readonly<Record<string, unknown>>,
  loops: number,
): FrictionFromPulls | { ok: false; reason: 'missing' } {
  const list = (key: string): number[] => {
    const given = lists[key]
    return Array.isArray(given) ? given.filter((f): f is number => typeof f === 'number' && f > 0) : []
  }
  const all = PULL_WAYS[way].map(list)
  if (all.some((l) => l.length === 0) || !(loops > 0)) return { ok: false, reason: 'missing' }
  const [a = [], b = [], c = [], d = []] = all
  if (way === 'pulls') return frictionFromPulls(a, b, loops)
  if (way === 'threeLays') return frictionFromThreeLays(a, b, c)
  return frictionFromWeights({ lightN: a, heavyN: b }, { lightN: c, heavyN: d }, loops)
}
