import { type KindKey } from '@core/path/columns.ts'
import { mean } from '@core/stats/mean.ts'
import { rateInterval, type RateInterval } from '@core/stats/poisson.ts'
import { type Joint, type TightnessStep } from './facts.ts'

/** What goes wrong with a joint: one vocabulary for all of them. */
/** A nozzle that stands crooked, by why: it stood straight once (D23, P150). */
export const ASKEW = ['askewThread', 'askewInsulator', 'askewNeck', 'askewUntold'] as const
export const JOINT_FAULTS = ['cameLoose', 'turnedAlong', 'seized', 'stripped', 'crossThreaded', ...ASKEW] as const
export type Askew = (typeof ASKEW)[number]
export const isAskew = (fault: string): fault is Askew => ASKEW.some((a) => a === fault)
export type JointFault = (typeof JOINT_FAULTS)[number]
/** Which way a fault says the joint was made; crossed threads are the hand's start, not its strength; crooked is of what it sits on. */
export const SAYS: Record<JointFault, 'too slack' | 'too tight' | 'neither'> = {
  cameLoose: 'too slack',
  turnedAlong: 'too slack',
  seized: 'too tight',
  stripped: 'too tight',
  crossThreaded: 'neither',
  askewThread: 'neither',
  askewInsulator: 'neither',
  askewNeck: 'neither',
  askewUntold: 'neither',
}
/** What one costs, with the stop and the part it takes along, as minutes at the gun. Guesses: a seized one wants locking pliers, a stripped one a diffuser. */
const COSTS_MIN: Partial<Record<JointFault, number>> = { cameLoose: 6, turnedAlong: 8, seized: 15, stripped: 20 }
/** The kind a joint is made with: each time it goes on, the joint is made; the liner's nut with the liner, the lock with the gun's rings. */
export const MADE_WITH: Record<Joint, KindKey> = {
  tip: 'tip',
  diffuser: 'diffuser',
  clampring: 'clampring',
  insulator: 'insulator',
  nozzle: 'nozzle',
  neck: 'neck',
  linerNut: 'liner',
  gunLock: 'orings',
}
export const USUAL_STEP: Record<Joint, TightnessStep> = {
  tip: 2,
  diffuser: 3,
  clampring: 2,
  insulator: 1,
  nozzle: 1,
  neck: 3,
  linerNut: 2,
  gunLock: 4,
}
/**
 * No joint is made slacker than what it can bear: a tip by finger works loose and burns back, a diffuser by hand turns with the next tip, a gun that is
 * not locked backs out. Source: practice.
 */
export const LEAST_STEP: Record<Joint, TightnessStep> = {
  tip: 2,
  diffuser: 2,
  clampring: 2,
  insulator: 1,
  nozzle: 1,
  neck: 2,
  linerNut: 2,
  gunLock: 3,
}
/** Minutes lost in 100 times made from which another habit is worth it: less costs less than teaching everybody anew. A guess. */
const WORTH_MIN_PER_100 = 10
/** The fifth step is a torque, which is no tighter than firm by itself: advice stops at firm. */
const TIGHTEST = 4

export interface JointAdvice {
  slack: number
  tight: number
  crossed: number
  /** Times the joint was made since the step was chosen. */
  made: number
  /** Faults per 100 times made, with exact 95% ends. */
  slackRate: RateInterval | null
  tightRate: RateInterval | null
  /** Minutes lost to either in 100 times made. */
  slackMin: number
  tightMin: number
  /** Crooked ones, by why. */
  askew: Partial<Record<Askew, number>>
  advise: 'one tighter' | 'one slacker' | 'stay' | 'too few to tell'
  to: TightnessStep | null
  /** Why it stays, though one kind outweighs the other: it can go no further that way, or the faults are rare. */
  why: 'least' | 'most' | 'rare' | null
}

/**
 * Too slack and too tight are counted apart, per 100 times the joint was made, and weighed by what one costs: a tip that came loose is minutes, a
 * seized one a diffuser. One step the other way is advised only when their exact Poisson intervals (Garwood 1936), each times its mean minutes, do not
 * touch, the heavier loses at least 10 min in 100, and the joint can bear it (P048, P140, P141, D03). Nobody is named.
 */
export function adviseJoint(
  faults: readonly JointFault[],
  { joint, made, step }: { joint: Joint; made: number; step: TightnessStep },
): JointAdvice {
  const of = (says: (typeof SAYS)[JointFault]) => faults.filter((f) => SAYS[f] === says)
  const [slack, tight] = [of('too slack').length, of('too tight').length]
  const crossed = faults.filter((f) => f === 'crossThreaded').length
  const per100 = Math.max(made, slack + tight, 1) / 100
  const slackRate = rateInterval(slack, per100)
  const tightRate = rateInterval(tight, per100)
  const [perSlack, perTight] = [meanMin(of('too slack')), meanMin(of('too tight'))]
  const [slackMin, tightMin] = [slackRate.rate * perSlack, tightRate.rate * perTight]
  const base = { slack, tight, crossed, made, slackRate, tightRate, slackMin, tightMin, askew: askewOf(faults) }
  const stay = (why: JointAdvice['why']): JointAdvice => ({ ...base, advise: 'stay', to: null, why })
  const isRare = Math.max(slackMin, tightMin) < WORTH_MIN_PER_100
  if (slackRate.low * perSlack > tightRate.high * perTight) {
    if (step >= TIGHTEST) return stay('most')
    return isRare ? stay('rare') : { ...base, advise: 'one tighter', to: (step + 1) as TightnessStep, why: null }
  }
  if (tightRate.low * perTight > slackRate.high * perSlack) {
    if (step <= LEAST_STEP[joint]) return stay('least')
    return isRare ? stay('rare') : { ...base, advise: 'one slacker', to: (step - 1) as TightnessStep, why: null }
  }
  return slack + tight < FEW ? { ...base, advise: 'too few to tell', to: null, why: null } : stay(null)
}
/** What one of them costs; of none, what the cheapest of any would. */
const meanMin = (faults: readonly JointFault[]) =>
  faults.length > 0 ? mean(faults.map((f) => COSTS_MIN[f] ?? 0)) : Math.min(...Object.values(COSTS_MIN))
function askewOf(faults: readonly JointFault[]): JointAdvice['askew'] {
  const counts: JointAdvice['askew'] = {}
  for (const fault of faults) if (isAskew(fault)) counts[fault] = (counts[fault] ?? 0) + 1
  return counts
}
/** Fewer faults than this cannot separate whichever way they fall. */
const FEW = 5
