import { index, int, json, mysqlTable, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import { type ActKind } from '@core/ledger/acts.ts'
import { type FactKind, type LedgerEvent, type Precision } from '@core/ledger/event.ts'
import { idColumn, instantMs } from './columns.ts'

/** The truth: append-only. `rootId` is the fact at the bottom of a chain of corrections; a fact is its own root. */
export const ledgerEvent = mysqlTable(
  'ledger_event',
  {
    id: idColumn<'event'>('id').primaryKey(),
    rootId: idColumn<'event'>('root_id').notNull(),
    /** The first line of the act it belongs to; an act of one line is its own. */
    actId: idColumn<'event'>('act_id').notNull(),
    actKind: varchar('act_kind', { length: 12 }).$type<ActKind>().notNull(),
    lineNo: int('line_no').notNull(),
    kind: varchar('kind', { length: 16 }).$type<FactKind | 'corrected'>().notNull(),
    carrierId: idColumn<'carrier'>('carrier_id'),
    stationId: idColumn<'station'>('station_id'),
    partId: idColumn<'part'>('part_id'),
    spoolId: idColumn<'spool'>('spool_id'),
    happenedMs: instantMs('happened_ms').notNull(),
    precision: varchar('happened_precision', { length: 6 }).$type<Precision>().notNull(),
    loggedMs: instantMs('logged_ms').notNull(),
    personId: idColumn<'person'>('person_id'),
    deviceId: idColumn<'device'>('device_id'),
    note: varchar('note', { length: 200 }),
    body: json('body').$type<LedgerEvent['body']>().notNull(),
    /** What the act was sent under, on its first line: unique among acts of its kind. */
    idempotencyKey: varchar('idempotency_key', { length: 100 }),
  },
  (t) => [
    uniqueIndex('ledger_key').on(t.idempotencyKey, t.actKind),
    uniqueIndex('ledger_act').on(t.actId, t.lineNo),
    index('ledger_root').on(t.rootId),
    index('ledger_carrier').on(t.carrierId, t.rootId),
    index('ledger_station').on(t.stationId, t.rootId),
    index('ledger_part_kind').on(t.partId, t.kind, t.happenedMs),
    index('ledger_spool').on(t.spoolId),
    index('ledger_kind').on(t.kind, t.happenedMs, t.rootId),
    index('ledger_happened').on(t.happenedMs),
    index('ledger_logged').on(t.loggedMs),
    index('ledger_act_kind').on(t.actKind, t.happenedMs),
  ],
)
