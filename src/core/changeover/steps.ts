import { closeSteps, feedSteps, frontOnSteps } from './feedsteps.ts'
import { loadSteps } from './loadsteps.ts'
import { clearSteps } from './offsteps.ts'
import { type ChangePlan } from './plan.ts'
import { type GuideRules } from '@core/guide/rules.ts'
import { type ShopWords, type Step } from '@core/guide/step.ts'
import { feederSteps, frontSteps, linerSteps } from './worksteps.ts'

/** The whole change in order: off, out, swapped, in, on, fed, closed. */
export function stepsOf(plan: ChangePlan, rules: GuideRules, shop: ShopWords & { mark?: number | null }): Step[] {
  const at = { plan, rules, ...shop, mark: shop.mark ?? null }
  const isTipOn = rules.tipWhileFeeding === 'on'
  return [
    ...clearSteps(at),
    ...feederSteps(at),
    ...linerSteps(at),
    ...frontSteps(at),
    ...loadSteps(at),
    ...(isTipOn ? frontOnSteps(at) : []),
    ...feedSteps(at),
    ...(isTipOn ? [] : frontOnSteps(at)),
    ...closeSteps(at),
  ]
}
