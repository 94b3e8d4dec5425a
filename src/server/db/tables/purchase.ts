import { type KindKey } from '@core/path/columns.ts'
import { index, mysqlTable, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import { idColumn, instantMs, quantity } from './columns.ts'

/**
 * What was bought in a month: pieces of a kind of part, or kg of wire (`kindKey` null). Append-only truth; of several entries
 * for one item, month and area the one logged last holds.
 */
export const purchase = mysqlTable(
  'purchase',
  {
    id: idColumn<'purchase'>('id').primaryKey(),
    month: varchar('month', { length: 7 }).notNull(),
    /** Bought for one area; null for the whole shop. */
    areaId: idColumn<'area'>('area_id'),
    item: varchar('item', { length: 120 }).notNull(),
    kindKey: varchar('kind_key', { length: 20 }).$type<KindKey>(),
    partId: idColumn<'part'>('part_id'),
    wireId: idColumn<'wire'>('wire_id'),
    quantity: quantity('quantity').notNull(),
    loggedMs: instantMs('logged_ms').notNull(),
    idempotencyKey: varchar('idempotency_key', { length: 100 }).notNull(),
  },
  (t) => [uniqueIndex('purchase_key').on(t.idempotencyKey), index('purchase_month').on(t.month)],
)
