import { describe, expect, it } from 'vitest'
import { drawNormal, makeRandom } from '@core/random/random.ts'
import { normalTail } from '@core/stats/normal.ts'
import { cusum } from './cusum.ts'
import { ewma } from './ewma.ts'
import { mannKendall, pOfRise } from './mannkendall.ts'
import { watchSeries, type SeriesPoint } from './series.ts'
import { median, theilSen } from './theilsen.ts'

const knob = (values: readonly number[]): SeriesPoint[] => values.map((value, i) => ({ usage: i * 10, value }))
const KNOB = { worse: 'up', limit: 3.2, sd: 0.15 } as const

describe('a knob that creeps', () => {
  it('below four readings says so and nothing else', () =>
    expect(watchSeries(knob([2, 2.5, 3]), KNOB)).toEqual({ is: 'few', n: 3 }))
  it('steady within reading error is steady', () =>
    expect(watchSeries(knob([2.2, 2.1, 2.2, 2.3, 2.1, 2.2]), KNOB)).toMatchObject({ is: 'steady', crossing: null }))
  it('tells when it gets to its limit, with an early and a late, and that it crept', () => {
    const made = watchSeries(knob([2.0, 2.1, 2.2, 2.35, 2.4, 2.5, 2.65, 2.7]), KNOB)
    expect(made).toMatchObject({ is: 'creeps', stepAt: null })
    const crossing = made.is === 'few' ? null : made.crossing
    expect(crossing?.usage).toBeCloseTo(115, -1)
    expect(crossing?.early).toBeLessThan(crossing?.usage ?? 0)
    expect(crossing?.late).toBeGreaterThan(crossing?.usage ?? 0)
  })
  it('beyond the limit it is over, with or without a trend', () => {
    expect(watchSeries(knob([3.4, 3.3, 3.4, 3.4]), KNOB).is).toBe('over')
    expect(watchSeries(knob([2, 2.5, 3, 3.3, 3.6]), KNOB).is).toBe('over')
  })
  it('one wild reading neither starts nor hides it', () => {
    expect(watchSeries(knob([2.2, 2.1, 4.4, 2.2, 2.1, 2.2]), KNOB).is).toBe('steady')
    expect(watchSeries(knob([2.0, 2.1, 2.2, 1.0, 2.4, 2.5, 2.6, 2.7]), KNOB).is).toBe('creeps')
  })
  it('a jump is told from a creep, and where it came', () => {
    const made = watchSeries(knob([2.2, 2.2, 2.1, 2.2, 3.0, 3.1, 3.0, 3.0]), KNOB)
    expect(made.is === 'few' ? null : made.stepAt).toBe(4)
  })
  it('what gets worse by falling is the same turned over', () => {
    const made = watchSeries(knob([1, 0.95, 0.9, 0.85, 0.8, 0.78]), { worse: 'down', limit: 0.7, sd: 0.02 })
    expect(made).toMatchObject({ is: 'creeps' })
    if (made.is === 'few') return
    expect(made.line.slope).toBeLessThan(0)
    expect(made.line.slopeLow).toBeLessThan(made.line.slopeHigh)
    expect(made.crossing?.usage).toBeGreaterThan(50)
  })
  it('cries wolf about one time in twenty on a knob that only jitters, and not without a rise', () => {
    const random = makeRandom(21)
    const runs = Array.from({ length: 400 }, () =>
      watchSeries(knob(Array.from({ length: 8 }, () => 2.2 + 0.15 * drawNormal(random))), KNOB),
    )
    expect(runs.filter((r) => r.is === 'creeps').length / 400).toBeLessThan(0.06)
  })
  it('finds a creep of a mark over ten readings nine times in ten, before it is over', () => {
    const random = makeRandom(22)
    const runs = Array.from({ length: 300 }, () =>
      watchSeries(knob(Array.from({ length: 10 }, (_, i) => 2 + i * 0.1 + 0.15 * drawNormal(random))), KNOB),
    )
    expect(runs.filter((r) => r.is === 'creeps').length / 300).toBeGreaterThan(0.9)
  })
  it('its late end holds the true crossing about as often as it says', () => {
    const random = makeRandom(23)
    let held = 0
    let told = 0
    for (let i = 0; i < 300; i++) {
      const points = knob(Array.from({ length: 12 }, (_, k) => 2 + k * 0.08 + 0.15 * drawNormal(random)))
      const made = watchSeries(points, KNOB)
      if (made.is === 'few' || !made.crossing) continue
      told += 1
      const truth = (1.2 / 0.08) * 10
      if (truth > made.crossing.early && truth < (made.crossing.late ?? Infinity)) held += 1
    }
    expect(held / told).toBeGreaterThan(0.85)
  })
})

describe('the parts of it', () => {
  it('median of an even and an odd count', () => expect([median([3, 1]), median([5, 1, 2])]).toEqual([2, 2]))
  it('a line of equal x has no slope', () => expect(theilSen([1, 1, 1], [1, 2, 3])).toBeNull())
  it('the exact tail adds to one over all orders', () => {
    expect(mannKendall([1, 2, 3]).pExact).toBeCloseTo(2 / 6, 12)
    expect(mannKendall([5, 5, 5])).toMatchObject({ S: 0, z: 0, p: 1, pExact: null })
    expect(pOfRise([1, 2, 3, 4])).toBeCloseTo(1 / 24, 12)
    expect(pOfRise([4, 3, 2, 1])).toBeCloseTo(23 / 24, 12)
  })
  it('CUSUM starts anew after an alarm where asked', () => {
    const step = [0, 0, 3, 3, 3, 3]
    const made = cusum(step, { mean: 0, sigma: 1, k: 0.5, h: 4, resetAfterAlarm: true })
    expect(made.alarms[0]).toEqual({ index: 4, direction: 'up', changeEstimate: 3 })
    expect(made.up[4]).toBe(2.5)
  })
  it('refuses what is none', () => {
    expect(() => cusum([1], { mean: 0, sigma: 0, k: 0.5, h: 4 })).toThrow(RangeError)
    expect(() => ewma([1], { mean: 0, sigma: 1, lambda: 0, L: 3, timeVaryingLimits: true })).toThrow(RangeError)
    expect(() => theilSen([1], [1])).toThrow(RangeError)
    expect(() => normalTail(-1)).toThrow(RangeError)
  })
  it('the far tail keeps its digits', () => {
    expect(normalTail(1.959963984540054)).toBeCloseTo(0.025, 12)
    expect(normalTail(6) / 9.865876450376946e-10).toBeCloseTo(1, 10)
  })
})
