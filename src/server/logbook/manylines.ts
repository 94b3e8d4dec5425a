import { and, inArray, like, not, notLike, or, type SQL } from 'drizzle-orm'
import { type FactKind } from '@core/ledger/event.ts'
import { ledgerEvent } from '@server/db/schema.ts'

/**
 * Acts that are one thing to people and many lines to the ledger. Their keys begin with a word and are numbered from #0, and
 * the first line speaks for all of them: a change of wire ("chg/…#0"), work done by a list ("job/…#0"), a look at how a gun is
 * built ("look/…#0"), a follow-up said of two carriers ("fol/…#0"), a reading with what it ties and settles
 * ("read/…#0"). They stand and fall together.
 */
export const CHANGE = 'chg/'
export const JOB = 'job/'
export const LOOK = 'look/'
export const FOLLOWED = 'fol/'
export const READ = 'read/'
/** What a stop turned out to be. */
export const EXPLAINED = 'why/'
/** One value of a machine set by itself, and the settings kept at the end. */
export const TUNED_LINE = 'tune/'
/** Looks at one gun of a walk: the worst speaks for all. */
export const WALKED = 'walk/'

/** Acts of which only the first line is read. */
const ONE_LINE = [LOOK, FOLLOWED, WALKED]
/** Acts whose other lines are read too, except those that say nothing by themselves; parts that went on do. */
const MANY_LINES = [CHANGE, JOB, READ]
const SILENT: readonly FactKind[] = ['setting', 'tied', 'untied', 'wireLoaded', 'removed', 'taskDone', 'followedUp']

const isOf = (key: string, acts: readonly string[]) => acts.some((act) => key.startsWith(act))
const isFirst = (key: string) => key.endsWith('#0')
const keyLike = (pattern: string) => like(ledgerEvent.idempotencyKey, pattern)

/** The lines that people read: as a condition, so that hidden ones take no place in a short list. */
export const isToRead: SQL | undefined = and(
  notLike(ledgerEvent.idempotencyKey, 'mount/%'),
  ...ONE_LINE.map((act) => or(notLike(ledgerEvent.idempotencyKey, `${act}%`), keyLike(`${act}%#0`))),
  not(
    and(
      or(...MANY_LINES.map((act) => keyLike(`${act}%`))),
      notLike(ledgerEvent.idempotencyKey, `${JOB}%#0`),
      inArray(ledgerEvent.kind, [...SILENT]),
    ) as SQL,
  ),
)

/** The same of a line in hand. */
export function isReadLine(row: { idempotencyKey: string; kind: string }): boolean {
  const { idempotencyKey: key, kind } = row
  if (isOf(key, ONE_LINE)) return isFirst(key) || kind === 'corrected'
  if (key.startsWith(JOB) && isFirst(key)) return true
  return !(isOf(key, MANY_LINES) && SILENT.some((k) => k === kind))
}

export const isLookLine = (key: string) => key.startsWith(LOOK)

/** All lines of the act whose first line this is; null for a line that stands alone. */
export function siblingsOf(key: string): SQL | null {
  const isMany = isOf(key, [...MANY_LINES, ...ONE_LINE]) && isFirst(key)
  if (!isMany) return null
  return linesUnder(key.slice(0, -'#0'.length))
}

/** The numbered lines of the act that was sent under a key. */
export const linesUnder = (key: string): SQL => like(ledgerEvent.idempotencyKey, `${key.replace(/[\\%_]/g, '\\$&')}#%`)
