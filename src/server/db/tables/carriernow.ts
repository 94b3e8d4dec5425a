import { json, mysqlTable, varchar } from 'drizzle-orm/mysql-core'
import { type Tag } from '@core/changeover/tags.ts'
import { type FoundOn } from '@core/cleaning/interval.ts'
import { type PendingFollowUps } from '@core/followup/followup.ts'
import { type FoldedCalibration, type FoldedSetting, type FoldedTag } from '@core/ledger/fold.ts'
import { type GunStatus } from '@core/ledger/event.ts'
import { type Stuck } from '@core/liner/resistance.ts'
import { type LinerEvidence } from '@core/liner/signs.ts'
import { type ReadingKey } from '@core/reading/keys.ts'
import { type Alarm } from '@core/reading/alarms.ts'
import { type SettingName } from '@core/rightparts/facts.ts'
import { idColumn, instantMs } from './columns.ts'

/** Projected: how a carrier is set, what hangs on it as a reminder, what its acts and readings ask for, and whether a loose gun is ready. */
export const carrierNow = mysqlTable('carrier_now', {
  carrierId: idColumn<'carrier'>('carrier_id').primaryKey(),
  settings: json('settings').$type<Partial<Record<SettingName, FoldedSetting>>>().notNull(),
  tags: json('tags').$type<Partial<Record<Tag, FoldedTag>>>().notNull(),
  followUps: json('follow_ups').$type<PendingFollowUps>().notNull().default({}),
  /** What readings ask for. */
  alarms: json('alarms').$type<Alarm[]>().notNull().default([]),
  /** How shut its nozzle was found before cleanings, newest last. */
  foundClosed: json('found_closed').$type<FoundOn[]>().notNull().default([]),
  /** When each thing was last read, however. */
  lastRead: json('last_read').$type<Partial<Record<ReadingKey, number>>>().notNull().default({}),
  /** Where liners stuck on their way into its cable. */
  stuck: json('stuck').$type<Stuck[]>().notNull().default([]),
  /** What speaks of the liner that is in it; null where nothing does. */
  liner: json('liner').$type<LinerEvidence>(),
  /** Traction of a feeder's knob by slip pulls, while the same rolls are on. */
  calibration: json('calibration').$type<FoldedCalibration>(),
  status: varchar('gun_status', { length: 12 }).$type<GunStatus>(),
  statusMs: instantMs('status_ms'),
})
