import { describe, expect, it } from 'vitest'
import { makeSchedule } from '@core/clock/schedule.ts'
import { handOverSpan, troubleFromMs } from './handover.ts'

const HOUR = 3_600_000
const hours = (...spans: [number, number][]) =>
  makeSchedule(spans.map(([from, to]) => ({ fromMs: from * HOUR, toMs: to * HOUR })))
const at = (schedule: ReturnType<typeof hours> | null, now: number) => {
  const { fromMs, toMs } = handOverSpan(schedule, now * HOUR)
  return [fromMs / HOUR, toMs / HOUR]
}

describe('the work that is handed over', () => {
  it('is the shift that runs, breaks and all', () => expect(at(hours([6, 9], [9.25, 14]), 13)).toEqual([6, 13]))
  it('after it, the one that ended last', () => expect(at(hours([6, 14], [30, 38]), 17)).toEqual([6, 14]))
  it('round the clock, the last ten hours', () => expect(at(hours([0, 24]), 22)).toEqual([12, 22]))
  it('a class in the morning is not one with a class in the afternoon', () =>
    expect(at(hours([8, 9], [13, 14]), 13.5)).toEqual([13, 13.5]))
  it('without a pattern, the last ten hours', () => expect(at(null, 22)).toEqual([12, 22]))
})

describe('since when a gun has its trouble', () => {
  const MIN = 60_000
  const began = (downSince: number, ...stops: [number, number][]) =>
    troubleFromMs(
      { downSinceMs: downSince * MIN, stops: stops.map(([from, to]) => ({ fromMs: from * MIN, toMs: to * MIN })) },
      (from, to) => to - from,
    ) / MIN
  it('since this stop, where it ran an hour before', () => {
    expect(began(500)).toBe(500)
    expect(began(500, [100, 440])).toBe(500)
  })
  it('since the first of those between which it hardly ran', () => {
    expect(began(500, [100, 445])).toBe(100)
    expect(began(500, [10, 20], [300, 400], [430, 480])).toBe(300)
  })
  it('counts work, not the night between', () =>
    expect(
      troubleFromMs({ downSinceMs: 900 * MIN, stops: [{ fromMs: 10 * MIN, toMs: 20 * MIN }] }, () => 30 * MIN),
    ).toBe(10 * MIN))
})
