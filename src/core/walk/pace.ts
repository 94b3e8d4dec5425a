import { LOOKS, type LookKey } from './looks.ts'

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
