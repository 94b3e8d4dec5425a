import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { makeSchedule } from '@core/clock/schedule.ts'
import { dueOf } from './due.ts'

const HOUR = 3_600_000
const DAY = 24 * HOUR
const schedule = makeSchedule(
  Array.from({ length: 60 }, (_, d) => ({ fromMs: d * DAY + 6 * HOUR, toMs: d * DAY + 14 * HOUR })),
)
const runOn = (over = {}) => ({ fromMs: 6 * HOUR, perWorkedHour: 0.25, dayCv: 0.3, days: 14, ...over })
const base = { amount: 4, estimated: 0, sd: 0.2 }

describe('a usage limit', () => {
  it('is reached when use gets there in working time, not by the wall clock', () => {
    const due = dueOf({ limit: 7, base, runOn: runOn(), schedule, nowMs: 6 * HOUR })
    expect(due.isReached).toBe(false)
    expect(due.reachedMs).toBeCloseTo(DAY + 10 * HOUR, -3)
  })
  it('adds what ran on since the last entry, as estimate', () => {
    const due = dueOf({ limit: 7, base, runOn: runOn(), schedule, nowMs: 14 * HOUR })
    expect(due.used).toBeCloseTo(6)
    expect(due.estimatedShare).toBeCloseTo(2 / 6)
  })
  it('comes with a span that widens with the distance', () => {
    const near = dueOf({ limit: 4.5, base, runOn: runOn(), schedule, nowMs: 6 * HOUR })
    const far = dueOf({ limit: 20, base, runOn: runOn(), schedule, nowMs: 6 * HOUR })
    const width = (d: typeof near) => (d.lateMs ?? 0) - (d.earlyMs ?? 0)
    expect(width(near)).toBeGreaterThan(0)
    expect(width(far)).toBeGreaterThan(width(near))
    expect(near.earlyMs).toBeLessThanOrEqual(near.reachedMs ?? 0)
  })
  it('once reached says since when, back in working time', () => {
    const due = dueOf({ limit: 3, base, runOn: runOn({ fromMs: DAY + 8 * HOUR }), schedule, nowMs: DAY + 8 * HOUR })
    expect(due.isReached).toBe(true)
    expect(due.reachedMs).toBeCloseTo(12 * HOUR, -4)
  })
  it('is reached at no time when nothing runs', () =>
    expect(
      dueOf({ limit: 7, base, runOn: runOn({ perWorkedHour: 0 }), schedule, nowMs: 6 * HOUR }).reachedMs,
    ).toBeNull())
  it('has an even chance to be reached by the moment it is expected, and nearly none or all well before or after', () => {
    const at = (byMs: number) => dueOf({ limit: 7, base, runOn: runOn(), schedule, nowMs: 6 * HOUR, byMs }).chanceBy
    expect(at(DAY + 10 * HOUR)).toBeCloseTo(0.5, 2)
    expect(at(7 * HOUR)).toBeLessThan(0.001)
    expect(at(6 * DAY)).toBeGreaterThan(0.95)
  })
  it('gets likelier as time passes, and no chance leaves nought to one', () => {
    fc.assert(
      fc.property(fc.integer({ min: 6, max: 400 }), fc.double({ min: 0.5, max: 30, noNaN: true }), (hours, limit) => {
        const at = (h: number) =>
          dueOf({ limit, base, runOn: runOn(), schedule, nowMs: 6 * HOUR, byMs: h * HOUR }).chanceBy
        expect(at(hours)).toBeGreaterThanOrEqual(0)
        expect(at(hours)).toBeLessThanOrEqual(1)
        if (limit > 4 + hours * 0.25) expect(at(hours + 24)).toBeGreaterThanOrEqual(at(hours) - 1e-9)
      }),
      { seed: 5, numRuns: 80 },
    )
  })
  it('of a counter without spread is certain either way', () => {
    const counted = { amount: 3, estimated: 0, sd: 0 }
    const of = (limit: number) => dueOf({ limit, base: counted, runOn: null, schedule: null, nowMs: 0 }).chanceBy
    expect([of(3), of(4)]).toEqual([1, 0])
  })
  it('of nothing is misuse', () =>
    expect(() => dueOf({ limit: 0, base, runOn: null, schedule, nowMs: 0 })).toThrow('expected limit > 0'))
})
