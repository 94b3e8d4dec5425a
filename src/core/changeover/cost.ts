import { gramPerMetre } from '@core/spools/wire.ts'
import { type ChangePlan } from './plan.ts'
import { type GuideRules } from '@core/guide/rules.ts'
import { type Step } from '@core/guide/step.ts'
import { feedingSeconds, pathOf } from '@core/guide/guideat.ts'

/** Wire that is snipped at the tip and cut for a straight end, whatever the shop does with the rest, m. */
const SNIPPED_M = 0.15
/** A usual flow where nobody has measured: a guess. */
export const USUAL_FLOW_L_PER_MIN = 14
/** How far a change by somebody new to it, or one that goes smoothly, lies from the sum of the steps: a guess. */
const SPREAD = { low: 0.75, high: 1.6 }

export interface ChangeCost {
  minutes: number
  minutesLow: number
  minutesHigh: number
  wireM: number
  wireKg: number
  /** Null where the wire has no price. */
  wireMinor: number | null
  gasL: number
  gasMinor: number | null
}

/**
 * What a change takes: minutes = Σ steps (as the shop has them per kind; ×0.75 to ×1.6); wire = what is clipped (all that is
 * in the gun where it is binned, the snipped ends where it is wound back) × g/m; gas = flow × feeding time where the trigger
 * opens it and nobody shuts it. Money only where prices are known.
 */
export function costOf(
  plan: ChangePlan,
  how: { steps: readonly Step[]; rules: GuideRules; gasMinorPerM3: number | null; isScrapped: boolean },
): ChangeCost {
  const minutes = how.steps.reduce((sum, s) => sum + s.minutes, 0)
  const old = plan.from.wire
  const wireM = old ? (how.isScrapped ? pathOf({ setup: plan.from }) : 0) + SNIPPED_M : 0
  const wireKg = old ? (gramPerMetre(old.diameterMm, old.densityGPerCm3) * wireM) / 1000 : 0
  const price = old?.fit?.pricePerKgMinor ?? null
  const gasL = leaksGas(plan, how.rules)
    ? (USUAL_FLOW_L_PER_MIN * feedingSeconds({ setup: plan.to, rules: how.rules })) / 60
    : 0
  return {
    minutes,
    minutesLow: minutes * SPREAD.low,
    minutesHigh: minutes * SPREAD.high,
    wireM,
    wireKg,
    wireMinor: price === null ? null : price * wireKg,
    gasL,
    gasMinor: how.gasMinorPerM3 === null ? null : (gasL / 1000) * how.gasMinorPerM3,
  }
}

/** Gas flows while feeding only where it is left on, and neither a jog button nor the machine keeps it shut. */
function leaksGas(plan: ChangePlan, rules: GuideRules): boolean {
  const feeder = plan.from.feeder
  return rules.gas === 'leave' && !feeder?.hasJog && !feeder?.cutsGas && plan.to.gas !== 'none'
}
