import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { solve } from './solve.ts'

describe('linear equations', () => {
  it('are solved so that what was put in comes out', () => {
    const cell = fc.integer({ min: -9, max: 9 })
    fc.assert(
      fc.property(fc.array(fc.array(cell, { minLength: 4, maxLength: 4 }), { minLength: 3, maxLength: 3 }), (rows) => {
        const { x, rank } = solve(
          rows.map((row) => [...row]),
          1e-9,
        )
        if (rank < 3) return
        for (const [a = 0, b = 0, c = 0, d = 0] of rows)
          expect(a * (x[0] ?? 0) + b * (x[1] ?? 0) + c * (x[2] ?? 0)).toBeCloseTo(d, 6)
      }),
      { seed: 2, numRuns: 100 },
    )
  })
  it('that say one thing twice have their rank, and an answer that holds', () => {
    const { x, rank } = solve(
      [
        [0, 1, 1, 3],
        [0, 2, 2, 6],
        [1, 0, 0, 5],
      ],
      1e-12,
    )
    expect(rank).toBe(2)
    expect(x[0]).toBe(5)
    expect((x[1] ?? 0) + (x[2] ?? 0)).toBe(3)
  })
})
