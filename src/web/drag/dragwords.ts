import { type AtKnob, type Culprit, type Explained, type Reopening } from '@core/drag/explain.ts'
import { type Source } from '@core/drag/ofgun.ts'
import { type pushPullWindows } from '@core/drag/pushpull.ts'
import { type RemedyKey } from '@core/drag/remedy.ts'
import { type DragSetup, type Param } from '@core/drag/setup.ts'
import { type Spread } from '@core/drag/sweep.ts'
import { force, minutes, twoFigures, type Units } from '@web/format/numbers.ts'
import { ago } from '@web/format/times.ts'
import { capital, listed } from '@web/format/words.ts'

/** What is done, as an order; what it takes away, as a thing. */
export const REMEDY_WORD: Record<RemedyKey, { do: string; is: string }> = {
  uncoil: { do: 'uncoil the cable', is: 'the coils' },
  layStraight: { do: 'lay the cable straighter', is: 'the bends it lies in' },
  easeHub: { do: 'ease the hub brake', is: 'the tight hub' },
  cleanTip: { do: 'brush the tip', is: 'spatter on the tip' },
  turnSpool: { do: 'turn the spool round', is: 'the spool the wrong way round' },
  newTip: { do: 'put on a new tip', is: 'what sits on the tip' },
  guideNearer: { do: 'set the outlet guide nearer', is: 'the guide that stands off' },
  guideStraight: { do: 'line up the outlet guide', is: 'the guide out of line' },
  guideOwnSize: { do: 'fit the outlet guide of this wire', is: 'the wide outlet guide' },
  otherRolls: { do: 'fit the rolls this wire wants', is: 'the rolls' },
  linerToRolls: { do: 'run a soft liner up to the rolls', is: 'the gap before the liner' },
  newLiner: { do: 'put in a new liner', is: 'the worn liner' },
  otherLiner: { do: 'put in the liner this wire wants', is: 'the liner' },
}

export const PARAM_WORD: Record<Param, string> = {
  friction: 'friction in the liner',
  waviness: 'how the liner snakes',
  cableMm: 'length of the cable',
  bendDeg: 'how the cable lies',
  coils: 'coils on the floor',
  kinkDeg: 'a kink',
  neckDeg: 'bend of the neck',
  neckRadiusMm: 'radius of the neck',
  brakeNm: 'hub brake',
  woundRadiusMm: 'how full the spool is',
  drumPullN: 'pull of the drum',
  boosterN: 'the booster',
  conduitMm: 'length of the conduit',
  conduitDeg: 'bends of the conduit',
  conduitFriction: 'friction in the conduit',
  gapMm: 'rolls to outlet guide',
  clearanceMm: 'play in the outlet guide',
  exitDeg: 'line of the outlet guide',
  tipBearingMm: 'length of the tip’s bore',
  tipClearanceMm: 'play in the tip',
  tipFriction: 'friction in the tip',
  depositN: 'what sits on the tip',
  rollFriction: 'grip of the rolls',
  pairForceOver: 'what a mark of the knob presses',
  castRadiusMm: 'cast of the wire',
  yieldMPa: 'how hard the wire is',
  motorPushN: 'what the motor has',
  linerBoreMm: 'bore of the liner',
}

/** The one that is read to know it better; null: nothing on the floor tells it. */
export const READ_FOR: Partial<Record<Param, string>> = {
  friction: 'two pulls',
  bendDeg: 'a look at the cable',
  pairForceOver: 'slip pulls at two marks',
  rollFriction: 'slip pulls at two marks',
  gapMm: 'a feeler at the guide',
  brakeNm: 'a spring scale at the hub',
  depositN: 'a look at the tip',
}

/** The first sentence: can it feed and slip when it should. */
export function dragSentence(name: string, said: Explained): string {
  if (said.isStalled) return `The motor stalls before it feeds ${name}.`
  if (said.verdict === 'cannot feed') return `Nothing on the knob feeds ${name} as it is.`
  if (said.verdict === 'feeds without margin') return `No setting both feeds ${name} and slips when it is stopped.`
  const word = {
    comfortable: 'with room',
    narrow: 'with little room',
    'nearly closed': 'with hardly any room',
    closed: '',
  }
  return `${capital(name)} feeds, ${word[said.width]} on the knob.`
}

/** What shuts it and the cheapest that opens it; or what takes most of it. */
export function becauseSentence(said: Explained, name = 'it'): string {
  const [first] = said.culprits
  const [cheapest] = said.reopens
  if (said.width === 'closed' && cheapest) {
    const most = first
      ? `${capital(REMEDY_WORD[first.remedy].is)} take${isMany(first.remedy) ? '' : 's'} most of it. `
      : ''
    return `${most}Do not turn the knob: ${stepsWords(cheapest)} (${minutes(cheapest.minutes)}) and it opens.`
  }
  if (said.width === 'closed') return 'Do not turn the knob: nothing on this list opens it; look at what is fitted.'
  if (first && said.width === 'comfortable')
    return `Room enough. Most could still be gained there: ${REMEDY_WORD[first.remedy].do}.`
  if (first)
    return `${capital(REMEDY_WORD[first.remedy].is)} take${isMany(first.remedy) ? '' : 's'} most of what is gone.`
  return `Nothing takes from it: ${name} is as it should be.`
}
const MANY: readonly RemedyKey[] = ['uncoil', 'layStraight', 'otherRolls']
const isMany = (remedy: RemedyKey) => MANY.includes(remedy)

export const stepsWords = ({ steps }: Pick<Reopening, 'steps'>) => listed(steps.map((s) => REMEDY_WORD[s].do))

export const culpritWords = ({ remedy, times }: Culprit) =>
  Number.isFinite(times)
    ? `${capital(REMEDY_WORD[remedy].is)}: without ${isMany(remedy) ? 'them' : 'it'} ${twoFigures(times)} times the room`
    : `${capital(REMEDY_WORD[remedy].is)}: shut with ${isMany(remedy) ? 'them' : 'it'}`

/** What happens at the knob, feeding and stopped. */
export function knobSentence(at: AtKnob, said: Explained, units: Units): string {
  const needed = said.window.neededN === null ? 'more than anything here' : force(said.window.neededN, units)
  const grip = force(at.tractionN, units)
  const nest = force(said.window.nest.nestForceN, units)
  const feeding = {
    slips: `the rolls slip: they grip ${grip}, the wire wants ${needed}`,
    'no margin': `it feeds, but a jerk or a bend makes the rolls slip (${grip} for ${needed})`,
    feeds: `it feeds (${grip} for ${needed})`,
  }[at.feeding]
  const stopped = {
    slips: 'the rolls slip',
    'near a nest': `the rolls slip, but only just: the gap bears ${nest}`,
    nests: `it nests: ${grip} against the ${nest} the gap bears`,
  }[at.stopped]
  const flat = at.isFlattened ? ' The wire is flattened here.' : ''
  return `At the knob as drawn ${feeding}. Stopped at the tip, ${stopped}.${flat}`
}

/** Why it nested, by these numbers: what the grip was against what the gap bears; or that by them it should have slipped. */
export function nestSentence(at: AtKnob, said: Explained, units: Units): string {
  const { nest, pushN, neededN } = said.window
  const bears = force(nest.nestForceN, units)
  if (pushN === null || pushN >= nest.nestForceN)
    return `Feeding alone asks for more push than the ${bears} the gap bears: it nests without being stopped.`
  if (at.stopped === 'nests')
    return `Any stop at the tip nests it: the rolls grip ${force(at.tractionN, units)}, the gap bears ${bears}.`
  if (at.stopped === 'near a nest')
    return `The rolls grip ${force(at.tractionN, units)} of the ${bears} the gap bears: a jerk, or a guide a little off, nests it.`
  const slips = neededN !== null && at.tractionN < neededN ? ' It rather starves than nests.' : ''
  return `By these numbers it should have slipped (${force(at.tractionN, units)} of grip, ${bears} borne).${slips} Something is not as told: look at the outlet guide, the rolls’ groove and crossed wire on the spool.`
}

/** The drive on the gun, and what happens when it does not pull: each drive has its own window. */
export function secondDriveSentence(w: ReturnType<typeof pushPullWindows>): string {
  const { gun, alone, feeder } = w
  const own =
    gun.lowMark !== null && gun.isOpen
      ? `The drive on the gun has room from about ${twoFigures(gun.lowMark)} to ${twoFigures(gun.highMark)} on its own knob (guess).`
      : 'The drive on the gun has no room on its own knob (guess): look at tip and neck.'
  const without = alone.isOpen
    ? 'Where it slips or stands, the feeder still gets the wire through alone.'
    : 'Where it slips or stands, the feeder cannot do it alone: it starves or nests, and the gun’s rolls are what to look at first.'
  const saved = alone.neededN !== null && feeder.neededN !== null ? alone.neededN / feeder.neededN : null
  const share =
    saved !== null && saved > 1.05 ? ` It takes the feeder’s push down to one part in ${twoFigures(saved)}.` : ''
  return `${own} ${without}${share}`
}

export const LIMIT_WORD = { nest: 'nest', crush: 'flat wire', arm: 'end of the knob' } as const

/** How sure: what the guesses allow. */
export function spreadSentence(spread: Spread): string {
  const n = Math.round(spread.openShare * 10)
  if (n >= 10) return 'Open in all that the guesses allow.'
  return n <= 0 ? 'Shut in all that the guesses allow.' : `Open in ${n} of 10 of what the guesses allow.`
}

/** Whose number it is. */
export function sourceWord(source: Source | undefined, nowMs: number): string {
  if (!source || source.by === 'guess') return 'guess'
  if (source.by === 'told') return 'told'
  return source.atMs === null ? 'read' : `read ${ago(source.atMs, nowMs)} ago`
}

/** Marks higher or lower than the knob is now, where no mark can be told. */
export function aboutMarks(setup: DragSetup, deltaN: number, perMarkN: number): string {
  const marks = deltaN / perMarkN
  const size = Math.abs(marks)
  const [from, to] = setup.shape.feeder.scale
  if (size > to - from) return marks > 0 ? 'beyond the top of the scale' : 'below the bottom of the scale'
  if (size < 0.15) return 'about where it is'
  return `about ${twoFigures(Math.round(size * 10) / 10)} marks ${marks > 0 ? 'higher' : 'lower'}`
}
