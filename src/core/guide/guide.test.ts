import { PAIRS } from '@core/classes/pairs.ts'
import { describe, expect, it } from 'vitest'
import { FEEDER, wireOf } from '@core/testing/sampleparts.ts'
import { families, gunOf } from '@core/testing/sampleguide.ts'
import { NOTHING_OF_CELL, type FamilyFit, type Setup } from '@core/rightparts/facts.ts'
import { UNTOLD_FAMILY } from '@core/rightparts/untold.ts'
import { questionByCode, rulingFor } from '@core/houserule/schools.ts'
import { SYMPTOMS } from '@core/diagnose/shipped/symptoms.ts'
import { CHECKS } from '@core/diagnose/shipped/checks.ts'
import { CAUTIONS, cautionWords, HAZARDS, hazardsIn, MEETS } from './cautions.ts'
import { DRAWING_KEYS, PANEL } from '@core/drawings/drawing.ts'
import { DRAWINGS } from '@core/drawings/all.ts'
import { type GuideAt } from './guideat.ts'
import { GUIDES, guideSteps, hasGuide } from './guides.ts'
import { GUIDE_KEYS, type GuideKey } from './keys.ts'
import { trimBy } from './linerguide.ts'
import { guideRules, RULE_OF, USUAL_RULES, type GuideRules } from './rules.ts'
import { type Step } from './step.ts'
import { tightOf } from './tight.ts'

const SCHOOLS: Partial<GuideRules>[] = [
  {},
  { tipWhileFeeding: 'on', setScrew: 'unscrew', power: 'unplug', tension: 'fault', air: 'never', antiSpatter: 'dip' },
  { power: 'always', tensionBy: 'pinch', thread: 'scrap', oldTip: 'clean', antiSpatter: 'dip' },
  { tensionBy: 'ear', thread: 'file', oldTip: 'change' },
  { setScrew: 'screwFirst', trim: 'old', cable: 'scrap', gas: 'shut', lock: 'last', tight: 'allTight', speed: 'fast' },
  { trim: 'feederEnd', tight: 'handNip', crooked: 'knock', cutter: 'cutters', gas: 'leave', air: 'fittedToo' },
]

/**
 * A gun as it really is, told here by itself and by nothing of what composes the guides: what is on, and what lies over what.
 * A hand that touches a piece finds nothing over it; a piece that goes on finds what it sits on in place.
 */
class RealGun {
  readonly on = new Set([
    'nozzle',
    'insulator',
    'tip',
    'diffuser',
    'liner',
    'linerNut',
    'gun',
    'plug',
    'wire',
    'arm',
    'spool',
    'wireEnd',
    'power',
  ])
  /** The liner runs through the tip holder, which is what others call the diffuser: it stays on, and is measured from. */
  readonly isThroughHolder: boolean
  constructor(fit: Partial<FamilyFit>) {
    this.isThroughHolder = fit.linerRule === 'B'
    if (fit.hasClampRing) this.on.add('clampring')
    if (fit.linerHeldBy === 'set screw') this.on.add('setScrew')
  }
  private mustBeOff(what: string, over: readonly string[]): void {
    for (const piece of over) if (this.on.has(piece)) throw new Error(`${what}: ${piece} is still on`)
  }
  private mustBeOn(what: string, under: readonly string[]): void {
    for (const piece of under) if (!this.on.has(piece)) throw new Error(`${what}: ${piece} is not on`)
  }
  take(piece: string, over: readonly string[]): void {
    this.mustBeOff(`taking off ${piece}`, ['power', ...over])
    this.mustBeOn(`taking off ${piece}`, [piece])
    this.on.delete(piece)
  }
  put(piece: string, under: readonly string[]): void {
    this.mustBeOff(`putting on ${piece}`, [piece])
    this.mustBeOn(`putting on ${piece}`, under)
    this.on.add(piece)
  }
  mustHave(under: readonly string[]): void {
    this.mustBeOn('now', under)
  }
  touch(what: string, over: readonly string[]): void {
    this.mustBeOff(what, ['power', ...over])
  }
}
const HANDS: Record<string, (gun: RealGun) => void> = {
  isolate: (g) => g.on.delete('power'),
  on: (g) => g.put('power', ['arm', 'wire']),
  switch: () => undefined,
  nozzleOff: (g) => g.take('nozzle', []),
  snip: (g) => g.take('wireEnd', ['nozzle']),
  tipOff: (g) => g.take('tip', ['nozzle', 'wireEnd']),
  insulatorOff: (g) => g.take('insulator', ['nozzle']),
  clampOff: (g) => g.take('clampring', ['nozzle', 'tip']),
  screwOut: (g) => void (g.touch('set screw', ['nozzle', 'tip']), g.on.delete('setScrew')),
  diffuserOff: (g) => g.take('diffuser', ['nozzle', 'tip', 'clampring', 'setScrew']),
  armOpen: (g) => g.take('arm', []),
  wireOut: (g) => g.take('wire', ['arm', 'wireEnd', 'tip']),
  restOut: (g) => void (g.take('wire', ['arm', 'wireEnd', 'tip']), g.take('spool', ['wire'])),
  nestCut: (g) => g.touch('nest', ['arm']),
  // Cut at the guide it is drawn to the front, through the tip's seat.
  tailCut: (g) => void (g.touch('tail', ['arm']), g.on.delete('wire'), g.on.delete('spool')),
  behind: (g) => g.put('wire', ['liner', 'gun', 'spool', 'diffuser']),
  tailOut: (g) => g.touch('tail', []),
  nestDrawn: (g) => g.take('wire', ['arm', 'wireEnd', 'tip']),
  nestSeat: (g) => g.touch('rolls', ['arm', 'wire']),
  nestHub: (g) => g.touch('spool', ['arm']),
  nestTip: (g) => g.touch('tip in hand', ['tip']),
  plugOff: (g) => g.take('plug', []),
  gunOut: (g) => g.take('gun', ['plug', 'wire']),
  straight: (g) => g.touch('laying it straight', ['gun']),
  nutOff: (g) => g.take('linerNut', ['gun']),
  oldOut: (g) => g.take('liner', ['linerNut', 'tip', 'setScrew', 'wire', ...(g.isThroughHolder ? [] : ['diffuser'])]),
  air: (g) => g.touch('air', ['liner', 'wire']),
  oringsSeen: (g) => g.touch('O-rings', ['gun']),
  oringsNew: (g) => g.touch('O-rings', ['gun']),
  ready: (g) => g.touch('the ready gun', ['gun']),
  unpack: (g) => g.touch('new liner', ['liner']),
  roughCut: (g) => g.touch('new liner', ['liner']),
  push: (g) =>
    void (g.touch('liner in', ['gun', 'tip', ...(g.isThroughHolder ? [] : ['diffuser'])]), g.put('liner', [])),
  nutOn: (g) => g.put('linerNut', ['liner']),
  // On the bench, before it goes in; or in the gun, with its nut on.
  trim: (g) => {
    if (!g.on.has('liner')) return g.put('cut', [])
    g.touch('cutting at the front', ['gun', 'nozzle', 'tip', ...(g.isThroughHolder ? [] : ['diffuser'])])
    if (g.isThroughHolder) g.mustHave(['diffuser'])
    g.put('cut', ['liner', 'linerNut'])
  },
  trimFeeder: (g) => void (g.touch('cutting at the rolls', ['arm', 'wire']), g.put('cut', ['liner', 'gun'])),
  diffuserOn: (g) => g.put('diffuser', ['liner', 'linerNut']),
  screwIn: (g) => g.put('setScrew', ['diffuser', 'liner']),
  clampOn: (g) => g.put('clampring', ['diffuser']),
  seatTip: (g) => void (g.touch('seating', ['tip']), g.mustHave(['diffuser', 'liner'])),
  gunIn: (g) => g.put('gun', ['liner', 'linerNut']),
  plugOn: (g) => g.put('plug', ['gun']),
  spoolOn: (g) => void (g.touch('spool', ['wire']), g.put('spool', [])),
  thread: (g) => g.put('wire', ['liner', 'gun', 'spool', 'diffuser']),
  armClosed: (g) => g.put('arm', ['wire']),
  insulatorOn: (g) => void (g.touch('insulator', ['nozzle']), g.put('insulator', [])),
  tipOn: (g) => void (g.touch('tip on', []), g.mustHave(['diffuser']), g.put('tip', [])),
  nozzleOn: (g) =>
    void (
      g.touch('nozzle on', []),
      g.mustHave(['tip', 'insulator', 'diffuser']),
      g.put('nozzle', []),
      g.on.add('wireEnd')
    ),
  oldTip: (g) => g.touch('tip in hand', ['tip']),
  seatOfTip: (g) => g.touch('diffuser’s thread', ['tip', 'nozzle']),
  cleanNozzle: (g) => g.touch('nozzle in hand', ['nozzle']),
  tipFace: (g) => g.touch('tip’s face', ['nozzle']),
  oldInsulator: (g) => g.touch('insulator in hand', ['insulator']),
  diffuserHoles: (g) => g.touch('diffuser in hand', ['diffuser']),
  linerEndSeen: (g) => g.touch('liner’s end', ['diffuser']),
  rollsOff: (g) => g.touch('rolls', ['arm']),
  rollsOn: (g) => g.touch('rolls', ['arm']),
  outletLook: (g) => g.touch('outlet', ['arm']),
  'new-inlet': (g) => g.touch('inlet', ['arm', 'wire']),
  'new-outlet': (g) => g.touch('outlet', ['arm', 'wire']),
  gasShut: () => undefined,
  feed: (g) => void g.mustHave(['power', 'arm', 'wire', 'gun', 'diffuser']),
  tension: (g) => void g.mustHave(['power', 'arm', 'wire']),
  offAgain: (g) => void g.on.delete('power'),
  powerBack: (g) => g.put('power', []),
  dab: (g) => g.touch('the nozzle’s rim', []),
}
const NO_HANDS = new Set([
  'snipEnd',
  'closeGas',
  'closeCentre',
  'closing',
  'lockLast',
  'closeBrake',
  'closeMachine',
  'plugTry',
  'cleanFirst',
  'weldHot',
  'dip',
  'blowOut',
  'spray',
  'tryIt',
])
function walk(steps: readonly Step[], fit: Partial<FamilyFit>): RealGun {
  const gun = new RealGun(fit)
  for (const { key } of steps) {
    if (NO_HANDS.has(key)) continue
    const hand = HANDS[key]
    if (!hand) throw new Error(`the real gun knows no step "${key}"`)
    hand(gun)
  }
  return gun
}

const OF_A_GUN = GUIDE_KEYS.filter((k) => k !== 'machine' && k !== 'cylinder')
const name = (fit: Partial<FamilyFit>) =>
  `${fit.linerHeldBy ?? 'not told'}, ${fit.nozzleStyle ?? 'any'} nozzle, rule ${fit.linerRule ?? 'none'}${fit.hasClampRing ? ', ring' : ''}`

describe('every family × guide, on a gun as it really is', () => {
  it.each(OF_A_GUN)('%s: no step touches what is still covered, and the gun ends whole', (key) => {
    for (const fit of families())
      for (const rules of SCHOOLS)
        for (const liner of ['LS10', 'LP12']) {
          const settings = liner === 'LP12' ? { antiSpatter: 'gel' } : {}
          const at = gunOf(fit, { rules, liner, setup: { settings } })
          const whole = [...new RealGun(fit).on].sort()
          try {
            const gun = walk(guideSteps(at, key), fit)
            gun.on.delete('cut')
            // A screw that is looked for and not there is no screw.
            if (fit.linerHeldBy !== 'set screw') gun.on.delete('setScrew')
            expect([...gun.on].sort()).toEqual(whole)
          } catch (problem) {
            throw new Error(`${key} of ${name(fit)} under ${JSON.stringify(rules)} with ${liner}: ${String(problem)}`, {
              cause: problem,
            })
          }
        }
  })
  it('the walk can fail: a diffuser that is turned before its set screw is caught', () => {
    const fit = { linerHeldBy: 'set screw' as const }
    const steps = guideSteps(gunOf(fit), 'diffuser').filter((s) => s.key !== 'screwOut')
    expect(() => walk(steps, fit)).toThrow('setScrew is still on')
  })
  it('what has to come before another thing is said before it: wires through the panel, then the gun, then the plug', () => {
    const said = (s: Step) => `${s.do} ${s.look ?? ''}`
    for (const fit of families())
      for (const rules of SCHOOLS)
        for (const key of GUIDE_KEYS) {
          const steps = guideSteps(gunOf(fit, { rules }), key)
          const seated = steps.findIndex((s) => s.key === 'gunIn')
          const plugged = steps.findIndex((s) => s.key === 'plugOn')
          if (seated < 0) continue
          const panel = steps.findIndex((s) => said(s).includes('through the panel'))
          expect(panel, `${key} of ${name(fit)}`).toBeGreaterThanOrEqual(0)
          expect(panel).toBeLessThanOrEqual(seated)
          expect(seated).toBeLessThan(plugged)
          for (const s of steps.slice(seated + 1))
            expect(said(s), s.key).not.toMatch(/before (the gun|it) is (seated|in)/)
        }
  })
  it('a nest is cut on both sides before anything is drawn, and nothing feeds before what made it was looked for', () => {
    for (const fit of families())
      for (const rules of SCHOOLS) {
        const steps = guideSteps(gunOf(fit, { rules }), 'nest')
        const at = (key: string) => steps.findIndex((s) => s.key === key)
        const order = [
          'isolate',
          'armOpen',
          'nestCut',
          'tipOff',
          'nestDrawn',
          'nestSeat',
          'nestHub',
          'thread',
          'armClosed',
          'on',
          'feed',
        ]
        expect(order.map(at)).toEqual([...order.map(at)].sort((a, b) => a - b))
        expect(order.map(at)).not.toContain(-1)
        // Wire that nested is never wound back.
        expect(steps.map((s) => s.do).join(' ')).not.toMatch(/wind the wire back/i)
      }
  })
  it('what a step needs is made by one before it', () => {
    for (const fit of families())
      for (const rules of SCHOOLS)
        for (const key of GUIDE_KEYS) {
          const open = new Set<string>()
          for (const s of guideSteps(gunOf(fit, { rules }), key)) {
            for (const need of s.needs) expect(open.has(need), `${key}/${s.key} needs ${need}`).toBe(true)
            s.makes.forEach((c) => open.add(c))
            s.undoes.forEach((c) => open.delete(c))
          }
        }
  })
})

describe('cautions', () => {
  const all = GUIDE_KEYS.flatMap((key) =>
    families().flatMap((fit) =>
      SCHOOLS.flatMap((rules) => guideSteps(gunOf(fit, { rules }), key).map((s) => ({ key, s }))),
    ),
  )
  it('every step that touches a piece names a hazard that can be met there', () => {
    for (const { key, s } of all)
      for (const piece of s.works) {
        const meets = MEETS[piece]
        expect(meets, `${piece} of ${key}/${s.key}`).toBeDefined()
        expect(
          s.hazards.some((h) => meets?.includes(h)),
          `${key}/${s.key} touches ${piece}`,
        ).toBe(true)
      }
  })
  it('every hazard has words that defer to nobody’s memory, and the asking ones an answer', () => {
    for (const h of HAZARDS) {
      expect(CAUTIONS[h].words.length).toBeGreaterThan(20)
      expect(CAUTIONS[h].answer !== null).toBe(CAUTIONS[h].how === 'ask')
    }
    expect(cautionWords('isolate', {})).toContain('maker’s manual')
    expect(cautionWords('hot', { hot: 'Our own.' })).toBe('Our own.')
  })
  it('power comes off before hands, and on only behind a step that asks for clear hands', () => {
    for (const { s } of all) {
      if (s.makes.includes('powerOn')) expect(s.hazards).toContain('live')
      if (s.key === 'isolate') expect(s.hazards).toContain('isolate')
    }
  })
  it('each hazard is met somewhere', () => {
    const inGuides = all.flatMap(({ s }) => [...s.hazards, ...hazardsIn(s.hazards, true)])
    const met = new Set([...inGuides, ...CHECKS.flatMap((c) => c.hazards)])
    expect(HAZARDS.filter((h) => !met.has(h))).toEqual([])
  })
})

describe('a guide at a robot’s cell', () => {
  const reach = [null, 'from the floor', 'by ladder', 'tilts down'] as const
  // What is said to a hand goes by the key and the school; a few families stand for all.
  const few = families().filter((_, i) => i % 7 === 0)
  const all = few.flatMap((fit) =>
    SCHOOLS.flatMap((rules, i) => {
      const cell = { ...NOTHING_OF_CELL, reach: reach[i % reach.length] ?? null }
      return GUIDE_KEYS.map((key) => ({
        ...{ key, cell },
        steps: guideSteps(gunOf(fit, { rules, setup: { cell } }), key),
        byHand: guideSteps(gunOf(fit, { rules }), key),
      }))
    }),
  )
  it('speaks of no hand at the gun: no trigger, no lap, no hook, no glove at the wire', () => {
    for (const { key, steps } of all)
      for (const s of steps) {
        const words = `${s.do} ${s.look ?? ''} ${s.hazards.map((h) => CAUTIONS[h].words).join(' ')}`
        if (key !== 'antispatter')
          expect(words, `${key}/${s.key}`).not.toMatch(/trigger|lap\b|45°|dry glove|gun hung|clear floor|handle\b/i)
      }
  })
  it('begins with the cell’s own lock-out and not with a switch; nothing is fed with somebody inside', () => {
    for (const { key, steps } of all)
      for (const s of steps) {
        if (s.key === 'isolate') expect(s.hazards).toContain('robot')
        if (s.makes.includes('powerOn')) expect(s.hazards, key).toContain('fedInCell')
        for (const h of ['isolate', 'trigger', 'live'] as const) expect(s.hazards, `${key}/${s.key}`).not.toContain(h)
      }
  })
  it('is the same work in the same order, with a ladder where the spool sits high', () => {
    for (const { cell, steps, byHand } of all) {
      expect(steps.map((s) => s.key)).toEqual(byHand.map((s) => s.key))
      for (const [i, s] of steps.entries()) {
        const isSpool = s.works.includes('spool') || s.works.includes('hub')
        const extra = isSpool && cell.reach === 'by ladder' ? 3 : 0
        expect(s.minutes).toBe((byHand[i]?.minutes ?? 0) + extra)
        if (isSpool && cell.reach === 'by ladder') expect(s.hazards).toContain('ladder')
        if (cell.reach === 'from the floor') expect(s.hazards).not.toContain('ladder')
      }
    }
  })
  it('through a conduit wire goes with a cap on its end, air eased on, the cap off at the feeder; a drum has no brake', () => {
    const piece = { name: 'drum to post', lengthM: 4, bends: 2, lining: 'polymer' } as const
    const cell = { ...NOTHING_OF_CELL, payoff: 'drum' as const, conduit: [piece] }
    const keys = guideSteps(gunOf({}, { setup: { cell } }), 'wire').map((s) => s.key)
    const order = ['isolate', 'restOut', 'spoolOn', 'capOn', 'blowThrough', 'capOff', 'thread', 'feed']
    expect(order.map((k) => keys.indexOf(k))).toEqual([...order.map((k) => keys.indexOf(k))].sort((a, b) => a - b))
    expect(order.every((k) => keys.includes(k))).toBe(true)
    expect(keys).not.toContain('closeBrake')
    expect(guideSteps(gunOf({}, { setup: { cell: NOTHING_OF_CELL } }), 'wire').map((s) => s.key)).not.toContain('capOn')
  })
  it('names at every piece a hazard that can be met there', () => {
    for (const { key, steps } of all)
      for (const s of steps)
        for (const piece of s.works)
          expect(
            s.hazards.some((h) => MEETS[piece]?.includes(h)),
            `${key}/${s.key} touches ${piece}`,
          ).toBe(true)
  })
})

describe('a guide reads as if written for that gun', () => {
  const keys = (at: GuideAt, key: GuideKey) => guideSteps(at, key).map((s) => s.key)
  const text = (at: GuideAt, key: GuideKey) =>
    guideSteps(at, key)
      .map((s) => `${s.do} ${s.look ?? ''}`)
      .join(' ')
  it('takes the set screw out first where there is one, the ring where there is one, and neither elsewhere', () => {
    expect(keys(gunOf({ linerHeldBy: 'set screw', hasClampRing: true }), 'diffuser').slice(0, 7)).toEqual([
      'isolate',
      'nozzleOff',
      'snip',
      'tipOff',
      'clampOff',
      'screwOut',
      'diffuserOff',
    ])
    expect(keys(gunOf({ linerHeldBy: 'nut' }), 'diffuser')).not.toContain('screwOut')
  })
  it('turns a pushed-on nozzle clockwise only, and unscrews a threaded one', () => {
    expect(text(gunOf({ nozzleStyle: 'push-on' }), 'nozzle')).toContain('clockwise')
    expect(text(gunOf({ nozzleStyle: 'threaded' }), 'nozzle')).toContain('Unscrew the nozzle')
    expect(text(gunOf({ nozzleStyle: 'threaded' }), 'nozzle')).not.toContain('clockwise')
  })
  it('cuts by the family: depth of the seat, pushed back, like the old one, or asks', () => {
    expect(text(gunOf({ linerRule: 'A', seatDepthMm: 18 }), 'liner')).toContain('18 mm must stand out')
    expect(text(gunOf({ linerRule: 'B', pushBackMm: 3 }), 'liner')).toContain('pushed back 3 mm, it is level')
    expect(text(gunOf({ linerRule: 'C', linerHeldBy: 'butt' }), 'liner')).toContain('by rule A')
    expect(text(gunOf({}), 'liner')).toContain('ask the lead')
  })
  it('leaves the tip holder on where the liner runs through it and is cut level with it', () => {
    const b = keys(gunOf({ linerRule: 'B', pushBackMm: 3, linerHeldBy: 'nut' }), 'liner')
    expect(b).not.toContain('diffuserOff')
    expect(b.indexOf('tipOff')).toBeLessThan(b.indexOf('trim'))
    expect(keys(gunOf({ linerRule: 'A', seatDepthMm: 18, linerHeldBy: 'nut' }), 'liner')).toContain('diffuserOff')
  })
  it('cuts in the gun with its nut on, and only a copy on the bench before it goes in', () => {
    const order = (fit: Partial<FamilyFit>) =>
      keys(gunOf(fit), 'liner').filter((k) => ['push', 'nutOn', 'trim'].includes(k))
    expect(order({ linerRule: 'A', seatDepthMm: 18 })).toEqual(['push', 'nutOn', 'trim'])
    expect(order({ linerRule: 'B', pushBackMm: 3 })).toEqual(['push', 'nutOn', 'trim'])
    expect(order({ linerRule: 'C' })).toEqual(['trim', 'push', 'nutOn'])
  })
  it('a tube that runs to the rolls is cut there, with the gun in, by a hose cutter', () => {
    const at = gunOf({ linerRule: 'A', seatDepthMm: 18 }, { liner: 'LP12', setup: { wire: wireOf('aluminium', 1.2) } })
    expect(trimBy(at)).toBe('feeder')
    expect(keys(at, 'liner').indexOf('trimFeeder')).toBeGreaterThan(keys(at, 'liner').indexOf('gunIn'))
    expect(text(at, 'liner')).toContain('hose cutter')
    expect(text(at, 'liner')).toContain('brass sleeve')
    expect(trimBy({ ...at, setup: { ...at.setup, feeder: { ...FEEDER, runsLinerToRolls: false } } })).toBe('A')
  })
  it('blows only the empty tube, and nothing where the shop never blows', () => {
    const order = keys(gunOf({}), 'liner')
    expect(order.indexOf('air')).toBe(order.indexOf('oldOut') + 1)
    expect(keys(gunOf({}, { rules: { air: 'never' } }), 'liner')).not.toContain('air')
  })
  it('puts the tip on to seat the liner and takes it off again to feed; where the shop feeds with it on it stays', () => {
    const fit = { linerRule: 'B' as const, doesTipSeatLiner: true, pushBackMm: 3 }
    const off = keys(gunOf(fit), 'liner')
    expect(off.indexOf('seatTip')).toBeLessThan(off.indexOf('feed'))
    expect(off.indexOf('tipOn')).toBeGreaterThan(off.indexOf('feed'))
    const on = keys(gunOf(fit, { rules: { tipWhileFeeding: 'on' } }), 'liner')
    expect(on).not.toContain('seatTip')
    expect(on.indexOf('tipOn')).toBeLessThan(on.indexOf('feed'))
    expect(on.indexOf('snipEnd')).toBeGreaterThan(on.indexOf('feed'))
  })
  it('sets the tension when the shop sets it', () => {
    const has = (tension: GuideRules['tension'], key: GuideKey) =>
      keys(gunOf({}, { rules: { tension } }), key).includes('tension')
    expect((['allFour', 'liner', 'wire', 'fault'] as const).map((t) => [has(t, 'liner'), has(t, 'wire')])).toEqual([
      [true, true],
      [true, false],
      [true, true],
      [false, false],
    ])
  })
  it('shows the wire’s way on this feeder, and only the plug that it has', () => {
    const drawn = (setup: Partial<Setup>) => guideSteps(gunOf({}, { setup }), 'wire').flatMap((s) => s.drawing ?? [])
    expect(drawn({})).toContain('pathOver4')
    expect(drawn({ feeder: { ...FEEDER, rollCount: 2, unwind: 'from underneath' } })).toEqual(
      expect.arrayContaining(['pathUnder2', 'spoolUnder']),
    )
    expect(text(gunOf({ plug: 'tabs' }), 'plug')).toContain('tabs')
    expect(text(gunOf({ plug: 'keyed' }), 'plug')).toContain('ring round to its stop')
  })
  it('dips a hot nozzle to its shoulder and blows it out; gel and spray have their own steps, and none has none', () => {
    const by = (antiSpatter?: string, rules: Partial<GuideRules> = {}) => {
      const at = gunOf({}, { rules, setup: { settings: antiSpatter ? { antiSpatter } : {} } })
      return hasGuide(at, 'antispatter') ? guideSteps(at, 'antispatter').map((s) => s.key) : null
    }
    expect(by('dip')).toEqual(['cleanFirst', 'weldHot', 'dip', 'blowOut', 'tryIt'])
    expect(by('gel')).toEqual(['cleanFirst', 'isolate', 'dab', 'powerBack', 'tryIt'])
    expect(by('spray')).toContain('spray')
    expect(by(undefined, { antiSpatter: 'dip' })).toContain('dip')
    expect([by('none'), by(), by('dip', { antiSpatter: 'none' })]).toEqual([null, null, null])
  })
  it('the same wire goes in behind its tail, with the front on; soft wire and a gun whose wire nobody knows do not', () => {
    const steps = keys(gunOf({}), 'tail')
    expect(steps).not.toContain('nozzleOff')
    expect(steps.indexOf('behind')).toBeLessThan(steps.indexOf('armClosed'))
    expect(steps.indexOf('offAgain')).toBeLessThan(steps.indexOf('tailOut'))
    const minutes = (key: GuideKey) => guideSteps(gunOf({}), key).reduce((sum, s) => sum + s.minutes, 0)
    expect(minutes('tail')).toBeLessThan(minutes('wire') - 2)
    const has = (wire: Setup['wire']) => hasGuide(gunOf({}, { setup: { wire } }), 'tail')
    expect([has(wireOf('solid', 0.9)), has(wireOf('aluminium', 1.2)), has(null)]).toEqual([true, false, false])
  })
  it('has a guide for what is on the gun, and none for what is not', () => {
    const at = gunOf({}, { rules: { antiSpatter: 'dip' } })
    expect(GUIDE_KEYS.every((k) => hasGuide(at, k))).toBe(true)
    const bare = { ...at, setup: { ...at.setup, parts: { tip: null } } }
    expect(GUIDE_KEYS.filter((k) => hasGuide(bare, k))).toEqual([
      ...['tip', 'gun', 'wire', 'tail', 'nest', 'plug', 'cylinder', 'machine'],
    ])
    for (const k of GUIDE_KEYS) expect(GUIDES[k].name).not.toBe('')
  })
  it('takes minutes, and none of its steps is longer than a step', () => {
    for (const key of GUIDE_KEYS)
      for (const s of guideSteps(gunOf({}), key)) expect(s.minutes > 0 && s.minutes <= 8, `${key}/${s.key}`).toBe(true)
  })
})

describe('how tight', () => {
  it('is the family’s own step, else the school’s', () => {
    const fit = { ...UNTOLD_FAMILY, tightness: { tip: { step: 3 as const, sinceMs: 0 } } }
    expect(tightOf('tip', fit, { tight: 'handNip' })).toBe(3)
    expect(tightOf('tip', UNTOLD_FAMILY, { tight: 'byJoint' })).toBe(2)
    expect(tightOf('tip', UNTOLD_FAMILY, { tight: 'allTight' })).toBe(4)
    expect(tightOf('diffuser', UNTOLD_FAMILY, { tight: 'handNip' })).toBe(2)
    expect(tightOf('insulator', UNTOLD_FAMILY, { tight: 'handNip' })).toBe(1)
  })
})

describe('rules of the guides', () => {
  const choice = (option: string) => [{ code: 'D10' as const, scopeType: 'site' as const, scopeKey: '*', option }]
  const rulesBy = (option: string) => guideRules((code) => rulingFor(code, {}, choice(option)).school.key)
  it('go by what the shop chose, else by what is usual', () => {
    expect(rulesBy('on')).toEqual({ ...USUAL_RULES, tipWhileFeeding: 'on' })
    for (const [name, code] of Object.entries(RULE_OF))
      expect(USUAL_RULES[name as keyof GuideRules], name).toBe(questionByCode.get(code)?.usual)
  })
  it('fall back to the usual where a choice is of another version', () =>
    expect(rulesBy('sideways')).toEqual(USUAL_RULES))
})

describe('drawings', () => {
  it('each is drawn within its panel, told apart in words, and used', () => {
    for (const key of DRAWING_KEYS) {
      const { panels, title } = DRAWINGS[key]
      expect(title).not.toBe('')
      expect(new Set(panels.map((p) => p.word)).size).toBe(panels.length)
      for (const panel of panels)
        for (const at of panel.labels ?? [])
          expect(at.x >= 0 && at.x <= PANEL.width && at.y >= 0 && at.y <= PANEL.height).toBe(true)
    }
    const used = new Set([
      ...CHECKS.flatMap((c) => c.drawing ?? []),
      ...SYMPTOMS.flatMap((s) => s.drawn?.[0] ?? []),
      ...Object.values(PAIRS).map((p) => p.drawing),
      ...GUIDE_KEYS.flatMap((key) =>
        families().flatMap((fit) =>
          [
            {},
            { feeder: { ...FEEDER, rollCount: 2 as const } },
            { feeder: { ...FEEDER, unwind: 'from underneath' as const } },
            { feeder: { ...FEEDER, rollCount: 2 as const, unwind: 'from underneath' as const } },
            { feeder: null },
            { mode: 'spray' as const },
          ].flatMap((setup) =>
            ['LS10', 'LP12'].flatMap((liner) =>
              SCHOOLS.flatMap((rules) =>
                guideSteps(gunOf(fit, { setup, liner, rules }), key).flatMap((s) => s.drawing ?? []),
              ),
            ),
          ),
        ),
      ),
    ])
    expect(DRAWING_KEYS.filter((k) => !used.has(k))).toEqual([])
  })
})
