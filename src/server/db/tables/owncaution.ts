import { mysqlTable, varchar } from 'drizzle-orm/mysql-core'
import { type Hazard } from '@core/guide/cautions.ts'
import { idColumn, instantMs } from './columns.ts'

/** The site's own words of a caution, in place of the shipped ones. */
export const ownCaution = mysqlTable('own_caution', {
  hazard: varchar('hazard', { length: 12 }).$type<Hazard>().primaryKey(),
  words: varchar('words', { length: 240 }).notNull(),
  byId: idColumn<'person'>('by_id'),
  atMs: instantMs('at_ms').notNull(),
})
