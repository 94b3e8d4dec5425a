import { mysqlTable, varchar } from 'drizzle-orm/mysql-core'

export const holiday = mysqlTable('holiday', {
  day: varchar('day', { length: 10 }).primaryKey(),
  name: varchar('name', { length: 60 }).notNull(),
})
