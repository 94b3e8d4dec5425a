import { describe, expect, it } from 'vitest'
import { indexOf, believe, chancesOf, showsChance } from './belief.ts'
import { cleanOrChange } from './cleanorchange.ts'
import { minutesOf, type Cause } from './knowledge.ts'
import { fixKey } from './moves.ts'
import { ownShares } from './learn.ts'
import { planned } from './plan.ts'
import { ratioMinutes } from './ratio.ts'
import { withSchool } from './schoolfirst.ts'
import { reckon, type Said } from './session.ts'
import { SHIPPED } from './shipped/knowledge.ts'
import { swapWorth } from './swap.ts'
import { tellingSigns } from './tellingsigns.ts'

const k = indexOf(SHIPPED)
const at = (symptom: string, said: readonly Said[] = []) => reckon(k, { symptom, said })
const causeOf = (key: string) => {
  const cause = k.causes.find((c) => c.key === key)
  if (!cause) throw new Error(`no cause ${key}`)
  return cause
}
const firstKey = (plan: ReturnType<typeof planned>) => {
  const step = plan[0]?.step
  return step?.kind === 'check' ? step.check.key : step?.group.key
}

describe('the shop’s own first look', () => {
  it('is none where it goes by the sign', () => {
    const jerk = at('jerk')
    expect(withSchool(planned(jerk), jerk, 'bySign')).toEqual({ plan: planned(jerk), cost: 0 })
  })
  it('goes before the order by sign, once, and says what it costs', () => {
    for (const school of ['tip', 'clean', 'liner', 'seat']) {
      const nest = at('nest')
      const { plan, cost } = withSchool(planned(nest), nest, school)
      const [first] = plan
      expect(first?.step.kind).toBe('check')
      expect(cost).toBeGreaterThanOrEqual(0)
      if (first?.step.kind !== 'check') continue
      const { check } = first.step
      const well = check.outcomes.at(-1)?.key ?? ''
      const after = at('nest', [{ type: 'check', key: check.key, outcome: well }])
      expect(withSchool(planned(after), after, school).cost, school).toBe(0)
    }
  })
  it('leaves a trouble alone that its place has no part in', () => {
    const nothing = at('nothing')
    expect(firstKey(withSchool(planned(nothing), nothing, 'liner').plan)).toBe(firstKey(planned(nothing)))
  })
  it('never leaves a step out', () => {
    const nest = at('nest')
    const keys = (plan: ReturnType<typeof planned>) =>
      new Set(plan.map((p) => (p.step.kind === 'check' ? p.step.check.key : p.step.group.key)))
    const own = keys(withSchool(planned(nest), nest, 'liner').plan)
    for (const key of keys(planned(nest))) expect(own.has(key)).toBe(true)
  })
})

describe('what else could be seen', () => {
  it('are up to three other signs, none asked already, that tell apart what is left', () => {
    const long = at('longArc')
    const signs = tellingSigns(long.belief, { isCell: false })
    expect(signs.length).toBeGreaterThan(0)
    expect(signs.length).toBeLessThanOrEqual(3)
    expect(signs.some((s) => s.key === 'longArc')).toBe(false)
    const again = tellingSigns(long.belief, { asked: new Set(signs.map((s) => s.key)), isCell: false })
    expect(again.some((s) => signs.includes(s))).toBe(false)
  })
  it('are those whose answer takes off most bits of what to do, by Bayes’ rule itself', () => {
    const { belief } = at('longArc')
    const bitsOf = ({ sets, weights }: typeof belief) => {
      const byFix = new Map<string, number>()
      sets.forEach((set, h) => {
        const key = [...new Set(set.map((i) => fixKey(k.causes[i] as Cause)))].sort().join()
        byFix.set(key, (byFix.get(key) ?? 0) + (weights[h] ?? 0))
      })
      return [...byFix.values()].reduce((sum, w) => (w > 0 ? sum - w * Math.log2(w) : sum), 0)
    }
    const gains = SHIPPED.symptoms
      .filter((s) => s.key !== 'longArc' && s.only !== 'cell')
      .map((s) => {
        const listed = new Set(s.causes.map((c) => k.causeAt.get(c)))
        const chance = belief.sets.reduce((sum, set, h) => sum + (belief.weights[h] ?? 0) * showsChance(set, listed), 0)
        const after = (isThere: boolean) => bitsOf(believe(belief, { type: 'symptom', key: s.key, isThere }))
        return { key: s.key, gain: bitsOf(belief) - chance * after(true) - (1 - chance) * after(false) }
      })
    const best = [...gains].sort((a, b) => b.gain - a.gain)[0]
    expect(tellingSigns(belief, { isCell: false })[0]?.key).toBe(best?.key)
  })
  it('move the weight to what both lists name, and lose none', () => {
    const long = at('longArc').belief
    const both = believe(long, { type: 'symptom', key: 'jerk', isThere: true })
    const chance = (belief: typeof long, key: string) => chancesOf(belief).find((c) => c.cause.key === key)?.chance ?? 0
    expect(chance(both, 'linerWorn')).toBeGreaterThan(chance(long, 'linerWorn'))
    expect(chance(both, 'hand')).toBeLessThan(chance(long, 'hand'))
    expect(both.weights.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 12)
  })
  it('of a settled matter are none', () => {
    const sure = at('nothing', [{ type: 'check', key: 'plugLook', outcome: 'off' }])
    const [first] = chancesOf(sure.belief)
    if ((first?.chance ?? 0) > 0.97) expect(tellingSigns(sure.belief, { isCell: false })).toEqual([])
  })
})

describe('clean or change', () => {
  const worn = causeOf('tipWorn')
  const of = (over = {}) =>
    cleanOrChange(at('jerk').belief, {
      cause: worn,
      isSeen: false,
      onHand: 40,
      priceMin: 0.5,
      school: 'byBore',
      ...over,
    })
  it('cleans first with none on the shelf, whatever the school', () => {
    expect(of({ onHand: 0, school: 'change' })).toMatchObject({ first: 'clean', because: 'none' })
  })
  it('follows the shop’s school', () => {
    expect(of({ school: 'change' })).toMatchObject({ first: 'change', because: 'rule' })
    expect(of({ school: 'clean' })).toMatchObject({ first: 'clean', because: 'rule' })
  })
  it('else weighs minutes and price: the dearer the part, the sooner it is cleaned', () => {
    const cheap = of({ priceMin: 0 })
    const dear = of({ priceMin: 500 })
    expect(dear?.first).toBe('clean')
    const cost = (c: NonNullable<typeof cheap>) => c.cleanMin + (1 - c.cleanShare) * (c.changeMin + (c.priceMin ?? 0))
    for (const told of [cheap, dear])
      if (told) expect(told.first === 'clean').toBe(cost(told) < told.changeMin + (told.priceMin ?? 0))
  })
  it('changes a bore that was seen worn', () => {
    expect(of({ isSeen: true, priceMin: 500 })).toMatchObject({ first: 'change', because: 'seen' })
  })
  it('is no question where no cleaning mends, or nothing is changed', () => {
    const of = (key: string) =>
      cleanOrChange(at('jerk').belief, { cause: causeOf(key), isSeen: false, onHand: 1, priceMin: 1, school: 'byBore' })
    expect(of('linerWorn')).toBeNull()
    expect(of('cableCoiled')).toBeNull()
  })
})

describe('another gun', () => {
  const perHour = (stopMinorPerHour: number, labourMinorPerHour: number) => ({ stopMinorPerHour, labourMinorPerHour })
  it('pays where what is left stands longer than the swap and its two hands', () => {
    expect(swapWorth(6, perHour(6000, 3000))).toBe(12)
    expect(swapWorth(6, perHour(6000, 0))).toBe(6)
  })
  it('pays later where standing is cheap, and by a guess where nobody said', () => {
    expect(swapWorth(6, perHour(1000, 4000))).toBeGreaterThan(swapWorth(6, perHour(9000, 4000)))
    expect(swapWorth(6, perHour(0, 0))).toBe(12)
  })
  it('of a negative time is misuse', () =>
    expect(() => swapWorth(-1, perHour(1, 1))).toThrow('swapWorth: expected minutes >= 0'))
})

describe('a cause that is all but sure', () => {
  const shares = ownShares(
    { causes: k.symptoms.find((s) => s.key === 'stumbles')?.causes ?? [] },
    new Map([['workClamp', 60]]),
  ).shares
  it('is looked at, not put off for looks that cost less', () => {
    const sure = reckon(k, { symptom: 'stumbles', said: [] }, { shares })
    expect(firstKey(planned(sure))).toBe('clamp')
  })
  it('once seen takes its fix, a closing look, and little more', () => {
    const seen = reckon(k, { symptom: 'stumbles', said: [{ type: 'check', key: 'clamp', outcome: 'bad' }] }, { shares })
    const fixMin = 2
    expect(ratioMinutes({ ...seen, supposed: { sign: 'look', causes: [] } })).toBeLessThan(fixMin + 1)
  })
  it('every look has its minutes', () => expect(k.checks.every((c) => minutesOf(c) > 0)).toBe(true))
})
