import { ALL_TABS } from '@core/ingest/tabs.ts'
import { type ReadFileAnswer } from '@contract/ingest.ts'
import { mustLead, type Who } from '@server/call/context.ts'
import { DomainError } from '@server/problem/problem.ts'
import { openThread } from '@server/thread/open.ts'
import { type ReadWorkbook } from './xlsxworker.ts'

/** Any file a person drags in, as rows of text or a refusal that says what it is and what to do. */
const SAVE_AS = ['Open it in a spreadsheet and save the sheet as CSV or XLSX.']
const KINDS: readonly { name: string; starts: readonly number[] }[] = [
  { name: 'a PDF', starts: [0x25, 0x50, 0x44, 0x46] },
  { name: 'an old workbook (XLS)', starts: [0xd0, 0xcf, 0x11, 0xe0] },
  { name: 'a picture', starts: [0x89, 0x50, 0x4e, 0x47] },
  { name: 'a picture', starts: [0xff, 0xd8, 0xff] },
  { name: 'a compressed file', starts: [0x1f, 0x8b] },
]
const ZIP = [0x50, 0x4b, 0x03, 0x04]
const begins = (bytes: Uint8Array, starts: readonly number[]) => starts.every((byte, i) => bytes[i] === byte)

export async function readFile(who: Who, bytes: Uint8Array, wanted: string | null = null): Promise<ReadFileAnswer> {
  mustLead(who)
  if (bytes.length === 0) throw new DomainError('sheet-refused', 'That file is empty.', SAVE_AS)
  const known = KINDS.find((kind) => begins(bytes, kind.starts))
  if (known) throw new DomainError('sheet-refused', `That file is ${known.name}, whatever its name says.`, SAVE_AS)
  if (begins(bytes, ZIP)) return fromWorkbook(bytes, wanted)
  return decode(bytes)
}

/** UTF-8, UTF-16 by its mark, else the western code page that spreadsheets on older desks write. */
export function decode(bytes: Uint8Array): ReadFileAnswer {
  if (begins(bytes, [0xff, 0xfe]))
    return { text: new TextDecoder('utf-16le').decode(bytes), notes: ['read as UTF-16'], sheets: [], sheet: null }
  if (begins(bytes, [0xfe, 0xff]))
    return { text: new TextDecoder('utf-16be').decode(bytes), notes: ['read as UTF-16'], sheets: [], sheet: null }
  const nul = bytes.indexOf(0)
  if (nul >= 0)
    throw new DomainError('sheet-refused', `That file is no text: there is a NUL byte at place ${nul + 1}.`, SAVE_AS)
  try {
    return { text: new TextDecoder('utf-8', { fatal: true }).decode(bytes), notes: [], sheets: [], sheet: null }
  } catch {
    // Not valid UTF-8: every byte has a meaning in this code page, so nothing is lost; the preview shows whether it reads well.
    return {
      text: new TextDecoder('windows-1252').decode(bytes),
      notes: ['read as Windows western text'],
      sheets: [],
      sheet: null,
    }
  }
}

const LONGEST_MS = 20_000
const MOST_MEMORY_MB = 384

async function fromWorkbook(bytes: Uint8Array, wanted: string | null): Promise<ReadFileAnswer> {
  const { text, sheet, sheets, isCut } = await inWorker(bytes, wanted)
  if (!text.trim()) throw new DomainError('sheet-refused', 'There is nothing in that workbook.', SAVE_AS)
  const notes = [sheet === ALL_TABS ? 'read all tabs, one under the other' : `read the sheet "${sheet}"`]
  if (isCut) notes.push('cut after 21,000 rows')
  return { text, notes, sheets, sheet }
}

const openWorker = (bytes: Uint8Array, wanted: string | null) =>
  openThread(new URL('./xlsxworker.js', import.meta.url), {
    workerData: { bytes, wanted },
    resourceLimits: { maxOldGenerationSizeMb: MOST_MEMORY_MB },
  })

/** One at a time: two that are slow would each be taken for endless. */
let lastOne: Promise<unknown> = Promise.resolve()
function inWorker(bytes: Uint8Array, wanted: string | null): Promise<ReadWorkbook> {
  const mine = lastOne.then(() => readInWorker(bytes, wanted))
  lastOne = mine.catch(() => undefined)
  return mine
}

type Said = { begun: true } | { read: ReadWorkbook } | { problem: string }
function readInWorker(bytes: Uint8Array, wanted: string | null): Promise<ReadWorkbook> {
  return new Promise((done, fail) => {
    const worker = openWorker(bytes, wanted)
    const refuse = (why: string) =>
      fail(new DomainError('sheet-refused', `That workbook can't be read: ${why}.`, SAVE_AS))
    let timer = setTimeout(() => end(() => fail(TOO_BUSY)), BEGUN_WITHIN_MS)
    const end = (how: () => void) => {
      clearTimeout(timer)
      how()
      void worker.terminate()
    }
    worker.on('message', (said: Said) => {
      if ('read' in said) return end(() => done(said.read))
      if ('problem' in said) return end(() => refuse(said.problem))
      // A machine with much to do takes long to begin: that is no fault of the file's.
      clearTimeout(timer)
      timer = setTimeout(() => end(() => refuse('it unpacks without end')), LONGEST_MS)
    })
    worker.once('error', () => end(() => refuse('it unpacks to more than fits')))
    worker.once('exit', () => end(() => refuse('it is damaged')))
  })
}
const BEGUN_WITHIN_MS = 60_000
const TOO_BUSY = new DomainError('busy', 'This machine has too much to do to read that workbook now.', [
  'Try it again in a minute.',
])
