import { json, mysqlTable } from 'drizzle-orm/mysql-core'
import { type StartsWatch } from '@core/cell/starts.ts'
import { type GunWatch } from '@core/cell/watch.ts'
import { idColumn, instantMs } from './columns.ts'

/** What the watch keeps of a feeder that sends its motor's current: worked out from rows, and begun anew with the gun. */
export const gunWatch = mysqlTable('gun_watch', {
  headId: idColumn<'carrier'>('head_id').primaryKey(),
  gunId: idColumn<'carrier'>('gun_id'),
  /** Rows up to then are in it. */
  atMs: instantMs('at_ms').notNull(),
  watch: json('watch').$type<GunWatch & { starts?: StartsWatch }>().notNull(),
  /** When a reading was last written down from it. */
  keptMs: instantMs('kept_ms'),
})
