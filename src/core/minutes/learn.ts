import { betaCdf, quantileOf } from '@core/stats/beta.ts'

/** What is known before a shop's own jobs counts as so many of them. */
export const PRIOR_JOBS = 4
/** Shape k of one job's minutes: they vary by 1/√k, here a half, about the job's own mean. A guess. */
export const JOB_SHAPE = 4
/** A step that took longer than this without a reason was a pause. */
export const PAUSE_MIN = 10
/** Somebody who plans by it is late one time in five. */
const PLAN_BY = 0.8

export interface LearntMinutes {
  mean: number
  median: number
  /** Four of five jobs are done in so many. */
  p80: number
  /** Jobs of the shop's own behind it. */
  n: number
}

/** Jobs of one kind as far as learning needs them: how many, and their minutes together. */
export interface Jobs {
  n: number
  sumMin: number
}
export const NO_JOBS: Jobs = { n: 0, sumMin: 0 }
export const addJobs = (a: Jobs, b: Jobs): Jobs => ({ n: a.n + b.n, sumMin: a.sumMin + b.sumMin })

/**
 * Minutes of a job, learnt from those logged. A job's minutes are gamma of shape k, their rate has a gamma prior worth four jobs of the
 * mean told beforehand; the next job is then compound gamma: P(X ≤ x) = I_{x/(x+β)}(k, α), α = k(4 + n) + 1, β = 4·prior + Σ minutes, of
 * mean β/(4 + n). Source: conjugate analysis of a gamma rate (Raiffa & Schlaifer 1961). Minutes > 0, misuse throws.
 * @example learnMinutes(20, { n: 2, sumMin: 58 }).mean // 23 = (4·20 + 58) / 6
 */
export function learnMinutes(priorMin: number, { n, sumMin }: Jobs): LearntMinutes {
  if (!(priorMin > 0) || !Number.isFinite(priorMin + sumMin) || !(n >= 0) || (n === 0 ? sumMin !== 0 : !(sumMin > 0)))
    throw new RangeError(`learnMinutes: expected minutes > 0, got ${priorMin} and ${sumMin} of ${n} jobs`)
  const jobs = PRIOR_JOBS + n
  const alpha = JOB_SHAPE * jobs + 1
  const beta = PRIOR_JOBS * priorMin + sumMin
  const within = (p: number) => {
    const q = quantileOf((x) => betaCdf(x, JOB_SHAPE, alpha), p)
    return (beta * q) / (1 - q)
  }
  return { mean: beta / jobs, median: within(0.5), p80: within(PLAN_BY), n }
}

/**
 * The same for one family: what the shop took on its other families stands in for the default, so that a first job on a new gun is not
 * planned by a stranger's guess.
 */
export function learnForFamily(defaultMin: number, own: Jobs, others: Jobs): LearntMinutes {
  return learnMinutes(learnMinutes(defaultMin, others).mean, own)
}

export interface TimedStep {
  minutes: number
  usualMin: number
  /** Why it took long, where somebody said so: then it was work, not a pause. */
  reason: string | null
}
/** Minutes worked: a step over ten minutes with no reason told counts what it usually takes. Misuse throws. */
export function workedMinutes(steps: readonly TimedStep[]): number {
  return steps.reduce((sum, { minutes, usualMin, reason }) => {
    if (!(minutes >= 0) || !(usualMin >= 0))
      throw new RangeError(`workedMinutes: expected minutes ≥ 0, got ${minutes}, ${usualMin}`)
    return sum + (minutes > PAUSE_MIN && minutes > usualMin && !reason ? usualMin : minutes)
  }, 0)
}
