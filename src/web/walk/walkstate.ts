import { type Position } from '@core/path/columns.ts'
import { type FollowUp } from '@core/followup/keys.ts'
import { type LookKey } from '@core/walk/looks.ts'
import { type WalkStop } from '@contract/walk.ts'

/**
 * A walk under way, one gun a screen; kept on the device, so that a page that is closed goes on where it was.
 *
 *   at a gun ──answer──> next thing to look at ── … ──all answered or skipped──> noted ──> next gun
 *      └──"skip this gun"──> next gun, nothing noted
 *
 * 1. Pure; what is found stands before what is done about it, and stays however it is mended.
 * 2. A gun is noted once, when it is left; under a key that was made with the walk, so noted twice it is one entry.
 * 3. "Didn't look" notes nothing and is as easy as any answer.
 */
export interface WalkState {
  stops: readonly WalkStop[]
  /** One for each gun, made when the walk began. */
  keys: readonly string[]
  startedMs: number
  /** Typed in from the sheet that was printed then. */
  isTyped: boolean
  /** Gun the walk is at; as many as there are when it is over. */
  at: number
  looks: readonly { what: LookKey; grade: string }[]
  /** Looked at or passed over, of this gun's. */
  passed: readonly LookKey[]
  acts: readonly WalkAct[]
  /** What followed from other acts and is done now. */
  settled: readonly FollowUp[]
  /** Of guns left behind: noted, or skipped. */
  noted: readonly boolean[]
}
export interface WalkAct {
  act: 'cleaned' | 'changed'
  position: Position
}
export type WalkEvent =
  | { type: 'found'; what: LookKey; grade: string }
  | { type: 'notLooked'; what: LookKey }
  | { type: 'did'; act: WalkAct }
  | { type: 'undid'; act: WalkAct }
  | { type: 'settled'; task: FollowUp; isDone: boolean }
  | { type: 'back' }
  | { type: 'leave'; isNoted: boolean }

const NOTHING_HERE = { looks: [], passed: [], acts: [], settled: [] } as const
export const beginWalk = (of: Pick<WalkState, 'stops' | 'keys' | 'startedMs'> & { isTyped?: boolean }): WalkState => ({
  isTyped: false,
  ...of,
  at: 0,
  ...NOTHING_HERE,
  noted: [],
})

const sameAct = (a: WalkAct, b: WalkAct) => a.act === b.act && a.position === b.position

export function walkStep(state: WalkState, event: WalkEvent): WalkState {
  switch (event.type) {
    case 'found':
      return {
        ...state,
        looks: [...state.looks.filter((l) => l.what !== event.what), { what: event.what, grade: event.grade }],
        passed: passedWith(state, event.what),
      }
    case 'notLooked':
      return {
        ...state,
        looks: state.looks.filter((l) => l.what !== event.what),
        passed: passedWith(state, event.what),
      }
    case 'did':
      return { ...state, acts: [...state.acts.filter((a) => !sameAct(a, event.act)), event.act] }
    case 'undid':
      return { ...state, acts: state.acts.filter((a) => !sameAct(a, event.act)) }
    case 'settled': {
      const others = state.settled.filter((task) => task !== event.task)
      return { ...state, settled: event.isDone ? [...others, event.task] : others }
    }
    case 'back': {
      const last = state.passed.at(-1)
      return {
        ...state,
        passed: state.passed.slice(0, -1),
        looks: state.looks.filter((l) => l.what !== last),
      }
    }
    case 'leave':
      return {
        ...state,
        at: Math.min(state.at + 1, state.stops.length),
        ...NOTHING_HERE,
        noted: [...state.noted, event.isNoted],
      }
  }
}
const passedWith = ({ passed }: WalkState, what: LookKey) => [...passed.filter((w) => w !== what), what]

/** What is looked at next at this gun; null: all is. */
export function nextLook(state: WalkState): LookKey | null {
  const stop = state.stops[state.at]
  return stop?.looks.find((l) => !state.passed.includes(l.what))?.what ?? null
}
export const isOver = ({ at, stops }: WalkState) => at >= stops.length
/** There is something to note: found, or done. */
export const hasFound = ({ looks, acts, settled }: WalkState) => looks.length + acts.length + settled.length > 0
