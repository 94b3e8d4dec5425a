import { describe, expect, it } from 'vitest'
import { makeRandom } from '@core/random/random.ts'
import { DAY_MS } from '@core/units/time.ts'
import { joined, kgPerPart, takenByCounts, takenByPurchases, takenByTin, takenFromPlaces, type Taken } from './taken.ts'

describe('counts of the shelf', () => {
  it('what is missing was taken', () =>
    expect(takenByCounts({ counts: [at(0, 100), at(10, 40)], received: [] })[0]).toMatchObject({ taken: 60 }))
  it('deliveries in between were taken too, those before and after were not', () => {
    const received = [at(0, 7), at(5, 50), at(10, 3), at(11, 9)]
    expect(takenByCounts({ counts: [at(0, 100), at(10, 40)], received })[0]?.taken).toBe(113)
  })
  it('a shelf that grew by itself tells nothing, and the next stretch still does', () => {
    const windows = takenByCounts({ counts: [at(0, 10), at(5, 90), at(9, 80)], received: [] })
    expect(windows).toMatchObject([{ fromMs: 5, toMs: 9, taken: 10 }])
  })
  it('counts come in any order', () =>
    expect(takenByCounts({ counts: [at(10, 40), at(0, 100)], received: [] })[0]?.taken).toBe(60))
  it('one count alone tells nothing', () => expect(takenByCounts({ counts: [at(0, 3)], received: [] })).toEqual([]))
})

describe('a part that lies in several places', () => {
  const count = (at: string, day: number, quantity: number) => ({
    ...{ said: 'counted' as const, at, quantity },
    atMs: day * DAY_MS,
  })
  const carry = (from: string, to: string, day: number, quantity: number) => ({
    ...{ said: 'carried' as const, from, to },
    ...{ quantity, atMs: day * DAY_MS },
  })
  it('what was carried from one to the other was not taken', () => {
    const said = [count('', 0, 100), count('cells', 0, 5), carry('', 'cells', 3, 20)]
    expect(takenFromPlaces([...said, count('', 10, 50), count('cells', 10, 9)])).toMatchObject({ taken: 30 + 16 })
  })
  it('one that was counted over fewer days speaks at its own pace', () => {
    const said = [count('', 0, 100), count('', 10, 50), count('cells', 5, 9), count('cells', 10, 4)]
    expect(takenFromPlaces(said)).toMatchObject({ fromMs: 0, toMs: 10 * DAY_MS, taken: 60 })
  })
  it('what went to a place nobody counts was taken, as far as anybody can tell', () =>
    expect(takenFromPlaces([count('', 0, 100), carry('', 'cells', 3, 20), count('', 10, 50)])?.taken).toBe(50))
  it('counted again within half a day it is the same count, made better', () => {
    const said = [count('', 0, 100), count('', 0.1, 90), count('', 10, 50)]
    expect(takenFromPlaces(said)).toMatchObject({ fromMs: 0.1 * DAY_MS, taken: 40 })
    // And two counts of one evening, or of one day and the next, are not carried on to weeks.
    expect(takenFromPlaces(said.slice(0, 2))).toBeNull()
    expect(takenFromPlaces([count('', 0, 100), count('', 1, 99)])).toBeNull()
  })
  it('no place counted twice tells nothing', () =>
    expect(takenFromPlaces([count('', 0, 100), count('cells', 5, 9)])).toBeNull())
})

describe('the tin of old tips', () => {
  const each = { gramsEach: 12, pieces: 50 }
  it('grams become pieces', () =>
    expect(takenByTin([tin(0, 300, true), tin(7, 240, true)], each)[0]?.taken).toBeCloseTo(20, 12))
  it('what was left in it does not count again', () =>
    expect(takenByTin([tin(0, 120, false), tin(7, 240, false)], each)[0]?.taken).toBeCloseTo(10, 12))
  it('a tin that grew lighter by itself tells nothing', () =>
    expect(takenByTin([tin(0, 300, false), tin(7, 240, false)], each)).toEqual([]))
  it('its spread is what weighing made-up tips gives', () => {
    const random = makeRandom(5)
    const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random())
    const found: number[] = []
    for (let i = 0; i < 4000; i++) {
      const weigh = (n: number) =>
        Array.from({ length: n }, () => 12 * (1 + 0.08 * normal())).reduce((a, b) => a + b, 0)
      const gramsEach = weigh(50) / 50
      const grams = Math.max(0, weigh(30) + 2 * normal() - 2 * normal())
      found.push(takenByTin([tin(0, 0, true), tin(7, grams, true)], { gramsEach, pieces: 50 })[0]?.taken ?? 0)
    }
    const mean = found.reduce((a, b) => a + b, 0) / found.length
    const sd = Math.sqrt(found.reduce((s, f) => s + (f - mean) ** 2, 0) / found.length)
    const said = takenByTin([tin(0, 0, true), tin(7, 360, true)], each)[0]
    expect(mean).toBeCloseTo(30, 1)
    expect(said?.sdTaken).toBeGreaterThan(0.9 * sd)
    expect(said?.sdTaken).toBeLessThan(1.1 * sd)
  })
  it('refuses a weight of nothing', () =>
    expect(() => takenByTin([], { gramsEach: 0, pieces: 50 })).toThrow(RangeError))
})

describe('the purchase list', () => {
  it('nothing bought tells nothing', () => expect(takenByPurchases([bought(0, 0)])).toBeNull())
  it('an empty month counts as time, not as a delivery', () =>
    expect(takenByPurchases([bought(0, 100), bought(1, 0), bought(2, 200)])).toMatchObject({
      taken: 300,
      fromMs: 0,
      toMs: 3,
      sdTaken: 150 / Math.sqrt(6),
    }))
  it('one tip per 3 kg of wire, and how well that is known', () => {
    const parts = takenByPurchases(Array.from({ length: 12 }, (_, i) => bought(i, 3100 / 12)))
    const wire = takenByPurchases(Array.from({ length: 12 }, (_, i) => bought(i, 9400 / 12)))
    if (!parts || !wire) throw new Error('nothing bought')
    const told = kgPerPart(parts, wire)
    expect(told.kgEach).toBeCloseTo(3.03, 2)
    expect(told.lowKg).toBeGreaterThan(2.7)
    expect(told.lowKg).toBeLessThan(2.95)
    expect(told.highKg).toBeGreaterThan(3.1)
    expect(told.highKg).toBeLessThan(3.4)
  })
  it('few parts are known badly', () => {
    const one = { source: 'bought', fromMs: 0, toMs: 1, sdTaken: 0 } as const
    expect(kgPerPart({ ...one, taken: 4 }, { ...one, taken: 400 }).highKg).toBeGreaterThan(200)
  })
})

describe('stretches that follow on each other', () => {
  it('are one, with the spreads put together', () =>
    expect(joined([window(5, 9, 3, 4), window(0, 5, 7, 3)])).toMatchObject([
      { fromMs: 0, toMs: 9, taken: 10, sdTaken: 5 },
    ]))
  it('stay apart over a gap', () => expect(joined([window(0, 5, 7, 3), window(6, 9, 3, 4)])).toHaveLength(2))
})

const at = (atMs: number, quantity: number) => ({ atMs, quantity })
const tin = (atMs: number, grams: number, isEmptied: boolean) => ({ atMs, grams, isEmptied })
const bought = (month: number, quantity: number) => ({ fromMs: month, toMs: month + 1, quantity })
const window = (fromMs: number, toMs: number, taken: number, sdTaken: number): Taken => ({
  source: 'tin',
  fromMs,
  toMs,
  taken,
  sdTaken,
})
