import { bigint, mysqlTable, varchar } from 'drizzle-orm/mysql-core'

/** Work that one server does at a time, whichever database node it talks to: who has it, and until when by the database's clock. */
export const lease = mysqlTable('lease', {
  name: varchar('name', { length: 40 }).primaryKey(),
  holder: varchar('holder', { length: 40 }).notNull(),
  untilMs: bigint('until_ms', { mode: 'number' }).notNull(),
})
