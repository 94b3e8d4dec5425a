import { describe, expect, it } from 'vitest'
import type { Said } from '../diagnose/session.ts'
import type { Alarm, KeptReading } from '../reading/alarms.ts'
import { LINER_CLAUSES, USUAL_TERMS, type LinerClause } from './clauses.ts'
import { firstSigns, signRecord, type LinerLife } from './record.ts'
import { evidenceOf, isNoEvidence, judgeLiner, NO_EVIDENCE, withStop, type StopTold } from './signs.ts'

const DAY = 86_400_000
const check = (key: string, outcome: string): Said => ({ type: 'check', key, outcome })
const stop = (atDay: number, said: Said[], over: Partial<StopTold> = {}): StopTold => ({
  ...{ atMs: atDay * DAY, said, cause: null, isCertain: false, closing: 'still' },
  ...over,
})
const pull = (atDay: number, value: number, method = 'pulls') => ({
  ...{ atMs: atDay * DAY, what: 'pull', method, value, grade: null },
})
const PASSED = [check('block', 'well'), check('spoolByHand', 'well')]
const creeping: Alarm = { what: 'tension', at: 'liner', is: 'creeps', sinceMs: 3 * DAY }
const known = (of: { stops?: StopTold[]; readings?: ReturnType<typeof pull>[]; kinksMs?: number[] }) =>
  evidenceOf({ stops: [], readings: [], kinksMs: [], ...of }, { fromMs: DAY })
const judge = (of: Parameters<typeof known>[0], more: Partial<Parameters<typeof judgeLiner>[1]> = {}) =>
  judgeLiner(known(of), { terms: USUAL_TERMS, alarms: [], usedFraction: null, ...more })
const clauses = (v: ReturnType<typeof judge>) => v.signs.map((s) => s.clause)

describe('what speaks of the liner that is in', () => {
  it('nothing from before it went on', () =>
    expect(isNoEvidence(known({ kinksMs: [DAY / 2], stops: [stop(0.5, [check('straighten', 'smooth')])] }))).toBe(true))
  it('a pull is held against its own beginning, by the same method', () => {
    expect(known({ readings: [pull(2, 0.2), pull(9, 0.33)] }).pull).toMatchObject({ baseline: 0.2, value: 0.33 })
    expect(known({ readings: [pull(2, 0.2, 'weights'), pull(9, 0.33)] }).pull).toBeNull()
    expect(known({ readings: [pull(9, 0.33)] }).pull).toBeNull()
  })
  it('fresh tips only where tension and hub were passed in the same stop', () => {
    const tips: Said[] = [{ type: 'fix', key: 'changed tip' }, check('tipSwap', 'well')]
    expect(known({ stops: [stop(3, tips)] }).tips).toBeNull()
    expect(known({ stops: [stop(3, [...tips, ...PASSED])] }).tips).toMatchObject({ n: 2 })
  })
  it('not a stop that was surely something else, and that brought it back', () => {
    const straight = [check('straighten', 'smooth')]
    const cable = { cause: 'cableCoiled', isCertain: true, closing: 'good' as const }
    expect(known({ stops: [stop(3, straight, cable)] }).straightMs).toBeNull()
    expect(known({ stops: [stop(3, straight, { ...cable, isCertain: false })] }).straightMs).toBe(3 * DAY)
    expect(known({ stops: [stop(3, straight, { ...cable, cause: 'linerWorn' })] }).straightMs).toBe(3 * DAY)
  })
  it('counts the stop that is being looked into', () => {
    const before = known({ stops: [stop(3, [check('tipSwap', 'well'), ...PASSED])] })
    const now = stop(9, [{ type: 'fix', key: 'changed tip' }, check('tipSwap', 'well'), ...PASSED])
    expect(withStop(before, now).tips).toMatchObject({ n: 2, atMs: 9 * DAY })
    expect(withStop(now.said.length > 0 ? before : NO_EVIDENCE, stop(9, [])).tips).toMatchObject({ n: 1 })
  })
})

describe('the rule by signs', () => {
  const TWO_TIPS: Said[] = [{ type: 'fix', key: 'changed tip' }, check('tipSwap', 'well'), ...PASSED]
  const holds: Record<LinerClause, (on: LinerClause[]) => ReturnType<typeof judge>> = {
    kink: (on) => judge({ kinksMs: [2 * DAY] }, { terms: { ...USUAL_TERMS, on } }),
    pull: (on) => judge({ readings: [pull(2, 0.2), pull(9, 0.32)] }, { terms: { ...USUAL_TERMS, on } }),
    tips: (on) => judge({ stops: [stop(3, TWO_TIPS)] }, { terms: { ...USUAL_TERMS, on } }),
    straighten: (on) => judge({ stops: [stop(3, [check('straighten', 'smooth')])] }, { terms: { ...USUAL_TERMS, on } }),
    tension: (on) => judge({}, { alarms: [creeping], terms: { ...USUAL_TERMS, on } }),
    length: (on) =>
      judge({ stops: [stop(3, [check('inletDust', 'dust')])] }, { usedFraction: 1.1, terms: { ...USUAL_TERMS, on } }),
  }
  it.each(LINER_CLAUSES)('%s alone is enough, and says nothing once it is switched off', (clause) => {
    expect(clauses(holds[clause]([clause]))).toEqual([clause])
    expect(holds[clause](LINER_CLAUSES.filter((c) => c !== clause && c !== 'length')).say).not.toBe('change')
  })
  it('its length alone asks for a look, and before that for nothing', () => {
    expect(judge({}, { usedFraction: 1.4 })).toMatchObject({ say: 'look', isLengthUsed: true })
    expect(judge({}, { usedFraction: 0.9 }).say).toBe('nothing')
  })
  it('half of the way to the ratio is a weak sign: it counts once the length is used', () => {
    const half = { readings: [pull(2, 0.2), pull(9, 0.26)] }
    expect(judge(half)).toMatchObject({ say: 'nothing', weak: ['pull'] })
    expect(clauses(judge(half, { usedFraction: 1 }))).toEqual(['length'])
  })
  it('goes by the shop’s own ratio and number of tips', () => {
    const readings = [pull(2, 0.2), pull(9, 0.32)]
    expect(judge({ readings }, { terms: { ...USUAL_TERMS, pullRatio: 1.7 } }).say).toBe('nothing')
    const stops = [stop(3, [check('tipSwap', 'well'), ...PASSED])]
    expect(judge({ stops }).say).toBe('nothing')
    expect(clauses(judge({ stops }, { terms: { ...USUAL_TERMS, tips: 1 } }))).toEqual(['tips'])
  })
  it('misuse throws', () =>
    expect(() => judge({}, { terms: { ...USUAL_TERMS, pullRatio: 1 } })).toThrow('judgeLiner: expected a ratio > 1'))
})

describe('what signs would have seen of the liners that ended', () => {
  const reading = (atDay: number, value: number): KeptReading => ({
    ...pull(atDay, value),
    ...{ what: 'pull', how: 'measured', left: null, is: 'good', headId: null, wireId: null, limit: null, kg: null },
  })
  const life = (over: Partial<LinerLife>): LinerLife => ({
    ...{ fromMs: 0, toMs: 100 * DAY, usedFraction: null, isWorn: true, wasFine: false },
    ...{ stops: [], kinksMs: [], readings: [] },
    ...over,
  })
  it('in time is half a day before its end; a sign at the end is no warning', () => {
    const late = life({ stops: [stop(99.9, [check('straighten', 'smooth')])] })
    const early = life({ stops: [stop(80, [check('straighten', 'smooth')])] })
    expect(signRecord([late, early, life({})], USUAL_TERMS)).toMatchObject({ worn: 1, ahead: 1, unlooked: 2, fine: 0 })
    expect(signRecord([early], USUAL_TERMS).leftShare).toBeCloseTo(0.2, 9)
  })
  it('counts a clause only where it could have spoken: two pulls of one method, three readings of the knob', () => {
    const once = life({ readings: [reading(10, 0.2)] })
    const twice = life({ readings: [reading(10, 0.2), reading(40, 0.2)] })
    expect(signRecord([once, twice], USUAL_TERMS)).toMatchObject({
      ...{ worn: 1, unlooked: 1 },
      byClause: { pull: { of: 1, ahead: 0 }, tension: { of: 0 }, straighten: { of: 0 } },
    })
  })
  it('each moment knows only what was known then', () => {
    const one = life({ readings: [reading(1, 0.2), reading(40, 0.25), reading(70, 0.31), reading(90, 0.5)] })
    const signs = firstSigns(one, USUAL_TERMS).filter((s) => s.clause === 'pull')
    expect(signs).toEqual([{ clause: 'pull', atMs: 70 * DAY }])
  })
  it('one found without fault counts against its sign, and a clause that is off counts nothing', () => {
    const fine = life({ isWorn: false, wasFine: true, kinksMs: [20 * DAY] })
    expect(signRecord([fine], USUAL_TERMS)).toMatchObject({ fine: 1, worn: 0, byClause: { kink: { fine: 1 } } })
    expect(signRecord([fine], { ...USUAL_TERMS, on: ['pull'] }).fine).toBe(0)
  })
})
