import { describe, expect, it } from 'vitest'
import { makeRandom } from '@core/random/random.ts'
import { calibrateKnob } from './calibrate.ts'
import { atKnob, coilsToShut, explain, middleMark, widthOf } from './explain.ts'
import { conduitFriction, frictionFromThreeLays, frictionFromWeights, frictionInterval } from './pulls.ts'
import { beamOf, pathOf } from './path.ts'
import { forceProfile } from './profile.ts'
import { pushPullWindows, usualPullDrive } from './pushpull.ts'
import { REMEDIES, REMEDY } from './remedy.ts'
import { guessedSetup, guessesFor, withShape, withValues, type DragShape, type Values } from './setup.ts'
import { sectionOf } from './section.ts'
import { afterSegment } from './segment.ts'
import { drawTriangular, sensitivities, spreadOf } from './sweep.ts'
import { usualShape } from './usual.ts'
import { tensionWindow } from './window.ts'

const SHAPE = usualShape('steel', 0.9)
const gun = (over: Partial<Values> = {}, shape: Partial<DragShape> = {}) =>
  withValues(guessedSetup({ ...SHAPE, ...shape }), over)

describe('why it feeds badly', () => {
  it('of a gun as it should be nothing is said', () => {
    const said = explain(gun({ bendDeg: 240 }, { tipState: 'clean' }))
    expect(said).toMatchObject({ verdict: 'feeds with margin', width: 'comfortable', culprits: [], reopens: [] })
  })
  it('a coiled cable: the coils are named first, and uncoiling is the cheapest that opens it', () => {
    const said = explain(gun({ coils: 2 }))
    expect(said.width).toBe('closed')
    expect(said.culprits[0]?.remedy).toBe('uncoil')
    expect(said.reopens[0]).toMatchObject({ steps: ['uncoil'], minutes: 0.5 })
  })
  it('a dying liner in the working lay: straight opens it for now, the liner opens it for good', () => {
    const said = explain(gun({ friction: 0.36 }, { linerState: 'worn' }))
    expect(said.width).toBe('closed')
    const [first, ...others] = said.reopens.map((r) => r.steps.join())
    expect(first).toBe('layStraight')
    expect(others).toContain('newLiner')
  })
  it('aluminium with steel’s parts: where no one thing opens it several do, and they are named', () => {
    const aluminium = { material: 'aluminium 4xxx', diameterMm: 0.8, densityGPerCm3: 2.68, groove: 'knurled' } as const
    const said = explain(gun({ clearanceMm: 1.2, gapMm: 16, exitDeg: 3, coils: 1 }, aluminium))
    expect(said.verdict).not.toBe('feeds with margin')
    expect(said.reopens).toHaveLength(1)
    expect(said.reopens[0]?.ratio).toBeGreaterThan(1)
    expect(said.reopens[0]?.steps.length).toBeGreaterThan(1)
  })
  it('every remedy offered changes the gun, never narrows its window, and is not offered again after it is done', () => {
    const wrong = gun(
      { coils: 1, brakeNm: 2, gapMm: 14, clearanceMm: 0.9, exitDeg: 3, kinkDeg: 40, friction: 0.3 },
      { material: 'aluminium 5xxx', diameterMm: 1.2, tipState: 'spattered', isReversed: true, linerState: 'worn' },
    )
    const ratio = (s: typeof wrong) => explain(s).ratio ?? 0
    const offered = REMEDIES.filter((k) => REMEDY[k].apply(wrong))
    expect(offered.length).toBeGreaterThan(10)
    for (const key of offered) {
      const after = REMEDY[key].apply(wrong)
      if (!after) continue
      expect(ratio(after), key).toBeGreaterThanOrEqual(ratio(wrong) - 1e-9)
      expect(REMEDY[key].apply(after), key).toBeNull()
    }
  })
  it('at the knob: slips below, feeds without margin, feeds; stopped it slips, and nests above', () => {
    const at = (mark: number) => atKnob(gun({ bendDeg: 360 }), mark)
    const w = tensionWindow(pathOf(gun({ bendDeg: 360 })))
    expect(at(0.1).feeding).toBe('slips')
    expect(at((w.lowMark ?? 0) - 0.05).feeding).toBe('no margin')
    expect(at((w.lowMark ?? 0) + 0.01)).toMatchObject({ feeding: 'feeds', stopped: 'slips' })
    expect(at(w.highMark + 0.1).stopped).toBe('near a nest')
    expect(at(5).stopped).toBe('nests')
    expect(atKnob(gun({}, { material: 'flux-cored', diameterMm: 1.2, groove: 'knurled' }), 4).isFlattened).toBe(true)
  })
  it('coils shut it sooner in a worn liner, and never by straightening it', () => {
    expect(coilsToShut(gun({ bendDeg: 60 }))).toBe(3)
    expect(coilsToShut(gun({ bendDeg: 60, friction: 0.3 }))).toBeLessThan(3)
    expect(coilsToShut(gun({ friction: 0 }))).toBeNull()
  })
  it('the middle of the window lies in it', () => {
    const w = tensionWindow(pathOf(gun()))
    expect(middleMark(gun())).toBeGreaterThan(w.lowMark ?? 0)
    expect(middleMark(gun())).toBeLessThan(w.highMark)
    expect(middleMark(gun({ coils: 4 }))).toBe(2.5)
  })
  it('widths have names', () => {
    expect([2, 1.99, 1.3, 1.29, 1, null].map(widthOf)).toEqual([
      'comfortable',
      'narrow',
      'narrow',
      'nearly closed',
      'closed',
      'closed',
    ])
  })
})

describe('the force drawn', () => {
  it('ends where the window says, rises all the way back from the tip, and shows the neck', () => {
    for (const setup of [gun(), gun({ coils: 1 }, { coilsAt: 'gun' }), gun({ kinkDeg: 40, friction: 0.25 })]) {
      const { outlet } = forceProfile(setup)
      const w = tensionWindow(pathOf(setup))
      expect(outlet[0]?.forceN).toBeCloseTo(w.pushN ?? NaN, 6)
      expect(outlet.at(-1)?.forceN).toBeCloseTo(w.tip.dragN, 9)
      const forces = outlet.map((p) => p.forceN ?? 0)
      expect(forces).toEqual([...forces].sort((a, b) => b - a))
      const at = outlet.map((p) => p.atMm)
      expect(at).toEqual([...at].sort((a, b) => a - b))
    }
  })
  it('before the rolls it rises through a conduit, and is flat from a spool', () => {
    const drum = forceProfile(gun({}, { payoff: 'drum' }))
    const w = tensionWindow(pathOf(gun({}, { payoff: 'drum' })))
    expect(drum.inlet.at(-1)?.forceN).toBeCloseTo(w.backTensionN ?? NaN, 6)
    expect(forceProfile(gun()).inlet).toHaveLength(1)
  })
  it('from where nothing feeds there is no force, in place of a huge one', () => {
    const { outlet } = forceProfile(gun({ friction: 0.8, coils: 200 }))
    expect(outlet[0]?.forceN).toBeNull()
  })
})

describe('which number matters', () => {
  it('in the working lay friction comes before the cable’s length or the hub', () => {
    const setup = gun()
    const order = sensitivities(setup, guessesFor(setup.shape)).map((s) => s.param)
    expect(order.indexOf('friction')).toBeLessThan(order.indexOf('brakeNm'))
    expect(order).not.toContain('cableMm')
  })
  it('draws lie in their span with its mode, and the spread holds the window told', () => {
    const span = { low: 1, typical: 2, high: 5 }
    const draws = Array.from({ length: 4000 }, (_, i) => drawTriangular((i + 0.5) / 4000, span))
    expect(Math.min(...draws)).toBeGreaterThanOrEqual(1)
    expect(Math.max(...draws)).toBeLessThanOrEqual(5)
    expect(draws.reduce((s, x) => s + x, 0) / draws.length).toBeCloseTo((1 + 2 + 5) / 3, 2)
    const setup = gun()
    const spread = spreadOf(setup, guessesFor(setup.shape), { draws: 400, random: makeRandom(7) })
    const w = tensionWindow(pathOf(setup))
    expect(spread.low[0]).toBeLessThan(w.lowMark ?? 0)
    expect(spread.low[2]).toBeGreaterThan(w.lowMark ?? 9)
    expect(spread.openShare).toBeGreaterThan(0.85)
    const shut = spreadOf(gun({ coils: 3 }), guessesFor(SHAPE), { draws: 400, random: makeRandom(7) })
    expect(shut.openShare).toBeLessThan(0.25)
  })
  it('the same seed answers the same', () => {
    const run = () => spreadOf(gun(), guessesFor(SHAPE), { draws: 50, random: makeRandom(3) })
    expect(run()).toEqual(run())
  })
})

describe('pulls and calibration', () => {
  const MU = 0.21
  const pull = (tail: number, loops: number, after: number) => tail * Math.exp(MU * (1.2 + 2 * Math.PI * loops)) + after
  it('two tail weights give the friction whatever arises after the loop', () => {
    const lay = (loops: number) => ({ lightN: [pull(5, loops, 4)], heavyN: [pull(15, loops, 4)] })
    const made = frictionFromWeights(lay(0), lay(1), 1)
    expect(made).toMatchObject({ ok: true, standardError: null })
    expect(made.ok && made.friction).toBeCloseTo(MU, 12)
  })
  it('three lays give it too, and their interval holds it', () => {
    const noisy = (loops: number) => [-0.2, 0.1, 0.1].map((e) => pull(5, loops, 3) * (1 + e * 0.03))
    const made = frictionFromThreeLays(noisy(0), noisy(1), noisy(2))
    expect(made.ok && made.friction).toBeCloseTo(MU, 2)
    const interval = made.ok ? frictionInterval(made) : null
    expect(interval?.low).toBeLessThan(MU)
    expect(interval?.high).toBeGreaterThan(MU)
  })
  it('a loop that pulls no harder, or a pull too small, is refused', () => {
    expect(frictionFromThreeLays([10], [12], [13])).toEqual({ ok: false, reason: 'notHarder' })
    expect(frictionFromThreeLays([1], [3], [9])).toEqual({ ok: false, reason: 'pullTooSmall' })
    expect(frictionFromWeights({ lightN: [9], heavyN: [20] }, { lightN: [9], heavyN: [19] }, 1)).toMatchObject({
      reason: 'notHarder',
    })
    expect(() => frictionFromThreeLays([], [1], [2])).toThrow(RangeError)
  })
  it('single pulls have no interval', () => {
    expect(frictionInterval({ friction: 0.2, standardError: null, freedom: null })).toBeNull()
  })
  it('the knob: a line through two marks, back tension taken off', () => {
    const [one, two] = [
      { mark: 1, forcesN: [43, 45, 44] },
      { mark: 4, forcesN: [150, 153, 156] },
    ]
    const made = calibrateKnob(one, two)
    expect(made.ok && made.line.perMarkN).toBeCloseTo((153 - 44) / 3, 9)
    const slack = calibrateKnob(one, two, 4)
    expect(slack.ok && made.ok && made.line.atZeroN - slack.line.atZeroN).toBeCloseTo(4, 9)
    expect(calibrateKnob(one, { ...two, mark: 1 })).toEqual({ ok: false, reason: 'sameMark' })
    expect(calibrateKnob({ ...two, mark: 1 }, { ...one, mark: 4 })).toEqual({ ok: false, reason: 'notRising' })
    expect(calibrateKnob({ mark: 1, forcesN: [20, 60, 44] }, two)).toEqual({ ok: false, reason: 'unsteady' })
    expect(() => calibrateKnob({ mark: 1, forcesN: [] }, two)).toThrow(RangeError)
  })
})

describe('push–pull', () => {
  const pair = pathOf(gun()).pairs.slice(0, 1)
  const drive = { pairs: pair, rollFriction: 0.15, gap: pathOf(gun({ gapMm: 4 })).gap, scale: [0, 5] as const }
  it('each drive has less to do than one alone, and the gun’s does not mind coils', () => {
    const worn = gun({ coils: 1, friction: 0.25 })
    const made = pushPullWindows(worn, drive)
    expect(made.feeder.pushN).toBeLessThan(made.alone.pushN ?? 0)
    expect(made.gun.pushN).toBeLessThan(made.alone.pushN ?? 0)
    expect(pushPullWindows(gun({ coils: 2, friction: 0.25 }), drive).gun).toEqual(made.gun)
    expect(made.gun.backTensionN).toBe(0)
  })
})

it('another liner state takes its guess only where nothing was told', () => {
  expect(withShape(gun(), { linerState: 'dirty' }).values.friction).toBe(0.32)
})

describe('a motor that is weaker than the way', () => {
  it('stalls, whatever the knob, and is told apart from slipping', () => {
    const strong = explain(gun())
    expect(strong.isStalled).toBe(false)
    const weak = explain(gun({ motorPushN: (strong.window.neededN ?? 0) * 0.9 }))
    expect(weak).toMatchObject({ isStalled: true, verdict: 'cannot feed', width: 'closed' })
    expect(explain(gun({ motorPushN: (strong.window.neededN ?? 0) * 1.1 })).isStalled).toBe(false)
  })
})

describe('thin wire in a wide liner', () => {
  const push = (over: Partial<Values>) =>
    tensionWindow(pathOf(gun({ coils: 1, friction: 0.2, ...over }))).pushN ?? Infinity
  it('winds itself up in it: more push than in a snug one, and more the wider it is', () => {
    const [snug, wide, wider] = [push({ linerBoreMm: 0 }), push({ linerBoreMm: 2.5 }), push({ linerBoreMm: 4 })]
    expect(wide).toBeGreaterThan(snug)
    expect(wider).toBeGreaterThan(wide)
  })
  it('a bore no wider than the wire changes nothing', () =>
    expect(push({ linerBoreMm: 0.8 })).toBe(push({ linerBoreMm: 0 })))
})

describe('two drives', () => {
  it('drawn with both, the feeder pushes to the gun’s rolls and no further', () => {
    const setup = withShape(gun({ coils: 1 }), { secondDrive: true })
    const { outlet } = forceProfile(setup)
    const jump = outlet.findIndex((p, i) => i > 0 && (p.forceN ?? 0) > (outlet[i - 1]?.forceN ?? 0) + 0.5)
    expect(jump).toBeGreaterThan(0)
    expect(outlet[jump - 1]?.forceN).toBeCloseTo(0, 6)
    expect(explain(setup).window.neededN).toBeLessThan(explain(gun({ coils: 1 })).window.neededN ?? 0)
  })
  it('the gun’s own drive has room in a usual gun', () => {
    const setup = withShape(gun(), { secondDrive: true })
    expect(pushPullWindows(setup, usualPullDrive(setup)).gun.isOpen).toBe(true)
  })
})

describe('friction of a conduit by two tail weights', () => {
  /** What the model itself would have pulled through a conduit. */
  const pull = (weightN: number) => {
    const conduit = {
      lengthMm: 8000,
      bendRad: 1.5 * Math.PI,
      friction: 0.14,
      contactLoadNPerMm: 0.0002,
      bendRadiusMm: null,
    }
    return afterSegment(weightN, conduit, { wire: { modulusMPa: 2.07e5 }, section: sectionOf(beamOf(gun())) }) ?? NaN
  }
  it('comes back exactly, since what weighs on the wire cancels', () => {
    const made = conduitFriction({ lightN: 5, heavyN: 15, pullLightN: pull(5), pullHeavyN: pull(15), bends: 3 })
    expect(made.ok && made.friction).toBeCloseTo(0.14, 9)
  })
  it('refuses what cannot be known', () => {
    const whole = { lightN: 5, heavyN: 15, pullLightN: 9, pullHeavyN: 28, bends: 3 }
    const reason = (over: Partial<typeof whole>) => {
      const made = conduitFriction({ ...whole, ...over })
      return made.ok ? null : made.reason
    }
    expect(reason({ heavyN: 5 })).toBe('missing')
    expect(reason({ bends: 0 })).toBe('missing')
    expect(reason({ pullLightN: 1 })).toBe('pullTooSmall')
    expect(reason({ pullHeavyN: 18 })).toBe('notHarder')
  })
})

describe('a stretch in which the wire snakes', () => {
  const of = { wire: { modulusMPa: 2.07e5 }, section: sectionOf(beamOf(gun())) }
  const liner = { lengthMm: 3000, bendRad: 2, friction: 0.2, contactLoadNPerMm: 0.0005, bendRadiusMm: null }
  it('agrees with small steps of its own rule', () => {
    const playMm = 0.8
    const a = playMm / (4 * 2.07e5 * of.section.secondMomentMm4)
    let force = 12
    const n = 60_000
    for (let i = 0; i < n; i++) {
      const capstan = (2 / 3000) * force + of.section.weightNPerMm + 0.0005
      force += (0.2 * Math.max(capstan, a * force * force) * 3000) / n
    }
    expect(afterSegment(12, { ...liner, playMm }, of)).toBeCloseTo(force, 1)
  })
  it('without play it is the capstan rule, and locks up where the play is large', () => {
    expect(afterSegment(12, { ...liner, playMm: 1e-9 }, of)).toBeCloseTo(afterSegment(12, liner, of) ?? NaN, 6)
    expect(afterSegment(200, { ...liner, lengthMm: 9000, playMm: 3 }, of)).toBeNull()
  })
})
