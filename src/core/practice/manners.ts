import { type Check } from '@core/diagnose/knowledge.ts'
import { type FixGroup } from '@core/diagnose/moves.ts'
import { type FaultKey } from './faults.ts'

/** How a thing is done, where doing it wrong has its own consequence: it happens here, so that it need not at the bench. */
export interface Way {
  key: string
  says: string
  /** The fault it leaves behind; null: none. */
  brings: FaultKey | null
  /** What it saves, min: it is tempting. */
  savesMin: number
  /** It does not put right what it was done for. */
  isVain: boolean
  /** What came of it, in words. */
  then: string
}
export interface Manner {
  key: string
  asks: string
  /** The first is how it is done. */
  ways: readonly [right: Way, ...wrong: Way[]]
}
const right = (key: string, says: string): Way => ({
  ...{ key, says, brings: null, savesMin: 0, isVain: false, then: '' },
})
const wrong = (key: string, says: string, of: Pick<Way, 'brings' | 'then'> & Partial<Way>): Way => ({
  ...{ savesMin: 0, isVain: false },
  ...of,
  ...{ key, says },
})

const NOZZLE: Manner = {
  key: 'nozzleOff',
  asks: 'How does the nozzle come off?',
  ways: [
    right('pull', 'Pull it straight off, turning it with the thread of the insulator'),
    wrong('twist', 'Twist it off against that thread', {
      brings: 'insulatorLoose',
      then: 'The insulator came a turn with it: it sits loose over the gas holes now.',
    }),
  ],
}
const MACHINE: Manner = {
  key: 'machineNearer',
  asks: 'The machine stands too far off to lay the cable straight. How does it come nearer?',
  ways: [
    right('handle', 'By its own handle, the gun on its hanger'),
    wrong('gun', 'Pulled by the gun', {
      brings: 'gunOut',
      then: 'The gun came half out of its socket. A cable is no tow rope.',
    }),
  ],
}
const LINER: Manner = {
  key: 'linerHow',
  asks: 'How is the liner put right?',
  ways: [
    right('new', 'A new one, cut and fitted by its steps'),
    wrong('air', 'Shop air through it, where it is', {
      brings: 'linerOil',
      savesMin: 25,
      isVain: true,
      then: 'It drags as before, and oil and water of the air line are in it now: they come out as pinholes.',
    }),
  ],
}
const GUN_DOWN: Manner = {
  key: 'gunDown',
  asks: 'You need both hands at the feeder. Where does the gun go?',
  ways: [
    right('hanger', 'On its hanger, off its trigger'),
    wrong('bench', 'On the bench, as it falls', {
      brings: 'wireEnd',
      then: 'It lay on its trigger: wire ran out, live, and struck on the bench. A ball is on its end; it could have been a hand.',
    }),
  ],
}
const BOTTLE: Manner = {
  key: 'bottleOpen',
  asks: 'How is the valve opened?',
  ways: [
    right('slowly', 'Slowly, standing beside it, never before the gauge'),
    wrong('fast', 'At once, standing before it', {
      brings: null,
      then: 'It held. A regulator that does not throws its glass at whoever stands before it.',
    }),
  ],
}

/** Fixes and looks that can be done wrongly, by the position they act on or their own key. */
export function mannerOfFix({ key }: Pick<FixGroup, 'key'>): Manner | null {
  if (key === 'cleaned nozzle') return NOZZLE
  if (key === 'changed liner') return LINER
  if (key === 'cableCoiled') return MACHINE
  return key === 'cylinderEmpty' ? BOTTLE : null
}
export const mannerOfLook = ({ key }: Pick<Check, 'key'>): Manner | null => (key === 'spoolByHand' ? GUN_DOWN : null)
