import { describe, expect, it } from 'vitest'
import { chi2Upper, lowerGamma, upperGamma } from './gamma.ts'
import { poissonCdf } from './poisson.ts'

describe('the incomplete gamma', () => {
  it('is e^(−x) at a = 1', () => {
    for (const x of [0.01, 0.5, 1, 3, 20, 200]) expect(upperGamma(1, x) / Math.exp(-x)).toBeCloseTo(1, 12)
  })
  it('sums Poisson terms at whole a: Q(n + 1, m) = P(N ≤ n)', () => {
    for (const [n, m] of [
      [0, 0.3],
      [3, 2],
      [10, 14],
      [40, 25],
    ] as const)
      expect(upperGamma(n + 1, m)).toBeCloseTo(poissonCdf(n, m), 12)
  })
  it('has halves that sum to 1, and ends', () => {
    for (const a of [0.2, 1, 5.5, 80])
      for (const x of [0.1, 1, 5, 90]) expect(lowerGamma(a, x) + upperGamma(a, x)).toBeCloseTo(1, 12)
    expect([upperGamma(2, 0), upperGamma(2, Infinity)]).toEqual([1, 0])
  })
  it('gives the usual points of χ²', () => {
    expect(chi2Upper(3.841458820694124, 1)).toBeCloseTo(0.05, 12)
    expect(chi2Upper(5.991464547107979, 2)).toBeCloseTo(0.05, 12)
    expect(chi2Upper(60, 1) / 9.48573842e-15).toBeCloseTo(1, 6)
  })
  it('of nothing is misuse', () => expect(() => upperGamma(0, 1)).toThrow('upperGamma: expected a > 0'))
})
