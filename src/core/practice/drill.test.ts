import { describe, expect, it } from 'vitest'
import { indexOf } from '@core/diagnose/belief.ts'
import { SHIPPED } from '@core/diagnose/shipped/knowledge.ts'
import { makeRandom } from '@core/random/random.ts'
import { debriefOf } from './debrief.ts'
import {
  answerOf,
  complaintOf,
  drawScenario,
  HINT_MIN,
  isRunning,
  played,
  type DrillAct,
  type Scenario,
} from './drill.ts'
import { bestPlay } from './engine.ts'
import { dailyScenario, USUAL_BOOTHS } from './setups.ts'
import { isWell, nextFault, skillsOf } from './skill.ts'

const knowledge = indexOf(SHIPPED)
const setup = USUAL_BOOTHS[0]!
const scenario = (over: Partial<Scenario>): Scenario => ({
  ...{ version: 1, name: null, setup, faults: [{ key: 'gunOut', bad: 0.9 }], complaint: 'porosity', seed: 4 },
  ...over,
})
const look = (key: string, way?: string): DrillAct => ({ do: 'look', key, way })
const fix = (key: string, way?: string): DrillAct => ({ do: 'fix', key, way })

describe('a drill', () => {
  it('is looked into, mended, and runs; nothing counts after that', () => {
    const s = scenario({})
    const acts = [look('gunSeat'), fix('gunOut'), look('flow')]
    const state = played(knowledge, s, acts)
    expect(state.steps.map((x) => [x.outcome?.key ?? null, x.runs])).toEqual([
      ['out', false],
      [null, true],
    ])
    expect(state.minutes).toBeCloseTo(0.3 + 1.5 + 0.5, 9)
  })
  it('answers the same look alike however often it is had, and another fault is another matter', () => {
    const s = scenario({ faults: [{ key: 'tipWorn', bad: 0 }] })
    const said = played(knowledge, s, [look('tipBeside'), look('tipBeside'), look('tipBeside')]).steps
    expect(new Set(said.map((x) => x.outcome?.key)).size).toBe(1)
  })
  it('a fix that was not it leaves it as it was, and is paid for with its part', () => {
    const state = played(knowledge, scenario({}), [fix('changed liner', 'new')])
    expect([isRunning(state), state.parts, state.minutes]).toEqual([false, ['liner'], 30.5])
  })
  it('what the knowledge does not have changes nothing, a hint and a bead cost their minutes', () => {
    const state = played(knowledge, scenario({}), [look('nobody'), fix('nothing'), { do: 'hint' }, { do: 'bead' }])
    expect([state.steps.length, state.minutes, state.hints]).toEqual([2, HINT_MIN + 0.3, 1])
  })
  it('given up it runs, for the hour that help takes', () => {
    const state = played(knowledge, scenario({}), [look('flow'), { do: 'help' }, look('gunSeat')])
    expect([isRunning(state), state.steps.length, state.minutes]).toEqual([true, 2, 61])
    const { score, worth } = debriefOf(knowledge, scenario({}), [look('flow'), { do: 'help' }])
    expect(score).toBeLessThan(0.1)
    expect(worth.at(-1)?.better).not.toBeNull()
  })
  it('a fresh tip helps only where nothing else is wrong', () => {
    const swap = knowledge.checkOf.get('tipSwap')!
    const tip = { key: 'tipWorn' as const, bad: 0.5 }
    expect(answerOf(swap, { left: [tip], luck: 0.99 }).outcome.key).toBe('helps')
    expect(answerOf(swap, { left: [tip, { key: 'hubTight', bad: 0.5 }], luck: 0 })).toMatchObject({
      mends: ['tipWorn'],
    })
    expect(answerOf(swap, { left: [tip, { key: 'hubTight', bad: 0.5 }], luck: 0 }).outcome.key).toBe('well')
  })
  it('never shows what is not so, and misses the less the worse it is', () => {
    for (const check of knowledge.checks) {
      const { outcome } = answerOf(check, { left: [{ key: 'polarity', bad: 0.3 }], luck: 0.01 })
      expect(outcome.points.length === 0 || outcome.points.includes('polarity')).toBe(true)
    }
    const nozzle = knowledge.checkOf.get('nozzleLook')!
    const seen = (bad: number, luck: number) =>
      answerOf(nozzle, { left: [{ key: 'nozzleClogged', bad }], luck }).outcome.key
    expect([seen(0, 0.95), seen(1, 0.95), seen(0, 0.5)]).toEqual(['well', 'closed', 'closed'])
  })
})

describe('faults of manner', () => {
  it('a nozzle twisted the wrong way loosens the insulator, which then is what is wrong', () => {
    const s = scenario({ faults: [{ key: 'nozzleClogged', bad: 0.9 }] })
    const state = played(knowledge, s, [fix('cleaned nozzle', 'twist')])
    expect(state.left.map((f) => f.key)).toEqual(['insulatorLoose'])
    expect(state.steps[0]?.slip).toContain('insulator')
    expect(isRunning(played(knowledge, s, [fix('cleaned nozzle', 'pull')]))).toBe(true)
  })
  it('shop air saves minutes, mends nothing and leaves oil', () => {
    const s = scenario({ faults: [{ key: 'linerDirty', bad: 0.9 }], complaint: 'jerk' })
    const state = played(knowledge, s, [fix('changed liner', 'air')])
    expect(state.left.map((f) => f.key)).toEqual(['linerDirty', 'linerOil'])
    expect([state.parts, state.minutes]).toEqual([[], 5.5])
    expect(isRunning(played(knowledge, s, [fix('changed liner', 'air'), fix('changed liner', 'new')]))).toBe(true)
  })
  it('a machine dragged by its gun, and a gun laid on its trigger, leave their own fault', () => {
    const coiled = scenario({ faults: [{ key: 'cableCoiled', bad: 0.5 }], complaint: 'jerk' })
    expect(played(knowledge, coiled, [fix('cableCoiled', 'gun')]).left.map((f) => f.key)).toEqual(['gunOut'])
    const laid = played(knowledge, scenario({}), [look('spoolByHand', 'bench')])
    expect(laid.left.map((f) => f.key)).toEqual(['gunOut', 'wireEnd'])
  })
})

describe('drawn drills', () => {
  it('complain of what somebody would see, with a cause that is listed for it, and the best play ends them', () => {
    const random = makeRandom(8)
    for (const booth of USUAL_BOOTHS)
      for (let n = 0; n < 6; n++) {
        const s = drawScenario(knowledge, booth, { random })
        const listed = knowledge.symptoms.find((x) => x.key === s?.complaint)?.causes ?? []
        expect(s?.faults.map((f) => listed.includes(f.key)).every(Boolean)).toBe(true)
        if (s) expect(isRunning(bestPlay(knowledge, s))).toBe(true)
        if (s) expect(complaintOf(knowledge, s)).toBe(s.complaint)
      }
  })
  it('of one fault alone, where only that is asked for; none, where it shows nothing here', () => {
    const one = drawScenario(knowledge, setup, { random: makeRandom(2), among: ['workClamp'], twoShare: 0 })
    expect(one?.faults.map((f) => f.key)).toEqual(['workClamp'])
    expect(drawScenario(knowledge, setup, { random: makeRandom(2), among: ['coredCrushed'] })).toBeNull()
  })
  it('as bad as is asked, and two at a time where that is asked', () => {
    const random = makeRandom(31)
    for (const bad of [[0.35, 0.7] as const, [0.7, 1] as const])
      for (let n = 0; n < 6; n++) {
        const s = drawScenario(knowledge, setup, { random, bad, twoShare: 0 })
        expect(s?.faults).toHaveLength(1)
        for (const f of s?.faults ?? []) expect(f.bad >= bad[0] && f.bad <= bad[1]).toBe(true)
      }
    const pairs = Array.from({ length: 8 }, () => drawScenario(knowledge, setup, { random, twoShare: 1 }))
    expect(pairs.filter((s) => s?.faults.length === 2).length).toBeGreaterThan(4)
  })
  it('the daily one is the same for all, and another the next day', () => {
    const day = (d: string) => JSON.stringify(dailyScenario(knowledge, d))
    expect(day('2026-12-01')).toBe(day('2026-12-01'))
    expect(day('2026-12-02')).not.toBe(day('2026-12-01'))
  })
})

describe('the debrief', () => {
  const s = scenario({ faults: [{ key: 'nozzleClogged', bad: 0.95 }] })
  it('finds nothing to say of the best order, and scores it whole', () => {
    const best = bestPlay(knowledge, s)
    const { score, worth, split } = debriefOf(
      knowledge,
      s,
      best.steps.map((x) => x.act),
    )
    expect([score, split, worth.every((w) => w.better === null)]).toEqual([1, null, true])
  })
  it('counts what asking and trying cost, and calls neither a wrong choice', () => {
    const { worth, split } = debriefOf(knowledge, s, [
      { do: 'hint' },
      { do: 'bead' },
      look('nozzleLook'),
      fix('cleaned nozzle'),
    ])
    expect([split, worth.map((w) => w.better)]).toEqual([null, [null, null, null, null]])
    expect(worth[0]?.lostMin).toBe(HINT_MIN)
  })
  it('names the act that cost most and what would have been better', () => {
    const { split, score, worth } = debriefOf(knowledge, s, [
      look('metal'),
      fix('changed liner', 'new'),
      look('nozzleLook'),
      fix('cleaned nozzle'),
    ])
    expect(split?.step.act).toEqual({ do: 'fix', key: 'changed liner', way: 'new' })
    expect(split?.better).toEqual({ do: 'look', key: 'nozzleLook' })
    expect(split?.lostMin).toBeGreaterThan(20)
    expect(score).toBeLessThan(0.1)
    expect(worth.at(-2)?.bits).toBeGreaterThan(worth[0]?.bits ?? 9)
    expect(worth.map((w) => w.at)).toEqual(['off', 'liner', 'nozzle', 'nozzle'])
  })
})

describe('skill by fault', () => {
  const tried = (fault: 'tipWorn' | 'gunOut', minutes: number) => ({ faults: [fault], minutes, bestMin: 4 })
  it('counts what was found well, the least known first', () => {
    const attempts = [tried('gunOut', 4), tried('gunOut', 5), tried('tipWorn', 20), tried('tipWorn', 5.9)]
    expect(attempts.map(isWell)).toEqual([true, true, false, true])
    expect(skillsOf(attempts).map((x) => [x.fault, x.well, x.tried])).toEqual([
      ['tipWorn', 1, 2],
      ['gunOut', 2, 2],
    ])
  })
  it('what is not known comes more often, what is known still now and then', () => {
    const attempts = [
      ...Array.from({ length: 8 }, () => tried('gunOut', 4)),
      ...Array.from({ length: 8 }, () => tried('tipWorn', 40)),
    ]
    const random = makeRandom(5)
    const met = Array.from({ length: 300 }, () => nextFault(['gunOut', 'tipWorn', 'hubTight'], attempts, random))
    const share = (key: string) => met.filter((m) => m === key).length / met.length
    expect(share('tipWorn')).toBeGreaterThan(share('hubTight'))
    expect(share('hubTight')).toBeGreaterThan(share('gunOut'))
    expect(nextFault([], [], random)).toBeNull()
  })
})
