import { armClosedStep, threadStep } from '@core/guide/close.ts'
import { gasShutStep } from '@core/guide/runsteps.ts'
import { step, type Step } from '@core/guide/step.ts'
import { mustShutGas } from '@core/guide/feed.ts'
import { isCored, isSoft } from '@core/rightparts/facts.ts'
import { gasByMetal } from './plan.ts'
import { guideOf, isOtherWire, isSlackened, type At } from './step.ts'

/** Polarity and gas, then the new spool, threaded by hand. */
export const loadSteps = (at: At): Step[] => [...supplySteps(at), ...spoolSteps(at), ...lastSteps(at)]

function supplySteps({ plan }: At): Step[] {
  const steps: Step[] = []
  const { settings, to } = plan
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
        look:
          plan.gasChoice.length > 0
            ? `${to.wire && gasByMetal({ procedure: to.procedure, wire: to.wire }) === settings.gas ? 'By how thick the metal is' : 'The usual one here'}. ${plan.gasChoice.join(' or ')} would go as well: as the procedure of this work says.`
            : null,
        hazards: ['cylinder'],
        minutes: settings.gas === 'none' ? 0.5 : 4,
        works: ['cylinder'],
      }),
    )
  return steps
}

function spoolSteps(at: At): Step[] {
  const { plan, rules } = at
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
    { ...threadStep(guideOf(at)), needs: ['spoolOn'] },
    knobStep(at),
  ]
}

/** The knob before the arm closes: at the old wire's mark a softer or cored one is crushed before anybody sets it (P006). */
function knobStep({ plan, mark }: At): Step {
  const slack = isSlackened({ plan, mark })
    ? ' Then up by quarter turns, only until the rolls take it: it is set once wire is through.'
    : ''
  return {
    ...armClosedStep,
    do: knobWords({ plan, mark }),
    look: `${armClosedStep.look}${slack}`,
    minutes: 0.5,
    needs: ['threaded'],
  }
}
function knobWords({ plan, mark }: Pick<At, 'plan' | 'mark'>): string {
  const { from, to } = plan
  if (!isOtherWire(plan)) return armClosedStep.do
  if (mark !== null)
    return `Knob to ${mark}: there it stood for ${to.wire?.name ?? 'this wire'} on this feeder. Then the arm closed.`
  const why =
    to.wire && isCored(to.wire)
      ? 'at the old mark cored wire is crushed'
      : to.wire && isSoft(to.wire)
        ? 'at the old mark soft wire is flattened'
        : `the old mark was for ${from.wire?.name ?? 'the old wire'}`
  return `Knob slackened right off, then the arm closed: ${why}.`
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
