import { int, mysqlTable } from 'drizzle-orm/mysql-core'
import { idColumn, instantMs } from './columns.ts'

/** Projected: parts on hand, from the last count on: count + received − put on. */
export const stockNow = mysqlTable('stock_now', {
  partId: idColumn<'part'>('part_id').primaryKey(),
  onHand: int('on_hand').notNull(),
  countedMs: instantMs('counted_ms'),
})
