import { describe, expect, test } from 'vitest'
import { advise, type AskedPart, type Offer } from './advise.ts'
import { meanOf } from './counts.ts'
import { fewer } from './fewer.ts'
import { forecastByLives, RenewalsKept, wantsOf, withoutAny, type InUse } from './forecast.ts'
import { priceAt } from './ordersize.ts'
import { OWN_COLUMNS, sheetOf } from './ordersheet.ts'

const life = { key: 'tip', life: { shape: 2.5, scale: 8, rate: 0.01 }, limit: null, sdLog: 0.05, share: 1 }
const inUse: InUse[] = Array.from({ length: 10 }, (_, i) => ({
  life,
  age: i % 7,
  useIn: (days) => 4 * days,
  group: `g${i % 5}`,
}))
const kept = new RenewalsKept()
const forecast = forecastByLives(inUse, { lossShare: 0.05, kept })
const groups = new Map(inUse.map((u) => [u.group, { minorPerDay: 20_000 }]))
const absent = (ready: number) => {
  const instead = { ready, swapMinor: 500 }
  return {
    ...instead,
    perDayMinor: 20_000,
    without: (days: number) => withoutAny(wantsOf(inUse, kept), days, { groups, instead }),
  }
}
const post: Offer = {
  id: 'post',
  bands: [
    { from: 0, each: 60 },
    { from: 500, each: 45 },
  ],
  packOf: 100,
  leadDays: 12,
  sdLeadDays: 3,
  orderMinor: 1500,
  isSure: true,
}
const counter: Offer = {
  ...{ id: 'counter', bands: [{ from: 0, each: 95 }], packOf: 10, leadDays: 1, sdLeadDays: 0.4 },
  ...{ orderMinor: 2600, isSure: true },
}
const asked = (over: Partial<AskedPart> = {}): AskedPart => ({
  forecast,
  shelf: { mean: 300, sd: 0 },
  coming: [],
  offers: [post, counter],
  absence: absent(0),
  shelfMost: null,
  ...over,
})

describe('what to buy', () => {
  test('in whole packs, ordered before what is wanted meanwhile runs it out', () => {
    const advice = advise(asked())
    expect(advice?.offerId).toBe('post')
    expect((advice?.quantity ?? 1) % 100).toBe(0)
    expect(advice?.point).toBeGreaterThan(advice?.meanwhile ?? 1e9)
    expect(advice?.orderInDays).toBeGreaterThan(0)
    expect(advise(asked({ shelf: { mean: 40, sd: 0 } }))?.orderInDays).toBe(0)
    // What is on its way counts.
    const coming = [{ quantity: 400, days: 3 }]
    expect(advise(asked({ shelf: { mean: 40, sd: 0 }, coming }))?.orderInDays).toBeGreaterThan(5)
  })

  test('a cheap part that stops dear guns is kept more surely than one that stops none', () => {
    const none = { ready: 0, swapMinor: 0, perDayMinor: 0.1, without: (days: number) => days * 0.1 }
    const [dear, cheap] = [advise(asked()), advise(asked({ absence: none }))]
    expect(dear?.service).toBeGreaterThan(0.98)
    expect(cheap?.service).toBeLessThan(0.95)
    expect(cheap?.service).toBeGreaterThan(0.79)
  })

  test('a week without: no more than every group standing all of it; ready guns take their part', () => {
    const without = advise(asked())?.weekWithoutMinor ?? 0
    expect(without).toBeGreaterThan(0.5 * 5 * 7 * 20_000)
    expect(without).toBeLessThanOrEqual(5 * 7 * 20_000)
    expect(advise(asked({ absence: absent(3) }))?.weekWithoutMinor).toBeLessThan(0.8 * without)
    expect(advise(asked({ absence: absent(10) }))?.weekWithoutMinor).toBeLessThan(10 * 500 + 1)
  })

  test('nearly out: what waits by post costs in standing what the counter costs in price', () => {
    const advice = advise(asked({ shelf: { mean: 10, sd: 0 } }))
    const by = (id: string) => advice?.offers.find((o) => o.id === id)
    expect(by('post')?.chanceShort).toBeGreaterThan(0.9)
    expect(by('post')?.standMinor).toBeGreaterThan(by('counter')?.minor ?? 1e9)
    expect(by('counter')?.standMinor).toBeLessThan(by('post')?.standMinor ?? 0)
    expect(by('counter')?.minor).toBeGreaterThan(by('post')?.minor ?? 1e9)
  })

  test('what is only said to fit is no usual offer, however cheap', () => {
    const copy: Offer = { ...counter, id: 'copy', bands: [{ from: 0, each: 5 }], isSure: false }
    const advice = advise(asked({ offers: [post, copy] }))
    expect(advice?.offerId).toBe('post')
    expect(advice?.offers.map((o) => o.id)).toEqual(['post', 'copy'])
    expect(advise(asked({ offers: [copy] }))?.offerId).toBe('copy')
    expect(advise(asked({ offers: [] }))).toBeNull()
  })

  test('no more than the shelf takes, and one pack where even that is more', () => {
    const free = advise(asked({ offers: [post] }))
    expect(advise(asked({ offers: [post], shelfMost: 200 }))?.quantity).toBeLessThanOrEqual(200)
    expect(advise(asked({ offers: [post], shelfMost: 30 }))?.quantity).toBe(100)
    expect(free?.quantity).toBeGreaterThan(200)
    expect([1, 499, 500].map((q) => priceAt(post, q))).toEqual([60, 60, 45])
  })

  test('a part nobody wants: never ordered, never out', () => {
    const idle = forecastByLives([], { lossShare: 0.05 })
    const none = { ready: 0, swapMinor: 0, perDayMinor: 100, without: () => 0 }
    const advice = advise(asked({ forecast: idle, absence: none, shelf: { mean: 2, sd: 0 } }))
    expect(advice).toMatchObject({ point: 0, orderInDays: null })
    expect(advice?.chanceShort).toBeCloseTo(0, 9)
  })
})

describe('fewer kinds', () => {
  const likes = [3, 4].map((sd) => ({ mean: 4, sd, eachMinor: 100 }))
  test('spread adds in squares: five in place of seven', () => {
    const saved = fewer(likes, { z: 2, keepShare: 0.2, kindMinor: 0 })
    expect(saved).toEqual({ safetyNow: 14, safetyThen: 10, savedMinor: 80 })
    expect(fewer(likes, { z: 2, keepShare: 0.2, kindMinor: 900 }).savedMinor).toBe(980)
    expect(() => fewer([], { z: 2, keepShare: 0.2, kindMinor: 0 })).toThrow('expected parts')
  })
})

test('an order in our columns and in theirs: their number, ours where they have none; packs rounded up', () => {
  const line = { theirCode: null, code: 'K-T10', name: 'tip 1.0', quantity: 120, packOf: 50, eachMinor: 64 }
  expect(sheetOf([line])).toEqual([
    OWN_COLUMNS.map((c) => c.head),
    ['K-T10', 'K-T10', 'tip 1.0', '120', '3', '0.64', '76.80'],
  ])
  const theirs = [
    { head: 'Art', is: 'theirCode' },
    { head: 'VE', is: 'packs' },
    { head: 'each', is: 'each' },
  ] as const
  expect(sheetOf([{ ...line, theirCode: 'L-7', eachMinor: null }], theirs)).toEqual([
    ['Art', 'VE', 'each'],
    ['L-7', '3', ''],
  ])
  expect(meanOf(forecast.over(0).counts)).toBeLessThan(0.01)
})
