import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { DAY_MS, HOUR_MS } from '@core/units/time.ts'
import { usedBetween } from './clock.ts'
import { buildHeadClocks, type UsageEntry } from './headclock.ts'
import { daysOfUse, monthsOfUse, usedOver } from './months.ts'
import { makeSchedule } from './schedule.ts'

const JAN = Date.UTC(2026, 0, 1)
const shifts = makeSchedule(
  Array.from({ length: 400 }, (_, d) => d)
    .filter((d) => (d + 3) % 7 < 5)
    .map((d) => ({ fromMs: JAN + d * DAY_MS + 6 * HOUR_MS, toMs: JAN + d * DAY_MS + 14 * HOUR_MS })),
)
const entry = (fromMs: number, toMs: number, arcHours: number): UsageEntry => ({
  ...{ fromMs, toMs, source: 'shiftLog', loggedMs: toMs, kg: null, starts: null },
  arcHours,
})
const shiftOf = (day: number, arcHours: number) =>
  entry(JAN + day * DAY_MS + 6 * HOUR_MS, JAN + day * DAY_MS + 14 * HOUR_MS, arcHours)
const clocksOf = (entries: UsageEntry[]) => buildHeadClocks(entries, 2, shifts)

describe('what a head used, day by day', () => {
  it('stands on its day, in its month; a conversion is no count', () => {
    const [january, february] = monthsOfUse(clocksOf([shiftOf(1, 2.5), shiftOf(4, 3), shiftOf(33, 1)]))
    expect(january?.arcHours.slice(0, 5)).toEqual([0, 2.5, 0, 0, 3])
    // Weeks in which nobody entered anything are filled at the mean rate, as an estimate.
    expect(january?.estimatedH[5]).toBeGreaterThan(0)
    expect([january?.arcHours.length, february?.arcHours.length]).toEqual([31, 28])
    expect(february?.kg[2]).toBe(2)
    expect(january?.estimatedH[1]).toBe(0)
  })
  it('what spans days is shared by their working time, none of it on a free day', () => {
    // Friday noon to Monday noon: 2 hours of Friday's shift, 6 of Monday's.
    const [january] = monthsOfUse(
      clocksOf([entry(JAN + 1 * DAY_MS + 12 * HOUR_MS, JAN + 4 * DAY_MS + 12 * HOUR_MS, 8)]),
    )
    expect(january?.arcHours.slice(0, 6)).toEqual([0, 2, 0, 0, 6, 0])
  })
  it('nothing told is no month, and nothing used', () => {
    expect(monthsOfUse({ kg: null, arcHours: null, starts: null })).toEqual([])
    const none = { fromMs: JAN, toMs: JAN + DAY_MS, schedule: null, runOn: { kg: null, arcHours: null } }
    expect(usedOver(daysOfUse([]), none)).toEqual({ kg: 0, arcHours: 0, estimatedH: 0 })
  })
})

describe('between two instants', () => {
  const day = fc.integer({ min: 0, max: 120 }).filter((d) => (d + 3) % 7 < 5)
  const world = fc.uniqueArray(fc.record({ day, arcHours: fc.double({ min: 0.1, max: 8, noNaN: true }) }), {
    selector: (e) => e.day,
    minLength: 3,
  })
  it('is what the clock itself says, up to how its first and last day are shared; past the last entry it runs on the same', () => {
    fc.assert(
      fc.property(
        world,
        fc.integer({ min: -48, max: 150 * 24 }),
        fc.integer({ min: 0, max: 60 * 24 }),
        (told, from, long) => {
          const clocks = clocksOf(told.map((e) => shiftOf(e.day, e.arcHours)))
          const clock = clocks.arcHours
          if (!clock) throw new Error('no clock')
          const [fromMs, toMs] = [JAN + from * HOUR_MS, JAN + (from + long) * HOUR_MS]
          const runOn = { kg: clocks.kg?.runOn ?? null, arcHours: clock.runOn }
          const used = usedOver(daysOfUse(monthsOfUse(clocks)), { fromMs, toMs, schedule: shifts, runOn })
          const exact = usedBetween(clock, fromMs, toMs)
          // A shift a day, all of it inside the day's working time: shared out the same way by both.
          expect(used.arcHours).toBeCloseTo(exact.amount, 5)
          expect(used.estimatedH).toBeCloseTo(exact.estimated, 5)
          expect(used.kg).toBeCloseTo(2 * exact.amount, 5)
        },
      ),
      { numRuns: 200 },
    )
  })
})
