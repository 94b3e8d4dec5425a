import { type LifeAnswer, type LifeTold } from '@contract/life.ts'

/** Made-up answers of Part life, for views that are rendered without a server. */
export const spread = (value: number, low = value * 0.9, high = value * 1.1) => ({ value, low, high })
export const told = (over: Partial<LifeTold> = {}): LifeTold => ({
  ...{ n: 214, worn: 160, chance: 30, notSaid: 10, chancePer100: 3, priorShare: 0, source: 'yours', share: 0.8 },
  ...{ median: spread(6.1, 5.2, 7.3), b10: spread(2.4), shape: spread(2.5, 2.2, 2.9), wornMedian: spread(6.6) },
  warnings: [],
  ...over,
})
export const rate = (total: number, standMin: number) => ({
  ...{ total, partMinor: 0, handsMinor: 0, standMinor: 0, collateralMinor: 0, lookMinor: 0 },
  ...{ handsMin: 40, standMin, changes: 20, worn: 10 },
})
export type Money = NonNullable<LifeAnswer['money']>
export const line = (school: Money['advised'], at: number | null, value: number): Money['lines'][number] => ({
  ...{ school, at, cost: rate(20_000, 60), saving: spread(value, value - 0.03, value + 0.03), chanceBetter: 1 },
})
export const money = (over: Partial<Money> = {}): Money => ({
  per: 'arcHours',
  lines: [line('runToFailure', null, 0), { ...line('leastCost', 3.2, 0.25), cost: rate(20_000, 27) }],
  ...{ advised: 'leastCost', flat: [2.4, 4.2], unpriced: [] },
  blade: [2, 4, 8].map((at) => ({ at, total: 1000 * at, handsMin: 60, standMin: 10 * at, parts: 20, worn: 5 })),
  ...{ planned: { minor: 200, min: 2 }, late: { minor: 1200, standMin: 4, collateralMinor: 100 } },
  ...{ byChance: { minor: 900, standMin: 3 }, stops: { n: 77, of: 611, isGuess: false } },
  ...over,
})
export const seen: LifeAnswer['seen'] = {
  ...{
    ended: 200,
    in: 14,
    due: 6,
    ageUnknown: 0,
    coarse: 40,
    several: 0,
    benched: 0,
    unsure: 0,
    noUse: 3,
    noClock: 0,
    otherUnit: 2,
  },
  ...{ sinceMs: 0, share: { value: 0.8, low: 0.7, high: 0.9, isGuess: false } },
}
export const life = (over: Partial<LifeAnswer> = {}): LifeAnswer => ({
  ...{
    nowMs: 0,
    zone: 'UTC',
    currency: 'EUR',
    isMoney: true,
    madeMs: 0,
    progress: '',
    kinds: [],
    wheres: [],
    kind: 'tip',
  },
  ...{ kindName: 'contact tip', where: 'class:training', whereName: 'Training booths', classKey: 'training' },
  ...{ unit: 'arcHours', by: null, seen, told: told(), refused: null, counted: null, asWorn: null, asCut: null },
  ...{
    reasons: [],
    strokes: [],
    strokesOf: 0,
    curve: [],
    steps: [],
    money: money(),
    history: [],
    word: null,
    liner: null,
    perTips: null,
    asWire: null,
    wornWhere: null,
  },
  rule: {
    ...{ changeLimit: 8, school: 'fixed', isForAll: false, chosenMs: null, chosenBy: null, n: null, median: null },
    isNewer: false,
  },
  ...{ groups: [], compared: [], leftOut: [], hungry: [], placesSeen: 8, longer: [], together: [], alongside: [] },
  isCleaned: true,
  tryouts: [],
  ...over,
})
export const m = 'metric' as const
