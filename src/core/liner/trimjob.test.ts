import { describe, expect, it } from 'vitest'
import { makeRandom } from '@core/random/random.ts'
import { LEAVE_MM } from './trim.ts'
import { beginAnew, NOT_BEGUN, slipOfFirst, slipOfSecond, trimRecord, trimStage, type Trimming } from './trimjob.ts'

const job = (over: Partial<Trimming>): Trimming => ({ ...NOT_BEGUN, neededMm: 18, ...over })

describe('cutting a liner, as it goes at the bench', () => {
  it('by hand: 48 stand out, 18 are needed: 27 off, 21.2 measured, 3.2 off, 18 left', () => {
    expect(trimStage(NOT_BEGUN)).toEqual({ is: 'needed' })
    expect(trimStage(job({}))).toEqual({ is: 'measure', neededMm: 18 })
    expect(trimStage(job({ standsOutMm: 48 }))).toEqual({ is: 'cutFirst', cutMm: 27, leavesMm: 3, excessMm: 30 })
    expect(trimStage(job({ standsOutMm: 48, firstCutMm: 27 }))).toEqual({
      is: 'measureAgain',
      expectedMm: 21,
      isUncut: false,
    })
    const measured = job({ standsOutMm: 48, firstCutMm: 27, nowMm: 21.2 })
    const rest = trimStage(measured)
    expect(rest.is === 'cutRest' && rest.cutMm).toBeCloseTo(3.2, 9)
    const cut = { ...measured, secondCutMm: 3.2 }
    expect(trimRecord(cut)).toMatchObject({ standsOutMm: 48, firstCutMm: 27, secondCutMm: 3.2 })
    expect(trimRecord(cut)?.leftMm).toBeCloseTo(18, 9)
    expect(trimRecord(measured)).toBeNull()
  })
  it('stops where the second measurement does not agree, and begins anew from it', () => {
    const off = job({ standsOutMm: 48, firstCutMm: 27, nowMm: 26 })
    expect(trimStage(off)).toEqual({ is: 'disagree', expectedMm: 21, nowMm: 26, byMm: 5 })
    expect(trimStage(beginAnew(off))).toMatchObject({ is: 'cutFirst', cutMm: 5, leavesMm: 3 })
  })
  it('tells a liner that is too short before a cut from one that was cut short', () => {
    expect(trimStage(job({ standsOutMm: 11 }))).toEqual({ is: 'tooShort', byMm: 7, wasCut: false })
    const once = beginAnew(job({ standsOutMm: 48, firstCutMm: 27, nowMm: 12 }))
    expect(trimStage(once)).toMatchObject({ is: 'tooShort', byMm: 6 })
  })
  it('little too much is measured twice and cut once; what fits is not cut', () => {
    expect(trimStage(job({ standsOutMm: 22 }))).toEqual({ is: 'measureAgain', expectedMm: 22, isUncut: true })
    expect(trimStage(job({ standsOutMm: 22, nowMm: 22.4 }))).toMatchObject({ is: 'cutRest' })
    expect(trimStage(job({ standsOutMm: 18.3 }))).toEqual({ is: 'right', leftMm: 18.3 })
  })
  it('nobody is led to cut too much: over any measurements, each off by up to a millimetre, what is left is never short by more', () => {
    const random = makeRandom(5)
    for (let i = 0; i < 4000; i++) {
      const needed = random() * 40
      const real = needed + random() * 900
      const off = () => random() * 2 - 1
      let t: Trimming = { ...NOT_BEGUN, neededMm: needed, standsOutMm: Math.max(0, real + off()) }
      let left = real
      const first = trimStage(t)
      if (first.is === 'cutFirst') {
        left -= first.cutMm
        // A first measurement a millimetre off still leaves two.
        expect(left).toBeGreaterThanOrEqual(needed + LEAVE_MM - 1 - 1e-9)
        t = { ...t, firstCutMm: first.cutMm }
      }
      t = { ...t, nowMm: Math.max(0, left + off()) }
      const second = trimStage(t)
      if (second.is === 'cutRest') expect(left - second.cutMm).toBeGreaterThanOrEqual(needed - 1 - 1e-9)
    }
  })
})

describe('what may have been typed in another unit', () => {
  it('is asked about: 4.8 for 48 mm, minus 48, 48 m', () => {
    expect(slipOfFirst(4.8, 18)).toEqual({ mm: 48, as: 'cm' })
    expect(slipOfFirst(-48, 18)).toEqual({ mm: 48, as: 'minus' })
    expect(slipOfFirst(48_000, 18)).toEqual({ mm: 4800, as: 'mm' })
    expect(slipOfFirst(48, 18)).toBeNull()
    expect(slipOfSecond(2.1, 21)).toEqual({ mm: 21, as: 'cm' })
    expect(slipOfSecond(21.4, 21)).toBeNull()
    expect(slipOfSecond(30, 21)).toBeNull()
  })
})
