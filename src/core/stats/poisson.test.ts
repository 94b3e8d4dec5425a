import { describe, expect, it } from 'vitest'
import { poissonCdf, rateInterval } from './poisson.ts'

describe('Poisson', () => {
  it('sums to one and agrees with the published tables', () => {
    expect(poissonCdf(2, 2.5)).toBeCloseTo(0.5438, 4)
    expect(poissonCdf(60, 10)).toBeCloseTo(1, 12)
    expect(poissonCdf(0, 0)).toBe(1)
  })
  it('intervals are Garwood’s', () => {
    for (const [n, low, high] of [
      [0, 0, 3.6889],
      [1, 0.0253, 5.5716],
      [10, 4.7954, 18.3904],
      [100, 81.364, 121.6272],
    ] as const) {
      const span = rateInterval(n, 1)
      expect(span.low).toBeCloseTo(low, 3)
      expect(span.high).toBeCloseTo(high, 3)
    }
  })
  it('scales with exposure, refuses nonsense', () => {
    expect(rateInterval(10, 4).high).toBeCloseTo(18.3904 / 4, 3)
    expect(() => rateInterval(1.5, 1)).toThrow('rateInterval')
  })
})
