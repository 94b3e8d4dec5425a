import { bigint, index, mysqlTable, varchar } from 'drizzle-orm/mysql-core'

/** What a device brought after it had no link and that could not be kept, so that whoever leads hears of it; the entry itself stays on the device. */
export const refusedEntry = mysqlTable(
  'refused_entry',
  {
    id: bigint('id', { mode: 'number' }).autoincrement().primaryKey(),
    atMs: bigint('at_ms', { mode: 'number' }).notNull(),
    /** Whose device or name it came under, as it was called then. */
    fromName: varchar('from_name', { length: 130 }).notNull(),
    why: varchar('why', { length: 300 }).notNull(),
    /** Of the entry: sent again it is one refusal. */
    key: varchar('entry_key', { length: 100 }).notNull().unique(),
  },
  (t) => [index('refused_entry_at').on(t.atMs)],
)
