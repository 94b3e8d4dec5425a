import { describe, expect, it } from 'vitest'
import { makeRandom } from '@core/random/random.ts'
import { betaCdf, logGamma, quantileOf } from './beta.ts'

/** Slow oracle: the density summed by Simpson's rule, where it has no pole. */
function byAreas(x: number, a: number, b: number): number {
  const steps = 20_000
  const density = (t: number) => (t <= 0 || t >= 1 ? 0 : t ** (a - 1) * (1 - t) ** (b - 1))
  const area = (to: number) => {
    const h = to / steps
    let sum = density(0) + density(to)
    for (let i = 1; i < steps; i++) sum += (i % 2 ? 4 : 2) * density(i * h)
    return (sum * h) / 3
  }
  return area(x) / area(1)
}

describe('ln gamma', () => {
  it('is the log of factorials', () => {
    let product = 1
    for (let n = 1; n < 20; n++) {
      expect(logGamma(n)).toBeCloseTo(Math.log(product), 11)
      product *= n
    }
  })
  it('knows the half', () => expect(logGamma(0.5)).toBeCloseTo(Math.log(Math.sqrt(Math.PI)), 12))
  it('refuses what has no value', () => expect(() => logGamma(0)).toThrow(RangeError))
})

describe('the beta distribution', () => {
  it('agrees with areas under its density', () => {
    const random = makeRandom(31)
    for (let i = 0; i < 40; i++) {
      const [a, b, x] = [1 + 40 * random(), 1 + 40 * random(), random()]
      expect(betaCdf(x, a, b)).toBeCloseTo(byAreas(x, a, b), 6)
    }
  })
  it('is the arcsine law at a half and a half', () =>
    expect(betaCdf(0.3, 0.5, 0.5)).toBeCloseTo((2 / Math.PI) * Math.asin(Math.sqrt(0.3)), 12))
  it('mirrors', () => expect(betaCdf(0.2, 3, 9)).toBeCloseTo(1 - betaCdf(0.8, 9, 3), 13))
  it('stays good at thousands', () => expect(betaCdf(0.6, 6001, 4001)).toBeCloseTo(0.5, 2))
  it('has its ends', () => expect([betaCdf(0, 2, 3), betaCdf(1, 2, 3)]).toEqual([0, 1]))
  it('is undone by its quantile', () => {
    for (const p of [0.05, 0.5, 0.95])
      expect(
        betaCdf(
          quantileOf((x) => betaCdf(x, 7.5, 2.5), p),
          7.5,
          2.5,
        ),
      ).toBeCloseTo(p, 12)
  })
  it('refuses what it is not defined for', () => {
    expect(() => betaCdf(0.5, 0, 1)).toThrow(RangeError)
    expect(() => betaCdf(1.5, 1, 1)).toThrow(RangeError)
    expect(() => quantileOf((x) => x, 1)).toThrow(RangeError)
  })
})
