import { json, mysqlTable, varchar } from 'drizzle-orm/mysql-core'
import { idColumn, instantMs } from './columns.ts'

/** An import that was taken in, whole. The same file again is the same key, and does nothing. */
export const importRun = mysqlTable('import_run', {
  idempotencyKey: varchar('idempotency_key', { length: 100 }).primaryKey(),
  kind: varchar('kind', { length: 12 }).notNull(),
  atMs: instantMs('at_ms').notNull(),
  byId: idColumn<'person'>('by_id'),
  summary: json('summary').$type<Record<string, number>>().notNull(),
  /** The sheet's own headings and which of them meant what: it is given back in them. */
  headings: json('headings').$type<string[]>(),
  columns: json('sheet_columns').$type<Record<string, number>>(),
})
