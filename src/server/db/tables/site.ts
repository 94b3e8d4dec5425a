import { int, json, mysqlTable, varchar } from 'drizzle-orm/mysql-core'
import { idColumn } from './columns.ts'

export const site = mysqlTable('site', {
  id: idColumn<'site'>('id').primaryKey(),
  name: varchar('name', { length: 80 }).notNull(),
  zone: varchar('zone', { length: 40 }).notNull(),
  currency: varchar('currency', { length: 3 }).notNull(),
  units: varchar('units', { length: 8 }).$type<'metric' | 'us'>().notNull(),
  /** What a cubic metre of shielding gas costs, minor units; null: nobody has said. */
  gasMinorPerM3: int('gas_minor_per_m3'),
  /** Words of this shop that are no part of a gun: never asked about again. Null: none yet. */
  otherWords: json('other_words').$type<string[]>(),
})
