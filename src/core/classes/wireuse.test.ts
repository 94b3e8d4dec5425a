import { describe, expect, it } from 'vitest'
import { drawNormal, makeRandom, seedOf } from '@core/random/random.ts'
import { type Level } from './groups.ts'
import { paceByClasses, wireRates, wireWillTake, type ClassTime } from './wireuse.ts'

const hours = (own: Partial<Record<Level, number>>) => new Map(Object.entries(own) as [Level, number][])
const TRUE: Record<Level, number> = { new: 0.4, some: 0.6, skilled: 1.1 }
/** Days drawn from rates the fit is not given. */
function drawn(n: number, seed: string, of: (day: number) => Partial<Record<Level, number>>): ClassTime[] {
  const random = makeRandom(seedOf(seed))
  return Array.from({ length: n }, (_, i) => {
    const h = hours(of(i))
    const mean = [...h].reduce((s, [level, t]) => s + t * TRUE[level], 0)
    const all = [...h.values()].reduce((a, b) => a + b, 0)
    return { kg: Math.max(0, mean + 0.4 * Math.sqrt(all) * drawNormal(random)), hours: h }
  })
}
/** Five days, each with other classes at the same booths. */
const DAYS: Partial<Record<Level, number>>[] = [
  { new: 12, skilled: 6 },
  { new: 12, some: 12 },
  { new: 12, skilled: 6 },
  { some: 12 },
  { new: 12 },
]
const WEEK = (d: number) => DAYS[d % 5] ?? {}

describe('wire by calendar and level', () => {
  it('of days that are all alike every level is as all', () => {
    const rates = wireRates(Array.from({ length: 10 }, () => ({ kg: 6, hours: hours({ new: 4, skilled: 4 }) })))
    expect(rates?.kgPerHour.map((r) => r.toFixed(6))).toEqual(['0.750000', '0.750000'])
  })
  it('tells levels apart where days do, with a spread that holds', () => {
    const rates = wireRates(drawn(50, 'levels', WEEK))
    expect(rates?.levels).toEqual(['new', 'skilled', 'some'])
    const [beginners = 0, skilled = 0, some = 0] = rates?.kgPerHour ?? []
    expect(beginners).toBeLessThan(some)
    expect(some).toBeLessThan(skilled)
    expect(skilled).toBeGreaterThan(0.85)
    expect(rates?.areApart).toBe(true)
    expect(wireRates(drawn(50, 'alike', () => ({ new: 12, some: 12 })))?.areApart).toBe(false)
  })
  it('eight weeks in ten lie between low and high, as it says', () => {
    let inside = 0
    for (let run = 0; run < 200; run++) {
      const days = drawn(45, `week ${run}`, WEEK)
      const rates = wireRates(days.slice(0, 40))
      const coming = new Map<Level, number>()
      for (const d of days.slice(40)) for (const [l, h] of d.hours) coming.set(l, (coming.get(l) ?? 0) + h)
      const kg = days.slice(40).reduce((s, d) => s + d.kg, 0)
      const will = rates && wireWillTake(rates, coming)
      if (will && kg >= will.low && kg <= will.high) inside++
    }
    expect(inside).toBeGreaterThan(145)
    expect(inside).toBeLessThan(178)
  })
  it('a level nobody saw is taken for all, less surely; of nothing welded nothing is told', () => {
    const rates = wireRates(drawn(40, 'unseen', () => ({ new: 10 })))
    if (!rates) throw new Error('no rates')
    const [own, other] = [wireWillTake(rates, hours({ new: 10 })), wireWillTake(rates, hours({ skilled: 10 }))]
    expect(other.mean).toBeCloseTo(rates.all * 10, 9)
    expect(other.high - other.low).toBeGreaterThan(own.high - own.low)
    expect(wireRates(drawn(40, 'none', () => ({})))).toBeNull()
    expect(wireRates(Array.from({ length: 9 }, () => ({ kg: 0, hours: hours({ new: 3 }) })))).toBeNull()
  })
})

describe('the pace of a booth by its classes', () => {
  const pace = (coming: Partial<Record<Level, number>>, workedComing = 40) =>
    paceByClasses({ past: hours({ new: 60 }), coming: hours(coming), workedPast: 400, workedComing, rates: null })
  it('is as before where as many come, nothing in a week without, twice where twice as many', () => {
    expect(pace({ new: 6 })).toBeCloseTo(1, 9)
    expect(pace({})).toBe(0)
    expect(pace({ new: 12 })).toBeCloseTo(2, 9)
  })
  it('is weighed by what a level welds', () => {
    const rates = wireRates(drawn(50, 'pace', WEEK))
    const of = (coming: Partial<Record<Level, number>>) =>
      paceByClasses({ past: hours({ new: 60 }), coming: hours(coming), workedPast: 400, workedComing: 40, rates }) ?? 0
    expect(of({ skilled: 6 })).toBeGreaterThan(1.6 * of({ new: 6 }))
  })
  it('is not told of a few classes, or where nothing is worked', () => {
    expect(
      paceByClasses({ past: hours({ new: 6 }), coming: hours({}), workedPast: 9, workedComing: 9, rates: null }),
    ).toBeNull()
    expect(pace({ new: 5 }, 0)).toBeNull()
  })
})
