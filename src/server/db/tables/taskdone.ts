import { index, mysqlTable, varchar } from 'drizzle-orm/mysql-core'
import { type Overrun } from '@core/ledger/event.ts'
import { type TaskKey } from '@core/guide/keys.ts'
import { idColumn, instantMs, quantity } from './columns.ts'

/** Projected: work done by the list, with the minutes worked. `usualMin`: what it was planned to take, where it was planned. */
export const taskDone = mysqlTable(
  'task_done',
  {
    eventId: idColumn<'event'>('event_id').primaryKey(),
    carrierId: idColumn<'carrier'>('carrier_id').notNull(),
    task: varchar('task', { length: 12 }).$type<TaskKey>().notNull(),
    familyId: idColumn<'family'>('family_id'),
    minutes: quantity('minutes').notNull(),
    usualMin: quantity('usual_min'),
    reason: varchar('reason', { length: 12 }).$type<Overrun>(),
    atMs: instantMs('at_ms').notNull(),
  },
  (t) => [index('task_done_carrier').on(t.carrierId), index('task_done_task').on(t.task, t.familyId)],
)
