import { describe, expect, it } from 'vitest'
import { fineLength, lengthSlip, readLength, roughLength, ruleLength, ruleSpan } from './length.ts'

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

describe('a length as a guide tells it', () => {
  it.each([
    [[1, 2], '1 to 2 mm', '1/16 in'],
    [[3, 6], '3 to 6 mm', '1/8 to 1/4 in'],
    [[20, 30], '20 to 30 mm', '13/16 to 1 3/16 in'],
  ] as const)('between %j is %s, or %s', (mm, metric, us) =>
    expect([ruleSpan(mm, 'mm'), ruleSpan(mm, 'in')]).toEqual([metric, us]),
  )
  it.each([
    [75, '75 mm', '3 in'],
    [20, '20 mm', '3/4 in'],
    [6.4, '6 mm', '1/4 in'],
  ])('of about %f mm is %s, or %s', (mm, metric, us) =>
    expect([roughLength(mm, 'mm'), roughLength(mm, 'in')]).toEqual([metric, us]),
  )
})

describe('a length under a rule’s first mark', () => {
  it('is told finer, never as nought', () => {
    expect([0.5, 0.1, 0].map((mm) => ruleLength(mm, 'in'))).toEqual(['0.02 in', '0.004 in', '0 in'])
    expect([1, 18].map((mm) => ruleLength(mm, 'in'))).toEqual(['1/16 in', '11/16 in'])
    expect([fineLength(0.5, 'mm'), fineLength(0.8, 'in')]).toEqual(['0.5 mm', '0.03 in'])
  })
})
