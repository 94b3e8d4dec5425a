import { type KindKey } from '@core/path/columns.ts'
import { type SchoolOf } from '@core/houserule/schools.ts'
import { READINGS, type ReadingKey } from '@core/reading/keys.ts'
import { READING, type Method } from '@core/reading/specs.ts'

/** One thing that is looked at at a gun on a walk: told apart in words, by the look of a reading. */
export interface Look {
  /** How long it takes a practised eye, at the gun. */
  minutes: number
  /** Days after which it is usually looked at again. */
  everyDays: number
  /** Found not as it should be, at that interval: bad of so many, before the shop's own looks say better. A Beta guess. */
  bad: readonly [bad: number, of: number]
  /** Bad and left as it is: the chance that it stops the gun within a day's work, and the minutes of that. Guesses. */
  stops: readonly [perDay: number, minutes: number]
  /** What puts it right at once, where a tap or two does; null: nothing at the booth does. */
  fix: 'clean' | 'change' | null
  /** Kind the fix is logged at. */
  at: KindKey
}
const look = (of: Omit<Look, 'fix'> & { fix?: Look['fix'] }): Look => ({ fix: null, ...of })

/** What can be looked at in passing, in the order of the wire; null: it takes more than a glance. */
const IN_PASSING = {
  wiper: look({ minutes: 0.2, everyDays: 7, bad: [2, 10], stops: [0.005, 12], fix: 'change', at: 'inlet' }),
  gap: look({ minutes: 0.3, everyDays: 30, bad: [0.5, 10], stops: [0.02, 15], at: 'outlet' }),
  pinHome: look({ minutes: 0.15, everyDays: 1, bad: [0.3, 10], stops: [0.15, 12], at: 'orings' }),
  orings: look({ minutes: 0.5, everyDays: 60, bad: [1.5, 10], stops: [0.01, 12], fix: 'change', at: 'orings' }),
  layout: look({ minutes: 0.1, everyDays: 1, bad: [2, 10], stops: [0.02, 12], at: 'liner' }),
  holes: look({ minutes: 0.4, everyDays: 7, bad: [1, 10], stops: [0.03, 8], fix: 'clean', at: 'diffuser' }),
  insulator: look({ minutes: 0.2, everyDays: 7, bad: [0.4, 10], stops: [0.05, 8], fix: 'change', at: 'insulator' }),
  bore: look({ minutes: 0.2, everyDays: 1, bad: [0.8, 10], stops: [0.12, 10], fix: 'change', at: 'tip' }),
  nozzleOpen: look({ minutes: 0.15, everyDays: 1, bad: [2, 10], stops: [0.05, 6], fix: 'clean', at: 'nozzle' }),
  clamp: look({ minutes: 0.1, everyDays: 1, bad: [0.8, 10], stops: [0.05, 5], at: 'gas' }),
  ...({
    hubDrag: null,
    hubCoast: null,
    conduitPull: null,
    segmentPull: null,
    tension: null,
    slip: null,
    motorAmps: null,
  } as const),
  continuity: look({ minutes: 0.7, everyDays: 30, bad: [0.4, 10], stops: [0.05, 10], fix: 'change', at: 'insulator' }),
  gasFlow: look({ minutes: 0.15, everyDays: 1, bad: [0.5, 10], stops: [0.2, 6], at: 'gas' }),
  ...({
    toolCentre: null,
    cylinder: null,
    pull: null,
    recess: null,
    stickOut: null,
    arcCone: null,
    failedStarts: null,
    beforeReam: null,
    afterReam: null,
    agentTank: null,
    centring: null,
  } as const),
} as const satisfies Record<ReadingKey, Look | null>
type Known = typeof IN_PASSING
export type LookKey = { [K in ReadingKey]: Known[K] extends null ? never : K }[ReadingKey]
export const LOOK_KEYS = READINGS.filter((key): key is LookKey => IN_PASSING[key] !== null) as [LookKey, ...LookKey[]]
export const LOOKS = Object.fromEntries(LOOK_KEYS.map((key) => [key, IN_PASSING[key]])) as Record<LookKey, Look>

/** The way of a reading that is a look or a feel told apart in words; else one with a tool that answers in words. */
export function lookMethod(key: LookKey): Method {
  const told = READING[key].methods.filter((m) => m.grades.length > 0)
  const method = told.find((m) => m.how === 'looked') ?? told[0]
  if (!method) throw new RangeError(`lookMethod: ${key} cannot be told apart by eye`)
  return method
}
/** Found otherwise than as it should be, one of these is offered at once. */
export const actFor = (key: LookKey, grade: string): 'cleaned' | 'changed' | null => {
  const fix = lookMethod(key).grades.find((g) => g.key === grade)?.fix ?? LOOKS[key].fix
  return fix === 'clean' ? 'cleaned' : fix === 'change' ? 'changed' : null
}

/** What a gun has to be, or the shop to do, for a look to have any sense there. */
export interface LookedAt {
  /** The gas that is on, or none; null where nobody told. */
  gas: string | null
  /** What the shop does about dirt on the wire's way (D31): without wipers none is looked at. */
  dirt: SchoolOf<'D31'>
}
export const isLookedAt = (key: LookKey, { gas, dirt }: LookedAt): boolean =>
  key === 'wiper' ? dirt === 'wiper' : key === 'gasFlow' ? gas !== 'none' : true

/** Walks people take, and what they look at on them; `due` takes whatever is due at each gun. */
export const WALKS = {
  due: { name: 'what is due', looks: LOOK_KEYS },
  startOfShift: { name: 'start of shift', looks: ['pinHome', 'layout', 'bore', 'nozzleOpen', 'gasFlow', 'clamp'] },
  hourly: { name: 'each hour', looks: ['nozzleOpen'] },
  handOver: { name: 'hand-over of a class', looks: ['pinHome', 'layout', 'bore', 'nozzleOpen', 'gasFlow', 'clamp'] },
  weekly: { name: 'weekly', looks: ['wiper', 'insulator', 'holes', 'bore', 'nozzleOpen', 'layout'] },
  monthly: {
    name: 'monthly',
    looks: ['wiper', 'gap', 'pinHome', 'insulator', 'continuity', 'holes', 'bore', 'nozzleOpen'],
  },
  gunOut: { name: 'while the gun is out', looks: ['orings', 'gap', 'pinHome'] },
} as const satisfies Record<string, { name: string; looks: readonly LookKey[] }>
export type WalkKey = keyof typeof WALKS
export const WALK_KEYS = Object.keys(WALKS) as [WalkKey, ...WalkKey[]]

/** What this shop found on its own looks of one kind. */
export interface FoundCount {
  bad: number
  of: number
}

/**
 * Chance that it is not as it should be, unseen for so long: 1 − (1 − p)^(age/interval), p the mean of Beta(bad + shop's bad, good + shop's
 * good) at the usual interval. It never falls with age. Age ≥ 0 days; never seen counts as three intervals.
 * @example chanceBad('bore', { ageDays: 1, found: { bad: 0, of: 0 } }) // 0.08
 */
export function chanceBad(key: LookKey, of: { ageDays: number | null; found: FoundCount }): number {
  const { bad, everyDays } = LOOKS[key]
  const { ageDays, found } = of
  if (ageDays !== null && !(ageDays >= 0)) throw new RangeError(`chanceBad: expected an age ≥ 0 days, got ${ageDays}`)
  if (!(found.of >= found.bad) || !(found.bad >= 0))
    throw new RangeError(`chanceBad: expected bad of so many, got ${found.bad} of ${found.of}`)
  const p = (bad[0] + found.bad) / (bad[1] + found.of)
  const ages = ageDays === null ? NEVER_SEEN_INTERVALS : ageDays / everyDays
  return -Math.expm1(Math.log1p(-Math.min(p, 0.999)) * ages)
}
const NEVER_SEEN_INTERVALS = 3

/** What leaving it as it may be costs in a day's work: chance that it is bad, that it then stops the gun, and the minutes of that. */
export function worthOfLook(
  key: LookKey,
  chance: number,
  costPerMinute: number,
): { worth: number; stopsIfLeft: number } {
  const [stops, minutes] = LOOKS[key].stops
  return { worth: chance * stops * minutes * costPerMinute, stopsIfLeft: chance * stops }
}

/** Is it time for this look: at three quarters of its interval, since a walk comes when it comes. */
export const isLookDue = (key: LookKey, ageDays: number | null) =>
  ageDays === null || ageDays >= 0.75 * LOOKS[key].everyDays
