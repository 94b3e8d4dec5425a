import { type QuestionCode } from '@core/houserule/schools.ts'
import { type KindKey } from '@core/path/columns.ts'
import { type Tag } from '@core/changeover/tags.ts'
import { type FollowUp } from '@core/followup/keys.ts'
import { type Joint } from '@core/rightparts/facts.ts'
import { type Hazard } from './cautions.ts'
import { type DrawingKey } from '@core/drawings/drawing.ts'

/** What is open, off or in place: steps need some of it, make some of it, and undo some. */
export type Condition =
  | 'nozzleOff'
  | 'wireSnipped'
  | 'tipOff'
  | 'insulatorOff'
  | 'clampOff'
  | 'screwOut'
  | 'diffuserOff'
  | 'armOpen'
  | 'wireOut'
  | 'spoolOff'
  | 'plugOff'
  | 'gunOut'
  | 'straight'
  | 'nutOff'
  | 'linerOut'
  | 'spoolOn'
  | 'threaded'
  | 'armClosed'
  | 'powerOn'
  | 'fed'

/** Where a liner job measures, asks or cuts: the walk through it puts its own screen in the place of plain words. */
export type Gate = 'oldLiner' | 'air' | 'push' | 'trim' | 'trimFeeder'

export interface Step {
  key: string
  phase: 'off' | 'work' | 'on' | 'close'
  power: 'off' | 'on' | 'either'
  do: string
  look: string | null
  hazards: readonly Hazard[]
  minutes: number
  /** Pieces of the path that the hand is on. */
  works: readonly string[]
  needs: readonly Condition[]
  makes: readonly Condition[]
  undoes: readonly Condition[]
  tie: Tag | null
  untie: Tag | null
  /** Kind that goes on here. */
  swap: KindKey | null
  /** The joint that is made here, and how tight. */
  joint: { at: Joint; words: string } | null
  drawing: DrawingKey | null
  gate: Gate | null
  /** What follows from other acts and is done by this step. */
  settles: FollowUp | null
  /** Which questions decided how this step is. */
  byRule: QuestionCode | null
}
type Draft = Pick<Step, 'key' | 'do' | 'minutes'> & Partial<Step>
export const step = (phase: Step['phase'], power: Step['power'], draft: Draft): Step => ({
  phase,
  power,
  look: null,
  hazards: [],
  works: [],
  needs: [],
  makes: [],
  undoes: [],
  tie: null,
  untie: null,
  swap: null,
  joint: null,
  drawing: null,
  gate: null,
  settles: null,
  byRule: null,
  ...draft,
})

/** What the shop says of its parts: minutes by kind, and sizes and lengths as they are written there. */
export interface ShopWords {
  minutesOf: (kindKey: KindKey) => number
  sizeWord: (mm: number) => string
  lengthWord: (m: number) => string
  /** A short length, to be measured with a rule. */
  ruleWord: (mm: number) => string
  /** The same between two bounds. */
  spanWord: (mm: readonly [number, number]) => string
  /** A length nobody measures. */
  roughWord: (mm: number) => string
}
