import { isolateStep, openSteps, type OpenAt } from '@core/guide/open.ts'
import { step, type Step } from '@core/guide/step.ts'
import { isOtherWire, type At } from './step.ts'

/** The gun as it stands before the change. */
export const openFrom = ({ plan, rules }: At): OpenAt => ({
  fit: plan.from.family?.fit ?? null,
  rules,
  hasClampRing: plan.from.family?.fit?.hasClampRing === true || plan.from.parts['clampring'] !== undefined,
})

/** The old wire's mark is kept for the old wire. */
const markKept = (opened: Step, { plan }: At): Step => ({
  ...opened,
  do: `Read the mark on the knob and write it down for ${plan.from.wire?.name ?? 'this wire'}. Pressure arm open, holding the wire at the spool.`,
  look: 'It is this wire’s mark, and not the next one’s.',
})

/** Power off, front off, wire out, spool off. */
export const clearSteps = (at: At): Step[] => [
  isolateStep(at),
  ...openSteps(openFrom(at), ['wireOut']).map((s) =>
    s.key === 'armOpen' && isOtherWire(at.plan) ? markKept(s, at) : s,
  ),
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
