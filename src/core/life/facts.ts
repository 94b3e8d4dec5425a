import { type OutReason } from '@core/path/columns.ts'
import { type AutopsyFind, type Precision } from '@core/ledger/event.ts'
import { type SharedGap } from './fitted.ts'
import { type GapEnd } from './thinned.ts'

/** A stretch between two lines of the log at one position, ended or still open, as the ledger has it. */
export interface LifeFact {
  used: number
  /** Null: still in. */
  reason: OutReason | null
  /** How it ended, where the bench knows better than what was said. */
  end?: GapEnd
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

/** What the bench showed of a part that came out, and how sure that is: pulling it may have made the kink. */
export interface Bench {
  found: readonly AutopsyFind[]
  isCertain: boolean
  /** How far from the feeder it was; null: not told. */
  atMm?: number | null
}
/** What is taken of a bench that was not sure: the reason that was said, what it showed all the same, or nothing. */
export const UNSURES = ['said', 'found', 'open'] as const
export type Unsure = (typeof UNSURES)[number]
const BY_CHANCE: ReadonlySet<AutopsyFind> = new Set(['kinked', 'cutShort'])

/**
 * How a part ended, from the reason that was said and what the bench showed. Sure, the bench goes before the reason: without fault it was cut off, kinked or
 * cut short it ended by chance, else worn. Not sure, it is by choice.
 * @example benchEnd('worn', { found: ['nothing'], isCertain: true }, 'said') // 'cut'
 */
export function benchEnd(reason: OutReason | null, bench: Bench, unsure: Unsure): GapEnd {
  if (!bench.isCertain && unsure !== 'found') return unsure === 'open' ? 'cut' : endOf(reason)
  const found = bench.found.filter((f) => f !== 'nothing')
  if (found.length === 0) return bench.found.length > 0 ? 'cut' : endOf(reason)
  return found.every((f) => BY_CHANCE.has(f)) ? 'chance' : 'worn'
}

/** How a life ended: as the bench knows, else as was said. */
export const endIn = (fact: Pick<LifeFact, 'reason' | 'end'>): GapEnd => fact.end ?? endOf(fact.reason)

const SHIFTS: Record<Precision, number> = { exact: 0, shift: 1, day: 2, week: 10 }
/** The stretch with the width of its ends: what is written at the end of a shift happened some time in it. */
export function gapOf(fact: LifeFact, share: ShareBand): SharedGap {
  const width = (p: Precision) => SHIFTS[p] * fact.perShift
  const end = endIn(fact)
  return {
    low: Math.max(0, fact.used - (end === 'cut' ? 0 : width(fact.toPrecision))),
    high: fact.used + width(fact.fromPrecision),
    ...{ end, isAgeUnknown: fact.isAgeUnknown, parts: fact.parts },
    ...{ share: share.value, shareLow: share.low, shareHigh: share.high },
  }
}
