import { json, mysqlTable } from 'drizzle-orm/mysql-core'
import { type RunOn } from '@core/clock/clock.ts'
import { type Counter } from '@core/clock/source.ts'
import { idColumn, instantMs, quantity } from './columns.ts'

/** Projected: how a head's clocks run on past their last entry, and the spool that is on. */
export const headNow = mysqlTable('head_now', {
  headId: idColumn<'carrier'>('head_id').primaryKey(),
  runOn: json('run_on').$type<Record<Counter, RunOn | null> & { km?: RunOn | null }>().notNull(),
  lastEntryMs: instantMs('last_entry_ms'),
  spoolWireId: idColumn<'wire'>('spool_wire_id'),
  spoolKg: quantity('spool_kg'),
  spoolMs: instantMs('spool_ms'),
  spoolUsedKg: quantity('spool_used_kg'),
  /** The spool's own record, where the shop tells spools apart. */
  spoolId: idColumn<'spool'>('spool_id'),
  /** One standard deviation of `spoolKg`, which was read or stood on the label at `spoolMs`. */
  spoolSdKg: quantity('spool_sd_kg'),
  loadedMs: instantMs('loaded_ms'),
})
