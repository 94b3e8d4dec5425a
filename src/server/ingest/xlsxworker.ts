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

/** Whether it unpacks to no more than fits, found by unpacking it piece by piece and keeping nothing. */
export function fits(bytes: Uint8Array, most = MOST_BYTES): boolean {
  let unpacked = 0
  const zip = new Unzip((file) => {
    file.ondata = (problem, piece) => {
      if (problem) throw problem
      unpacked += piece.length
      if (unpacked > most) file.terminate()
    }
    file.start()
  })
  zip.register(UnzipInflate)
  // A sixteenth of a megabyte of a bomb is some sixty megabytes: looked at after each piece.
  for (let at = 0; at < bytes.length && unpacked <= most; at += PIECE)
    zip.push(bytes.subarray(at, at + PIECE), at + PIECE >= bytes.length)
  return unpacked <= most
}
const PIECE = 65_536

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
  const read = async () =>
    fits(bytes) ? { read: await readWorkbook(bytes, wanted) } : { problem: 'it unpacks to more than fits' }
  read().then(
    (said) => port.postMessage(said),
    // What the reader trips over means nothing to whoever sent the file.
    () => port.postMessage({ problem: 'it is damaged, or made by a program that writes workbooks its own way' }),
  )
}
