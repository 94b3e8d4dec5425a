import { describe, expect, it } from 'vitest'
import { makeRandom, drawNormal } from '@core/random/random.ts'
import { agentLeft, type AgentAsked } from './agent.ts'
import { cyclesIn, reaming, type ReamAsked, type ReamLook } from './reaming.ts'

const asked = (over: Partial<ReamAsked> = {}): ReamAsked => ({
  ...{ everyNow: 12, due: [], left: [], priorPerH: 0.03, cycleArcS: 90 },
  ...over,
})
const looks = (n: number, closedShare: number, cycles = 12): ReamLook[] =>
  Array.from({ length: n }, () => ({ closedShare, cycles }))

describe('how often a reamer need come', () => {
  it('is not told by a guess alone', () => {
    expect(reaming(asked())).toMatchObject({ n: 0, every: null, leftShare: null })
    expect(reaming(asked({ due: looks(2, 0.1) })).every).toBeNull()
  })
  it('is oftener where the nozzle is found shut, seldomer where it is free; half as often again at most', () => {
    expect(reaming(asked({ due: looks(12, 0.5) }))).toMatchObject({ every: 6, isHeld: 'down' })
    expect(reaming(asked({ due: looks(12, 0.02) }))).toMatchObject({ every: 18, isHeld: 'up' })
    const about = reaming(asked({ due: looks(12, 0.18) })).every ?? 0
    expect(about).toBeGreaterThanOrEqual(11)
    expect(about).toBeLessThanOrEqual(14)
  })
  it('what every ream leaves counts once, not every cycle; left too much, no count helps', () => {
    const free = reaming(asked({ due: looks(12, 0.18) }))
    const left = reaming(asked({ due: looks(12, 0.18), left: [0.1, 0.1] }))
    expect(left.leftShare).toBeCloseTo(0.1, 9)
    expect(left.shutWhenDue).toBeGreaterThan(0.15)
    expect(Math.abs((left.every ?? 0) - (free.every ?? 0))).toBeLessThanOrEqual(3)
    expect(reaming(asked({ due: looks(12, 0.3), left: [0.3, 0.4, 0.3] }))).toMatchObject({
      ...{ doesLeaveIt: true, every: null },
    })
  })
  it('follows the world: the nozzle is under the limit in four looks of five at what it says', () => {
    const random = makeRandom(11)
    for (const perCycle of [0.005, 0.012, 0.03]) {
      let every = 12
      const due: ReamLook[] = []
      const grown = () => every * perCycle * Math.exp(0.3 * drawNormal(random))
      for (let i = 0; i < 60; i++) {
        due.push({ closedShare: grown(), cycles: every })
        every = reaming(asked({ everyNow: every, due })).every ?? every
      }
      const found = Array.from({ length: 500 }, grown)
      expect(found.filter((f) => f <= 0.25).length / 500).toBeGreaterThan(0.8)
      expect(every * perCycle).toBeGreaterThan(0.1)
    }
  })
  it('refuses no cycles at all', () => {
    expect(() => reaming(asked({ everyNow: 0 }))).toThrow('everyNow')
    expect(cyclesIn(2, 72)).toBe(100)
    expect(cyclesIn(2, null)).toBeNull()
  })
})

describe('what is left in the tank', () => {
  const tank = (over: Partial<AgentAsked> = {}): AgentAsked => ({
    ...{ looks: [{ foundL: 1, leftL: 1, arcHours: null }], sinceH: 0 },
    ...{ shotMl: 0.6, shotsPerReam: 1, reamEvery: 12, cycleArcS: 90 },
    ...over,
  })
  it('goes by shots, cycles and arc: 0.6 ml in 12 cycles of 90 s are 2 ml an arc hour', () => {
    const left = agentLeft(tank({ sinceH: 100 }))
    expect(left?.perArcH).toBeCloseTo(0.002, 9)
    expect(left?.litres).toBeCloseTo(0.8, 9)
    expect(left?.hours).toBeCloseTo(400, 6)
    expect(left?.earlyH).toBeLessThan(400)
    expect(left?.low).toBeLessThan(0.8)
    expect(left?.high).toBeGreaterThan(0.8)
  })
  it('learns from tanks seen to fall, and grows surer; one filled and not told is no fall', () => {
    const fall = { foundL: 0.2, leftL: 1, arcHours: 200 }
    const seen = agentLeft(tank({ looks: [{ foundL: 1, leftL: 1, arcHours: null }, fall, fall, fall], sinceH: 100 }))
    const said = agentLeft(tank({ sinceH: 100 }))
    expect(seen?.n).toBe(3)
    expect(seen?.times).toBeGreaterThan(1.5)
    expect(seen?.times).toBeLessThan(2)
    expect((seen?.high ?? 0) - (seen?.low ?? 0)).toBeLessThan(2 * ((said?.high ?? 0) - (said?.low ?? 0)))
    const unsaid = { foundL: 0.9, leftL: 0.9, arcHours: 200 }
    const risen = [{ foundL: 0.3, leftL: 0.3, arcHours: null }, { ...unsaid }]
    expect(agentLeft(tank({ looks: risen }))).toMatchObject({ n: 0, times: 1, litres: 0.9 })
  })
  it('is never under nought, never over what was left in it; unread it is not told', () => {
    expect(agentLeft(tank({ sinceH: 5000 }))).toMatchObject({ litres: 0, low: 0, hours: 0 })
    expect(agentLeft(tank())?.high).toBeLessThanOrEqual(1)
    expect(agentLeft(tank({ looks: [] }))).toBeNull()
  })
})
