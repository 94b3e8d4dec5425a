import { describe, expect, it } from 'vitest'
import { makeRandom } from '@core/random/random.ts'
import { willTake } from './tips.ts'

describe('what coming classes take', () => {
  it('is what past ones of their level took, with its spread', () => {
    const w = willTake([{ level: 'new', used: 30, classes: 40 }], new Map([['new', 10]]))
    expect(w?.mean).toBeCloseTo(7.625, 9)
    expect(w?.low).toBe(4)
    expect(w?.high).toBe(12)
  })
  it('adds levels; beginners take more where they did', () => {
    const past = [
      { level: 'new' as const, used: 60, classes: 40 },
      { level: 'skilled' as const, used: 4, classes: 40 },
    ]
    const few = willTake(past, new Map([['skilled', 10]]))?.mean ?? 0
    const many = willTake(past, new Map([['new', 10]]))?.mean ?? 0
    expect(many).toBeGreaterThan(10 * few)
    expect(
      willTake(
        past,
        new Map([
          ['new', 10],
          ['skilled', 10],
        ]),
      )?.mean,
    ).toBeCloseTo(few + many, 9)
  })
  it('of a level nobody counted is as all others; of nothing counted it is not told', () => {
    expect(willTake([{ level: 'new', used: 30, classes: 40 }], new Map([['some', 4]]))?.mean).toBeCloseTo(3.05, 9)
    expect(willTake([], new Map([['new', 4]]))).toBeNull()
    expect(willTake([{ level: 'new', used: 3, classes: 4 }], new Map())).toEqual({ mean: 0, low: 0, high: 0 })
  })
  it('holds eight times in ten what is drawn from a rate it is not given', () => {
    const random = makeRandom(8)
    const poisson = (mean: number) => {
      let [n, p] = [0, Math.exp(-mean)]
      let at = p
      for (const u = random(); u > at && n < 500;) {
        n++
        p *= mean / n
        at += p
      }
      return n
    }
    let held = 0
    for (let i = 0; i < 400; i++) {
      const rate = 0.2 + 1.5 * random()
      const used = poisson(rate * 30)
      const w = willTake([{ level: 'new', used, classes: 30 }], new Map([['new', 12]]))
      const taken = poisson(rate * 12)
      if (w && taken >= w.low && taken <= w.high) held++
    }
    expect(held / 400).toBeGreaterThan(0.77)
  })
})
