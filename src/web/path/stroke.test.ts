import { describe, expect, it } from 'vitest'
import { type FloorCell } from '@contract/floor.ts'
import { STATES } from '@core/floor/state.ts'
import { cellShape, holeWidth } from './stroke.ts'
import { describePath, shownCells } from './describe.ts'

const input = { used: 0.7, shiftsOver: 0, width: 56, thickness: 5, tall: 9 }

describe('strokes', () => {
  it('no two states are drawn alike', () => {
    const drawn = STATES.map((state) => JSON.stringify(cellShape({ ...input, state })))
    expect(new Set(drawn).size).toBe(STATES.length)
  })
  it('stay inside their cell and hold no NaN at any size', () => {
    for (const state of STATES)
      for (const width of [20, 32, 61, 196]) {
        const text = JSON.stringify(
          cellShape({ ...input, state, width, tall: 4, thickness: 2.4, shiftsOver: 40, used: 9 }),
        )
        expect(text).not.toContain('NaN')
      }
  })
  it('a hole widens with each shift past, up to the cell less its caps', () => {
    expect(holeWidth(56, 1)).toBeGreaterThan(holeWidth(56, 0))
    expect(holeWidth(56, 100)).toBeLessThanOrEqual(50)
  })
  it('a deeper waist is more use', () =>
    expect(cellShape({ ...input, state: 'partWorn', used: 0.6 })).not.toEqual(
      cellShape({ ...input, state: 'partWorn', used: 0.9 }),
    ))
})

describe('a path', () => {
  const good = STATES.indexOf('good')
  it('shows nothing after a knot', () =>
    expect(
      shownCells([
        [good, 0, 0, 0],
        [STATES.indexOf('down'), 0, 0, 0],
        [good, 0, 0, 0],
      ]),
    ).toHaveLength(2))
  it('says in words what it shows, and that all is good when it is', () => {
    expect(describePath(Array.from({ length: 11 }, () => [good, 0.1, 0, 0]))).toBe('all good')
    const knot = Array.from({ length: 11 }, (_, i): FloorCell => [i === 4 ? STATES.indexOf('down') : good, 1, 0, 0])
    expect(describePath(knot)).toBe('pin down')
    expect(describePath(knot, true)).toBe('down, nobody has said where')
    expect(describePath(Array.from({ length: 11 }, (_, i) => [i === 8 ? STATES.indexOf('due') : good, 1, 0, 0]))).toBe(
      'tip change',
    )
  })
})
