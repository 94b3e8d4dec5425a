import { roughLength, ruleSpan } from '@core/units/length.ts'
import { describe, expect, it } from 'vitest'
import { FEEDER, NO_PROCEDURE, RIGHT_STEEL, SHELF, wireOf } from '@core/testing/sampleparts.ts'
import { check } from '@core/rightparts/check.ts'
import { type Setup } from '@core/rightparts/facts.ts'
import { costOf } from './cost.ts'
import { planChange, type ChangePlan } from './plan.ts'
import { USUAL_RULES, type GuideRules } from '@core/guide/rules.ts'
import { type Condition, type Step } from '@core/guide/step.ts'
import { feedingSeconds, pathOf } from '@core/guide/guideat.ts'
import { stepsOf } from './steps.ts'
import { TAG_TEXT } from './tags.ts'

const ALU = wireOf('aluminium', 1.2)
const CORED = wireOf('flux-cored', 1.2, { isSelfShielded: true, pricePerKgMinor: 600 })
const STEEL = wireOf('solid', 0.9)
const shop = {
  minutesOf: () => 5,
  sizeWord: String,
  lengthWord: (m: number) => `${m.toFixed(2)} m`,
  ruleWord: (mm: number) => `${mm} mm`,
  spanWord: (mm: readonly [number, number]) => ruleSpan(mm, 'mm'),
  roughWord: (mm: number) => roughLength(mm, 'mm'),
}
const to = (from: Setup, target: Parameters<typeof planChange>[1], more = {}) =>
  planChange(from, target, { parts: SHELF, gases: ['argon mix', 'argon', 'CO2'], ...more })

describe('from 0.9 steel to aluminium on a feeder whose liner runs to the rolls', () => {
  const plan = to(RIGHT_STEEL, { wire: ALU, mode: 'pulse' })
  it('swaps tip, rolls and liner, takes the steel outlet guide out, and leaves the rest', () => {
    expect(plan.swaps.map((s) => s.to?.code)).toEqual(['RU12', 'LP12', 'T12A'])
    expect(plan.outletGuide).toBe('out')
    expect(plan.stays.map((p) => p.code)).toEqual(['GI', 'DF', 'IN', 'NZ'])
  })
  it('ends with nothing wrong', () => {
    expect(plan.left).toEqual([])
    expect(check(plan.to).filter((f) => f.severity !== 'note')).toEqual([])
  })
  it('sets the machine, the gas and the rolls, and leaves the polarity that is right', () => {
    expect(plan.settings).toEqual({
      roll1: '1.2',
      roll2: '1.2',
      roll3: '1.2',
      roll4: '1.2',
      machineWire: '1.2',
      machineMode: 'pulse',
      machineMaterial: 'aluminium 4xxx',
      gas: 'argon',
    })
  })
  it('and back again is the same set-up, with the parts that were put by', () => {
    const kept = plan.swaps.flatMap((s) => (s.isKept && s.from ? [s.from.id] : []))
    const guide = RIGHT_STEEL.parts['outlet']
    const more = { keptIds: kept, isGuideOut: true, guideId: guide?.id ?? null }
    const back = to(plan.to, { wire: STEEL, mode: 'short circuit', gas: 'argon mix' }, more)
    expect(back.to).toEqual(RIGHT_STEEL)
  })
})

describe('a change of size', () => {
  it('turns rolls that have the other size on their other face', () => {
    const plan = to(RIGHT_STEEL, { wire: wireOf('solid', 1) })
    expect(plan.turns).toEqual({ rolls: [1, 2, 3, 4], readMm: 1 })
    expect(plan.swaps.map((s) => s.to?.code)).toEqual(['T10'])
  })
  it('says what the shop has none of', () => {
    const plan = to(RIGHT_STEEL, { wire: wireOf('solid', 1.6) })
    expect(plan.swaps.filter((s) => s.to === null).map((s) => s.kindKey)).toContain('rolls')
    expect(plan.left.map((f) => f.at)).toContain('rolls')
  })
  it('never tells to fit what is wrong where the right one is not here', () => {
    const parts = SHELF.filter((p) => p.kindKey !== 'tip' || p.code === 'T9')
    const plan = planChange(RIGHT_STEEL, { wire: ALU }, { parts, gases: ['argon'] })
    const tipOn = stepsOf(plan, USUAL_RULES, shop).find((s) => s.key === 'tipOn')
    expect(tipOn?.do).toMatch(/bought first: none is here/)
    expect(tipOn?.do).not.toContain('T9')
  })
  it('names what nobody knows to be on', () => {
    const from = { ...RIGHT_STEEL, parts: { ...RIGHT_STEEL.parts, liner: null } }
    expect(to(from, { wire: ALU }).unknown).toEqual(['liner'])
  })
  it('rolls whose face nobody has read are read, one tick each, and written down', () => {
    const { roll2: _, roll4: __, ...settings } = RIGHT_STEEL.settings
    const plan = to({ ...RIGHT_STEEL, settings }, { wire: wireOf('solid', 1) })
    expect([plan.turns, plan.unread]).toEqual([
      { rolls: [1, 3], readMm: 1 },
      { rolls: [2, 4], readMm: 1 },
    ])
    expect(plan.settings).toMatchObject({ roll1: '1', roll2: '1', roll3: '1', roll4: '1' })
    const ticks = stepsOf(plan, USUAL_RULES, shop).filter((s) => s.key.startsWith('read-roll'))
    expect(ticks.map((s) => s.do)).toEqual([1, 2, 3, 4].map((n) => `Roll ${n}: number 1 faces you.`))
    expect(ticks.map((s) => s.look !== null)).toEqual([false, true, false, true])
    // The same size again, never read: it is read all the same.
    expect(to({ ...RIGHT_STEEL, settings }, { wire: STEEL }).unread?.rolls).toEqual([2, 4])
  })
  it('takes the gas that is usual here, names what would go as well, and never one that cannot carry the mode', () => {
    const alu = to(RIGHT_STEEL, { wire: ALU }, { gases: ['argon-helium', 'argon'] })
    expect([alu.settings.gas, alu.gasChoice]).toEqual(['argon-helium', ['argon']])
    expect(stepsOf(alu, USUAL_RULES, shop).find((s) => s.key === 'gas')?.look).toContain('argon would go as well')
    expect(to(RIGHT_STEEL, { wire: ALU }, { gases: ['argon mix'] })).toMatchObject({
      settings: { gas: 'argon' },
      gasChoice: [],
    })
    const onAlu = to(RIGHT_STEEL, { wire: ALU, mode: 'pulse' }).to
    const back = to(onAlu, { wire: STEEL, mode: 'pulse' })
    expect([back.to.gas, back.gasChoice]).toEqual(['argon mix', []])
    const short = to(onAlu, { wire: STEEL, mode: 'short circuit' })
    expect([short.to.gas, short.gasChoice]).toEqual(['argon mix', ['CO2']])
  })
  it('what nobody noted is looked at before another wire goes through it, and never taken to be right', () => {
    const untold = { ...RIGHT_STEEL, parts: { ...RIGHT_STEEL.parts, rolls: null, liner: null, tip: null } }
    const words = (wire: typeof STEEL) => stepsOf(to(untold, { wire }), USUAL_RULES, shop).map((s) => [s.key, s.do])
    const [other, same] = [words(ALU), words(untold.wire ?? STEEL)]
    const of = (list: typeof other, key: string) => list.find(([k]) => k === key)?.[1]
    expect(of(other, 'read-rolls')).toContain('1.2 faces you on all of them?')
    expect(of(other, 'untold-liner')).toContain('nobody has noted')
    expect(of(other, 'tipOn')).toContain('A tip marked 1.2')
    expect([of(same, 'read-rolls'), of(same, 'untold-liner')]).toEqual([undefined, undefined])
    expect(of(same, 'tipOn')).toMatch(/^The tip over the wire/)
  })
  it('takes the gas by how thick the metal is, where two would go and the procedure tells', () => {
    const onAlu = to(RIGHT_STEEL, { wire: ALU }).to
    const by = (thicknessMm: [number, number]) => {
      const procedure = { ...NO_PROCEDURE, mode: 'short circuit' as const, thicknessMm }
      const plan = to(onAlu, { wire: STEEL, procedure })
      return [
        plan.to.gas,
        stepsOf(plan, USUAL_RULES, shop)
          .find((s) => s.key === 'gas')
          ?.look?.split('.')[0],
      ]
    }
    expect(by([6, 12])).toEqual(['CO2', 'By how thick the metal is'])
    expect(by([1, 3])).toEqual(['argon mix', 'By how thick the metal is'])
    expect(by([2, 8])).toEqual(['argon mix', 'The usual one here'])
  })
  it('swaps the polarity for gasless cored wire', () =>
    expect(to(RIGHT_STEEL, { wire: CORED }).settings).toMatchObject({ polarity: 'gun negative', gas: 'none' }))
})

/** Every step finds what it needs, and nothing is left open. */
function walk(steps: readonly Step[]): { open: Set<Condition>; tags: Set<string> } {
  const open = new Set<Condition>()
  const tags = new Set<string>()
  for (const step of steps) {
    for (const need of step.needs) if (!open.has(need)) throw new Error(`${step.key} needs ${need}`)
    step.makes.forEach((c) => open.add(c))
    step.undoes.forEach((c) => open.delete(c))
    if (step.tie) tags.add(step.tie)
    if (step.untie) tags.delete(step.untie)
  }
  return { open, tags }
}
const WIRES = [STEEL, wireOf('solid', 1), wireOf('solid', 1.2), CORED, wireOf('metal-cored', 1.2), ALU]
const RULE_SETS: GuideRules[] = [
  USUAL_RULES,
  { ...USUAL_RULES, gas: 'shut', lock: 'last', cable: 'scrap', power: 'unplug' },
  { ...USUAL_RULES, tipWhileFeeding: 'on', speed: 'steady', setScrew: 'unscrew', tension: 'fault', gas: 'leave' },
]

describe('the knob', () => {
  const doOf = (wire: typeof STEEL, more: Partial<Parameters<typeof stepsOf>[2]> = {}) => {
    const steps = stepsOf(to(RIGHT_STEEL, { wire }), { ...USUAL_RULES, tension: 'fault' }, { ...shop, ...more })
    const say = (key: string) => steps.find((s) => s.key === key)
    return { keys: steps.map((s) => s.key), off: say('armOpen'), on: say('armClosed'), feed: say('feed') }
  }
  it('never goes back to the old wire’s mark: slack for another wire, and set once it is through', () => {
    for (const wire of [CORED, ALU, wireOf('metal-cored', 1.2), wireOf('solid', 1)]) {
      const { keys, off, on, feed } = doOf(wire)
      expect(on?.do).toMatch(/^Knob slackened right off, then the arm closed/)
      expect(`${off?.do} ${off?.look}`).not.toMatch(/back to the same mark/)
      expect(feed?.look).toContain('a quarter turn more')
      expect(keys.indexOf('armClosed')).toBeLessThan(keys.indexOf('feed'))
      expect(keys.indexOf('tension')).toBeGreaterThan(keys.indexOf('feed'))
    }
    expect(doOf(CORED).on?.do).toContain('cored wire is crushed')
    expect(doOf(ALU).on?.do).toContain('soft wire is flattened')
  })
  it('begins at the mark kept for this feeder and wire, and for the same wire at its own', () => {
    expect(doOf(ALU, { mark: 1.4 }).on?.do).toMatch(/^Knob to 1.4: there it stood/)
    expect(doOf(RIGHT_STEEL.wire ?? STEEL).on?.do).toBe('Pressure arm closed, knob at the mark it had.')
  })
})

describe('the order of it', () => {
  const plans: ChangePlan[] = WIRES.map((wire) => to(RIGHT_STEEL, { wire }))
  it('never asks for what is still covered, over every wire and school, and ends closed', () => {
    for (const plan of plans)
      for (const rules of RULE_SETS) {
        const { open, tags } = walk(stepsOf(plan, rules, shop))
        for (const c of ['nozzleOff', 'tipOff', 'diffuserOff', 'screwOut'] as const) expect(open.has(c)).toBe(false)
        expect([...tags].filter((t) => t !== 'guideOut')).toEqual([])
      }
  })
  it('is off before hands touch, on only to feed, and asks at the end', () => {
    const steps = stepsOf(to(RIGHT_STEEL, { wire: ALU }), USUAL_RULES, shop)
    const phases = [...new Set(steps.map((s) => s.phase))]
    expect(phases).toEqual(['off', 'work', 'on', 'close'])
    expect(steps[0]?.key).toBe('isolate')
    expect(steps.filter((s) => s.phase === 'work').every((s) => s.power === 'off')).toBe(true)
  })
  it('puts the tip on after feeding, or before it where the shop feeds with the tip on', () => {
    const orderOf = (tipWhileFeeding: GuideRules['tipWhileFeeding']) => {
      const keys = stepsOf(to(RIGHT_STEEL, { wire: ALU }), { ...USUAL_RULES, tipWhileFeeding }, shop).map((s) => s.key)
      return ['swap-tip', 'nozzleOn', 'feed'].sort((a, b) => keys.indexOf(a) - keys.indexOf(b))
    }
    expect(orderOf('off')).toEqual(['feed', 'swap-tip', 'nozzleOn'])
    expect(orderOf('on')).toEqual(['swap-tip', 'nozzleOn', 'feed'])
    const on = stepsOf(to(RIGHT_STEEL, { wire: ALU }), { ...USUAL_RULES, tipWhileFeeding: 'on' }, shop)
    expect(on.findIndex((s) => s.key === 'snipEnd')).toBeGreaterThan(on.findIndex((s) => s.key === 'feed'))
    expect(on.filter((s) => s.phase === 'work').every((s) => s.power === 'off')).toBe(true)
  })
  it('takes the set screw out before the diffuser where the family has one', () => {
    const keys = stepsOf(to(RIGHT_STEEL, { wire: ALU }), USUAL_RULES, shop).map((s) => s.key)
    expect(keys.indexOf('screwOut')).toBeGreaterThan(0)
    expect(keys.indexOf('screwOut')).toBeLessThan(keys.indexOf('diffuserOff'))
    // Known to have one: no school about it.
    const unscrewed = stepsOf(to(RIGHT_STEEL, { wire: ALU }), { ...USUAL_RULES, setScrew: 'unscrew' }, shop)
    expect(unscrewed.some((s) => s.key === 'screwOut')).toBe(true)
    const family = RIGHT_STEEL.family && {
      ...RIGHT_STEEL.family,
      fit: RIGHT_STEEL.family.fit && { ...RIGHT_STEEL.family.fit, linerHeldBy: null },
    }
    const has = (setScrew: GuideRules['setScrew']) =>
      stepsOf(to({ ...RIGHT_STEEL, family }, { wire: ALU }), { ...USUAL_RULES, setScrew }, shop).some(
        (s) => s.key === 'screwOut',
      )
    expect([has('family'), has('screwFirst'), has('unscrew')]).toEqual([true, true, false])
  })
  it('every step that touches feed parts names a hazard or stands behind one that does', () => {
    for (const key of ['isolate', 'nozzleOff', 'snip', 'wireOut', 'spoolOff', 'spoolOn', 'thread', 'on', 'feed'])
      expect(
        stepsOf(to(RIGHT_STEEL, { wire: ALU }), USUAL_RULES, shop).find((s) => s.key === key)?.hazards,
      ).not.toEqual([])
  })
  it('the liner inside it is the liner job: a soft one cut at the rolls alone, gun and plug off and on, rough cut first', () => {
    const keys = stepsOf(to(RIGHT_STEEL, { wire: ALU }), USUAL_RULES, shop).map((s) => s.key)
    const job = [
      'plugOff',
      'gunOut',
      'straight',
      'nutOff',
      'oldOut',
      'unpack',
      'push',
      'nutOn',
      'gunIn',
      'plugOn',
      'trimFeeder',
    ]
    expect(job.map((k) => keys.indexOf(k))).toEqual([...job.map((k) => keys.indexOf(k))].sort((x, y) => x - y))
    expect(job.map((k) => keys.indexOf(k))).not.toContain(-1)
    // At the front nothing is cut: it is pressed home.
    expect(keys).not.toContain('trim')
    expect(keys.indexOf('trimFeeder')).toBeLessThan(keys.indexOf('thread'))
    expect(keys.filter((k, i) => keys.indexOf(k) !== i)).toEqual([])
    const long = SHELF.map((p) => (p.code === 'LP12' && p.fit ? { ...p, fit: { ...p.fit, lengthM: 6 } } : p))
    const cut = stepsOf(to(RIGHT_STEEL, { wire: ALU }, { parts: long }), USUAL_RULES, shop)
    const rough = /^Rough cut on the bench: (\d\.\d\d) m/.exec(cut.find((s) => s.key === 'roughCut')?.do ?? '')
    // It reaches the rolls, and leaves something for the cut that counts.
    expect(Number(rough?.[1])).toBeGreaterThan(pathOf({ setup: RIGHT_STEEL }) + 0.1)
  })
  it('shuts the gas only where the trigger would let it out', () => {
    const jogless = { ...RIGHT_STEEL, feeder: { ...FEEDER, hasJog: false } }
    const has = (from: Setup) => stepsOf(to(from, { wire: ALU }), USUAL_RULES, shop).some((s) => s.key === 'gasShut')
    expect([has(RIGHT_STEEL), has(jogless)]).toEqual([false, true])
  })
  it('every tag has words and a place', () =>
    expect(Object.values(TAG_TEXT).every((t) => t.says && t.back && t.at)).toBe(true))
})

describe('what a change costs', () => {
  it('feeds the length of the gun at the speed of the feeder', () => {
    const plan = to(RIGHT_STEEL, { wire: ALU })
    expect(feedingSeconds({ setup: plan.to, rules: { ...USUAL_RULES, speed: 'fast' } })).toBeCloseTo(
      (4.35 / 20) * 60,
      6,
    )
    expect(feedingSeconds({ setup: plan.to, rules: USUAL_RULES })).toBeCloseTo((3.85 / 20 + 0.5 / 3) * 60, 6)
  })
  it('counts wire that is binned, at its price, and gas that is let out', () => {
    const from = {
      ...RIGHT_STEEL,
      wire: wireOf('solid', 1, { pricePerKgMinor: 400 }),
      feeder: { ...FEEDER, hasJog: false },
    }
    const plan = to(from, { wire: ALU })
    const rules = { ...USUAL_RULES, gas: 'leave', cable: 'scrap' } as const
    const steps = stepsOf(plan, rules, shop)
    const cost = costOf(plan, { steps, rules, gasMinorPerM3: 900, isScrapped: true })
    expect(cost.wireM).toBeCloseTo(4.5, 9)
    expect(cost.wireKg).toBeCloseTo((((4.5 * Math.PI) / 4) * 7.85) / 1000, 9)
    expect(cost.wireMinor).toBeCloseTo(400 * cost.wireKg, 9)
    expect(cost.gasL).toBeCloseTo((14 * feedingSeconds({ setup: plan.to, rules: USUAL_RULES })) / 60, 9)
    expect(cost.minutesLow).toBeLessThan(cost.minutes)
  })
  it('scraps only the snipped ends where wire is wound back', () => {
    const plan = to(RIGHT_STEEL, { wire: ALU })
    const steps = stepsOf(plan, USUAL_RULES, shop)
    expect(costOf(plan, { steps, rules: USUAL_RULES, gasMinorPerM3: null, isScrapped: false })).toMatchObject({
      wireM: 0.15,
      wireMinor: null,
      gasL: 0,
    })
  })
})
