import { CONDUIT_FRICTION, GAP_MM, GAP_TO_ROLLS_MM, materialOf, tipClearanceGuess } from '@core/drag/guess.ts'
import { isAluminium, isCored, isHot, isSoft, tipOutFor, type Setup } from '@core/rightparts/facts.ts'
import { gasOn } from '@core/rightparts/supplyrules.ts'
import { type ReadingKey } from './keys.ts'
import { type KnobNorm } from './norm.ts'
import { AMPS_LOOK, FRICTION_LOOK, KNOB_RISE } from './specs.ts'

/** Where a reading should lie. `act`: beyond this it is put right now; between the two it is worth another look. */
export interface Target {
  from: number | null
  to: number | null
  actBelow: number | null
  actAbove: number | null
  /** Whose number it is. */
  by: 'window' | 'baseline' | 'procedure' | 'wire' | 'rule' | 'shop' | 'scale' | 'guess'
  /** Of the shop's own norm: the guns it is made of. */
  n?: number
  /** Of a bore, in mm: no wire goes through a narrower one; from so wide on it is worn, round or not. */
  bore?: { leastMm: number; lookMm: number; actMm: number }
}
export interface TargetFacts {
  setup: Setup
  /** The tension window in marks of this feeder; null: not calibrated, so no mark can be told. */
  window: { lowMark: number; highMark: number } | null
  /** First value of this series since it began anew: the knob with the new liner, the friction of the new liner. */
  baseline: number | null
  runsToRolls: boolean
  /** Where the knob stands on the other guns of this feeder type with this wire; null: too few were read. */
  norm: KnobNorm | null
}

const none = { from: null, to: null, actBelow: null, actAbove: null }
const upTo = (to: number, actAbove: number, by: Target['by'] = 'guess'): Target => ({ ...none, to, actAbove, by })

/** Oval of a bore: (max − min)/min from which a tip is worn. A guess, and the threshold told. */
export const OVAL_LIMIT = 0.075
/** Share of the nozzle's opening below which it is cleaned, and below which gas is lost. Guesses. */
export const OPEN_LOOK = 0.75
export const OPEN_ACT = 0.5
/** Just reamed, a nozzle is free but for a trace. A guess. */
export const REAMED_LOOK = 0.9
/** Off the nozzle’s middle by more than this of its own diameter a tip sits crooked: a guess. */
export const CROOKED = 0.12
const FRICTION_ACT = 1.9
const SPAN_ACT_MM = 2

type Targeting = (facts: TargetFacts) => Target | null
const overBaseline =
  (look: number, act: number): Targeting =>
  ({ baseline }) =>
    baseline === null ? null : upTo(baseline * look, baseline * act, 'baseline')
/** Told apart in words only: its grades say what is good. */
const byGrade: Targeting = () => null

/** Where each reading should lie. Every number that is not the shop's own is a guess. */
const TARGETS: Readonly<Record<ReadingKey, Targeting>> = {
  hubDrag: () => ({ from: 1.5, to: 8.5, actBelow: null, actAbove: 15, by: 'guess' }),
  hubCoast: () => ({ from: 5, to: 90, actBelow: null, actAbove: 180, by: 'guess' }),
  conduitPull: () => upTo(CONDUIT_FRICTION.high, CONDUIT_FRICTION.high * 1.5),
  segmentPull: () => null,
  wiper: byGrade,
  tension: tensionTarget,
  slip: () => upTo(0.05, 0.15),
  motorAmps: overBaseline(AMPS_LOOK, 1.6),
  gap: ({ runsToRolls }) =>
    runsToRolls
      ? { ...upTo(GAP_TO_ROLLS_MM.high, 4), from: 0.5, actBelow: 0.2 }
      : { ...upTo(GAP_MM.high, 15), from: 3, actBelow: 1 },
  pinHome: () => upTo(0.5, 2),
  orings: byGrade,
  layout: () => upTo(0, 1),
  pull: overBaseline(FRICTION_LOOK, FRICTION_ACT),
  toolCentre: ({ setup }) => (setup.cell ? centreTarget(setup.cell.centreMm) : null),
  holes: () => ({ ...none, from: 0.99, actBelow: 0.5, by: 'guess' }),
  insulator: byGrade,
  continuity: byGrade,
  bore: boreTarget,
  recess: ({ setup }) => spanTarget(tipOutFor(setup), setup.wire?.fit?.tipOutMm ? 'wire' : 'rule'),
  stickOut: ({ setup }) => spanTarget(setup.procedure?.stickOutMm ?? null, 'procedure'),
  arcCone: () => upTo(1, 2),
  failedStarts: () => upTo(0.03, 0.1),
  centring: () => upTo(CROOKED, 2.5 * CROOKED),
  nozzleOpen: () => ({ ...none, from: OPEN_LOOK, actBelow: OPEN_ACT, by: 'guess' }),
  beforeReam: () => ({ ...none, from: OPEN_LOOK, actBelow: OPEN_ACT, by: 'guess' }),
  afterReam: () => ({ ...none, from: REAMED_LOOK, actBelow: OPEN_LOOK, by: 'guess' }),
  agentTank: () => null,
  gasFlow: gasTarget,
  cylinder: ({ setup }) =>
    gasOn(setup) === 'none' ? null : { ...none, from: CYLINDER_BAR.look, actBelow: CYLINDER_BAR.act, by: 'guess' },
  clamp: byGrade,
}
/** Off by so much the wire leaves a fillet's root: a guess, until the cell has its own. */
export const CENTRE_MM = 0.5
/** Beyond the cell's own limit it is touched up before anything is welded. */
const centreTarget = (limitMm: number | null): Target =>
  upTo(limitMm ?? CENTRE_MM, limitMm ?? CENTRE_MM, limitMm === null ? 'guess' : 'rule')
/** Window of a reading by the set-up; null where nothing tells one. */
export const targetFor = (what: ReadingKey, facts: TargetFacts): Target | null => TARGETS[what](facts)

/** Share of a knob's scale up to which a first reading is nothing out of the way, by wire: guesses of the trade. */
const OF_SCALE = { solid: 0.8, cored: 0.55, soft: 0.5 } as const
/** Nothing read before, no other gun to compare with: high on this feeder's own scale is worth a second look. */
function ofScale({ feeder, wire }: Setup): Target | null {
  if (!feeder || feeder.scaleTo === null) return null
  const from = feeder.scaleFrom ?? 0
  const share = OF_SCALE[wire && isSoft(wire) ? 'soft' : wire && isCored(wire) ? 'cored' : 'solid']
  return { ...none, to: from + share * (feeder.scaleTo - from), by: 'scale' }
}

/**
 * The knob: by the window of a calibrated feeder; by its own beginning, where that is not apart from the shop's norm itself; by the norm; by the
 * feeder's own scale.
 */
function tensionTarget({ window, baseline, norm, setup }: TargetFacts): Target | null {
  if (window && window.lowMark < window.highMark)
    return {
      from: window.lowMark,
      to: window.highMark,
      actBelow: null,
      actAbove: window.highMark + KNOB_RISE / 2,
      by: 'window',
    }
  const isApart = norm !== null && baseline !== null && baseline > norm.high
  if (baseline !== null && !isApart) return upTo(baseline + KNOB_RISE, baseline + 2 * KNOB_RISE, 'baseline')
  if (norm)
    return { from: norm.low, to: norm.high, actBelow: null, actAbove: norm.high + KNOB_RISE, by: 'shop', n: norm.n }
  return ofScale(setup)
}

/** Flow in L/min: from, to, below and above which it is put right. Guesses of the trade; the procedure of the work says better. */
const FLOWS = {
  /** Short, cool arc, solid wire: about 14 to begin with. */
  short: [12, 18, 8, 24],
  /** A hot arc stirs more air in. */
  hot: [15, 22, 10, 28],
  /** Cored wire under gas welds hot whatever it is called. */
  cored: [15, 24, 10, 30],
  aluminium: [15, 25, 10, 30],
  /** Helium is light and leaves sooner. */
  helium: [18, 32, 12, 40],
} as const
/** Below this the flow begins to fall off, and soon nothing comes: guesses. */
const CYLINDER_BAR = { look: 20, act: 8 } as const
/** Past what the procedure has by so much it is put right: a guess. */
const FLOW_ACT_L_PER_MIN = 5
/** The windows are for a nozzle of this opening: a wider one wants more, a narrower one less, within bounds. Guesses of the trade. */
const USUAL_NOZZLE_MM = 15
const NOZZLE_TIMES = [0.8, 1.35] as const
const byNozzle = (boreMm: number | null | undefined) =>
  boreMm == null ? 1 : Math.min(Math.max(boreMm / USUAL_NOZZLE_MM, NOZZLE_TIMES[0]), NOZZLE_TIMES[1])
function flowKind(setup: Setup): keyof typeof FLOWS {
  const { wire, mode } = setup
  if (gasOn(setup) === 'argon-helium') return 'helium'
  if (wire && isAluminium(wire)) return 'aluminium'
  if (wire && isCored(wire)) return 'cored'
  return isHot(mode) ? 'hot' : 'short'
}
/** As the procedure has it; else by wire, mode, gas and how wide its nozzle is; null where the wire wants none. */
function gasTarget({ setup }: TargetFacts): Target | null {
  if (gasOn(setup) === 'none') return null
  const told = setup.procedure?.flowLPerMin
  if (told) return spanTarget(told, 'procedure', FLOW_ACT_L_PER_MIN)
  const [from, to, actBelow, actAbove] = FLOWS[flowKind(setup)]
  const times = byNozzle(setup.parts['nozzle']?.fit?.boreMm)
  return { from: from * times, to: to * times, actBelow: actBelow * times, actAbove: actAbove * times, by: 'guess' }
}

/** A bore is as wide as the wire and what a new one has over it; so much more, in mm, and it is worn. Guesses: worn ones have 0.15 to 0.4 more. */
const WIDE_LOOK_MM = 0.15
const WIDE_ACT_MM = 0.25
function boreTarget({ setup }: TargetFacts): Target {
  const oval = upTo(OVAL_LIMIT, OVAL_LIMIT, 'rule')
  if (!setup.wire) return oval
  const { diameterMm } = setup.wire
  const newMm = diameterMm + tipClearanceGuess(materialOf(setup.wire), diameterMm).typical
  return { ...oval, bore: { leastMm: diameterMm, lookMm: newMm + WIDE_LOOK_MM, actMm: newMm + WIDE_ACT_MM } }
}

function spanTarget(
  span: readonly [number, number] | null,
  by: Target['by'],
  beyond: number = SPAN_ACT_MM,
): Target | null {
  return span && { from: span[0], to: span[1], actBelow: span[0] - beyond, actAbove: span[1] + beyond, by }
}
