import { type KindKey } from '@core/path/columns.ts'
import { tipOutFor } from '@core/rightparts/facts.ts'
import { type DrawingKey } from '@core/drawings/drawing.ts'
import { fitOf, partWords, tight, type GuideAt } from './guideat.ts'
import { screwRule, setScrew, type Openable } from './open.ts'
import { isTube } from './linerguide.ts'
import { endSteps, feedSteps, gasShutStep, isGasShut, offAgainStep } from './runsteps.ts'
import { step, type Condition, type Step } from './step.ts'

/** What goes back on, and as which kind where it is the one the guide is about. */
interface Closing {
  at: GuideAt
  /** Kind that is new; the others go back as they came off. */
  newKind: string | null
}
const part = ({ at, newKind }: Closing, kindKey: KindKey, word: string) =>
  newKind === kindKey ? partWords(at, kindKey, `New ${word}`) : `${word.charAt(0).toUpperCase()}${word.slice(1)}`
const swapOf = ({ newKind }: Closing, kindKey: KindKey) => (newKind === kindKey ? kindKey : null)

export const armClosedStep: Step = step('work', 'off', {
  key: 'armClosed',
  do: 'Pressure arm closed, knob at the mark it had.',
  look: 'The wire lies in the groove of every roll.',
  hazards: ['spring'],
  minutes: 0.3,
  works: ['arm'],
  undoes: ['armOpen'],
  makes: ['armClosed'],
  drawing: 'groove',
})

const CLOSERS: Partial<Record<Openable, (c: Closing) => Step>> = {
  nutOff: ({ at }) => {
    const joint = tight(at, 'linerNut')
    return step('work', 'off', {
      key: 'nutOn',
      ...lockWords(at, joint.words),
      hazards: ['stab'],
      minutes: 1,
      works: ['linerNut'],
      undoes: ['nutOff'],
      joint,
      byRule: 'D03',
    })
  },
  diffuserOff: (c) => {
    const joint = tight(c.at, 'diffuser')
    return step('work', 'off', {
      key: 'diffuserOn',
      do: `${part(c, 'diffuser', 'diffuser')} on by hand first, then ${joint.words}.`,
      look: 'Starts crooked or catches: off again. Slack, it turns with the next tip; with a long bar it never comes off.',
      hazards: ['stab'],
      minutes: 1.5,
      works: ['diffuser'],
      undoes: ['diffuserOff'],
      joint,
      drawing: 'threadStart',
      swap: swapOf(c, 'diffuser'),
      byRule: 'D03',
    })
  },
  screwOut: ({ at }) =>
    step('work', 'off', {
      key: 'screwIn',
      do: `${setScrew({ fit: fitOf(at), rules: at.rules }) === 'look' ? 'If there was a set screw: in' : 'Set screw in'} from the tray, down on the liner and no further.`,
      look: 'Screwed hard it dents the coil, and the wire drags there.',
      hazards: ['stab'],
      minutes: 0.8,
      works: ['setScrew'],
      undoes: ['screwOut'],
      byRule: screwRule({ fit: fitOf(at) }),
    }),
  clampOff: (c) => {
    const joint = tight(c.at, 'clampring')
    return step('work', 'off', {
      key: 'clampOn',
      do: `Clamp ring on, ${joint.words}.`,
      hazards: ['stab'],
      minutes: 0.5,
      works: ['clampring'],
      undoes: ['clampOff'],
      joint,
      byRule: 'D03',
    })
  },
  gunOut: (c) => {
    const joint = tight(c.at, 'gunLock')
    return step('work', 'off', {
      key: 'gunIn',
      do: `${c.newKind === 'gun' ? 'The ready gun' : 'The gun'} in, its control wires through the panel first: push and wiggle until its collar is flush with the block. Then the lock, ${joint.words}.`,
      look: 'The O-rings make it feel home before it is. Half out, it leaks gas and nests wire.',
      hazards: ['isolate'],
      minutes: 1,
      works: ['pin'],
      undoes: ['gunOut', 'straight'],
      joint,
      drawing: 'pinHome',
      byRule: 'D03',
    })
  },
  plugOff: ({ at }) => plugStep(at),
  wireOut: ({ at }) => threadStep(at),
  armOpen: () => armClosedStep,
  insulatorOff: (c) => {
    const joint = tight(c.at, 'insulator')
    return step('work', 'off', {
      key: 'insulatorOn',
      do: `${part(c, 'insulator', 'insulator')} on, gasket towards the handle: started by hand, ${joint.words}.`,
      look: 'It goes on one way only. Loose, it creeps over the gas holes.',
      hazards: ['hot'],
      minutes: 0.8,
      works: ['insulator'],
      undoes: ['insulatorOff'],
      joint,
      drawing: 'insulatorWay',
      swap: swapOf(c, 'insulator'),
      byRule: 'D03',
    })
  },
  tipOff: (c) => tipOnStep(c),
  nozzleOff: (c) => nozzleOnStep(c),
}

/** A coil’s nut is screwed; a tube is held by sleeve and ring, pushed while it is kept home (P035, P036). */
function lockWords(at: GuideAt, words: string): { do: string; look: string } {
  if (isTube(at) || fitOf(at)?.linerHeldBy === 'collet')
    return {
      do: 'Push the liner on until its front stops at the neck. Keep that push: brass sleeve down over it, then its O-ring.',
      look: 'Seating the gun in the feeder squeezes it tight: the sleeve needs no tool.',
    }
  return {
    do: `Liner nut on: by hand first, then ${words}. Gland, clip and guide back from the tray.`,
    look: 'The O-ring of the nut is whole and not pinched.',
  }
}

export function plugStep(at: GuideAt): Step {
  const plug = fitOf(at)?.plug ?? null
  return step('work', 'off', {
    key: 'plugOn',
    do:
      plug === 'keyed'
        ? 'Control plug: key to its slot, push home, ring round to its stop.'
        : plug === 'tabs'
          ? 'Both control tabs on, either way round, to the click.'
          : 'Control plug on, to its stop or click.',
    look: 'Half on, the trigger does nothing.',
    hazards: ['trigger'],
    minutes: 0.4,
    works: ['plug'],
    undoes: ['plugOff'],
    drawing: plug === 'tabs' ? 'plugTabs' : plug === 'keyed' ? 'plugKeyed' : null,
  })
}

export const pathDrawing = (at: GuideAt): DrawingKey | null => {
  const feeder = at.setup.feeder
  if (!feeder?.unwind) return null
  const four = feeder.rollCount === 4
  if (feeder.unwind === 'over the top') return four ? 'pathOver4' : 'pathOver2'
  return four ? 'pathUnder4' : 'pathUnder2'
}

/** Threading by hand (P056), the end kept under control. */
export const threadStep = (at: GuideAt): Step =>
  step('work', 'off', {
    key: 'thread',
    do: 'Hold the end, cut it square and straight. By hand through inlet, groove and outlet, a hand’s breadth into the liner.',
    look: 'It pushes in without a catch. The end is not let go until the arm holds it.',
    hazards: ['spring', 'stab'],
    minutes: 1.5,
    works: ['wire'],
    undoes: ['wireOut', 'wireSnipped'],
    makes: ['threaded'],
    drawing: pathDrawing(at) ?? 'wireEnd',
  })

function tipOnStep(c: Closing): Step {
  const { at } = c
  const joint = tight(at, 'tip')
  const isBefore = at.rules.tipWhileFeeding === 'on'
  return step('close', 'either', {
    key: 'tipOn',
    do: `${part(c, 'tip', 'tip')} on over the wire, by hand, then ${joint.words}.`,
    look: `${at.setup.wire ? `Its number is ${at.sizeWord(at.setup.wire.diameterMm)}. ` : ''}It runs freely, or it comes off again: a tip forced in askew takes the diffuser with it.`,
    hazards: ['stab'],
    minutes: c.newKind === 'tip' ? at.minutesOf('tip') : 0.5,
    works: ['tip'],
    undoes: ['tipOff'],
    joint,
    drawing: 'threadStart',
    swap: swapOf(c, 'tip'),
    byRule: isBefore ? 'D10' : 'D03',
  })
}

function nozzleOnStep(c: Closing): Step {
  const { at } = c
  const style = fitOf(at)?.nozzleStyle ?? null
  const motion =
    style === 'push-on'
      ? 'pushed on with a clockwise twist; the other way unscrews the insulator'
      : style === 'threaded'
        ? 'screwed on by hand'
        : 'on'
  return step('close', 'either', {
    key: 'nozzleOn',
    do: `${part(c, 'nozzle', 'nozzle')} ${motion}. Palm flat, wire end away: then snip the wire${stickOutWords(at)}.`,
    look: tipPlaceWords(at),
    hazards: ['stab'],
    minutes: c.newKind === 'nozzle' ? at.minutesOf('nozzle') : 0.5,
    works: ['nozzle'],
    undoes: ['nozzleOff', 'wireSnipped'],
    drawing: tipPlaceDrawing(at),
    swap: swapOf(c, 'nozzle'),
    byRule: 'D09',
  })
}

/** How long the end stands: the same each time, with the plier’s notch against the nozzle (P097). */
function stickOutWords(at: GuideAt): string {
  const span = at.setup.procedure?.stickOutMm
  return span ? ` ${at.spanWord(span)} out of the tip, the plier’s notch against the nozzle` : ' to length'
}

function tipPlaceDrawing(at: GuideAt): DrawingKey {
  const span = tipOutFor(at.setup)
  return span && span[1] <= 0 ? 'tipBack' : span ? 'tipLevel' : 'nozzleOpening'
}
/** Where the tip should stand, in a ruler’s words. */
function tipPlaceWords(at: GuideAt): string | null {
  const span = tipOutFor(at.setup)
  if (!span) return null
  const [from, to] = span
  const mm = (n: number) => at.ruleWord(Math.abs(n))
  if (to <= 0 && from < 0) return `The tip stands ${mm(to)} to ${mm(from)} back in the nozzle.`
  if (from >= 0) return `The tip stands level to ${mm(to)} out of the nozzle.`
  return `The tip stands level with the nozzle, within ${mm(to)}.`
}

const ORDER: readonly Openable[] = [
  'nutOff',
  'diffuserOff',
  'screwOut',
  'clampOff',
  'gunOut',
  'plugOff',
  'wireOut',
  'armOpen',
]
const FRONT: readonly Openable[] = ['insulatorOff', 'tipOff', 'nozzleOff']

/**
 * What was opened, closed again, innermost first. Wire that came out is fed before the tip goes on, or after it where the shop
 * feeds with the tip on (D10); a tip that seats the liner goes on once for that, and comes off again to feed.
 */
export function closeSteps(
  at: GuideAt,
  opened: readonly Step[],
  how: { newKind: string | null; middle?: readonly Step[]; seated?: readonly Step[] },
): Step[] {
  const { newKind, middle = [], seated = [] } = how
  const open = new Set(opened.flatMap((s) => s.makes))
  const c = { at, newKind }
  const of = (list: readonly Openable[]) => list.flatMap((k) => (open.has(k) ? (CLOSERS[k]?.(c) ?? []) : []))
  const front = of(FRONT)
  const isFed = open.has('wireOut')
  const isTipOn = at.rules.tipWhileFeeding === 'on'
  // Where nothing is fed the power stays off till the last part is on; fed with the tip on, they go on before it comes on.
  const isFrontCold = !isFed || isTipOn
  const closing = isFrontCold ? front.map((s) => ({ ...s, phase: 'work' as const, power: 'off' as const })) : front
  const early = isFed && isTipOn ? closing : []
  const late = isFed && isTipOn ? [] : closing
  return [
    ...shutSteps(c, open, { middle, seated }),
    ...of(ORDER.slice(6)),
    ...early,
    ...(isFed && isGasShut(at) ? [gasShutStep] : []),
    ...(isFed ? feedSteps(at, { isNewLiner: open.has('nutOff') }) : []),
    ...(late.length > 0 && isFed ? [offAgainStep] : []),
    ...(isFed ? late.map(cold) : late),
    ...endSteps(at, { isFed, isTipOn, isNewLiner: open.has('nutOff') }),
  ]
}

/** A liner job shut again as far as the wire, which stays out: nut, front, gun and plug. */
export const linerShutSteps = (
  at: GuideAt,
  opened: readonly Step[],
  how: { middle: readonly Step[]; seated: readonly Step[] },
): Step[] => shutSteps({ at, newKind: 'liner' }, new Set(opened.flatMap((s) => s.makes)), how)

function shutSteps(
  c: Closing,
  open: ReadonlySet<Condition>,
  { middle, seated }: { middle: readonly Step[]; seated: readonly Step[] },
): Step[] {
  const of = (list: readonly Openable[]) => list.flatMap((k) => (open.has(k) ? (CLOSERS[k]?.(c) ?? []) : []))
  return [
    ...of(ORDER.slice(0, 1)),
    ...middle,
    ...of(ORDER.slice(1, 4)),
    ...(open.has('nutOff') ? seatSteps(c.at) : []),
    ...of(ORDER.slice(4, 6)),
    ...seated,
  ]
}

/** After a live feed the front goes on with the power off again. */
const cold = (s: Step): Step => ({ ...s, power: 'off', hazards: [...new Set([...s.hazards, 'trigger' as const])] })

/** In families whose tip presses the liner home: once on, and off again where wire is fed with the tip off. */
function seatSteps(at: GuideAt): Step[] {
  if (!fitOf(at)?.doesTipSeatLiner || at.rules.tipWhileFeeding === 'on') return []
  const joint = tight(at, 'tip')
  return [
    step('work', 'off', {
      key: 'seatTip',
      do: `Tip on, ${joint.words}: here it presses the liner home. Then off again, to feed the wire.`,
      look: 'It goes down to its shoulder. If not, the liner is too long: measure again before you cut.',
      hazards: ['stab'],
      minutes: 0.8,
      works: ['tip'],
      joint,
      drawing: 'standOutB',
      byRule: 'D10',
    }),
  ]
}
