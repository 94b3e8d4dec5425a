import { mysqlTable, varchar } from 'drizzle-orm/mysql-core'
import { idColumn } from './columns.ts'

export const site = mysqlTable('site', {
  id: idColumn('id').primaryKey(),
  name: varchar('name', { length: 80 }).notNull(),
  zone: varchar('zone', { length: 40 }).notNull(),
  currency: varchar('currency', { length: 3 }).notNull(),
  units: varchar('units', { length: 8 }).$type<'metric' | 'us'>().notNull(),
})
