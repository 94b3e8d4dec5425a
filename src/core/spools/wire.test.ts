import { describe, expect, it } from 'vitest'
import { kgPerArcHour } from './wire.ts'

const STEEL = { diameterMm: 1, densityGPerCm3: 7.85 }
describe('wire used an arc hour', () => {
  it('goes with the speed; a wire that stands uses none', () => {
    expect(kgPerArcHour(STEEL, 8)).toBeCloseTo(2.959, 3)
    expect(kgPerArcHour(STEEL, 0)).toBe(0)
  })
  it('what is no speed is misuse', () => {
    for (const speed of [-1, NaN, Infinity]) expect(() => kgPerArcHour(STEEL, speed)).toThrow(RangeError)
  })
})
