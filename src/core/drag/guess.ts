import { alloyOf, isCored, type LinerKind, type WireFacts } from '@core/rightparts/facts.ts'

/**
 * Shipped guesses of the feed path: engineering estimates, none a measured value of any product. Each is shown as a guess until the
 * shop's own reading stands in its place. N, mm, MPa; angles in degrees where people read degrees.
 */
export interface Guess {
  low: number
  typical: number
  high: number
}
const guess = (low: number, typical: number, high: number): Guess => ({ low, typical, high })

export const WIRE_MATERIALS = [
  'steel',
  'stainless',
  'aluminium 4xxx',
  'aluminium 5xxx',
  'copper alloy',
  'flux-cored',
  'metal-cored',
] as const
export type WireMaterial = (typeof WIRE_MATERIALS)[number]

export function materialOf(wire: WireFacts): WireMaterial {
  if (wire.construction === 'metal-cored') return 'metal-cored'
  return isCored(wire) ? 'flux-cored' : alloyOf(wire)
}

interface MaterialGuess {
  modulusMPa: number
  densityGPerCm3: number
  /** Low and high of the yield stress over its typical. */
  yieldOver: readonly [number, number]
  /** Sheath over diameter of tubular wire; null: solid. */
  sheathOver: number | null
  /** By diameter, mm: yield MPa, half the diameter of a free turn off the spool, mm. */
  bySize: readonly (readonly [diameterMm: number, yieldMPa: number, castRadiusMm: number])[]
}
const STEEL_SIZES = [
  [0.6, 1050, 250],
  [0.8, 1050, 300],
  [0.9, 1050, 300],
  [1.0, 1000, 325],
  [1.2, 1000, 350],
  [1.6, 900, 450],
] as const
const USUAL_YIELD = [0.85, 1.15] as const
export const MATERIALS: Readonly<Record<WireMaterial, MaterialGuess>> = {
  steel: {
    modulusMPa: 205_000,
    densityGPerCm3: 7.85,
    yieldOver: USUAL_YIELD,
    sheathOver: null,
    bySize: STEEL_SIZES,
  },
  stainless: {
    modulusMPa: 193_000,
    densityGPerCm3: 7.95,
    yieldOver: USUAL_YIELD,
    sheathOver: null,
    bySize: [
      [0.8, 1150, 300],
      [0.9, 1150, 300],
      [1.0, 1100, 325],
      [1.2, 1100, 350],
    ],
  },
  'aluminium 4xxx': {
    modulusMPa: 69_000,
    densityGPerCm3: 2.68,
    yieldOver: [0.72, 1.28],
    sheathOver: null,
    bySize: [
      [0.8, 180, 150],
      [1.0, 180, 180],
      [1.2, 180, 200],
      [1.6, 170, 250],
    ],
  },
  'aluminium 5xxx': {
    modulusMPa: 70_000,
    densityGPerCm3: 2.65,
    yieldOver: [0.8, 1.23],
    sheathOver: null,
    bySize: [
      [0.8, 300, 180],
      [1.0, 300, 220],
      [1.2, 300, 250],
      [1.6, 290, 300],
    ],
  },
  'copper alloy': {
    modulusMPa: 110_000,
    densityGPerCm3: 8.5,
    yieldOver: [0.7, 1.3],
    sheathOver: null,
    bySize: [
      [0.8, 500, 220],
      [1.2, 480, 280],
    ],
  },
  'flux-cored': {
    modulusMPa: 205_000,
    densityGPerCm3: 6.1,
    yieldOver: [0.77, 1.15],
    sheathOver: 0.2,
    bySize: [
      [0.9, 650, 300],
      [1.2, 650, 300],
      [1.6, 650, 300],
    ],
  },
  'metal-cored': {
    modulusMPa: 205_000,
    densityGPerCm3: 6.9,
    yieldOver: [0.8, 1.2],
    sheathOver: 0.21,
    bySize: [[1.2, 600, 300]],
  },
}
/** Of the cast radius, either way. */
const CAST_OVER = [0.6, 1.6] as const

/** Value at a size: straight between the sizes told, the end value beyond them. */
export function bySize(rows: readonly (readonly [number, ...number[]])[], sizeMm: number, column: number): number {
  const sorted = [...rows].sort((a, b) => a[0] - b[0])
  const after = sorted.find((r) => r[0] >= sizeMm)
  const before = sorted.findLast((r) => r[0] <= sizeMm)
  const [lo, hi] = [before ?? after, after ?? before]
  if (!lo || !hi) throw new RangeError('bySize: expected rows, got none')
  const share = hi[0] === lo[0] ? 0 : (sizeMm - lo[0]) / (hi[0] - lo[0])
  return (lo[column] ?? NaN) * (1 - share) + (hi[column] ?? NaN) * share
}

export function yieldGuess(material: WireMaterial, diameterMm: number): Guess {
  const { bySize: rows, yieldOver } = MATERIALS[material]
  const typical = bySize(rows, diameterMm, 1)
  return guess(typical * yieldOver[0], typical, typical * yieldOver[1])
}
export function castGuess(material: WireMaterial, diameterMm: number): Guess {
  const typical = bySize(MATERIALS[material].bySize, diameterMm, 2)
  return guess(typical * CAST_OVER[0], typical, typical * CAST_OVER[1])
}

export const LINER_STATES = ['new', 'worn', 'dirty'] as const
export type LinerState = (typeof LINER_STATES)[number]
type Frictions = Readonly<Record<LinerState, Guess>>
const of = (fresh: Guess, worn: Guess, dirty: Guess): Frictions => ({ new: fresh, worn, dirty })
type WireClass = 'steel' | 'stainless' | 'cored' | 'aluminium' | 'copper alloy'
type Lining = 'coil' | 'polymer' | 'graphite'

const STEEL_POLYMER = of(guess(0.08, 0.12, 0.18), guess(0.15, 0.2, 0.3), guess(0.2, 0.25, 0.35))
const STEEL_GRAPHITE = of(guess(0.09, 0.13, 0.18), guess(0.14, 0.18, 0.25), guess(0.18, 0.24, 0.32))
const STAINLESS_COIL = of(guess(0.14, 0.2, 0.28), guess(0.22, 0.28, 0.35), guess(0.28, 0.35, 0.45))
const COPPER_POLYMER = of(guess(0.1, 0.14, 0.2), guess(0.15, 0.2, 0.28), guess(0.2, 0.26, 0.35))
const FRICTIONS: Readonly<Record<WireClass, Readonly<Record<Lining, Frictions>>>> = {
  steel: {
    coil: of(guess(0.12, 0.17, 0.22), guess(0.2, 0.25, 0.3), guess(0.25, 0.32, 0.4)),
    polymer: STEEL_POLYMER,
    graphite: STEEL_GRAPHITE,
  },
  stainless: { coil: STAINLESS_COIL, polymer: STEEL_POLYMER, graphite: STEEL_GRAPHITE },
  cored: {
    coil: of(guess(0.13, 0.17, 0.25), guess(0.2, 0.26, 0.32), guess(0.25, 0.33, 0.42)),
    polymer: STEEL_POLYMER,
    graphite: STEEL_GRAPHITE,
  },
  aluminium: {
    coil: of(guess(0.3, 0.4, 0.6), guess(0.4, 0.5, 0.7), guess(0.5, 0.6, 0.8)),
    polymer: of(guess(0.08, 0.12, 0.17), guess(0.16, 0.2, 0.28), guess(0.2, 0.27, 0.35)),
    graphite: of(guess(0.09, 0.13, 0.18), guess(0.15, 0.19, 0.26), guess(0.2, 0.26, 0.34)),
  },
  'copper alloy': { coil: STAINLESS_COIL, polymer: COPPER_POLYMER, graphite: COPPER_POLYMER },
}
const LININGS: Readonly<Record<LinerKind, Lining>> = {
  'steel coil': 'coil',
  'coated steel coil': 'coil',
  polymer: 'polymer',
  'graphite-filled': 'graphite',
}
export const isAluminiumOf = (material: WireMaterial) => material.startsWith('aluminium')
export const isTubular = (material: WireMaterial) => MATERIALS[material].sheathOver !== null

const CLASS_OF: Readonly<Record<WireMaterial, WireClass>> = {
  steel: 'steel',
  stainless: 'stainless',
  'aluminium 4xxx': 'aluminium',
  'aluminium 5xxx': 'aluminium',
  'copper alloy': 'copper alloy',
  'flux-cored': 'cored',
  'metal-cored': 'cored',
}
/** Friction of a wire in a liner, by what state the liner is in. */
export function frictionGuess(wire: { material: WireMaterial; linerKind: LinerKind; linerState: LinerState }): Guess {
  return FRICTIONS[CLASS_OF[wire.material]][LININGS[wire.linerKind]][wire.linerState]
}

/** The liner kind that suits a wire, as far as friction goes. */
export const suitedLiner = (material: WireMaterial): LinerKind =>
  isAluminiumOf(material) || material === 'copper alloy' ? 'polymer' : 'steel coil'

const TIP_CLEARANCES = [
  [0.6, 0.12],
  [0.8, 0.13],
  [0.9, 0.14],
  [1.0, 0.15],
  [1.2, 0.18],
  [1.6, 0.22],
] as const
const TIP_CLEARANCES_ALUMINIUM = [
  [0.8, 0.22],
  [1.0, 0.25],
  [1.2, 0.3],
  [1.6, 0.4],
] as const
/** Bore of a new tip over the wire, mm. */
export function tipClearanceGuess(material: WireMaterial, diameterMm: number): Guess {
  const typical = bySize(isAluminiumOf(material) ? TIP_CLEARANCES_ALUMINIUM : TIP_CLEARANCES, diameterMm, 1)
  return guess(typical * 0.7, typical, typical * 1.5)
}
export function tipFrictionGuess(material: WireMaterial): Guess {
  if (isAluminiumOf(material)) return guess(0.3, 0.4, 0.6)
  return isTubular(material) ? guess(0.2, 0.3, 0.4) : guess(0.25, 0.35, 0.5)
}

export const TIP_STATES = ['clean', 'in service', 'spattered', 'dragging', 'frozen'] as const
export type TipState = (typeof TIP_STATES)[number]
/** What the inspection's finding adds to the drag at the tip, N per mm of wire. Frozen is no number: the wire is held. */
const DEPOSIT_PER_MM: Readonly<Record<Exclude<TipState, 'frozen'>, Guess>> = {
  clean: guess(0, 0, 1),
  'in service': guess(1.5, 3.3, 6),
  spattered: guess(6, 9, 12),
  dragging: guess(12, 20, 40),
}
export function depositGuess(state: TipState, diameterMm: number): Guess {
  const per = DEPOSIT_PER_MM[state === 'frozen' ? 'dragging' : state]
  return guess(per.low * diameterMm, per.typical * diameterMm, per.high * diameterMm)
}

/** What does not go by wire or liner. Working lay: degrees for each metre of cable. */
export const WAVINESS = guess(1e-7, 4.5e-7, 1.2e-6)
export const LAY_PER_M = guess(70, 90, 110)
export const STRAIGHT_DEG = guess(30, 60, 90)
export const NECK_DEG = 45
export const NECK_MM = 150
export const NECK_RADIUS = guess(70, 90, 120)
const BRAKE_NM = guess(0.2, 0.4, 0.8)
const BRAKE_SMALL_NM = guess(0.05, 0.1, 0.2)
export const DRUM_PULL_N = guess(3, 6, 15)
export const CONDUIT_MM = guess(3000, 8000, 15_000)
export const CONDUIT_DEG = guess(90, 270, 450)
export const CONDUIT_FRICTION = guess(0.1, 0.14, 0.2)
export const CONDUIT_WAVINESS = 1e-7
export const BOOSTER_N = guess(5, 10, 25)
/** A spool put on the wrong way round bends the wire once more before the rolls. */
export const REVERSED = { bendDeg: 90, friction: 0.2, lengthMm: 150 } as const
export const GAP_MM = guess(5, 8, 11)
export const GAP_TO_ROLLS_MM = guess(1, 1.5, 2)
export const CLEARANCE_MM = guess(0.25, 0.4, 0.6)
export const EXIT_DEG = guess(0.3, 1, 2)
export const TIP_BEARING_MM = guess(20, 25, 30)
export const KINK = { bendDeg: guess(20, 40, 60), radiusMm: 60, lengthMm: 40 } as const
export const ROLL_FRICTION = guess(0.1, 0.15, 0.2)
export const ROLL_FRICTION_ALUMINIUM = guess(0.12, 0.15, 0.2)
export const KNURL_BITE = guess(1.4, 1.7, 2.2)
/** Wound radius of a spool, full and empty, by its label weight. */
const WOUND_RADIUS = [
  { kg: 1, fullMm: 43, emptyMm: 23 },
  { kg: 5, fullMm: 90, emptyMm: 50 },
  { kg: 15, fullMm: 131, emptyMm: 95 },
] as const

/** How a spool of that label is wound, full and empty. */
export const windingOf = (spoolKg: number) => WOUND_RADIUS.find((r) => spoolKg <= r.kg * 1.5) ?? WOUND_RADIUS[2]
export const brakeGuess = (spoolKg: number): Guess => (spoolKg <= 1.5 ? BRAKE_SMALL_NM : BRAKE_NM)
export const gapGuess = (runsToRolls: boolean): Guess => (runsToRolls ? GAP_TO_ROLLS_MM : GAP_MM)

/** A feeder by its shape: pairs of rolls, what of them is driven, its scale, force of a pair at two of its marks. */
export interface FeederGuess {
  pairs: 1 | 2
  drives: 'grooved only' | 'both'
  scale: readonly [from: number, to: number]
  pairForceN: readonly [readonly [mark: number, forceN: number], readonly [mark: number, forceN: number]]
}
export const FEEDER_GUESSES = {
  smallTwoRoll: {
    pairs: 1,
    drives: 'grooved only',
    scale: [0, 5],
    pairForceN: [
      [1, 100],
      [4, 340],
    ],
  },
  twoRoll: {
    pairs: 1,
    drives: 'both',
    scale: [0, 5],
    pairForceN: [
      [1, 100],
      [4, 340],
    ],
  },
  fourRoll: {
    pairs: 2,
    drives: 'both',
    scale: [0, 5],
    pairForceN: [
      [1, 60],
      [4, 210],
    ],
  },
  fourRollTen: {
    pairs: 2,
    drives: 'both',
    scale: [1, 10],
    pairForceN: [
      [1, 35],
      [10, 260],
    ],
  },
} as const satisfies Record<string, FeederGuess>
export type FeederKey = keyof typeof FEEDER_GUESSES
/** Of the force of a pair at a mark, either way. */
/** A drive on a gun: one pair, both rolls driven, close to its guide. Guesses. */
export const GUN_DRIVE = {
  scale: [1, 5],
  pairForceN: [
    [1, 12],
    [5, 60],
  ],
  gapMm: 3,
} as const
export const PAIR_FORCE_OVER = guess(0.7, 1, 1.4)
