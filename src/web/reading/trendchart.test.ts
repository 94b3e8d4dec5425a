import { describe, expect, it } from 'vitest'
import { type TrendLine } from '@contract/reading.ts'
import { trend } from '@web/testing/samplereadings.ts'
import { trendSeries } from './TrendChart.tsx'

const points = [0, 100, 200].map((usage, i) => ({ usage, value: 1 + i, atMs: i }))
const line = (over: Partial<TrendLine>) => trend({ points, slope: 0.01, intercept: 1, ...over })
const crossing = (usage: number) => ({ usage, early: usage, late: usage, atMs: 1, earlyMs: 1, lateMs: 1 })
const looks = (of: ReturnType<typeof trendSeries>) => of.series.map((s) => s.look)

describe('a trend', () => {
  it('goes on to where it meets its limit, and no further than as much again as was seen', () => {
    const near = trendSeries(line({ limit: 4, crossing: crossing(300) }), 'limit 4')
    expect([near.last, near.toX, looks(near)]).toEqual([200, 300, ['limit', 'fit', 'ahead', 'dots']])
    expect(trendSeries(line({ limit: 9, crossing: crossing(5000) }), '').toX).toBe(400)
  })
  it('of too few readings is dots alone', () => {
    const few = trendSeries(line({ limit: null, is: 'few', slope: null, intercept: null, crossing: null }), '')
    expect([looks(few), few.toX]).toEqual([['dots'], 200])
  })
})
