import { bigint, char, index, mysqlTable, varchar } from 'drizzle-orm/mysql-core'

/** What a key was first sent with, so that it stands for that and nothing else. Of no use after some weeks: nothing waits longer on a device. */
export const requestKey = mysqlTable(
  'request_key',
  {
    key: varchar('request_key', { length: 80 }).primaryKey(),
    /** SHA-256 of route and content. */
    hash: char('hash', { length: 64 }).notNull(),
    atMs: bigint('at_ms', { mode: 'number' }).notNull(),
  },
  (t) => [index('request_key_at').on(t.atMs)],
)
