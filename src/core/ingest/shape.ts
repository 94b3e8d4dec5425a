import { kindFromWord } from '@core/path/kinds.ts'
import { guessColumns, PLACE_COLUMNS } from './columns.ts'
import { type NamedKind } from './notes.ts'
import { eachOnce } from './once.ts'

/**
 * Sheets that do not lie as a table with one thing a row: a line a gun with parts across and days in the cells, a line a gun with days across and
 * notes in the cells, a diary in sentences. Each is laid out again as plain rows, which are then read like any other sheet; what can't be placed stays
 * with its row as it was written. Nothing is guessed from a single cell: at least two parts, three days or two named guns make a shape.
 */
export const LIES = ['partsAcross', 'daysAcross', 'diary'] as const
export type Lies = (typeof LIES)[number]
export interface PlainRow {
  /** As a spreadsheet counts. */
  number: number
  cells: string[]
}
export interface LaidOut {
  lies: Lies
  headings: string[]
  /** How many of the headings, from the first, were made in laying it out; behind them are its other columns as they were. */
  made: number
  rows: PlainRow[]
  /** What names no gun, as written. */
  unread: { row: number; text: string }[]
}
export interface Knowing {
  /** A day as people write it, as yyyy-mm-dd; null when it is none. */
  dayOf: (text: string) => string | null
  kinds: readonly NamedKind[]
  /** Names as painted on the places. */
  places: readonly string[]
}
type Rows = readonly (readonly string[])[]

const LOOK_AT = 12
const FEWEST_PARTS = 2
const FEWEST_DAYS = 3
const cellAt = (row: readonly string[], i: number | undefined) => (i === undefined ? '' : (row[i] ?? '').trim())
const isBlank = (text: string) => /^[\s\-–—.]*$/.test(text)

/** How a sheet lies, laid out as plain rows; null for an ordinary table. `isPlaces` keeps guns of which nothing else is said. */
export function layOut(rows: Rows, know: Knowing, at: { isPlaces: boolean }): LaidOut | null {
  return acrossParts(rows, know, at) ?? acrossDays(rows, know)
}

/** Cells of a column that hold one day or several: "3.11.", "3.11. / 17.11.", "12 Oct, 3 Nov". */
function daysIn(text: string, know: Knowing): string[] | null {
  const whole = know.dayOf(text)
  if (whole) return [whole]
  const pieces = text
    .split(/\s*(?:[,;&+\n]|\s\/\s|\band\b)\s*/)
    .map((p) => p.trim())
    .filter(Boolean)
  const days = pieces.map((p) => know.dayOf(p))
  return pieces.length > 1 && days.every((d) => d !== null) ? (days as string[]) : null
}

/** A line a gun, a part a column, in the cells when it was last put on. */
function acrossParts(rows: Rows, know: Knowing, { isPlaces }: { isPlaces: boolean }): LaidOut | null {
  const at = headingWhere(rows, (cell) => kindFromWord(cell, know.kinds) !== null, FEWEST_PARTS)
  if (at === null) return null
  const heading = rows[at] ?? []
  const parts = heading.flatMap((cell, i) => (kindFromWord(cell, know.kinds) ? [i] : []))
  const below = rows.slice(at + 1)
  const filled = below.flatMap((row) => parts.map((i) => cellAt(row, i))).filter((c) => !isBlank(c))
  if (filled.filter((c) => daysIn(c, know)).length * 2 < Math.max(1, filled.length)) return null
  const { place, area } = whereOf(heading, parts)
  const others = othersOf(heading, [...parts, place, ...(area === undefined ? [] : [area])])
  const laid = below.flatMap((row, i): PlainRow[] => {
    if (row.every((c) => isBlank(c))) return []
    const where = area === undefined ? [cellAt(row, place)] : [cellAt(row, place), cellAt(row, area)]
    const plain = (part: string, day: string): PlainRow => ({
      number: at + 2 + i,
      cells: [...where, part, day, part && `${part} changed`, ...others.map((o) => cellAt(row, o))],
    })
    const told = parts.flatMap((column) => {
      const cell = cellAt(row, column)
      return isBlank(cell) ? [] : (daysIn(cell, know) ?? [cell]).map((day) => plain(cellAt(heading, column), day))
    })
    return told.length === 0 && isPlaces ? [plain('', '')] : told
  })
  const made = [...(area === undefined ? ['gun'] : ['gun', 'area']), 'which part', 'date', 'what']
  const headings = [...made, ...others.map((o) => cellAt(heading, o))]
  return { lies: 'partsAcross', headings, made: made.length, rows: laid, unread: [] }
}

/** Columns that are neither place nor bay nor what lies across: kept beside it as they are. */
const othersOf = (heading: readonly string[], taken: readonly number[]) =>
  heading.flatMap((cell, i) => (taken.includes(i) || isBlank(cell) ? [] : [i]))

/** A line a gun, a day a column, in the cells what was done. */
function acrossDays(rows: Rows, know: Knowing): LaidOut | null {
  const at = headingWhere(rows, (cell) => know.dayOf(cell) !== null, FEWEST_DAYS)
  if (at === null) return null
  const heading = rows[at] ?? []
  const days = heading.flatMap((cell, i) => (know.dayOf(cell) ? [i] : []))
  const { place } = whereOf(heading, days)
  const others = othersOf(heading, [...days, place])
  const laid = rows.slice(at + 1).flatMap((row, i) =>
    days.flatMap((column): PlainRow[] => {
      const cell = cellAt(row, column)
      if (isBlank(cell)) return []
      const day = know.dayOf(cellAt(heading, column)) ?? ''
      return [{ number: at + 2 + i, cells: [cellAt(row, place), day, cell, ...others.map((o) => cellAt(row, o))] }]
    }),
  )
  const headings = [...PLAIN, ...others.map((o) => cellAt(heading, o))]
  return laid.length === 0 ? null : { lies: 'daysAcross', headings, made: PLAIN.length, rows: laid, unread: [] }
}
const PLAIN = ['gun', 'date', 'what'] as const

/** Of the first rows the one most of whose cells are of a sort, if enough are; rows of data hold one such cell at most. */
function headingWhere(rows: Rows, isOne: (cell: string) => boolean, fewest: number): number | null {
  const counts = rows
    .slice(0, LOOK_AT)
    .map((row) => new Set(row.map((c) => c.trim()).filter((c) => c !== '' && isOne(c))).size)
  const most = Math.max(0, ...counts)
  return most >= fewest ? counts.indexOf(most) : null
}

/** The columns of place and bay: by their headings, or else the first column that is none of the others. */
function whereOf(heading: readonly string[], others: readonly number[]): { place: number; area: number | undefined } {
  const named = heading.map((cell, i) => (others.includes(i) ? '' : cell))
  const found = guessColumns(
    named,
    PLACE_COLUMNS.filter((w) => w.key === 'place' || w.key === 'area'),
  )
  const first = heading.findIndex((_, i) => !others.includes(i) && i !== found['area'])
  return { place: found['place'] ?? Math.max(0, first), area: found['area'] }
}

const WHEN = /^\s*((?:[a-z]{3,9}\.?,?\s+)?\d[\d./-]*\d?\.?(?:st|nd|rd|th)?(?:\s+[a-z]{3,9}\.?)?(?:\s+\d{2,4})?)/i
const MONTH_FIRST = /^\s*((?:[a-z]{3,9}\.?,?\s+)?[a-z]{3,9}\.?\s+\d{1,2}(?:st|nd|rd|th)?(?:,?\s+\d{4})?)\b/i

/** The day a line begins with, by the longest beginning that is one; and what is left of the line. */
export function leadingDay(line: string, know: Pick<Knowing, 'dayOf'>): { day: string; rest: string } | null {
  const found = [WHEN, MONTH_FIRST].flatMap((pattern) => pattern.exec(line)?.[1] ?? [])
  for (const whole of found) {
    const words = whole.split(/(?<=\s)/)
    for (let take = words.length; take > 0; take--) {
      const text = words.slice(0, take).join('')
      // "9.11. 2026" is written with a gap before its year.
      const written = text.trim().replace(/\.\s+(?=\d)/g, '.')
      const day = know.dayOf(written.replace(/[.,:]$/, '')) ?? know.dayOf(written)
      if (day) return { day, rest: line.slice(line.indexOf(whole) + text.length).replace(/^[\s:,;.–-]+/, '') }
    }
  }
  return null
}

interface Mention {
  from: number
  to: number
  place: string
}
const BEFORE: ReadonlySet<string> = new Set(['gun', 'booth', 'bay', 'cell', 'bench', 'station', 'machine', 'no', 'nr'])
/** "gun 9", "booth A-4", "cell 2": spoken of as a place, whether anybody painted it on one or not. */
const SPOKEN =
  /\b(gun|booth|cell|station|machine)\s*(?:no\.?|nr\.?|#)?\s*([a-z]{0,2}-?\d{1,3})(?![\p{L}\p{N}]|[.,]\d)/giu
/** "A4 new tip" at the head of a sentence. */
const AT_HEAD = /^\s*([a-z]{1,2}-?\d{1,3})(?![\p{L}\p{N}])/iu

interface Token {
  /** Letters in lower case, or a number without noughts before it. */
  key: string
  from: number
  to: number
}
const tokensOf = (text: string): Token[] =>
  [...text.matchAll(/\p{L}+|\d+/gu)].map((m) => ({
    key: /^\d/.test(m[0]) ? m[0].replace(/^0+(?=\d)/, '') : m[0].toLowerCase(),
    from: m.index,
    to: m.index + m[0].length,
  }))

const keyOf = (name: string) =>
  tokensOf(name)
    .map((t) => t.key)
    .join(' ')

/**
 * Where a text names a place: "A4", "a-4", "gun A4", "booth 7". A name that is only a number counts with such a word before it, or at the head of a line
 * with a colon or dash behind: "2 tips" names no gun. Of two that begin at one word the longer is meant: "Cell 12" is not "Cell 1".
 */
function makeFinder(places: readonly string[]): (text: string) => Mention[] {
  const named = new Map(places.map((place) => [keyOf(place), place]))
  const most = Math.max(0, ...places.map((place) => tokensOf(place).length))
  return (text) => {
    const tokens = tokensOf(text)
    const found: Mention[] = []
    for (let i = 0; i < tokens.length; i++) {
      const hit = longestAt(tokens, i, { text, named, most })
      if (!hit) continue
      found.push(hit.mention)
      i = hit.last
    }
    return found
  }
}

const isLetterOrDigit = (char: string | undefined) => char !== undefined && /[\p{L}\p{N}_]/u.test(char)
const isTogether = (gap: string) => /^[\s-]*$/.test(gap)

function longestAt(
  tokens: readonly Token[],
  first: number,
  of: { text: string; named: ReadonlyMap<string, string>; most: number },
): { mention: Mention; last: number } | null {
  const { text } = of
  const begin = tokens[first]
  if (!begin || isLetterOrDigit(text[begin.from - 1]) || text[begin.from - 1] === '-') return null
  let hit: { mention: Mention; last: number } | null = null
  let key = ''
  for (let last = first; last < Math.min(tokens.length, first + of.most); last++) {
    const token = tokens[last]
    if (!token || (last > first && !isTogether(text.slice(tokens[last - 1]?.to, token.from)))) break
    key = key ? `${key} ${token.key}` : token.key
    const place = of.named.get(key)
    if (place === undefined || isLetterOrDigit(text[token.to])) continue
    const word = tokens[first - 1]
    const isSaid = word !== undefined && BEFORE.has(word.key) && /^[.\s]*$/.test(text.slice(word.to, begin.from))
    const from = isSaid ? word.from : text[begin.from - 1] === '#' ? begin.from - 1 : begin.from
    if (!/^\d+$/.test(key) || isSaid || isNumbered(text, { from: begin.from, to: token.to }))
      hit = { mention: { from, to: token.to, place }, last }
  }
  return hit
}

/** "#4", or "4:" and "4 - " at the head of a line. */
const isNumbered = (text: string, { from, to }: { from: number; to: number }) =>
  text[from - 1] === '#' || (text.slice(0, from).trim() === '' && /^\s*([:–)]|-\s)/.test(text.slice(to)))

const JOINS = /^[\s,&+/]*(?:and)?[\s,&+/]*$/i
/** Who stands before what was done: "A4 and A5: new tips" says it of both. */
function piecesOf(sentence: string, find: (text: string) => Mention[]): { places: string[]; text: string }[] {
  const mentions = find(sentence)
  const [first] = mentions
  if (!first) return [{ places: [], text: sentence.trim() }]
  const head = sentence.slice(0, first.from).trim()
  const pieces: { places: string[]; text: string }[] = []
  let places: string[] = []
  mentions.forEach((m, i) => {
    places.push(m.place)
    const next = mentions[i + 1]
    const text = sentence.slice(m.to, next?.from)
    if (next && JOINS.test(text)) return
    pieces.push({ places, text })
    places = []
  })
  // "New tip on A4": what was done stands before the one gun that is named.
  const [only] = pieces
  if (pieces.length === 1 && only) return [{ places: only.places, text: `${head} ${only.text}`.trim() }]
  return pieces.map((p, i) => ({ places: p.places, text: (i === 0 ? `${head} ${p.text}` : p.text).trim() }))
}

const BEHIND_PLACE = /^[\s:,;.–-]+|[\s,;–-]+$/g

const SENTENCE_END = /(?<=[a-z)"'!?]{2})[.!?]\s+|\s*[;\n]\s*/i

/** The name as it is painted on the place: "gun 9" is 9, "Cell 2" is Cell 2. */
const paintedAs = (word: string, name: string) => (word.toLowerCase() === 'cell' ? `Cell ${name}` : name.toUpperCase())

/**
 * Places a diary speaks of that nobody has set up: by a word before them ("gun 9"), and in a shop without any place also at the head of a sentence
 * ("A4 new tip"), so that work on them is not taken for work on the gun before.
 */
function spokenOf(lines: readonly string[], know: Pick<Knowing, 'dayOf' | 'places'>): string[] {
  const known = new Set(know.places.map(keyOf))
  const spoken = lines.flatMap((line) => {
    const said = [...line.matchAll(SPOKEN)].map(([, word = '', name = '']) => ({ name, full: paintedAs(word, name) }))
    const sentences = know.places.length > 0 ? [] : (leadingDay(line, know)?.rest ?? line).split(SENTENCE_END)
    const heads = sentences.flatMap((text) => AT_HEAD.exec(text)?.[1] ?? [])
    return [...said, ...heads.map((name) => ({ name, full: name.toUpperCase() }))]
  })
  const fresh = spoken.filter(({ name, full }) => !known.has(keyOf(name)) && !known.has(keyOf(full)))
  return [...new Map(fresh.map(({ full }) => [keyOf(full), full])).values()]
}

/** Lines of a diary: a day holds until the next, a gun until the next in its line; a line whose gun nobody can tell is kept as written. */
export function readDiary(lines: readonly string[], know: Knowing): LaidOut | null {
  const dayOf = eachOnce(know.dayOf)
  const find = makeFinder([...know.places, ...spokenOf(lines, { dayOf, places: know.places })])
  const laid: PlainRow[] = []
  const unread: LaidOut['unread'] = []
  let day = ''
  let days = 0
  lines.forEach((line, i) => {
    const number = i + 1
    const begins = leadingDay(line, { dayOf })
    if (begins) {
      day = begins.day
      days++
    }
    const text = (begins?.rest ?? line).trim()
    if (text === '') return
    let places: string[] = []
    for (const sentence of text.split(SENTENCE_END).filter((s) => s.trim()))
      for (const piece of piecesOf(sentence, find)) {
        places = piece.places.length > 0 ? piece.places : places
        const note = piece.text.replace(BEHIND_PLACE, '').replace(/\s+/g, ' ')
        if (places.length === 0) unread.push({ row: number, text: sentence.trim() })
        else if (note) for (const place of places) laid.push({ number, cells: [place, day, note] })
      }
  })
  const named = new Set(laid.map((r) => r.cells[0])).size
  return days === 0 || named < 2
    ? null
    : { lies: 'diary', headings: [...PLAIN], made: PLAIN.length, rows: laid, unread }
}
