import { describe, expect, it } from 'vitest'
import { knobNorm } from './norm.ts'

describe('where the knob stands on guns alike', () => {
  it('one that stands apart does not make the norm', () => {
    const norm = knobNorm([2.4, 2.5, 2.6, 2.5, 4.5])
    expect(norm).toMatchObject({ n: 5 })
    expect(norm?.low).toBeCloseTo(2, 9)
    expect(norm?.high).toBeCloseTo(3, 9)
  })
  it('guns that stand wide apart make a wide one', () =>
    expect(knobNorm([1, 2, 3, 4])?.high).toBeCloseTo(2.5 + 2.5 * 1.4826, 9))
  it('three guns are none', () => expect(knobNorm([2, 2, 2])).toBeNull())
})
