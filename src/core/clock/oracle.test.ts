import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { makeRandom } from '@core/random/random.ts'
import { buildClock, usedBetween } from './clock.ts'
import { readingsToUsage, type CounterReading } from './epoch.ts'
import { buildHeadClocks, spoolUsage } from './headclock.ts'
import { makeSchedule } from './schedule.ts'
import { rankOf, USAGE_SOURCES } from './source.ts'
import { bestPieces, type UsageSpan } from './sweep.ts'

/** Clocks against a slow oracle that walks minute by minute and takes each minute from the best entry that covers it. */
const MIN = 60_000
const HOUR = 60 * MIN
const DAY = 24 * HOUR

const span = fc.record({
  from: fc.integer({ min: 0, max: 240 }),
  length: fc.integer({ min: 1, max: 120 }),
  amount: fc.integer({ min: 0, max: 50 }),
  source: fc.constantFrom(...USAGE_SOURCES),
  logged: fc.integer({ min: 0, max: 1000 }),
})
type Made = typeof span extends fc.Arbitrary<infer T> ? T : never
const spansOf = (list: Made[]): UsageSpan[] =>
  // Logged times are made distinct: between equals the oracle and the sweep may differ, and no rule says who wins.
  list.map((s, i) => ({
    fromMs: s.from * MIN,
    toMs: (s.from + s.length) * MIN,
    amount: s.amount,
    source: s.source,
    loggedMs: s.logged * 100 + i,
  }))

function slowTotal(spans: UsageSpan[], fromMs: number, toMs: number): number {
  let sum = 0
  for (let at = fromMs; at < toMs; at += MIN) {
    const covering = spans.filter((s) => s.fromMs <= at && s.toMs > at && rankOf('kg', s.source) < Infinity)
    const best = covering.sort((a, b) => rankOf('kg', a.source) - rankOf('kg', b.source) || b.loggedMs - a.loggedMs)[0]
    if (best) sum += (best.amount * MIN) / (best.toMs - best.fromMs)
  }
  return sum
}

describe('the best source per moment', () => {
  it('adds up to what a walk minute by minute adds up to', () => {
    fc.assert(
      fc.property(fc.array(span, { minLength: 1, maxLength: 14 }), (list) => {
        const spans = spansOf(list)
        const swept = bestPieces('kg', spans, null).reduce((sum, p) => sum + p.amount, 0)
        expect(swept).toBeCloseTo(slowTotal(spans, 0, 400 * MIN), 6)
      }),
      { seed: 41, numRuns: 200 },
    )
  })
  it('pieces never overlap, and each lies inside an entry of its source', () => {
    fc.assert(
      fc.property(fc.array(span, { minLength: 1, maxLength: 20 }), (list) => {
        const spans = spansOf(list)
        const pieces = bestPieces('kg', spans, null)
        pieces.forEach((p, i) => {
          expect(p.toMs).toBeGreaterThan(p.fromMs)
          expect(p.fromMs).toBeGreaterThanOrEqual(pieces[i - 1]?.toMs ?? 0)
          expect(spans.some((s) => s.source === p.source && s.fromMs <= p.fromMs && s.toMs >= p.toMs)).toBe(true)
        })
      }),
      { seed: 42, numRuns: 200 },
    )
  })
})

describe('a clock', () => {
  it('between any two instants inside its entries reads what the walk reads', () => {
    fc.assert(
      fc.property(
        fc.array(span, { minLength: 1, maxLength: 10 }),
        fc.integer({ min: 0, max: 300 }),
        fc.integer({ min: 0, max: 200 }),
        (list, from, length) => {
          const spans = spansOf(list)
          const clock = buildClock('kg', spans, null)
          if (!clock) return
          const endMs = clock.runOn.fromMs
          const [a, b] = [Math.min(from * MIN, endMs), Math.min((from + length) * MIN, endMs)]
          expect(usedBetween(clock, a, b).amount).toBeCloseTo(slowTotal(spans, a, b), 6)
        },
      ),
      { seed: 43, numRuns: 200 },
    )
  })
  it('splits anywhere without loss, with and without a schedule, beyond its entries too', () => {
    const schedule = makeSchedule(
      Array.from({ length: 40 }, (_, d) => ({ fromMs: d * DAY + 6 * HOUR, toMs: d * DAY + 14 * HOUR })),
    )
    fc.assert(
      fc.property(
        fc.array(span, { minLength: 1, maxLength: 10 }),
        fc.array(fc.integer({ min: 0, max: 30 * DAY }), { minLength: 3, maxLength: 3 }),
        (list, cuts) => {
          const spans = spansOf(list).map((s) => ({
            ...s,
            fromMs: s.fromMs * 20 + 6 * HOUR,
            toMs: s.toMs * 20 + 6 * HOUR,
          }))
          for (const by of [null, schedule]) {
            const clock = buildClock('kg', spans, by)
            if (!clock) continue
            const [a = 0, b = 0, c = 0] = [...cuts].sort((x, y) => x - y)
            const whole = usedBetween(clock, a, c).amount
            expect(usedBetween(clock, a, b).amount + usedBetween(clock, b, c).amount).toBeCloseTo(whole, 6)
            expect(whole).toBeGreaterThanOrEqual(0)
          }
        },
      ),
      { seed: 44, numRuns: 150 },
    )
  })
})

describe('counters as they stand on the equipment', () => {
  const reading = (atMs: number, kg: number): CounterReading => ({ atMs, kg, arcHours: null, starts: null })
  it('give back what was used in every stretch in which nothing was reset', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 9 }), { minLength: 1, maxLength: 30 }), (steps) => {
        let total = 0
        const readings = [reading(0, 0), ...steps.map((s, i) => reading((i + 1) * HOUR, (total += s)))]
        const used = readingsToUsage(readings, 'telemetry', 0).reduce((sum, u) => sum + (u.kg ?? 0), 0)
        expect(used).toBe(total)
      }),
      { seed: 45 },
    )
  })
  it('whatever is reset when, never tell of more than was used, nor of less than nothing', () => {
    const random = makeRandom(7)
    for (let run = 0; run < 60; run++) {
      let counter = 0
      let truth = 0
      const readings: CounterReading[] = []
      for (let i = 0; i < 40; i++) {
        if (random() < 0.1) counter = 0
        const step = Math.floor(random() * 5)
        counter += step
        truth += step
        readings.push(reading(i * HOUR, counter))
      }
      const told = readingsToUsage(readings, 'telemetry', 0)
      expect(told.every((u) => u.kg === null || u.kg >= 0)).toBe(true)
      expect(told.reduce((sum, u) => sum + (u.kg ?? 0), 0)).toBeLessThanOrEqual(truth)
    }
  })
})

describe('spools as a clock', () => {
  it('n loads of one weight are n − 1 spools used, spread between the first and the last', () => {
    fc.assert(
      fc.property(fc.uniqueArray(fc.integer({ min: 0, max: 500 }), { minLength: 2, maxLength: 20 }), (hours) => {
        const loads = hours.map((h) => ({ atMs: h * HOUR, labelKg: 15, loggedMs: h * HOUR }))
        const clocks = buildHeadClocks(spoolUsage(loads), 2.5, null)
        const [first, last] = [Math.min(...hours) * HOUR, Math.max(...hours) * HOUR]
        if (!clocks.kg || !clocks.arcHours) throw new Error('expected clocks')
        expect(usedBetween(clocks.kg, first, last).amount).toBeCloseTo(15 * (hours.length - 1), 6)
        expect(usedBetween(clocks.arcHours, first, last).amount).toBeCloseTo((15 / 2.5) * (hours.length - 1), 6)
      }),
      { seed: 46 },
    )
  })
  it('a spool taken off half full counts half, and one loaded twice in one instant counts once', () => {
    const loads = [
      { atMs: 0, labelKg: 15, loggedMs: 0 },
      { atMs: 10 * HOUR, labelKg: 15, loggedMs: 1, leftKg: 7 },
      { atMs: 10 * HOUR, labelKg: 15, loggedMs: 2, leftKg: 7.5 },
      { atMs: 20 * HOUR, labelKg: 15, loggedMs: 3 },
    ]
    expect(spoolUsage(loads).map((u) => u.kg)).toEqual([7.5, 15])
  })
})
