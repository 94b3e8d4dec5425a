import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { normalLoss, normalQuantile, normalTail } from '@core/stats/normal.ts'
import { atMost, beyond, enoughFor, meanOf, poissonCounts, together } from './counts.ts'
import { buyOnce, buyOnceNormal, costOfOnce } from './once.ts'
import { orderSize, yearOf, type OrderCosts } from './ordersize.ts'
import { normalReorder, poissonReorder } from './reorder.ts'

describe('counts', () => {
  it('two Poisson counts together are one of both means', () => {
    const both = together(poissonCounts(2.5), poissonCounts(4))
    poissonCounts(6.5).forEach((p, k) => expect(both[k] ?? 0).toBeCloseTo(p, 12))
  })
  it('beyond and at most agree: E(N − n)+ − E(n − N)+ = mean − n', () => {
    const counts = poissonCounts(7.3)
    for (const n of [0, 3, 8, 20]) {
      const below = counts.reduce((sum, p, k) => sum + p * Math.max(0, n - k), 0)
      expect(beyond(counts, n) - below).toBeCloseTo(meanOf(counts) - n, 10)
      expect(atMost(counts, n)).toBeLessThanOrEqual(1)
    }
  })
  it('nothing wanted is nothing kept; misuse throws', () => {
    expect(enoughFor(poissonCounts(0), 0.99)).toBe(0)
    expect(() => poissonCounts(-1)).toThrow(RangeError)
    expect(() => enoughFor([1], 1)).toThrow(RangeError)
  })
})

describe('the normal’s points', () => {
  it('come back through the tail, also far out', () => {
    for (const p of [1e-12, 0.001, 0.2, 0.4999, 0.7, 0.95, 0.999999]) {
      const z = normalQuantile(p)
      const back = z >= 0 ? 1 - normalTail(z) : normalTail(-z)
      expect(Math.abs(back - p)).toBeLessThan(1e-14 + 1e-11 * p)
    }
    expect(normalQuantile(0.5)).toBe(0)
    expect(() => normalQuantile(1)).toThrow(RangeError)
  })
  it('loss at z and −z differ by z', () => {
    for (const z of [0, 0.7, 3]) expect(normalLoss(-z) - normalLoss(z)).toBeCloseTo(z, 12)
  })
})

describe('when to order', () => {
  it('more service, a longer or a less certain lead time, and more is kept', () => {
    const at = (over: object) =>
      normalReorder({ perDay: 20, sdPerDay: 6, leadDays: 5, sdLeadDays: 1, service: 0.9, ...over }).point
    expect(at({ service: 0.99 })).toBeGreaterThan(at({}))
    expect(at({ sdLeadDays: 3 })).toBeGreaterThan(at({}))
    expect(poissonReorder({ perDay: 0.3, leadDays: 14, service: 0.99 }).point).toBeGreaterThan(
      poissonReorder({ perDay: 0.3, leadDays: 7, service: 0.99 }).point,
    )
  })
})

describe('bought once', () => {
  it('is the cheapest of all counts', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.2, max: 30, noNaN: true }),
        fc.double({ min: 0.1, max: 20, noNaN: true }),
        fc.double({ min: 0.1, max: 20, noNaN: true }),
        (mean, under, over) => {
          const demand = poissonCounts(mean)
          const made = buyOnce(demand, { under, over })
          for (let q = 0; q < demand.length; q++)
            expect(costOfOnce(demand, q, { under, over })).toBeGreaterThanOrEqual(made.cost - 1e-9)
        },
      ),
      { numRuns: 60 },
    )
  })
  it('one too many that costs nothing is all anybody could want; a spread of nothing is misuse', () => {
    const demand = poissonCounts(2)
    expect(buyOnce(demand, { under: 1, over: 0 }).quantity).toBe(demand.length - 1)
    expect(() => buyOnceNormal({ mean: 1, sd: 0 }, { under: 1, over: 1 })).toThrow(RangeError)
  })
})

describe('how many at a time', () => {
  const bands = [
    { from: 0, each: 10 },
    { from: 100, each: 9 },
    { from: 400, each: 8.8 },
  ]
  it.each(['all', 'steps'] as const)('is the cheapest of every whole number (%s)', (discount) => {
    fc.assert(
      fc.property(
        fc.integer({ min: 20, max: 3000 }),
        fc.integer({ min: 1, max: 120 }),
        fc.double({ min: 0.05, max: 0.5, noNaN: true }),
        (perYear, orderCost, ofPrice) => {
          const of: OrderCosts = { perYear, orderCost, holding: { ofPrice }, discount, bands }
          const { whole } = orderSize(of)
          for (let q = 1; q <= 1500; q++) expect(yearOf(q, of)).toBeGreaterThanOrEqual(whole.cost - 1e-7)
        },
      ),
      { numRuns: 40 },
    )
  })
  it('prices from nothing on, demand and keeping above nothing, else misuse', () => {
    const of: OrderCosts = { perYear: 10, orderCost: 1, holding: { each: 1 }, discount: 'all', bands }
    expect(() => orderSize({ ...of, bands: [{ from: 5, each: 1 }] })).toThrow(RangeError)
    expect(() => orderSize({ ...of, perYear: 0 })).toThrow(RangeError)
    expect(() => orderSize({ ...of, holding: { each: 0 } })).toThrow(RangeError)
  })
})
