import { index, int, mysqlTable, primaryKey, varchar } from 'drizzle-orm/mysql-core'
import { type OutReason, type KindKey, type Position } from '@core/path/columns.ts'
import { type Precision } from '@core/ledger/event.ts'
import { idColumn, instantMs, quantity } from './columns.ts'

/** Projected: every ended life, with the use it did. Open ones are in `position_now`. */
export const life = mysqlTable(
  'life',
  {
    fromEventId: idColumn<'event'>('from_event_id').notNull(),
    carrierId: idColumn<'carrier'>('carrier_id').notNull(),
    position: varchar('position', { length: 24 }).$type<Position>().notNull(),
    kindKey: varchar('kind_key', { length: 20 }).$type<KindKey>().notNull(),
    partId: idColumn<'part'>('part_id'),
    classKey: varchar('class_key', { length: 20 }),
    fromMs: instantMs('from_ms').notNull(),
    fromPrecision: varchar('from_precision', { length: 6 }).$type<Precision>().notNull(),
    entryAge: varchar('entry_age', { length: 8 }).$type<'new' | 'unknown'>().notNull(),
    toMs: instantMs('to_ms').notNull(),
    toPrecision: varchar('to_precision', { length: 6 }).$type<Precision>().notNull(),
    toEventId: idColumn<'event'>('to_event_id').notNull(),
    outReason: varchar('out_reason', { length: 12 }).$type<OutReason>().notNull(),
    parts: int('parts').notNull(),
    kg: quantity('wire_kg'),
    /** Length of wire through it; null also where no kind of part goes by length. */
    km: quantity('wire_km'),
    arcHours: quantity('arc_hours'),
    starts: quantity('arc_starts'),
    cleanings: int('cleanings').notNull(),
    matings: int('matings').notNull(),
    spools: int('spools').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.carrierId, t.fromEventId] }),
    index('life_kind').on(t.kindKey, t.classKey, t.toMs),
    index('life_to').on(t.toEventId),
    index('life_ended').on(t.toMs),
  ],
)
