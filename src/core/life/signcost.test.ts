import { describe, expect, it } from 'vitest'
import { drawWeibull, makeRandom } from '@core/random/random.ts'
import { compareSchools } from './chooserule.ts'
import { costOfAge, costOnSigns, totalOf, type OneChange, type RuleCosts } from './rulecost.ts'
import { signsSeen } from './signsseen.ts'

const change = (partMinor: number, more: Partial<OneChange> = {}): OneChange => ({
  ...{ partMinor, handsMin: 15, handsMinor: 900, standMin: 0, standMinor: 0, collateralMinor: 0 },
  ...more,
})
const COSTS: RuleCosts = {
  planned: change(3000),
  worn: change(3000, { standMin: 40, standMinor: 4000, collateralMinor: 500 }),
  chance: change(3000, { standMin: 30, standMinor: 3000 }),
  lookMin: 0.5,
  lookMinor: 30,
}
const LIFE = { shape: 1.8, scale: 700, rate: 0.0003 }

describe('a rule by signs in money', () => {
  it('agrees with liners changed one by one', () => {
    const signs = { chance: 0.65, atShare: 0.8, falseRate: 0.0002, readMin: 0.02 }
    const random = makeRandom(8)
    let [money, used] = [0, 0]
    for (let n = 0; n < 80_000; n++) {
      const wear = drawWeibull(random, LIFE.shape, LIFE.scale)
      const isSeen = random() < signs.chance
      const byChance = -Math.log(1 - random()) / LIFE.rate
      const falsely = -Math.log(1 - random()) / signs.falseRate
      const own = isSeen ? signs.atShare * wear : wear
      const end = Math.min(own, byChance, falsely)
      used += end
      money += end * signs.readMin * (COSTS.lookMinor / COSTS.lookMin)
      money += totalOf(end === byChance ? COSTS.chance : end === falsely || isSeen ? COSTS.planned : COSTS.worn)
    }
    expect(Math.abs(costOnSigns(LIFE, COSTS, signs).total / (money / used) - 1)).toBeLessThan(0.02)
  })
  it('signs that never come are running to failure; that always come at the end cost no more than being planned', () => {
    const never = costOnSigns(LIFE, COSTS, { chance: 0, atShare: 0.8, falseRate: 0, readMin: 0 })
    expect(never.total / costOfAge(LIFE, COSTS, null).total).toBeCloseTo(1, 2)
    const always = costOnSigns({ ...LIFE, rate: 0 }, COSTS, { chance: 1, atShare: 1, falseRate: 0, readMin: 0 })
    const planned = costOfAge({ ...LIFE, rate: 0 }, { ...COSTS, worn: COSTS.planned }, null)
    expect(always.total / planned.total).toBeCloseTo(1, 2)
    expect(always.worn).toBe(0)
  })
  it('misuse throws', () =>
    expect(() => costOnSigns(LIFE, COSTS, { chance: 1.2, atShare: 0.5, falseRate: 0, readMin: 0 })).toThrow(
      'costOnSigns',
    ))
})

describe('what the record says of signs', () => {
  const none = { worn: 0, ahead: 0, leftShare: null, fine: 0 }
  it('before any record it is a guess, as wide as one', () => {
    const { seen, drawn, isGuess } = signsSeen(none, { used: 100, draws: 200, readMin: 0 })
    expect(seen.chance).toBe(0.5)
    expect(isGuess).toBe(true)
    const sorted = drawn.map((d) => d.chance).sort((a, b) => a - b)
    expect(sorted[10]).toBeLessThan(0.25)
    expect(sorted[190]).toBeGreaterThan(0.75)
  })
  it('its own record takes over, and what was found without fault costs changes', () => {
    const { seen, isGuess } = signsSeen(
      { worn: 40, ahead: 32, leftShare: 0.1, fine: 3 },
      { used: 20_000, draws: 2, readMin: 0 },
    )
    expect(seen.chance).toBeCloseTo(34 / 44, 9)
    expect(seen.atShare).toBeCloseTo(0.9, 9)
    expect(seen.falseRate).toBeCloseTo(3 / 20_000, 12)
    expect(isGuess).toBe(false)
    expect(() => signsSeen(none, { used: 0, draws: 1, readMin: 0 })).toThrow('signsSeen')
  })
  it('beside the other schools it is advised only once the shop’s own liners speak for it', () => {
    const lives = Array.from({ length: 40 }, (_, i) => ({ ...LIFE, scale: 650 + 3 * i, shape: 1.1 }))
    const at = { costs: COSTS, fixed: null, lookEvery: null }
    const record = { worn: 40, ahead: 38, leftShare: 0.05, fine: 0 }
    const sure = signsSeen(record, { used: 20_000, draws: 40, readMin: 0 })
    expect(compareSchools({ ...LIFE, shape: 1.1 }, lives, { ...at, signs: sure }).advised).toBe('signs')
    const guessed = compareSchools({ ...LIFE, shape: 1.1 }, lives, { ...at, signs: { ...sure, isGuess: true } })
    expect(guessed.advised).not.toBe('signs')
    expect(guessed.lines.map((l) => l.school)).toContain('signs')
  })
})
