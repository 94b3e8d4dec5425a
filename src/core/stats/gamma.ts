import { logGamma } from './beta.ts'

const MOST = 1000
const CLOSE = 1e-16

/**
 * Regularised incomplete gamma, P(a, x) below and Q(a, x) = 1 − P above; each by what keeps its own small values good: series
 * x^a e^(−x)/Γ(a) Σ xⁿ/(a … (a + n)) for x < a + 1, else the continued fraction of Lentz. a > 0, x ≥ 0; else misuse throws.
 * Source: Abramowitz & Stegun 6.5.29, 6.5.31; Press et al. 1992, 6.2.
 * @example upperGamma(1, 2) // e⁻² = 0.1353
 */
export const upperGamma = (a: number, x: number): number => halves(a, x).upper
export const lowerGamma = (a: number, x: number): number => halves(a, x).lower

function halves(a: number, x: number): { lower: number; upper: number } {
  if (!(a > 0) || !(x >= 0)) throw new RangeError(`upperGamma: expected a > 0 and x >= 0, got ${a}, ${x}`)
  if (x === 0) return { lower: 0, upper: 1 }
  if (x === Infinity) return { lower: 1, upper: 0 }
  const front = Math.exp(a * Math.log(x) - x - logGamma(a))
  if (x < a + 1) {
    const lower = front * series(a, x)
    return { lower, upper: 1 - lower }
  }
  const upper = front * fraction(a, x)
  return { lower: 1 - upper, upper }
}
function series(a: number, x: number): number {
  let term = 1 / a
  let sum = term
  for (let n = 1; n < MOST && term > sum * CLOSE; n++) {
    term *= x / (a + n)
    sum += term
  }
  return sum
}
const TINY = 1e-300
function fraction(a: number, x: number): number {
  let b = x + 1 - a
  let c = 1 / TINY
  let d = 1 / b
  let h = d
  for (let n = 1; n < MOST; n++) {
    const an = -n * (n - a)
    b += 2
    d = 1 / (an * d + b || TINY)
    c = b + an / c || TINY
    const step = d * c
    h *= step
    if (Math.abs(step - 1) < CLOSE * 4) break
  }
  return h
}

/** e^x Γ(a, x), the upper incomplete gamma function with its decay taken off: stays finite far out. a > 0, x ≥ 0. @example scaledUpperGamma(1, 9) // 1 */
export function scaledUpperGamma(a: number, x: number): number {
  if (!(a > 0) || !(x >= 0)) throw new RangeError(`scaledUpperGamma: expected a > 0 and x >= 0, got ${a}, ${x}`)
  if (x < a + 1) return Math.exp(x + logGamma(a)) * upperGamma(a, x)
  return x ** a * fraction(a, x)
}

/** Chance of a χ² of so many degrees of freedom beyond x. @example chi2Upper(3.841458820694124, 1) // 0.05 */
export const chi2Upper = (x: number, df: number): number => upperGamma(df / 2, x / 2)
