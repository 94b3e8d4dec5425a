import { boolean, int, mysqlTable, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import { idColumn } from './columns.ts'

/** A place where parts lie besides the main one: a cupboard at the cells, a drawer in a classroom. Which areas it serves stands with the areas. */
export const store = mysqlTable(
  'store',
  {
    id: idColumn<'store'>('id').primaryKey(),
    name: varchar('name', { length: 40 }).notNull(),
    /** It is filled up for so many days. */
    fillDays: int('fill_days').notNull(),
    /** One that was given up keeps its row: the log speaks of it. */
    isActive: boolean('is_active').notNull(),
  },
  (t) => [uniqueIndex('store_name').on(t.name)],
)
