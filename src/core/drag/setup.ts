import { type LinerKind } from '@core/rightparts/facts.ts'
import {
  BOOSTER_N,
  brakeGuess,
  castGuess,
  CLEARANCE_MM,
  CONDUIT_DEG,
  CONDUIT_FRICTION,
  CONDUIT_MM,
  depositGuess,
  DRUM_PULL_N,
  EXIT_DEG,
  frictionGuess,
  gapGuess,
  isAluminiumOf,
  LAY_PER_M,
  NECK_DEG,
  NECK_RADIUS,
  PAIR_FORCE_OVER,
  ROLL_FRICTION,
  ROLL_FRICTION_ALUMINIUM,
  TIP_BEARING_MM,
  tipClearanceGuess,
  tipFrictionGuess,
  WAVINESS,
  windingOf,
  yieldGuess,
  type FeederGuess,
  type Guess,
  type LinerState,
  type TipState,
  type WireMaterial,
} from './guess.ts'

/** What a roll has against the wire on its grooved side; the other side of the pair is flat for V, the same for U and knurled. */
export const ROLL_GROOVES = ['V', 'U', 'knurled'] as const
export type RollGroove = (typeof ROLL_GROOVES)[number]
export const COIL_PLACES = ['spread', 'feeder', 'gun'] as const
export type CoilPlace = (typeof COIL_PLACES)[number]

/** What of a gun is one thing or another. */
export interface DragShape {
  material: WireMaterial
  diameterMm: number
  densityGPerCm3: number
  linerKind: LinerKind
  linerState: LinerState
  /** The liner runs up to the rolls: no metal guide between. */
  runsToRolls: boolean
  tipState: TipState
  groove: RollGroove
  feeder: FeederGuess
  payoff: 'spool' | 'drum'
  spoolKg: number
  hasBooster: boolean
  isReversed: boolean
  coilsAt: CoilPlace
  /** A second drive on the gun pulls the wire as the feeder brings it. */
  secondDrive: boolean
  /** Traction of the drive at two marks, from slip pulls; null: not calibrated. */
  slip: { atZeroN: number; perMarkN: number } | null
}

export const PARAMS = [
  'friction',
  'waviness',
  'cableMm',
  'bendDeg',
  'coils',
  'kinkDeg',
  'neckDeg',
  'neckRadiusMm',
  'brakeNm',
  'woundRadiusMm',
  'drumPullN',
  'boosterN',
  'conduitMm',
  'conduitDeg',
  'conduitFriction',
  'gapMm',
  'clearanceMm',
  'exitDeg',
  'tipBearingMm',
  'tipClearanceMm',
  'tipFriction',
  'depositN',
  'rollFriction',
  'pairForceOver',
  'castRadiusMm',
  'yieldMPa',
  'motorPushN',
  'linerBoreMm',
] as const
export type Param = (typeof PARAMS)[number]
export type Values = Readonly<Record<Param, number>>
export type Guesses = Readonly<Record<Param, Guess>>

/** The whole way of one gun: what it is, and a number for everything that has one. */
export interface DragSetup {
  shape: DragShape
  values: Values
}

const fixed = (n: number): Guess => ({ low: n, typical: n, high: n })

function woundRadius(spoolKg: number): Guess {
  const row = windingOf(spoolKg)
  return { low: row.emptyMm, typical: Math.round((row.emptyMm + row.fullMm) / 2), high: row.fullMm }
}

/** The working lay: so many degrees for each metre of cable. */
export const layDeg = (cableMm: number): Guess => ({
  low: (LAY_PER_M.low * cableMm) / 1000,
  typical: (LAY_PER_M.typical * cableMm) / 1000,
  high: (LAY_PER_M.high * cableMm) / 1000,
})
const USUAL_CABLE_MM = 4000

/** Shipped guesses for a shape, with their spread; a cable's length and lay go by what is told of it. */
export function guessesFor(shape: DragShape, cableMm = USUAL_CABLE_MM): Guesses {
  const { material, diameterMm } = shape
  return {
    friction: frictionGuess(shape),
    waviness: WAVINESS,
    cableMm: fixed(cableMm),
    bendDeg: layDeg(cableMm),
    coils: fixed(0),
    kinkDeg: fixed(0),
    neckDeg: fixed(NECK_DEG),
    neckRadiusMm: NECK_RADIUS,
    brakeNm: brakeGuess(shape.spoolKg),
    woundRadiusMm: woundRadius(shape.spoolKg),
    drumPullN: DRUM_PULL_N,
    boosterN: shape.hasBooster ? BOOSTER_N : fixed(0),
    conduitMm: shape.payoff === 'drum' ? fixed(CONDUIT_MM.typical) : fixed(0),
    conduitDeg: shape.payoff === 'drum' ? CONDUIT_DEG : fixed(0),
    conduitFriction: CONDUIT_FRICTION,
    gapMm: gapGuess(shape.runsToRolls),
    clearanceMm: CLEARANCE_MM,
    exitDeg: EXIT_DEG,
    tipBearingMm: TIP_BEARING_MM,
    tipClearanceMm: tipClearanceGuess(material, diameterMm),
    tipFriction: tipFrictionGuess(material),
    depositN: depositGuess(shape.tipState, diameterMm),
    rollFriction: isAluminiumOf(material) ? ROLL_FRICTION_ALUMINIUM : ROLL_FRICTION,
    pairForceOver: PAIR_FORCE_OVER,
    castRadiusMm: castGuess(material, diameterMm),
    yieldMPa: yieldGuess(material, diameterMm),
    // Optional: 0 is not told, and then nothing is limited by it.
    motorPushN: fixed(0),
    linerBoreMm: fixed(0),
  }
}

export function typicalValues(guesses: Guesses): Values {
  return Object.fromEntries(PARAMS.map((p) => [p, guesses[p].typical])) as Record<Param, number>
}

/** A gun of which nothing but its shape and cable is told. */
export const guessedSetup = (shape: DragShape, cableMm = USUAL_CABLE_MM): DragSetup => ({
  shape,
  values: typicalValues(guessesFor(shape, cableMm)),
})

/** The same with some numbers otherwise. */
export const withValues = (setup: DragSetup, over: Partial<Values>): DragSetup => ({
  ...setup,
  values: { ...setup.values, ...over },
})
/** Another wire, liner or tip: what goes by it takes that one's guess, what was told or read of the rest stays. */
export function withShape(setup: DragSetup, over: Partial<DragShape>): DragSetup {
  const shape = { ...setup.shape, ...over }
  const { cableMm } = setup.values
  const [before, after] = [guessesFor(setup.shape, cableMm), guessesFor(shape, cableMm)]
  const values = Object.fromEntries(
    PARAMS.map((p) => [p, isSame(before[p], after[p]) ? setup.values[p] : after[p].typical]),
  ) as Record<Param, number>
  return { shape, values }
}
const isSame = (a: Guess, b: Guess) => a.low === b.low && a.typical === b.typical && a.high === b.high
