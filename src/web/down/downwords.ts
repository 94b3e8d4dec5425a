import { chancesOf } from '@core/diagnose/belief.ts'
import { TRADE_STOPS } from '@core/diagnose/learn.ts'
import { type Step } from '@core/diagnose/moves.ts'
import { type Because, type Hint, type Reckoned } from '@core/diagnose/session.ts'
import { type CleanOrChange } from '@core/diagnose/cleanorchange.ts'
import { type Cause, type Picture } from '@core/diagnose/knowledge.ts'
import { type Came } from '@core/diagnose/merge.ts'
import { type Touched } from '@core/diagnose/touched.ts'
import { FOLLOW_UP_TEXT } from '@core/followup/followup.ts'
import { TAG_TEXT } from '@core/changeover/tags.ts'
import { READING } from '@core/reading/specs.ts'
import { type DownNowAnswer } from '@contract/down.ts'
import { type GunAnswer } from '@contract/gun.ts'
import { minutes, type Units } from '@web/format/numbers.ts'
import { findingSentence } from '@web/rightparts/words.ts'
import { capital, countWord, inN, isPlural, lower, partName } from '@web/format/words.ts'
import { signWords } from '@web/liner/signwords.ts'
import { type Search } from './reckoned.ts'

export const PICTURE_WORD: Record<Picture, string> = {
  stopped: 'wire stopped',
  jerks: 'jerks',
  nest: 'nest',
  stuck: 'stuck in tip',
  holes: 'holes in weld',
  start: 'won’t start',
  bead: 'arc or bead',
  nozzle: 'nozzle or diffuser',
  liner: 'at the liner job',
  robot: 'at the robot',
  else: 'something else',
}
export const TOUCHED_WORD: Record<Touched, string> = {
  tip: 'tip',
  front: 'nozzle or front end',
  spool: 'spool',
  size: 'wire size',
  rolls: 'rolls or guides',
  liner: 'liner',
  gun: 'gun',
  moved: 'moved',
  hit: 'hit or dropped',
  pressureUp: 'pressure raised',
  pressureDown: 'pressure lowered',
  setting: 'machine or gas setting',
  nothing: 'nothing',
  unknown: 'don’t know',
}

/** Why the gun's own state speaks, in a few words. */
export function hintWords(because: Because): string {
  switch (because.how) {
    case 'read':
      return because.what === 'cleaning'
        ? 'the nozzle closes ever faster'
        : `readings of ${READING[because.what].name} speak for it`
    case 'tied':
      return TAG_TEXT[because.tag].says
    case 'found':
      return because.at === 'off'
        ? 'something was found off the wire'
        : `something was found at the ${partName(because.at)}`
    case 'undone':
      return `“${FOLLOW_UP_TEXT[because.task].do.toLowerCase()}” was left undone`
    case 'cored':
      return 'the wire is cored'
    case 'midLife':
      return ''
    case 'worn':
      return `${partName(because.at)} ${isPlural(because.at) ? 'are' : 'is'} far into ${isPlural(because.at) ? 'their' : 'its'} usual life`
    case 'fresh':
      return `${partName(because.at)} ${isPlural(because.at) ? 'are' : 'is'} fresh`
    case 'touched':
      return TOUCHED_WHY[because.what] ?? `${TOUCHED_WORD[because.what]} was touched last`
    case 'others':
      return OTHERS_WORD[because.what]
    case 'notHere':
      return ''
  }
}
const TOUCHED_WHY: Partial<Record<Touched, string>> = {
  size: 'the wire size was changed last',
  rolls: 'rolls or guides were touched last',
  nothing: 'nothing was touched',
  moved: 'it was moved last',
  hit: 'it was hit',
  pressureUp: 'the pressure was raised to keep it going',
  pressureDown: 'the pressure was lowered last',
  setting: 'machine or gas was set last',
}
const OTHERS_WORD = {
  gas: 'other guns here lack gas too',
  power: 'other machines stand too',
  sameWire: 'another gun on this wire stopped',
} as const

/** "Liner worn 4 in 10: knob raised to keep going." The likeliest this step is about, and what of the gun speaks for it. */
export function becauseSentence(
  step: Step,
  { belief, done }: Pick<Reckoned, 'belief' | 'done'>,
  hints: readonly Hint[],
): string {
  const about = new Set(
    step.kind === 'check'
      ? step.check.outcomes.flatMap((o) => o.points)
      : step.group.causes.map((i) => belief.knowledge.causes[i]?.key ?? ''),
  )
  const ofIt = chancesOf(belief).filter((c) => about.has(c.cause.key))
  // Of what was looked at before less is said than of what is new, unless it is by far the likeliest.
  const looked = new Set(
    [...done].flatMap((key) => belief.knowledge.checkOf.get(key)?.outcomes.flatMap((o) => o.points) ?? []),
  )
  const fresh = ofIt.find((c) => !looked.has(c.cause.key))
  const likeliest = fresh && fresh.chance > (ofIt[0]?.chance ?? 0) / 4 ? fresh : ofIt[0]
  if (!likeliest) return ''
  const reasons = [
    ...new Set(hints.filter((h) => h.factor > 1 && h.cause === likeliest.cause.key).map((h) => hintWords(h.because))),
  ]
  const why = reasons.filter(Boolean).slice(0, 2).join(', ')
  return `${capital(likeliest.cause.says)}: ${inN(Math.min(1, likeliest.chance))}${why ? `, since ${why}` : ''}.`
}

/** What the shop's rule for liners did to the order, and by which sign. */
export function linerRuleWords({ did, signs }: Search['liner']): string {
  if (did === 'changeNow') return `House rule: change the liner, ${signs.map(signWords).slice(0, 2).join('; ')}.`
  if (did === 'looksFirst') return `House rule: the liner, once this is looked at; ${signs.map(signWords)[0] ?? ''}.`
  if (did === 'tipsFirst') return 'House rule: the liner after fresh tips.'
  if (did === 'apart') return ''
  return did === 'liner last' ? 'House rule: the liner last of all.' : ''
}

/** One grey line where the rule wants a new liner and this stop is hardly it. */
export const linerApartWords = ({ did, signs }: Search['liner']): string =>
  did === 'apart'
    ? `The liner is due by your rule (${signs.map(signWords)[0] ?? 'its signs'}), apart from this stop.`
    : ''

/** Where the order comes from. */
export function orderWords(own: number): string {
  const n = Math.round(own)
  return n === 0
    ? 'Trade order (guess); none of your own yet.'
    : `Order by ${n} ${n === 1 ? 'stop' : 'stops'} of your own beside the trade’s guess, which counts as ${TRADE_STOPS}.`
}
export const estimateWords = (minutes: number) => `about ${Math.max(1, Math.round(minutes))} min left (guess)`

/** Clean first, or change: with its reason. */
export function choiceWords(
  { first, because, cleanMin, changeMin, priceMin, cleanShare }: CleanOrChange,
  cause: Pick<Cause, 'fix'>,
): string {
  const part = cause.fix.position ? partName(cause.fix.position) : 'part'
  if (because === 'none') return `None on the shelf: clean the ${part}, run on, and say in Parts that it is out.`
  if (because === 'gone')
    return `None on the shelf, and no cleaning mends this one: fetch a ${part}, or hang another gun meanwhile.`
  const price = priceMin === null ? '' : `, and as dear as ${spanWords(priceMin)} of standing`
  const worth = `A new ${part} is ${spanWords(changeMin)}${price}.`
  if (because === 'seen') return worth
  if (because === 'rule')
    return first === 'clean' ? `House rule: clean the ${part} first. ${worth}` : `House rule: change it. ${worth}`
  return first === 'clean'
    ? `Clean it first: ${spanWords(cleanMin)}, and does it ${inN(cleanShare)}. ${worth}`
    : `${worth} Cleaning would do it ${inN(cleanShare)}: not worth its ${spanWords(cleanMin)}.`
}

/** Seconds where it is under a minute. */
export const spanWords = (min: number) => (min < 1 ? `${Math.round(min * 60)} s` : minutes(min))

/** What was known of this gun before it stopped, in full: the finding, the reading, the tag. */
export function knownSentence(because: Because, gun: GunAnswer, units: Units): string {
  const finding =
    because.how === 'found' ? gun.findings.find((f) => f.rule === because.rule && f.at === because.at) : undefined
  if (finding) return findingSentence(finding, units)
  if (because.how === 'tied') return `It hangs there as a reminder: ${TAG_TEXT[because.tag].says}.`
  return `${capital(hintWords(because))}.`
}
/** "Found nothing: look at the tip’s face (3), …" */
export const inVainWords = (inVain: DownNowAnswer['searches'][number]['inVain']): string =>
  inVain.length === 0
    ? ''
    : `Found nothing: ${inVain.map((v) => `${v.says.replace(/[.?]$/, '').toLowerCase()} (${v.n})`).join(', ')}.`
/** "Done, no help" and how often. */
export function doneWords(times: number, cause: Pick<Cause, 'fix'>): string {
  if (cause.fix.isLicensed) return 'Not here: a licensed trade’s.'
  if (times === 0) return 'Nothing was done about it.'
  return times === 1 ? 'Done once, no help.' : `Done ${times} times, no help.`
}

/** What ships new since the shop changed its own lists, and is in them; nothing where nothing came. */
export function cameWords({ symptoms, causes, checks }: Came): string {
  const of = (n: number, one: string) => (n > 0 ? [`${lower(countWord(n))} ${one}${n === 1 ? '' : 's'}`] : [])
  const all = [...of(symptoms, 'trouble'), ...of(causes, 'cause'), ...of(checks, 'look')]
  return all.length > 0 ? ` New from the trade since, and in it: ${all.join(', ')}.` : ''
}
