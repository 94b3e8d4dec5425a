import { seenGaps, type WearAndChance } from './renewalgrid.ts'
import { type School } from './chooserule.ts'
import { type RuleCosts, totalOf } from './rulecost.ts'

/** What a rule in money rested on when it was chosen. */
export interface RuleBasis {
  school: School
  /** Lives it was fitted to, half gone by, and the saving it promised against run to failure (9 in 10). */
  n: number
  median: number
  savingLow: number
  savingHigh: number
  /** Ledger as it stood. */
  basis: string
}
/** Whose number it is. */
export type LifeSource = 'yours' | 'told' | 'trade'
/** A fit as it is kept for those who only ask about one part: the chance that it wears out soon at its age since the last line of the log. */
export interface KeptFit {
  life: WearAndChance
  median: number
  low: number
  high: number
  n: number
  worn: number
  source: LifeSource
  priorShare: number
  share: number
  /** Cumulative hazard of an end by wear, at equal steps of use since the last logged change. */
  step: number
  hazard: number[]
  /** Standing and money that a worn-out part costs beyond a change in time; null: nobody priced it. */
  extraMin: number
  extraMinor: number
}

const POINTS = 48
/** Age by then is as old as anything gets. */
const FAR = 4

/**
 * Λ(x) = ∫ g_w/(q Ḡ): how an end by wear mounts up with use since the last line of the log. Where changes go unlogged the part may be younger than the
 * log says, and Λ rises more slowly than its own wear would.
 */
export function hazardSince(life: WearAndChance, share: number): { step: number; hazard: number[] } {
  const until = FAR * life.scale
  const seen = seenGaps(life, share, until)
  const step = until / POINTS
  const rate = (x: number) => seen.wornAt(x) / Math.max(1e-300, share * seen.survival(x))
  const hazard = [0]
  for (let i = 1; i <= POINTS; i++) {
    const sum = (rate((i - 0.999) * step) + 4 * rate((i - 0.5) * step) + rate(i * step)) / 6
    hazard.push((hazard[i - 1] ?? 0) + sum * step)
  }
  return { step, hazard }
}

/** Chance that a part of this age (since its last line) wears out within `more` use. Ages and use ≥ 0; else misuse throws. */
export function wornWithin(fit: Pick<KeptFit, 'step' | 'hazard'>, age: number, more: number): number {
  if (!(age >= 0) || !(more >= 0)) throw new RangeError(`wornWithin: expected age and use >= 0, got ${age}, ${more}`)
  return -Math.expm1(readHazard(fit, age) - readHazard(fit, age + more))
}
function readHazard({ step, hazard }: Pick<KeptFit, 'step' | 'hazard'>, x: number): number {
  const at = x / step
  const last = hazard.length - 1
  const value = (i: number) => hazard[i] ?? 0
  // Beyond what was worked out it goes on as at the end.
  if (at >= last) return value(last) + (at - last) * (value(last) - value(last - 1))
  const i = Math.floor(at)
  return value(i) + (at - i) * (value(i + 1) - value(i))
}

export interface Leaving {
  /** That it wears out until then. */
  chance: number
  /** Standing and money that leaving it costs more than a new part would, to be expected. */
  minutes: number
  minor: number
}
/** Leaving it till tomorrow: what a part of this age is likelier to wear out than a new one, by what wearing out costs more. */
export function leavingIt(fit: KeptFit, age: number, more: number): Leaving {
  const chance = wornWithin(fit, age, more)
  const gain = Math.max(0, chance - wornWithin(fit, 0, more))
  return { chance, minutes: gain * fit.extraMin, minor: gain * fit.extraMinor }
}
export const extraOf = ({ planned, worn }: RuleCosts): Pick<KeptFit, 'extraMin' | 'extraMinor'> => ({
  extraMin: Math.max(0, worn.standMin - planned.standMin),
  extraMinor: Math.max(0, totalOf(worn) - totalOf(planned)),
})
