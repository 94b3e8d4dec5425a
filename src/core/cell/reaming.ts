import {
  cleaningInterval,
  LEAST_FOUND,
  MOST_SHUT,
  PRIOR_LOG_SD,
  type CleaningInterval,
} from '@core/cleaning/interval.ts'
import { median } from '@core/trend/theilsen.ts'
import { HOUR_S } from '@core/units/time.ts'

/** How shut a nozzle was when its ream was due, and the cycles it had welded since the one before. */
export interface ReamLook {
  closedShare: number
  cycles: number
}
export interface ReamAsked {
  /** Cycles from ream to ream, as the robot's program has it. */
  everyNow: number
  /** Oldest first. */
  due: readonly ReamLook[]
  /** Shut just after a ream, oldest first. */
  left: readonly number[]
  /** Closure an arc hour of this class of work, a guess; and the arc of one cycle, s, where somebody said. */
  priorPerH: number
  cycleArcS: number | null
}
export interface ReamTold {
  /** Looks of its own that it goes by. */
  n: number
  /** Median of what its last reams left; null: nobody looked. */
  leftShare: number | null
  /** Leaves so much that no interval helps: blade, clamp or the way it goes in. */
  doesLeaveIt: boolean
  /** 80th percentile of how shut the nozzle is when its ream is due now. */
  shutWhenDue: number
  /** Whole cycles from ream to ream that would do; null: too few looks, or the reamer does not clean. */
  every: number | null
  isHeld: CleaningInterval['isHeld']
}

/** A cycle of nobody knows how much arc: a guess, s; and how far off that may be. */
const CYCLE_ARC_S = 60
const CYCLE_LOG_SD = 0.7
/** The last few reams tell how its blade is now. */
const LEFT_OF = 3

/**
 * How many cycles a reamer may wait, by how shut the nozzle is found when its turn comes: as nozzles cleaned by hand, in cycles for hours, less what each
 * ream leaves. At most half as often, half again as long a step.
 */
export function reaming(of: ReamAsked): ReamTold {
  const { everyNow, due, left, priorPerH, cycleArcS } = of
  if (!(everyNow >= 1)) throw new RangeError(`reaming: expected everyNow ≥ 1, got ${everyNow}`)
  const leftShare = left.length > 0 ? median(left.slice(-LEFT_OF)) : null
  const made = cleaningInterval({
    found: due.map((d) => ({ closedShare: d.closedShare, arcHours: d.cycles })),
    prior: {
      perHour: (priorPerH * (cycleArcS ?? CYCLE_ARC_S)) / HOUR_S,
      logSd: cycleArcS === null ? Math.hypot(PRIOR_LOG_SD, CYCLE_LOG_SD) : PRIOR_LOG_SD,
    },
    currentH: everyNow,
    leftShare: leftShare ?? 0,
  })
  const doesLeaveIt = leftShare !== null && leftShare >= MOST_SHUT
  return {
    ...{ n: made.n, leftShare, doesLeaveIt, isHeld: made.isHeld },
    shutWhenDue: Math.min(1, (leftShare ?? 0) + made.perHour * everyNow),
    every: doesLeaveIt || made.n < LEAST_FOUND ? null : Math.max(1, Math.floor(made.hours)),
  }
}

/** Arc seconds as whole cycles; null where nobody said how much arc a cycle has. @example cyclesIn(2, 72) // 100 */
export const cyclesIn = (arcHours: number, cycleArcS: number | null): number | null =>
  cycleArcS === null ? null : Math.round((arcHours * HOUR_S) / cycleArcS)
