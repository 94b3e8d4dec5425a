import { logBeta } from '@core/stats/beta.ts'
import { LOOKS, type FoundCount, type LookKey } from './looks.ts'

/** Faster than this share of a practised eye's time nobody has looked. */
const FAIR_SHARE = 0.3
const LEAST_WEIGHT = 0.1

/**
 * How much looks count that were noted so long after the gun before: w = min(1, (time / (0.3 · minutes those looks take))), at least 0.1; what
 * was found bad always counts whole, since nobody says that to be quick. It weighs looks, and never names anybody. Null time: the first
 * gun, nothing to tell by.
 * @example paceWeight({ sinceMs: 3400, looks: ['bore', 'nozzleOpen', 'layout', 'pinHome'], isAllGood: true }) // 0.31
 */
export function paceWeight(of: { sinceMs: number | null; looks: readonly LookKey[]; isAllGood: boolean }): number {
  const { sinceMs, looks, isAllGood } = of
  if (sinceMs !== null && !(sinceMs >= 0)) throw new RangeError(`paceWeight: expected a time ≥ 0, got ${sinceMs}`)
  const minutes = looks.reduce((sum, what) => sum + LOOKS[what].minutes, 0)
  if (sinceMs === null || !isAllGood || minutes === 0) return 1
  return Math.min(1, Math.max(LEAST_WEIGHT, sinceMs / (FAIR_SHARE * minutes * 60_000)))
}

/** Less likely than this, nobody finds nothing on so long a walk. */
const FAIR_CHANCE = 0.05

/**
 * How much "as it should be" counts where a walk found nothing of one kind so far, though something should have been: w = min(1, P₀ / 0.05),
 * at least 0.1, with P₀ = B(a, b + n) / B(a, b) the chance of none in n by the beta-binomial of what the shop found before (a bad, b good,
 * the guess of the kind counted in). Where something was found, or little is known, it counts whole; it never names anybody.
 * @example roundWeight('bore', { before: { bad: 20, of: 190 }, walk: { bad: 0, of: 48 } }) // 0.17
 */
export function roundWeight(what: LookKey, of: { before: FoundCount; walk: FoundCount }): number {
  const { before, walk } = of
  const bad = LOOKS[what].bad
  const a = bad[0] + before.bad
  const b = bad[1] - bad[0] + before.of - before.bad
  if (!(a > 0 && b > 0 && walk.of >= walk.bad))
    throw new RangeError(`roundWeight: expected bad of so many, got ${before.bad} of ${before.of}`)
  if (walk.bad > 0) return 1
  const none = Math.exp(logBeta(a, b + walk.of) - logBeta(a, b))
  return Math.min(1, Math.max(LEAST_WEIGHT, none / FAIR_CHANCE))
}
