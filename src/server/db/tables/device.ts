import { boolean, mysqlTable, varchar } from 'drizzle-orm/mysql-core'
import { idColumn, instantMs } from './columns.ts'

/** A tablet or phone that belongs to a place: an area, one station, or (neither) the whole site. */
export const device = mysqlTable('device', {
  id: idColumn<'device'>('id').primaryKey(),
  name: varchar('name', { length: 60 }).notNull(),
  areaId: idColumn<'area'>('area_id'),
  stationId: idColumn<'station'>('station_id'),
  linkHash: varchar('link_hash', { length: 64 }),
  linkExpiresMs: instantMs('link_expires_ms'),
  /** The key of the request that made it: asked for again, the same device gets a fresh link. */
  linkKey: varchar('link_key', { length: 100 }).unique(),
  tokenHash: varchar('token_hash', { length: 64 }).unique(),
  boundMs: instantMs('bound_ms'),
  isActive: boolean('is_active').notNull().default(true),
})
