import { type KindKey } from '@core/path/columns.ts'
import {
  brakeGuess,
  CLEARANCE_MM,
  EXIT_DEG,
  frictionGuess,
  gapGuess,
  GAP_TO_ROLLS_MM,
  isAluminiumOf,
  isTubular,
  suitedLiner,
  tipClearanceGuess,
  type WireMaterial,
} from './guess.ts'
import { layDeg, withShape, withValues, type DragSetup, type RollGroove } from './setup.ts'

/**
 * What can be done about a window that shuts, cheapest first: minutes of a practised hand, and the gun as it would be after it. A remedy
 * that does not apply (nothing is coiled, the hub is not tight) changes nothing and is not offered.
 */
export const REMEDIES = [
  'uncoil',
  'layStraight',
  'easeHub',
  'cleanTip',
  'turnSpool',
  'newTip',
  'guideNearer',
  'guideStraight',
  'guideOwnSize',
  'otherRolls',
  'linerToRolls',
  'newLiner',
  'otherLiner',
] as const
export type RemedyKey = (typeof REMEDIES)[number]

interface Remedy {
  minutes: number
  /** Kind it is done at. */
  at: KindKey
  apply: (setup: DragSetup) => DragSetup | null
}

/** Above so much of what is usual a thing is worth putting right. */
const WORTH = 1.25
/** Bends that stay when a cable is laid as straight as it will lie at work. */
const STRAIGHT_LAY_SHARE = 0.75
/** A liner is changed for less than other things: its friction stands in an exponent. */
const WORTH_A_LINER = 1.1

export const grooveOf = (material: WireMaterial): RollGroove =>
  isAluminiumOf(material) || material === 'copper alloy' ? 'U' : isTubular(material) ? 'knurled' : 'V'

const usualBrake = (s: DragSetup) => brakeGuess(s.shape.spoolKg)
const usualGap = (s: DragSetup) => gapGuess(s.shape.runsToRolls)

export const REMEDY: Readonly<Record<RemedyKey, Remedy>> = {
  uncoil: { minutes: 0.5, at: 'liner', apply: (s) => (s.values.coils > 0 ? withValues(s, { coils: 0 }) : null) },
  layStraight: {
    minutes: 0.5,
    at: 'liner',
    apply: (s) => {
      const deg = layDeg(s.values.cableMm).typical * STRAIGHT_LAY_SHARE
      return s.values.bendDeg > deg * WORTH ? withValues(s, { bendDeg: deg }) : null
    },
  },
  easeHub: {
    minutes: 1,
    at: 'hub',
    apply: (s) =>
      s.shape.payoff === 'spool' && s.values.brakeNm > usualBrake(s).typical * WORTH
        ? withValues(s, { brakeNm: usualBrake(s).typical })
        : null,
  },
  cleanTip: {
    minutes: 1,
    at: 'tip',
    apply: (s) => (s.shape.tipState === 'spattered' ? withShape(s, { tipState: 'in service' }) : null),
  },
  turnSpool: { minutes: 2, at: 'hub', apply: (s) => (s.shape.isReversed ? withShape(s, { isReversed: false }) : null) },
  newTip: {
    minutes: 2,
    at: 'tip',
    apply: (s) => {
      const clearance = tipClearanceGuess(s.shape.material, s.shape.diameterMm).typical
      const isNew = s.shape.tipState === 'clean' && s.values.tipClearanceMm === clearance
      return isNew ? null : withValues(withShape(s, { tipState: 'clean' }), { tipClearanceMm: clearance })
    },
  },
  guideNearer: {
    minutes: 4,
    at: 'outlet',
    apply: (s) => (s.values.gapMm > usualGap(s).typical * WORTH ? withValues(s, { gapMm: usualGap(s).typical }) : null),
  },
  guideStraight: {
    minutes: 5,
    at: 'outlet',
    apply: (s) => (s.values.exitDeg > EXIT_DEG.typical * WORTH ? withValues(s, { exitDeg: EXIT_DEG.typical }) : null),
  },
  guideOwnSize: {
    minutes: 5,
    at: 'outlet',
    apply: (s) =>
      s.values.clearanceMm > CLEARANCE_MM.typical * WORTH ? withValues(s, { clearanceMm: CLEARANCE_MM.typical }) : null,
  },
  otherRolls: {
    minutes: 6,
    at: 'rolls',
    apply: (s) => {
      const groove = grooveOf(s.shape.material)
      return s.shape.groove === groove ? null : withShape(s, { groove })
    },
  },
  linerToRolls: {
    minutes: 20,
    at: 'liner',
    apply: (s) =>
      !s.shape.runsToRolls && isAluminiumOf(s.shape.material)
        ? withValues(withShape(s, { runsToRolls: true, linerKind: suitedLiner(s.shape.material), linerState: 'new' }), {
            gapMm: GAP_TO_ROLLS_MM.typical,
            kinkDeg: 0,
          })
        : null,
  },
  newLiner: { minutes: 20, at: 'liner', apply: withNewLiner },
  otherLiner: {
    minutes: 20,
    at: 'liner',
    apply: (s) => {
      const linerKind = suitedLiner(s.shape.material)
      const isSuited = s.shape.linerKind === linerKind || !isAluminiumOf(s.shape.material)
      if (isSuited || s.shape.linerKind === 'graphite-filled') return null
      return withValues(withShape(s, { linerKind, linerState: 'new' }), { kinkDeg: 0 })
    },
  },
}

/** A new liner of the same kind: its guess of friction where that is less than what is there, and no kink. */
function withNewLiner(s: DragSetup): DragSetup | null {
  const fresh = frictionGuess({ ...s.shape, linerState: 'new' }).typical
  const { kinkDeg, friction } = s.values
  if (kinkDeg === 0 && friction <= fresh * WORTH_A_LINER) return null
  return withValues(withShape(s, { linerState: 'new' }), { friction: Math.min(fresh, friction), kinkDeg: 0 })
}
