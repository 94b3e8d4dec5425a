import { gasShutStep } from '@core/guide/runsteps.ts'
import { step, type Step } from '@core/guide/step.ts'
import { mustShutGas } from '@core/guide/feed.ts'
import { type At } from './step.ts'

/** Polarity and gas, then the new spool, threaded by hand. */
export const loadSteps = (at: At): Step[] => [...supplySteps(at), ...spoolSteps(at), ...lastSteps(at)]

function supplySteps({ plan }: At): Step[] {
  const steps: Step[] = []
  const { settings } = plan
  if (settings.polarity)
    steps.push(
      step('work', 'off', {
        key: 'polarity',
        do: `Polarity: ${settings.polarity}. Swap the two current cables if it is the other way.`,
        look: 'Both nuts firm, by the machine’s own manual.',
        hazards: ['isolate'],
        minutes: 2,
        works: ['machine'],
        byRule: 'D29',
      }),
    )
  if (settings.gas)
    steps.push(
      step('work', 'off', {
        key: 'gas',
        do: settings.gas === 'none' ? 'No gas with this wire: cylinder shut.' : `Gas: ${settings.gas}.`,
        hazards: ['cylinder'],
        minutes: settings.gas === 'none' ? 0.5 : 4,
        works: ['cylinder'],
      }),
    )
  return steps
}

function spoolSteps({ plan, rules }: At): Step[] {
  const { to } = plan
  const direction = to.feeder?.unwind
  return [
    step('work', 'off', {
      key: 'spoolOn',
      do: `${to.wire?.name ?? 'New spool'} on the hub: pin in its hole${direction ? `, wire leaving ${direction}` : ''}.${rules.lock === 'first' ? ' Lock ring on now.' : ''} Brake snug for threading.`,
      look: direction ? null : 'Whichever way runs straightest into the inlet.',
      hazards: ['spring'],
      minutes: 1.5,
      works: ['spool'],
      drawing: direction === 'over the top' ? 'spoolOver' : direction ? 'spoolUnder' : null,
      needs: ['spoolOff'],
      makes: ['spoolOn'],
      tie: 'brakeTight',
      byRule: rules.lock === 'first' ? 'D14' : 'D04',
    }),
    step('work', 'off', {
      key: 'thread',
      do: 'Hold the end, cut it clean and straight. By hand through inlet, groove and outlet, a hand’s breadth into the liner. Arm closed.',
      look: 'Wire lies in the groove of every roll.',
      hazards: ['spring'],
      minutes: 1.5,
      works: ['wire', 'arm'],
      needs: ['spoolOn'],
      makes: ['threaded', 'armClosed'],
      undoes: ['armOpen', 'wireOut', 'wireSnipped'],
      drawing: 'groove',
    }),
  ]
}

function lastSteps({ plan, rules }: At): Step[] {
  const steps: Step[] = []
  if (rules.lock === 'last')
    steps.push(
      step('work', 'off', {
        key: 'lockLast',
        do: 'Lock ring on.',
        hazards: ['spring'],
        works: ['spool'],
        minutes: 0.2,
        needs: ['threaded'],
        byRule: 'D14',
      }),
    )
  if (mustShutGas(plan.from.feeder, rules) && plan.settings.gas !== 'none') steps.push(gasShutStep)
  return steps
}
