import { describe, expect, it } from 'vitest'
import { paceWeight, roundWeight } from './pace.ts'

const looks = ['bore', 'nozzleOpen', 'layout', 'pinHome'] as const
const at = (seconds: number | null, isAllGood = true) =>
  paceWeight({ sinceMs: seconds === null ? null : seconds * 1000, looks, isAllGood })

describe('how much a quick walk counts', () => {
  it('twelve guns in 41 seconds count for a third, a look taken counts whole', () => {
    expect(at(41 / 12)).toBeGreaterThan(0.25)
    expect(at(41 / 12)).toBeLessThan(0.4)
    expect(at(30)).toBe(1)
  })
  it('never falls with time, never to nothing', () => {
    const weights = [0, 0.5, 1, 2, 5, 10, 20, 60].map((s) => at(s))
    weights.slice(1).forEach((w, i) => expect(w).toBeGreaterThanOrEqual(weights[i] ?? 0))
    expect(weights[0]).toBe(0.1)
  })
  it('the first gun, and what was found bad, count whole', () => {
    expect(at(null)).toBe(1)
    expect(at(1, false)).toBe(1)
  })
})

describe('how much a walk counts on which nothing is found', () => {
  const nothing = (n: number, before = { bad: 20, of: 190 }) => roundWeight('bore', { before, walk: { bad: 0, of: n } })
  it('whole where few were looked at, ever less where something should have been found', () => {
    expect(nothing(8)).toBe(1)
    const weights = [20, 30, 40, 60, 100].map((n) => nothing(n))
    weights.slice(1).forEach((w, i) => expect(w).toBeLessThanOrEqual(weights[i] ?? 0))
    // 0.9^48 by hand is 0.0064, a little more for not knowing the 0.1 surely.
    expect(nothing(48)).toBeGreaterThan(0.0064 / 0.05)
    expect(nothing(48)).toBeLessThan(0.3)
    expect(nothing(500)).toBe(0.1)
  })
  it('whole where something was found, and where the shop has hardly looked yet', () => {
    expect(roundWeight('bore', { before: { bad: 20, of: 190 }, walk: { bad: 1, of: 200 } })).toBe(1)
    expect(nothing(12, { bad: 0, of: 0 })).toBe(1)
  })
  it('and where faults are rare here, none is what one finds', () => expect(nothing(48, { bad: 1, of: 900 })).toBe(1))
})
