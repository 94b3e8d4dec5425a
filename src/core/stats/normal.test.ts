import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { chanceOfAny, normalCdf } from './normal.ts'

describe('the normal distribution', () => {
  it.each([
    [0, 0.5],
    [1, 0.8413447460685429],
    [-1, 0.15865525393145707],
    [1.959963984540054, 0.975],
    [2.5758293035489004, 0.995],
    [-3, 0.0013498980316300933],
    [-6, 9.865876450376981e-10],
  ])('at %f is %f (published values)', (z, p) => expect(normalCdf(z) / p).toBeCloseTo(1, 6))
  it('rises from nought to one and mirrors about its middle', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -8, max: 8, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (z, step) => {
          expect(normalCdf(z + step)).toBeGreaterThanOrEqual(normalCdf(z) - 1e-7)
          expect(normalCdf(z) + normalCdf(-z)).toBeCloseTo(1, 7)
        },
      ),
      { seed: 11 },
    )
    expect([normalCdf(-Infinity), normalCdf(Infinity)]).toEqual([0, 1])
  })
  it('of no number is misuse', () => expect(() => normalCdf(NaN)).toThrow('expected a number'))
})

describe('at least one of several', () => {
  it('is what multiplying the misses gives, and good for tiny chances', () => {
    expect(chanceOfAny([])).toBe(0)
    expect(chanceOfAny([0.5, 0.5])).toBeCloseTo(0.75)
    expect(chanceOfAny([1e-14, 2e-14])).toBeCloseTo(3e-14, 20)
    expect(chanceOfAny([0.2, 1])).toBe(1)
  })
  it('of what is no chance is misuse', () => expect(() => chanceOfAny([1.2])).toThrow('expected chances'))
})
