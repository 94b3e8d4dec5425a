import { describe, expect, it } from 'vitest'
import { makeRandom } from '@core/random/random.ts'
import {
  cleaningInterval,
  cleanLimit,
  closedShare,
  closurePrior,
  isDeepDue,
  learntInterval,
  type FoundClosed,
} from './interval.ts'

const PRIOR = { perHour: 0.06, logSd: 0.6 }
const found = (n: number, closedShare: number, arcHours = 2): FoundClosed[] =>
  Array.from({ length: n }, () => ({ closedShare, arcHours }))

describe('cleaning by what was found', () => {
  it('without a cleaning goes by the class alone, on its cautious side', () => {
    const made = cleaningInterval({ found: [], prior: PRIOR, currentH: null })
    expect(made.hours).toBeCloseTo(0.2 / (0.06 * Math.exp(0.8416 * 0.6)), 3)
    expect(made.n).toBe(0)
  })
  it('twelve found alike bring it to limit less margin over their rate', () => {
    const made = cleaningInterval({ found: found(12, 0.3), prior: PRIOR, currentH: null })
    expect(made.hours).toBeCloseTo(0.2 / 0.15, 9)
  })
  it('changes by no more than half and half again at a step, and says so', () => {
    expect(cleaningInterval({ found: found(12, 0.02), prior: PRIOR, currentH: 2 })).toMatchObject({
      hours: 3,
      isHeld: 'up',
    })
    expect(cleaningInterval({ found: found(12, 0.9), prior: PRIOR, currentH: 4 })).toMatchObject({
      hours: 2,
      isHeld: 'down',
    })
  })
  it('forgets what is older than twelve cleanings, and what ran too short to tell', () => {
    const late = [...found(20, 0.9), ...found(12, 0.1)]
    const only = found(12, 0.1)
    expect(cleaningInterval({ found: late, prior: PRIOR, currentH: null })).toEqual(
      cleaningInterval({ found: only, prior: PRIOR, currentH: null }),
    )
    expect(cleaningInterval({ found: found(5, 0.5, 0.01), prior: PRIOR, currentH: null }).n).toBe(0)
  })
  it('more spatter found never makes it longer', () => {
    const random = makeRandom(11)
    for (let i = 0; i < 200; i++) {
      const list = Array.from({ length: 1 + Math.floor(random() * 14) }, () => ({
        closedShare: random(),
        arcHours: 0.5 + random() * 4,
      }))
      const worse = list.map((f) => ({ ...f, closedShare: Math.min(1, f.closedShare + random() * 0.3) }))
      const at = (of: FoundClosed[]) => cleaningInterval({ found: of, prior: PRIOR, currentH: 2 }).hours
      expect(at(worse)).toBeLessThanOrEqual(at(list) + 1e-12)
    }
  })
  it('learns a hidden rate: about eight in ten cleanings then come before the limit', () => {
    const shares = [1, 2, 3, 4, 5, 6, 7, 8, 9, 10].map((seed) => {
      const random = makeRandom(seed)
      const rate = () => 0.1 * Math.exp((random() + random() + random() - 1.5) * 0.6)
      let currentH = 1
      const seen: FoundClosed[] = []
      for (let i = 0; i < 40; i++) {
        seen.push({ closedShare: Math.min(1, rate() * currentH), arcHours: currentH })
        currentH = cleaningInterval({ found: seen, prior: PRIOR, currentH }).hours
      }
      expect(currentH).toBeGreaterThan(1)
      return Array.from({ length: 1000 }, () => rate() * currentH).filter((c) => c < 0.25).length / 1000
    })
    const mean = shares.reduce((s, x) => s + x, 0) / shares.length
    expect(mean).toBeGreaterThan(0.78)
    expect(mean).toBeLessThan(0.999)
  })
  it('short circuit in CO2 wants it oftener than spray in mixed gas, pulsed aluminium oftenest', () => {
    const at = (mode: 'short circuit' | 'spray' | 'pulse', gas: string, isAluminium = false) =>
      closurePrior({ mode, gas, isCored: false, isAluminium }).perHour
    expect(at('short circuit', 'CO2')).toBeGreaterThan(at('spray', 'argon mix'))
    expect(at('pulse', 'argon', true)).toBeGreaterThan(at('short circuit', 'CO2'))
    expect(() => cleaningInterval({ found: [], prior: { perHour: 0, logSd: 1 }, currentH: null })).toThrow(RangeError)
  })
  it('every eighth is a deep one', () =>
    expect([0, 7, 8, 9, 16].map((n) => isDeepDue(n))).toEqual([false, false, true, false, true]))
})

describe('the hours that are due', () => {
  const at = (school: string, ruleH: number | null, list: FoundClosed[] = []) =>
    cleanLimit({ school, ruleH, learnt: learntInterval({ ruleH, found: list, prior: PRIOR }) })
  it('are what the lead set, until three findings of its own', () => {
    expect(at('byHours', 2)).toMatchObject({ hours: 2, by: 'rule', n: 0 })
    expect(at('byHours', 2, found(2, 0.4))).toMatchObject({ hours: 2, by: 'rule', n: 2 })
    expect(at('byHours', 2, found(3, 0.4))).toMatchObject({ by: 'found', n: 3 })
  })
  it('go by what is found from there, a half at a step', () => {
    expect(at('byHours', 2, found(3, 0.6))?.hours).toBeCloseTo(0.2 / 0.3, 6)
    expect(at('byHours', 8, found(3, 0.6))?.hours).toBeCloseTo(1, 6)
    expect(at('byHours', 8, found(4, 0.6))?.hours).toBeCloseTo(0.2 / 0.3, 6)
  })
  it('nothing found and nothing set: no hours, since a guess sets no limit', () =>
    expect(at('byHours', null)).toBeNull())
  it('by the school: as set, hourly, or not by hours at all', () => {
    const many = found(12, 0.6)
    expect(at('fixed', 2, many)).toMatchObject({ hours: 2, by: 'rule' })
    expect(at('hourly', null)).toMatchObject({ hours: 1, by: 'school' })
    expect(['eachPass', 'cleanUp', 'machine'].map((way) => at(way, 2, many))).toEqual([null, null, null])
  })
  it('a look counts as about so much', () => {
    const by = (grade: string | null, value: number | null = null) => closedShare({ grade, value })
    expect(by('half')).toBeGreaterThan(by('ring') ?? 1)
    expect(by('ring')).toBeGreaterThan(by('clean') ?? 1)
    expect(by('half', 0.9)).toBeCloseTo(0.1, 12)
    expect(by(null)).toBeNull()
  })
  it('the order of findings far back no longer shows', () => {
    const late = found(12, 0.3)
    const go = (list: FoundClosed[]) => learntInterval({ ruleH: 2, found: list, prior: PRIOR }).hours
    expect(go([...found(12, 0.9), ...late])).toBeCloseTo(go(late), 6)
  })
})
