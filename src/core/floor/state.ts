import { DAY_MS } from '@core/units/time.ts'
import { type Due } from '@core/houserule/due.ts'

/** States of a position, worst first. How they are drawn and named is the interface's. */
export const STATES = ['down', 'wrong', 'due', 'look', 'notSeen', 'partWorn', 'good', 'absent'] as const
export type PositionState = (typeof STATES)[number]

export const isWorse = (a: PositionState, b: PositionState) => STATES.indexOf(a) < STATES.indexOf(b)
export const worstOf = (states: readonly PositionState[]): PositionState =>
  states.reduce((worst, state) => (isWorse(state, worst) ? state : worst), 'absent')

export const NOT_SEEN_WHYS = ['no rule', 'no fitting date', 'nobody has looked', 'no clock', 'past belief'] as const
export type NotSeenWhy = (typeof NOT_SEEN_WHYS)[number]

export interface PositionInput {
  isOnGun: boolean
  isDownHere: boolean
  hasWrongPart: boolean
  /** A finding that harms, or a temporary setting nobody has undone. */
  isQuestioned: boolean
  /** Read, and to be put right now. */
  isToPutRight: boolean
  /** One entry per usage limit that applies: change, clean. */
  dues: readonly { act: 'change' | 'clean'; due: Due }[]
  hasLimit: boolean
  /** What another rule than use says of it: change it; or that its use alone asks only for a look. */
  bySign?: { isChange: boolean; sinceMs: number | null } | null
  lookEveryDays: number | null
  confirmDays: number | null
  seenMs: number | null
  hasFittingDate: boolean
  /** The clock behind the limits has been read within ten working days. */
  isClockFresh: boolean
  nowMs: number
  /** The moment before which work has to be done: the next window. */
  cutoffMs: number
}

export interface PositionVerdict {
  state: PositionState
  act: 'change' | 'clean' | 'look' | null
  due: Due | null
  why: NotSeenWhy | null
}

const PART_WORN_ABOVE = 0.5
/** Nobody welds on with a part this many times past its limit: it was changed, and not noted. */
const PAST_BELIEF = 5

/**
 * State of one position. Due: the limit is reached, or would be before the next window. Not seen: neither limit nor look
 * interval, a limit without a fitting date, nobody has seen it within the kind's time, or a clock that stands; unknown is
 * never good. Estimated use alone does not make it not seen. A change more than five times past its limit, with nobody having looked since, is no age but a
 * hole in the records: not seen.
 */
export function stateOf(input: PositionInput): PositionVerdict {
  const none = { act: null, due: null, why: null }
  if (!input.isOnGun) return { state: 'absent', ...none }
  if (input.isDownHere) return { state: 'down', ...none }
  if (input.hasWrongPart) return { state: 'wrong', ...none }
  const { bySign } = input
  const believed = input.dues.filter((d) => bySign || !isPastBelief(d, input))
  const worst = mostUsed(believed)
  if (bySign?.isChange) return { state: 'due', act: 'change', due: dueSince(worst?.due, bySign.sinceMs), why: null }
  if (worst && isDueBefore(worst.due, input.cutoffMs))
    return bySign
      ? { state: 'look', act: 'look', due: worst.due, why: null }
      : { state: 'due', act: worst.act, due: worst.due, why: null }
  if (input.isToPutRight) return { state: 'due', act: 'look', due: worst?.due ?? null, why: null }
  if (input.isQuestioned || isLookDue(input)) return { state: 'look', act: 'look', due: worst?.due ?? null, why: null }
  const why = believed.length < input.dues.length ? 'past belief' : notSeenWhy(input)
  if (why) return { state: 'notSeen', act: null, due: worst?.due ?? null, why }
  const isPartWorn = worst !== null && worst.due.usedFraction > PART_WORN_ABOVE
  return { state: isPartWorn ? 'partWorn' : 'good', act: null, due: worst?.due ?? null, why: null }
}

const UNUSED: Due = {
  ...{ used: 0, usedSd: 0, usedFraction: 0, estimatedShare: 0, chanceBy: 1 },
  ...{ isReached: true, reachedMs: null, earlyMs: null, lateMs: null },
}
/** Due since its sign, whatever its use. */
const dueSince = (due: Due | undefined, reachedMs: number | null): Due => ({
  ...(due ?? UNUSED),
  isReached: true,
  reachedMs,
})

function mostUsed(dues: PositionInput['dues']) {
  return dues.reduce<PositionInput['dues'][number] | null>(
    (most, d) => (!most || d.due.usedFraction > most.due.usedFraction ? d : most),
    null,
  )
}

function isPastBelief({ act, due }: PositionInput['dues'][number], { seenMs, confirmDays, nowMs }: PositionInput) {
  const isSeenLately = seenMs !== null && confirmDays !== null && nowMs - seenMs <= confirmDays * DAY_MS
  return act === 'change' && due.usedFraction > PAST_BELIEF && !isSeenLately
}

const isDueBefore = (due: Due, cutoffMs: number) =>
  due.isReached || (due.reachedMs !== null && due.reachedMs < cutoffMs)

function isLookDue({ lookEveryDays, seenMs, nowMs }: PositionInput): boolean {
  return lookEveryDays !== null && seenMs !== null && nowMs - seenMs > lookEveryDays * DAY_MS
}

function notSeenWhy(input: PositionInput): NotSeenWhy | null {
  if (!input.hasLimit && input.lookEveryDays === null) return 'no rule'
  if (input.seenMs === null) return 'nobody has looked'
  if (input.hasLimit && !input.hasFittingDate) return 'no fitting date'
  if (input.confirmDays !== null && input.nowMs - input.seenMs > input.confirmDays * DAY_MS) return 'nobody has looked'
  if (input.hasLimit && !input.isClockFresh) return 'no clock'
  return null
}
