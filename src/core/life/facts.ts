import { type OutReason } from '@core/path/columns.ts'
import { type Precision } from '@core/ledger/event.ts'
import { type SharedGap } from './fitted.ts'
import { type GapEnd } from './thinned.ts'

/** A stretch between two lines of the log at one position, ended or still open, as the ledger has it. */
export interface LifeFact {
  used: number
  /** Null: still in. */
  reason: OutReason | null
  isAgeUnknown: boolean
  parts: number
  fromPrecision: Precision
  toPrecision: Precision
  /** Use in a worked shift where it hung: how wide "this shift" is. */
  perShift: number
}
export interface ShareBand {
  value: number
  low: number
  high: number
}

/** "Worn" ends a life; burned back, knocked, stripped, blocked, kinked come by chance; due and to try cut it off; not said is worn or chance. */
export function endOf(reason: OutReason | null): GapEnd {
  if (reason === null || reason === 'due' || reason === 'toTry') return 'cut'
  return reason === 'worn' ? 'worn' : reason === 'notSaid' ? 'either' : 'chance'
}

const SHIFTS: Record<Precision, number> = { exact: 0, shift: 1, day: 2, week: 10 }
/** The stretch with the width of its ends: what is written at the end of a shift happened some time in it. */
export function gapOf(fact: LifeFact, share: ShareBand): SharedGap {
  const width = (p: Precision) => SHIFTS[p] * fact.perShift
  const end = endOf(fact.reason)
  return {
    low: Math.max(0, fact.used - (end === 'cut' ? 0 : width(fact.toPrecision))),
    high: fact.used + width(fact.fromPrecision),
    ...{ end, isAgeUnknown: fact.isAgeUnknown, parts: fact.parts },
    ...{ share: share.value, shareLow: share.low, shareHigh: share.high },
  }
}
