import { TIGHTNESS, type Joint } from '@core/rightparts/facts.ts'
import { type ChangePlan } from './plan.ts'
import { type Tag } from './tags.ts'

/** How the shop does it where schools differ: the keys of D10 to D15, D24 and D30. */
export interface ChangeRules {
  tipWhileFeeding: 'off' | 'on'
  power: 'twoStates' | 'always' | 'unplug'
  gas: 'jog' | 'shut' | 'leave'
  speed: 'slowThenFast' | 'fast' | 'steady'
  lock: 'first' | 'last'
  cable: 'byState' | 'rewind' | 'scrap'
  setScrew: 'family' | 'screwFirst' | 'unscrew'
  tension: 'allFour' | 'liner' | 'wire' | 'fault'
}
export const USUAL_RULES: ChangeRules = {
  tipWhileFeeding: 'off',
  power: 'twoStates',
  gas: 'jog',
  speed: 'slowThenFast',
  lock: 'first',
  cable: 'byState',
  setScrew: 'family',
  tension: 'allFour',
}

/** What is open or in place: steps need some of it and make some of it. */
export type Condition =
  | 'nozzleOff'
  | 'wireSnipped'
  | 'tipOff'
  | 'wireOut'
  | 'spoolOff'
  | 'screwOut'
  | 'diffuserOff'
  | 'spoolOn'
  | 'threaded'
  | 'armClosed'
  | 'powerOn'
  | 'fed'
export const HAZARDS = {
  hot: 'Nozzle and tip stay hot for minutes: cold first, or a glove.',
  isolate: 'Isolate by the site’s own lock-out practice; the maker’s manual comes before this list.',
  spring: 'A spool unwinds like a spring: hold its end until it is hooked.',
  stab: 'Wire ends stab: eyes covered, the gun pointed away from everybody.',
  live: 'Live while it feeds: hands and tools off the rolls, the gun off its trigger till you mean it.',
  cylinder: 'Cylinder chained; open and shut its valve by hand, standing aside.',
} as const
export type Hazard = keyof typeof HAZARDS

export interface Step {
  key: string
  phase: 'off' | 'work' | 'on' | 'close'
  power: 'off' | 'on' | 'either'
  do: string
  look: string | null
  hazard: Hazard | null
  minutes: number
  needs: readonly Condition[]
  makes: readonly Condition[]
  undoes: readonly Condition[]
  tie: Tag | null
  untie: Tag | null
  /** Kind that goes on here. */
  swap: string | null
  /** Which question decided how this step is. */
  byRule: string | null
}
type Draft = Pick<Step, 'key' | 'do' | 'minutes'> & Partial<Step>
export const step = (phase: Step['phase'], power: Step['power'], draft: Draft): Step => ({
  phase,
  power,
  look: null,
  hazard: null,
  needs: [],
  makes: [],
  undoes: [],
  tie: null,
  untie: null,
  swap: null,
  byRule: null,
  ...draft,
})

export const mustShutGas = (plan: ChangePlan, rules: ChangeRules) =>
  rules.gas === 'shut' || (rules.gas === 'jog' && !plan.from.feeder?.hasJog && !plan.from.feeder?.cutsGas)

/** Metres of wire between rolls and tip. */
export const pathM = (plan: ChangePlan) =>
  (plan.from.cableM ?? USUAL_CABLE_M) + (plan.from.family?.fit?.neckMm ?? 0) / 1000 + 0.2
/** A hand gun where nobody has said. */
const USUAL_CABLE_M = 4
const USUAL_TOP_M_PER_MIN = 18
const SLOW_M_PER_MIN = 3
const SLOW_LAST_M = 0.5

/** Seconds until new wire arrives at the front; slower means slip or something in the way (P058). */
export function feedSeconds(plan: ChangePlan, speed: ChangeRules['speed']): number {
  const lengthM = pathM(plan)
  const top = plan.from.feeder?.topMPerMin ?? USUAL_TOP_M_PER_MIN
  if (speed === 'fast') return (lengthM / top) * 60
  if (speed === 'steady') {
    const weld = plan.to.procedure?.wireMPerMin
    return (lengthM / (weld ? (weld[0] + weld[1]) / 2 : top / 2)) * 60
  }
  return ((lengthM - SLOW_LAST_M) / top + SLOW_LAST_M / SLOW_M_PER_MIN) * 60
}

export const swapOf = (plan: ChangePlan, kindKey: string) =>
  plan.swaps.find((s) => s.kindKey === kindKey && s.to !== null)
export const tight = (plan: ChangePlan, joint: Joint, usual: number) =>
  TIGHTNESS[(plan.to.family?.fit?.tightness[joint]?.step ?? usual) - 1] ?? ''

/** What the shop says of its parts: minutes by kind, and a size as it is written there. */
export interface ShopWords {
  minutesOf: (kindKey: string) => number
  sizeWord: (mm: number) => string
  lengthWord: (m: number) => string
}

export interface At extends ShopWords {
  plan: ChangePlan
  rules: ChangeRules
}
