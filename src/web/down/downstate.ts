import { type EventId } from '@core/ids/id.ts'
import { HOUR_MS } from '@core/units/time.ts'
import { type Said } from '@core/diagnose/session.ts'
import { type Touched } from '@core/diagnose/touched.ts'

/**
 * A search under way at one gun, kept on the device so that a page that is closed goes on.
 *
 *   what is seen ──> what was touched last (unless the log knows) ──> step ──answer──> step … ──it runs──> closing test ──> explained
 *         └──"I know what it is"──> its fix ───────────────────────────^  ^──take back──┘            └──still there──> step
 *
 * 1. Pure. What was said is a list; taking back leaves out the last of it.
 * 2. The key of the explanation is made with the search, so that said twice it is one.
 */
export interface DownState {
  stationId: string
  key: string
  startedMs: number
  symptom: string | null
  touched: Touched | null
  said: readonly Said[]
  /** Named by somebody who knows, without the search. */
  known: string | null
  isClosing: boolean
  /** The cause whose fix was done just now; its act is logged with the closing test. */
  fixing: string | null
  /** Line of the log of a part that was put on to try. */
  tried: EventId | null
  /** Line of the log of what is seen: photos hang on it. */
  seen: EventId | null
  /** Minutes expected when the search began: at twice of it a ready gun is offered. */
  firstMin: number | null
}
export type DownEvent =
  | { type: 'symptom'; symptom: string }
  | { type: 'touched'; touched: Touched }
  | { type: 'said'; said: Said | readonly Said[] }
  | { type: 'known'; cause: string | null }
  | { type: 'runs'; fixing: string | null }
  | { type: 'tried'; eventId: EventId }
  | { type: 'seen'; eventId: EventId }
  | { type: 'stillThere'; fix: string | null }
  | { type: 'expected'; minutes: number }
  | { type: 'back' }

export const beginDown = (of: Pick<DownState, 'stationId' | 'key' | 'startedMs'>): DownState => ({
  ...of,
  symptom: null,
  touched: null,
  said: [],
  known: null,
  isClosing: false,
  fixing: null,
  tried: null,
  seen: null,
  firstMin: null,
})

export function downStep(state: DownState, event: DownEvent): DownState {
  switch (event.type) {
    case 'symptom':
      // Another trouble is told anew.
      return {
        ...{ ...state, symptom: event.symptom, said: [], firstMin: null },
        seen: event.symptom === state.symptom ? state.seen : null,
      }
    case 'touched':
      return { ...state, touched: event.touched, firstMin: null }
    case 'said':
      return { ...state, said: state.said.concat(event.said), known: null }
    case 'known':
      return { ...state, known: event.cause }
    case 'runs':
      return { ...state, isClosing: true, fixing: event.fixing }
    case 'tried':
      return { ...state, tried: event.eventId }
    case 'seen':
      return { ...state, seen: event.eventId }
    case 'stillThere':
      return {
        ...state,
        isClosing: false,
        fixing: null,
        known: null,
        said: event.fix ? [...state.said, { type: 'fix', key: event.fix }] : state.said,
      }
    case 'expected':
      return state.firstMin === null ? { ...state, firstMin: event.minutes } : state
    case 'back':
      return backOne(state)
  }
}

/** The last thing said is left out; before that the question before it. */
function backOne(state: DownState): DownState {
  if (state.isClosing) return { ...state, isClosing: false, fixing: null }
  if (state.known !== null) return { ...state, known: null }
  if (state.said.length > 0) return { ...state, said: withoutLast(state.said) }
  if (state.touched !== null) return { ...state, touched: null }
  return { ...state, symptom: null }
}

/** "None of these" was one tap. */
function withoutLast(said: readonly Said[]): readonly Said[] {
  const isNone = (s: Said | undefined) => s?.type === 'symptom' && !s.isThere
  let end = said.length - 1
  if (isNone(said[end])) while (end > 0 && isNone(said[end - 1])) end--
  return said.slice(0, end)
}

const KEPT = 'idle-spool-down'
type Kept = Record<string, DownState>
function readKept(): Kept {
  try {
    return JSON.parse(localStorage.getItem(KEPT) ?? '{}') as Kept
  } catch {
    return {}
  }
}
/** The search at a gun, where one was left open lately. */
export function keptDown(stationId: string, nowMs: number): DownState | null {
  const kept = readKept()[stationId]
  return kept && Array.isArray(kept.said) && nowMs - kept.startedMs < STALE_MS ? kept : null
}
const STALE_MS = 16 * HOUR_MS
export function keepDown(state: DownState | null, stationId: string): void {
  const { [stationId]: _, ...others } = readKept()
  localStorage.setItem(KEPT, JSON.stringify(state ? { ...others, [stationId]: state } : others))
}
