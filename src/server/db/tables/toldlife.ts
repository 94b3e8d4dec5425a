import { type KindKey } from '@core/path/columns.ts'
import { double, mysqlTable, primaryKey, varchar } from 'drizzle-orm/mysql-core'
import { idColumn, instantMs } from './columns.ts'

/** The lead's word on how long a kind lasts, in the kind's own unit: usual, and early one in ten. `classKey` '*': everywhere. */
export const toldLife = mysqlTable(
  'told_life',
  {
    kindKey: varchar('kind_key', { length: 20 }).$type<KindKey>().notNull(),
    classKey: varchar('class_key', { length: 20 }).notNull(),
    usual: double('usual').notNull(),
    early: double('early').notNull(),
    toldById: idColumn<'person'>('told_by_id'),
    toldMs: instantMs('told_ms').notNull(),
  },
  (t) => [primaryKey({ columns: [t.kindKey, t.classKey] })],
)
