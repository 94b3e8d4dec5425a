import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  afterWorked,
  backWorked,
  makeSchedule,
  nextWindow,
  shiftEndMs,
  workedMs,
  workingDays,
  type Span,
} from './schedule.ts'

const HOUR = 3_600_000
const DAY = 24 * HOUR
/** Five days of 06:00–09:15, 09:30–14:00, from instant 0. */
const week = makeSchedule(
  Array.from({ length: 5 }, (_, d) => [
    { fromMs: d * DAY + 6 * HOUR, toMs: d * DAY + 9.25 * HOUR },
    { fromMs: d * DAY + 9.5 * HOUR, toMs: d * DAY + 14 * HOUR },
  ]).flat(),
)

const spans = fc
  .array(fc.tuple(fc.integer({ min: 0, max: 5000 }), fc.integer({ min: 1, max: 400 })), { minLength: 1, maxLength: 20 })
  .map((list) => list.map(([a, b]): Span => ({ fromMs: a, toMs: a + b })))
/** Slow oracle: counts milliseconds one by one. */
const slowWorked = (list: Span[], from: number, to: number) => {
  let sum = 0
  for (let t = from; t < to; t++) if (list.some((s) => t >= s.fromMs && t < s.toMs)) sum++
  return sum
}

describe('schedule', () => {
  it('counts working time as counting every millisecond would', () => {
    fc.assert(
      fc.property(spans, fc.integer({ min: 0, max: 5500 }), fc.integer({ min: 0, max: 800 }), (list, from, length) => {
        expect(workedMs(makeSchedule(list), from, from + length)).toBe(slowWorked(list, from, from + length))
      }),
      { seed: 7, numRuns: 60 },
    )
  })
  it('going forward by some work and back by the same ends where it began, inside working time', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.01, max: 20, noNaN: true }), (hours) => {
        const start = 6.5 * HOUR
        const there = afterWorked(week, start, hours * HOUR)
        expect(there).not.toBeNull()
        expect(workedMs(week, start, there ?? 0)).toBeCloseTo(hours * HOUR, 0)
        expect(backWorked(week, there ?? 0, hours * HOUR)).toBeCloseTo(start, 0)
      }),
      { seed: 3 },
    )
  })
  it('takes wall time where no pattern is known', () => {
    expect(workedMs(null, 0, HOUR)).toBe(HOUR)
    expect(afterWorked(null, 10, 5)).toBe(15)
  })
  it('ends where the schedule ends, and says so', () => expect(afterWorked(week, 0, 1000 * HOUR)).toBeNull())
  it('names the next break as the window, and skips one that is minutes away', () => {
    expect(nextWindow(week, 7 * HOUR)).toEqual({ atMs: 9.25 * HOUR, isKnown: true })
    expect(nextWindow(week, 9.2 * HOUR).atMs).toBe(14 * HOUR)
    expect(nextWindow(week, 20 * HOUR).atMs).toBe(DAY + 9.25 * HOUR)
    expect(nextWindow(null, 0).isKnown).toBe(false)
  })
  it('a shift ends after its breaks, not at them', () => expect(shiftEndMs(week, 7 * HOUR)).toBe(14 * HOUR))
  it('a shift that another follows at once ends after ten hours at the latest', () => {
    const round = makeSchedule([{ fromMs: 0, toMs: 3 * DAY }])
    expect(shiftEndMs(round, HOUR)).toBe(11 * HOUR)
  })
  it('counts days with work in them', () => expect(workingDays(week, 0, 7 * DAY)).toBe(5))
  it('joins overlapping stretches and refuses reversed ones', () => {
    expect(
      makeSchedule([
        { fromMs: 0, toMs: 10 },
        { fromMs: 5, toMs: 20 },
      ]).spans,
    ).toEqual([{ fromMs: 0, toMs: 20 }])
    expect(() => makeSchedule([{ fromMs: 5, toMs: 5 }])).toThrow('expected toMs > fromMs')
  })
})
