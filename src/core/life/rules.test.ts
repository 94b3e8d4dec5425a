import { describe, expect, it } from 'vitest'
import { drawWeibull, makeRandom } from '@core/random/random.ts'
import { bestAge } from './agereplace.ts'
import { lowest } from './blockreplace.ts'
import { compareSchools } from './chooserule.ts'
import { residual } from './residual.ts'
import {
  aheadOf,
  bestRule,
  costOfAge,
  costOnCondition,
  totalOf,
  valueLost,
  type OneChange,
  type RuleCosts,
} from './rulecost.ts'
import { replay } from './shoprace.ts'

const change = (partMinor: number, more: Partial<OneChange> = {}): OneChange => ({
  ...{ partMinor, handsMin: 1, handsMinor: 40, standMin: 0, standMinor: 0, collateralMinor: 0 },
  ...more,
})
const COSTS: RuleCosts = {
  planned: change(60),
  worn: change(60, { standMin: 5, standMinor: 450, collateralMinor: 50 }),
  chance: change(60, { standMin: 4, standMinor: 360 }),
  lookMin: 0.3,
  lookMinor: 12,
}
const NOTHING = change(0, { handsMin: 0, handsMinor: 0 })
const LIFE = { shape: 2.5, scale: 6, rate: 0.03 }

describe('what a rule costs', () => {
  it('without chance is the age replacement of the books', () => {
    const wear = { shape: 2.5, scale: 6, rate: 0 }
    const best = bestAge(wear, { cp: totalOf(COSTS.planned), cf: totalOf(COSTS.worn) })
    const ours = bestRule([wear], COSTS)
    expect((ours.T ?? 0) / (best.T ?? 1)).toBeCloseTo(1, 2)
    expect(ours.cost / best.cost).toBeCloseTo(1, 5)
    expect(ours.costRunToFailure / best.costRunToFailure).toBeCloseTo(1, 4)
  })
  it('an age that hardly a part reaches is said to be practically never', () => {
    const at = (shape: number) => bestAge({ shape, scale: 100 }, { cp: 1, cf: 5 })
    expect(at(2)).toMatchObject({ finite: true, isPracticallyNever: false })
    expect(at(1.2)).toMatchObject({ finite: true, isPracticallyNever: false })
    expect(at(1.02)).toMatchObject({ finite: true, isPracticallyNever: true })
    expect(at(1)).toMatchObject({ finite: false, T: null, reliabilityAtT: null, isPracticallyNever: true })
    expect(at(1.02).relativeSaving).toBeLessThan(1e-3)
  })
  it('agrees with parts changed one after the other', () => {
    const shop = { life: LIFE, guns: 400, perDay: 4, logShare: 1, lateShare: 0, notSaidShare: 0 }
    for (const at of [2, 4, null]) {
      const rule = at === null ? ({ kind: 'never' } as const) : ({ kind: 'age', at } as const)
      const money = replay(shop, COSTS, { rule, random: makeRandom(4) })
      expect(Math.abs(costOfAge(LIFE, COSTS, at).total / money - 1)).toBeLessThan(0.02)
    }
  })
  it('is the sum of what it is made of', () => {
    const c = costOfAge(LIFE, COSTS, 3)
    expect(c.partMinor + c.handsMinor + c.standMinor + c.collateralMinor + c.lookMinor).toBeCloseTo(c.total, 9)
    expect(c.partMinor).toBeCloseTo(60 * c.changes, 9)
  })
  it('never is cheapest where wear does not grow with age, or where it costs no more to be late', () => {
    expect(bestRule([{ ...LIFE, shape: 1 }], COSTS).T).toBeNull()
    expect(bestRule([LIFE], { ...COSTS, worn: COSTS.planned, chance: COSTS.planned }).T).toBeNull()
  })
  it('a small saving is advised where wear rises with age, and not where it hardly does: that rests on the form of the curve', () => {
    const advised = (shape: number) => {
      const life = { shape, scale: 6, rate: 0.01 }
      const made = compareSchools(life, [life], { costs: COSTS, fixed: null, lookEvery: null })
      return [made.advised, made.lines.find((l) => l.school === 'leastCost')?.saving.value ?? 0] as const
    }
    const [weak, strong] = [advised(1.25), advised(1.7)]
    expect(weak[1]).toBeGreaterThan(0.02)
    expect([weak[0], strong[0]]).toEqual(['runToFailure', 'leastCost'])
  })
  it('has a flat bottom about its least', () => {
    const { T, flat, cost } = bestRule([LIFE], COSTS)
    expect(flat?.[0]).toBeLessThan(T ?? 0)
    expect(flat?.[1]).toBeGreaterThan(T ?? 0)
    for (const end of flat ?? []) expect(costOfAge(LIFE, COSTS, end).total / cost).toBeLessThan(1.051)
  })
  it('on condition agrees with parts looked at one by one', () => {
    const random = makeRandom(6)
    const every = 1
    let [money, used] = [0, 0]
    for (let n = 0; n < 60_000; n++) {
      const wear = drawWeibull(random, LIFE.shape, LIFE.scale)
      const chance = -Math.log(1 - random()) / LIFE.rate
      const from = 0.75 * wear
      const look = from + random() * every
      const end = Math.min(wear, chance, look)
      used += end
      money += (end / every) * COSTS.lookMinor
      money += totalOf(end === chance ? COSTS.chance : end === wear ? COSTS.worn : COSTS.planned)
    }
    expect(Math.abs(costOnCondition(LIFE, COSTS, { every }).total / (money / used) - 1)).toBeLessThan(0.05)
  })
  it('misuse throws', () => {
    expect(() => costOfAge(LIFE, COSTS, 0)).toThrow('age > 0')
    expect(() => costOnCondition(LIFE, COSTS, { every: 0 })).toThrow('every > 0')
    expect(() => bestRule([], COSTS)).toThrow('one belief')
  })
})

describe('schools side by side', () => {
  const beliefs = [0.9, 1, 1.1].map((f) => ({ ...LIFE, scale: LIFE.scale * f }))
  it('name what each saves, and advise what surely saves something', () => {
    const schools = compareSchools(LIFE, beliefs, { costs: COSTS, fixed: 14, lookEvery: 2.5 })
    expect(schools.lines.map((l) => l.school)).toEqual(['runToFailure', 'fixed', 'onCondition', 'leastCost'])
    expect(schools.lines[0]?.saving.value).toBe(0)
    expect(schools.lines.at(-1)?.saving.value).toBeGreaterThan(0.3)
    expect(schools.advised).not.toBe('runToFailure')
  })
  it('save nothing, in numbers, where nothing costs anything yet', () => {
    const free: RuleCosts = { planned: NOTHING, worn: NOTHING, chance: NOTHING, lookMin: 0, lookMinor: 0 }
    const schools = compareSchools(LIFE, beliefs, { costs: free, standCv: 0.4, fixed: 14, lookEvery: 2.5 })
    for (const { saving, chanceBetter } of schools.lines)
      expect([saving.value, saving.low, saving.high, chanceBetter]).toEqual([0, 0, 0, 0])
    expect(schools.advised).toBe('runToFailure')
  })
  it('advise to leave it where nothing is to be had', () => {
    const flat = beliefs.map((b) => ({ ...b, shape: 1.02 }))
    expect(compareSchools({ ...LIFE, shape: 1.02 }, flat, { costs: COSTS, fixed: 3, lookEvery: null }).advised).toBe(
      'runToFailure',
    )
  })
})

describe('while it is open', () => {
  const liner: RuleCosts = {
    planned: change(3150, { handsMin: 22, handsMinor: 1400 }),
    worn: change(3150, { handsMin: 22, handsMinor: 1400, standMin: 34, standMinor: 3000 }),
    chance: change(3150),
    lookMin: 1,
    lookMinor: 60,
  }
  const linerLife = { shape: 2.4, scale: 100, rate: 0 }
  const lost = (life: typeof LIFE, costs: RuleCosts, age: number) => {
    const best = bestRule([life], costs)
    return valueLost(life, costs, { age, T: best.T, rate: best.cost })
  }
  it('a tip of half its life goes with a liner; a liner of a third does not go with a tip', () => {
    // The gun is open: only the part and the seconds of screwing it in.
    expect(lost(LIFE, COSTS, 2)).toBeGreaterThan(60 + 15)
    expect(lost(linerLife, liner, 25)).toBeLessThan(3150)
  })
  it('a new part has lost nothing, one that is due is worth its change', () => {
    expect(lost(LIFE, COSTS, 0)).toBeCloseTo(0, 0)
    expect(lost(LIFE, COSTS, 40)).toBe(totalOf(COSTS.planned))
  })
  it('what is ahead of an aged part is its residual life', () => {
    const wear = { shape: 2, scale: 100 }
    const ahead = aheadOf({ ...wear, rate: 0 }, 50, 20)
    expect(ahead.worn).toBeCloseTo(residual(wear, 50, 20).failProb, 8)
    expect(aheadOf({ ...wear, rate: 0 }, 50, null).used).toBeCloseTo(residual(wear, 50, 1).meanResidual, 3)
  })
})

it('the least of a dip is found', () => expect(lowest((x) => (x - 2) ** 2, [0, 10])).toBeCloseTo(2, 6))
