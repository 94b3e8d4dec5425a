import { describe, expect, it } from 'vitest'
import { drawWeibull, makeRandom } from '@core/random/random.ts'
import { logRank } from './logrank.ts'

const drawn = (seed: number, scales: readonly number[], each = 40) => {
  const random = makeRandom(seed)
  const rows = scales.flatMap((scale, g) =>
    Array.from({ length: each }, () => ({ t: drawWeibull(random, 2, scale), g })),
  )
  return {
    time: rows.map((r) => Math.min(r.t, 9)),
    event: rows.map((r) => (r.t < 9 ? 1 : 0)),
    group: rows.map((r) => `part ${r.g}`),
  }
}

describe('do groups wear out alike?', () => {
  it('expects as many ends as there were, shared by who was at risk', () => {
    const made = logRank(drawn(1, [5, 6, 8]))
    const sum = (list: readonly number[]) => list.reduce((a, b) => a + b, 0)
    expect(sum(made.expected)).toBeCloseTo(sum(made.observed), 9)
    for (const row of made.variance) expect(sum(row)).toBeCloseTo(0, 9)
  })
  it('finds a part that lasts half as long again, and nothing between two of a kind', () => {
    expect(logRank(drawn(2, [5, 7.5], 120)).p).toBeLessThan(0.001)
    let found = 0
    for (let seed = 1; seed <= 400; seed++) if (logRank(drawn(seed * 104_729, [6, 6], 25)).p < 0.05) found++
    expect(found / 400).toBeGreaterThan(0.02)
    expect(found / 400).toBeLessThan(0.08)
  })
  it('does not mind the order of rows, nor the unit', () => {
    const lives = drawn(4, [5, 6])
    const turned = {
      time: [...lives.time].reverse().map((t) => t * 1000),
      event: [...lives.event].reverse(),
      group: [...lives.group].reverse(),
    }
    expect(logRank(turned).chi2).toBeCloseTo(logRank(lives).chi2, 9)
  })
  it('of one group, or without an end, says nothing', () => {
    expect(logRank({ time: [1, 2], event: [1, 1], group: ['a', 'a'] })).toMatchObject({ df: 0, chi2: 0, p: 1 })
    expect(logRank({ time: [1, 2], event: [0, 0], group: ['a', 'b'] })).toMatchObject({ chi2: 0, p: 1 })
  })
  it('of unequal lists is misuse', () =>
    expect(() => logRank({ time: [1], event: [], group: ['a'] })).toThrow('logRank: expected as many events'))
})
