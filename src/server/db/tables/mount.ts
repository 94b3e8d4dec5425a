import { index, mysqlTable, primaryKey } from 'drizzle-orm/mysql-core'
import { idColumn, instantMs } from './columns.ts'

/** Projected: which carrier hung on which, from when to when. */
export const mount = mysqlTable(
  'mount',
  {
    childId: idColumn<'carrier'>('child_id').notNull(),
    onId: idColumn<'carrier'>('on_id').notNull(),
    fromMs: instantMs('from_ms').notNull(),
    toMs: instantMs('to_ms'),
    fromEventId: idColumn<'event'>('from_event_id').notNull(),
  },
  (t) => [primaryKey({ columns: [t.childId, t.fromEventId] }), index('mount_on').on(t.onId)],
)
