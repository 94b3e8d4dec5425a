import { int, mysqlTable, primaryKey } from 'drizzle-orm/mysql-core'
import { NO_ID } from '@core/ids/id.ts'
import { idColumn, instantMs } from './columns.ts'

/** Projected: parts on hand in one place where they lie, from the last count on: count + received − put on. The main place has no id. */
export const stockNow = mysqlTable(
  'stock_now',
  {
    partId: idColumn<'part'>('part_id').notNull(),
    storeId: idColumn<'store'>('store_id').notNull().default(NO_ID),
    onHand: int('on_hand').notNull(),
    countedMs: instantMs('counted_ms'),
  },
  (t) => [primaryKey({ columns: [t.partId, t.storeId] })],
)
