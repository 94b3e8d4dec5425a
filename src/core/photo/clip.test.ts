import { describe, expect, it } from 'vitest'
import { cellOf, clipPlan, MOST_FRAMES, rowsOf } from './clip.ts'
import { MOST_PX } from './photo.ts'

describe('a clip', () => {
  it('takes so many pictures as the film is long, and no more than one sheet holds', () => {
    expect(clipPlan({ seconds: 60, width: 1920, height: 1080 }).clip).toEqual({ frames: 30, perRow: 6, stepMs: 150 })
    expect(clipPlan({ seconds: 2, width: 640, height: 480 }).clip.frames).toBe(14)
    expect(clipPlan({ seconds: 0.1, width: 640, height: 480 }).clip).toEqual({ frames: 1, perRow: 1, stepMs: 150 })
    const { atS } = clipPlan({ seconds: 2, width: 640, height: 480 })
    expect([atS[0], atS[1], atS.at(-1)]).toEqual([0, 0.15, 1.95])
  })
  it('is a sheet no longer than a photo, upright or lying, its pictures in their own shape', () => {
    for (const [width, height] of [
      [1920, 1080],
      [1080, 1920],
      [640, 480],
      [3, 2000],
    ] as const) {
      const { clip, frame } = clipPlan({ seconds: 9, width, height })
      expect(clip.frames).toBe(MOST_FRAMES)
      expect(frame.width * clip.perRow).toBeLessThanOrEqual(MOST_PX)
      expect(frame.height * rowsOf(clip)).toBeLessThanOrEqual(MOST_PX)
      if (width > 100) expect(frame.width / frame.height).toBeCloseTo(width / height, 1)
    }
  })
  it('stands row by row', () => {
    expect([0, 5, 6, 29].map((i) => cellOf({ perRow: 6 }, i))).toEqual([
      { column: 0, row: 0 },
      { column: 5, row: 0 },
      { column: 0, row: 1 },
      { column: 5, row: 4 },
    ])
  })
  it('of no length is refused', () => {
    expect(() => clipPlan({ seconds: 0, width: 1, height: 1 })).toThrow(RangeError)
    expect(() => clipPlan({ seconds: Infinity, width: 1, height: 1 })).toThrow(/length/)
  })
})
