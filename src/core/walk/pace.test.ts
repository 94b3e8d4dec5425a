import { describe, expect, it } from 'vitest'
import { paceWeight } from './pace.ts'

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
