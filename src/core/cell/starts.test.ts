import { describe, expect, it } from 'vitest'
import { DAY_MS } from '@core/units/time.ts'
import { makeRandom } from '@core/random/random.ts'
import { NO_STARTS, startsOn, type StartRow } from './starts.ts'
import { playStarts, scoreStarts } from './startsworld.ts'

/** So many starts a day at a share that fails, a row each ten. */
function rowsOf(days: number, share: (day: number) => number, at = { day: 0, arcStarts: 0, startsFailed: 0 }) {
  const random = makeRandom(3 + at.day)
  const rows: StartRow[] = []
  const counters = { arcStarts: at.arcStarts, startsFailed: at.startsFailed }
  for (let i = 0; i < days * 400; i++) {
    const day = at.day + i / 400
    if (random() < share(day)) counters.startsFailed++
    else counters.arcStarts++
    if (i % 10 === 9) rows.push({ atMs: Math.round(day * DAY_MS), ...counters })
  }
  return { rows, next: { day: at.day + days, ...counters } }
}

describe('starts that come to nothing', () => {
  it('as ever are not spoken of; ever more are, with how it was and since when', () => {
    expect(startsOn(NO_STARTS, rowsOf(30, () => 0.01).rows).said).toEqual([])
    const { said } = startsOn(NO_STARTS, rowsOf(30, (day) => (day < 10 ? 0.01 : 0.06)).rows)
    expect(said).toHaveLength(1)
    expect(said[0]).toMatchObject({ is: 'more' })
    expect(said[0]?.share).toBeGreaterThan(0.04)
    expect(said[0]?.wellShare).toBeLessThan(0.02)
    expect((said[0]?.sinceMs ?? 0) / DAY_MS).toBeGreaterThan(9)
    expect((said[0]?.atMs ?? 0) / DAY_MS).toBeLessThan(14)
  })
  it('one bad day is not spoken of', () => {
    expect(startsOn(NO_STARTS, rowsOf(20, (day) => (day >= 12 && day < 13 ? 0.05 : 0.01)).rows).said).toEqual([])
  })
  it('put right is said too; not put right, it is said again after the change', () => {
    const bad = (day: number) => (day >= 10 && day < 16 ? 0.08 : 0.01)
    const right = startsOn(NO_STARTS, rowsOf(24, bad).rows, [16 * DAY_MS])
    expect(right.said.map((s) => s.is)).toEqual(['more', 'back'])
    const still = startsOn(NO_STARTS, rowsOf(30, (day) => (day < 10 ? 0.01 : 0.08)).rows, [16 * DAY_MS])
    expect(still.said.map((s) => s.is)).toEqual(['more', 'more'])
  })
  it('fed in pieces or at once is the same; a counter that began anew or is not sent counts for nothing', () => {
    const { rows } = rowsOf(25, (day) => (day < 12 ? 0.01 : 0.07))
    const pieces = Array.from({ length: 25 }, (_, i) => rows.slice(i * 40, i * 40 + 40))
    const told = pieces.reduce<ReturnType<typeof startsOn>>(
      (sum, piece) => {
        const next = startsOn(sum.watch, piece)
        return { watch: next.watch, said: [...sum.said, ...next.said] }
      },
      { watch: NO_STARTS, said: [] },
    )
    expect(told).toEqual(startsOn(NO_STARTS, rows))
    const booted = startsOn(NO_STARTS, [
      { atMs: 1, arcStarts: 500, startsFailed: 90 },
      { atMs: 2, arcStarts: 3, startsFailed: 0 },
      { atMs: 3, arcStarts: 8, startsFailed: null },
    ])
    expect(booted.watch.open).toEqual({ tries: 0, failed: 0 })
  })
  it('at robots drawn otherwise: seldom for nothing, most blunt cutters before they stop one', () => {
    const score = scoreStarts(Array.from({ length: 25 }, (_, i) => playStarts(77 + i * 5, 20)))
    expect(score.falsePerWeek).toBeLessThan(0.1)
    expect(score.stops).toBeGreaterThan(10)
    expect(score.warned / score.stops).toBeGreaterThan(0.5)
    expect(score.ahead).toBeGreaterThan(1000)
  })
})
