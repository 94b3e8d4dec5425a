import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { makeRandom, shuffled } from '@core/random/random.ts'
import { correctedMs, hourly, inOrder, stepsOf, type FeederRow } from './telemetry.ts'

const HOUR = 3_600_000
const row = (over: Partial<FeederRow> = {}): FeederRow => ({
  bootId: 'b1',
  seq: 0,
  atMs: 0,
  wireFedM: 0,
  arcOnS: 0,
  arcStarts: 0,
  ...over,
})
/** A feeder that welds on and off, restarts now and then, and sends a row every ten seconds. */
function feederDay(
  seed: number,
  rows: number,
): { rows: FeederRow[]; truth: { wireFedM: number; arcOnS: number; arcStarts: number } } {
  const random = makeRandom(seed)
  const truth = { wireFedM: 0, arcOnS: 0, arcStarts: 0 }
  const list: FeederRow[] = []
  let boot = 0
  let now = row({ bootId: 'b0' })
  for (let i = 0; i < rows; i++) {
    if (i > 0 && random() < 0.01) now = row({ bootId: `b${++boot}`, seq: -1 })
    const arcS = random() < 0.4 ? random() * 10 : 0
    const starts = arcS > 0 ? 1 : 0
    truth.arcOnS += arcS
    truth.wireFedM += arcS * 0.12
    truth.arcStarts += starts
    now = {
      ...now,
      seq: now.seq + 1,
      atMs: i * 10_000,
      arcOnS: now.arcOnS + arcS,
      wireFedM: now.wireFedM + arcS * 0.12,
      arcStarts: now.arcStarts + starts,
    }
    list.push(now)
  }
  return { rows: list, truth }
}
const total = (rows: readonly FeederRow[]) =>
  hourly(stepsOf(rows)).reduce(
    (sum, h) => ({
      wireFedM: sum.wireFedM + h.wireFedM,
      arcOnS: sum.arcOnS + h.arcOnS,
      arcStarts: sum.arcStarts + h.arcStarts,
    }),
    {
      wireFedM: 0,
      arcOnS: 0,
      arcStarts: 0,
    },
  )

describe('what feeders send', () => {
  it('adds up to what was used, through restarts', () => {
    for (const seed of [1, 2, 3, 4, 5]) {
      const { rows, truth } = feederDay(seed, 1500)
      const told = total(rows)
      expect(told.arcOnS).toBeCloseTo(truth.arcOnS, 6)
      expect(told.wireFedM).toBeCloseTo(truth.wireFedM, 6)
      expect(told.arcStarts).toBeCloseTo(truth.arcStarts, 6)
    }
  })
  it('is the same whatever the order of arrival and however often rows come', () => {
    const random = makeRandom(9)
    const { rows } = feederDay(6, 600)
    const once = hourly(stepsOf(rows))
    for (let run = 0; run < 10; run++) {
      const twice = shuffled([...rows, ...rows.filter(() => random() < 0.5)], random)
      expect(hourly(stepsOf(twice))).toEqual(once)
    }
  })
  it('with rows lost on the way still adds up: the counter knows', () => {
    const random = makeRandom(10)
    const { rows, truth } = feederDay(7, 400)
    const isLast = (r: FeederRow) => !rows.some((x) => x.bootId === r.bootId && x.seq === r.seq + 1)
    const isFirst = (r: FeederRow) => r.seq === 0
    const kept = rows.filter((r) => isLast(r) || isFirst(r) || random() < 0.5)
    expect(total(kept).arcOnS).toBeCloseTo(truth.arcOnS, 6)
  })
  it('never tells of negative use, and never of more than a feeder can do, whatever the counters say', () => {
    const any = fc.record({
      bootId: fc.constantFrom('a', 'b'),
      seq: fc.integer({ min: 0, max: 30 }),
      atMs: fc.integer({ min: 0, max: 5 * HOUR }),
      wireFedM: fc.double({ min: 0, max: 1e6, noNaN: true }),
      arcOnS: fc.double({ min: 0, max: 1e6, noNaN: true }),
      arcStarts: fc.integer({ min: 0, max: 1e6 }),
    })
    fc.assert(
      fc.property(fc.array(any, { maxLength: 40 }), (rows) => {
        for (const step of stepsOf(rows)) {
          expect(step.toMs).toBeGreaterThanOrEqual(step.fromMs)
          const seconds = (step.toMs - step.fromMs) / 1000 + 1
          expect(step.arcOnS).toBeGreaterThanOrEqual(0)
          expect(step.arcOnS).toBeLessThanOrEqual(seconds)
          expect(step.wireFedM).toBeLessThanOrEqual((40 / 60) * seconds)
        }
      }),
      { seed: 31, numRuns: 300 },
    )
  })
  it('a reading that is broken for a moment counts nothing, and counting goes on', () => {
    const steady = [0, 1, 2, 3, 4].map((i) =>
      row({ seq: i, atMs: i * 10_000, arcOnS: i * 5, wireFedM: i, arcStarts: i }),
    )
    const broken = steady.map((r) => (r.seq === 2 ? { ...r, arcOnS: 9e9 } : r))
    expect(total(broken).arcOnS).toBeLessThanOrEqual(total(steady).arcOnS)
  })
  it('a counter that lives through a restart goes on', () => {
    const rows = [
      row({ seq: 0, arcOnS: 100 }),
      row({ seq: 1, atMs: 10_000, arcOnS: 105 }),
      row({ bootId: 'b2', seq: 0, atMs: 40_000, arcOnS: 112 }),
    ]
    expect(
      stepsOf(rows)
        .slice(1)
        .map((s) => s.arcOnS),
    ).toEqual([5, 7])
  })
  it('boots follow each other by their first row, rows by their number, time never back', () => {
    const rows = [
      row({ bootId: 'z', seq: 1, atMs: 5000 }),
      row({ bootId: 'a', seq: 0, atMs: 60_000 }),
      row({ bootId: 'z', seq: 0, atMs: 9000 }),
    ]
    expect(inOrder(rows).map((r) => `${r.bootId}${r.seq}`)).toEqual(['z0', 'z1', 'a0'])
    expect(stepsOf(rows).every((s) => s.toMs >= s.fromMs)).toBe(true)
  })
})

describe('hours', () => {
  it('share a step by time and keep its whole', () => {
    const hours = hourly([{ fromMs: HOUR / 2, toMs: 2.5 * HOUR, arcOnS: 400, wireFedM: 8, arcStarts: 4 }])
    expect(hours.map((h) => [h.hourMs / HOUR, h.arcOnS])).toEqual([
      [0, 100],
      [1, 200],
      [2, 100],
    ])
  })
  it('a step of no length counts in its hour', () =>
    expect(hourly([{ fromMs: HOUR, toMs: HOUR, arcOnS: 1, wireFedM: 0, arcStarts: 1 }])).toEqual([
      { hourMs: HOUR, toMs: HOUR, arcOnS: 1, wireFedM: 0, arcStarts: 1 },
    ]))
})

describe('a device’s clock', () => {
  it('may be years off: only how long ago it says counts', () => {
    const year = 365 * 24 * HOUR
    expect(correctedMs({ deviceMs: year + 1000 }, { sentMs: year + 6000, receivedMs: 100_000 })).toBe(95_000)
  })
})
