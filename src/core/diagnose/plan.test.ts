import { describe, expect, it } from 'vitest'
import { makeRandom } from '@core/random/random.ts'
import { indexOf } from './belief.ts'
import { fixMinutes, minutesOf } from './knowledge.ts'
import { fixGroups } from './moves.ts'
import { planned } from './plan.ts'
import { isBackedUp } from './rules.ts'
import { drawFault, drawWorld, byReckoning, linerEarly, quickFirst, race } from './race.ts'
import { reckon, type Said } from './session.ts'
import { SHIPPED } from './shipped/knowledge.ts'

const k = indexOf(SHIPPED)
const stepOf = (symptom: string, said: Said[] = []) => {
  const [next] = planned(reckon(k, { symptom, said }))
  return next ? (next.step.kind === 'check' ? next.step.check.key : `fix ${next.step.group.key}`) : null
}
describe('what first', () => {
  it('jerk with steady rolls: downstream, the liner leads', () => {
    const { belief } = reckon(k, { symptom: 'jerk', said: [{ type: 'check', key: 'watchRolls', outcome: 'even' }] })
    const liner = [...belief.weights].reduce((sum, w, h) => {
      const at = belief.sets[h]?.map((i) => SHIPPED.causes[i]?.at) ?? []
      return at.includes('liner') ? sum + w : sum
    }, 0)
    expect(liner).toBeGreaterThan(0.8)
  })
  it('two tips without change: the liner leads, and no third tip is offered', () => {
    const said: Said[] = [
      { type: 'check', key: 'watchRolls', outcome: 'even' },
      { type: 'check', key: 'tipSwap', outcome: 'well' },
      { type: 'fix', key: 'changed tip' },
    ]
    const reckoned = reckon(k, { symptom: 'longArc', said })
    const [likeliest] = [...reckoned.belief.weights].map((w, h) => ({ w, h })).sort((a, b) => b.w - a.w)
    const at = reckoned.belief.sets[likeliest?.h ?? 0]?.map((i) => SHIPPED.causes[i]?.at)
    expect(at).toEqual(['liner'])
    const offered = planned(reckoned)
      .slice(0, 3)
      .map((p) => (p.step.kind === 'fix' ? p.step.group.key : p.step.check.key))
    expect(offered).not.toContain('changed tip')
  })
  it('soot: with a long arc the feed, with a short steady one hand or gas', () => {
    const at = (outcome: string) =>
      reckon(k, { symptom: 'soot', said: [{ type: 'check', key: 'arcLook', outcome }] }).belief
    const feedShare = (belief: ReturnType<typeof at>) =>
      belief.sets.reduce(
        (sum, set, h) =>
          set.some((i) => ['feed', 'frontEnd'].includes(SHIPPED.causes[i]?.kind ?? ''))
            ? sum + (belief.weights[h] ?? 0)
            : sum,
        0,
      )
    expect(feedShare(at('long'))).toBeGreaterThan(4 * feedShare(at('steady')))
    expect(feedShare(reckon(k, { symptom: 'longArc', said: [] }).belief)).toBeGreaterThan(0.6)
  })
  it('porosity on one gun begins at its front end; with the supply suspect for several, at the flow', () => {
    expect(stepOf('porosity')).toBe('nozzleLook')
    const several = reckon(
      k,
      { symptom: 'porosity', said: [] },
      { hints: [{ cause: 'supply', factor: 400, sign: null, because: { how: 'others', what: 'gas' } }] },
    )
    const [next] = planned(several)
    expect(next?.step.kind === 'check' && ['flow', 'booths'].includes(next.step.check.key)).toBe(true)
  })
  it('a word on the hand wants two kinds of sign', () => {
    const hand = fixGroups(k).find((g) => g.key === 'hand')
    if (!hand) throw new Error('no such fix')
    const one = reckon(k, { symptom: 'spatters', said: [{ type: 'check', key: 'handWatch', outcome: 'off' }] })
    expect(isBackedUp(one, hand)).toBe(false)
    const two = reckon(k, {
      symptom: 'spatters',
      said: [
        { type: 'check', key: 'handWatch', outcome: 'off' },
        { type: 'check', key: 'arcLook', outcome: 'steady' },
      ],
    })
    expect(isBackedUp(two, hand)).toBe(true)
  })
  it('what cannot be told is not asked again', () => {
    const first = stepOf('jerk') ?? ''
    expect(stepOf('jerk', [{ type: 'cantTell', key: first }])).not.toBe(first)
  })
  it('minutes it expects fall within what a stop can take, and are never less than the quickest fix', () => {
    for (const s of SHIPPED.symptoms) {
      const [next] = planned(reckon(k, { symptom: s.key, said: [] }))
      const quickest = Math.min(...s.causes.map((c) => fixMinutes(SHIPPED.causes[k.causeAt.get(c) ?? 0]!)))
      expect(next?.expectedMin, s.key).toBeGreaterThan(quickest)
      expect(next?.expectedMin, s.key).toBeLessThan(60)
      if (next?.step.kind === 'check') expect(minutesOf(next.step.check), s.key).toBeLessThanOrEqual(5)
    }
  })
})

describe('against orders that do not listen', () => {
  it('is at least a fifth quicker than the better of them on made-up stops, over many symptoms', () => {
    const random = makeRandom(11)
    const world = drawWorld(SHIPPED, random, 0)
    const symptoms = SHIPPED.symptoms.filter((s) => s.causes.length >= 3)
    const mean = (x: number[]) => x.reduce((a, b) => a + b, 0) / x.length
    let [ours, best] = [0, 0]
    for (const s of symptoms) {
      const faults = Array.from({ length: 8 }, () => drawFault(world, random, { symptom: s.key }))
      ours += mean(race(world, faults, byReckoning(k)))
      best += Math.min(mean(race(world, faults, quickFirst(k))), mean(race(world, faults, linerEarly(k))))
    }
    expect(ours).toBeLessThan(0.85 * best)
  })
})
