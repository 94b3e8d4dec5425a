import { type KindKey, type CausePlace } from '@core/path/columns.ts'
import { type Tag } from '@core/changeover/tags.ts'
import { type ReadingKey } from '@core/reading/keys.ts'
import { type FollowUp } from '@core/followup/keys.ts'
import { causeOfFinding, FOUND_FACTOR, READ_IS, UNDONE, type FoundHere } from './found.ts'
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
  /** What does not go together on it. */
  found: readonly FoundHere[]
  /** What acts on it made necessary and nobody has done. */
  undone: readonly FollowUp[]
  /** Cored wire is crushed, solid wire is not; null: nobody said what is on. */
  isCored: boolean | null
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
const CELL_ONLY = ['reamer', 'neckWorn', 'neckBent', 'cableRobot', 'crash', 'bentEnd', 'booster']
const CORED_ONLY = 'coredCrushed'

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
  gasFlow: [5, ['gasFlow', 'gasFitting', 'cylinderEmpty']],
  holes: [4, ['diffuserBlocked']],
  wiper: [2, ['linerDirty']],
  conduitPull: [4, ['conduitRough', 'booster']],
  centring: [3, ['tipCrossed', 'frontBent']],
  stickOut: [2, ['hand']],
  recess: null,
  arcCone: null,
}
/** Tied to keep going: a sign of something else, and no fault by itself. */
const SIGN_ONLY: ReadonlySet<Tag> = new Set<Tag>(['knobRaised'])
const TIED: Partial<Record<Tag, Speaks>> = {
  brakeTight: [10, ['brakeLeft', 'hubTight']],
  cylinderShut: [40, ['cylinderEmpty']],
  armOpen: [20, ['armOpen']],
  polaritySwapped: [20, ['polarity']],
  knobRaised: [3, ['linerWorn', 'linerKinked', 'linerDirty', 'tipWorn']],
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

/** From so much of its usual life a part is said to be far into it, below so much to be fresh. */
const [FAR, FRESH] = [0.85, 0.3]

/** Several guns without gas at once are the supply's. */
const SEVERAL = 2

/** What the gun's own state says, each with its reason as a word the screen can dress. */
export function hintsOf(state: GunState, knowledge: Pick<Knowledge, 'causes'>): Hint[] {
  const hints: Hint[] = []
  const speak = ([factor, causes]: Speaks, sign: Hint['sign'], because: Because) =>
    causes.forEach((cause) => hints.push({ cause, factor, sign, because }))
  for (const what of new Set(state.alarms)) {
    const speaks = READ[what]
    if (!speaks) continue
    const is = what === 'cleaning' ? undefined : READ_IS[what]
    for (const cause of speaks[1])
      hints.push({
        ...{ cause, factor: speaks[0], sign: 'reading', because: { how: 'read', what } },
        ...(cause === is ? { isKnown: true } : {}),
      })
  }
  for (const tag of new Set(state.tags)) {
    const speaks = TIED[tag]
    const [first] = speaks?.[1] ?? []
    for (const cause of speaks?.[1] ?? [])
      hints.push({
        ...{ cause, factor: speaks?.[0] ?? 1, sign: 'asked', because: { how: 'tied', tag } },
        ...(cause === first && !SIGN_ONLY.has(tag) ? { isKnown: true } : {}),
      })
  }
  for (const { rule, at, severity } of state.found) {
    const cause = causeOfFinding({ rule, at })
    if (cause === null || severity === 'note') continue
    const because: Because = { how: 'found', rule, at }
    hints.push({ cause, factor: FOUND_FACTOR[severity], sign: 'reading', because, isKnown: true })
  }
  for (const task of new Set(state.undone)) {
    const speaks = UNDONE[task]
    if (speaks) speak(speaks, null, { how: 'undone', task })
  }
  if (state.isCored === true) hints.push({ cause: CORED_ONLY, factor: 8, sign: null, because: { how: 'cored' } })
  for (const { kindKey, share, shape } of state.wear) {
    const causes = WEARS[kindKey]
    if (share === null || !causes) continue
    const factor = wearFactor(share, shape ?? SHAPE)
    speak([factor, causes], null, { how: share >= FAR ? 'worn' : share < FRESH ? 'fresh' : 'midLife', at: kindKey })
  }
  const { touched } = state
  if (touched) for (const speaks of TOUCHED_MEANS[touched]) speak(speaks, null, { how: 'touched', what: touched })
  if (state.others.gas >= SEVERAL) speak([400, ['supply']], null, { how: 'others', what: 'gas' })
  if (state.others.power >= SEVERAL) speak([30, ['powerOut']], null, { how: 'others', what: 'power' })
  if (state.others.sameWire >= 1) speak([5, ['wirePoor']], 'reading', { how: 'others', what: 'sameWire' })
  const cannotBe = knowledge.causes.filter(
    (c) =>
      (!state.isCell && CELL_ONLY.includes(c.key)) ||
      (state.isCored === false && c.key === CORED_ONLY) ||
      (state.kinds.length > 0 && OPTIONAL.has(c.at) && c.at !== 'off' && !state.kinds.some((k) => k === c.at)),
  )
  for (const c of cannotBe) hints.push({ cause: c.key, factor: 0, sign: null, because: { how: 'notHere' } })
  return hints
}
