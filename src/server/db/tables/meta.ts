import { mysqlTable, varchar } from 'drizzle-orm/mysql-core'

export const meta = mysqlTable('meta', {
  key: varchar('meta_key', { length: 40 }).primaryKey(),
  value: varchar('value', { length: 200 }).notNull(),
})
