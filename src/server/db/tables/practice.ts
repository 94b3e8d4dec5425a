import { type DrillAct, type Scenario } from '@core/practice/drill.ts'
import { type FaultKey } from '@core/practice/faults.ts'
import { boolean, double, index, json, mysqlTable, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import { idColumn, instantMs } from './columns.ts'

/** A drill of the practice booth played to its end; of a group, of nobody by name. */
export const practiceAttempt = mysqlTable(
  'practice_attempt',
  {
    id: idColumn<'attempt'>('id').primaryKey(),
    groupId: idColumn<'group'>('group_id'),
    stationId: idColumn<'station'>('station_id'),
    setId: idColumn<'drillSet'>('set_id'),
    day: varchar('day', { length: 10 }).notNull(),
    atMs: instantMs('at_ms').notNull(),
    idempotencyKey: varchar('idempotency_key', { length: 100 }).notNull(),
    complaint: varchar('complaint', { length: 40 }).notNull(),
    faults: json('faults').$type<FaultKey[]>().notNull(),
    acts: json('acts').$type<DrillAct[]>().notNull(),
    minutes: double('minutes').notNull(),
    bestMin: double('best_min').notNull(),
  },
  (t) => [uniqueIndex('practice_key').on(t.idempotencyKey), index('practice_group').on(t.groupId, t.atMs)],
)
/** Drills that somebody set for a group, or for all. */
export const drillSet = mysqlTable(
  'drill_set',
  {
    id: idColumn<'drillSet'>('id').primaryKey(),
    name: varchar('name', { length: 60 }).notNull(),
    groupId: idColumn<'group'>('group_id'),
    scenarios: json('scenarios').$type<Scenario[]>().notNull(),
    atMs: instantMs('at_ms').notNull(),
    isActive: boolean('is_active').notNull().default(true),
  },
  (t) => [index('drill_set_active').on(t.isActive)],
)
