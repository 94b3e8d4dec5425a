import { type GuideAt } from './guideat.ts'
import { isolateStep, POWER_BACK } from './open.ts'
import { step, type Step } from './step.ts'

/** How deep a nozzle goes into the dip where its family does not say: three quarters of an inch to an inch by design (P096). */
const DIP_MM = [19, 25] as const

const clean = step('off', 'either', {
  key: 'cleanFirst',
  do: 'Only on a clean nozzle: cleaned first, by its own guide.',
  look: 'It keeps spatter from sticking; it does not take off what sticks, and the arc bakes that on.',
  hazards: ['hot', 'trigger'],
  minutes: 0.2,
  byRule: 'D17',
})

function dip(at: GuideAt): Step[] {
  const depth = DIP_MM.map((mm) => at.ruleWord(mm)).join(' to ')
  return [
    step('on', 'on', {
      key: 'weldHot',
      do: 'Weld a short bead, so that the nozzle is hot.',
      look: 'Dipped cold it takes a lump, which runs into the puddle as pores.',
      hazards: ['hot', 'trigger', 'clothing', 'arc'],
      minutes: 0.5,
    }),
    step('on', 'on', {
      key: 'dip',
      do: `Hang the cable free and dip the nozzle to its shoulder, ${depth}, no deeper; out again at once.`,
      look: 'Fumes come off it: head aside, air moving.',
      hazards: ['hot', 'trigger'],
      minutes: 0.2,
    }),
    step('on', 'on', {
      key: 'blowOut',
      do: 'Point it down and blow the rest out: a burst of gas, no wire.',
      look: 'Gas ways open, nothing drips. Too much left on shuts the holes of the diffuser.',
      hazards: ['hot', 'trigger', 'air'],
      minutes: 0.2,
    }),
  ]
}

/** Fingers at the nozzle's rim and the wire: power off for it. */
const gel = (at: GuideAt): Step[] => [
  isolateStep(at),
  step('work', 'off', {
    key: 'dab',
    do: 'A dab inside the nozzle’s rim and on the tip’s side, wiped thin.',
    look: 'None on the tip’s face or in its bore, none on the wire.',
    hazards: ['hot', 'stab', 'trigger'],
    minutes: 0.3,
    works: ['nozzle'],
  }),
  POWER_BACK,
]
const spray = step('work', 'either', {
  key: 'spray',
  do: 'Half a second of spray up into the clean nozzle, from its own sealed sprayer.',
  look: 'Wet, not dripping. The sprayer’s own lid and pressure by its maker’s manual.',
  hazards: ['hot', 'trigger', 'air'],
  minutes: 0.3,
})
const TRY = step('close', 'either', {
  key: 'tryIt',
  do: 'A bead beside the work: no pores, gas heard, the arc stays.',
  look: 'Pores now and none before: too much of it. Wipe it out.',
  hazards: ['hot', 'trigger', 'clothing', 'arc'],
  minutes: 0.5,
})

/**
 * Anti-spatter by what is in use here, else by the shop's school: a hot dip, a dab of gel, a robot's sealed spray (P096, D17). None where
 * the shop uses none, or goes by cell and nobody told of one here.
 */
export function antiSpatterSteps(at: GuideAt): Step[] {
  const agent = agentAt(at)
  if (agent === 'none') return []
  const work = agent === 'gel' ? gel(at) : agent === 'spray' ? [spray] : dip(at)
  return [clean, ...work, TRY]
}

export function agentAt(at: GuideAt): 'none' | 'dip' | 'gel' | 'spray' {
  if (at.rules.antiSpatter === 'none') return 'none'
  const said = at.setup.settings.antiSpatter
  if (said === 'dip' || said === 'gel' || said === 'spray' || said === 'none') return said
  return at.rules.antiSpatter === 'dip' ? 'dip' : 'none'
}
