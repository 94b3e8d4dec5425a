import { describe, expect, it } from 'vitest'
import { studentCdf, studentQuantile } from './student.ts'

describe('Student’s t', () => {
  it('has the tabled quantiles', () => {
    const tabled: [number, number, number][] = [
      [0.975, 1, 12.7062],
      [0.975, 4, 2.7764],
      [0.975, 10, 2.2281],
      [0.95, 5, 2.015],
      [0.975, 120, 1.9799],
      [0.99, 3, 4.5407],
    ]
    for (const [p, df, t] of tabled) expect(studentQuantile(p, df)).toBeCloseTo(t, 3)
  })
  it('at one degree is Cauchy, at many normal, and is its own quantile’s inverse', () => {
    expect(studentCdf(1, 1)).toBeCloseTo(0.75, 9)
    expect(studentCdf(-1, 1)).toBeCloseTo(0.25, 9)
    expect(studentCdf(1.96, 1e6)).toBeCloseTo(0.975, 3)
    for (const df of [1.5, 3, 7.3, 40]) expect(studentCdf(studentQuantile(0.9, df), df)).toBeCloseTo(0.9, 7)
  })
  it('refuses what is none', () => {
    expect(() => studentQuantile(0.4, 3)).toThrow(RangeError)
    expect(() => studentCdf(1, 0)).toThrow(RangeError)
  })
})
