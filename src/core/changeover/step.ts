import { pathM, type Feeding } from '@core/guide/feed.ts'
import { type GuideRules } from '@core/guide/rules.ts'
import { type ShopWords } from '@core/guide/step.ts'
import { type ChangePlan } from './plan.ts'

export const pathOfPlan = ({ from }: ChangePlan) =>
  pathM({ cableM: from.cableM, neckMm: from.family?.fit?.neckMm ?? null })

export const feedingOf = (plan: ChangePlan, rules: GuideRules): Feeding => ({
  lengthM: pathOfPlan(plan),
  topMPerMin: plan.from.feeder?.topMPerMin ?? null,
  weldMPerMin: plan.to.procedure?.wireMPerMin ?? null,
  speed: rules.speed,
})

export const swapOf = (plan: ChangePlan, kindKey: string) =>
  plan.swaps.find((s) => s.kindKey === kindKey && s.to !== null)

export interface At extends ShopWords {
  plan: ChangePlan
  rules: GuideRules
}
