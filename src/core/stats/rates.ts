import { betaCdf, quantileOf } from './beta.ts'

export interface Counted {
  /** Whole number of events, and what they were counted over: days, arc hours, kilograms. */
  n: number
  over: number
}
export interface RatesCompared {
  /** Second rate by the first. Null: nothing in the first. */
  ratio: number | null
  low: number
  high: number
  /** Chance of so large a difference, either way, where nothing changed. */
  p: number
}
const LEVEL = 0.95
const check = ({ n, over }: Counted) => {
  if (!Number.isInteger(n) || n < 0 || !(over > 0))
    throw new RangeError(`compareRates: expected a whole count >= 0 over more than nothing, got ${n} over ${over}`)
}

/**
 * Two Poisson rates by the exact conditional test: given n₁ + n₂, n₂ is binomial with π = t₂/(t₁ + t₂) where nothing changed;
 * p = min(1, 2 · min(P(X ≤ n₂), P(X ≥ n₂))). The ratio's interval is Clopper–Pearson's of π, turned: π/(1 − π) · t₁/t₂.
 * Source: Przyborowski & Wilenski (1940). Misuse throws.
 * @example compareRates({ n: 20, over: 30 }, { n: 8, over: 30 }).p // 0.036
 */
export function compareRates(before: Counted, after: Counted): RatesCompared {
  check(before)
  check(after)
  const n = before.n + after.n
  const k = after.n
  const ratio = before.n === 0 ? null : k / after.over / (before.n / before.over)
  if (n === 0) return { ratio: null, low: 0, high: Infinity, p: 1 }
  const usual = after.over / (before.over + after.over)
  const atMost = k === n ? 1 : 1 - betaCdf(usual, k + 1, n - k)
  const atLeast = k === 0 ? 1 : betaCdf(usual, k, n - k + 1)
  const tail = (1 - LEVEL) / 2
  const turned = (share: number) => (share >= 1 ? Infinity : ((share / (1 - share)) * before.over) / after.over)
  const low = k === 0 ? 0 : quantileOf((x) => betaCdf(x, k, n - k + 1), tail)
  const high = k === n ? 1 : quantileOf((x) => betaCdf(x, k + 1, n - k), 1 - tail)
  return { ratio, low: turned(low), high: turned(high), p: Math.min(1, 2 * Math.min(atMost, atLeast)) }
}

/**
 * How much longer it has to be counted, at the rates of now, until the test could tell them apart at 1 in 20; 0: it can now, null: not within
 * ten times what was counted.
 */
export function untilItTells(before: Counted, after: Counted): number | null {
  for (const times of [1, 1.25, 1.5, 2, 2.5, 3, 4, 5, 7, 10]) {
    const grown = { n: Math.round(after.n * times), over: after.over * times }
    if (compareRates(before, grown).p < 1 - LEVEL) return after.over * (times - 1)
  }
  return null
}
