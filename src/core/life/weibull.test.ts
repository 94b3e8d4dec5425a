import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { drawWeibull, makeRandom } from '@core/random/random.ts'
import { fitWeibull, profileIntervals, type WeibullFit } from './weibull.ts'

const fitted = (lives: Parameters<typeof fitWeibull>[0]): WeibullFit => {
  const fit = fitWeibull(lives)
  if (!fit.ok) throw new Error(fit.reason)
  return fit
}
const drawn = (seed: number, n: number, { shape = 2.2, scale = 6, until = Infinity } = {}) => {
  const random = makeRandom(seed)
  const whole = Array.from({ length: n }, () => drawWeibull(random, shape, scale))
  return { time: whole.map((t) => Math.min(t, until)), event: whole.map((t) => (t <= until ? 1 : 0)) }
}

describe('Weibull lives', () => {
  it('of many draws are found again, whole and cut off', () => {
    for (const until of [Infinity, 6]) {
      const fit = fitted(drawn(1, 20_000, { until }))
      expect(fit.shape / 2.2).toBeCloseTo(1, 1)
      expect(fit.scale / 6).toBeCloseTo(1, 1)
      expect(fit.converged).toBe(true)
    }
  })
  it('do not depend on the unit they are counted in', () => {
    fc.assert(
      fc.property(fc.double({ min: 1e-6, max: 1e6, noNaN: true }), fc.integer({ min: 1, max: 400 }), (unit, seed) => {
        const lives = drawn(seed, 25, { until: 8 })
        const [one, other] = [fitted(lives), fitted({ ...lives, time: lives.time.map((t) => t * unit) })]
        expect(other.shape / one.shape).toBeCloseTo(1, 9)
        expect(other.scale / (one.scale * unit)).toBeCloseTo(1, 9)
        expect(other.waldShape[0] / one.waldShape[0]).toBeCloseTo(1, 8)
      }),
      { seed: 4, numRuns: 40 },
    )
  })
  it('sit at the top of their likelihood', () => {
    const lives = drawn(7, 40, { until: 7 })
    const fit = fitted(lives)
    const logLik = (k: number, lambda: number) =>
      lives.time.reduce((sum, t, i) => {
        const density = lives.event[i] ? Math.log(k) - Math.log(lambda) + (k - 1) * Math.log(t / lambda) : 0
        return sum + density - (t / lambda) ** k
      }, 0)
    expect(logLik(fit.shape, fit.scale)).toBeCloseTo(fit.logLik, 9)
    for (const [k, l] of [
      [1.01, 1],
      [0.99, 1],
      [1, 1.01],
      [1, 0.99],
    ] as const)
      expect(logLik(fit.shape * k, fit.scale * l)).toBeLessThan(fit.logLik)
  })
  it('entered late are not made long by it', () => {
    const random = makeRandom(3)
    const all = Array.from({ length: 6000 }, () => ({ t: drawWeibull(random, 2.2, 6), a: random() * 6 }))
    const seen = all.filter(({ t, a }) => t > a)
    const event = seen.map(() => 1)
    const time = seen.map(({ t }) => t)
    const right = fitted({ time, event, entry: seen.map(({ a }) => a) })
    expect(right.median / (6 * Math.log(2) ** (1 / 2.2))).toBeCloseTo(1, 1)
    expect(fitted({ time, event }).median).toBeGreaterThan(right.median * 1.1)
  })
  it('have intervals that hold the truth 93 to 97 times in 100 at n = 60', () => {
    let [shape, median] = [0, 0]
    const runs = 800
    const truth = 6 * Math.log(2) ** (1 / 2.2)
    for (let seed = 1; seed <= runs; seed++) {
      const fit = fitted(drawn(seed * 7919, 60, { until: 8 }))
      if (fit.waldShape[0] <= 2.2 && fit.waldShape[1] >= 2.2) shape++
      if (fit.waldMedian[0] <= truth && fit.waldMedian[1] >= truth) median++
    }
    for (const held of [shape, median]) {
      expect(held / runs).toBeGreaterThan(0.93)
      expect(held / runs).toBeLessThan(0.97)
    }
  })
  it('with few failures have profile intervals that lean to the open side, and say so', () => {
    const lives = { time: [4, 5, 7, 9], event: [1, 0, 0, 0] }
    const fit = fitted(lives)
    const { shape, scale } = profileIntervals(lives, fit)
    expect(shape[0]).toBeLessThan(fit.shape)
    expect(scale[1] ?? Infinity).toBeGreaterThan(fit.waldScale[1])
    expect(fit.warnings).toEqual(['rests on 1 worn out, of 4'])
  })
  it('that never wore out, or all at the last look, have none, with the reason', () => {
    expect(fitWeibull({ time: [3, 4], event: [0, 0] })).toEqual({ ok: false, reason: 'noFailure' })
    expect(fitWeibull({ time: [3, 4, 4], event: [0, 1, 1] })).toEqual({ ok: false, reason: 'shapeDiverges' })
  })
  it('of no time, or begun after their end, are misuse', () => {
    expect(() => fitWeibull({ time: [0, 2], event: [1, 1] })).toThrow('fitWeibull: expected times > 0, got 0')
    expect(() => fitWeibull({ time: [1, 2], event: [1, 1], entry: [0, 3] })).toThrow('expected entries before')
    expect(() => fitWeibull({ time: [1], event: [] })).toThrow('as many events')
  })
  it('of any size are answered with numbers, never NaN', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.double({ min: 1e-9, max: 1e9, noNaN: true }), fc.boolean()), {
          minLength: 1,
          maxLength: 30,
        }),
        (rows) => {
          const fit = fitWeibull({ time: rows.map(([t]) => t), event: rows.map(([, e]) => (e ? 1 : 0)) })
          if (fit.ok) for (const n of [fit.shape, fit.scale, fit.logLik, fit.b10]) expect(Number.isFinite(n)).toBe(true)
        },
      ),
      { seed: 11, numRuns: 200 },
    )
  })
})
