import { type KindKey, type CausePlace } from '@core/path/columns.ts'
import { type Tag } from '@core/changeover/tags.ts'
import { type ReadingKey } from '@core/reading/keys.ts'
import { type Knowledge } from './knowledge.ts'
import { type Because, type Hint } from './session.ts'
import { TOUCHED_MEANS, type Touched } from './touched.ts'

/** What of a gun's own state speaks for or against causes. */
export interface GunState {
  isCell: boolean
  /** Kinds that hang on it; a cause that lies at another cannot be there. Empty: nobody said how it is built. */
  kinds: readonly KindKey[]
  /** Use of each part against what is usual here; null where nothing tells. */
  wear: readonly { kindKey: KindKey; share: number | null; shape?: number | null }[]
  /** Positions where something does not fit. */
  unfit: readonly (KindKey | 'off')[]
  /** What its readings ask for. */
  alarms: readonly (ReadingKey | 'cleaning')[]
  tags: readonly Tag[]
  touched: Touched | null
  /** Other places with a stop since a few hours, by what it was of. */
  others: { gas: number; sameWire: number; power: number }
}

/** Kinds that not every gun has; of the others it has one whether or not the shop keeps track of it. */
const OPTIONAL: ReadonlySet<CausePlace> = new Set<KindKey>(['insulator', 'jump', 'clampring'])
/** Causes of robots and of drums. */
const CELL_ONLY = ['reamer', 'neckWorn', 'cableRobot', 'torchSmall', 'crash', 'bentEnd']

type Speaks = readonly [factor: number, causes: readonly string[]]
/** A reading that asks for a look, and what it speaks for; null: for nothing by itself. Guesses. */
const READ: Record<ReadingKey | 'cleaning', Speaks | null> = {
  tension: [3, ['linerWorn', 'linerKinked', 'linerDirty', 'tipWorn', 'rollWorn']],
  pull: [4, ['linerWorn', 'linerKinked', 'linerDirty']],
  slip: [3, ['tensionLow', 'rollWorn', 'rollWrong']],
  motorAmps: [2, ['linerWorn', 'linerKinked', 'tensionHigh']],
  bore: [4, ['tipWorn']],
  nozzleOpen: [4, ['nozzleClogged', 'spatterBridge']],
  /** It has to be cleaned ever oftener: something makes more spatter. */
  cleaning: [3, ['settings', 'gasFlow', 'tipWorn']],
  orings: [5, ['orings']],
  gap: [5, ['gapOutlet', 'linerShort']],
  hubDrag: [4, ['hubTight', 'brakeLeft']],
  hubCoast: [4, ['hubLoose', 'hubPin', 'hubRing']],
  pinHome: [6, ['gunOut']],
  layout: [5, ['cableCoiled']],
  insulator: [4, ['insulatorLoose', 'insulatorCrossed', 'insulatorCollar']],
  continuity: [5, ['insulatorDead', 'spatterBridge']],
  clamp: [4, ['workClamp', 'circuitOpen']],
  gasFlow: [5, ['gasFlow', 'gasFitting']],
  holes: [4, ['diffuserBlocked']],
  wiper: [2, ['linerDirty']],
  conduitPull: [4, ['conduitRough', 'booster']],
  centring: [3, ['tipCrossed', 'frontBent']],
  stickOut: [2, ['hand']],
  recess: null,
  arcCone: null,
}
const TIED: Partial<Record<Tag, Speaks>> = {
  brakeTight: [10, ['brakeLeft', 'hubTight']],
  cylinderShut: [20, ['gasFlow']],
  armOpen: [20, ['armOpen']],
  knobRaised: [3, ['linerWorn', 'linerKinked', 'linerDirty', 'tipWorn']],
}
const UNFIT: Partial<Record<KindKey | 'off', Speaks>> = {
  tip: [8, ['tipWrong', 'sizeMix']],
  rolls: [8, ['rollWrong', 'sizeMix']],
  liner: [5, ['linerWorn', 'linerShort', 'sizeMix']],
  nozzle: [3, ['insulatorCollar', 'nozzleSlack']],
  diffuser: [3, ['tipThread', 'tipCrossed']],
  hub: [3, ['sizeMix', 'wireThick']],
}
const WEARS: Partial<Record<KindKey, readonly string[]>> = {
  tip: ['tipWorn'],
  liner: ['linerWorn', 'linerDirty', 'linerKinked'],
  rolls: ['rollWorn'],
  nozzle: ['nozzleSlack'],
  diffuser: ['diffuserBurned', 'diffuserBlocked'],
  insulator: ['insulatorDead', 'insulatorCollar'],
  orings: ['orings'],
  outlet: ['guideWorn'],
  neck: ['neckWorn'],
}
/** Shape of wear until lives are fitted. A guess. */
const SHAPE = 2.5
const FACTOR = { least: 0.3, most: 4 }

/**
 * How much likelier a worn part is the cause at this share of its usual life than at an even hazard: k · s^(k − 1), Weibull of the shape
 * fitted here, or the shipped guess of it, between 0.3 and 4. Share ≥ 0.
 * @example wearFactor(1) // 2.5
 */
export function wearFactor(share: number, shape = SHAPE): number {
  if (!(share >= 0)) throw new RangeError(`wearFactor: expected a share ≥ 0, got ${share}`)
  return Math.min(FACTOR.most, Math.max(FACTOR.least, shape * share ** (shape - 1)))
}

/** Several guns without gas at once are the supply's. */
const SEVERAL = 2

/** What the gun's own state says, each with its reason as a word the screen can dress. */
export function hintsOf(state: GunState, knowledge: Pick<Knowledge, 'causes'>): Hint[] {
  const hints: Hint[] = []
  const speak = ([factor, causes]: Speaks, sign: Hint['sign'], because: Because) =>
    causes.forEach((cause) => hints.push({ cause, factor, sign, because }))
  for (const what of new Set(state.alarms)) {
    const speaks = READ[what]
    if (speaks) speak(speaks, 'reading', { how: 'read', what })
  }
  for (const tag of new Set(state.tags)) {
    const speaks = TIED[tag]
    if (speaks) speak(speaks, 'asked', { how: 'tied', tag })
  }
  for (const at of new Set(state.unfit)) {
    const speaks = UNFIT[at]
    if (speaks) speak(speaks, 'reading', { how: 'unfit', at })
  }
  for (const { kindKey, share, shape } of state.wear) {
    const causes = WEARS[kindKey]
    if (share === null || !causes) continue
    const factor = wearFactor(share, shape ?? SHAPE)
    speak([factor, causes], null, { how: factor >= 1 ? 'worn' : 'fresh', at: kindKey })
  }
  const { touched } = state
  if (touched) for (const speaks of TOUCHED_MEANS[touched]) speak(speaks, null, { how: 'touched', what: touched })
  if (state.others.gas >= SEVERAL) speak([150, ['gasFlow']], null, { how: 'others', what: 'gas' })
  if (state.others.power >= SEVERAL) speak([30, ['rearSwitch', 'fuse']], null, { how: 'others', what: 'power' })
  if (state.others.sameWire >= 1) speak([5, ['wirePoor']], 'reading', { how: 'others', what: 'sameWire' })
  const cannotBe = knowledge.causes.filter(
    (c) =>
      (!state.isCell && CELL_ONLY.includes(c.key)) ||
      (state.kinds.length > 0 && OPTIONAL.has(c.at) && c.at !== 'off' && !state.kinds.some((k) => k === c.at)),
  )
  for (const c of cannotBe) hints.push({ cause: c.key, factor: 0, sign: null, because: { how: 'notHere' } })
  return hints
}
