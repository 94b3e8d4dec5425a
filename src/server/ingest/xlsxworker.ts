import { parentPort, workerData } from 'node:worker_threads'
import { Unzip, UnzipInflate } from 'fflate'
import Papa from 'papaparse'
import readAllSheets from 'read-excel-file/node'
import { ALL_TABS, oneUnderTheOther } from '@core/ingest/tabs.ts'

/** Reads a workbook in a thread of its own, whose memory and time are bounded: a file that unpacks without end ends there. */
const MOST_ROWS = 21_000
const MOST_COLUMNS = 60
/** What a workbook may unpack to; 21,000 rows of sixty words are a third of it. What it says of itself is not believed. */
const MOST_BYTES = 160e6

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
  if (!(value instanceof Date)) return String(value)
  const day = value.toISOString().slice(0, 10)
  const minutes = value.getUTCHours() * 60 + value.getUTCMinutes()
  return minutes === 0 ? day : `${day} ${pad(Math.floor(minutes / 60))}:${pad(minutes % 60)}`
}

/**
 * Why it cannot be read, null where it can: it unpacks to more than fits, or a sheet's cells reach too far (a space typed by mistake in the last row
 * makes a million rows of it). Found by unpacking it piece by piece and keeping nothing.
 */
export function tooMuch(bytes: Uint8Array, most = MOST_BYTES): string | null {
  let unpacked = 0
  let far: string | null = null
  const zip = new Unzip((file) => {
    const reach = file.name.includes('worksheets/') ? reachOf() : null
    file.ondata = (problem, piece) => {
      if (problem) throw problem
      unpacked += piece.length
      far ??= reach?.(piece) ?? null
      if (unpacked > most || far !== null) file.terminate()
    }
    file.start()
  })
  zip.register(UnzipInflate)
  // A sixteenth of a megabyte of a bomb is some sixty megabytes: looked at after each piece.
  for (let at = 0; at < bytes.length && unpacked <= most && far === null; at += PIECE)
    zip.push(bytes.subarray(at, at + PIECE), at + PIECE >= bytes.length)
  if (far !== null) return `a sheet reaches to cell ${far}; delete what lies beyond the table`
  return unpacked > most ? 'it unpacks to more than fits' : null
}
const PIECE = 65_536
/** Cells of a sheet, empty ones between its first and its last with them: sixteen columns of all rows there are (17 million) can be read, twenty (21) cannot. */
const MOST_CELLS = 22e6

/** Given a sheet piece by piece: the cell it reaches to, as soon as that is too far. */
function reachOf(): (piece: Uint8Array) => string | null {
  const read = new TextDecoder()
  const last = { column: '', columns: 0, row: 0 }
  let rest = ''
  return (piece) => {
    const text = rest + read.decode(piece, { stream: true })
    for (const [, column = '', row] of text.matchAll(/ r="([A-Z]{1,3})(\d{1,7})"/g)) {
      const columns = [...column].reduce((n, letter) => 26 * n + letter.charCodeAt(0) - 64, 0)
      if (columns > last.columns) Object.assign(last, { column, columns })
      last.row = Math.max(last.row, Number(row))
    }
    // A reference may be cut by the end of a piece.
    rest = text.slice(-20)
    return last.columns * last.row > MOST_CELLS ? `${last.column}${last.row}` : null
  }
}

/** The wanted sheet, or the first with anything in it; all are named. All of them come one under the other, each row with its tab and number before it. */
export async function readWorkbook(bytes: Uint8Array, wanted: string | null = null): Promise<ReadWorkbook> {
  const all = (await readAllSheets(Buffer.from(bytes))).map(({ sheet, data }) => ({
    name: sheet,
    rows: data.slice(0, MOST_ROWS).map((row) => row.slice(0, MOST_COLUMNS).map(cellText)),
    isCut: data.length > MOST_ROWS,
  }))
  const filled = all.filter(({ rows }) => rows.some((r) => r.some((c) => c.trim() !== '')))
  const sheets = all.map(({ name }) => name)
  if (wanted === ALL_TABS && filled.length > 1) {
    const rows = oneUnderTheOther(filled)
    return { ...written(rows.slice(0, MOST_ROWS)), sheet: ALL_TABS, sheets, isCut: rows.length > MOST_ROWS }
  }
  const one = wanted === null || wanted === ALL_TABS ? filled[0] : filled.find(({ name }) => name === wanted)
  return { ...written(one?.rows ?? []), sheet: one?.name ?? '', sheets, isCut: one?.isCut ?? false }
}

const written = (rows: string[][]) => ({ text: Papa.unparse(rows, { newline: '\n' }) })

if (parentPort) {
  const port = parentPort
  // From here on it is the file that takes time, not the machine.
  port.postMessage({ begun: true })
  const { bytes, wanted } = workerData as { bytes: Uint8Array; wanted: string | null }
  const read = async () => {
    const problem = tooMuch(bytes)
    return problem === null ? { read: await readWorkbook(bytes, wanted) } : { problem }
  }
  read().then(
    (said) => port.postMessage(said),
    // What the reader trips over means nothing to whoever sent the file.
    () => port.postMessage({ problem: 'it is damaged, or made by a program that writes workbooks its own way' }),
  )
}
