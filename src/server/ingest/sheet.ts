import Papa from 'papaparse'
import { guessColumns } from '@core/ingest/columns.ts'
import { CELL_COLUMNS } from '@core/ingest/cellsheet.ts'
import { WANTED } from '@core/ingest/guess.ts'
import { findHeading } from '@core/ingest/heading.ts'
import { eachOnce } from '@core/ingest/once.ts'
import { layOut, readDiary, type Knowing, type LaidOut, type Lies } from '@core/ingest/shape.ts'
import { kindFromWord } from '@core/path/kinds.ts'
import { isTabbed } from '@core/ingest/tabs.ts'
import { type BadRow, type ImportKind, type ImportRequest } from '@contract/ingest.ts'
import { DomainError } from '@server/problem/problem.ts'

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
  rated: 'rated (A)',
  proof: 'fit known by',
  price: 'price',
  pricePer: 'per (pieces)',
  onHand: 'on hand',
  thread: 'tip thread',
  pin: 'pin',
  linerHeld: 'liner held by',
  nozzle: 'nozzle',
  neck: 'neck (mm)',
  standsOut: 'liner stands out (mm)',
  placeClass: 'kind of place',
  ...Object.fromEntries(CELL_COLUMNS.map((c) => [c.key, c.label])),
}

export interface Sheet {
  headings: string[]
  rows: string[][]
  /** The number a spreadsheet shows beside each row: blank rows count, and so does what stands above the heading. */
  numbers: number[]
  columns: Record<string, number>
  /** How it lay, where it was no table of one thing a row. */
  lies: Lies | null
  /** How many headings were made in laying it out. */
  made: number
  /** What could not be laid out, as written. */
  unread: { row: number; text: string }[]
  /** What stands above the heading: a title, a bill's date. */
  above: string[]
  /** Of a workbook's tabs one under the other: which row of which tab a row is. */
  rowNames: Record<number, string>
}
const MOST_ROWS = 20_000

/** The rows of a sheet's text as they stand, with the number of each. */
const parseRows = (text: string): string[][] =>
  Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), { delimitersToGuess: [',', ';', '\t', '|'] }).data

/** A sheet's text as it was looked at: each way it could lie is read once, however often it is asked for. */
export interface LookedAt {
  know: Knowing
  rows: string[][]
  laid: (isPlaces: boolean) => LaidOut | null
  diary: () => LaidOut | null
}
export function lookAt(text: string, know: Knowing): LookedAt {
  const rows = parseRows(text)
  const laid = eachOnce((as) => layOut(rows, know, { isPlaces: as === 'places' }))
  const diary = eachOnce(() => readDiary(text.replace(/^\uFEFF/, '').split(/\r?\n/), know))
  return { know, rows, laid: (isPlaces) => laid(isPlaces ? 'places' : ''), diary: () => diary('') }
}

/** A sheet as rows of text, however it lies, with its heading and columns found, or the columns as given. */
export function readSheet(request: Pick<ImportRequest, 'kind' | 'columns' | 'fill'>, seen: LookedAt): Sheet {
  const { kind } = request
  const { rows, know } = seen
  const laid = laidOutOf(kind, seen)
  const table = laid ? null : tableOf(rows, kind)
  const kept = laid?.rows ?? table?.kept ?? []
  if (kept.length === 0)
    throw new DomainError('sheet-refused', 'There is nothing in that sheet but a heading.', [
      'It needs one row of headings and at least one row under it.',
    ])
  if (kept.length > MOST_ROWS)
    throw new DomainError('sheet-refused', `That sheet has ${kept.length} rows.`, [
      `Bring it in parts of at most ${MOST_ROWS}.`,
    ])
  const headings = laid?.headings ?? table?.headings ?? []
  const sheet: Sheet = {
    headings,
    rows: kept.map((k) => k.cells),
    numbers: kept.map((k) => k.number),
    columns: request.columns ?? columnsOf(kind, { headings, rows: kept.map((k) => k.cells), know }),
    lies: laid?.lies ?? null,
    made: laid?.made ?? 0,
    unread: laid?.unread ?? [],
    above: table?.above ?? [],
    rowNames: isTabbed(rows) ? Object.fromEntries(rows.map((r, i) => [i + 1, `${r[0] ?? ''}, row ${r[1] ?? ''}`])) : {},
  }
  return filled(sheet, request.fill ?? {})
}

/** Columns by their headings; one headed "part" that holds kinds of parts says which part, and no code. */
function columnsOf(
  kind: ImportKind,
  at: { headings: string[]; rows: string[][]; know: Knowing },
): Record<string, number> {
  const found = guessColumns(at.headings, WANTED[kind])
  const { part, position, ...rest } = found
  if (kind !== 'places' || part === undefined || position !== undefined) return found
  const filled = at.rows.map((row) => (row[part] ?? '').trim()).filter(Boolean)
  const kinds = filled.filter((text) => kindFromWord(text, at.know.kinds) !== null)
  return kinds.length > 0 && kinds.length * 2 >= filled.length ? { ...rest, position: part } : found
}

function laidOutOf(kind: ImportKind, seen: LookedAt): LaidOut | null {
  if (kind !== 'places' && kind !== 'history') return null
  const laid = seen.laid(kind === 'places')
  if (laid || kind === 'places') return laid
  const found = guessColumns(findHeading(seen.rows, WANTED.history).headings, WANTED.history)
  const isTable = WANTED.history.every((w) => !w.isNeeded || w.key in found)
  return isTable ? null : seen.diary()
}

function tableOf(rows: string[][], kind: ImportKind) {
  const { headings, dataFrom } = findHeading(rows, WANTED[kind])
  const kept = rows
    .map((cells, i) => ({ cells, number: i + 1 }))
    .slice(dataFrom)
    .filter(({ cells }) => cells.some((cell) => cell.trim() !== ''))
  const above = rows.slice(0, dataFrom - 1).flatMap((row) => row.map((c) => c.trim()).filter(Boolean))
  return { headings, kept, above }
}

/** What holds for every row of a sheet that has no column for it. */
function filled(sheet: Sheet, fill: Record<string, string>): Sheet {
  const given = Object.entries(fill).filter(([key, value]) => value.trim() !== '' && sheet.columns[key] === undefined)
  return given.reduce(
    (now, [key, value]) => ({
      ...now,
      headings: [...now.headings, LABELS[key] ?? key],
      rows: now.rows.map((row) => [
        ...Array.from({ length: now.headings.length }, (_, i) => row[i] ?? ''),
        value.trim(),
      ]),
      columns: { ...now.columns, [key]: now.headings.length },
    }),
    sheet,
  )
}

export function missingColumns(kind: ImportKind, sheet: Sheet): BadRow[] {
  return WANTED[kind]
    .filter((w) => w.isNeeded && sheet.columns[w.key] === undefined)
    .map((w) => ({
      row: 1,
      column: LABELS[w.key] ?? w.key,
      value: '',
      why: `no column for "${LABELS[w.key] ?? w.key}" was found; pick one, or head it ${w.words
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
