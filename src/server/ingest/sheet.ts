import Papa from 'papaparse'
import {
  FAMILY_COLUMNS,
  guessColumns,
  HISTORY_COLUMNS,
  PART_COLUMNS,
  PLACE_COLUMNS,
  PURCHASE_COLUMNS,
  USAGE_COLUMNS,
  type Wanted,
} from '@core/ingest/columns.ts'
import { findHeading } from '@core/ingest/heading.ts'
import { type BadRow, type ImportKind } from '@contract/ingest.ts'
import { DomainError } from '@server/problem/problem.ts'

export const WANTED: Record<ImportKind, readonly Wanted[]> = {
  places: PLACE_COLUMNS,
  usage: USAGE_COLUMNS,
  history: HISTORY_COLUMNS,
  purchases: PURCHASE_COLUMNS,
  parts: PART_COLUMNS,
  families: FAMILY_COLUMNS,
}
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
  note: 'what was done',
  count: 'how many',
  who: 'who',
  item: 'item',
  month: 'month',
  quantity: 'how many',
  unit: 'unit',
  kind: 'kind of part',
  partName: 'name',
  family: 'fit family',
  size: 'size',
  wires: 'for wire',
  made: 'made of',
  partLength: 'length (m)',
  faces: 'faces',
  forAluminium: 'for aluminium',
  proof: 'fit known by',
  price: 'price',
  onHand: 'on hand',
  thread: 'tip thread',
  pin: 'pin',
  linerHeld: 'liner held by',
  nozzle: 'nozzle',
  neck: 'neck (mm)',
  standsOut: 'liner stands out (mm)',
}

export interface Sheet {
  headings: string[]
  rows: string[][]
  /** The number a spreadsheet shows beside each row: blank rows count, and so does what stands above the heading. */
  numbers: number[]
  columns: Record<string, number>
}
const MOST_ROWS = 20_000

/** A sheet as rows of text, with its heading and columns found, or the columns as given. */
export function readSheet(kind: ImportKind, text: string, given: Record<string, number> | undefined): Sheet {
  const parsed = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), { delimitersToGuess: [',', ';', '\t', '|'] })
  const { headings, dataFrom } = findHeading(parsed.data, WANTED[kind])
  const kept = parsed.data
    .map((row, i) => ({ row, number: i + 1 }))
    .slice(dataFrom)
    .filter(({ row }) => row.some((cell) => cell.trim() !== ''))
  if (kept.length === 0)
    throw new DomainError('sheet-refused', 'There is nothing in that sheet but a heading.', [
      'It needs one row of headings and at least one row under it.',
    ])
  if (kept.length > MOST_ROWS)
    throw new DomainError('sheet-refused', `That sheet has ${kept.length} rows.`, [
      `Bring it in parts of at most ${MOST_ROWS}.`,
    ])
  return {
    headings,
    rows: kept.map((k) => k.row),
    numbers: kept.map((k) => k.number),
    columns: given ?? guessColumns(headings, WANTED[kind]),
  }
}

export function missingColumns(kind: ImportKind, sheet: Sheet): BadRow[] {
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
