import { POWER_BACK } from '@core/guide/open.ts'
import { feedSteps as fed, offAgainStep, tensionByWeld } from '@core/guide/runsteps.ts'
import { step, type Step } from '@core/guide/step.ts'
import { tightWords } from '@core/guide/tight.ts'
import { mustShutGas } from '@core/guide/feed.ts'
import { isMissing, isSlackened, isUntold, swapOf, type At } from './step.ts'

/** The gun as it will stand is fed as any other. */
export const feedSteps = (at: At): Step[] => fed(fedAt(at), slackened(at))
const fedAt = ({ plan, rules, roughWord }: At) => ({ setup: plan.to, rules, roughWord })
const slackened = ({ plan, mark }: At) => ({
  isNewLiner: swapOf(plan, 'liner') !== undefined,
  isSlack: isSlackened({ plan, mark }),
})

/** Tip and nozzle go on over the fed wire, or before it where the shop feeds with the tip on; then its end is cut afterwards. */
export function frontOnSteps(at: At): Step[] {
  const isTipOn = at.rules.tipWhileFeeding === 'on'
  const phase = isTipOn ? 'work' : 'close'
  const first = isTipOn ? ([] as const) : (['fed'] as const)
  return [
    ...(isTipOn ? [] : [offAgainStep]),
    step(phase, 'off', {
      ...tipWords(at),
      needs: [...first, 'tipOff'],
      undoes: ['tipOff'],
      byRule: isTipOn ? 'D10' : 'D03',
    }),
    step(phase, 'off', { ...nozzleWords(at), needs: first, undoes: ['nozzleOff'] }),
    ...(isTipOn ? [] : [POWER_BACK]),
  ]
}

function tipWords({ plan, rules, minutesOf, sizeWord }: At) {
  const tip = swapOf(plan, 'tip')
  const tipOn = plan.to.parts['tip']
  // What the shop has none of is never told to be fitted in its place.
  const name = isMissing(plan, 'tip')
    ? `A tip for ${plan.to.wire?.name ?? 'this wire'}, bought first: none is here,`
    : tip
      ? `${tip.to?.name} (${tip.to?.code})`
      : isUntold(plan, 'tip')
        ? `A tip marked ${plan.to.wire ? sizeWord(plan.to.wire.diameterMm) : 'as the wire'}: the one that was on nobody has noted,`
        : `The tip${tipOn ? ` (${tipOn.code})` : ''}`
  const isTipOn = rules.tipWhileFeeding === 'on'
  return {
    key: tip ? 'swap-tip' : 'tipOn',
    do: `${name} ${isTipOn ? 'on' : 'over the wire'} by hand, ${tightWords('tip', plan.to.family?.fit ?? null, rules)}.`,
    look: isTipOn
      ? 'Its number is the wire’s. It runs freely, or it comes off again; here it is on before wire is fed.'
      : 'Its number is the wire’s. It runs freely, or it comes off again.',
    hazards: ['stab', 'trigger'] as const,
    works: ['tip'],
    drawing: 'threadStart' as const,
    minutes: tip ? minutesOf('tip') : 0.5,
    swap: tip ? ('tip' as const) : null,
  }
}

function nozzleWords({ plan, rules, minutesOf }: At) {
  const nozzle = swapOf(plan, 'nozzle')
  return {
    key: nozzle ? 'swap-nozzle' : 'nozzleOn',
    do: `${isMissing(plan, 'nozzle') ? 'A nozzle that fits, bought first: none is here,' : nozzle ? `${nozzle.to?.name} (${nozzle.to?.code})` : 'Nozzle'} on.${rules.tipWhileFeeding === 'on' ? '' : ' Snip the wire to length.'}`,
    hazards: ['stab', 'trigger'] as const,
    works: ['nozzle'],
    drawing: 'wireCentred' as const,
    minutes: nozzle ? minutesOf('nozzle') : 0.5,
    swap: nozzle ? ('nozzle' as const) : null,
  }
}

export function closeSteps(at: At): Step[] {
  const { plan, rules, sizeWord } = at
  const { settings, to } = plan
  const machine = [
    settings.machineWire && `wire ${sizeWord(Number(settings.machineWire))}`,
    settings.machineMode,
    settings.machineMaterial,
  ]
    .filter(Boolean)
    .join(', ')
  const ask = (key: string, what: string, more: Partial<Step> = {}) =>
    step('close', 'either', { key, do: what, minutes: 0.2, ...more })
  return [
    ...(rules.tipWhileFeeding === 'on'
      ? [ask('snipEnd', 'Snip the wire to length.', { hazards: ['stab'], works: ['wire'], needs: ['fed'] })]
      : []),
    ask('closeLock', 'Lock ring on?', { hazards: ['spring'], works: ['spool'], byRule: 'D14' }),
    ask('closeBrake', 'Brake back: the spool stops when feeding stops, and is easy to turn?', { untie: 'brakeTight' }),
    ask('closeArm', rules.tensionBy === 'ear' ? 'Arm closed?' : 'Arm closed, tension set?'),
    ...(mustShutGas(plan.from.feeder, rules) && settings.gas !== 'none'
      ? [
          ask('closeGas', 'Cylinder open again?', {
            untie: 'cylinderShut',
            hazards: ['cylinder'],
            works: ['cylinder'],
            byRule: 'D12',
          }),
        ]
      : []),
    ...(to.settings.polarity ? [ask('closePolarity', `Polarity: ${to.settings.polarity}?`)] : []),
    ...(machine ? [ask('closeMachine', `Machine set: ${machine}?`)] : []),
    ask('closeClamp', 'Work clamp on clean, bare metal?', { drawing: 'clamp' }),
    ...tensionByWeld(fedAt(at), slackened(at)),
    ask('closeFeed', 'Fed without a jerk?', { settles: 'freeFeed' }),
  ]
}
