import { describe, expect, it } from 'vitest'
import { lengthSlip, readLength } from './length.ts'

describe('a length typed at the bench', () => {
  it.each([
    ['18', 'mm', 18],
    ['18.5', 'mm', 18.5],
    ['1,8 cm', 'mm', 18],
    ['3.42 m', 'mm', 3420],
    ['3/4', 'in', 19.05],
    ['1 3/16', 'in', 30.1625],
    ['1-3/16"', 'mm', 30.1625],
    ['18 mm', 'in', 18],
    ['11 ft', 'in', 3352.8],
    ['-4', 'mm', -4],
  ] as const)('%s in a shop of %s is %f mm', (text, unit, mm) => {
    const read = readLength(text, unit)
    expect(read.ok && read.mm).toBeCloseTo(mm, 9)
  })
  it.each(['', 'long', '3/0', 'mm'])('"%s" is told to be none', (text) => expect(readLength(text, 'mm').ok).toBe(false))
})

describe('a slip of the unit', () => {
  const standingOut = { fromMm: 5, toMm: 400 }
  it.each([
    [1.8, 18, 'cm'],
    [-30, 30, 'minus'],
    [0.3, 7.62, 'in'],
    [0.05, 50, 'm'],
    [3000, 300, 'mm'],
  ])('%f is probably %f (%s)', (said, mm, as) => {
    const slip = lengthSlip(said, standingOut)
    expect(slip?.as).toBe(as)
    expect(slip?.mm).toBeCloseTo(mm, 9)
  })
  it('offers nothing for a length that can be, and nothing that is worse than what was said', () => {
    expect(lengthSlip(48, standingOut)).toBeNull()
    expect(lengthSlip(0, standingOut)).toBeNull()
    expect(lengthSlip(NaN, standingOut)).toBeNull()
    expect(() => lengthSlip(1, { fromMm: 5, toMm: 5 })).toThrow(RangeError)
  })
})
