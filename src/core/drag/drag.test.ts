import { describe, expect, it } from 'vitest'
import { nestForce } from './nest.ts'
import { frictionFromPulls } from './pulls.ts'
import { sectionOf, type WireBeam } from './section.ts'
import { afterSegment, forceChain, growth, type Segment } from './segment.ts'
import { tipDrag } from './tipdrag.ts'
import { markAt, tractionLine, type RollPair } from './traction.ts'
import { feedVerdict, tensionWindow, windowRatio, type FeedPath } from './window.ts'

const STEEL: WireBeam = {
  diameterMm: 0.9,
  sheathMm: null,
  densityGPerCm3: 7.85,
  modulusMPa: 205_000,
  yieldMPa: 1050,
  castRadiusMm: 300,
}
const of = (wire = STEEL) => ({ wire, section: sectionOf(wire) })
const cable = (bendRad: number, over: Partial<Segment> = {}): Segment => ({
  lengthMm: 4000,
  bendRad,
  friction: 0.17,
  contactLoadNPerMm: 0.003,
  bendRadiusMm: null,
  ...over,
})
const face = { groove: 'V' as const, includedAngleRad: Math.PI / 2, biteFactor: null, driven: true }
const PAIR: RollPair = {
  calibration: [
    [1, 60],
    [4, 210],
  ],
  faces: [face, { ...face, groove: 'flat' }],
}
const path = (over: Partial<FeedPath> = {}): FeedPath => ({
  wire: STEEL,
  payoff: { kind: 'spool', brakeTorqueNmm: 400, woundRadiusMm: 120, boosterPushN: 0 },
  inletSegments: [],
  outletSegments: [cable(1)],
  tip: { bearingLengthMm: 25, boreClearanceMm: 0.14, friction: 0.35, depositN: 3 },
  gap: { lengthMm: 8, guideClearanceMm: 0.4, exitAngleRad: 0.0175 },
  pairs: [PAIR, PAIR],
  rollFriction: 0.15,
  scaleMin: 0,
  scaleMax: 5,
  crushLimitN: 380,
  ...over,
})

describe('force along the way', () => {
  it('solves its equation: small steps of dF/ds end at the same force', () => {
    const segment = cable(7)
    const { section } = of()
    let force = 5
    const steps = 200_000
    for (let i = 0; i < steps; i++) {
      const ds = segment.lengthMm / steps
      const k = (f: number) =>
        segment.friction * ((segment.bendRad / segment.lengthMm) * f + section.weightNPerMm + segment.contactLoadNPerMm)
      force += ds * k(force + (ds / 2) * k(force))
    }
    expect(afterSegment(5, segment, of())).toBeCloseTo(force, 7)
  })
  it('cut in two is the same way', () => {
    const half = cable(3.5, { lengthMm: 2000 })
    expect(forceChain(5, [half, half], of()).at(-1)).toBeCloseTo(afterSegment(5, cable(7), of()) ?? NaN, 9)
  })
  it('straight adds only what lies on it, and near straight does not lose digits', () => {
    expect(afterSegment(5, cable(0, { contactLoadNPerMm: 0 }), of())).toBeCloseTo(
      5 + 0.17 * 4000 * of().section.weightNPerMm,
      12,
    )
    expect(growth(1e-9)).toBeCloseTo(1 + 0.5e-9, 15)
  })
  it('never answers Infinity: so many coils cannot feed, and nor can what comes after', () => {
    expect(afterSegment(5, cable(2 * Math.PI * 1000), of())).toBeNull()
    expect(forceChain(5, [cable(2 * Math.PI * 1000), cable(1)], of())).toEqual([5, null, null])
  })
  it('a tight bend costs a stiff wire more', () => {
    const bend = (radius: number) => afterSegment(0, cable(0.8, { lengthMm: 100, bendRadiusMm: radius }), of()) ?? 0
    expect(bend(60)).toBeGreaterThan(bend(90))
  })
  it('refuses what is no way', () => {
    expect(() => afterSegment(-1, cable(1), of())).toThrow(RangeError)
    expect(() => afterSegment(1, cable(1, { bendRadiusMm: 0 }), of())).toThrow(RangeError)
  })
})

describe('tip and gap', () => {
  it('straightened wire and a loose bore drag nothing; what sticks does', () => {
    const tip = { bearingLengthMm: 25, boreClearanceMm: 0.1, friction: 0.3, depositN: 0 }
    expect(tipDrag(tip, of({ ...STEEL, castRadiusMm: null })).dragN).toBe(0)
    expect(tipDrag({ ...tip, boreClearanceMm: 1 }, of()).dragN).toBe(0)
    expect(tipDrag({ ...tip, depositN: 4 }, of()).dragN).toBeGreaterThan(4)
  })
  it('a guide that stands off, wears or points away nests sooner; at no gap it is squash by its eccentricity', () => {
    const gap = { lengthMm: 8, guideClearanceMm: 0.4, exitAngleRad: 0 }
    const force = (over: Partial<typeof gap>) => nestForce({ ...gap, ...over }, of()).nestForceN
    expect(force({ lengthMm: 12 })).toBeLessThan(force({}))
    expect(force({ guideClearanceMm: 0.8 })).toBeLessThan(force({}))
    expect(force({ exitAngleRad: 0.05 })).toBeLessThan(force({}))
    expect(nestForce({ ...gap, lengthMm: 0, guideClearanceMm: 0 }, of()).nestStressMPa).toBe(STEEL.yieldMPa)
    expect(force({ lengthMm: 1e-6 })).toBeCloseTo(force({ lengthMm: 0 }), 3)
  })
  it('tubular wire of the same size nests sooner than solid', () => {
    const tube = { ...STEEL, diameterMm: 1.2, sheathMm: 0.2 }
    const solid = { ...STEEL, diameterMm: 1.2 }
    const gap = { lengthMm: 8, guideClearanceMm: 0.4, exitAngleRad: 0 }
    expect(nestForce(gap, of(tube)).nestForceN).toBeLessThan(nestForce(gap, of(solid)).nestForceN)
    expect(() => sectionOf({ ...tube, sheathMm: 0.6 })).toThrow(RangeError)
  })
})

describe('the window', () => {
  it('is open on a straight gun, and shuts as it is coiled', () => {
    const coiled = (coils: number) => path({ outletSegments: [cable(1 + 2 * Math.PI * coils)] })
    const low = [0, 1, 2, 3].map((n) => tensionWindow(coiled(n)).lowMark ?? Infinity)
    expect(low).toEqual([...low].sort((a, b) => a - b))
    expect(tensionWindow(coiled(0)).isOpen).toBe(true)
    expect(tensionWindow(coiled(2.6)).isOpen).toBe(false)
    expect(feedVerdict(coiled(0), tensionWindow(coiled(0)))).toBe('feeds with margin')
    expect(feedVerdict(coiled(2.6), tensionWindow(coiled(2.6)))).toBe('feeds without margin')
    expect(feedVerdict(coiled(3), tensionWindow(coiled(3)))).toBe('cannot feed')
    expect(feedVerdict(coiled(400), tensionWindow(coiled(400)))).toBe('cannot feed')
    expect(windowRatio(tensionWindow(coiled(0)))).toBeGreaterThan(2)
  })
  it('names what sets its high edge: the nest, the crush, the end of the scale', () => {
    expect(tensionWindow(path()).limit).toBe('nest')
    expect(tensionWindow(path({ crushLimitN: 100 })).limit).toBe('crush')
    expect(tensionWindow(path({ scaleMax: 1, crushLimitN: null })).limit).toBe('arm')
  })
  it('a booster takes off the pull, and never pushes the rolls', () => {
    const drum = (boosterPushN: number) =>
      tensionWindow(path({ payoff: { kind: 'drum', pullN: 12, boosterPushN } })).backTensionN
    expect([drum(0), drum(10), drum(40)]).toEqual([12, 2, 0])
  })
  it('only driven faces pull; a knob that changes nothing reaches no mark', () => {
    const idle: RollPair = { ...PAIR, faces: [face, { ...face, driven: false }] }
    expect(tractionLine([idle], 0.15).perMarkN).toBeCloseTo(0.15 * 50 * Math.SQRT2, 9)
    expect(markAt({ atZeroN: 10, perMarkN: 0 }, 20)).toBeNull()
  })
})

describe('friction from pulls', () => {
  it('is given back from pulls drawn of it, within its interval', () => {
    const [f1, mu] = [6, 0.2]
    const noise = [0.97, 1.03, 1.0]
    const made = frictionFromPulls(
      noise.map((n) => f1 * n),
      noise.map((n) => f1 * Math.exp(2 * Math.PI * mu) * n),
      1,
    )
    expect(made.ok && made.friction).toBeCloseTo(mu, 12)
    expect(made.ok && made.freedom).toBeCloseTo(4, 9)
  })
  it('single pulls give no interval; small or no harder pulls tell nothing', () => {
    expect(frictionFromPulls([6], [15], 1)).toMatchObject({ ok: true, standardError: null })
    expect(frictionFromPulls([1.5, 1.6], [4, 4], 1)).toEqual({ ok: false, reason: 'pullTooSmall' })
    expect(frictionFromPulls([6, 6], [5.9, 5.8], 1)).toEqual({ ok: false, reason: 'notHarder' })
    expect(() => frictionFromPulls([6], [], 1)).toThrow(RangeError)
  })
})
