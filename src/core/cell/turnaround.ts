import { TRADE_SPREAD } from '@core/life/guesses.ts'
import { Z_80 } from '@core/stats/normal.ts'
import { HOUR_MS } from '@core/units/time.ts'
import { type Reckoned } from './neckneed.ts'

/** Hours between a neck that comes off and the same one ready: until the shop's own are known. Eight shops in ten lie within so many times of it. */
export const TURNAROUND_H = 24
/** Hours by the wall that a neck hangs before it comes off, for whatever reason. Guesses both. */
export const ON_ROBOT_H = 120
export const ON_ROBOT_SHAPE = 1.6
const SD_LOG_PRIOR = Math.log(TRADE_SPREAD) / Z_80
/** One mending against the next: a standard deviation of the log, until six tell their own. */
export const MEND_SIGMA = 0.7
const OWN_FROM = 6

export interface LearntHours extends Reckoned {
  sigma: number
  n: number
}

/**
 * Hours of mending, learnt: log-normal, the prior's median with its spread, each turnaround of the shop's own with the spread of one against the
 * next; mean = exp(μ + σ²/2). Source: normal conjugate on the log scale (Gelman et al. 2013, ch. 2). Hours > 0, misuse throws.
 * @example learnHours([]).mean // 31: the guess
 */
export function learnHours(hours: readonly number[], priorMedian = TURNAROUND_H): LearntHours {
  if (hours.some((h) => !(h > 0)) || !(priorMedian > 0)) throw new RangeError('learnHours: expected hours > 0')
  const logs = hours.map((h) => Math.log(h))
  const own = logs.reduce((s, x) => s + x, 0) / Math.max(1, logs.length)
  const spread = Math.sqrt(logs.reduce((s, x) => s + (x - own) ** 2, 0) / Math.max(1, logs.length - 1))
  const sigma = logs.length >= OWN_FROM ? Math.max(0.1, spread) : MEND_SIGMA
  const [wPrior, wOwn] = [1 / SD_LOG_PRIOR ** 2, logs.length / sigma ** 2]
  const mu = (wPrior * Math.log(priorMedian) + wOwn * own) / (wPrior + wOwn)
  return { mean: Math.exp(mu + sigma ** 2 / 2), sdLog: 1 / Math.sqrt(wPrior + wOwn), sigma, n: hours.length }
}

/** What one neck went through, in time order: when it was hung, when it came off, when it was said to be ready. */
export interface NeckStory {
  /** Stretches on a robot; the last may still run. */
  on: readonly { fromMs: number; toMs: number | null }[]
  readyMs: readonly number[]
}

/** Hours on a robot (ended or still running) and hours from coming off to ready, of all necks. What took no time was hung by mistake, or is a slip. */
export function neckHours(
  necks: readonly NeckStory[],
  nowMs: number,
): { on: { hours: number; isOver: boolean }[]; away: number[] } {
  const on = necks.flatMap((n) =>
    n.on.map(({ fromMs, toMs }) => ({ hours: ((toMs ?? nowMs) - fromMs) / HOUR_MS, isOver: toMs !== null })),
  )
  const away = necks.flatMap(({ on: stretches, readyMs }) =>
    stretches.flatMap(({ toMs }) => {
      if (toMs === null) return []
      const ready = readyMs.find((ms) => ms > toMs)
      const again = stretches.find((s) => s.fromMs >= toMs)?.fromMs ?? Infinity
      return ready !== undefined && ready <= again ? [(ready - toMs) / HOUR_MS] : []
    }),
  )
  const isReal = (h: number) => h > 1 / 60
  return { on: on.filter((s) => isReal(s.hours)), away: away.filter(isReal) }
}
