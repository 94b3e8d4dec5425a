import { type KindKey } from '@core/path/columns.ts'
import { type GuideRules } from '@core/guide/rules.ts'
import { type ShopWords } from '@core/guide/step.ts'
import { type ChangePlan } from './plan.ts'

export const swapOf = (plan: ChangePlan, kindKey: KindKey) =>
  plan.swaps.find((s) => s.kindKey === kindKey && s.to !== null)

export interface At extends ShopWords {
  plan: ChangePlan
  rules: GuideRules
}
