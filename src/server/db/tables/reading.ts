import { index, json, mysqlTable, varchar } from 'drizzle-orm/mysql-core'
import { type How, type ReadingKey, type ReadingVerdict } from '@core/reading/keys.ts'
import { idColumn, instantMs, quantity } from './columns.ts'

/** Projected: what was read on a gun, with the wire its chain had fed by then. */
export const reading = mysqlTable(
  'reading',
  {
    eventId: idColumn<'event'>('event_id').primaryKey(),
    carrierId: idColumn<'carrier'>('carrier_id').notNull(),
    what: varchar('what', { length: 12 }).$type<ReadingKey>().notNull(),
    method: varchar('method', { length: 16 }).notNull(),
    how: varchar('how', { length: 8 }).$type<How>().notNull(),
    value: quantity('value'),
    leftAt: quantity('left_at'),
    grade: varchar('grade', { length: 16 }),
    verdict: varchar('verdict', { length: 4 }).$type<ReadingVerdict>().notNull(),
    headId: idColumn<'carrier'>('head_id'),
    wireId: idColumn<'wire'>('wire_id'),
    limitValue: quantity('limit_value'),
    madeFrom: json('made_from').$type<Record<string, number | number[]>>().notNull(),
    atMs: instantMs('at_ms').notNull(),
    kg: quantity('kg'),
    arcHours: quantity('arc_hours'),
  },
  (t) => [
    index('reading_carrier').on(t.carrierId, t.atMs),
    index('reading_at').on(t.atMs),
    index('reading_head').on(t.headId, t.what),
  ],
)
