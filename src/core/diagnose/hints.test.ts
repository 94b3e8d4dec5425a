import { type Position } from '@core/path/columns.ts'
import { describe, expect, it } from 'vitest'
import { chancesOf, indexOf } from './belief.ts'
import { areOthersTold, hintsOf, wearFactor, type GunState } from './hints.ts'
import { ownShares } from './learn.ts'
import { reckon } from './session.ts'
import { SHIPPED } from './shipped/knowledge.ts'
import { RULES, type RuleKey } from '@core/rightparts/finding.ts'
import { causeOfFinding, READ_IS, UNDONE } from './found.ts'
import { makeSchedule } from '@core/clock/schedule.ts'
import { recentFrom, TOUCHED, TOUCHED_MEANS, touchedOf, type Touched } from './touched.ts'

const k = indexOf(SHIPPED)
const plain: GunState = {
  isCell: false,
  kinds: [],
  wear: [],
  found: [],
  undone: [],
  isCored: null,
  alarms: [],
  tags: [],
  touched: null,
  others: { gas: 0, sameWire: 0, power: 0 },
}
const first = (symptom: string, over: Partial<GunState>) =>
  chancesOf(reckon(k, { symptom, said: [] }, { hints: hintsOf({ ...plain, ...over }, SHIPPED) }).belief)[0]?.cause.key

describe('what the gun’s own state says', () => {
  it('what was touched last comes first', () => {
    const loaded = new Set(TOUCHED_MEANS.spool.flatMap(([, causes]) => causes))
    const { belief } = reckon(
      k,
      { symptom: 'nest', said: [] },
      { hints: hintsOf({ ...plain, touched: 'spool' }, SHIPPED) },
    )
    const share = chancesOf(belief).reduce((sum, c) => (loaded.has(c.cause.key) ? sum + c.chance : sum), 0)
    const usual = chancesOf(reckon(k, { symptom: 'nest', said: [] }).belief)
    const before = usual.reduce((sum, c) => (loaded.has(c.cause.key) ? sum + c.chance : sum), 0)
    expect(share).toBeGreaterThan(2 * before)
    expect(first('jerk', { touched: 'liner' })).not.toBe('linerWorn')
    expect(first('porosity', { touched: 'gun' })).toBe('gunOut')
  })
  it('a brake tied tight, a reading that asks, a part that does not fit', () => {
    expect(first('burnback', { tags: ['brakeTight'] })).toBe('hubTight')
    expect(first('burnback', { alarms: ['bore'], wear: [{ kindKey: 'tip', share: 1.3 }] })).toBe('tipWorn')
    expect(first('slips', { found: [{ rule: 'rollTurned', at: 'rolls', severity: 'stops' }] })).toBe('rollWrong')
    expect(first('porosity', { others: { gas: 3, sameWire: 0, power: 0 } })).toBe('supply')
  })
  it('what is not on this gun cannot be it, and robots’ troubles are robots’', () => {
    const keys = (over: Partial<GunState>) =>
      chancesOf(
        reckon(k, { symptom: 'porosity', said: [] }, { hints: hintsOf({ ...plain, ...over }, SHIPPED) }).belief,
      ).map((c) => c.cause.key)
    expect(keys({ kinds: ['tip', 'nozzle', 'liner'] })).not.toContain('insulatorLoose')
    expect(keys({})).not.toContain('reamer')
    expect(keys({ isCell: true })).toContain('reamer')
  })
  it('wear speaks by the share of a usual life: never down to nothing, never without end', () => {
    const at = [0, 0.2, 0.5, 1, 2, 9].map((share) => wearFactor(share))
    at.slice(1).forEach((f, i) => expect(f).toBeGreaterThanOrEqual(at[i] ?? 0))
    expect([at[0], at.at(-1)]).toEqual([0.3, 4])
    expect(() => wearFactor(-1)).toThrow(RangeError)
  })
  it('every finding, every reading past its limit and everything left undone is a cause there is', () => {
    const known = new Set(SHIPPED.causes.map((c) => c.key))
    const found = Object.keys(RULES).map((rule) => causeOfFinding({ rule: rule as RuleKey, at: 'tip' }))
    const undone = Object.values(UNDONE).flatMap((speaks) => speaks?.[1] ?? [])
    for (const cause of [...found, ...Object.values(READ_IS), ...undone])
      if (cause !== null) expect(known, cause).toContain(cause)
    // A fit that is only heard or claimed is nothing found on the gun.
    expect(Object.keys(RULES).filter((rule) => causeOfFinding({ rule: rule as RuleKey, at: 'tip' }) === null)).toEqual([
      'fitRumour',
      'fitClaimed',
    ])
  })
  it('a finding that was left so is none, and one worth a note says nothing', () => {
    const of = (severity: 'stops' | 'note') =>
      hintsOf({ ...plain, found: [{ rule: 'unwind', at: 'hub', severity }] }, SHIPPED).filter((h) => h.isKnown)
    expect(of('stops').map((h) => h.cause)).toEqual(['spoolReversed'])
    expect(of('note')).toEqual([])
  })
  it('pressure raised to keep going speaks for what holds the wire, and against low tension; lowered, for it', () => {
    const low = (touched: Touched) => {
      const { belief } = reckon(k, { symptom: 'slips', said: [] }, { hints: hintsOf({ ...plain, touched }, SHIPPED) })
      return chancesOf(belief).find((c) => c.cause.key === 'tensionLow')?.chance ?? 0
    }
    expect(low('pressureUp')).toBeLessThan(low('nothing'))
    expect(low('pressureDown')).toBeGreaterThan(low('nothing'))
  })
  it('cored wire is crushed, solid wire is not', () => {
    const crushed = (isCored: boolean | null) => {
      const { belief } = reckon(k, { symptom: 'nest', said: [] }, { hints: hintsOf({ ...plain, isCored }, SHIPPED) })
      return chancesOf(belief).find((c) => c.cause.key === 'coredCrushed')?.chance ?? 0
    }
    expect(crushed(false)).toBe(0)
    expect(crushed(true)).toBeGreaterThan(3 * crushed(null))
  })
  it('others that stopped of another thing leave the question open', () => {
    const causesOf = (symptom: string) => SHIPPED.symptoms.find((s) => s.key === symptom)?.causes ?? []
    const gas = { gas: 2, power: 0, sameWire: 0 }
    expect(areOthersTold(gas, causesOf('porosity'))).toBe(true)
    expect(areOthersTold(gas, causesOf('nothing'))).toBe(false)
    expect(areOthersTold({ ...gas, power: 1 }, causesOf('nothing'))).toBe(true)
  })
  it('where nothing was touched, what only a hand brings about is less likely, and what wears more', () => {
    const chance = (symptom: string, touched: Touched, cause: string) => {
      const { belief } = reckon(k, { symptom, said: [] }, { hints: hintsOf({ ...plain, touched }, SHIPPED) })
      return chancesOf(belief).find((c) => c.cause.key === cause)?.chance ?? 0
    }
    for (const [symptom, byHand, worn] of [
      ['burnback', 'tipWrong', 'tipWorn'],
      ['jerk', 'linerWrong', 'linerWorn'],
      ['spatters', 'polarity', 'tipWorn'],
    ] as const) {
      const [not, said] = [chance(symptom, 'unknown', byHand), chance(symptom, 'nothing', byHand)]
      expect(said, symptom).toBeLessThan(0.6 * not)
      expect(said, symptom).toBeGreaterThan(0)
      expect(chance(symptom, 'nothing', worn), symptom).toBeGreaterThan(chance(symptom, 'unknown', worn))
    }
  })
  it('everything a touch names is a cause there is', () => {
    const known = new Set(SHIPPED.causes.map((c) => c.key))
    for (const t of TOUCHED)
      for (const [, causes] of TOUCHED_MEANS[t]) for (const c of causes) expect(known, `${t}: ${c}`).toContain(c)
  })
})

describe('what was touched last, by the log', () => {
  const HOUR = 3_600_000
  const at = { nowMs: 100 * HOUR, stopMs: 99 * HOUR }
  const act = (kind: string, position: Position | null, hour: number) => ({ kind, position, happenedMs: hour * HOUR })
  it('is the newest change before it stopped; what was done in the search is not it', () => {
    expect(touchedOf([act('fitted', 'tip', 95), act('wireLoaded', null, 97)], at)).toBe('spool')
    expect(touchedOf([act('fitted', 'tip', 99.5), act('fitted', 'nozzle', 98)], at)).toBe('front')
    expect(touchedOf([act('cleaned', 'nozzle', 98)], at)).toBeNull()
    expect(touchedOf([act('fitted', 'liner', 50)], at)).toBeNull()
    // A tip after a change of wire is part of that change.
    expect(touchedOf([act('changedOver', null, 96), act('fitted', 'tip', 97)], at)).toBe('size')
    // By work and not by the clock: Friday's change is the last one on Monday morning.
    const days = [0, 1, 2, 3, 4, 7, 8].map((d) => ({ fromMs: (24 * d + 6) * HOUR, toMs: (24 * d + 14) * HOUR }))
    const monday = (24 * 7 + 7) * HOUR
    const from = recentFrom(makeSchedule(days), monday)
    const friday = [{ kind: 'changedOver', position: null, happenedMs: (24 * 4 + 12) * HOUR }]
    expect(touchedOf(friday, { nowMs: monday, stopMs: monday, fromMs: from })).toBe('size')
    expect(touchedOf(friday, { nowMs: monday, stopMs: monday })).toBeNull()
    const thursday = [{ kind: 'changedOver', position: null, happenedMs: (24 * 3 + 12) * HOUR }]
    expect(touchedOf(thursday, { nowMs: monday, stopMs: monday, fromMs: from })).toBeNull()
    expect(recentFrom(null, monday)).toBe(monday - 16 * HOUR)
    // A fresh tip put on to try, where nobody declared a stop.
    expect(touchedOf([{ ...act('fitted', 'tip', 99), isTry: true }], { ...at, stopMs: null })).toBeNull()
  })
})

describe('the shop’s own stops', () => {
  const symptom = { causes: ['a', 'b', 'c'] }
  it('by hand: thirty of the trade and twelve of its own', () => {
    const { shares, own } = ownShares(symptom, new Map([['b', 12]]))
    expect(own).toBe(12)
    expect(shares.get('b')).toBeCloseTo((30 * (2 / 7) + 12) / 42, 12)
    expect([...shares.values()].reduce((x, y) => x + y, 0)).toBeCloseTo(1, 12)
  })
  it('none: as the trade has it; a cause nobody listed joins', () => {
    expect([...ownShares(symptom, new Map()).shares.values()]).toEqual([4 / 7, 2 / 7, 1 / 7])
    expect(ownShares(symptom, new Map([['z', 3]])).shares.get('z')).toBeCloseTo(3 / 33, 12)
  })
  it('many of its own take over', () => {
    const { shares } = ownShares(symptom, new Map([['c', 300]]))
    expect(shares.get('c')).toBeGreaterThan(0.9)
  })
})
