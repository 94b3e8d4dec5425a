import { type KindKey } from '@core/path/columns.ts'
import { json, mysqlTable, primaryKey, varchar } from 'drizzle-orm/mysql-core'
import { type KeptFit } from '@core/life/kept.ts'
import { instantMs } from './columns.ts'

/** Worked out: how long a kind of part lasts at a class of places, as Floor, the guns and Down read it. `basis` tells of which lives. */
export const lifeFit = mysqlTable(
  'life_fit',
  {
    kindKey: varchar('kind_key', { length: 20 }).$type<KindKey>().notNull(),
    classKey: varchar('class_key', { length: 20 }).notNull(),
    basis: varchar('basis', { length: 120 }).notNull(),
    fit: json('fit').$type<KeptFit>().notNull(),
    madeMs: instantMs('made_ms').notNull(),
  },
  (t) => [primaryKey({ columns: [t.kindKey, t.classKey] })],
)
