import { describe, expect, it } from 'vitest'
import { READING } from '@core/reading/specs.ts'
import { KIND_DEFAULTS } from '@core/path/kinds.ts'
import { actFor, chanceBad, isLookDue, isLookedAt, lookMethod, LOOK_KEYS, LOOKS, WALKS } from './looks.ts'

const NONE = { bad: 0, of: 0 }

describe('what is looked at on a walk', () => {
  it.each(LOOK_KEYS)('%s can be told apart by eye, one of its grades is good', (key) => {
    const { grades } = lookMethod(key)
    expect(grades.length).toBeGreaterThanOrEqual(2)
    expect(grades.map((g) => g.is)).toContain('good')
    expect(READING[key].at.length).toBeGreaterThan(0)
    const kind = KIND_DEFAULTS.find((k) => k.key === LOOKS[key].at)
    if (LOOKS[key].fix) expect(kind?.key).toBe(LOOKS[key].at)
  })
  it('every walk looks at things that there are, each once', () => {
    for (const { looks } of Object.values(WALKS)) {
      expect(new Set(looks).size).toBe(looks.length)
      for (const key of looks) expect(LOOK_KEYS).toContain(key)
    }
  })
})

describe('the chance that it is bad', () => {
  it('grows with how long nobody looked, and is nought just after', () => {
    const at = (ageDays: number | null) => chanceBad('bore', { ageDays, found: NONE })
    expect(at(0)).toBeCloseTo(0, 12)
    expect(at(1)).toBeCloseTo(0.08, 9)
    expect(at(5)).toBeGreaterThan(at(1))
    expect(at(null)).toBeGreaterThan(at(1))
    expect(at(100)).toBeLessThan(1)
  })
  it('goes by the shop’s own looks as they come: a hundred of them outweigh the guess', () => {
    const at = (bad: number, of: number) => chanceBad('bore', { ageDays: 1, found: { bad, of } })
    expect(at(0, 100)).toBeLessThan(0.01)
    expect(at(40, 100)).toBeCloseTo(0.37, 2)
  })
  it('is due at three quarters of its interval', () => {
    expect([0.5, 0.8].map((d) => isLookDue('bore', d))).toEqual([false, true])
    expect(isLookDue('orings', null)).toBe(true)
  })
  it('more bad than looked at is misuse', () =>
    expect(() => chanceBad('bore', { ageDays: 1, found: { bad: 3, of: 2 } })).toThrow(RangeError))
  it('what puts a find right is that find’s own: a shut nozzle is cleaned, a broken one changed, a loose one neither', () =>
    expect(['half', 'rim', 'slack'].map((grade) => actFor('nozzleOpen', grade))).toEqual(['cleaned', 'changed', null]))
  it('gas is looked at where there is any, the wiper where the shop has wipers, insulation by the month', () => {
    const at = (gas: string | null, dirt: 'wiper' | 'liner' = 'wiper') => ({ gas, dirt })
    expect([isLookedAt('gasFlow', at('none')), isLookedAt('gasFlow', at(null))]).toEqual([false, true])
    expect([isLookedAt('wiper', at(null)), isLookedAt('wiper', at(null, 'liner'))]).toEqual([true, false])
    expect(WALKS.monthly.looks).toContain('continuity')
    expect(lookMethod('continuity').how).toBe('measured')
  })
})
