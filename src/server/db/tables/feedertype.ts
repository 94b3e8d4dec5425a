import { json, mysqlTable, varchar } from 'drizzle-orm/mysql-core'
import { type FeederFit } from '@core/rightparts/facts.ts'
import { idColumn } from './columns.ts'

/** A make-up of feeder that the shop has: rolls, which face runs, how wire leaves the spool, what it can do. */
export const feederType = mysqlTable('feeder_type', {
  id: idColumn<'feederType'>('id').primaryKey(),
  name: varchar('name', { length: 40 }).notNull().unique(),
  fit: json('fit').$type<FeederFit>().notNull(),
})
