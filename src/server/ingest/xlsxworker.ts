import { Readable } from 'node:stream'
import { parentPort, workerData } from 'node:worker_threads'
import ExcelJS from 'exceljs'
import Papa from 'papaparse'
import { ALL_TABS, oneUnderTheOther } from '@core/ingest/tabs.ts'

/** Reads a workbook row by row in a thread of its own, with a bound on rows and columns: a file that unpacks without end ends here. */
const MOST_ROWS = 21_000
const MOST_COLUMNS = 60

export interface ReadWorkbook {
  text: string
  sheet: string
  /** All sheets of the workbook, in order. */
  sheets: string[]
  isCut: boolean
}

const pad = (n: number) => String(n).padStart(2, '0')
/** A cell as a person sees it: a day as 2026-11-20, with its time where it has one; a formula by its result. */
export function cellText(value: unknown): string {
  if (value === null || value === undefined) return ''
  if (value instanceof Date) {
    const day = value.toISOString().slice(0, 10)
    const minutes = value.getUTCHours() * 60 + value.getUTCMinutes()
    return minutes === 0 ? day : `${day} ${pad(Math.floor(minutes / 60))}:${pad(minutes % 60)}`
  }
  if (typeof value !== 'object') return String(value)
  if ('richText' in value && Array.isArray(value.richText))
    return value.richText.map((part: { text?: string }) => part.text ?? '').join('')
  if ('result' in value) return cellText(value.result)
  return 'text' in value ? cellText(value.text) : ''
}

/** The wanted sheet, or the first with anything in it; all are named. All of them come one under the other, each row with its tab and number before it. */
export async function readWorkbook(bytes: Uint8Array, wanted: string | null = null): Promise<ReadWorkbook> {
  const reader = new ExcelJS.stream.xlsx.WorkbookReader(Readable.from(Buffer.from(bytes)), {
    sharedStrings: 'cache',
    styles: 'cache',
    hyperlinks: 'ignore',
    worksheets: 'emit',
    entries: 'ignore',
  })
  const read: { name: string; rows: string[][] }[] = []
  let isCut = false
  for await (const worksheet of reader) {
    const name = (worksheet as unknown as { name?: string }).name ?? 'a sheet'
    const isDone = wanted !== ALL_TABS && read.length > 0
    if (isDone) break
    if (wanted !== null && wanted !== ALL_TABS && name !== wanted) {
      // What comes before the wanted one has to be run through.
      for await (const _ of worksheet);
      continue
    }
    const left = MOST_ROWS - read.reduce((sum, tab) => sum + tab.rows.length, 0)
    const tab = await rowsOf(worksheet, left)
    isCut ||= tab.isCut
    if (tab.rows.some((r) => r.some((c) => c.trim() !== ''))) read.push({ name, rows: tab.rows })
  }
  const rows = wanted === ALL_TABS && read.length > 1 ? oneUnderTheOther(read) : (read[0]?.rows ?? [])
  const sheet = wanted === ALL_TABS && read.length > 1 ? ALL_TABS : (read[0]?.name ?? '')
  return { text: Papa.unparse(rows, { newline: '\n' }), sheet, sheets: namesOf(reader), isCut }
}

async function rowsOf(worksheet: AsyncIterable<ExcelJS.Row>, most: number) {
  const rows: string[][] = []
  for await (const row of worksheet) {
    if (row.number > most) return { rows, isCut: true }
    while (rows.length < row.number - 1) rows.push([])
    const values = Array.isArray(row.values) ? row.values.slice(1, MOST_COLUMNS + 1) : []
    rows.push(Array.from(values, cellText))
  }
  return { rows, isCut: false }
}

/** The reader knows the workbook's own list once it has begun; its types do not tell. */
function namesOf(reader: object): string[] {
  const { model } = reader as { model?: { sheets?: { name?: unknown }[] } }
  return (model?.sheets ?? []).flatMap((s) => (typeof s.name === 'string' ? [s.name] : []))
}

if (parentPort) {
  const port = parentPort
  const { bytes, wanted } = workerData as { bytes: Uint8Array; wanted: string | null }
  readWorkbook(bytes, wanted).then(
    (read) => port.postMessage({ read }),
    // What the reader trips over means nothing to whoever sent the file.
    () => port.postMessage({ problem: 'it is damaged, or made by a program that writes workbooks its own way' }),
  )
}
