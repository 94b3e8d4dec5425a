import { mysqlTable, varchar } from 'drizzle-orm/mysql-core'
import { idColumn } from './columns.ts'

export const fitFamily = mysqlTable('fit_family', {
  id: idColumn('id').primaryKey(),
  name: varchar('name', { length: 40 }).notNull().unique(),
})
