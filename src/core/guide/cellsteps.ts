import { type CellFit } from '@core/rightparts/facts.ts'
import { hazardsIn, type Hazard } from './cautions.ts'
import { type Step } from './step.ts'

/**
 * The same work at a robot's cell: nobody holds the gun, the cell is locked off and not only the machine, wire is fed from outside the guard, and the
 * spool may sit above a hand's reach. Steps keep their keys, so that minutes and own words go on counting.
 */
type Words = Partial<Pick<Step, 'do' | 'look'>>
const WORDS: Readonly<Record<string, Words>> = {
  isolate: {
    do: 'Robot at its service position. Lock the cell off by its own practice: robot, power source, feeder; stored air let out.',
  },
  powerBack: { do: 'Everybody and every tool out, gate shut; the lock comes off by whoever put it on. Power back on.' },
  on: { do: 'Everybody and every tool out, gate shut. Power on.' },
  offAgain: { do: 'Lock the cell off again before hands go to tip and nozzle.', look: null },
  straight: {
    do: 'Cable off the arm and dead straight on a clean bench, both ends free; where it stays on, the arm posed so that it lies straightest.',
    look: 'Note how it was dressed along the arm: it goes back the same way, no tighter.',
  },
  closing: {
    do: 'From outside: free feed without a jerk, the program once through at slow speed without an arc, then one part: wire seen, short cone, even tone?',
  },
  plugTry: { do: 'From the pendant: does the feeder answer to the jog key, and stop when it is let go?' },
  dressed: { do: 'Dressed for it; nobody in the cell, gate shut.', look: null },
  cable: {
    do: 'Look along the cable on the arm: no tight bend, nothing that rubs, its strain relief holds.',
    look: 'Where the wrist turns most it goes first.',
  },
  gasShut: { do: 'Shut the cylinder: fed without an arc, this feeder lets gas out.' },
  flow: { do: 'Set the flow with gas purged from the feeder or the pendant, no wire fed.' },
  flowThere: { do: 'Gas at the nozzle by the flow meter’s tube, and still when the purge ends?' },
  oldOut: { do: 'Pull the old liner out by hand, from the rear, and lay it straight beside the cable.' },
}
const LOOKS: Readonly<Record<string, string>> = { plugOn: 'Half on, feeder or crash switch stays dead.' }
/** A phrase that speaks of a hand at the gun, as a cell has it. */
const PHRASES: readonly (readonly [RegExp, string])[] = [
  [
    /^Cable straight\. Feed with the [a-z ]+\./,
    'Arm posed so that the cable has no tight bend. Wire fed with the jog key, from outside the guard or by the site’s own teach practice.',
  ],
  [/^Cable straight\. Feed /, 'Arm posed so that the cable has no tight bend. Fed from outside the guard: '],
  [/^Cable straight\. /, 'Arm posed so that the cable has no tight bend. '],
  [/gun at 45° on a wooden block\./, 'against a dry wooden block on a stand, nobody’s hand at the torch.'],
  [
    /work clamp off\. While it feeds, a firm pinch of the wire where it comes out, in a dry glove: it must stop and the rolls slip\./,
    'wire fed against a dry wooden block on a stand: it must stop and the rolls slip; nobody’s hand at the wire.',
  ],
  [
    /A light touch stops it: a little more\. Nothing stops it: less,/,
    'The block stops it at once: a little more. Nothing stops it: less,',
  ],
  [/feed onto dry wood/, 'feed onto a dry wooden block on a stand'],
  [/towards the handle/, 'towards the neck'],
  [/ Pushes the gun back: a little less\./, ' Bends up at the block: a little less.'],
]
const said = (text: string) => PHRASES.reduce((t, [from, to]) => t.replace(from, to), text)

/** A step as it is done at a cell. */
export function atCell(step: Step, cell: CellFit): Step {
  const own = WORDS[step.key] ?? {}
  const doWords = own.do ?? said(step.do)
  const lookWords = own.look !== undefined ? own.look : (LOOKS[step.key] ?? (step.look && said(step.look)))
  const isHigh = step.works.includes('spool') || step.works.includes('hub')
  return {
    ...step,
    do: isHigh && cell.reach === 'tilts down' ? `Tilt the head down and lock it there. ${doWords}` : doWords,
    look: lookWords,
    hazards: hazardsIn(withReach(step.hazards, { isHigh, cell }), true),
    minutes: isHigh && cell.reach === 'by ladder' ? step.minutes + LADDER_MIN : step.minutes,
  }
}
/** Ladder fetched, stood, and somebody to hand it up: a guess. */
const LADDER_MIN = 3

/** A ladder is met where it is needed, and nowhere else. */
function withReach(hazards: readonly Hazard[], { isHigh, cell }: { isHigh: boolean; cell: CellFit }): Hazard[] {
  const without = hazards.filter((h) => h !== 'ladder' || cell.reach === null)
  return isHigh && cell.reach === 'by ladder' ? [...without, 'ladder'] : without
}
