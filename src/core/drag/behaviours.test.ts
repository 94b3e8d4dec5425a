import { describe, expect, it } from 'vitest'
import { MATERIALS, type WireMaterial } from './guess.ts'
import { pathOf } from './path.ts'
import { guessedSetup, withShape, withValues, type DragSetup, type DragShape, type Values } from './setup.ts'
import { nestForce } from './nest.ts'
import { sectionOf } from './section.ts'
import { afterSegment } from './segment.ts'
import { usualShape } from './usual.ts'
import { tensionWindow } from './window.ts'

const SHAPE = usualShape('steel', 0.9)
const gun = (shape: Partial<DragShape> = {}, over: Partial<Values> = {}): DragSetup =>
  withValues(guessedSetup({ ...SHAPE, ...shape }), { woundRadiusMm: 120, bendDeg: 60, ...over })
const wire = (material: WireMaterial, diameterMm: number) => ({
  material,
  diameterMm,
  densityGPerCm3: MATERIALS[material].densityGPerCm3,
})
const win = (setup: DragSetup) => tensionWindow(pathOf(setup))
const WORKING = { bendDeg: 360 }

describe('the eleven behaviours', () => {
  it('1: laid straight with a new liner the window is wide, marks 2 and 3 inside', () => {
    const w = win(gun())
    expect(w.pushN).toBeCloseTo(10.3, 1)
    expect(w.neededN).toBeCloseTo(13.7, 1)
    expect(w.nest.nestForceN).toBeCloseTo(148, 0)
    expect(w.lowMark).toBeCloseTo(0.37, 2)
    expect(w.highMark).toBeCloseTo(3.21, 2)
  })
  it('2: each coil multiplies; two leave a tenth of a mark, three shut it; two near the feeder shut it too', () => {
    const at = (coils: number, coilsAt: DragShape['coilsAt'] = 'spread') => win(gun({ coilsAt }, { coils }))
    expect([1, 2].map((n) => Math.round((at(n).pushN ?? 0) * 10) / 10)).toEqual([27.6, 76.5])
    expect(at(3).pushN).toBeCloseTo(216, -1)
    expect([1, 2, 3].map((n) => Math.round((at(n).lowMark ?? 0) * 100) / 100)).toEqual([1.08, 3.11, 8.9])
    expect([at(2).isOpen, at(3).isOpen]).toEqual([true, false])
    expect(at(2, 'feeder').isOpen).toBe(false)
  })
  it('3: wear of the liner raises the low edge until it shuts in the working lay; laid straight it never does below 1', () => {
    const low = (friction: number, over: Partial<Values> = WORKING) => win(gun({}, { ...over, friction }))
    const lows = [0.17, 0.2, 0.25, 0.3, 0.34].map((mu) => low(mu).lowMark ?? 0)
    ;[0.91, 1.18, 1.79, 2.68, 3.67].forEach((l, i) => expect(lows[i]).toBeCloseTo(l, 2))
    expect([low(0.322).isOpen, low(0.324).isOpen]).toEqual([true, false])
    expect(low(0.99, {}).isOpen).toBe(true)
  })
  it('4: thinner wire nests sooner, most of all in the guides of the thicker', () => {
    const worn = { ...WORKING, friction: 0.25 }
    const thick = win(gun({}, worn))
    expect([thick.lowMark, thick.highMark]).toEqual([expect.closeTo(1.79, 2), expect.closeTo(3.21, 2)])
    const thin = (clearanceMm: number, friction = 0.25) =>
      win(gun(wire('steel', 0.6), { ...worn, friction, clearanceMm }))
    const loose = thin(0.7)
    expect([loose.lowMark, loose.highMark]).toEqual([expect.closeTo(0.69, 2), expect.closeTo(0.6, 2)])
    expect(loose.nest.nestForceN).toBeCloseTo(34.5, 0)
    expect([thin(0.4).lowMark, thin(0.4).highMark]).toEqual([expect.closeTo(0.69, 2), expect.closeTo(0.84, 2)])
    expect(thin(0.4, 0.275).isOpen).toBe(false)
  })
  it('5a: aluminium in a steel liner with V rolls and steel guides is shut, straight or not', () => {
    const at = (d: number, clearanceMm: number, over: Partial<Values>) =>
      win(gun({ ...wire('aluminium 4xxx', d) }, { ...over, clearanceMm }))
    const marks = (w: ReturnType<typeof win>) => [w.lowMark, w.highMark]
    expect(marks(at(1.0, 1, WORKING))).toEqual([expect.closeTo(4.48, 2), expect.closeTo(0.29, 2)])
    expect(marks(at(1.2, 0.8, WORKING))).toEqual([expect.closeTo(5.96, 2), expect.closeTo(0.75, 2)])
    expect(at(1.0, 1, {}).isOpen || at(1.2, 0.8, {}).isOpen).toBe(false)
  })
  it('5b, c: in polymer to the rolls with U it is open; with a gap of 12 the softer shuts or nearly', () => {
    const at = (material: WireMaterial, d: number, gapMm: number) =>
      win(gun({ ...wire(material, d), linerKind: 'polymer', groove: 'U', runsToRolls: true }, { ...WORKING, gapMm }))
    const marks = (w: ReturnType<typeof win>) => [w.lowMark, w.highMark]
    expect(marks(at('aluminium 4xxx', 1.2, 1.5))).toEqual([expect.closeTo(0.8, 1), expect.closeTo(2.04, 1)])
    expect(marks(at('aluminium 5xxx', 1.2, 1.5))).toEqual([expect.closeTo(0.68, 1), expect.closeTo(3.54, 1)])
    expect(marks(at('aluminium 4xxx', 1.2, 12))).toEqual([expect.closeTo(0.8, 1), expect.closeTo(1.06, 1)])
    expect(at('aluminium 4xxx', 1.0, 12).isOpen).toBe(false)
    expect(at('aluminium 5xxx', 1.2, 12).isOpen).toBe(true)
  })
  it('6: cored wire is crushed before it nests, solid reaches the end of the arm', () => {
    const cored = win(gun({ ...wire('flux-cored', 1.2), groove: 'knurled' }, WORKING))
    expect(cored.limit).toBe('crush')
    expect([cored.lowMark, cored.highMark]).toEqual([expect.closeTo(1.09, 1), expect.closeTo(2.3, 1)])
    const solid = win(gun(wire('steel', 1.2), WORKING))
    expect([solid.lowMark, solid.limit]).toEqual([expect.closeTo(1.77, 1), 'arm'])
  })
  it('7: a guide that stands off 15 mm instead of 2 halves what nests', () => {
    const falls = (material: WireMaterial, d: number) => {
      const at = (gapMm: number) => win(gun(wire(material, d), { gapMm })).nest.nestForceN
      return Math.round((1 - at(15) / at(2)) * 100)
    }
    expect([falls('steel', 0.6), falls('steel', 0.9), falls('aluminium 4xxx', 1.2)]).toEqual([62, 55, 51])
  })
  it('8: a tight hub raises the low edge, more so as the spool empties', () => {
    const low = (brakeNm: number, woundRadiusMm: number) => win(gun({}, { brakeNm, woundRadiusMm })).lowMark
    expect(low(0.4, 131)).toBeCloseTo(0.36, 1)
    expect(low(3, 131)).toBeCloseTo(1.18, 2)
    expect(low(3, 95)).toBeCloseTo(1.54, 2)
  })
  it('9: stopped at the tip it slips at marks 2 and 3 and nests at 4 and 5', () => {
    const w = win(gun())
    const traction = [2, 3, 4, 5].map((m) => w.traction.atZeroN + w.traction.perMarkN * m)
    expect(traction.map(Math.round)).toEqual([80, 116, 152, 188])
    expect(traction.map((t) => t > w.nest.nestForceN)).toEqual([false, false, true, true])
  })
  it('10: a loop multiplies a hand pull less the nearer the feeder it lies', () => {
    const pull = (over: Partial<DragShape>, values: Partial<Values> = {}) => {
      const path = pathOf(gun(over, { neckDeg: 45, ...values }))
      const of = { wire: path.wire, section: sectionOf(path.wire) }
      return [...path.outletSegments].reverse().reduce<number>((f, s) => afterSegment(f, s, of) ?? NaN, 3.3)
    }
    const straight = pull({})
    expect(straight).toBeCloseTo(8.5, 0)
    const ratio = (coilsAt: DragShape['coilsAt']) => pull({ coilsAt }, { coils: 1 }) / straight
    expect(ratio('gun')).toBeGreaterThan(ratio('spread'))
    expect(ratio('spread')).toBeGreaterThan(ratio('feeder'))
    expect(ratio('gun')).toBeLessThan(Math.exp(2 * Math.PI * 0.17))
  })
  it('11: a booster takes a drum’s pull off the rolls, most in a smooth conduit', () => {
    const at = (over: Partial<Values>, hasBooster = false) =>
      win(
        gun(
          { ...wire('steel', 1.2), payoff: 'drum', hasBooster },
          { cableMm: 1200, bendDeg: 120, ...over, ...(hasBooster ? { boosterN: 15 } : {}) },
        ),
      )
    expect(at({}).backTensionN).toBeCloseTo(15.1, 0)
    expect(at({}, true).backTensionN).toBeCloseTo(3.4, 0)
    expect(at({}, true).lowMark).toBeLessThan(at({}).lowMark ?? 0)
    expect(at({ conduitFriction: 0.2 }).backTensionN).toBeCloseTo(21.2, 0)
  })
})

describe('the shape of a gun', () => {
  it('no bend, no growth: friction then only adds what lies on it', () => {
    const flat = pathOf(gun({}, { bendDeg: 0, neckDeg: 0 }))
    const loads = flat.outletSegments.reduce(
      (n, s) => n + s.friction * s.lengthMm * (sectionOf(flat.wire).weightNPerMm + s.contactLoadNPerMm),
      0,
    )
    const w = tensionWindow(flat)
    expect((w.pushN ?? 0) - w.tip.dragN).toBeCloseTo(loads, 9)
  })
  it('another wire takes that wire’s guesses and leaves what was told or read', () => {
    const told = gun({}, { gapMm: 13, friction: 0.22 })
    const other = withShape(told, wire('aluminium 4xxx', 1.2))
    expect(other.values.gapMm).toBe(13)
    expect(other.values.friction).toBe(0.4)
    expect(other.values.yieldMPa).toBe(180)
    expect(withShape(told, {})).toEqual(told)
  })
  it('a kink in a worn cable costs half as much push again, and a reversed spool adds its bend', () => {
    const worn = { ...WORKING, friction: 0.25 }
    expect((win(gun({}, { ...worn, kinkDeg: 40 })).pushN ?? 0) / (win(gun({}, worn)).pushN ?? 1)).toBeGreaterThan(1.4)
    expect(win(gun({ isReversed: true })).backTensionN).toBeGreaterThan(win(gun()).backTensionN ?? 0)
  })
  it('slip pulls at two marks stand in place of rolls and knob', () => {
    const w = win(gun({ slip: { atZeroN: 5, perMarkN: 20 } }))
    expect(w.traction).toEqual({ atZeroN: 5, perMarkN: 20 })
    expect(w.lowMark).toBeCloseTo(((w.neededN ?? 0) * 1.5 - 5) / 20, 9)
  })
  it('the nest of every wire of the table comes out as it stands there', () => {
    const nest = (material: WireMaterial, d: number) => {
      const path = pathOf(gun(wire(material, d)))
      return Math.round(nestForce(path.gap, { wire: path.wire, section: sectionOf(path.wire) }).nestForceN)
    }
    expect([0.6, 0.8, 0.9, 1.0, 1.2, 1.6].map((d) => nest('steel', d))).toEqual([45, 106, 148, 192, 319, 636])
    expect([1.0, 1.2].map((d) => nest('aluminium 4xxx', d))).toEqual([34, 57])
    expect([0.9, 1.2, 1.6].map((d) => nest('flux-cored', d))).toEqual([76, 165, 352])
  })
})
