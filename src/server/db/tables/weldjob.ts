import { type JobWork } from '@core/spools/jobwire.ts'
import { double, index, json, mysqlTable, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import { idColumn, instantMs } from './columns.ts'

/** A welding job that wants wire. `onId`: the spool it is to be welded from, or the place whose unnumbered spool it is. */
export const weldJob = mysqlTable(
  'weld_job',
  {
    id: idColumn<'job'>('id').primaryKey(),
    name: varchar('name', { length: 80 }).notNull(),
    wireId: idColumn<'wire'>('wire_id').notNull(),
    work: json('work').$type<JobWork>().notNull(),
    onId: varchar('on_id', { length: 40 }),
    madeMs: instantMs('made_ms').notNull(),
    doneMs: instantMs('done_ms'),
    /** What it really took, where somebody weighed; and what was computed then. */
    usedKg: double('used_kg'),
    computedKg: double('computed_kg'),
    idempotencyKey: varchar('idempotency_key', { length: 100 }).notNull(),
  },
  (t) => [uniqueIndex('weld_job_key').on(t.idempotencyKey), index('weld_job_open').on(t.doneMs)],
)
