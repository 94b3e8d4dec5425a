import { TIGHTNESS, type FamilyFit, type Joint, type TightnessStep } from '@core/rightparts/facts.ts'
import { LEAST_STEP, USUAL_STEP } from '@core/rightparts/joints.ts'
import { type GuideRules } from './rules.ts'

const FIRM: TightnessStep = 4
const NIP: TightnessStep = 2

/**
 * How tight a joint is made (D03): what the shop says of this family, never slacker than the joint can bear; else by its school, each joint its own, all firm, or nothing
 * beyond a nip.
 */
export function tightOf(joint: Joint, fit: FamilyFit | null, rules: Pick<GuideRules, 'tight'>): TightnessStep {
  const own = fit?.tightness[joint]?.step
  if (own) return own < LEAST_STEP[joint] ? LEAST_STEP[joint] : own
  if (rules.tight === 'allTight') return FIRM
  const usual = USUAL_STEP[joint]
  return rules.tight === 'handNip' && usual > NIP ? NIP : usual
}
export const tightWords = (joint: Joint, fit: FamilyFit | null, rules: Pick<GuideRules, 'tight'>) =>
  TIGHTNESS[tightOf(joint, fit, rules) - 1] ?? ''
