import { describe, expect, it } from 'vitest'
import { makeRandom } from '@core/random/random.ts'
import { assignSpools, type Assignment, type SpoolLeft } from './assign.ts'

/** What an assignment comes to, by itself; null: it cannot be. */
function comesTo(spools: readonly SpoolLeft[], jobs: readonly number[], spoolOf: readonly (number | null)[]) {
  const used = spools.map((_, s) => jobs.reduce((sum, want, j) => sum + (spoolOf[j] === s ? want : 0), 0))
  if (used.some((u, s) => u > (spools[s]?.left ?? 0))) return null
  const scrap = spools.map((s, i) => {
    const rest = s.left - (used[i] ?? 0)
    return (used[i] ?? 0) > 0 && rest < s.leastUsable ? rest : 0
  })
  const dealt = spoolOf.filter((s) => s !== null).length
  return [-dealt, scrap.reduce((a, b) => a + b, 0), used.filter((u) => u > 0).length] as const
}
/** Every way there is. */
function best(spools: readonly SpoolLeft[], jobs: readonly number[]): readonly number[] {
  let found: readonly number[] = [Infinity, 0, 0]
  const ways = (spools.length + 1) ** jobs.length
  for (let way = 0; way < ways; way++) {
    const spoolOf = jobs.map((_, j) => {
      const s = Math.floor(way / (spools.length + 1) ** j) % (spools.length + 1)
      return s === spools.length ? null : s
    })
    const is = comesTo(spools, jobs, spoolOf)
    if (is && (is[0] - (found[0] ?? 0) || is[1] - (found[1] ?? 0) || is[2] - (found[2] ?? 0)) < 0) found = is
  }
  return found
}
const told = (a: Assignment) => [-a.jobs, a.scrap, a.spools]
function world(random: () => number, spools: number, jobs: number) {
  return {
    spools: Array.from({ length: spools }, () => ({ left: 500 + 50 * Math.floor(random() * 80), leastUsable: 1000 })),
    jobs: Array.from({ length: jobs }, () => 200 + 50 * Math.floor(random() * 40)),
  }
}

describe('spools for jobs', () => {
  it('of a few is what trying every way finds, and what it says of itself is so', () => {
    const random = makeRandom(3)
    for (let i = 0; i < 60; i++) {
      const { spools, jobs } = world(random, 1 + Math.floor(random() * 4), 1 + Math.floor(random() * 5))
      const made = assignSpools(spools, jobs)
      expect(made.isExact).toBe(true)
      expect(told(made)).toEqual(comesTo(spools, jobs, made.spoolOf))
      expect(told(made)).toEqual(best(spools, jobs))
    }
  })
  it('of many keeps every spool’s end, is never worse than best fit alone, and the same for the same seed', () => {
    const { spools, jobs } = world(makeRandom(8), 60, 60)
    const alone = assignSpools(spools, jobs, { rounds: 0 })
    const made = assignSpools(spools, jobs, { rounds: 150 })
    expect(comesTo(spools, jobs, made.spoolOf)).toEqual(told(made))
    expect([made.isExact, made.jobs >= alone.jobs]).toEqual([false, true])
    if (made.jobs === alone.jobs) expect(made.scrap).toBeLessThanOrEqual(alone.scrap)
    expect(assignSpools(spools, jobs, { rounds: 150 })).toEqual(made)
  })
  it('a short end goes to the job that just fits it, and a full spool stays closed', () => {
    const made = assignSpools(
      [
        { left: 15_000, leastUsable: 1000, isFull: true },
        { left: 2400, leastUsable: 1000 },
      ],
      [1200],
    )
    expect(made).toMatchObject({ spoolOf: [1], scrap: 0, spools: 1, opened: 0 })
  })
  it('tells how far it is, and refuses a job of nothing', () => {
    const { spools, jobs } = world(makeRandom(2), 12, 12)
    const seen: number[] = []
    assignSpools(spools, jobs, { rounds: 3, onRound: (done) => seen.push(done) })
    expect(seen).toEqual([1, 2, 3])
    expect(() => assignSpools(spools, [0])).toThrow(RangeError)
    expect(() => assignSpools([{ left: -1, leastUsable: 0 }], [1])).toThrow(RangeError)
  })
  it('without a spool serves nobody', () => expect(assignSpools([], [5])).toMatchObject({ jobs: 0, spoolOf: [null] }))
})
