import { isSoft } from '@core/rightparts/facts.ts'
import { armClosedStep, closeSteps, pathDrawing } from './close.ts'
import { endSteps, feedSteps, gasShutStep, isGasShut, machineWords, offAgainStep } from './runsteps.ts'
import { openAt, type GuideAt } from './guideat.ts'
import { isolateStep, OPENERS, openSteps } from './open.ts'
import { step, type Step } from './step.ts'

/** What is left of the old wire, out from the feeder's end. */
const restOutStep = step('off', 'off', {
  key: 'restOut',
  do: 'What is left of the old wire out of the gun, from the feeder’s end; coil it tight and bin it. The empty spool off.',
  look: 'Still wire on the spool: hook its end in the flange before you let go.',
  hazards: ['spring'],
  minutes: 1.5,
  works: ['wire', 'spool'],
  needs: ['tipOff', 'armOpen'],
  makes: ['wireOut', 'spoolOff'],
  byRule: 'D15',
})

function spoolOnStep({ setup, rules }: GuideAt): Step {
  const unwind = setup.feeder?.unwind ?? null
  return step('work', 'off', {
    key: 'spoolOn',
    do: `${setup.wire ? `Spool of ${setup.wire.name}` : 'The new spool'} on the hub: its pin in the spool’s hole${unwind ? `, wire leaving ${unwind}` : ''}. Keep the end hooked.${rules.lock === 'first' ? ' Lock ring on now.' : ''} Brake snug for threading.`,
    look: unwind ? 'The other way round it bends into the inlet.' : 'Whichever way runs straightest into the inlet.',
    hazards: ['spring', 'ladder'],
    minutes: 1.5,
    works: ['spool'],
    needs: ['spoolOff'],
    makes: ['spoolOn'],
    undoes: ['spoolOff'],
    drawing: unwind === 'over the top' ? 'spoolOver' : unwind ? 'spoolUnder' : null,
    tie: 'brakeTight',
    byRule: rules.lock === 'first' ? 'D14' : 'D04',
  })
}

const lockLast = step('close', 'either', {
  key: 'lockLast',
  do: 'Lock ring on?',
  minutes: 0.2,
  hazards: ['spring'],
  works: ['spool'],
  byRule: 'D14',
})
const brakeBack = step('close', 'either', {
  key: 'closeBrake',
  do: 'Brake back: the spool stops when feeding stops, and is easy to turn?',
  minutes: 0.2,
  hazards: ['spring'],
  works: ['hub'],
  untie: 'brakeTight',
})

const isFromDrum = ({ setup }: GuideAt) => setup.cell?.payoff === 'drum'
const hasConduit = ({ setup }: GuideAt) => (setup.cell?.conduit?.length ?? 0) > 0

const drumOnStep = ({ setup }: GuideAt): Step =>
  step('work', 'off', {
    key: 'spoolOn',
    do: `${setup.wire ? `Drum of ${setup.wire.name}` : 'The new drum'} in its place, level; its ring on the wire, hood on, the end out through the hood’s eye.`,
    look: 'A drum does not turn: the wire lifts off turn by turn, and the ring holds the others down. Lifted with a crane or truck, never by hand.',
    hazards: ['spring', 'stab'],
    minutes: 4,
    works: ['spool'],
    needs: ['spoolOff'],
    makes: ['spoolOn'],
    undoes: ['spoolOff'],
  })

/** A bare end catches at every joint: capped, blown gently along, the cap cut off at the feeder. */
const CONDUIT_STEPS: readonly Step[] = [
  step('work', 'off', {
    key: 'capOn',
    do: 'Crimp a small round cap on the wire’s end, so that nothing of it can catch at a joint.',
    look: 'Smooth all round, no burr, and thinner than the conduit’s bore.',
    hazards: ['stab'],
    minutes: 1,
    works: ['wire'],
    needs: ['spoolOn'],
  }),
  step('work', 'off', {
    key: 'blowThrough',
    do: 'The cap into the conduit at its beginning. Ease dry air on behind it, a little at a time, wire led in by hand, until the cap stands at the feeder.',
    look: 'It stays somewhere: air off first, then look at that joint. Never full air: the end comes out like a whip.',
    hazards: ['air', 'stab', 'spring'],
    minutes: 3,
    works: ['wire', 'gas'],
    needs: ['spoolOn'],
  }),
  step('work', 'off', {
    key: 'capOff',
    do: 'Air off. Hold the wire at the feeder and cut the cap off.',
    look: 'The cap goes into the bin, and not into the feeder.',
    hazards: ['stab'],
    minutes: 0.5,
    works: ['wire'],
    needs: ['spoolOn'],
  }),
]

/** The spool ran out, or another goes on: what is left in the gun comes out first. */
export function wireGuide(at: GuideAt): Step[] {
  const opened = openSteps(openAt(at), ['tipOff', 'armOpen'])
  const settings = machineWords(at)
  const machine = settings
    ? [step('close', 'either', { key: 'closeMachine', do: `Machine set: ${settings}?`, minutes: 0.2 })]
    : []
  return [
    isolateStep(at),
    ...opened,
    restOutStep,
    isFromDrum(at) ? drumOnStep(at) : spoolOnStep(at),
    ...(hasConduit(at) ? CONDUIT_STEPS : []),
    ...closeSteps(at, [...opened, restOutStep], { newKind: null }),
    ...(isFromDrum(at) ? [] : [lockLast, brakeBack]),
    ...machine,
  ]
}

const tailCutStep = step('off', 'off', {
  key: 'tailCut',
  do: 'Snip the old wire square where it goes into the inlet, and push its tail a finger’s breadth in. The empty spool off.',
  look: 'Kinked, or loops behind the rolls: that is not the short way. Load it as new.',
  hazards: ['spring', 'stab'],
  minutes: 0.7,
  works: ['wire', 'spool'],
  needs: ['armOpen'],
  makes: ['wireOut', 'spoolOff'],
})
const behindStep = (at: GuideAt): Step =>
  step('work', 'off', {
    key: 'behind',
    do: 'Hold the new end, cut it square, file its edge round. Into the inlet with it until it meets the tail.',
    look: 'End to end in the guide, no gap: the rolls drive the tail first, then the new wire pushes it. It is not let go until the arm holds it.',
    hazards: ['spring', 'stab'],
    minutes: 0.8,
    works: ['wire'],
    needs: ['spoolOn'],
    undoes: ['wireOut'],
    makes: ['threaded'],
    drawing: pathDrawing(at) ?? 'wireEnd',
  })
const tailOutStep = step('close', 'off', {
  key: 'tailOut',
  do: 'Draw the tail out at the front, then snip the new wire to length.',
  look: 'It does not come by itself: nozzle and tip off, and feed the rest as new wire.',
  hazards: ['stab', 'trigger'],
  minutes: 0.5,
  works: ['wire'],
  needs: ['fed'],
})
const ledThrough = (s: Step): Step =>
  s.key !== 'feed'
    ? s
    : {
        ...s,
        do: 'Cable straight. Feed slowly, all the way: the tail comes out at the tip, the new end behind it.',
        look: 'It catches: stop at once. That is the new end at the tip: power off, nozzle and tip off, then on.',
        byRule: null,
      }

/** Soft wire buckles at the joint. */
export const canFollowTail = ({ setup }: Pick<GuideAt, 'setup'>) => setup.wire !== null && !isSoft(setup.wire)

/**
 * The same wire again while its tail still stands in the gun: the tail leads the new end through neck and tip, which stay on. Soft wire, a kink or
 * another wire go the long way.
 */
export function tailGuide(at: GuideAt): Step[] {
  const isLed = { ...at, rules: { ...at.rules, tipWhileFeeding: 'on' as const } }
  return [
    isolateStep(at),
    OPENERS.armOpen(),
    tailCutStep,
    spoolOnStep(at),
    behindStep(at),
    armClosedStep,
    ...(isGasShut(at) ? [gasShutStep] : []),
    ...feedSteps(isLed, { isNewLiner: false }).map(ledThrough),
    offAgainStep,
    tailOutStep,
    ...endSteps(at, { isFed: true, isTipOn: false, isNewLiner: false }),
    lockLast,
    brakeBack,
  ]
}
