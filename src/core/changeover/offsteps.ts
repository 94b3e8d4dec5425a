import { type NozzleStyle } from '@core/rightparts/facts.ts'
import { step, type At, type Step } from './step.ts'

/** Power off, front off, wire out, spool off. */
export const clearSteps = (at: At): Step[] => [...frontOffSteps(at), ...wireOutSteps(at)]

function frontOffSteps({ plan, rules }: At): Step[] {
  return [
    step('off', 'off', {
      key: 'isolate',
      do: rules.power === 'unplug' ? 'Power off and unplugged.' : 'Power off at the machine.',
      hazard: 'isolate',
      minutes: 0.5,
      byRule: 'D11',
    }),
    step('off', 'off', {
      key: 'nozzleOff',
      ...nozzleWords(plan.from.family?.fit?.nozzleStyle ?? null),
      hazard: 'hot',
      minutes: 0.5,
      makes: ['nozzleOff'],
    }),
    step('off', 'off', {
      key: 'snip',
      do: 'Snip the wire close to the tip, behind its ball.',
      hazard: 'stab',
      minutes: 0.2,
      makes: ['wireSnipped'],
    }),
    step('off', 'off', {
      key: 'tipOff',
      do: 'Tip off. If it does not run freely: stop, do not force it.',
      look: 'A forced tip takes the diffuser with it.',
      minutes: 0.8,
      needs: ['nozzleOff', 'wireSnipped'],
      makes: ['tipOff'],
    }),
  ]
}

const STUCK = 'Stuck: grip and twist, gently. Sits it crooked, look for why.'
/** How the nozzle comes off goes by its style. */
function nozzleWords(style: NozzleStyle | null): { do: string; look: string } {
  if (style === 'push-on') return { do: 'Pull the nozzle off with a twist.', look: STUCK }
  if (style === 'threaded') return { do: 'Unscrew the nozzle.', look: STUCK }
  return { do: 'Nozzle off.', look: 'Push-on or screwed: try a twist before you pull.' }
}

function wireOutSteps({ plan, rules }: At): Step[] {
  const isKept = rules.cable !== 'scrap'
  return [
    step('off', 'off', {
      key: 'wireOut',
      do: isKept
        ? 'Hold the wire at the spool, open the pressure arm, wind the wire back and hook its end in the flange.'
        : 'Hold the wire at the spool, open the pressure arm, clip the wire there and hook the spool’s end in the flange. Pull the rest out of the gun, coil it tight, bin it.',
      look: rules.cable === 'byState' ? 'Kinked or nested wire is not wound back: clip it and bin it.' : null,
      hazard: 'spring',
      minutes: isKept ? 2 : 1.5,
      needs: ['tipOff'],
      makes: ['wireOut'],
      byRule: 'D15',
    }),
    step('off', 'off', {
      key: 'spoolOff',
      do: `Lock ring off, ${plan.from.wire ? `${plan.from.wire.name} ` : 'the old spool '}off the hub. Write on it what is left.`,
      hazard: 'spring',
      minutes: 1,
      needs: ['wireOut'],
      makes: ['spoolOff'],
    }),
  ]
}
