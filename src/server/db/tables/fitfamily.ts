import { json, mysqlTable, varchar } from 'drizzle-orm/mysql-core'
import { type FamilyFit } from '@core/rightparts/facts.ts'
import { idColumn } from './columns.ts'

export const fitFamily = mysqlTable('fit_family', {
  id: idColumn<'family'>('id').primaryKey(),
  name: varchar('name', { length: 40 }).notNull().unique(),
  fit: json('fit').$type<FamilyFit>(),
})
