import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { buildClock, clockAt, usedBetween } from './clock.ts'
import { buildHeadClocks, sourceDisagreement, spoolUsage, type UsageEntry } from './headclock.ts'
import { readingsToUsage } from './epoch.ts'
import { makeSchedule } from './schedule.ts'
import { type UsageSpan } from './sweep.ts'
import { type UsageSource } from './source.ts'

const HOUR = 3_600_000
const DAY = 24 * HOUR
const shift = (d: number) => ({ fromMs: d * DAY + 6 * HOUR, toMs: d * DAY + 14 * HOUR })
/** Four weeks of five days, eight hours each. */
const schedule = makeSchedule(
  Array.from({ length: 28 }, (_, d) => d)
    .filter((d) => d % 7 < 5)
    .map(shift),
)
const span = (
  fromMs: number,
  toMs: number,
  amount: number,
  source: UsageSource = 'shiftLog',
  loggedMs = 0,
): UsageSpan => ({ fromMs, toMs, amount, source, loggedMs })
const entry = (over: Partial<UsageEntry> & { fromMs: number; toMs: number }): UsageEntry => ({
  source: 'shiftLog',
  loggedMs: 0,
  kg: null,
  arcHours: null,
  starts: null,
  ...over,
})

const sources: UsageSource[] = ['telemetry', 'weighed', 'label', 'shiftLog', 'converted', 'rate']
const anySpans = fc.array(
  fc
    .record({
      from: fc.integer({ min: 0, max: 20 * 24 }),
      hours: fc.integer({ min: 1, max: 60 }),
      amount: fc.double({ min: 0, max: 50, noNaN: true }),
      source: fc.constantFrom(...sources),
      loggedMs: fc.integer({ min: 0, max: 9 }),
    })
    .map((s) => span(s.from * HOUR, (s.from + s.hours) * HOUR, s.amount, s.source, s.loggedMs)),
  { minLength: 1, maxLength: 15 },
)

describe('clock', () => {
  it('never decreases and is never negative, whatever is entered in whatever order', () => {
    fc.assert(
      fc.property(anySpans, fc.boolean(), (spans, isScheduled) => {
        const clock = buildClock('kg', spans, isScheduled ? schedule : null)
        if (!clock) return
        let before = 0
        for (let t = 0; t < 26 * DAY; t += 5 * HOUR) {
          const { amount, estimated, sd } = clockAt(clock, t)
          expect(amount).toBeGreaterThanOrEqual(before - 1e-9)
          expect(estimated).toBeLessThanOrEqual(amount + 1e-9)
          expect(sd).toBeGreaterThanOrEqual(0)
          before = amount
        }
      }),
      { seed: 11, numRuns: 150 },
    )
  })
  it('does not depend on the order of arrival', () => {
    fc.assert(
      fc.property(anySpans, (spans) => {
        const distinct = spans.map((s, i) => ({ ...s, loggedMs: i }))
        const a = buildClock('kg', distinct, schedule)
        const b = buildClock('kg', [...distinct].reverse(), schedule)
        for (let t = 0; t < 25 * DAY; t += 7 * HOUR)
          expect(a && clockAt(a, t).amount).toBeCloseTo((b && clockAt(b, t).amount) ?? -1, 6)
      }),
      { seed: 5, numRuns: 80 },
    )
  })
  it('runs only in working hours', () => {
    const clock = buildClock('arcHours', [span(0, DAY, 4)], schedule)
    expect(clock && clockAt(clock, 6 * HOUR).amount).toBe(0)
    expect(clock && clockAt(clock, 10 * HOUR).amount).toBeCloseTo(2)
    expect(clock && clockAt(clock, 14 * HOUR).amount).toBeCloseTo(4)
    expect(clock && clockAt(clock, 20 * HOUR).amount).toBeCloseTo(4)
  })
  it('takes the best source per moment and lets weaker ones fill the rest', () => {
    const clock = buildClock('kg', [span(0, 2 * DAY, 10, 'shiftLog'), span(0, DAY, 7, 'telemetry')], null)
    expect(clock && clockAt(clock, DAY).amount).toBeCloseTo(7)
    expect(clock && clockAt(clock, 2 * DAY).amount).toBeCloseTo(12)
  })
  it('a total entered again takes the place of the first', () => {
    const s = shift(0)
    const clock = buildClock(
      'kg',
      [span(s.fromMs, s.toMs, 5, 'shiftLog', 1), span(s.fromMs, s.toMs, 8, 'shiftLog', 2)],
      schedule,
    )
    expect(clock && clockAt(clock, DAY).amount).toBeCloseTo(8)
  })
  it('past its last entry runs on at the mean of the last working days, all of it estimated', () => {
    const clock = buildClock(
      'arcHours',
      [0, 1, 2, 3, 4].map((d) => span(shift(d).fromMs, shift(d).toMs, 2)),
      schedule,
    )
    if (!clock) throw new Error('no clock')
    const ahead = usedBetween(clock, 4 * DAY + 14 * HOUR, 8 * DAY + 14 * HOUR)
    expect(ahead.amount).toBeCloseTo(4)
    expect(ahead.estimated).toBeCloseTo(4)
    expect(ahead.sd).toBeGreaterThan(0)
  })
  it('a hole of a day is filled as estimate, a weekend is not a hole', () => {
    const days = [0, 1, 3, 4, 7]
    const clock = buildClock(
      'kg',
      days.map((d) => span(shift(d).fromMs, shift(d).toMs, 6)),
      schedule,
    )
    if (!clock) throw new Error('no clock')
    const hole = usedBetween(clock, 2 * DAY, 3 * DAY)
    expect(hole.amount).toBeGreaterThan(4)
    expect(hole.estimated).toBeCloseTo(hole.amount)
    expect(usedBetween(clock, 5 * DAY, 7 * DAY).amount).toBe(0)
  })
  it('says nothing where nothing was entered', () => {
    expect(buildClock('starts', [span(0, DAY, 3, 'label')], null)).toBeNull()
    expect(() => usedBetween({} as never, 5, 4)).toThrow('expected toMs >= fromMs')
  })
})

describe('head clocks', () => {
  it('turn kg into hours and back by the place’s own rate, marked estimated, and invent no starts', () => {
    const clocks = buildHeadClocks(
      [entry({ fromMs: 0, toMs: DAY, kg: 6 }), entry({ fromMs: DAY, toMs: 2 * DAY, arcHours: 2 })],
      3,
      null,
    )
    expect(clocks.arcHours && clockAt(clocks.arcHours, DAY)).toMatchObject({ amount: 2, estimated: 2 })
    expect(clocks.kg && clockAt(clocks.kg, 2 * DAY).amount).toBeCloseTo(12)
    expect(clocks.starts).toBeNull()
  })
  it('a spool is used up when the next goes on, less what was left on it', () => {
    const usage = spoolUsage([
      { atMs: 9 * DAY, labelKg: 15, loggedMs: 2 },
      { atMs: 0, labelKg: 15, loggedMs: 1 },
      { atMs: 14 * DAY, labelKg: 15, leftKg: 3, loggedMs: 3 },
    ])
    expect(usage.map((u) => [u.fromMs / DAY, u.toMs / DAY, u.kg])).toEqual([
      [0, 9, 15],
      [9, 14, 12],
    ])
  })
  it('two sources that differ by over 15% are told apart', () => {
    const entries = [
      entry({ fromMs: 0, toMs: DAY, kg: 10, source: 'telemetry' }),
      entry({ fromMs: 0, toMs: DAY, kg: 13 }),
    ]
    expect(sourceDisagreement('kg', entries, null)).toEqual([
      { better: 'telemetry', weaker: 'shiftLog', betterAmount: 10, weakerAmount: 13 },
    ])
    expect(sourceDisagreement('kg', [entries[0] as UsageEntry, entry({ fromMs: 0, toMs: DAY, kg: 11 })], null)).toEqual(
      [],
    )
  })
  it('a counter that starts again begins a new epoch, never negative use', () => {
    const usage = readingsToUsage(
      [
        { atMs: 0, kg: 100, arcHours: 5, starts: null },
        { atMs: DAY, kg: 130, arcHours: 6, starts: null },
        { atMs: 2 * DAY, kg: 4, arcHours: 8, starts: null },
      ],
      'telemetry',
      0,
    )
    expect(usage.map((u) => [u.kg, u.arcHours])).toEqual([
      [30, 1],
      [null, 2],
    ])
  })
})
