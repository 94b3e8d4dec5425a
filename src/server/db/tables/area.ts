import { int, json, mysqlTable, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import { type Built } from '@core/shop/built.ts'
import { idColumn } from './columns.ts'

export const area = mysqlTable(
  'area',
  {
    id: idColumn<'area'>('id').primaryKey(),
    siteId: idColumn<'site'>('site_id').notNull(),
    name: varchar('name', { length: 60 }).notNull(),
    walkOrder: int('walk_order').notNull(),
    /** How guns here are built; a gun's own differences stand on its station. */
    built: json('built').$type<Built>().notNull(),
    /** Where its guns get parts from while any lie there; null: the main place alone. */
    storeId: idColumn<'store'>('store_id'),
  },
  (t) => [uniqueIndex('area_name').on(t.siteId, t.name)],
)
