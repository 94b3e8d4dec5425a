import { and, inArray, like, not, notLike, or, type SQL } from 'drizzle-orm'
import { type FactKind } from '@core/ledger/event.ts'
import { ledgerEvent } from '@server/db/schema.ts'

/**
 * Acts that are one thing to people and many lines to the ledger. Their keys begin with a word and are numbered from #0, and
 * the first line speaks for all of them: a change of wire ("chg/…#0"), a look at how a gun is built ("look/…#0"). They stand
 * and fall together.
 */
export const CHANGE = 'chg/'
export const LOOK = 'look/'

/** Lines of a change that say nothing by themselves; parts that went on do. */
const SILENT_IN_CHANGE: readonly FactKind[] = ['setting', 'tied', 'untied', 'wireLoaded', 'removed']

const isFirst = (key: string) => key.endsWith('#0')

/** The lines that people read: as a condition, so that hidden ones take no place in a short list. */
export const isToRead: SQL | undefined = and(
  notLike(ledgerEvent.idempotencyKey, 'mount/%'),
  or(notLike(ledgerEvent.idempotencyKey, `${LOOK}%`), like(ledgerEvent.idempotencyKey, `${LOOK}%#0`)),
  not(and(like(ledgerEvent.idempotencyKey, `${CHANGE}%`), inArray(ledgerEvent.kind, [...SILENT_IN_CHANGE])) as SQL),
)

/** The same of a line in hand. */
export function isReadLine(row: { idempotencyKey: string; kind: string }): boolean {
  const { idempotencyKey: key, kind } = row
  if (key.startsWith(LOOK)) return isFirst(key) || kind === 'corrected'
  return !(key.startsWith(CHANGE) && SILENT_IN_CHANGE.some((k) => k === kind))
}

export const isLookLine = (key: string) => key.startsWith(LOOK)

/** All lines of the act whose first line this is; null for a line that stands alone. */
export function siblingsOf(key: string): SQL | null {
  const isMany = (key.startsWith(CHANGE) || key.startsWith(LOOK)) && isFirst(key)
  if (!isMany) return null
  return linesUnder(key.slice(0, -'#0'.length))
}

/** The numbered lines of the act that was sent under a key. */
export const linesUnder = (key: string): SQL => like(ledgerEvent.idempotencyKey, `${key.replace(/[\\%_]/g, '\\$&')}#%`)
