import { anId } from '@core/testing/ids.ts'
import { describe, expect, it } from 'vitest'
import { fitInside, placeOfKey, positionKey } from './photo.ts'

describe('photos', () => {
  it.each([
    [
      { width: 4000, height: 3000 },
      { width: 1600, height: 1200 },
    ],
    [
      { width: 3000, height: 4000 },
      { width: 1200, height: 1600 },
    ],
    [
      { width: 800, height: 600 },
      { width: 800, height: 600 },
    ],
    [
      { width: 9000, height: 2 },
      { width: 1600, height: 1 },
    ],
  ])('%o becomes %o', (size, fitted) => expect(fitInside(size, 1600)).toEqual(fitted))
  it('no size is misuse', () => expect(() => fitInside({ width: 0, height: 4 }, 1600)).toThrow(RangeError))
  it('a position’s photo knows its place', () => {
    expect(placeOfKey({ type: 'position', key: positionKey(anId('station', 'stn_1'), 'tip') })).toBe('stn_1')
    expect(placeOfKey({ type: 'spool', key: 'spool_1' })).toBeNull()
  })
})
