import { createHash } from 'node:crypto'
import { and, eq, getTableColumns, getTableName, inArray, type InferSelectModel } from 'drizzle-orm'
import { type MySqlColumn, type MySqlTable } from 'drizzle-orm/mysql-core'
import { insertMany, readMany, type Tx } from '@server/db/db.ts'
import { type Recall, type RowDigests } from './recall.ts'

/** How a projected table is brought in line: the rows it should hold for some owners, and how to tell rows apart. */
export interface Sync<T extends MySqlTable> {
  rows: InferSelectModel<T>[]
  owner: { column: MySqlColumn; ids: readonly string[] }
  key: (row: InferSelectModel<T>) => string
  keyColumn: MySqlColumn
  /** Its own key among those of its owner. */
  keyOf: (row: InferSelectModel<T>) => string
  /** What this server remembers of them: where it does, they are not read. */
  recall?: Recall | undefined
}

const BATCH = 500

const CLOSE = 1e-9

/**
 * Equal as stored. Numbers may differ in the last digits: use is a difference of running sums, and the sums go by the order
 * in which entries were read.
 */
export function isSame(a: unknown, b: unknown): boolean {
  if (a === b) return true
  if (typeof a === 'number' && typeof b === 'number')
    return Math.abs(a - b) <= CLOSE * Math.max(1, Math.abs(a), Math.abs(b))
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false
  const keys = Object.keys(a)
  if (keys.length !== Object.keys(b).length) return false
  return keys.every((key) => isSame((a as Record<string, unknown>)[key], (b as Record<string, unknown>)[key]))
}

/** Writes only what differs, deletes what should not be there. Answers how many rows it touched. */
export async function sync<T extends MySqlTable>(tx: Tx, table: T, what: Sync<T>): Promise<number> {
  if (what.owner.ids.length === 0) return 0
  const ownerName = propertyOf(table, what.owner.column)
  const ownerOf = (row: object) => String((row as Record<string, unknown>)[ownerName])
  const known = what.recall?.rowsOf(getTableName(table), what.owner.ids) ?? null
  const wanted = what.recall ? digestsOf(what, ownerOf) : null
  const { changed, gone } =
    known && wanted
      ? againstKnown(what, { known, wanted, ownerOf })
      : againstStored(what, { stored: await readStored(tx, table, what), ownerOf })
  for (const { owner, key } of gone)
    await tx.delete(table).where(and(eq(what.owner.column, owner), eq(what.keyColumn, key)))
  await insertMany(tx, table, { rows: changed as never, isReplacing: true })
  wanted?.forEach((digests, owner) => what.recall?.keepRows(getTableName(table), owner, digests))
  return changed.length + gone.length
}

interface Differing<T extends MySqlTable> {
  changed: InferSelectModel<T>[]
  gone: { owner: string; key: string }[]
}
type OwnerOf = (row: object) => string

function againstStored<T extends MySqlTable>(
  what: Sync<T>,
  { stored, ownerOf }: { stored: InferSelectModel<T>[]; ownerOf: OwnerOf },
): Differing<T> {
  const kept = new Map(stored.map((row) => [what.key(row), row]))
  const changed = what.rows.filter((row) => {
    const before = kept.get(what.key(row))
    kept.delete(what.key(row))
    return !before || !isSame(before, row)
  })
  return { changed, gone: [...kept.values()].map((row) => ({ owner: ownerOf(row), key: what.keyOf(row) })) }
}

type Digests = ReadonlyMap<string, RowDigests>
function againstKnown<T extends MySqlTable>(
  what: Sync<T>,
  { known, wanted, ownerOf }: { known: Digests; wanted: Digests; ownerOf: OwnerOf },
): Differing<T> {
  const changed = what.rows.filter((row) => {
    const [owner, key] = [ownerOf(row), what.keyOf(row)]
    return known.get(owner)?.get(key) !== wanted.get(owner)?.get(key)
  })
  const gone = [...known].flatMap(([owner, digests]) =>
    [...digests.keys()].filter((key) => !wanted.get(owner)?.has(key)).map((key) => ({ owner, key })),
  )
  return { changed, gone }
}

/** What each owner's rows come to, an owner without any among them. */
function digestsOf<T extends MySqlTable>(what: Sync<T>, ownerOf: OwnerOf): Digests {
  const made = new Map<string, Map<string, number>>(what.owner.ids.map((id) => [id, new Map()]))
  for (const row of what.rows) made.get(ownerOf(row))?.set(what.keyOf(row), digestOf(row))
  return made
}

const DIGEST_BYTES = 6
/** Two rows that differ have the same one once in 10¹⁴. */
const digestOf = (row: object): number =>
  createHash('md5').update(JSON.stringify(row)).digest().readUIntBE(0, DIGEST_BYTES)

function propertyOf(table: MySqlTable, column: MySqlColumn): string {
  return Object.entries(getTableColumns(table)).find(([, c]) => c.name === column.name)?.[0] ?? column.name
}

async function readStored<T extends MySqlTable>(tx: Tx, table: T, what: Sync<T>): Promise<InferSelectModel<T>[]> {
  const rows: InferSelectModel<T>[] = []
  for (let i = 0; i < what.owner.ids.length; i += BATCH) {
    const where = inArray(what.owner.column, what.owner.ids.slice(i, i + BATCH))
    const part = hasBooleans(table) ? await tx.select().from(table).where(where) : await readMany(tx, table, where)
    rows.push(...(part as InferSelectModel<T>[]))
  }
  return rows
}

const hasBooleans = (table: MySqlTable) =>
  Object.values(getTableColumns(table)).some((column) => column.dataType === 'boolean')
