import { index, int, mysqlTable, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import { idColumn, instantMs, quantity } from './columns.ts'

/** A spool or drum the shop tells apart: the number written on its flange. All else about it stands in the ledger. */
export const spool = mysqlTable(
  'spool',
  {
    id: idColumn<'spool'>('id').primaryKey(),
    number: int('number').notNull(),
    createdMs: instantMs('created_ms').notNull(),
  },
  (t) => [uniqueIndex('spool_number').on(t.number)],
)

/** Projected: where a spool is, and what was on it when somebody last knew. */
export const spoolNow = mysqlTable(
  'spool_now',
  {
    spoolId: idColumn<'spool'>('spool_id').primaryKey(),
    wireId: idColumn<'wire'>('wire_id'),
    labelKg: quantity('label_kg'),
    lot: varchar('lot', { length: 60 }),
    tareKg: quantity('tare_kg'),
    inMs: instantMs('in_ms').notNull(),
    headId: idColumn<'carrier'>('head_id'),
    sinceMs: instantMs('since_ms'),
    baseKg: quantity('base_kg'),
    baseSdKg: quantity('base_sd_kg'),
    baseMs: instantMs('base_ms'),
    baseHow: varchar('base_how', { length: 10 }),
    lostKg: quantity('lost_kg').notNull(),
    goneMs: instantMs('gone_ms'),
    goneKg: quantity('gone_kg'),
  },
  (t) => [index('spool_gone').on(t.goneMs)],
)
