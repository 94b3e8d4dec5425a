import { describe, expect, it } from 'vitest'
import { makeRandom, pick } from '@core/random/random.ts'
import { believe, chancesOf, firstBelief, indexOf, marginals, type Evidence } from './belief.ts'
import { halving, type Check, type Knowledge } from './knowledge.ts'
import { SHIPPED } from './shipped/knowledge.ts'

const FIX = { do: 'x', effort: 'E1', act: null, position: null, hazards: [] } as const
const cause = (key: string) => ({ key, says: key, at: 'tip', kind: 'feed', fix: FIX }) as const
const look = (key: string, points: string[], over: Partial<Check> = {}): Check => ({
  key,
  do: key,
  how: '',
  effort: 'E0',
  sign: 'look',
  hazards: [],
  drawing: null,
  shows: 0.8,
  outcomes: [
    { key: 'bad', says: 'bad', points },
    { key: 'well', says: 'well', points: [] },
  ],
  ...over,
})
const small: Knowledge = {
  causes: ['a', 'b', 'c', 'far'].map(cause),
  checks: [look('lookA', ['a']), look('lookAB', ['a', 'b']), look('swapA', ['a'], { sign: 'swap' })],
  symptoms: [
    { key: 's', says: 's', picture: 'jerks', causes: ['a', 'b', 'c'] },
    { key: 't', says: 't', picture: 'nest', causes: ['b'] },
  ],
}
const index = indexOf(small)
const chance = (belief: ReturnType<typeof firstBelief>, key: string) =>
  chancesOf(belief).find((c) => c.cause.key === key)?.chance ?? 0
const ratio = (belief: ReturnType<typeof firstBelief>, of: readonly [string, string]) => {
  const single = (key: string) =>
    belief.sets.reduce(
      (sum, set, h) => (set.length === 1 && set[0] === index.causeAt.get(key) ? sum + (belief.weights[h] ?? 0) : sum),
      0,
    )
  return single(of[0]) / single(of[1])
}

describe('what is thought before anything is looked at', () => {
  it('halves down the list, and sums to 1', () => {
    expect(halving(3)).toEqual([4 / 7, 2 / 7, 1 / 7])
    const first = firstBelief(index, { symptom: 's' })
    expect(ratio(first, ['a', 'b'])).toBeCloseTo(2, 10)
    expect(ratio(first, ['b', 'c'])).toBeCloseTo(2, 10)
    expect(chance(first, 'far')).toBeLessThan(0.03)
  })
  it('the shop’s own shares and the gun’s own state move it; what cannot be there is out', () => {
    const own = firstBelief(index, {
      symptom: 's',
      shares: new Map([
        ['a', 0.1],
        ['b', 0.8],
        ['c', 0.1],
      ]),
    })
    expect(chancesOf(own)[0]?.cause.key).toBe('b')
    const state = firstBelief(index, {
      symptom: 's',
      factors: new Map([
        ['c', 8],
        ['a', 0],
      ]),
    })
    expect(chance(state, 'a')).toBe(0)
    expect(ratio(state, ['c', 'b'])).toBeCloseTo(4, 10)
    expect(() => firstBelief(index, { symptom: 'none' })).toThrow(RangeError)
  })
})

describe('what an answer does', () => {
  const first = firstBelief(index, { symptom: 's' })
  it('by hand: a look that shows 0.8 and errs 0.05 moves odds by 16, and by 4.75 the other way', () => {
    const bad = believe(first, { type: 'check', key: 'lookA', outcome: 'bad' })
    expect(ratio(bad, ['a', 'b'])).toBeCloseTo(2 * 16, 8)
    const well = believe(first, { type: 'check', key: 'lookA', outcome: 'well' })
    expect(ratio(well, ['b', 'a'])).toBeCloseTo(0.5 * (0.95 / 0.2), 8)
  })
  it('the order of answers is nothing', () => {
    const evidence: Evidence[] = [
      { type: 'check', key: 'lookA', outcome: 'well' },
      { type: 'check', key: 'lookAB', outcome: 'bad' },
      { type: 'symptom', key: 't', isThere: true },
    ]
    const one = evidence.reduce(believe, first)
    const other = [...evidence].reverse().reduce(believe, first)
    one.weights.forEach((w, i) => expect(w).toBeCloseTo(other.weights[i] ?? NaN, 7))
  })
  it('another sign that is there speaks for what lists it, one that is not against', () => {
    expect(ratio(believe(first, { type: 'symptom', key: 't', isThere: true }), ['b', 'c'])).toBeCloseTo(2 * 16, 7)
    expect(ratio(believe(first, { type: 'symptom', key: 't', isThere: false }), ['c', 'b'])).toBeCloseTo(
      0.5 * (0.95 / 0.2),
      7,
    )
  })
  it('a fix that did not help takes its cause away; of two at once the other stands', () => {
    const fixed = believe(first, { type: 'fixed', causes: ['a'] })
    expect(ratio(fixed, ['b', 'a'])).toBeCloseTo(0.5 / 0.05, 6)
    const pair = fixed.sets.findIndex((set) => set.join() === '0,1')
    expect(marginals(fixed)[1]).toBeGreaterThan(fixed.weights[pair] ?? 1)
  })
  it('a swap brings two faults back only if it mends both; a look shows one of two', () => {
    const set = [0, 1]
    const pairIs = (belief: typeof first) => belief.weights[belief.sets.findIndex((s) => s.join() === set.join())] ?? 0
    const swap = believe(first, { type: 'check', key: 'swapA', outcome: 'well' })
    const looked = believe(first, { type: 'check', key: 'lookA', outcome: 'bad' })
    expect(pairIs(swap)).toBeGreaterThan(pairIs(first))
    expect(pairIs(looked)).toBeGreaterThan(pairIs(first))
  })
  it('never loses mass and makes nothing impossible, whatever is answered, also against itself', () => {
    const whole = indexOf(SHIPPED)
    for (let seed = 1; seed <= 40; seed++) {
      const random = makeRandom(seed)
      let belief = firstBelief(whole, { symptom: pick(random, SHIPPED.symptoms).key })
      const open = belief.weights.filter((w) => w > 0).length
      for (let n = 0; n < 40; n++) {
        const check = pick(random, SHIPPED.checks)
        const dice = random()
        belief = believe(
          belief,
          dice < 0.8
            ? { type: 'check', key: check.key, outcome: pick(random, check.outcomes).key }
            : dice < 0.9
              ? { type: 'fixed', causes: [pick(random, SHIPPED.causes).key] }
              : { type: 'symptom', key: pick(random, SHIPPED.symptoms).key, isThere: random() < 0.5 },
        )
        expect(belief.weights.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 9)
      }
      expect(belief.weights.filter((w) => w > 0).length).toBe(open)
    }
  })
  it('what the knowledge does not know tells nothing', () => {
    for (const evidence of [
      { type: 'check', key: 'gone', outcome: 'bad' },
      { type: 'check', key: 'lookA', outcome: 'gone' },
      { type: 'symptom', key: 'gone', isThere: true },
    ] as const)
      expect(believe(first, evidence)).toBe(first)
  })
})
