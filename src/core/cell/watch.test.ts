import { describe, expect, it } from 'vitest'
import { makeRandom, drawNormal } from '@core/random/random.ts'
import { NO_WATCH, watchOn, type Changed, type GunWatch, type WatchRow } from './watch.ts'
import { playWatch, scoreWatch } from './watchworld.ts'

/** Rows a minute apart, arc on all the time, at one speed, with a current told by the arc hour. */
function rowsOf(
  hours: number,
  ampsAt: (arcH: number) => number,
  at: { fromMs?: number; speed?: number } = {},
): WatchRow[] {
  const { fromMs = 0, speed = 9 } = at
  return Array.from({ length: hours * 60 + 1 }, (_, i) => ({
    atMs: fromMs + i * 60_000,
    ...{ arcOnS: i * 60, wireFedM: i * speed, motorAmps: ampsAt(i / 60) },
  }))
}
const random = makeRandom(5)
const noisy = (level: (h: number) => number) => (h: number) => level(h) * (1 + 0.04 * drawNormal(random))
const told = (rows: readonly WatchRow[], changes: readonly Changed[] = []) => watchOn(NO_WATCH, rows, changes)

describe('current at equal speed', () => {
  it('that stays is not spoken of; that creeps is, with when it began', () => {
    expect(
      told(
        rowsOf(
          60,
          noisy(() => 2),
        ),
      ).said,
    ).toEqual([])
    const { said } = told(
      rowsOf(
        60,
        noisy((h) => 2 * (1 + 0.4 * Math.max(0, (h - 20) / 40))),
      ),
    )
    expect(said.length).toBeGreaterThan(0)
    expect(said[0]?.speed).toBe(9)
    expect(said[0]?.baseA).toBeCloseTo(2, 1)
    expect(said[0]?.amps).toBeGreaterThan(2.15)
    expect((said[0]?.sinceMs ?? 0) / 3_600_000).toBeGreaterThan(15)
    expect(said[0]?.arcH).toBeLessThan(45)
  })
  it('is said once, and again only when it has risen a good deal more', () => {
    const step = rowsOf(
      60,
      noisy((h) => (h < 20 ? 2 : 2.4)),
    )
    expect(told(step).said).toHaveLength(1)
    const two = rowsOf(
      80,
      noisy((h) => (h < 20 ? 2 : h < 40 ? 2.4 : 2.9)),
    )
    expect(told(two).said).toHaveLength(2)
  })
  it('fed in pieces or at once is the same', () => {
    const rows = rowsOf(
      50,
      noisy((h) => 2 + 0.02 * Math.max(0, h - 15)),
    )
    const whole = told(rows)
    let watch: GunWatch = NO_WATCH
    const said = []
    for (let i = 0; i < rows.length; i += 37) {
      const next = watchOn(watch, rows.slice(i, i + 37))
      watch = next.watch
      said.push(...next.said)
    }
    expect(said).toEqual(whole.said)
    expect(watch).toEqual(whole.watch)
  })
  it('a step that came with another spool is that spool’s; the same step without one is not', () => {
    const rows = rowsOf(
      50,
      noisy((h) => (h < 20 ? 2 : 2.24)),
    )
    expect(told(rows).said.length).toBeGreaterThan(0)
    expect(told(rows, [{ atMs: 20 * 3_600_000, is: 'step' }]).said).toEqual([])
  })
  it('creeping goes on over spools: only their own steps are taken out', () => {
    const rows = rowsOf(
      70,
      noisy((h) => 2 * (1 + 0.012 * Math.max(0, h - 15)) + (Math.floor(h / 7) % 2 ? 0.05 : 0)),
    )
    const spools = Array.from({ length: 9 }, (_, i): Changed => ({ atMs: (i + 1) * 7 * 3_600_000, is: 'step' }))
    expect(told(rows, spools).said.length).toBeGreaterThan(0)
  })
  it('with a new liner begins anew: what was high before is the beginning of nothing', () => {
    const rows = rowsOf(
      60,
      noisy((h) => (h < 30 ? 2 : 3)),
    )
    expect(told(rows, [{ atMs: 30 * 3_600_000, is: 'anew' }]).said).toEqual([])
  })
  it('counters that jump, rows without an arc or a current, another speed: none of them is a point', () => {
    const rows = rowsOf(20, () => 2)
    const odd = rows.map((r, i) =>
      i % 10 === 3 ? { ...r, arcOnS: r.arcOnS + 1e6 } : i % 10 === 6 ? { ...r, motorAmps: null } : r,
    )
    const { watch, said } = told(odd)
    expect(said).toEqual([])
    expect(watch.bands.every((b) => b.points.every((p) => p.amps === 2))).toBe(true)
    const fast = told([...rows, ...rowsOf(20, () => 5, { fromMs: 20 * 3_600_000, speed: 14 })])
    expect(fast.said).toEqual([])
    expect(fast.watch.bands.map((b) => b.speed).sort((a, b) => a - b)).toEqual([9, 14])
  })
})

describe('half a year at made-up robots', () => {
  it('says little before nothing, and most liners a shift ahead', () => {
    const score = scoreWatch(Array.from({ length: 10 }, (_, i) => playWatch(7 + i, 16)))
    expect(score.stops.liner).toBeGreaterThan(10)
    expect(score.falsePerWeek).toBeLessThan(0.35)
    expect(score.linersEarly).toBeGreaterThan(0.5)
  })
  it('counts a word before nothing as false, and one before a stop as a warning of it', () => {
    const said = { speed: 9, amps: 2.2, baseA: 2, sinceMs: 0, atMs: 0, arcH: 0 }
    const run = { weeks: 10, arcH: 300, stops: [{ kind: 'liner' as const, atMs: 0, arcH: 100 }] }
    const score = scoreWatch([
      {
        ...run,
        said: [
          { ...said, byArcH: 70 },
          { ...said, byArcH: 150 },
        ],
      },
    ])
    expect(score).toMatchObject({ falseAlarms: 1, linersEarly: 1, warned: { liner: 1 }, aheadH: { liner: 30 } })
    expect(scoreWatch([{ ...run, said: [{ ...said, byArcH: 96 }] }]).linersEarly).toBe(0)
  })
})
