import { type KindKey } from '@core/path/columns.ts'
import { double, int, json, mysqlTable, varchar } from 'drizzle-orm/mysql-core'
import { type PartFit } from '@core/rightparts/facts.ts'
import { idColumn } from './columns.ts'

export const part = mysqlTable('part', {
  id: idColumn<'part'>('id').primaryKey(),
  code: varchar('code', { length: 40 }).notNull().unique(),
  name: varchar('name', { length: 80 }).notNull(),
  kindKey: varchar('kind_key', { length: 20 }).$type<KindKey>().notNull(),
  familyId: idColumn<'family'>('family_id'),
  wireSizeMm: double('wire_size_mm'),
  priceMinor: int('price_minor'),
  fit: json('fit').$type<PartFit>(),
  /** Where it lies, in the shop's own words. */
  shelf: varchar('shelf', { length: 40 }),
  /** No more of it go there; null: nobody said. */
  shelfMost: int('shelf_most'),
})
