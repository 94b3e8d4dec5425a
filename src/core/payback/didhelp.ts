import { compareRates, untilItTells, type Counted, type RatesCompared } from '@core/stats/rates.ts'

export interface HelpAsked {
  before: Counted
  after: Counted
  /** All other places in the same weeks, where nothing was changed; null: it was changed everywhere. */
  elsewhere: { before: Counted; after: Counted } | null
  /** The weeks before, cut in two: where the last of them were the worst, it was changed because of them. */
  run: { early: Counted; late: Counted } | null
}
export interface Helped {
  is: 'fewer' | 'more' | 'cantTell'
  compared: RatesCompared
  /** How much longer it has to be counted until it can tell, in what it is counted over; 0: it can; null: not in any time worth waiting. */
  untilOver: number | null
  /** The other places changed the same way in the same weeks, so that it may not be the change. */
  elsewhere: 'same' | 'not' | null
  elsewhereRatio: number | null
  /** It was changed at the end of a bad stretch: some of a fall comes by itself. */
  isAfterBad: boolean
}
const SURE = 0.05

/**
 * Did a change help? Exact conditional test of two Poisson rates, at 1 in 20. Beside it what a bare test would hide: whether the places without
 * the change went the same way, and whether it was made at the end of a bad stretch (regression to the mean).
 * Source: Przyborowski & Wilenski (1940). Counts whole ≥ 0, over > 0; else misuse throws.
 */
export function didHelp({ before, after, elsewhere, run }: HelpAsked): Helped {
  const compared = compareRates(before, after)
  const isSure = compared.p < SURE
  const isFewer = (compared.ratio ?? 2) < 1
  const is = isSure ? (isFewer ? 'fewer' : 'more') : 'cantTell'
  const others = elsewhere ? compareRates(elsewhere.before, elsewhere.after) : null
  const isSame = others !== null && others.p < SURE && (others.ratio ?? 2) < 1 === isFewer
  const stretch = run ? compareRates(run.early, run.late) : null
  return {
    is,
    compared,
    untilOver: untilItTells(before, after),
    elsewhere: others === null ? null : isSame ? 'same' : 'not',
    elsewhereRatio: others?.ratio ?? null,
    isAfterBad: stretch !== null && stretch.p < SURE && (stretch.ratio ?? 0) > 1 && isFewer,
  }
}
