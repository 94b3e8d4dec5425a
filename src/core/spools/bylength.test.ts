import { describe, expect, it } from 'vitest'
import { inUnit, lengthTimes, limitKm } from './bylength.ts'

const LINER = { key: 'liner', lifeUnit: 'kg' } as const
const ALU = { diameterMm: 1.2, densityGPerCm3: 2.66 }
const STEEL = { diameterMm: 1, densityGPerCm3: 7.85 }
describe('a liner wears by length', () => {
  it('the same length of aluminium is half the weight of the steel its limit is said of, and the same kilometres', () => {
    expect(lengthTimes(LINER, ALU)).toBeCloseTo(0.488, 3)
    expect(lengthTimes(LINER, STEEL)).toBeCloseTo(1, 12)
    expect(limitKm(900 * lengthTimes(LINER, ALU), LINER, ALU)).toBe(limitKm(900, LINER, STEEL))
    expect(limitKm(900, LINER, STEEL)).toBe(146)
  })
  it('a tip does not, nor a liner that is counted in spools, nor one whose wire nobody knows', () => {
    expect(lengthTimes({ key: 'tip', lifeUnit: 'arcHours' }, ALU)).toBe(1)
    expect(lengthTimes({ key: 'liner', lifeUnit: 'spools' }, ALU)).toBe(1)
    expect([lengthTimes(LINER, null), limitKm(900, LINER, null)]).toEqual([1, null])
  })
  it('a limit goes from weight to length and back, and into nothing else', () => {
    expect(inUnit(900, 'kg', 'km')).toBeCloseTo(146, 0)
    expect(inUnit(inUnit(900, 'kg', 'km') ?? 0, 'km', 'kg')).toBeCloseTo(900, 9)
    expect([inUnit(8, 'arcHours', 'arcHours'), inUnit(8, 'arcHours', 'km'), inUnit(900, 'kg', 'spools')]).toEqual([
      ...[8, null, null],
    ])
  })
})
