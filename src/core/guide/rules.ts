import { questionByCode, type QuestionCode, type SchoolOf } from '@core/houserule/schools.ts'

/** The questions that shape steps of guides, where schools differ. */
export const RULE_OF = {
  air: 'D01',
  tensionBy: 'D02',
  tight: 'D03',
  trim: 'D07',
  cutter: 'D08',
  tipWhileFeeding: 'D10',
  power: 'D11',
  gas: 'D12',
  speed: 'D13',
  lock: 'D14',
  cable: 'D15',
  antiSpatter: 'D17',
  oldTip: 'D18',
  thread: 'D19',
  crooked: 'D23',
  setScrew: 'D24',
  tension: 'D30',
} as const satisfies Record<string, QuestionCode>
type RuleName = keyof typeof RULE_OF

/** How the shop does it: for each question the school that holds. */
export type GuideRules = { [K in RuleName]: SchoolOf<(typeof RULE_OF)[K]> }

/** Rules from what the shop chose: `chosen` tells the school that holds for a code. */
export function guideRules(chosen: (code: QuestionCode) => string): GuideRules {
  return Object.fromEntries(Object.entries(RULE_OF).map(([name, code]) => [name, chosen(code)])) as GuideRules
}
export const USUAL_RULES: GuideRules = guideRules((code) => questionByCode.get(code)?.usual ?? '')
