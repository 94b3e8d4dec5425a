import { json, mysqlTable, varchar } from 'drizzle-orm/mysql-core'
import { type ProcedureFit } from '@core/rightparts/facts.ts'
import { idColumn } from './columns.ts'

/** A written procedure: which wire, gas and settings for which weld. Places name the one they weld by. */
export const procedure = mysqlTable('weld_procedure', {
  id: idColumn<'procedure'>('id').primaryKey(),
  name: varchar('name', { length: 60 }).notNull().unique(),
  fit: json('fit').$type<ProcedureFit>().notNull(),
})
