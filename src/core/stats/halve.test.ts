import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { halved } from './halve.ts'

describe('halving', () => {
  it('finds a root to the last digits, from either side', () => {
    expect(halved((x) => x * x < 2, [0, 2]).x).toBeCloseTo(Math.SQRT2, 12)
    expect(halved((x) => x * x > 2, [2, 0]).x).toBeCloseTo(Math.SQRT2, 12)
  })
  it('is where a threshold lies, wherever it lies', () =>
    fc.assert(
      fc.property(fc.double({ min: -1e6, max: 1e6, noNaN: true }), (at) => {
        const { x, isClose } = halved((v) => v < at, [-2e6, 2e6])
        return isClose && Math.abs(x - at) <= 1e-9 * Math.max(1, Math.abs(at))
      }),
      { seed: 22, numRuns: 200 },
    ))
  it('says when it was stopped before it was close', () =>
    expect(halved((x) => x < 0.3, [0, 1], { most: 3 })).toMatchObject({ steps: 3, isClose: false }))
  it('ends that are none are misuse', () => expect(() => halved(() => true, [0, Infinity])).toThrow(RangeError))
})
