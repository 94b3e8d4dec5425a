import { type FamilyId, type PartId, type WireId } from '@core/ids/id.ts'
import { type KindKey } from '@core/path/columns.ts'
/** What is known of wires, families, feeders and parts as far as fit goes by it. Null always means "not told": no verdict. */
export const ALLOYS = ['steel', 'stainless', 'aluminium 4xxx', 'aluminium 5xxx', 'copper alloy'] as const
export type Alloy = (typeof ALLOYS)[number]
export const CONSTRUCTIONS = ['solid', 'flux-cored', 'metal-cored', 'aluminium'] as const
export type Construction = (typeof CONSTRUCTIONS)[number]
export const GASES = ['CO2', 'argon mix', 'argon', 'argon-helium', 'none'] as const
export type Gas = (typeof GASES)[number]
export const MODES = ['short circuit', 'spray', 'pulse', 'globular'] as const
export type Mode = (typeof MODES)[number]
export const POLARITIES = ['gun positive', 'gun negative'] as const
export type Polarity = (typeof POLARITIES)[number]
/** How wire leaves the spool. */
export const UNWINDS = ['over the top', 'from underneath'] as const
export type Unwind = (typeof UNWINDS)[number]
export const GRADES = ['plain', 'deoxidised'] as const
export type Grade = (typeof GRADES)[number]
/** Low and high end of what is allowed, both included. */
export type Span = [from: number, to: number]

export interface WireFit {
  alloy: Alloy | null
  isSelfShielded: boolean | null
  /** What its own data say; they win over the rule by construction. */
  polarity: Polarity | null
  gases: Gas[] | null
  /** Where the tip stands by its data: + out of the nozzle, − back in it. */
  tipOutMm: Span | null
  grade: Grade | null
  isCopperCoated: boolean | null
  classification: string | null
  pricePerKgMinor: number | null
}
export interface WireFacts {
  id: WireId
  name: string
  construction: string
  diameterMm: number
  densityGPerCm3: number
  fit: WireFit | null
}

export const LINER_HOLDS = ['set screw', 'butt', 'nut', 'collet'] as const
export type LinerHold = (typeof LINER_HOLDS)[number]
export const NOZZLE_STYLES = ['push-on', 'threaded'] as const
export type NozzleStyle = (typeof NOZZLE_STYLES)[number]
/** How tight a joint is made, one to five. */
export const TIGHTNESS = ['by finger', 'a nip', 'snug by tool', 'firm', 'to a torque'] as const
export type TightnessStep = 1 | 2 | 3 | 4 | 5
export const JOINTS = ['tip', 'diffuser', 'clampring', 'insulator', 'nozzle', 'neck', 'linerNut', 'gunLock'] as const
export type Joint = (typeof JOINTS)[number]
export interface JointRule {
  step: TightnessStep
  /** When the shop chose it: faults are counted from then. */
  sinceMs: number
}

/** How the trigger's wires meet the feeder: a keyed plug with a ring, or two tabs pushed on. */
export const PLUG_STYLES = ['keyed', 'tabs'] as const
export type PlugStyle = (typeof PLUG_STYLES)[number]
/** Parts that screw and seat together, and what that asks of the hand. */
export interface FamilyFit {
  thread: string | null
  pin: string | null
  /** Not told by families described before it was asked. */
  plug?: PlugStyle | null | undefined
  linerHeldBy: LinerHold | null
  /** How its liner is cut: A by what stands out, B flush and pushed back, C like the old one. */
  linerRule: 'A' | 'B' | 'C' | null
  seatDepthMm: number | null
  pushBackMm: number | null
  doesTipSeatLiner: boolean
  hasClampRing: boolean
  nozzleStyle: NozzleStyle | null
  isNeckQuick: boolean
  neckMm: number | null
  co2Amps: number | null
  /** Current rating with mixed gas; its data sheet's figure. */
  mixedAmps: number | null
  dutyFraction: number | null
  /** A plain tip may be so much over an aluminium wire and still hold it. */
  aluBoreOverMm: number | null
  tightness: Partial<Record<Joint, JointRule>>
}
export interface FamilyFacts {
  id: FamilyId
  name: string
  fit: FamilyFit | null
}

export interface FeederFit {
  rollCount: 2 | 4
  /** The groove that runs is the one whose number can be read from outside, or the one behind. */
  runsFace: 'read' | 'behind'
  unwind: Unwind | null
  pin: string | null
  hasJog: boolean
  hasPurge: boolean
  /** Feeding by the trigger without an arc lets no gas out. */
  cutsGas: boolean
  scaleFrom: number | null
  scaleTo: number | null
  topMPerMin: number | null
  /** Soft wire: the liner runs up to the rolls and the short metal outlet guide comes out. */
  runsLinerToRolls: boolean
}

export interface ProcedureFit {
  wireId: WireId | null
  gas: Gas | null
  mode: Mode | null
  polarity: Polarity | null
  amps: Span | null
  dutyFraction: number | null
  wireMPerMin: Span | null
  stickOutMm: Span | null
  volts?: Span | null
  flowLPerMin?: Span | null
  material: Alloy | null
  thicknessMm: Span | null
  position: WeldPosition | null
}
export type FeederFacts = { id: string; name: string } & FeederFit
export type ProcedureFacts = { id: string; name: string } & ProcedureFit
export const WELD_POSITIONS = ['flat', 'horizontal', 'vertical', 'overhead'] as const
export type WeldPosition = (typeof WELD_POSITIONS)[number]

export const GROOVE_SHAPES = ['V', 'knurled V', 'U'] as const
export type GrooveShape = (typeof GROOVE_SHAPES)[number]
export interface Groove {
  shape: GrooveShape
  sizeMm: number
}
export const LINER_KINDS = ['steel coil', 'coated steel coil', 'polymer', 'graphite-filled'] as const
export type LinerKind = (typeof LINER_KINDS)[number]
export const GUIDE_MATERIALS = ['steel', 'brass', 'polymer'] as const
export type GuideMaterial = (typeof GUIDE_MATERIALS)[number]

/** What the front is made of, or faced with. */
export const METALS = ['copper', 'hardened copper', 'silver-faced', 'nickel-faced', 'brass'] as const
export type Metal = (typeof METALS)[number]

/** How it is known that a part fits: tried here, its maker's word, or only heard. */
export const PROOFS = ['confirmed', 'claimed', 'rumour'] as const
export type Proof = (typeof PROOFS)[number]

/** What a part is, beyond kind, family and nominal size. Which of it applies goes by the kind. */
export interface PartFit {
  alsoFamilyIds: FamilyId[]
  /** Null: nobody doubts it. */
  proof?: Proof | null
  isForAluminium: boolean | null
  wireMm: Span | null
  linerKind: LinerKind | null
  lengthM: number | null
  isJacketed: boolean | null
  bareFrontMm: number | null
  /** The groove under each face's number; a roll with one groove has it on both. */
  grooves: [Groove, Groove] | null
  material: GuideMaterial | null
  metal?: Metal | null
  /** Rated for so much mixed-gas current at the family’s duty; not told by parts described before it was asked. */
  ratedAmps?: number | null | undefined
  nozzleStyle: NozzleStyle | null
  boreMm: number | null
  /** Where this nozzle leaves the tip: + out, − back in. */
  tipOutMm: number | null
}
export interface PartFacts {
  id: PartId
  code: string
  name: string
  kindKey: KindKey
  familyId: FamilyId | null
  sizeMm: number | null
  fit: PartFit | null
}

/** How wire comes to a robot's feeder, and what stands beside its torch. */
export const PAYOFFS = ['spool', 'drum'] as const
export type Payoff = (typeof PAYOFFS)[number]
export const BOOSTERS = ['none', 'air', 'electric'] as const
export type Booster = (typeof BOOSTERS)[number]
export const CONDUIT_LININGS = ['polymer', 'steel coil', 'rollers'] as const
export type ConduitLining = (typeof CONDUIT_LININGS)[number]
export const CUTTERS = ['none', 'clamps and shears', 'shears only'] as const
export type Cutter = (typeof CUTTERS)[number]
/** How a hand gets at spool and feeder of a cell. */
export const REACHES = ['from the floor', 'by ladder', 'tilts down'] as const
export type Reach = (typeof REACHES)[number]
/** One length of conduit between two joints, named as it is painted or called at the cell. */
export interface ConduitPiece {
  name: string
  lengthM: number
  /** Quarter turns in it. */
  bends: number
  lining: ConduitLining
}
/** From spool to drum, as it is planned and how far it is. */
export const PLAN_STEPS = ['before', 'hung', 'threaded'] as const
export type PlanStep = (typeof PLAN_STEPS)[number]
export interface DrumPlan {
  booster: Booster | null
  conduit: ConduitPiece[]
  sinceMs: number
  done: PlanStep[]
}
export interface CellFit {
  /** Null: none is planned. */
  plan: DrumPlan | null
  /** Since when its wire comes from a drum, where it was turned from a spool here. */
  drumSinceMs: number | null
  payoff: Payoff | null
  booster: Booster | null
  /** From the drum to the feeder, in the order of the wire; null: nobody said. */
  conduit: ConduitPiece[] | null
  cutter: Cutter | null
  reach: Reach | null
  /** The tool centre may be off by so much before the program is touched up. */
  centreMm: number | null
  /** Seconds of arc in one cycle of its program. */
  cycleArcS: number | null
  /** Cycles from one cleaning by the reamer to the next. */
  reamEvery: number | null
  /** Anti-spatter: what a shot takes, what the tank holds, shots a cleaning. */
  sprayMl: number | null
  tankL: number | null
  shotsPerReam: number | null
  /** How this cell is made safe before anybody goes in, in the site's own words. */
  lockOut: string | null
}
export const NOTHING_OF_CELL: CellFit = {
  ...{ payoff: null, booster: null, conduit: null, cutter: null, reach: null, centreMm: null },
  ...{
    plan: null,
    drumSinceMs: null,
    cycleArcS: null,
    reamEvery: null,
    sprayMl: null,
    tankL: null,
    shotsPerReam: null,
    lockOut: null,
  },
}

export const SETTINGS = [
  'roll1',
  'roll2',
  'roll3',
  'roll4',
  'polarity',
  'unwind',
  'gas',
  'machineWire',
  'machineMode',
  'machineMaterial',
  'tipOut',
  'reamerBlade',
  'reamerClamp',
  'antiSpatter',
  'gripTip',
  'scrapeNozzle',
  'snipWire',
  'ownBrush',
  'hangGun',
  'chainCylinder',
] as const
export type SettingName = (typeof SETTINGS)[number]
/** What keeps spatter from sticking, as it is in use at a place. */
export const ANTI_SPATTERS = ['none', 'dip', 'gel', 'spray'] as const
/** Kinds the rules of fit speak of, in path order: they can be told apart by looking, and a change of wire may swap them. */
export const FITTED_KINDS = [
  'inlet',
  'rolls',
  'outlet',
  'liner',
  'jump',
  'neck',
  'diffuser',
  'clampring',
  'insulator',
  'tip',
  'nozzle',
] as const
export const ROLL_SETTINGS = ['roll1', 'roll2', 'roll3', 'roll4'] as const
/** What was last read or set, by name, as written down; sizes in mm. */
export type Settings = Partial<Record<SettingName, string>>

/** A gun as it stands: what is on its path, how it is set, what it is to do. */
export interface Setup {
  wire: WireFacts | null
  family: FamilyFacts | null
  feeder: FeederFacts | null
  procedure: ProcedureFacts | null
  mode: Mode | null
  gas: Gas | null
  cableM: number | null
  /** Of a robot cell; null elsewhere, and where nothing was told. */
  cell?: CellFit | null
  settings: Settings
  /** By kind: undefined where the gun has no such position, null where nobody knows what is on. */
  parts: Readonly<Record<string, PartFacts | null | undefined>>
  /** The shop's answer to D29 and D09. */
  polarityBy: 'wire' | 'gasless'
  tipStands: 'byMode' | 'level' | 'proud'
  /** Parts that are being tried out on it. */
  trying?: readonly string[]
}

const SAME_MM = 0.04
/** Two nominal sizes are one wire within 0.04 mm: an inch size and the metric one beside it. */
export const isSameSize = (aMm: number, bMm: number) => Math.abs(aMm - bMm) < SAME_MM

export function alloyOf(wire: WireFacts): Alloy {
  return wire.fit?.alloy ?? (wire.construction === 'aluminium' ? 'aluminium 4xxx' : 'steel')
}
export const isAluminium = (wire: WireFacts) => alloyOf(wire).startsWith('aluminium')
export const isSoft = (wire: WireFacts) => isAluminium(wire) || alloyOf(wire) === 'copper alloy'
export const isCored = (wire: WireFacts) => wire.construction.endsWith('-cored')

/** Groove a wire wants (P001): smooth V for hard solid wire, knurled V for tubular, U for soft. */
export function grooveFor(wire: WireFacts): GrooveShape {
  if (isSoft(wire)) return 'U'
  return isCored(wire) ? 'knurled V' : 'V'
}

/**
 * Polarity a wire wants: its own data first; else by the shop's rule, gasless cored wire negative and everything else positive.
 * Null for a cored wire whose shielding nobody has told and whose data are to be followed.
 */
export function polarityFor(wire: WireFacts, by: Setup['polarityBy']): Polarity | null {
  const fit = wire.fit
  if (by === 'wire' && fit?.polarity) return fit.polarity
  if (fit?.isSelfShielded) return 'gun negative'
  if (isCored(wire) && (fit?.isSelfShielded ?? null) === null) return null
  return 'gun positive'
}

/** Gases that go with a wire; null where its data are not told and no rule is sure. */
export function gasesFor(wire: WireFacts): readonly Gas[] | null {
  if (wire.fit?.gases) return wire.fit.gases
  if (wire.fit?.isSelfShielded) return ['none']
  if (isAluminium(wire)) return ['argon', 'argon-helium']
  if (alloyOf(wire) === 'copper alloy') return ['argon', 'argon-helium']
  if (isCored(wire)) return null
  if (alloyOf(wire) === 'stainless') return ['argon mix']
  return ['CO2', 'argon mix']
}

/** An arc that is hot at the front, whatever it is of. */
export const isHot = (mode: Mode | null) => mode === 'spray' || mode === 'pulse'
/** Whether a gas can carry a mode on a wire: under pure CO2 solid wire neither sprays nor pulses. */
export const canCarry = (gas: Gas, wire: WireFacts, mode: Mode | null) => gas !== 'CO2' || !isHot(mode) || isCored(wire)

const WORKING = {
  shortCircuit: [0, 3] as Span,
  hot: [-12, -3] as Span,
  level: [-1, 1] as Span,
  proud: [0, 5] as Span,
}
/** Where the tip should stand against the nozzle (P025, D09); null where nothing tells. */
export function tipOutFor(setup: Setup): Span | null {
  const { wire, mode, tipStands } = setup
  if (wire?.fit?.tipOutMm) return wire.fit.tipOutMm
  if (tipStands === 'level') return WORKING.level
  if (tipStands === 'proud') return WORKING.proud
  if (mode === 'short circuit') return wire && isCored(wire) ? null : WORKING.shortCircuit
  if (isHot(mode)) return WORKING.hot
  return null
}
export const isIn = (value: number, [from, to]: Span) => value >= from - 1e-9 && value <= to + 1e-9
