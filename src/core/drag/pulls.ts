/** The least a straight pull may be to tell a friction: below it the brake's own play is read. */
export const LEAST_PULL_N = 2

const mean = (list: readonly number[]) => list.reduce((s, x) => s + x, 0) / list.length
function variance(list: readonly number[]): number {
  const m = mean(list)
  return list.reduce((s, x) => s + (x - m) ** 2, 0) / (list.length - 1)
}

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
