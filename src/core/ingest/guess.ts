import {
  FAMILY_COLUMNS,
  guessColumns,
  HISTORY_COLUMNS,
  PART_COLUMNS,
  PLACE_COLUMNS,
  PURCHASE_COLUMNS,
  USAGE_COLUMNS,
  type Wanted,
} from './columns.ts'
import { findHeading } from './heading.ts'

/** What a sheet can hold, and the columns each wants; where two fit as well, the earlier is meant. */
export const SHEET_KINDS = ['history', 'usage', 'places', 'parts', 'purchases', 'families'] as const
export type SheetKind = (typeof SHEET_KINDS)[number]
export const WANTED: Record<SheetKind, readonly Wanted[]> = {
  places: PLACE_COLUMNS,
  usage: USAGE_COLUMNS,
  history: HISTORY_COLUMNS,
  purchases: PURCHASE_COLUMNS,
  parts: PART_COLUMNS,
  families: FAMILY_COLUMNS,
}
/** One of these makes the sheet what it is: a list of guns and days without an amount is no usage. */
const TELLING: Partial<Record<SheetKind, readonly string[]>> = {
  usage: ['arcHours', 'kg', 'starts'],
  parts: ['price', 'kind', 'family', 'onHand'],
  families: ['thread', 'pin', 'linerHeld', 'neck'],
}
const MISSING = 3
/** A bay can be said once for the whole sheet. */
const MISSING_SAYABLE = 0.5
const SAYABLE: ReadonlySet<string> = new Set(['area'])

/**
 * What a sheet most likely holds, by which columns are found under its headings and which that are needed are not; and how many were found.
 * @example guessKind([['timestamp', 'machine', 'arc_on_s'], …]).kind // 'usage'
 */
export function guessKind(rows: readonly (readonly string[])[]): { kind: SheetKind; columns: number } {
  return SHEET_KINDS.map((kind) => scored(kind, rows)).reduce((best, next) => (next.score > best.score ? next : best))
}

function scored(kind: SheetKind, rows: readonly (readonly string[])[]) {
  const wanted = WANTED[kind]
  const found = guessColumns(findHeading(rows, wanted).headings, wanted)
  const missing = wanted.filter((w) => w.isNeeded && !(w.key in found))
  const lacks = missing.reduce((sum, w) => sum + (SAYABLE.has(w.key) ? MISSING_SAYABLE : MISSING), 0)
  const telling = TELLING[kind]
  const isTelling = !telling || telling.some((key) => key in found)
  const columns = Object.keys(found).length
  return { kind, columns, score: columns - lacks - (isTelling ? 0 : MISSING) }
}
