import { describe, expect, test } from 'vitest'
import { drawWeibull, makeRandom } from '@core/random/random.ts'
import { poissonTerm } from '@core/stats/poisson.ts'
import { atMost, meanOf, varianceOf } from './counts.ts'
import { chanceShort, forecastByCounts, forecastByLives, runsOut, type InUse, type StockLife } from './forecast.ts'
import { Renewals, sumOf } from './renewals.ts'

const chance = { shape: 1, scale: 8, rate: 0 }
const regular = { shape: 2.5, scale: 10, rate: 0.01 }

/** Ends of one part after another, drawn: how many within `use`. */
function drawn(random: () => number, at: { age: number; use: number; limit: number | null }): number {
  const one = (age: number): number => {
    for (;;) {
      const wear = drawWeibull(random, regular.shape, regular.scale)
      const knocked = drawWeibull(random, 1, 1 / regular.rate)
      const end = Math.min(wear, knocked, at.limit ?? Infinity)
      if (end > age) return end - age
    }
  }
  let [used, n] = [one(at.age), 0]
  while (used <= at.use) {
    n++
    used += one(0)
  }
  return n
}

describe('renewals', () => {
  test('what ends at any age alike is wanted as Poisson has it, whatever its age', () => {
    const of = new Renewals(chance, null)
    expect(of.mean).toBeCloseTo(8, 3)
    for (const age of [0, 3, 40]) {
      const counts = of.within(20, age)
      for (let k = 0; k < 8; k++) expect(Math.abs((counts[k] ?? 0) - poissonTerm(k, 2.5))).toBeLessThan(0.002)
    }
  })

  test('of unknown age: use over a mean life on average, exactly', () => {
    for (const limit of [null, 7]) {
      const of = new Renewals(regular, limit)
      for (const use of [0.5, 5, 17, 40]) expect(meanOf(of.within(use, null)) / (use / of.mean)).toBeGreaterThan(0.99)
    }
  })

  test.each([
    { age: 0, use: 6, limit: null },
    { age: 9, use: 6, limit: null },
    { age: 4, use: 25, limit: null },
    { age: 2, use: 12, limit: 6 },
    { age: 3, use: 120, limit: null },
    { age: 5, use: 90, limit: 6 },
  ])('as drawn: %o', (at) => {
    const random = makeRandom(11)
    const n = 20_000
    const seen = Array.from({ length: n }, () => drawn(random, at))
    const [mean, counts] = [seen.reduce((a, b) => a + b, 0) / n, new Renewals(regular, at.limit).within(at.use, at.age)]
    const variance = seen.reduce((sum, v) => sum + (v - mean) ** 2, 0) / n
    expect(Math.abs(meanOf(counts) - mean)).toBeLessThan(0.03 + 0.004 * mean)
    expect(Math.abs(varianceOf(counts) - variance)).toBeLessThan(0.03 + 0.06 * variance)
    const k = Math.floor(mean)
    expect(Math.abs(atMost(counts, k) - seen.filter((v) => v <= k).length / n)).toBeLessThan(0.06)
    expect(counts.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 6)
  })

  test('past its limit it is wanted at once; an old line in a log that forgets says little', () => {
    const of = new Renewals(regular, 6)
    expect(atMost(of.within(0.01, 7), 0)).toBeLessThan(0.05)
    const free = new Renewals(regular, null)
    const [whole, thin] = [meanOf(free.within(2, 16)), meanOf(free.within(2, 16, 0.5))]
    expect(whole).toBeGreaterThan(thin * 1.5)
    expect(meanOf(free.within(2, 0, 0.5))).toBeCloseTo(meanOf(free.within(2, 0)), 3)
  })

  test('a use below zero, a life of none are refused', () => {
    expect(() => new Renewals({ shape: 0, scale: 1, rate: 0 }, null)).toThrow('above zero')
    expect(() => new Renewals(regular, 0)).toThrow('above zero')
    expect(() => new Renewals(regular, null).within(-1, 0)).toThrow('use >= 0')
  })

  test('many together are as wide as their variances', () => {
    const of = new Renewals(regular, null)
    const some = Array.from({ length: 80 }, (_, i) => of.within(10, i % 9))
    const sum = sumOf(some)
    expect(meanOf(sum)).toBeCloseTo(
      some.reduce((s, c) => s + meanOf(c), 0),
      1,
    )
    expect(varianceOf(sum)).toBeCloseTo(some.reduce((s, c) => s + varianceOf(c), 0) + 1 / 12, 1)
  })
})

const LIFE: StockLife = { key: 'tip', life: regular, limit: null, sdLog: 0.08, share: 1 }
const guns = (n: number, life = LIFE): InUse[] =>
  Array.from({ length: n }, (_, i) => ({
    life,
    age: (i * 1.7) % 9,
    useIn: (days) => days * (1 + (i % 3)),
    group: `g${i}`,
  }))

describe('forecast', () => {
  test('a world of other lives stays inside as often as is said', () => {
    const random = makeRandom(5)
    const forecast = forecastByLives(guns(12), { lossShare: 0 })
    const need = forecast.over(14)
    let inside = 0
    const worlds = 600
    for (let w = 0; w < worlds; w++) {
      // The truth is off by as much as the life is known to.
      const z = Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random())
      const times = Math.exp(z * Math.hypot(0.08, 0.1))
      let sum = 0
      for (const { age, useIn } of guns(12))
        sum += drawn(random, { age: Math.min((age ?? 0) / times, 30), use: useIn(14) / times, limit: null })
      if (sum >= need.low && sum <= need.high) inside++
    }
    expect(inside / worlds).toBeGreaterThan(0.87)
    expect(inside / worlds).toBeLessThan(0.97)
  })

  test('what left the shelf pulls it, by as much as it is sure', () => {
    const alone = forecastByLives(guns(10), { lossShare: 0.05 }).over(28).mean
    const near = { days: 90, taken: Math.round((1.3 * alone * 90) / 28), sd: 2 }
    const told = forecastByLives(guns(10), { lossShare: 0.05, seen: near }).over(28)
    expect(told.mean / alone).toBeGreaterThan(1.15)
    const unsure = forecastByLives(guns(10), { lossShare: 0.05, seen: { ...near, sd: 80 } }).over(28)
    expect(unsure.mean / alone).toBeLessThan(1.1)
  })

  test('one in twenty is lost: so many more', () => {
    const [none, some] = [0, 0.05].map((lossShare) => forecastByLives(guns(6), { lossShare }).over(30).mean)
    expect((some ?? 0) / (none ?? 1)).toBeCloseTo(1 / 0.95, 3)
  })

  test('from counts alone: as many a day as were taken, wider the fewer there were', () => {
    const [few, many] = [3, 300].map((taken) => forecastByCounts({ days: 90, taken, sd: 0 }).over(90))
    expect(few?.mean).toBeCloseTo(3.5, 3)
    expect(many?.mean).toBeCloseTo(300.5, 3)
    expect((few?.high ?? 0) / 3.5).toBeGreaterThan((many?.high ?? 0) / 300)
    const wide = forecastByCounts({ days: 90, taken: 300, sd: 60 }).over(90)
    expect(wide.high - wide.low).toBeGreaterThan(1.5 * ((many?.high ?? 0) - (many?.low ?? 0)))
    expect(() => forecastByCounts({ days: 0, taken: 1, sd: 0 })).toThrow('days > 0')
  })

  test('runs out when as many are gone as lie there; what comes puts it off; an empty shelf is out now', () => {
    const forecast = forecastByLives(guns(10), { lossShare: 0 })
    const perDay = forecast.over(30).mean / 30
    const out = runsOut(forecast, { mean: 20, sd: 0 })
    expect(out.middle).toBeGreaterThan((0.75 * 20) / perDay)
    expect(out.middle).toBeLessThan((1.35 * 20) / perDay)
    expect(out.low).toBeLessThan(out.middle ?? 0)
    const later = runsOut(forecast, { mean: 20, sd: 0 }, [{ quantity: 30, days: 4 }])
    expect(later.middle).toBeGreaterThan(out.middle ?? 0)
    expect(runsOut(forecast, { mean: 0, sd: 0 })).toEqual({ low: 0, middle: 0, high: 0 })
    expect(runsOut(forecastByLives([], { lossShare: 0.05 }), { mean: 3, sd: 0 })).toEqual({
      low: null,
      middle: null,
      high: null,
    })
  })

  test('a shelf that is not known well runs short oftener than one that is', () => {
    const { counts } = forecastByLives(guns(4), { lossShare: 0 }).over(14)
    const enough = meanOf(counts) + 4
    expect(chanceShort(counts, { mean: enough, sd: 4 })).toBeGreaterThan(chanceShort(counts, { mean: enough, sd: 0 }))
    expect(chanceShort([1], { mean: 0, sd: 0 })).toBe(0)
    expect(chanceShort([0, 1], { mean: 0, sd: 0 })).toBe(1)
  })
})
