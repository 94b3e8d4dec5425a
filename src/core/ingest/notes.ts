import { type OutReason, type KindKey } from '@core/path/columns.ts'
import { kindFromWord } from '@core/path/kinds.ts'

/**
 * Free-text notes of a shop's own sheet ("tip x2 + liner, nest, bad wire?") as acts on parts. A note is cut into pieces;
 * a piece is read when it names a part; words about what was done, why and how many belong to the part they stand with.
 * Nothing is guessed beyond the words: a part named without a verb is told apart ("tip": was it changed?), what can't be
 * read stays readable for a person.
 */
export const NOTE_VERBS = ['changed', 'cleaned', 'seen', 'unsaid'] as const
export type NoteVerb = (typeof NOTE_VERBS)[number]
export interface NoteAct {
  kindKey: KindKey
  verb: NoteVerb
  count: number
  reason: OutReason | null
}
export interface ReadNote {
  acts: NoteAct[]
  /** It says that the wire stopped, stuck or nested. */
  isStop: boolean
  /** Pieces that name nothing known, as written. */
  unread: string[]
  /** What was worked on and is no word of the trade's or the shop's: "lance" in "swapped lance". */
  words: string[]
}
export interface NamedKind {
  key: KindKey
  name: string
  synonyms: readonly string[]
}

const VERBS: readonly [RegExp, NoteVerb][] = [
  [/\b(clean(ed)?|ream(ed)?|scrap(ed)?|blew( out)?|blown( out)?|brush(ed)?|unblocked|dressed)\b/, 'cleaned'],
  [/\b(check(ed)?|look(ed)?( at)?|inspect(ed)?|ok|okay|fine|good|seen)\b/, 'seen'],
  [
    /\b(chang(ed?|ing)|new|replac(ed?|ing)|swap(ped)?|fit(ted)?|renew(ed)?|put (on|in)|install(ed)?|exch(anged)?)\b/,
    'changed',
  ],
]
const REASONS: readonly [RegExp, OutReason][] = [
  [/\b(burn(ed|t)?[ -]?back|burnback|fused|melted)\b/, 'burnedBack'],
  [/\b(crash(ed)?|knocked|dropped|bent|hit|stood on|trodden|run over)\b/, 'knocked'],
  [/\bkink(ed)?\b/, 'kinked'],
  [/\b(block(ed)?|clog(ged)?|full|choked|spattered)\b/, 'blocked'],
  [/\b(strip(ped)?|cross[ -]?thread(ed)?|thread)\b/, 'stripped'],
  [/\b(worn|wore|oval|keyhol(e|ed)|egged|grooved|shot|gone|knackered)\b/, 'worn'],
  [/\b(due|routine|planned|pm|service|weekly|monthly)\b/, 'due'],
]
const STOPS =
  /\b(nest(ed|ing)?|bird'?s?[ -]?nest(ed|ing)?|jam(med)?|stuck|stopped|no feed|wo(n't|nt) feed|down|broke down)\b/
const STOPPED_AT = new RegExp(`${STOPS.source}.*\\b(at|in|on|before|behind|after)\\b`)
/** Words that carry nothing by themselves. */
const EMPTY =
  /\b(the|a|an|and|with|on|in|at|of|for|to|by|was|is|were|had|has|been|both|old|again|once|twice|today|after|before|then|just|very|really|maybe|probably|set|pcs?|pc|no|gun|x)\b/g
const SEPARATORS = /\s*(?:[+,;/&.|]|\band\b|\bthen\b|\bplus\b|->)\s*/

const plain = (text: string) => text.toLowerCase().replace(/[’`]/g, "'").replace(/\s+/g, ' ').trim()

/** "x2", "2x", "2 tips", "two tips": how many; 1 when nothing says so, never more than 20 in one note. */
function countIn(piece: string): number {
  const digits = /\b(?:x\s*(\d{1,2})|(\d{1,2})\s*x|(\d{1,2})(?=\s+[a-z]))\b/.exec(piece)
  const words = ['one', 'two', 'three', 'four', 'five', 'six']
  const word = words.findIndex((w) => new RegExp(`\\b${w}\\b`).test(piece))
  const n = digits ? Number(digits[1] ?? digits[2] ?? digits[3]) : word >= 0 ? word + 1 : 1
  return n >= 1 && n <= 20 ? n : 1
}

const bare = (piece: string) =>
  piece
    .replace(/\b(?:x\s*\d{1,2}|\d{1,2}\s*x|\d{1,2})\b/g, ' ')
    .replace(/\b(one|two|three|four|five|six)\b/g, ' ')
    .replace(/[?!:()"]/g, ' ')
    .replace(/\s+/g, ' ')
    .trim()

/** The parts a piece names: longest run of words first, so that "tip adapter" is not a tip. */
function kindsIn<K extends NamedKind>(piece: string, kinds: readonly K[]): { kinds: K[]; rest: string } {
  let words = bare(piece).split(' ').filter(Boolean)
  const found: K[] = []
  for (let length = 3; length >= 1; length--)
    for (let at = 0; at + length <= words.length; at++) {
      const kind = kindFromWord(words.slice(at, at + length).join(' '), kinds)
      if (!kind) continue
      found.push(kind)
      words = [...words.slice(0, at), ...words.slice(at + length)]
      at--
    }
  return { kinds: found, rest: words.join(' ') }
}

const firstOf = <T>(table: readonly [RegExp, T][], text: string): T | null =>
  table.find(([words]) => words.test(text))?.[1] ?? null

/**
 * @example readNote('tip x2 + liner, nest, bad wire?', kinds)
 * // { acts: [{ tip, unsaid, 2 }, { liner, unsaid, 1 }], isStop: true, unread: ['bad wire?'] }
 */
export function readNote(note: string, kinds: readonly NamedKind[]): ReadNote {
  const read: ReadNote = { acts: [], isStop: STOPS.test(plain(note)), unread: [], words: [] }
  let verb: NoteVerb = 'unsaid'
  const pieces = plain(note).split(SEPARATORS).filter(Boolean)
  const isAllOfIt = pieces.length === 1
  for (const piece of pieces) {
    const { kinds: named, rest } = kindsIn(piece, kinds)
    const said = firstOf(VERBS, rest)
    // "new tip, nozzle and liner": a verb holds for the pieces after it until another is said.
    if (said) verb = said
    const reason = firstOf(REASONS, rest)
    if (named.length === 0) {
      const left = leftOver(rest)
      if (said || reason) lastSays(read, { said, reason })
      if (left !== '') read.unread.push(piece)
      if (left !== '' && (said || isAllOfIt)) read.words.push(left)
      continue
    }
    // "Nested at the rolls" tells where it stopped, and that nothing was done to them yet.
    if (!said && !reason && STOPPED_AT.test(piece)) continue
    const count = countIn(piece)
    for (const kind of named) read.acts.push({ kindKey: kind.key, verb, count, reason })
  }
  return read
}

const everywhere = ({ source }: RegExp) => new RegExp(source, 'g')
const KNOWN_WORDS = [...VERBS, ...REASONS].map(([words]) => everywhere(words)).concat(everywhere(STOPS), EMPTY)
/** What is left of a piece without the words that are known. */
const leftOver = (rest: string) =>
  KNOWN_WORDS.reduce((text, words) => text.replace(words, ' '), rest)
    .replace(/[^\p{L}\p{N}' -]/gu, ' ')
    .replace(/\s+/g, ' ')
    .trim()

/** "tip, worn" and "liner - changed": a piece without a part speaks of the one before it. */
function lastSays(read: ReadNote, { said, reason }: { said: NoteVerb | null; reason: OutReason | null }): void {
  const last = read.acts.at(-1)
  if (!last) return
  if (said && last.verb === 'unsaid') last.verb = said
  if (reason && !last.reason) last.reason = reason
}

/** Notes that ask the same question: "214 notes say tip: count them as tip changed?" */
export interface NoteGroup {
  key: string
  kindKey: KindKey
  verb: NoteVerb
  notes: number
  parts: number
  examples: string[]
}
const EXAMPLES = 4
export const groupKey = (act: Pick<NoteAct, 'kindKey' | 'verb'>) => `${act.kindKey} ${act.verb}`

/** Largest groups first; each with a few notes as they were written. */
export function groupNotes(notes: readonly { text: string; read: ReadNote }[]): NoteGroup[] {
  const groups = new Map<string, NoteGroup>()
  for (const { text, read } of notes)
    for (const act of read.acts) {
      const key = groupKey(act)
      const group = groups.get(key) ?? { key, kindKey: act.kindKey, verb: act.verb, notes: 0, parts: 0, examples: [] }
      group.notes++
      group.parts += act.count
      if (group.examples.length < EXAMPLES && !group.examples.includes(text)) group.examples.push(text)
      groups.set(key, group)
    }
  return [...groups.values()].sort((a, b) => b.notes - a.notes || (a.key < b.key ? -1 : 1))
}

/** A word for a part that nobody here has explained yet: how many notes have it, and some of them. */
export interface AskedWord {
  word: string
  notes: number
  examples: string[]
}
const MOST_WORDS = 3
const MOST_ASKED = 12
/** Words to be asked about, most frequent first; what was said to be no part of a gun is never asked about again. */
export function askedWords(
  notes: readonly { text: string; read: Pick<ReadNote, 'words'> }[],
  others: ReadonlySet<string> = new Set(),
): AskedWord[] {
  const found = new Map<string, AskedWord>()
  for (const { text, read } of notes)
    for (const word of read.words) {
      if (others.has(word) || word.split(' ').length > MOST_WORDS || !/\p{L}/u.test(word)) continue
      const asked = found.get(word) ?? { word, notes: 0, examples: [] }
      asked.notes++
      if (asked.examples.length < EXAMPLES && !asked.examples.includes(text)) asked.examples.push(text)
      found.set(word, asked)
    }
  return [...found.values()].sort((a, b) => b.notes - a.notes || (a.word < b.word ? -1 : 1)).slice(0, MOST_ASKED)
}
