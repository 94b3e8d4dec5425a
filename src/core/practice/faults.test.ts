import { describe, expect, it } from 'vitest'
import { indexOf } from '@core/diagnose/belief.ts'
import { fixKey } from '@core/diagnose/moves.ts'
import { isFor } from '@core/diagnose/ratio.ts'
import { SHIPPED } from '@core/diagnose/shipped/knowledge.ts'
import { runBead } from './bead.ts'
import { answerOf, faultsFor } from './drill.ts'
import { brokenRig, FAULT_KEYS, loadOf } from './faults.ts'
import { soundRig } from './rig.ts'
import { USUAL_BOOTHS } from './setups.ts'
import { figuresOf, signsOf } from './signs.ts'

const knowledge = indexOf(SHIPPED)
const listedFor = (key: string) => knowledge.symptoms.filter((s) => s.causes.includes(key)).map((s) => s.key)
const DEGREES = [0.5, 0.9, 0.25, 0, 1]

describe.each(USUAL_BOOTHS.map((setup) => [setup.name, setup] as const))('faults in %s', (_, setup) => {
  const rig = soundRig(setup)
  const signs = (key: (typeof FAULT_KEYS)[number], bad: number) => {
    const broken = brokenRig(rig, [{ key, bad }])
    return signsOf(runBead(broken, { seed: 11 }), { rig: broken, setup })
  }
  it.each(faultsFor(knowledge, setup))('%s shows as one of the things that are complained of for it', (key) => {
    const listed = listedFor(key)
    expect(DEGREES.some((bad) => signs(key, bad).some((s) => listed.includes(s)))).toBe(true)
  })
  it('the worse it is, the more what holds the wire back loads the rolls', () => {
    for (const key of ['linerWorn', 'linerDirty', 'hubTight', 'tensionLow', 'cableCoiled', 'rollWorn'] as const) {
      const loads = [...DEGREES].sort().map((bad) => loadOf(brokenRig(rig, [{ key, bad }])))
      expect([key, [...loads].sort((a, b) => a - b)]).toEqual([key, loads])
      expect(loads[0]).toBeGreaterThan(loadOf(rig))
    }
  })
})

it('there are thirty and more, each known to the knowledge with its fix', () => {
  expect(FAULT_KEYS.length).toBeGreaterThan(40)
  expect(FAULT_KEYS.filter((key) => !knowledge.causeAt.has(key))).toEqual([])
})

it('every fault can be told from those that are complained of in the same words, by some look or by its fix', () => {
  const looks = (key: string, symptom: string) =>
    knowledge.checks
      .filter((c) => isFor(c, symptom))
      .map((check) => answerOf(check, { left: [{ key: key as never, bad: 1 }], luck: 0 }).outcome.key)
      .join()
  const fixOf = (key: string) => fixKey(knowledge.causes[knowledge.causeAt.get(key) ?? 0]!)
  for (const { key: symptom, causes } of knowledge.symptoms) {
    const faults = causes.filter((c) => (FAULT_KEYS as string[]).includes(c))
    for (const a of faults)
      for (const b of faults.filter((x) => x > a && fixOf(x) !== fixOf(a) && !isOneInTwo(a, x)))
        expect([symptom, a, b, looks(a, symptom) === looks(b, symptom)]).toEqual([symptom, a, b, false])
  }
})

/** Cored wire is crushed by too much pressure: it is that, and what it left. */
const isOneInTwo = (a: string, b: string) => a === 'coredCrushed' && b === 'tensionHigh'

it('a look and the meter agree: what reads low at the gun has lost gas, what pulls hard is loaded', () => {
  const setup = USUAL_BOOTHS[0]!
  const rig = soundRig(setup)
  const seen = (check: string, key: (typeof FAULT_KEYS)[number]) =>
    answerOf(knowledge.checkOf.get(check)!, { left: [{ key, bad: 1 }], luck: 0 }).outcome.key
  for (const key of faultsFor(knowledge, setup)) {
    const broken = brokenRig(rig, [{ key, bad: 1 }])
    const lpm = (broken.gas.lpm ?? 0) * broken.gas.arrives
    if (seen('flow', key) !== 'well') expect([key, lpm < 0.7 * (rig.gas.lpm ?? 0)]).toEqual([key, true])
    if (seen('pull', key) === 'hard') expect([key, loadOf(broken) > loadOf(rig) * 1.05]).toEqual([key, true])
    if (seen('watchRolls', key) === 'slip') {
      const f = figuresOf(runBead(broken, { seed: 3 }), { rig: broken, setup })
      expect([key, f.slips > 0.3]).toEqual([key, true])
    }
  }
})
