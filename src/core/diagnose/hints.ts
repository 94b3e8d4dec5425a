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
const CELL_ONLY = ['reamer', 'neckWorn', 'neckBent', 'cableRobot', 'crash', 'bentEnd', 'booster', 'seamTracking']
const CORED_ONLY = 'coredCrushed'

type Speaks = readonly [factor: number, causes: readonly string[]]
/** A reading that asks for a look, and what it speaks for; null: for nothing by itself. Guesses. */
const READ: Record<ReadingKey | 'cleaning', Speaks | null> = {
  tension: [3, ['linerWorn', 'linerKinked', 'linerDirty', 'tipWorn', 'rollWorn']],
  pull: [4, ['linerWorn', 'linerKinked', 'linerDirty']],
  slip: [3, ['tensionLow', 'rollWorn', 'rollWrong']],
  motorAmps: [2, ['linerWorn', 'linerKinked', 'tensionHigh']],
  toolCentre: [6, ['crash', 'neckBent']],
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
  cylinder: [6, ['cylinderEmpty']],
  holes: [4, ['diffuserBlocked']],
  wiper: [2, ['linerDirty']],
  conduitPull: [4, ['conduitRough', 'booster']],
  // Which length it was is told beside it: by itself it speaks for none.
  segmentPull: null,
  centring: [3, ['tipCrossed', 'frontBent']],
  stickOut: [2, ['hand']],
  failedStarts: [3, ['bentEnd', 'tipWorn', 'workClamp']],
  beforeReam: [2, ['nozzleClogged', 'reamer']],
  afterReam: [5, ['reamer']],
  // That the tank is low says what to buy, not what is wrong.
  agentTank: null,
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

/** Several guns without gas at once are the supply’s, several on one wire the lot’s; one more is chance. */
const SEVERAL = 2

const speaking = ([factor, causes]: Speaks, sign: Hint['sign'], because: Because): Hint[] =>
  causes.map((cause) => ({ cause, factor, sign, because }))
/** Of what speaks for several the one it is by itself. */
const knownAs = (hints: Hint[], is: string | undefined): Hint[] =>
  hints.map((h) => (h.cause === is ? { ...h, isKnown: true } : h))

/** What somebody read, tied, found or left undone on this gun. */
function fromRecord(state: GunState): Hint[] {
  const read = [...new Set(state.alarms)].flatMap((what) => {
    const speaks = READ[what]
    const hints = speaks ? speaking(speaks, 'reading', { how: 'read', what }) : []
    return knownAs(hints, what === 'cleaning' ? undefined : READ_IS[what])
  })
  const tied = [...new Set(state.tags)].flatMap((tag) => {
    const speaks = TIED[tag]
    const hints = speaks ? speaking(speaks, 'asked', { how: 'tied', tag }) : []
    return knownAs(hints, SIGN_ONLY.has(tag) ? undefined : speaks?.[1][0])
  })
  const found = state.found.flatMap(({ rule, at, severity }): Hint[] => {
    const cause = causeOfFinding({ rule, at })
    if (cause === null || severity === 'note') return []
    return knownAs(speaking([FOUND_FACTOR[severity], [cause]], 'reading', { how: 'found', rule, at }), cause)
  })
  const undone = [...new Set(state.undone)].flatMap((task) => {
    const speaks = UNDONE[task]
    return speaks ? speaking(speaks, null, { how: 'undone', task }) : []
  })
  return [...read, ...tied, ...found, ...undone]
}
function fromWear({ wear }: GunState): Hint[] {
  return wear.flatMap(({ kindKey, share, shape }) => {
    const causes = WEARS[kindKey]
    if (share === null || !causes) return []
    const how = share >= FAR ? 'worn' : share < FRESH ? 'fresh' : 'midLife'
    return speaking([wearFactor(share, shape ?? SHAPE), causes], null, { how, at: kindKey })
  })
}
/** What other places that stopped speak of, and how loud. Guesses. */
export const OF_OTHERS = {
  gas: { cause: 'supply', factor: 400, sign: null },
  power: { cause: 'powerOut', factor: 30, sign: null },
  sameWire: { cause: 'wirePoor', factor: 5, sign: 'reading' },
} as const
const OTHERS = Object.keys(OF_OTHERS) as (keyof typeof OF_OTHERS)[]
function fromOthers({ others }: GunState): Hint[] {
  return OTHERS.filter((what) => others[what] >= SEVERAL).flatMap((what) => {
    const { cause, factor, sign } = OF_OTHERS[what]
    return speaking([factor, [cause]], sign, { how: 'others', what })
  })
}
/** Whether others were counted already of what can be behind this symptom: nobody need go and ask. */
export const areOthersTold = (others: GunState['others'], causes: readonly string[]): boolean =>
  OTHERS.some((what) => others[what] > 0 && causes.includes(OF_OTHERS[what].cause))
/** What is not on this gun, or no trouble of its kind. */
function cannotBe(state: GunState, { causes }: Pick<Knowledge, 'causes'>): Hint[] {
  return causes
    .filter(
      (c) =>
        (!state.isCell && CELL_ONLY.includes(c.key)) ||
        (state.isCored === false && c.key === CORED_ONLY) ||
        (state.kinds.length > 0 && OPTIONAL.has(c.at) && c.at !== 'off' && !state.kinds.some((k) => k === c.at)),
    )
    .map((c) => ({ cause: c.key, factor: 0, sign: null, because: { how: 'notHere' } }))
}

/** What the gun's own state says, each with its reason as a word the screen can dress. */
export function hintsOf(state: GunState, knowledge: Pick<Knowledge, 'causes'>): Hint[] {
  const { touched } = state
  return [
    ...fromRecord(state),
    ...(state.isCored === true ? speaking([8, [CORED_ONLY]], null, { how: 'cored' }) : []),
    ...fromWear(state),
    ...(touched
      ? TOUCHED_MEANS[touched].flatMap((speaks) => speaking(speaks, null, { how: 'touched', what: touched }))
      : []),
    ...fromOthers(state),
    ...cannotBe(state, knowledge),
  ]
}
