import { boolean, index, int, mysqlTable, primaryKey, varchar } from 'drizzle-orm/mysql-core'
import { idColumn, instantMs, quantity } from './columns.ts'

/** Equipment that sends its counters: which head it is, its token (only the hash), and the newest row in its order. */
export const feeder = mysqlTable(
  'feeder',
  {
    equipmentId: varchar('equipment_id', { length: 40 }).primaryKey(),
    headId: idColumn<'carrier'>('head_id').notNull(),
    tokenHash: varchar('token_hash', { length: 64 }).notNull().unique(),
    isActive: boolean('is_active').notNull().default(true),
    bootId: varchar('boot_id', { length: 40 }),
    seq: int('seq'),
    atMs: instantMs('at_ms'),
    wireFedM: quantity('wire_fed_m'),
    arcOnS: quantity('arc_on_s'),
    arcStarts: quantity('arc_starts'),
    isArcOn: boolean('is_arc_on').notNull().default(false),
    receivedMs: instantMs('received_ms'),
    clockOffMs: instantMs('clock_off_ms'),
    /** Rows up to then are kept one in some seconds only. */
    thinnedMs: instantMs('thinned_ms'),
    /** Set when hours changed that the head's clock has not been counted with yet. */
    dirtyMs: instantMs('dirty_ms'),
  },
  (t) => [index('feeder_head').on(t.headId), index('feeder_dirty').on(t.dirtyMs)],
)

/** Rows as they came, kept for two weeks, so that late ones find their place. */
export const telemetryRow = mysqlTable(
  'telemetry_row',
  {
    equipmentId: varchar('equipment_id', { length: 40 }).notNull(),
    bootId: varchar('boot_id', { length: 40 }).notNull(),
    seq: int('seq').notNull(),
    atMs: instantMs('at_ms').notNull(),
    wireFedM: quantity('wire_fed_m').notNull(),
    arcOnS: quantity('arc_on_s').notNull(),
    arcStarts: quantity('arc_starts').notNull(),
    amps: quantity('amps'),
    volts: quantity('volts'),
    motorAmps: quantity('motor_amps'),
    gasFlowLpm: quantity('gas_flow_lpm'),
    rollFedM: quantity('roll_fed_m'),
    startsFailed: quantity('starts_failed'),
  },
  (t) => [
    primaryKey({ columns: [t.equipmentId, t.bootId, t.seq] }),
    index('telemetry_time').on(t.equipmentId, t.atMs),
    index('telemetry_age').on(t.atMs),
  ],
)

/** Use per hour and equipment: part of the truth, kept for ever. Clocks read these, not the rows. */
export const telemetryHour = mysqlTable(
  'telemetry_hour',
  {
    headId: idColumn<'carrier'>('head_id').notNull(),
    equipmentId: varchar('equipment_id', { length: 40 }).notNull(),
    hourMs: instantMs('hour_ms').notNull(),
    /** The last moment of the hour that a row speaks of. */
    toMs: instantMs('to_ms').notNull(),
    wireFedM: quantity('wire_fed_m').notNull(),
    arcOnS: quantity('arc_on_s').notNull(),
    arcStarts: quantity('arc_starts').notNull(),
  },
  (t) => [primaryKey({ columns: [t.headId, t.equipmentId, t.hourMs] })],
)
