import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { gasLeftH, slipShare } from './made.ts'

describe('slip from a roll and the wire that came', () => {
  it('is none where as much came as the roll ran, and its share where less did', () => {
    expect(slipShare({ rollMm: 30, turns: 10, wireMm: Math.PI * 300 })).toBeCloseTo(0, 12)
    expect(slipShare({ rollMm: 30, turns: 10, wireMm: 895.4 })).toBeCloseTo(0.05, 3)
  })
  it('is not told where anything is missing', () =>
    expect([slipShare({ turns: 10, wireMm: 9 }), slipShare({ rollMm: 30, turns: 0, wireMm: 9 })]).toEqual([null, null]))
})

describe('what a cylinder still lasts', () => {
  it('goes by gauge and flow, and is not told where nobody said what it holds', () => {
    expect(gasLeftH({ bar: 50, fullM3: 10, flowLPerMin: 14 })?.hours).toBeCloseTo(2.976, 3)
    expect(gasLeftH({ bar: 50, fullM3: null, flowLPerMin: 14 })).toBeNull()
    expect(gasLeftH({ bar: 0, fullM3: 10, flowLPerMin: 14 })?.hours).toBe(0)
    expect(() => gasLeftH({ bar: -1, fullM3: 10, flowLPerMin: 14 })).toThrow(RangeError)
    expect(() => gasLeftH({ bar: 1, fullM3: 10, flowLPerMin: 0 })).toThrow(RangeError)
  })
  it('more gauge never lasts less, more flow never longer', () =>
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 200, noNaN: true }),
        fc.double({ min: 1, max: 40, noNaN: true }),
        (bar, flow) => {
          const at = (b: number, f: number) => gasLeftH({ bar: b, fullM3: 10, flowLPerMin: f })?.hours ?? 0
          expect(at(bar * 1.1, flow)).toBeGreaterThan(at(bar, flow))
          expect(at(bar, flow * 1.1)).toBeLessThan(at(bar, flow))
        },
      ),
    ))
})
