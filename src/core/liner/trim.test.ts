import { describe, expect, it } from 'vitest'
import { makeRandom } from '@core/random/random.ts'
import { bendErrorMm, firstCut, secondCut } from './trim.ts'

describe('the first cut', () => {
  it('leaves three millimetres', () =>
    expect(firstCut({ standsOutMm: 48, neededMm: 18 })).toEqual({ is: 'cut', cutMm: 27, leavesMm: 3, excessMm: 30 }))
  it('leaves fifty of a long one', () => {
    expect(firstCut({ standsOutMm: 320, neededMm: 18 })).toMatchObject({ cutMm: 252, leavesMm: 50 })
    expect(firstCut({ standsOutMm: 218, neededMm: 18 })).toMatchObject({ leavesMm: 3 })
  })
  it('is nothing where it would be a sliver: measured again instead', () =>
    expect(firstCut({ standsOutMm: 23, neededMm: 18 })).toEqual({ is: 'measureAgain', excessMm: 5 }))
  it('is not needed where it fits', () => expect(firstCut({ standsOutMm: 18.4, neededMm: 18 })).toEqual({ is: 'fits' }))
  it('says how much is missing where the liner is too short already', () =>
    expect(firstCut({ standsOutMm: 15, neededMm: 18 })).toEqual({ is: 'tooShort', byMm: 3 }))
  it('refuses lengths that are none', () => {
    for (const standsOutMm of [-1, NaN, Infinity]) expect(() => firstCut({ standsOutMm, neededMm: 18 })).toThrow('trim')
  })
})

describe('the second cut', () => {
  const first = { standsOutMm: 48, neededMm: 18 }
  it('is what the second measurement leaves', () => {
    const cut = secondCut(first, { cutMm: 27, nowMm: 21.2 })
    expect(cut.is === 'cut' && cut.cutMm).toBeCloseTo(3.2, 9)
  })
  it('is not told when the measurements disagree by more than a millimetre, either way', () => {
    expect(secondCut(first, { cutMm: 27, nowMm: 24 })).toEqual({ is: 'disagree', expectedMm: 21, byMm: 3 })
    expect(secondCut(first, { cutMm: 27, nowMm: 18 })).toMatchObject({ is: 'disagree', byMm: -3 })
  })
  it('is not needed when the first one was cut a little long', () =>
    expect(secondCut({ standsOutMm: 20, neededMm: 18 }, { cutMm: 1.9, nowMm: 18.3 })).toEqual({ is: 'fits' }))
  it('says so when too much went', () =>
    expect(secondCut(first, { cutMm: 30, nowMm: 17.2 })).toMatchObject({ is: 'tooShort' }))
  it('takes no first cut longer than what was too much', () =>
    expect(() => secondCut(first, { cutMm: 31, nowMm: 17 })).toThrow('secondCut'))
})

describe('whatever is measured', () => {
  it('the two cuts never come out short, and end within what the tape tells', () => {
    const random = makeRandom(5)
    for (let i = 0; i < 2000; i++) {
      const neededMm = random() * 60
      const trueMm = neededMm + random() * 600
      const readsMm = () => Math.max(0, trueMm + (random() - 0.5))
      const first = { standsOutMm: readsMm(), neededMm }
      const one = firstCut(first)
      if (one.is === 'tooShort' || one.is === 'fits') {
        expect(trueMm - neededMm).toBeLessThan(1.01)
        continue
      }
      const cutMm = one.is === 'cut' ? one.cutMm : 0
      if (one.is === 'cut') expect(trueMm - cutMm).toBeGreaterThan(neededMm + 2)
      const then = secondCut(first, { cutMm, nowMm: Math.max(0, trueMm - cutMm + (random() - 0.5)) })
      const leftMm = trueMm - cutMm - (then.is === 'cut' ? then.cutMm : 0)
      expect(['cut', 'fits']).toContain(then.is)
      expect(Math.abs(leftMm - neededMm)).toBeLessThan(then.is === 'cut' ? 0.51 : 1.01)
    }
  })
})

describe('a bent cable', () => {
  it('is off by the slack times the bends', () => {
    expect(bendErrorMm({ conduitBoreMm: 6, linerOutsideMm: 4.5, bendRad: 2 * Math.PI })).toBeCloseTo(4.712389, 6)
    expect(bendErrorMm({ conduitBoreMm: 6, linerOutsideMm: 4.5, bendRad: 0 })).toBe(0)
    expect(bendErrorMm({ conduitBoreMm: 4.5, linerOutsideMm: 4.5, bendRad: 3 })).toBe(0)
  })
  it('agrees with the difference of two arcs', () => {
    const [bore, outside, radius, angle] = [6, 4.6, 250, 1.9]
    const middle = radius * angle
    const inside = (radius - (bore - outside) / 2) * angle
    expect(bendErrorMm({ conduitBoreMm: bore, linerOutsideMm: outside, bendRad: angle })).toBeCloseTo(
      middle - inside,
      9,
    )
  })
  it('refuses a liner that does not go in', () =>
    expect(() => bendErrorMm({ conduitBoreMm: 4, linerOutsideMm: 4.5, bendRad: 1 })).toThrow('bendErrorMm'))
})
