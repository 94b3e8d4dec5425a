import { type Position } from '@core/path/columns.ts'
import { boolean, mysqlTable, varchar } from 'drizzle-orm/mysql-core'
import { idColumn, instantMs } from './columns.ts'

/** Projected: what hangs at a station, and whether it is down or parked. */
export const stationNow = mysqlTable('station_now', {
  stationId: idColumn<'station'>('station_id').primaryKey(),
  headId: idColumn<'carrier'>('head_id'),
  gunId: idColumn<'carrier'>('gun_id'),
  /** The neck on its gun, where necks go round. */
  neckId: idColumn<'carrier'>('neck_id'),
  downSinceMs: instantMs('down_since_ms'),
  downPosition: varchar('down_position', { length: 24 }).$type<Position>(),
  isParked: boolean('is_parked').notNull(),
  lastMs: instantMs('last_ms'),
})
