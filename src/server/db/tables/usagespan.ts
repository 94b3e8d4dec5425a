import { mysqlTable, primaryKey, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import { type UsageSource } from '@core/clock/source.ts'
import { idColumn, instantMs, quantity } from './columns.ts'

/** What a head used between two instants, as one source tells it. Append-only: a later entry for the same time wins. */
export const usageSpan = mysqlTable(
  'usage_span',
  {
    id: idColumn<'usage'>('id').notNull(),
    headId: idColumn<'carrier'>('head_id').notNull(),
    fromMs: instantMs('from_ms').notNull(),
    toMs: instantMs('to_ms').notNull(),
    source: varchar('source', { length: 10 }).$type<UsageSource>().notNull(),
    kg: quantity('wire_kg'),
    arcHours: quantity('arc_hours'),
    starts: quantity('arc_starts'),
    loggedMs: instantMs('logged_ms').notNull(),
    idempotencyKey: varchar('idempotency_key', { length: 100 }).notNull(),
  },
  // A head's entries lie together on disk: the clock reads them all at once.
  (t) => [primaryKey({ columns: [t.headId, t.fromMs, t.id] }), uniqueIndex('usage_key').on(t.idempotencyKey)],
)
