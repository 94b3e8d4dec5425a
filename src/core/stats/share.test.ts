import { describe, expect, it } from 'vitest'
import { shareInterval } from './share.ts'

describe('the exact interval of a share', () => {
  it('is that of Clopper and Pearson', () => {
    const { low, high } = shareInterval(3, 20, 0.9)
    expect(low).toBeCloseTo(0.04217, 4)
    expect(high).toBeCloseTo(0.34366, 4)
    expect(shareInterval(5, 10, 0.95).low).toBeCloseTo(0.18709, 4)
  })
  it('goes to the ends where none or all were', () => {
    expect(shareInterval(0, 10, 0.9)).toMatchObject({ share: 0, low: 0 })
    expect(shareInterval(0, 10, 0.9).high).toBeCloseTo(1 - 0.05 ** 0.1, 6)
    expect(shareInterval(10, 10)).toMatchObject({ share: 1, high: 1 })
    expect(shareInterval(0, 0)).toEqual({ share: 0, low: 0, high: 1 })
    expect(() => shareInterval(3, 2)).toThrow('shareInterval: expected 0 <= k <= n')
  })
})
