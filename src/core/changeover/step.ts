import { type KindKey } from '@core/path/columns.ts'
import { type GuideAt } from '@core/guide/guideat.ts'
import { type GuideRules } from '@core/guide/rules.ts'
import { type ShopWords } from '@core/guide/step.ts'
import { type ChangePlan } from './plan.ts'

export const swapOf = (plan: ChangePlan, kindKey: KindKey) =>
  plan.swaps.find((s) => s.kindKey === kindKey && s.to !== null)

/** It has to come off, and the shop has none that fits. */
export const isMissing = (plan: ChangePlan, kindKey: KindKey) =>
  plan.swaps.some((s) => s.kindKey === kindKey && s.to === null)

export interface At extends ShopWords {
  plan: ChangePlan
  rules: GuideRules
  /** Where the knob stood for the wire to come on this feeder; null: nobody noted it. */
  mark: number | null
}

/** Another wire than was on: the mark of the old one is not its own. */
export const isOtherWire = ({ from, to }: ChangePlan) => from.wire?.id !== to.wire?.id
/** Nobody knows what is on there, and another wire goes through it: it is looked at and not taken to be right. */
export const isUntold = (plan: ChangePlan, kindKey: KindKey) => isOtherWire(plan) && plan.unknown.includes(kindKey)
/** It is slackened before the arm closes, and set anew: nobody knows its mark. */
export const isSlackened = ({ plan, mark }: Pick<At, 'plan' | 'mark'>) => isOtherWire(plan) && mark === null

/** The gun as it will stand, for what is done as its own guides have it. */
export const guideOf = ({ plan, ...at }: At): GuideAt => ({
  ...at,
  setup: plan.to,
  putOf: (kindKey) => swapOf(plan, kindKey)?.to ?? null,
})
