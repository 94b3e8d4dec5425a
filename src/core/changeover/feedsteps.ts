import { feedSeconds, mustShutGas, step, swapOf, tight, type At, type Step } from './step.ts'

const FEED_WORDS = {
  slowThenFast: 'Slowly first, then fast, slowly again through the neck',
  fast: 'Full speed',
  steady: 'At the welding speed',
} as const

export function feedSteps({ plan, rules }: At): Step[] {
  const seconds = Math.round(feedSeconds(plan, rules.speed))
  const isTipOn = rules.tipWhileFeeding === 'on'
  const steps = [
    step('on', 'on', {
      key: 'on',
      do: 'Tools and hands clear. Power on.',
      hazard: 'live',
      minutes: 0.3,
      needs: ['threaded', 'armClosed'],
      makes: ['powerOn'],
      byRule: 'D11',
    }),
    step('on', 'on', {
      key: 'feed',
      do: `Cable straight. Feed with ${plan.from.feeder?.hasJog ? 'the jog button' : 'the trigger'}. ${FEED_WORDS[rules.speed]}: it should arrive in about ${seconds} s.`,
      look: `Smooth, no jerks${isTipOn ? '; end rounded, the tip is on' : ', tip off'}. Slower than that is slip or something in the way: stop and look.`,
      hazard: 'stab',
      minutes: 0.5 + seconds / 60,
      needs: isTipOn ? ['powerOn'] : ['powerOn', 'tipOff'],
      makes: ['fed'],
      byRule: isTipOn ? 'D10' : 'D13',
    }),
  ]
  if (rules.tension === 'allFour' || rules.tension === 'wire' || (rules.tension === 'liner' && swapOf(plan, 'liner')))
    steps.push(
      step('on', 'on', {
        key: 'tension',
        do: 'Set the roll tension for this wire, by the shop’s own test. Write the mark down.',
        look: plan.to.wire?.construction.endsWith('cored') ? 'Cored wire crushes: less than for solid.' : null,
        hazard: 'live',
        minutes: 2,
        needs: ['fed'],
        byRule: 'D30',
      }),
    )
  return steps
}

/** Tip and nozzle go on over the fed wire, or before it where the shop feeds with the tip on; then its end is cut afterwards. */
export function frontOnSteps(at: At): Step[] {
  const isTipOn = at.rules.tipWhileFeeding === 'on'
  const [phase, power] = isTipOn ? (['work', 'off'] as const) : (['close', 'either'] as const)
  const first = isTipOn ? ([] as const) : (['fed'] as const)
  return [
    step(phase, power, {
      ...tipWords(at),
      needs: [...first, 'tipOff'],
      undoes: ['tipOff'],
      byRule: isTipOn ? 'D10' : 'D03',
    }),
    step(phase, power, { ...nozzleWords(at), needs: first, undoes: ['nozzleOff'] }),
  ]
}

function tipWords({ plan, rules, minutesOf }: At) {
  const tip = swapOf(plan, 'tip')
  const tipOn = plan.to.parts['tip']
  const name = tip ? `${tip.to?.name} (${tip.to?.code})` : `The tip${tipOn ? ` (${tipOn.code})` : ''}`
  const isTipOn = rules.tipWhileFeeding === 'on'
  return {
    key: tip ? 'swap-tip' : 'tipOn',
    do: `${name} ${isTipOn ? 'on' : 'over the wire'} by hand, ${tight(plan, 'tip', 2)}.`,
    look: isTipOn
      ? 'Its number is the wire’s. It runs freely, or it comes off again; here it is on before wire is fed.'
      : 'Its number is the wire’s. It runs freely, or it comes off again.',
    hazard: isTipOn ? ('stab' as const) : ('live' as const),
    minutes: tip ? minutesOf('tip') : 0.5,
    swap: tip ? 'tip' : null,
  }
}

function nozzleWords({ plan, rules, minutesOf }: At) {
  const nozzle = swapOf(plan, 'nozzle')
  return {
    key: nozzle ? 'swap-nozzle' : 'nozzleOn',
    do: `${nozzle ? `${nozzle.to?.name} (${nozzle.to?.code})` : 'Nozzle'} on.${rules.tipWhileFeeding === 'on' ? '' : ' Snip the wire to length.'}`,
    hazard: 'stab' as const,
    minutes: nozzle ? minutesOf('nozzle') : 0.5,
    swap: nozzle ? 'nozzle' : null,
  }
}

export function closeSteps({ plan, rules, sizeWord }: At): Step[] {
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
      ? [ask('snipEnd', 'Snip the wire to length.', { hazard: 'stab', needs: ['fed'] })]
      : []),
    ask('closeLock', 'Lock ring on?', { byRule: 'D14' }),
    ask('closeBrake', 'Brake back: the spool stops when feeding stops, and is easy to turn?', { untie: 'brakeTight' }),
    ask('closeArm', 'Arm closed, tension set?'),
    ...(mustShutGas(plan, rules) && settings.gas !== 'none'
      ? [ask('closeGas', 'Cylinder open again?', { untie: 'cylinderShut', hazard: 'cylinder', byRule: 'D12' })]
      : []),
    ...(to.settings.polarity ? [ask('closePolarity', `Polarity: ${to.settings.polarity}?`)] : []),
    ...(machine ? [ask('closeMachine', `Machine set: ${machine}?`)] : []),
    ask('closeClamp', 'Work clamp on clean, bare metal?'),
    ask('closeFeed', 'Fed without a jerk?'),
  ]
}
