import { and, eq, getTableColumns, inArray, type InferSelectModel } from 'drizzle-orm'
import { type MySqlColumn, type MySqlTable } from 'drizzle-orm/mysql-core'
import { insertMany, readMany, type Tx } from '@server/db/db.ts'

/** How a projected table is brought in line: the rows it should hold for some owners, and how to tell rows apart. */
export interface Sync<T extends MySqlTable> {
  rows: InferSelectModel<T>[]
  owner: { column: MySqlColumn; ids: readonly string[] }
  key: (row: InferSelectModel<T>) => string
  keyColumn: MySqlColumn
  keyOf: (row: InferSelectModel<T>) => string
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
  const stored = await readStored(tx, table, what)
  const kept = new Map(stored.map((row) => [what.key(row), row]))
  const changed = what.rows.filter((row) => {
    const before = kept.get(what.key(row))
    kept.delete(what.key(row))
    return !before || !isSame(before, row)
  })
  for (const gone of kept.values()) {
    const ownerValue = (gone as Record<string, unknown>)[propertyOf(table, what.owner.column)]
    await tx.delete(table).where(and(eq(what.owner.column, ownerValue), eq(what.keyColumn, what.keyOf(gone))))
  }
  await insertMany(tx, table, { rows: changed as never, isReplacing: true })
  return changed.length + kept.size
}

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
