import { describe, expect, it } from 'vitest'
import { wearPattern } from './wherewear.ts'

describe('where along the liner it wears', () => {
  it('a place that more of them lie in than its length brings stands out', () => {
    expect(wearPattern([0.1, 0.2, 0.1, 0.3, 0.25, 0.15, 0.9])).toEqual({
      ...{ n: 7, counts: { rear: 6, middle: 0, neck: 1 } },
      most: 'rear',
    })
    expect(wearPattern([0.9, 0.95, 0.99, 0.5, 0.9]).most).toBe('neck')
  })
  it('spread as the lengths are, or too few, none does', () => {
    expect(wearPattern([0.1, 0.4, 0.5, 0.6, 0.7, 0.2, 0.9]).most).toBeNull()
    expect(wearPattern([0.1, 0.1, 0.1, 0.1]).most).toBeNull()
    expect(wearPattern([])).toMatchObject({ n: 0, most: null })
  })
  it('a place beyond the gun is misuse', () => expect(() => wearPattern([1.2])).toThrow(RangeError))
})
