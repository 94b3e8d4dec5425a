import { describe, expect, it } from 'vitest'
import { indexOf } from './belief.ts'
import { withLinerSchool, type LinerRuling } from './linerschool.ts'
import { minutesOf } from './knowledge.ts'
import { planned } from './plan.ts'
import { reckon, type Said } from './session.ts'
import { SHIPPED } from './shipped/knowledge.ts'

const k = indexOf(SHIPPED)
const RULE: LinerRuling = { school: 'signs', isSigned: false, tipsTried: 0, tipsFirst: 2 }
const check = (key: string, outcome: string): Said => ({ type: 'check', key, outcome })
const under = (symptom: string, said: Said[], rule: Partial<LinerRuling>) => {
  const at = reckon(k, { symptom, said })
  const plan = planned(at)
  const made = withLinerSchool(plan, at, { ...RULE, ...rule })
  const nameOf = (p: (typeof plan)[number] | undefined) =>
    p ? (p.step.kind === 'check' ? p.step.check.key : p.step.group.key) : null
  return { before: nameOf(plan[0]), first: nameOf(made.plan[0]), ...made, names: made.plan.map(nameOf) }
}
const symptom = 'jerk'
/** Everything points at the liner: by sign it is what comes next. */
const AT_LINER = [
  check('straighten', 'smooth'),
  check('pull', 'hard'),
  ...SHIPPED.checks
    .filter((c) => minutesOf(c) <= 1 && c.key !== 'straighten')
    .map((c): Said => check(c.key, c.outcomes.at(-1)?.key ?? '')),
]

describe('the shop’s rule for liners in a search', () => {
  /** The quick looks are had, and nothing of them told. */
  const LOOKED = SHIPPED.checks.filter((c) => minutesOf(c) < 3).map((c): Said => ({ type: 'cantTell', key: c.key }))
  it('a sign that holds puts the change first once the quick looks are had, with what that costs', () => {
    const { before, first, did, cost, names } = under(symptom, LOOKED, { isSigned: true })
    expect(before).not.toBe('changed liner')
    expect([first, did]).toEqual(['changed liner', 'changeNow'])
    expect(cost).toBeGreaterThan(0)
    expect(names.filter((n) => n === 'changed liner')).toHaveLength(1)
  })
  it('a look of under a minute goes before it', () => {
    const { before, first, did, cost } = under(symptom, [], { isSigned: true })
    expect([first, did, cost]).toEqual([before, 'looksFirst', 0])
  })
  it('of a stop that is hardly the liner it says nothing but that it is due', () => {
    for (const other of ['burnback', 'stumbles', 'longArc']) {
      const { before, first, did, cost } = under(other, [], { isSigned: true })
      expect([first, did, cost], other).toEqual([before, 'apart', 0])
    }
  })
  it('what the symptom wants first comes first all the same, under every rule', () => {
    const wanting = SHIPPED.symptoms.filter((s) => s.first)
    expect(wanting.length).toBeGreaterThan(3)
    for (const s of wanting)
      for (const rule of [{ isSigned: true }, { school: 'afterTips' }, { school: 'last' }])
        expect(under(s.key, [], rule).first, s.key).toBe(s.first)
  })
  it('not again once it was changed and the trouble stayed', () => {
    const { did, first, before } = under(symptom, [{ type: 'fix', key: 'changed liner' }], { isSigned: true })
    expect(did).toBeNull()
    expect(first).toBe(before)
  })
  it('where the symptom cannot be the liner, it stays as it is', () => {
    const gas = SHIPPED.symptoms.find((s) => !s.causes.some((c) => c.startsWith('liner')))?.key ?? ''
    expect(under(gas, [], { isSigned: true })).toMatchObject({ did: null, cost: 0 })
  })
  it('without a sign, and by use, the order is the order', () => {
    for (const rule of [{}, { school: 'byUse' }, { school: 'byUse', isSigned: true }])
      expect(under(symptom, [], rule)).toMatchObject({ did: null, cost: 0 })
  })
  it('last of all: it goes behind everything else that is left', () => {
    const { before, names, did } = under(symptom, AT_LINER, { school: 'last' })
    expect([before, did]).toEqual(['changed liner', 'liner last'])
    expect(names.at(-1)).toBe('changed liner')
  })
  it('after tips: the next fresh tip stands in front until so many changed nothing', () => {
    const { before, first, did } = under(symptom, AT_LINER, { school: 'afterTips', tipsTried: 1 })
    expect(before).toBe('changed liner')
    expect([first, did]).toEqual(['tipSwap', 'tipsFirst'])
    expect(under(symptom, AT_LINER, { school: 'afterTips', tipsTried: 2 }).first).toBe('changed liner')
  })
})
