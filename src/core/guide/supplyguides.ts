import { hasOn, type GuideAt } from './guideat.ts'
import { machineWords } from './runsteps.ts'
import { step, type Step } from './step.ts'

/** Where nobody has said better: a starting point for a hand gun (P081), l/min. A guess. */
export const START_FLOW_L_PER_MIN = 14

const FIT_UP: readonly Step[] = [
  step('off', 'either', {
    key: 'chain',
    do: 'Chain the cylinder upright. Only then its cap comes off.',
    hazards: ['cylinder'],
    minutes: 2,
    works: ['cylinder'],
    drawing: 'flowmeter',
  }),
  step('work', 'either', {
    key: 'crack',
    do: 'Open the valve a crack and shut it: dust out of its mouth.',
    look: 'Stand aside, nobody in front of it.',
    hazards: ['cylinder'],
    minutes: 0.3,
    works: ['cylinder'],
  }),
  step('work', 'either', {
    key: 'meter',
    do: 'Flowmeter on, its tube upright, tight by spanner. No thread tape here.',
    look: 'Leaning, it reads wrong.',
    hazards: ['cylinder'],
    minutes: 1.5,
    works: ['gas'],
    drawing: 'flowmeter',
  }),
  step('work', 'either', {
    key: 'hose',
    do: 'Hose to the flowmeter and to the feeder’s gas inlet, tight by spanner, no tape.',
    hazards: ['cylinder'],
    minutes: 1.5,
    works: ['gas'],
  }),
  step('work', 'either', {
    key: 'open',
    do: 'Open the valve slowly, standing aside. Leak spray on both joints.',
    look: 'Bubbles: shut it, tighten, try again.',
    hazards: ['cylinder'],
    minutes: 1,
    works: ['cylinder'],
  }),
]

/** Cylinder, meter, hose in the order they go together; then the flow, live (P080, P081). */
export function cylinderSteps(at: GuideAt): Step[] {
  const purge = at.setup.feeder?.hasPurge === true
  return [
    ...FIT_UP,
    step('on', 'on', {
      key: 'flow',
      do: purge
        ? 'Set the flow with the purge button held.'
        : 'Set the flow live: pressure arm open so that no wire comes, trigger held.',
      look: `About ${START_FLOW_L_PER_MIN} l/min to begin with; the procedure and the nozzle say better. ${purge ? '' : 'Arm closed again, same mark.'}`,
      hazards: ['live', 'trigger'],
      minutes: 1,
      works: ['gas'],
    }),
    step('close', 'either', {
      key: 'flowThere',
      do: 'Gas felt at the nozzle, and still when the trigger is let go?',
      hazards: ['hot', 'trigger'],
      minutes: 0.3,
      works: hasOn(at, 'nozzle') ? ['nozzle'] : [],
    }),
  ]
}

const BEFORE_POWER: readonly Step[] = [
  step('off', 'off', {
    key: 'dressed',
    do: 'Dressed for it, gun hung on its hook, nothing on the trigger.',
    look: 'A trigger held while it starts opens a menu on some machines: switch off and on again, change nothing.',
    hazards: ['clothing', 'trigger'],
    minutes: 0.5,
    works: ['machine'],
  }),
  step('off', 'off', {
    key: 'cable',
    do: 'Uncoil the whole cable. No loop, no bend at the machine.',
    look: 'Every lazy coil loads the wire and wears the liner. Move the machine by its handle, never by the gun: dragged, the pin walks out and gas leaks there.',
    hazards: ['trigger'],
    minutes: 0.5,
    works: ['wire'],
    drawing: 'cableLies',
  }),
  step('off', 'off', {
    key: 'clamp',
    do: 'Work clamp on clean, bare metal.',
    look: 'Bright where the arc goes: a stainless brush, kept for this metal alone. Marked with soapstone, or scribed.',
    hazards: ['stab'],
    minutes: 0.3,
    drawing: 'clamp',
  }),
]

const firstFeed = step('on', 'on', {
  key: 'firstFeed',
  do: 'Snip the old end. Feed a hand’s breadth: smooth, and the spool stops with it?',
  hazards: ['trigger', 'stab'],
  minutes: 0.3,
  works: ['wire'],
  drawing: 'wireEnd',
})

/** Start of the day at a machine (P089 to P091, P121). */
export function machineSteps(at: GuideAt): Step[] {
  const settings = machineWords(at)
  const gas = at.setup.gas
  return [
    ...BEFORE_POWER,
    ...(gas === 'none'
      ? []
      : [
          step('off', 'off', {
            key: 'gasOpen',
            do: 'Cylinder open, flow as it was left.',
            look: 'Another flow than yesterday: somebody set it, or it runs empty.',
            hazards: ['cylinder'],
            minutes: 0.3,
            works: ['cylinder'],
          }),
        ]),
    step('on', 'on', {
      key: 'switch',
      do: 'Plugged in. Main switch on, often at the back: the fan is heard, a light comes.',
      hazards: ['live'],
      minutes: 0.3,
      works: ['machine'],
    }),
    ...(settings
      ? [
          step('on', 'on', {
            key: 'set',
            do: `Set for this gun: ${settings}?`,
            minutes: 0.3,
            hazards: ['trigger'],
            works: ['machine'],
          }),
        ]
      : []),
    firstFeed,
  ]
}
