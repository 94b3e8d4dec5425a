import { logGamma } from '@core/stats/beta.ts'
import { scaledUpperGamma } from '@core/stats/gamma.ts'

/** Weibull wear: S(t) = exp(−(t/scale)^shape); scale in the kind's own unit of use. */
export interface Weibull {
  shape: number
  scale: number
}
export function mustBeWeibull(by: string, { shape, scale }: Weibull): void {
  if (!(shape > 0) || !(scale > 0) || !Number.isFinite(shape) || !Number.isFinite(scale))
    throw new RangeError(`${by}: expected shape and scale > 0, got ${shape}, ${scale}`)
}

/** Mean life λ Γ(1 + 1/k). @example meanLife({ shape: 1, scale: 80 }) // 80 */
export const meanLife = ({ shape, scale }: Weibull): number => scale * Math.exp(logGamma(1 + 1 / shape))
/** Use at which a share `p` has worn out, 0 < p < 1: λ(−ln(1 − p))^(1/k). @example lifeAt({ shape: 1, scale: 1 }, 0.5) // ln 2 */
export const lifeAt = ({ shape, scale }: Weibull, p: number): number => scale * (-Math.log1p(-p)) ** (1 / shape)

/** (a/λ)^k − ((a + x)/λ)^k, without losing the difference of two large powers. */
function gain({ shape, scale }: Weibull, age: number, more: number): number {
  if (age === 0) return (more / scale) ** shape
  return (age / scale) ** shape * Math.expm1(shape * Math.log1p(more / age))
}

/**
 * What is left of a part of this age: the chance that it wears out within `more` use, 1 − S(a + x)/S(a); its mean residual life
 * (λ/k) e^u Γ(1/k, u), u = (a/λ)^k; its median one. Ages and use ≥ 0 in the unit of the scale; else misuse throws.
 * Source: Meeker & Escobar 1998.
 * @example residual({ shape: 1, scale: 80 }, 40, 8).failProb // 1 − e^(−0.1)
 */
export function residual(
  wear: Weibull,
  age: number,
  more: number,
): { failProb: number; meanResidual: number; medianResidual: number } {
  mustBeWeibull('residual', wear)
  if (!(age >= 0) || !(more >= 0)) throw new RangeError(`residual: expected age and use >= 0, got ${age}, ${more}`)
  const { shape, scale } = wear
  const u = (age / scale) ** shape
  return {
    failProb: -Math.expm1(-gain(wear, age, more)),
    meanResidual: (scale / shape) * scaledUpperGamma(1 / shape, u),
    medianResidual: u > 0 ? age * Math.expm1(Math.log1p(Math.LN2 / u) / shape) : lifeAt(wear, 0.5),
  }
}
