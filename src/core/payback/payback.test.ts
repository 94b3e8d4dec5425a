import { describe, expect, it } from 'vitest'
import { didHelp } from './didhelp.ts'
import { heapsOf, middleHalf } from './heaps.ts'
import { availability, forHundred, perHundred } from './rates.ts'
import { addCost, costOfStop, HANDS_MOST_MIN, NO_COST, totalMinor } from './stopcost.ts'

const RATES = { stopMinorPerHour: 6000, labourMinorPerHour: 3000, scrapMinorPerPiece: 2500 }
const used = (over = {}) => ({ minutes: 0, parts: [], wireKg: 0, wireMinorPerKg: null, scrapped: null, ...over })

describe('money of a stop', () => {
  it('is time, hands, parts, wire and scrapped work, each by its price', () => {
    const cost = costOfStop(
      used({
        minutes: 20,
        parts: [{ kindKey: 'tip', n: 2, priceMinor: 60 }],
        wireKg: 0.5,
        wireMinorPerKg: 300,
        scrapped: 1,
      }),
      RATES,
    )
    expect(cost).toEqual({ standMinor: 2000, handsMinor: 1000, partsMinor: 120, wireMinor: 150, scrapMinor: 2500 })
    expect(totalMinor(cost)).toBe(5770)
  })
  it('counts nothing for what nobody priced', () => {
    const bare = { stopMinorPerHour: 0, labourMinorPerHour: 0, scrapMinorPerPiece: 0 }
    const parts = [{ kindKey: 'tip', n: 2, priceMinor: null }]
    expect(totalMinor(costOfStop(used({ minutes: 90, parts, wireKg: 1, scrapped: 3 }), bare))).toBe(0)
  })
  it('pays hands for an hour at most: after that it waits', () => {
    const day = costOfStop(used({ minutes: 480 }), RATES)
    expect(day.standMinor).toBe(48_000)
    expect(day.handsMinor).toBe((HANDS_MOST_MIN * 3000) / 60)
  })
  it('adds up part by part', () => {
    const one = costOfStop(used({ minutes: 6 }), RATES)
    expect(addCost(addCost(NO_COST, one), one).standMinor).toBeCloseTo(2 * one.standMinor)
  })
  it('of negative minutes is misuse', () =>
    expect(() => costOfStop(used({ minutes: -1 }), RATES)).toThrow('costOfStop: expected minutes and kg >= 0'))
})

describe('heaps on the path', () => {
  const stop = (column: string | null, minutes: number) => ({
    column,
    minutes,
    cost: costOfStop(used({ minutes }), RATES),
  })
  it('lose no stop, no minute and no money, and the dearest comes first', () => {
    const stops = [stop('tip', 5), stop('liner', 30), stop('tip', 6), stop(null, 2)]
    const heaps = heapsOf(stops)
    expect(heaps.map((h) => [h.column, h.stops, h.minutes])).toEqual([
      ['liner', 1, 30],
      ['tip', 2, 11],
      [null, 1, 2],
    ])
    const total = (list: { cost: (typeof stops)[number]['cost'] }[]) =>
      list.reduce((sum, h) => sum + totalMinor(h.cost), 0)
    expect(total(heaps)).toBeCloseTo(total(stops))
  })
  it('of single ones: the mean, since it adds up, and the middle half', () => {
    expect(middleHalf([1, 2, 3, 4, 5])).toEqual({ n: 5, mean: 3, low: 2, high: 4 })
    expect(middleHalf([7, 1])).toEqual({ n: 2, mean: 4, low: null, high: null })
    expect(middleHalf([])).toBeNull()
  })
})

describe('rates', () => {
  it('for 100 of what was welded have Garwood’s exact interval', () => {
    const rate = perHundred(10, 250)
    expect(rate?.rate).toBe(4)
    expect(rate?.low).toBeCloseTo(4.795 / 2.5, 3)
    expect(rate?.high).toBeCloseTo(18.39 / 2.5, 3)
    expect(perHundred(3, 0)).toBeNull()
  })
  it('of one for 100 of another do not depend on how long it was counted', () => {
    const few = forHundred(3, 120)
    expect(few?.rate).toBeCloseTo(2.5)
    expect(few?.low).toBeLessThan(1)
    expect(few?.high).toBeGreaterThan(6)
    const many = forHundred(300, 12_000)
    expect((many?.high ?? 9) - (many?.low ?? 0)).toBeLessThan(1)
    expect(forHundred(0, 50)?.low).toBe(0)
    expect(forHundred(2, 0)).toBeNull()
  })
  it('between stops, minutes each, share of the time it could run', () => {
    expect(availability({ stops: 4, minutes: 60, scheduledMin: 6000, arcHours: 40 })).toEqual({
      betweenArcH: 10,
      meanMin: 15,
      upShare: 0.99,
    })
    expect(availability({ stops: 0, minutes: 0, scheduledMin: 0, arcHours: 0 })).toEqual({
      betweenArcH: null,
      meanMin: null,
      upShare: null,
    })
  })
})

describe('did it help?', () => {
  const of = (n: number, over = 100) => ({ n, over })
  const asked = (over = {}) => ({ before: of(30), after: of(10), elsewhere: null, run: null, ...over })
  it('says fewer, more, or that it cannot tell', () => {
    expect(didHelp(asked()).is).toBe('fewer')
    expect(didHelp(asked({ before: of(10), after: of(30) })).is).toBe('more')
    expect(didHelp(asked({ before: of(6), after: of(4) })).is).toBe('cantTell')
  })
  it('goes by what was welded, not by the calendar', () => {
    expect(didHelp(asked({ before: of(30, 300), after: of(10, 100) })).is).toBe('cantTell')
  })
  it('says how long until it can tell, and nought where it can', () => {
    expect(didHelp(asked()).untilOver).toBe(0)
    const wait = didHelp(asked({ before: of(30), after: of(5, 30) })).untilOver
    expect(wait).toBeGreaterThan(0)
    expect(didHelp(asked({ before: of(5), after: of(5) })).untilOver).toBeNull()
  })
  it('sees that places without the change went the same way', () => {
    const both = { before: of(300), after: of(100) }
    expect(didHelp(asked({ elsewhere: both })).elsewhere).toBe('same')
    expect(didHelp(asked({ elsewhere: { before: of(300), after: of(290) } })).elsewhere).toBe('not')
    expect(didHelp(asked()).elsewhere).toBeNull()
  })
  it('sees that it was changed at the end of a bad stretch', () => {
    expect(didHelp(asked({ run: { early: of(10, 80), late: of(20, 20) } })).isAfterBad).toBe(true)
    expect(didHelp(asked({ run: { early: of(24, 80), late: of(6, 20) } })).isAfterBad).toBe(false)
  })
  it('finds nothing, nineteen times in twenty, where nothing changed', () => {
    // Exact by summing both Poisson counts of mean 12 up to where nothing is left.
    const poisson = (k: number, m: number) => {
      let p = Math.exp(-m)
      for (let i = 1; i <= k; i++) p *= m / i
      return p
    }
    let wrong = 0
    for (let a = 0; a < 40; a++)
      for (let b = 0; b < 40; b++) {
        if (a + b === 0) continue
        if (didHelp(asked({ before: of(a), after: of(b) })).is !== 'cantTell') wrong += poisson(a, 12) * poisson(b, 12)
      }
    expect(wrong).toBeLessThan(0.05)
    expect(wrong).toBeGreaterThan(0.01)
  })
})
