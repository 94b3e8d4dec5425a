import { type Position } from '@core/path/columns.ts'
import { int, json, mysqlTable, primaryKey, varchar } from 'drizzle-orm/mysql-core'
import { type Exposure } from '@core/ledger/exposure.ts'
import { idColumn, instantMs } from './columns.ts'

/** Projected: what is on a position, and the use it had when the head's clock was last entered. */
export const positionNow = mysqlTable(
  'position_now',
  {
    carrierId: idColumn<'carrier'>('carrier_id').notNull(),
    position: varchar('position', { length: 24 }).$type<Position>().notNull(),
    partId: idColumn<'part'>('part_id'),
    fittedMs: instantMs('fitted_ms'),
    fittedEventId: idColumn<'event'>('fitted_event_id'),
    entryAge: varchar('entry_age', { length: 8 }).$type<'new' | 'unknown'>(),
    cleanedMs: instantMs('cleaned_ms'),
    cleanings: int('cleanings').notNull(),
    seenMs: instantMs('seen_ms'),
    /** Since when the chain up to a station has hung together; null while it is off. */
    chainFromMs: instantMs('chain_from_ms'),
    /** Times the gun was seated, and spools put on, since the part went on. */
    matings: int('matings').notNull(),
    spools: int('spools').notNull(),
    sinceFitted: json('since_fitted').$type<Exposure>(),
    sinceCleaned: json('since_cleaned').$type<Exposure>(),
  },
  (t) => [primaryKey({ columns: [t.carrierId, t.position] })],
)
