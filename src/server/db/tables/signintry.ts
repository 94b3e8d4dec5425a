import { bigint, int, mysqlTable, varchar } from 'drizzle-orm/mysql-core'

/** Sign-ins that failed lately, by whom and from where; the same for all servers of a shop. */
export const signInTry = mysqlTable('sign_in_try', {
  who: varchar('who', { length: 160 }).primaryKey(),
  fromMs: bigint('from_ms', { mode: 'number' }).notNull(),
  failed: int('failed').notNull(),
})
