import { type KindKey } from '@core/path/columns.ts'
import { boolean, double, index, int, mysqlTable, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import { idColumn, instantMs } from './columns.ts'

/**
 * An area's tin of old parts on the scale. Append-only truth; weighed twice on one day, the last holds. What one part weighs
 * stands on each line, as it was known then.
 */
export const tinWeighing = mysqlTable(
  'tin_weighing',
  {
    id: idColumn<'tin'>('id').primaryKey(),
    areaId: idColumn<'area'>('area_id').notNull(),
    kindKey: varchar('kind_key', { length: 20 }).$type<KindKey>().notNull(),
    day: varchar('day', { length: 10 }).notNull(),
    atMs: instantMs('at_ms').notNull(),
    grams: double('grams').notNull(),
    gramsEach: double('grams_each').notNull(),
    /** How many were counted and weighed together to find what one weighs. */
    pieces: int('pieces').notNull(),
    isEmptied: boolean('is_emptied').notNull(),
    loggedMs: instantMs('logged_ms').notNull(),
    idempotencyKey: varchar('idempotency_key', { length: 100 }).notNull(),
  },
  (t) => [uniqueIndex('tin_key').on(t.idempotencyKey), index('tin_area').on(t.areaId, t.kindKey)],
)
