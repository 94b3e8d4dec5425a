import Papa from 'papaparse'
import { isValid, parse } from 'date-fns'
import { guessColumns, PLACE_COLUMNS, USAGE_COLUMNS, type Wanted } from '@core/ingest/columns.ts'
import { type BadRow } from '@contract/ingest.ts'
import { DomainError } from '@server/http/problem.ts'

export const WANTED: Record<'places' | 'usage', readonly Wanted[]> = { places: PLACE_COLUMNS, usage: USAGE_COLUMNS }
export const LABELS: Record<string, string> = {
  place: 'place',
  area: 'area',
  position: 'which part',
  part: 'part code',
  fitted: 'put on (date)',
  wire: 'wire',
  cable: 'cable (m)',
  date: 'date',
  shift: 'shift',
  arcHours: 'arc hours',
  kg: 'wire (kg)',
  starts: 'arc starts',
}

export interface Sheet {
  headings: string[]
  rows: string[][]
  columns: Record<string, number>
}
const MOST_ROWS = 20_000

/** A sheet as rows of text, with its columns found or as given. Rows are numbered as a spreadsheet does: heading is 1. */
export function readSheet(kind: 'places' | 'usage', text: string, given: Record<string, number> | undefined): Sheet {
  const parsed = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), {
    skipEmptyLines: 'greedy',
    delimitersToGuess: [',', ';', '\t', '|'],
  })
  const [headings, ...rows] = parsed.data
  if (!headings || rows.length === 0)
    throw new DomainError('sheet-refused', 'There is nothing in that sheet but a heading.', [
      'It needs one row of headings and at least one row under it.',
    ])
  if (rows.length > MOST_ROWS)
    throw new DomainError('sheet-refused', `That sheet has ${rows.length} rows.`, [
      `Bring it in parts of at most ${MOST_ROWS}.`,
    ])
  const columns = given ?? guessColumns(headings, WANTED[kind])
  return { headings: headings.map((h) => h.trim()), rows, columns }
}

export function missingColumns(kind: 'places' | 'usage', sheet: Sheet): BadRow[] {
  return WANTED[kind]
    .filter((w) => w.isNeeded && sheet.columns[w.key] === undefined)
    .map((w) => ({
      row: 1,
      column: LABELS[w.key] ?? w.key,
      value: '',
      why: `no column for "${LABELS[w.key] ?? w.key}" was found; pick one above, or head it ${w.words
        .slice(0, 3)
        .map((x) => `"${x}"`)
        .join(' or ')}`,
    }))
}

/** The text under a wanted column in a row; empty where the sheet has no such column. */
export const cellOf = (sheet: Sheet, row: readonly string[], key: string): string => {
  const index = sheet.columns[key]
  return index === undefined ? '' : (row[index] ?? '').trim()
}

/** A cell that can't be taken: where it is, what it says, and why. */
export const badCell = (
  sheet: Sheet,
  row: readonly string[],
  at: { key: string; why: string; number: number },
): BadRow => ({
  row: at.number,
  column: sheet.headings[sheet.columns[at.key] ?? -1] ?? LABELS[at.key] ?? at.key,
  value: cellOf(sheet, row, at.key),
  why: at.why,
})

const DAY_FORMATS = ['yyyy-MM-dd', 'dd.MM.yyyy', 'd.M.yyyy', 'dd/MM/yyyy', 'yyyy/MM/dd', 'd MMM yyyy']
const US_FORMATS = ['yyyy-MM-dd', 'MM/dd/yyyy', 'M/d/yyyy', 'yyyy/MM/dd', 'MMM d, yyyy']

/** A day as people write it; day before month, unless the shop measures in US units. Null when it is no day. */
export function parseDay(text: string, units: 'metric' | 'us'): string | null {
  const plain = text.trim().replace(/[T ]\d{2}:\d{2}(:\d{2})?$/, '')
  for (const format of units === 'us' ? US_FORMATS : DAY_FORMATS) {
    const day = parse(`${plain} Z`, `${format} X`, new Date(0))
    if (isValid(day) && day.getUTCFullYear() > 1990 && day.getUTCFullYear() < 2200)
      return day.toISOString().slice(0, 10)
  }
  return null
}
