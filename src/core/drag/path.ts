import { KINK, KNURL_BITE, MATERIALS, NECK_MM, REVERSED, CONDUIT_WAVINESS, isTubular } from './guess.ts'
import { sectionOf, type WireBeam } from './section.ts'
import { type Segment } from './segment.ts'
import { type DragSetup } from './setup.ts'
import { type TipBearing } from './tipdrag.ts'
import { type RollFace, type RollPair } from './traction.ts'
import { type FeedPath } from './window.ts'

const rad = (deg: number) => (deg * Math.PI) / 180
const TURN = 2 * Math.PI
/** Cable in one lazy coil on the floor, about 30 cm across. */
const COIL_MM = 1000
/** What a coil may take of the cable: some of it leads there and back. */
const MOST_IN_COILS = 0.9

export function beamOf({ shape, values }: DragSetup): WireBeam {
  const { modulusMPa, sheathOver } = MATERIALS[shape.material]
  return {
    diameterMm: shape.diameterMm,
    sheathMm: sheathOver === null ? null : sheathOver * shape.diameterMm,
    densityGPerCm3: shape.densityGPerCm3,
    modulusMPa,
    yieldMPa: values.yieldMPa,
    castRadiusMm: values.castRadiusMm,
  }
}

/** The way from the tip to the rolls, neck first. A coil at a place is a stretch of its own there; a spread one adds its angle. */
export function outletSegments(setup: DragSetup): Segment[] {
  const { values: v, shape } = setup
  const neck: Segment = {
    name: 'neck',
    lengthMm: NECK_MM,
    bendRad: rad(v.neckDeg),
    friction: v.friction,
    contactLoadNPerMm: 0,
    bendRadiusMm: v.neckRadiusMm,
  }
  const coilMm = shape.coilsAt === 'spread' ? 0 : Math.min(v.coils * COIL_MM, v.cableMm * MOST_IN_COILS)
  const spreadRad = shape.coilsAt === 'spread' ? TURN * v.coils : 0
  const cable = cableOf(setup, { lengthMm: v.cableMm - coilMm, bendRad: rad(v.bendDeg) + spreadRad })
  if (shape.coilsAt === 'spread' || v.coils === 0) return [neck, ...cable]
  const coil = { ...plain(setup), name: 'coil', lengthMm: coilMm, bendRad: TURN * v.coils }
  return shape.coilsAt === 'gun' ? [neck, coil, ...cable] : [neck, ...cable, coil]
}

function plain({ values: v, ...setup }: DragSetup): Omit<Segment, 'lengthMm' | 'bendRad'> {
  const beam = beamOf({ values: v, ...setup })
  return {
    name: 'cable',
    friction: v.friction,
    contactLoadNPerMm: beam.modulusMPa * sectionOf(beam).secondMomentMm4 * v.waviness,
    bendRadiusMm: null,
    playMm: v.linerBoreMm > beam.diameterMm ? (v.linerBoreMm - beam.diameterMm) / 2 : null,
  }
}

/** The cable; with a kink half way, where it has one. */
function cableOf(setup: DragSetup, at: Pick<Segment, 'lengthMm' | 'bendRad'>): Segment[] {
  const base = { ...plain(setup), ...at }
  if (setup.values.kinkDeg === 0) return [base]
  const half = { ...base, lengthMm: at.lengthMm / 2, bendRad: at.bendRad / 2 }
  const kink = {
    ...base,
    name: 'kink',
    lengthMm: KINK.lengthMm,
    bendRad: rad(setup.values.kinkDeg),
    bendRadiusMm: KINK.radiusMm,
  }
  return [half, kink, half]
}

/** What lies between payoff and rolls: a drum's conduit, or the bend of a spool put on the wrong way round. */
export function inletSegments(setup: DragSetup): Segment[] {
  const { values: v, shape } = setup
  const reversed: Segment[] = shape.isReversed
    ? [
        {
          name: 'reversed',
          lengthMm: REVERSED.lengthMm,
          bendRad: rad(REVERSED.bendDeg),
          friction: REVERSED.friction,
          contactLoadNPerMm: 0,
          bendRadiusMm: null,
        },
      ]
    : []
  if (v.conduitMm === 0) return reversed
  const beam = beamOf(setup)
  return [
    {
      name: 'conduit',
      lengthMm: v.conduitMm,
      bendRad: rad(v.conduitDeg),
      friction: v.conduitFriction,
      contactLoadNPerMm: beam.modulusMPa * sectionOf(beam).secondMomentMm4 * CONDUIT_WAVINESS,
      bendRadiusMm: null,
    },
    ...reversed,
  ]
}

/**
 * Force of a pair that flattens the wire, N. Solid k·σ_y·d², k 0.45 V and flat, 0.90 U, 0.20 knurled (a dent of about 1 % of d); tubular
 * 2σ_y·t²·b/(d − t), b 1.6 mm (plastic ring, the seam opens first). Engineering estimate.
 */
export function crushLimit(setup: DragSetup): number {
  const beam = beamOf(setup)
  const { diameterMm: d, sheathMm: t, yieldMPa } = beam
  if (t !== null) return (2 * yieldMPa * t ** 2 * TUBE_CONTACT_MM) / (d - t)
  return SOLID_CRUSH[setup.shape.groove] * yieldMPa * d ** 2
}
const TUBE_CONTACT_MM = 1.6
const SOLID_CRUSH = { V: 0.45, U: 0.9, knurled: 0.2 } as const

const RIGHT_ANGLE = Math.PI / 2
export function facesOf({ shape }: DragSetup): RollFace[] {
  const isBoth = shape.feeder.drives === 'both'
  const base = { includedAngleRad: null, biteFactor: null }
  if (shape.groove === 'knurled') {
    const knurled = { ...base, groove: 'knurled' as const, biteFactor: KNURL_BITE.typical }
    return [
      { ...knurled, driven: true },
      { ...knurled, driven: isBoth },
    ]
  }
  if (shape.groove === 'U')
    return [
      { ...base, groove: 'U', driven: true },
      { ...base, groove: 'U', driven: isBoth },
    ]
  return [
    { ...base, groove: 'V', includedAngleRad: RIGHT_ANGLE, driven: true },
    { ...base, groove: 'flat', driven: isBoth },
  ]
}

/** A gun as the model walks it. */
export function pathOf(setup: DragSetup): FeedPath {
  const { shape, values: v } = setup
  const [[m1, n1], [m2, n2]] = shape.feeder.pairForceN
  const pair: RollPair = {
    calibration: [
      [m1, n1 * v.pairForceOver],
      [m2, n2 * v.pairForceOver],
    ],
    faces: facesOf(setup),
  }
  return {
    wire: beamOf(setup),
    payoff:
      shape.payoff === 'drum'
        ? { kind: 'drum', pullN: v.drumPullN, boosterPushN: v.boosterN }
        : {
            kind: 'spool',
            brakeTorqueNmm: v.brakeNm * 1000,
            woundRadiusMm: v.woundRadiusMm,
            boosterPushN: v.boosterN,
          },
    inletSegments: inletSegments(setup),
    ...aheadOf(setup),
    gap: { lengthMm: v.gapMm, guideClearanceMm: v.clearanceMm, exitAngleRad: rad(v.exitDeg) },
    pairs: Array.from({ length: shape.feeder.pairs }, () => pair),
    rollFriction: v.rollFriction,
    scaleMin: shape.feeder.scale[0],
    scaleMax: shape.feeder.scale[1],
    crushLimitN: crushLimit(setup),
    measuredTraction: shape.slip,
    motorPushN: v.motorPushN > 0 ? v.motorPushN : null,
  }
}

export const tipOf = ({ values: v }: DragSetup): TipBearing => ({
  bearingLengthMm: v.tipBearingMm,
  boreClearanceMm: v.tipClearanceMm,
  friction: v.tipFriction,
  depositN: v.depositN,
})
/** What the feeder pushes through: all of it to the tip, or the cable alone where the gun's own drive takes the wire from there. */
function aheadOf(setup: DragSetup): Pick<FeedPath, 'outletSegments' | 'tip'> {
  const [, ...cable] = outletSegments(setup)
  if (!setup.shape.secondDrive) return { outletSegments: outletSegments(setup), tip: tipOf(setup) }
  return { outletSegments: cable, tip: { ...tipOf(setup), friction: 0, depositN: 0 } }
}

/** Knurled rolls on solid wire shave it, whatever the force. */
export const isShaved = ({ shape }: DragSetup) => shape.groove === 'knurled' && !isTubular(shape.material)
