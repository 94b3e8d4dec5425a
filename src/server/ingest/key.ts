import { createHash } from 'node:crypto'
import { type ImportRequest } from '@contract/ingest.ts'
import { type PlannedUsage } from './usage.ts'

export const shortHash = (text: string) => createHash('sha256').update(text).digest('hex').slice(0, 40)

/** A row is the same row when place, time and amounts are: the same file twice changes nothing, a mended total is a new entry. */
export const usageKey = (row: PlannedUsage) =>
  `sheet/${shortHash(`${row.identity} ${row.kg} ${row.arcHours} ${row.starts}`)}`

/** A sheet is the same sheet when its content and its columns are. */
export function sheetKey(request: ImportRequest): string {
  const { decisions, leaveOutBad, fill, names } = request
  // What decides nothing is left out, so that a plain sheet keeps the key it had before there were decisions.
  const said: unknown[] = decisions || leaveOutBad ? [Object.entries(decisions ?? {}).sort(), leaveOutBad ?? false] : []
  for (const more of [fill, names]) if (more && Object.keys(more).length > 0) said.push(Object.entries(more).sort())
  return `import/${shortHash(JSON.stringify([request.kind, request.text, request.columns ?? null, ...said]))}`
}
