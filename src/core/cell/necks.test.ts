import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { neckChain, enoughNecks } from './necks.ts'
import { neckPaysBackWeeks, necksNeeded, type NeckNeed } from './neckneed.ts'
import { simulateNecks } from './necksim.ts'

const ROUND = { robots: 8, spares: 2, places: 1, meanLifeH: 20, meanMendH: 1.5 }

describe('the chain', () => {
  it('with one robot, no spare and one place is up so much of the time', () => {
    const made = neckChain({ robots: 1, spares: 0, places: 1, meanLifeH: 40, meanMendH: 10 })
    expect(made.expectedStanding).toBeCloseTo(10 / 50, 12)
    expect(made.pNoneReady).toBe(1)
  })
  it('does not overflow with hundreds of necks', () => {
    const made = neckChain({ robots: 300, spares: 400, places: 3, meanLifeH: 1, meanMendH: 50 })
    expect(made.expectedStanding).toBeGreaterThan(290)
    expect(Number.isFinite(made.swapsPerHour)).toBe(true)
  })
  it('is never worse with one spare more, and what fails is mended', () => {
    const count = (min: number, max: number) => fc.integer({ min, max })
    fc.assert(
      fc.property(count(1, 12), count(0, 6), count(1, 4), (robots, spares, places) => {
        const round = { robots, places, meanLifeH: 12, meanMendH: 3 }
        const [now, more] = [neckChain({ ...round, spares }), neckChain({ ...round, spares: spares + 1 })]
        expect(more.pNoneReadyAtSwap).toBeLessThanOrEqual(now.pNoneReadyAtSwap + 1e-12)
        expect(more.expectedStanding).toBeLessThanOrEqual(now.expectedStanding + 1e-12)
        // No more fail than the places can mend.
        expect(now.swapsPerHour).toBeLessThanOrEqual(places / 3 + 1e-12)
      }),
    )
  })
  it('refuses what is no round', () => {
    expect(() => neckChain({ ...ROUND, robots: 0 })).toThrow(/robots/)
    expect(() => neckChain({ ...ROUND, meanMendH: 0 })).toThrow(/times > 0/)
    expect(() => enoughNecks(ROUND, 0)).toThrow(/risk/)
  })
})

describe('the simulation', () => {
  const long = { ...ROUND, weekH: 168, weeks: 2000, seed: 7 }
  it('meets the exact chain where lives and mending are exponential', () => {
    // A log-normal is never exponential: mending of a fixed length in as many places as there are necks is the known limit instead (Palm):
    // how many are away depends on the mean alone.
    const open = { ...long, places: 10 }
    const made = simulateNecks({ ...open, lifeShape: 1, mendSigma: 0 })
    const exact = neckChain({ ...ROUND, places: 10 })
    expect(made.pNoneReady).toBeCloseTo(exact.pNoneReady, 2)
    expect(made.swapsNone / made.swaps).toBeCloseTo(exact.pNoneReadyAtSwap, 2)
    expect(made.standingPerWeek / 168).toBeCloseTo(exact.expectedStanding, 2)
  })
  it('with one place: even mending is better than the chain says, mending that spreads far is worse', () => {
    const exact = neckChain(ROUND)
    const even = simulateNecks({ ...long, lifeShape: 1, mendSigma: 0 })
    const wide = simulateNecks({ ...long, lifeShape: 1, mendSigma: 1.2 })
    expect(even.standingPerWeek / 168).toBeLessThan(exact.expectedStanding)
    expect(wide.standingPerWeek / 168).toBeGreaterThan(exact.expectedStanding)
    // Log-normal with the spread of an exponential (cv 1: sigma² = ln 2) comes near it.
    const alike = simulateNecks({ ...long, lifeShape: 1, mendSigma: Math.sqrt(Math.LN2) })
    expect(alike.standingPerWeek / 168 / exact.expectedStanding).toBeGreaterThan(0.85)
    expect(alike.standingPerWeek / 168 / exact.expectedStanding).toBeLessThan(1.15)
  })
  it('answers the same question the same way, and refuses no weeks', () => {
    const asked = { ...long, weeks: 50, lifeShape: 2, mendSigma: 0.5 }
    expect(simulateNecks(asked)).toEqual(simulateNecks(asked))
    expect(() => simulateNecks({ ...asked, weeks: 0 })).toThrow(/weeks/)
    expect(() => simulateNecks({ ...asked, lifeShape: 0 })).toThrow(/shape/)
  })
})

describe('one more neck', () => {
  const need: NeckNeed = {
    ...{ robots: 3, spares: 1, places: 1, seed: 3, lifeShape: 2, mendSigma: 0.6 },
    lifeH: { mean: 60, sdLog: 0.2 },
    mendH: { mean: 20, sdLog: 0.2 },
  }
  it('is told beside what is there: fewer weeks short with every spare, each with its spread', () => {
    const rows = necksNeeded(need)
    expect(rows.map((r) => r.spares)).toEqual([0, 1, 2, 3])
    for (const [i, row] of rows.entries()) {
      expect(row.low).toBeLessThanOrEqual(row.pWeekShort + 1e-9)
      expect(row.high).toBeGreaterThanOrEqual(row.pWeekShort - 1e-9)
      if (i > 0) expect(row.standingPerWeek).toBeLessThanOrEqual((rows[i - 1]?.standingPerWeek ?? 0) + 1e-9)
    }
    expect(rows[0]?.pWeekShort).toBeGreaterThan(0.9)
  })
  it('pays back by the hours it saves; where it saves none, never', () => {
    const row = { spares: 1, pWeekShort: 0.5, low: 0.4, high: 0.6, standingPerWeek: 2 }
    const more = { ...row, spares: 2, standingPerWeek: 0.5 }
    expect(neckPaysBackWeeks({ now: row, more, stopMinorPerHour: 20_000, priceMinor: 30_000 })).toBeCloseTo(1)
    expect(neckPaysBackWeeks({ now: more, more, stopMinorPerHour: 20_000, priceMinor: 30_000 })).toBeNull()
  })
})
