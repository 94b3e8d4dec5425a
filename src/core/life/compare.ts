import { Z_95 } from '@core/stats/normal.ts'
import { fitAft } from './aft.ts'
import { logRank } from './logrank.ts'
import { endsNeeded } from './needed.ts'
import { type Gap } from './thinned.ts'

export interface Comparison {
  /** How many times as long the second lasts as the first; null where one of them has no end yet. */
  ratio: number | null
  low: number | null
  high: number | null
  p: number
  /** Worn out of both together. */
  ends: number
  /** How many more worn ones would tell a difference as large as the one seen, or of half as much again where none is seen; 0: it is told. */
  more: number
  verdict: 'longer' | 'shorter' | 'cantTell'
}
/** Where a difference is looked for and none is seen. */
const LOOKED_FOR = 1.5
const TOLD_P = 0.05
/** Nobody waits for a difference smaller than this. */
const LEAST_RATIO = 1.15

/**
 * Two groups of lives: log-rank for whether they differ at all, Weibull regression for how many times as long the second lasts. Gaps are counted as
 * use · q, so that a group which writes down less does not seem to last longer; worn (and half-said) ends count. Null: nothing worn in both.
 * Source: Mantel 1966; Kalbfleisch & Prentice 2002; Schoenfeld 1981 for how many more.
 */
export function compareGroups(first: readonly Gap[], second: readonly Gap[]): Comparison | null {
  const all = [...first.map((g) => ({ g, is: 0 })), ...second.map((g) => ({ g, is: 1 }))].filter(({ g }) => usable(g))
  const time = all.map(({ g }) => ((g.low + g.high) / 2) * g.share)
  const event = all.map(({ g }) => (g.end === 'worn' || g.end === 'either' ? 1 : 0))
  const group = all.map(({ is }) => `${is}`)
  const ends = event.reduce<number>((a, b) => a + b, 0)
  if (ends === 0 || new Set(group).size < 2) return null
  const { p } = logRank({ time, event, group })
  const fit = fitAft({ time, event, columns: [time.map(() => 1), all.map(({ is }) => is)] })
  if (!fit.ok) return { ratio: null, low: null, high: null, p, ends, more: 0, verdict: 'cantTell' }
  const [, log = 0] = fit.coefficients
  const se = Math.sqrt(fit.covariance[1]?.[1] ?? 0)
  const isTold = p < TOLD_P
  return {
    ...{ ratio: Math.exp(log), low: Math.exp(log - Z_95 * se), high: Math.exp(log + Z_95 * se), p, ends },
    more: isTold
      ? 0
      : moreFor(log, {
          shape: Math.exp(-fit.logSigma),
          ends,
          share: all.filter((a) => a.is === 1).length / all.length,
        }),
    verdict: !isTold ? 'cantTell' : log > 0 ? 'longer' : 'shorter',
  }
}
const usable = (g: Gap) => g.parts === 1 && !g.isAgeUnknown && g.high > 0
function moreFor(log: number, at: { shape: number; ends: number; share: number }): number {
  const ratio = Math.abs(log) > Math.log(LEAST_RATIO) ? Math.exp(Math.abs(log)) : LOOKED_FOR
  return Math.max(0, endsNeeded(ratio, at.shape, at.share) - at.ends)
}
