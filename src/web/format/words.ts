import { type UsageSource } from '@core/clock/source.ts'
import { type PositionState, type NotSeenWhy } from '@core/floor/state.ts'
import {
  type OutReason,
  type Position,
  kindOfPosition,
  laneOfPosition,
  type KindKey,
  isKindKey,
  type CausePlace,
  COLUMNS,
  type Column,
} from '@core/path/columns.ts'

/** A part as it is picked from a list: its number and its name, or the name alone while it has no number. */
export const partLabel = (part: { code: string; name: string }): string =>
  part.code === part.name ? part.name : `${part.code} ${part.name}`

/** All words that screens share. A state is told by its stroke and one of these, never by colour alone. */
export const STATE_WORD: Record<PositionState, string> = {
  down: 'down',
  wrong: 'wrong part',
  due: 'change',
  look: 'look',
  notSeen: 'not seen',
  partWorn: 'part-worn',
  good: '',
  absent: 'not on this gun',
}

export const REASON_WORD: Record<OutReason, string> = {
  worn: 'worn',
  burnedBack: 'burned back',
  due: 'due',
  knocked: 'knocked',
  toTry: 'to try',
  stripped: 'stripped',
  blocked: 'blocked',
  kinked: 'kinked',
  loose: 'loose',
  broken: 'broken',
  burnt: 'burnt',
  poorContact: 'poor current',
  holdsNot: 'does not hold the nozzle',
  wireCatches: 'wire catches in it',
  linerSlips: 'does not stop the liner',
  notSaid: 'not said',
}

const SHORT_NAME: Record<KindKey, string> = {
  hub: 'hub',
  conduit: 'conduit',
  booster: 'booster',
  inlet: 'inlet guide',
  rolls: 'rolls',
  outlet: 'outlet guide',
  orings: 'O-rings',
  liner: 'liner',
  neck: 'neck',
  jump: 'jump liner',
  diffuser: 'diffuser',
  clampring: 'clamp ring',
  tip: 'tip',
  nozzle: 'nozzle',
  insulator: 'insulator',
  cutter: 'wire cutter',
  reamer: 'reamer',
  gas: 'gas line',
  plug: 'control plug',
  cable: 'gun cable',
  handle: 'handle',
  trigger: 'trigger',
  lead: 'work lead',
}
const PLACE_NAME: Partial<Record<CausePlace, string>> = { pin: 'gun pin', off: 'off the wire', gas: 'gas' }
const isColumn = (place: CausePlace): place is Column => COLUMNS.some((c) => c === place)
/** A place of the path in one word, as under the wire: "rolls", "gun pin", "off the wire". */
export function placeName(place: CausePlace): string {
  const own = PLACE_NAME[place] ?? (isColumn(place) ? place : null)
  return own ?? (isKindKey(place) ? SHORT_NAME[place] : place)
}
const PLURAL: ReadonlySet<KindKey> = new Set(['rolls', 'orings'])

/** The part as hands call it; a second lane is told by its number. */
export function partName(position: Position): string {
  const { kind, lane } = laneOfPosition(position)
  return lane === 1 ? SHORT_NAME[kind] : `${SHORT_NAME[kind]} ${lane}`
}
export const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1)
export const lower = (text: string) => text.charAt(0).toLowerCase() + text.slice(1)

/** "Change the tip", "Clean the nozzle", "Look at the rolls". */
export function actPhrase(act: string, position: Position): string {
  const verb = act === 'clean' ? 'Clean the' : act === 'look' ? 'Look at the' : 'Change the'
  return `${verb} ${partName(position)}`
}

/** "Tip changed", "Nozzle cleaned": what a key says, at most 15 letters. */
export function donePhrase(act: string, position: Position | null): string {
  if (act === 'newSpool') return 'New spool'
  if (act === 'seen') return position ? `${capital(partName(position))} seen` : 'All looked at'
  if (act === 'parked') return 'Parked'
  if (act === 'unparked') return 'In use again'
  if (act === 'down') return 'It’s down'
  if (act === 'running') return 'Running'
  const verb = DONE_VERB[act] ?? 'changed'
  return position ? `${capital(partName(position))} ${verb}` : capital(verb)
}
const DONE_VERB: Record<string, string> = { cleaned: 'cleaned', removed: 'taken out', putBack: 'put back' }
export const isPlural = (position: Position) => PLURAL.has(kindOfPosition(position))

const NUMBERS = [
  'No',
  'One',
  'Two',
  'Three',
  'Four',
  'Five',
  'Six',
  'Seven',
  'Eight',
  'Nine',
  'Ten',
  'Eleven',
  'Twelve',
]
export const countWord = (n: number) => NUMBERS[n] ?? String(n)
/**
 * A chance in natural counts: "1 in 12" up to an even one, "7 in 10" above; beyond what anyone can feel, "under 1 in 50".
 */
export function inN(chance: number): string {
  if (chance < 0.02) return 'under 1 in 50'
  if (chance > 0.97) return 'nearly certain'
  if (chance >= 0.45) return `${Math.max(5, Math.min(9, Math.round(chance * 10)))} in 10`
  const n = 1 / chance
  return `1 in ${n < 10 ? Math.round(n) : Math.round(n / 5) * 5}`
}

export const guns = (n: number) => (n === 1 ? 'gun' : 'guns')

export const WHY_NOT_SEEN: Record<NotSeenWhy, string> = {
  'no rule': 'no limit or look interval is set for it',
  'no fitting date': 'nobody knows when it went on',
  'past belief': 'nobody runs one that long, so it was likely changed and not noted. Look, and note what is on',
  'nobody has looked': 'nobody has looked at it lately',
  'no clock': 'no usage was entered for ten working days',
}

/** Schools of when a part is changed. */
export const SCHOOL_WORD = {
  runToFailure: 'run to failure',
  fixed: 'fixed use',
  onCondition: 'on condition',
  signs: 'on signs',
  leastCost: 'least cost',
} as const

/** Where a count of use comes from. */
const SOURCE_WORD: Record<UsageSource, string> = {
  telemetry: 'the feeder itself',
  weighed: 'weighing',
  label: 'labels of spools',
  shiftLog: 'shift totals',
  rate: 'the usual rate',
  converted: 'working it out from the other count',
}
/** "Usage: shift totals say 12% less than the feeder itself." */
export function disagreementSentence(d: { weaker: UsageSource; better: UsageSource; overFraction: number }): string {
  const percent = Math.round(Math.abs(d.overFraction) * 100)
  return `Usage: ${SOURCE_WORD[d.weaker]} say${PLURAL_SOURCE.has(d.weaker) ? '' : 's'} ${percent}% ${d.overFraction < 0 ? 'less' : 'more'} than ${SOURCE_WORD[d.better]}.`
}
const PLURAL_SOURCE = new Set<UsageSource>(['label', 'shiftLog'])

/** "A8", "A8 and B6", "A8, B6 and T1". */
export const listed = (words: readonly string[]): string =>
  words.length < 2 ? (words[0] ?? '') : `${words.slice(0, -1).join(', ')} and ${words.at(-1) ?? ''}`

/** "6 on hand"; more taken than was ever counted says the count is wrong, not that there are fewer than none. */
/** Where parts lie unless said. */
export const MAIN_PLACE = 'the main shelf'
export const onHandWord = (n: number): string => (n < 0 ? 'count them again' : `${n} on hand`)
/** "6 at Cell cupboard, 8 on the main shelf"; where there is one place only, how many there are. */
export const liesWord = (lies: readonly { place: string | null; onHand: number }[], onHand: number): string =>
  lies.length === 0
    ? onHandWord(onHand)
    : lies.map((l) => `${l.onHand} ${l.place === null ? `on ${MAIN_PLACE}` : `at ${l.place}`}`).join(', ')
