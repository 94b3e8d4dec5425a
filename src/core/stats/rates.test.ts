import { describe, expect, it } from 'vitest'
import { makeRandom } from '@core/random/random.ts'
import { compareRates, untilItTells } from './rates.ts'

/** Binomial by hand. */
function binomial(n: number, p: number): number[] {
  const row = [1]
  for (let i = 0; i < n; i++) {
    row.push(0)
    for (let k = row.length - 1; k >= 0; k--) row[k] = (row[k] ?? 0) * (1 - p) + (k > 0 ? (row[k - 1] ?? 0) * p : 0)
  }
  return row
}

describe('two rates', () => {
  it('by the binomial, summed by hand', () => {
    const row = binomial(28, 0.5)
    const atMost = row.slice(0, 9).reduce((a, b) => a + b, 0)
    expect(compareRates({ n: 20, over: 30 }, { n: 8, over: 30 }).p).toBeCloseTo(2 * atMost, 9)
    expect(compareRates({ n: 8, over: 30 }, { n: 20, over: 30 }).p).toBeCloseTo(2 * atMost, 9)
  })
  it('what they are counted over counts, and its unit does not', () => {
    const days = compareRates({ n: 12, over: 30 }, { n: 9, over: 10 })
    const hours = compareRates({ n: 12, over: 720 }, { n: 9, over: 240 })
    expect(days.ratio).toBeCloseTo(2.25, 12)
    expect([hours.p, hours.low, hours.high].map((x) => x.toFixed(9))).toEqual(
      [days.p, days.low, days.high].map((x) => x.toFixed(9)),
    )
  })
  it('nothing at all tells nothing, and none after many is told', () => {
    expect(compareRates({ n: 0, over: 10 }, { n: 0, over: 10 })).toMatchObject({ ratio: null, p: 1 })
    const gone = compareRates({ n: 9, over: 30 }, { n: 0, over: 30 })
    expect([gone.ratio, gone.low]).toEqual([0, 0])
    expect(gone.p).toBeCloseTo(2 * 0.5 ** 9, 9)
    expect(compareRates({ n: 0, over: 30 }, { n: 3, over: 30 })).toMatchObject({ ratio: null, high: Infinity })
  })
  it('says "it changed" where nothing did in no more than 1 of 20, and its interval holds the truth', () => {
    const random = makeRandom(4)
    const draw = (mean: number) => {
      let [k, p] = [0, Math.exp(-mean)]
      for (let u = random(), s = p; u > s; s += p) p *= mean / ++k
      return k
    }
    let [wrong, held] = [0, 0]
    for (let i = 0; i < 600; i++) {
      const made = compareRates({ n: draw(12), over: 30 }, { n: draw(24), over: 60 })
      if (made.p < 0.05) wrong++
      if (made.low <= 1 && made.high >= 1) held++
    }
    expect(wrong / 600).toBeLessThanOrEqual(0.05)
    expect(held / 600).toBeGreaterThanOrEqual(0.95)
  })
  it('how long until it can tell: at once, later, or not in any time worth waiting', () => {
    expect(untilItTells({ n: 40, over: 30 }, { n: 10, over: 30 })).toBe(0)
    expect(untilItTells({ n: 30, over: 60 }, { n: 8, over: 30 })).toBeGreaterThan(0)
    expect(untilItTells({ n: 12, over: 30 }, { n: 12, over: 30 })).toBeNull()
  })
  it('refuses what is no count', () => {
    expect(() => compareRates({ n: 1.5, over: 1 }, { n: 1, over: 1 })).toThrow(RangeError)
    expect(() => compareRates({ n: 1, over: 0 }, { n: 1, over: 1 })).toThrow(RangeError)
  })
})
