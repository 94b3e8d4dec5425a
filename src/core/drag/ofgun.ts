import { isSoft, type Setup } from '@core/rightparts/facts.ts'
import { guideClearance } from '@core/drag/clearance.ts'
import { conduitTold, hasBooster } from './conduit.ts'
import {
  FEEDER_GUESSES,
  KINK,
  materialOf,
  STRAIGHT_DEG,
  suitedLiner,
  tipClearanceGuess,
  windingOf,
  type FeederGuess,
  type LinerState,
  type TipState,
} from './guess.ts'
import { grooveOf } from './remedy.ts'
import {
  guessesFor,
  layDeg,
  PARAMS,
  typicalValues,
  type DragSetup,
  type DragShape,
  type Guesses,
  type Param,
  type RollGroove,
  type Values,
} from './setup.ts'
import { type Line } from './traction.ts'

/** A number read on the gun, and when. */
export interface Read {
  value: number
  atMs: number
}
/** What is known of one gun for its drag, beside how it is built. Null: nobody read it. */
export interface DragFacts {
  setup: Setup
  /** Share of the liner's limit it has done; null: no limit, or no clock. */
  linerUsed: number | null
  /** The cable holds liners back at one place: since when that is known. */
  kink: { atMs: number } | null
  spoolKg: number | null
  /** 0 empty to 1 full. */
  spoolLeft: number | null
  isReversed: boolean
  /** Slip pulls, as long as they hold for the wire on. */
  slip: (Line & { atMs: number }) | null
  friction: Read | null
  hubN: Read | null
  gapMm: Read | null
  coils: Read | null
  /** Friction of a drum's conduit, and its bends as counted with it. */
  conduit: (Read & { bends: number | null }) | null
  /** A second drive on the gun. */
  hasSecondDrive: boolean
  layGrade: { grade: string; atMs: number } | null
  /** Verdict of the last look at the tip. */
  tip: { is: 'good' | 'look' | 'act'; atMs: number } | null
  /** Knob as last left, in marks. */
  knob: Read | null
}
export interface Source {
  by: 'read' | 'told' | 'guess'
  atMs: number | null
}
export interface DragOfGun {
  drag: DragSetup
  sources: Partial<Record<Param, Source>>
  /** Spread of each number: what is read is known to a tenth, what is guessed as far as the guess goes. */
  spans: Guesses
}

/** From this share of its limit a liner counts as worn. */
const WORN_FROM = 0.6
const READ_SPREAD = 0.1
/** A drum, not a spool, above this label. */
const DRUM_KG = 60
/** So much wire comes in a drum. */
export const isDrum = (spoolKg: number) => spoolKg > DRUM_KG
/** A bend right at the machine, on top of the lay. */
const BENT_AT_MACHINE_DEG = 90

/** The way of one gun from what is built, told and read; guesses for the rest. Null where the wire is not known. */
export function dragOfGun(facts: DragFacts): DragOfGun | null {
  const shape = shapeOf(facts)
  if (!shape) return null
  const cableMm = (facts.setup.cableM ?? 4) * 1000
  const sources: Partial<Record<Param, Source>> = {}
  const over: Partial<Record<Param, number>> = {}
  const take = (param: Param, value: number, source: Source) => {
    over[param] = value
    sources[param] = source
  }
  if (facts.setup.cableM !== null) take('cableMm', cableMm, { by: 'told', atMs: null })
  takeLay(facts, cableMm, take)
  const way = conduitTold(facts.setup.cell)
  if (way) take('conduitMm', way.lengthMm, { by: 'told', atMs: null })
  if (way) take('conduitDeg', way.bendDeg, { by: 'told', atMs: null })
  takeRead(facts, shape, take)
  const guesses = { ...guessesFor(shape, cableMm), ...(way ? { conduitFriction: way.friction } : {}) }
  const drag = { shape, values: { ...typicalValues(guesses), ...over } }
  return { drag, sources, spans: spansOf(guesses, drag.values, sources) }
}

type Take = (param: Param, value: number, source: Source) => void

function takeLay(facts: DragFacts, cableMm: number, take: Take): void {
  const { coils, layGrade } = facts
  if (coils) take('coils', coils.value, { by: 'read', atMs: coils.atMs })
  if (!layGrade) return
  const source: Source = { by: 'read', atMs: layGrade.atMs }
  if (layGrade.grade === 'straight') take('bendDeg', (STRAIGHT_DEG.typical * cableMm) / 4000, source)
  if (layGrade.grade === 'bentAtMachine') take('bendDeg', layDeg(cableMm).typical + BENT_AT_MACHINE_DEG, source)
  if (layGrade.grade === 'coiled' && !coils) take('coils', 1, source)
}

function takeRead(facts: DragFacts, shape: DragShape, take: Take): void {
  const read = (atMs: number): Source => ({ by: 'read', atMs })
  const { friction, gapMm, hubN, setup, conduit } = facts
  if (friction) take('friction', friction.value, read(friction.atMs))
  if (conduit && (shape.payoff === 'drum' || setup.cell?.conduit)) {
    take('conduitFriction', conduit.value, read(conduit.atMs))
    if (conduit.bends !== null) take('conduitDeg', 90 * conduit.bends, read(conduit.atMs))
  }
  if (gapMm) take('gapMm', gapMm.value, read(gapMm.atMs))
  const radius = woundRadiusMm(facts)
  if (radius !== null) take('woundRadiusMm', radius, { by: 'told', atMs: null })
  if (hubN && shape.payoff === 'spool')
    take('brakeNm', (hubN.value * (radius ?? guessesFor(shape).woundRadiusMm.typical)) / 1000, read(hubN.atMs))
  const clearance = guideClearance(setup.parts['outlet']?.sizeMm ?? null, shape.diameterMm)
  if (clearance !== null && !shape.runsToRolls) take('clearanceMm', clearance, { by: 'told', atMs: null })
  if (facts.kink) take('kinkDeg', KINK.bendDeg.typical, read(facts.kink.atMs))
  if (facts.tip?.is === 'act')
    take(
      'tipClearanceMm',
      tipClearanceGuess(shape.material, shape.diameterMm).typical + WORN_BORE_MM,
      read(facts.tip.atMs),
    )
}
/** What a worn bore has over a new one. */
const WORN_BORE_MM = 0.25

function shapeOf(facts: DragFacts): DragShape | null {
  const { setup } = facts
  if (!setup.wire) return null
  const material = materialOf(setup.wire)
  const spoolKg = facts.spoolKg ?? 15
  return {
    material,
    diameterMm: setup.wire.diameterMm,
    densityGPerCm3: setup.wire.densityGPerCm3,
    linerKind: setup.parts['liner']?.fit?.linerKind ?? suitedLiner(material),
    linerState: linerStateOf(facts),
    runsToRolls: runsToRolls(setup),
    tipState: tipStateOf(facts),
    groove: grooveOn(setup) ?? grooveOf(material),
    feeder: feederOf(setup),
    payoff: setup.cell?.payoff ?? (isDrum(spoolKg) ? 'drum' : 'spool'),
    secondDrive: facts.hasSecondDrive,
    spoolKg,
    hasBooster: hasBooster(setup.cell),
    isReversed: facts.isReversed,
    coilsAt: 'spread',
    slip: facts.slip && { atZeroN: facts.slip.atZeroN, perMarkN: facts.slip.perMarkN },
  }
}

/** The liner runs up to the rolls with soft wire, on feeders made for it: no metal guide between. */
export const runsToRolls = ({ feeder, wire }: Pick<Setup, 'feeder' | 'wire'>) =>
  (feeder?.runsLinerToRolls ?? false) && wire !== null && isSoft(wire)

const linerStateOf = ({ linerUsed }: DragFacts): LinerState =>
  linerUsed !== null && linerUsed >= WORN_FROM ? 'worn' : 'new'

function tipStateOf({ tip }: DragFacts): TipState {
  if (!tip || tip.is === 'good') return 'in service'
  return tip.is === 'act' ? 'dragging' : 'spattered'
}

function grooveOn(setup: Setup): RollGroove | null {
  const shape = setup.parts['rolls']?.fit?.grooves?.[0].shape
  if (!shape) return null
  return shape === 'knurled V' ? 'knurled' : shape
}

/** Force of a pair at a fifth and four fifths of whatever scale the feeder has; by how many rolls it has. */
export function feederOf(setup: Pick<Setup, 'feeder'>): FeederGuess {
  const isFour = (setup.feeder?.rollCount ?? 4) === 4
  const [from, to] = [setup.feeder?.scaleFrom ?? 0, setup.feeder?.scaleTo ?? 5]
  if (isFour && from === 1 && to === 10) return FEEDER_GUESSES.fourRollTen
  const base = isFour ? FEEDER_GUESSES.fourRoll : FEEDER_GUESSES.twoRoll
  const at = (share: number) => from + (to - from) * share
  const [[, low], [, high]] = base.pairForceN
  return {
    ...base,
    scale: [from, to],
    pairForceN: [
      [at(0.2), low],
      [at(0.8), high],
    ],
  }
}

/** Radius the spool is wound to, from what is left on it: areas go by what is left. */
function woundRadiusMm({ spoolKg, spoolLeft }: DragFacts): number | null {
  if (spoolKg === null || spoolLeft === null || isDrum(spoolKg)) return null
  const row = windingOf(spoolKg)
  const left = Math.min(1, Math.max(0, spoolLeft))
  return Math.sqrt(row.emptyMm ** 2 + (row.fullMm ** 2 - row.emptyMm ** 2) * left)
}

function spansOf(guesses: Guesses, values: Values, sources: Partial<Record<Param, Source>>): Guesses {
  return Object.fromEntries(
    PARAMS.map((p) => {
      const source = sources[p]
      if (!source) return [p, guesses[p]]
      const spread = source.by === 'read' ? READ_SPREAD * values[p] : 0
      return [p, { low: values[p] - spread, typical: values[p], high: values[p] + spread }]
    }),
  ) as Record<Param, Guesses[Param]>
}
