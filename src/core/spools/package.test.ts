import { describe, expect, test } from 'vitest'
import { breakEvenKg, packageYear, type WirePackage, type WireUse } from './package.ts'

const spool: WirePackage = { kg: 15, pricePerKgMinor: 300, onceMinor: 0, floorMinorPerYear: 0 }
const drum: WirePackage = { kg: 250, pricePerKgMinor: 280, onceMinor: 120_000, floorMinorPerYear: 10_000 }
const use: WireUse = {
  ...{ kgPerYear: 3000, guns: 1, changeMin: 8, standMinorPerHour: 9000, labourMinorPerHour: 3800, shortKg: 0.8 },
}

describe('spools or a drum', () => {
  test('stops, short ends, wire, equipment, floor and dead money, added up', () => {
    const a = packageYear(spool, use)
    expect(a.changes).toBeCloseTo(3000 / 14.2, 6)
    expect(a.changeMinor).toBeCloseTo((a.changes * 8 * 12_800) / 60, 6)
    expect(a.wireMinor).toBeCloseTo(3000 * 300, 6)
    expect(a.shortMinor).toBeCloseTo(a.changes * 0.8 * 300, 6)
    const { changes: _, totalMinor, ...parts } = a
    expect(totalMinor).toBeCloseTo(
      Object.values(parts).reduce((x, y) => x + y, 0),
      6,
    )
    const b = packageYear(drum, use)
    expect(b.changes).toBeLessThan(a.changes / 15)
    expect(b.totalMinor).toBeLessThan(a.totalMinor)
  })
  test('from the use at which it pays on; never where it saves nothing, always where it costs nothing more', () => {
    const kg = breakEvenKg(spool, drum, use)
    expect(kg).toBeGreaterThan(20)
    expect(kg).toBeLessThan(3000)
    const at = (p: WirePackage) => packageYear(p, { ...use, kgPerYear: kg ?? 0 }).totalMinor
    expect(at(drum)).toBeCloseTo(at(spool), 0)
    expect(breakEvenKg(spool, { ...drum, pricePerKgMinor: 900 }, use)).toBeNull()
    expect(breakEvenKg(spool, { ...spool, pricePerKgMinor: 200 }, use)).toBe(0)
  })
  test('a package of none, a use below zero are refused', () => {
    expect(() => packageYear({ ...spool, kg: 0 }, use)).toThrow('some weight')
    expect(() => packageYear(spool, { ...use, kgPerYear: -1 })).toThrow('not below zero')
  })
})
