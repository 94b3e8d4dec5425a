import { describe, expect, it } from 'vitest'
import { makeRandom } from '@core/random/random.ts'
import { dedicating } from './dedicate.ts'
import { costOfPlan, groupByWire, type Grouping } from './group.ts'

function dayOf(seed: number, size: { booths: number; wires: number; periods: number }): Grouping {
  const random = makeRandom(seed)
  const whole = (n: number) => Math.floor(random() * n)
  const costs = Array.from({ length: size.booths }, () =>
    Array.from({ length: size.wires }, () => Array.from({ length: size.wires }, () => 5 + whole(30))),
  )
  const need = Array.from({ length: size.periods }, () => {
    const wanted = new Array<number>(size.wires).fill(0)
    for (let i = 0; i < size.booths - whole(2); i++) {
      const wire = whole(size.wires)
      wanted[wire] = (wanted[wire] ?? 0) + 1
    }
    return wanted
  })
  return {
    booths: costs.map((_, i) => ({ id: `B${i}`, startsWith: whole(size.wires) })),
    wires: Array.from({ length: size.wires }, (_, i) => `w${i}`),
    periods: need.map((_, i) => `p${i}`),
    need,
    cost: (booth, from, to) => costs[booth]?.[from ?? 0]?.[to] ?? Infinity,
  }
}

/** Every plan there is. */
function bruteForce(day: Grouping): number {
  let least = Infinity
  const rows = (booths: number): number[][] =>
    booths === 0 ? [[]] : rows(booths - 1).flatMap((row) => day.wires.map((_, w) => [...row, w]))
  const all = rows(day.booths.length)
  const fits = day.need.map((need) => all.filter((row) => need.every((n, w) => row.filter((x) => x === w).length >= n)))
  const go = (period: number, plan: number[][]) => {
    if (period === day.need.length) least = Math.min(least, costOfPlan(day, plan))
    else for (const row of fits[period] ?? []) go(period + 1, [...plan, row])
  }
  go(0, [])
  return least
}

describe('grouping a day by wire', () => {
  it.each([1, 2, 3, 4, 5, 6])('is what trying every plan finds (seed %i)', (seed) => {
    const day = dayOf(seed, { booths: 3, wires: 3, periods: 3 })
    const made = groupByWire(day)
    expect(made.ok && made.cost).toBe(bruteForce(day))
  })
  it('is exact at 8 booths × 4 wires × 6 periods, and meets every need', () => {
    const day = dayOf(11, { booths: 8, wires: 4, periods: 6 })
    const made = groupByWire(day)
    if (!made.ok) throw new Error('expected a plan')
    expect(made.isExact).toBe(true)
    made.plan.forEach((row, p) =>
      day.need[p]?.forEach((n, w) => expect(row.filter((x) => x === w).length).toBeGreaterThanOrEqual(n)),
    )
    expect(costOfPlan(day, made.plan)).toBe(made.cost)
  })
  it('beyond that is close to exact: the same day with one booth that never takes part', () => {
    const day = dayOf(12, { booths: 8, wires: 3, periods: 4 })
    const exact = groupByWire(day)
    const wide: Grouping = {
      ...day,
      booths: [...day.booths, { id: 'idle', startsWith: 0 }],
      cost: (b, from, to) => (b === 8 ? (from === to ? 0 : 1e6) : day.cost(b, from, to)),
      need: day.need.map((need) => need.map((n, w) => (w === 0 ? n + 1 : n))),
    }
    const near = groupByWire(wide)
    if (!exact.ok || !near.ok) throw new Error('expected plans')
    expect(near.isExact).toBe(false)
    expect(near.cost).toBeGreaterThanOrEqual(exact.cost)
    expect(near.cost).toBeLessThanOrEqual(exact.cost * 1.1)
  })
  it('refuses more than there are booths, and wires nobody can run', () => {
    const day = dayOf(3, { booths: 2, wires: 2, periods: 1 })
    expect(groupByWire({ ...day, need: [[2, 1]] })).toMatchObject({ ok: false, period: 'p0' })
    const none = {
      ...day,
      need: [[0, 2]],
      cost: (_b: number, from: number | null, to: number) => (from === to ? 0 : Infinity),
      booths: day.booths.map((b) => ({ ...b, startsWith: 0 })),
    }
    expect(groupByWire(none).ok).toBe(false)
  })
})

describe('a gun kept for one wire', () => {
  const base = { days: 90, costPerChangeMinor: 2000, gunMinor: 120_000, gunYears: 4 }
  it('pays where even the fewest changes cost more', () =>
    expect(dedicating({ ...base, changes: 40 })).toMatchObject({ says: 'pays', breakEvenPerYear: 15 }))
  it('does not where even the most cost less', () =>
    expect(dedicating({ ...base, changes: 0 }).says).toBe('does not pay'))
  it('says when too few were counted to tell', () =>
    expect(dedicating({ ...base, changes: 4 }).says).toBe('too few to tell'))
})
