import { type Index } from '@core/diagnose/belief.ts'
import { minutesOf, type Check, type Outcome } from '@core/diagnose/knowledge.ts'
import { CLOSE_MIN, groupNamed, type FixGroup } from '@core/diagnose/moves.ts'
import { LOST_MIN } from '@core/diagnose/ratio.ts'
import { type Said } from '@core/diagnose/session.ts'
import { type Position } from '@core/path/columns.ts'
import { makeRandom, pick, seedOf } from '@core/random/random.ts'
import { runBead } from './bead.ts'
import { brokenRig, FAULT_KEYS, FAULTS, isFault, type FaultKey, type FaultSpec } from './faults.ts'
import { mannerOfFix, mannerOfLook, type Manner } from './manners.ts'
import { soundRig, type BoothSetup, type Rig } from './rig.ts'
import { signsOf } from './signs.ts'

/**
 * A drill: a booth with something wrong, what somebody complains of, and what is done about it.
 *
 *   complaint ──look (minutes)──> seen ──fix (minutes, parts)──> closing test ──runs──> debrief
 *                  ^                                                  └──still──> look …
 *
 * Everything follows from the scenario and the acts, so that it can be played again, shared, and taken back to any step.
 */
export interface Scenario {
  /** Which way scenarios are written. */
  version: 1
  name: string | null
  setup: BoothSetup
  faults: readonly ScenarioFault[]
  /** What somebody says it does: a symptom of the shop's knowledge. */
  complaint: string
  /** The luck of looks and beads. */
  seed: number
}
export interface ScenarioFault {
  key: FaultKey
  /** 0 as it is when somebody first complains, to 1. */
  bad: number
}
export type DrillAct =
  | { do: 'look'; key: string; way?: string | undefined }
  | { do: 'fix'; key: string; way?: string | undefined }
  | { do: 'bead' }
  | { do: 'hint' }
  /** Given up: somebody comes and puts it right. */
  | { do: 'help' }

/** One act, and what came of it. */
export interface DrillStep {
  act: DrillAct
  minutes: number
  /** Answer of a look. */
  outcome: Outcome | null
  /** What came of doing it wrongly, in words. */
  slip: string | null
  /** It runs after it. */
  runs: boolean
}
export interface DrillState {
  left: readonly ScenarioFault[]
  steps: readonly DrillStep[]
  minutes: number
  parts: readonly Position[]
  said: readonly Said[]
  hints: number
}

/** To pull the trigger once more, and to ask somebody who knows. */
export const BEAD_MIN = 0.3
export const HINT_MIN = 2
/** Of 100 drills so many have two faults. */
const TWO_SHARE = 0.15
const TRIES = 40

/** Faults that this booth can have and the knowledge knows. */
export function faultsFor(knowledge: Index, { drag, gasLpm }: BoothSetup): FaultKey[] {
  const isCored = drag.shape.material.endsWith('cored')
  const canBe = ({ only }: FaultSpec) => (only === 'cored' ? isCored : only === 'gas' ? gasLpm !== null : true)
  return FAULT_KEYS.filter((key) => knowledge.causeAt.has(key) && canBe(FAULTS[key]))
}

/** What is complained of with these faults: the gravest sign that the knowledge lists for one of them; null: nobody would notice, or look for it elsewhere. */
export function complaintOf(
  knowledge: Index,
  { setup, faults, seed }: Pick<Scenario, 'setup' | 'faults' | 'seed'>,
): string | null {
  const rig = rigOf({ setup, left: faults })
  const signs = signsOf(runBead(rig, { seed }), { rig, setup })
  const isListed = (sign: string) =>
    knowledge.symptoms.some((s) => s.key === sign && s.only !== 'cell' && faults.every((f) => s.causes.includes(f.key)))
  return signs.find(isListed) ?? null
}
export const rigOf = ({ setup, left }: { setup: BoothSetup; left: readonly ScenarioFault[] }): Rig =>
  brokenRig(soundRig(setup), left)

/**
 * A drill drawn for a booth: a fault among `among` (all it can have, where left out), as bad as it comes or between two bounds, 0 hardly begun and 1 as
 * bad as it gets, and once in seven a second one that shows
 * in the same way. Null where none of them shows.
 */
export function drawScenario(
  knowledge: Index,
  setup: BoothSetup,
  of: {
    random: () => number
    among?: readonly FaultKey[]
    twoShare?: number
    bad?: readonly [least: number, most: number]
  },
): Scenario | null {
  const can = faultsFor(knowledge, setup)
  const among = (of.among ?? can).filter((key) => can.includes(key))
  if (among.length === 0) return null
  for (let n = 0; n < TRIES; n++) {
    const { random } = of
    const [least, most] = of.bad ?? [0, 1]
    const howBad = () => least + (most - least) * random()
    const seed = Math.floor(random() * 2 ** 31)
    const first = { key: pick(random, among), bad: howBad() }
    const one = { version: 1 as const, name: null, setup, faults: [first], seed }
    const complaint = complaintOf(knowledge, one)
    if (complaint === null) continue
    if (random() >= (of.twoShare ?? TWO_SHARE)) return { ...one, complaint }
    const listed = knowledge.symptoms.find((s) => s.key === complaint)?.causes ?? []
    const others = can.filter((key) => key !== first.key && listed.includes(key))
    if (others.length === 0) return { ...one, complaint }
    const faults = [first, { key: pick(random, others), bad: howBad() }]
    const both = complaintOf(knowledge, { setup, faults, seed })
    return both === null ? { ...one, complaint } : { ...one, faults, complaint: both }
  }
  return null
}

export const openDrill = ({ faults }: Scenario): DrillState => ({
  ...{ left: faults, steps: [], minutes: 0, parts: [], said: [], hints: 0 },
})
export const isRunning = ({ left }: DrillState) => left.length === 0
/** All of it from the beginning. */
export const played = (knowledge: Index, scenario: Scenario, acts: readonly DrillAct[]): DrillState =>
  acts.reduce((state, act) => after(knowledge, { scenario, state }, act), openDrill(scenario))

/** After one act more. What the knowledge does not know, or is done once it runs, changes nothing. */
export function after(
  knowledge: Index,
  { scenario, state }: { scenario: Scenario; state: DrillState },
  act: DrillAct,
): DrillState {
  if (isRunning(state)) return state
  if (act.do === 'bead') return withStep(state, { act, minutes: BEAD_MIN })
  if (act.do === 'hint') return { ...withStep(state, { act, minutes: HINT_MIN }), hints: state.hints + 1 }
  if (act.do === 'help') return withStep({ ...state, left: [] }, { act, minutes: LOST_MIN })
  if (act.do === 'look') {
    const check = knowledge.checkOf.get(act.key)
    return check ? looked(state, { act, check, scenario }) : state
  }
  const group = groupNamed(knowledge, act.key)
  return group ? mended(knowledge, { act, group }, state) : state
}
function withStep(state: DrillState, step: Partial<DrillStep> & Pick<DrillStep, 'act' | 'minutes'>): DrillState {
  const made: DrillStep = { outcome: null, slip: null, runs: isRunning(state), ...step }
  return { ...state, steps: [...state.steps, made], minutes: state.minutes + step.minutes }
}

type Act<K extends DrillAct['do']> = Extract<DrillAct, { do: K }>
function looked(
  state: DrillState,
  { act, check, scenario }: { act: Act<'look'>; check: Check; scenario: Scenario },
): DrillState {
  const way = wayOf(mannerOfLook(check), act.way)
  const { outcome, mends } = answerOf(check, { left: state.left, luck: luckOf(scenario, state, check.key) })
  const left = [...state.left.filter((f) => !mends.includes(f.key)), ...brought(way, state.left)]
  const said: Said[] = [...state.said, { type: 'check', key: check.key, outcome: outcome.key }]
  const parts = check.mends ? [...state.parts, check.mends] : state.parts
  return withStep({ ...state, left, said, parts }, { act, minutes: minutesOf(check), outcome, slip: way?.then || null })
}
/** The same look at the same state always answers the same: looking twice is no second opinion. */
const luckOf = ({ seed }: Scenario, { left }: DrillState, key: string): number =>
  makeRandom(seedOf([key, ...left.map((f) => f.key)].join(''), seed))()

/**
 * What a look shows of what is wrong: the answer that points at it, with the chance that this look shows it, and the surer the worse it is, and always where a number is read; else
 * that all is well there. It never shows what is not so. One that mends (a fresh tip) helps only where nothing else is wrong.
 */
export function answerOf(
  check: Check,
  { left, luck }: { left: readonly ScenarioFault[]; luck: number },
): { outcome: Outcome; mends: FaultKey[] } {
  const well = check.outcomes.at(-1) as Outcome
  const points = (o: Outcome) => left.filter((f) => o.points.includes(f.key))
  const mends = check.mends ? check.outcomes.flatMap((o) => points(o).map((f) => f.key)) : []
  const isSwap = check.sign === 'swap'
  if (isSwap && check.mends && mends.length < left.length) return { outcome: well, mends }
  const seen = check.outcomes.find((o) => points(o).length > 0)
  const bad = Math.max(0, ...(seen ? points(seen) : []).map((f) => f.bad))
  return {
    outcome: seen && (isSwap || check.sign === 'reading' || luck < 1 - (1 - check.shows) * (1 - bad)) ? seen : well,
    mends,
  }
}

function mended(knowledge: Index, { act, group }: { act: Act<'fix'>; group: FixGroup }, state: DrillState): DrillState {
  const way = wayOf(mannerOfFix(group), act.way)
  const causes = group.causes.flatMap((i) => knowledge.causes[i] ?? [])
  const mends = way?.isVain ? [] : causes.map((c) => c.key)
  const left = [...state.left.filter((f) => !mends.includes(f.key)), ...brought(way, state.left)]
  const changed = causes.find((c) => c.fix.act === 'changed')?.fix.position ?? null
  const parts = changed && !way?.isVain ? [...state.parts, changed] : state.parts
  const minutes = Math.max(1, group.minutes - (way?.savesMin ?? 0)) + CLOSE_MIN
  const said: Said[] = way?.isVain ? [...state.said] : [...state.said, { type: 'fix', key: group.key }]
  return withStep({ ...state, left, said, parts }, { act, minutes, slip: way?.then || null })
}
const wayOf = (manner: Manner | null, key: string | undefined) =>
  manner ? (manner.ways.find((w) => w.key === key) ?? manner.ways[0]) : null
/** What doing it wrongly left behind. */
const brought = (way: ReturnType<typeof wayOf>, left: readonly ScenarioFault[]): ScenarioFault[] =>
  way?.brings && isFault(way.brings) && !left.some((f) => f.key === way.brings) ? [{ key: way.brings, bad: 0.5 }] : []
