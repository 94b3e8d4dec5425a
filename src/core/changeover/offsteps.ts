import { isolateStep, openSteps, type OpenAt } from '@core/guide/open.ts'
import { step, type Step } from '@core/guide/step.ts'
import { type At } from './step.ts'

/** The gun as it stands before the change. */
export const openFrom = ({ plan, rules }: At): OpenAt => ({
  fit: plan.from.family?.fit ?? null,
  rules,
  hasClampRing: plan.from.family?.fit?.hasClampRing === true || plan.from.parts['clampring'] !== undefined,
})

/** Power off, front off, wire out, spool off. */
export const clearSteps = (at: At): Step[] => [
  isolateStep(at),
  ...openSteps(openFrom(at), ['wireOut']),
  step('off', 'off', {
    key: 'spoolOff',
    do: `Lock ring off, ${at.plan.from.wire ? `${at.plan.from.wire.name} ` : 'the old spool '}off the hub. Write on it what is left.`,
    hazards: ['spring'],
    minutes: 1,
    works: ['spool'],
    needs: ['wireOut'],
    makes: ['spoolOff'],
  }),
]
