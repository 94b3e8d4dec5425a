import { closeSteps } from './close.ts'
import { machineWords } from './runsteps.ts'
import { openAt, type GuideAt } from './guideat.ts'
import { isolateStep, openSteps } from './open.ts'
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
    spoolOnStep(at),
    ...closeSteps(at, [...opened, restOutStep], { newKind: null }),
    lockLast,
    brakeBack,
    ...machine,
  ]
}
