import { type Position } from '@core/path/columns.ts'
import { index, mysqlTable, varchar } from 'drizzle-orm/mysql-core'
import { idColumn, instantMs, quantity } from './columns.ts'

/** Projected: times a gun stood. `minutes` counts scheduled time only. */
export const stoppage = mysqlTable(
  'stoppage',
  {
    fromEventId: idColumn<'event'>('from_event_id').primaryKey(),
    stationId: idColumn<'station'>('station_id').notNull(),
    position: varchar('position', { length: 24 }).$type<Position>(),
    fromMs: instantMs('from_ms').notNull(),
    toMs: instantMs('to_ms'),
    endedBy: varchar('ended_by', { length: 8 }).$type<'running' | 'log'>(),
    minutes: quantity('minutes'),
  },
  (t) => [
    index('stoppage_station').on(t.stationId, t.fromMs),
    index('stoppage_from').on(t.fromMs),
    index('stoppage_to').on(t.toMs),
  ],
)
