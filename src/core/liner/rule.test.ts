import { describe, expect, it } from 'vitest'
import { UNTOLD_FAMILY } from '../rightparts/untold.ts'
import { bareLeftMm, feederTarget, frontTarget, orderLengthMm, ruleByBuild, type OldLiner } from './rule.ts'

const old: OldLiner = { lengthMm: 3215, wasShort: false }
const family = (part: Partial<typeof UNTOLD_FAMILY>) => ({ ...UNTOLD_FAMILY, ...part })

describe('what must stand out at the front', () => {
  it('A: as deep as the seat, from the neck thread', () =>
    expect(frontTarget(family({ linerRule: 'A', seatDepthMm: 18 }), old)).toEqual({
      ok: true,
      target: { rule: 'A', from: 'neckThread', neededMm: 18, shouldBe: null },
    }))
  it('B: what is pushed back, from the tip holder', () =>
    expect(frontTarget(family({ linerRule: 'B', pushBackMm: 3 }), old)).toMatchObject({
      target: { from: 'tipHolder', neededMm: 3 },
    }))
  it('C: the old one’s length, with the rule the build calls for', () => {
    expect(frontTarget(family({ linerRule: 'C', linerHeldBy: 'set screw' }), old)).toMatchObject({
      target: { from: 'wholeLength', neededMm: 3215, shouldBe: 'A' },
    })
    expect(ruleByBuild(family({ doesTipSeatLiner: true, linerHeldBy: 'butt' }))).toBe('B')
    expect(ruleByBuild(family({ linerHeldBy: 'collet' }))).toBeNull()
  })
  it('is not made up: each missing figure has its own reason', () => {
    const reason = (part: Partial<typeof UNTOLD_FAMILY> | null, was = old) => {
      const told = frontTarget(part && family(part), was)
      return told.ok ? null : told.reason
    }
    expect(reason(null)).toBe('noRule')
    expect(reason({ linerRule: null })).toBe('noRule')
    expect(reason({ linerRule: 'A', seatDepthMm: null })).toBe('seatDepthNotTold')
    expect(reason({ linerRule: 'B', pushBackMm: null })).toBe('pushBackNotTold')
    expect(reason({ linerRule: 'C' }, { lengthMm: null, wasShort: false })).toBe('oldLengthNotTold')
    expect(reason({ linerRule: 'C' }, { lengthMm: 3215, wasShort: true })).toBe('oldWasShort')
  })
})

describe('at the feeder', () => {
  it('a long liner ends a clearance short of where the rolls meet', () => {
    expect(feederTarget({ seatToNipMm: 42 }).neededMm).toBe(40.5)
    expect(feederTarget({ seatToNipMm: 42, clearanceMm: 1 }).neededMm).toBe(41)
    expect(() => feederTarget({ seatToNipMm: 1 })).toThrow('feederTarget')
  })
  it('a liner is ordered with 150 mm to spare over the whole way', () => {
    expect(orderLengthMm({ cableMm: 3000, neckMm: 180, feederSideMm: 60 })).toBe(3390)
    expect(() => orderLengthMm({ cableMm: 0, neckMm: 180, feederSideMm: 60 })).toThrow('orderLengthMm')
  })
})

it('a cut takes the bare front away: under nothing, jacket stands in the neck', () => {
  expect(bareLeftMm({ bareFrontMm: 300, cutMm: 80, neckMm: 180 })).toBe(40)
  expect(bareLeftMm({ bareFrontMm: 300, cutMm: 150, neckMm: 180 })).toBe(-30)
  expect(() => bareLeftMm({ bareFrontMm: 300, cutMm: -1, neckMm: 180 })).toThrow('bareLeftMm')
})
