import { index, int, json, mysqlTable, varchar } from 'drizzle-orm/mysql-core'
import { type CarrierType, type Position } from '@core/path/columns.ts'
import { type GunBuilt } from '@core/shop/built.ts'
import { idColumn } from './columns.ts'

/** Anything that carries parts: the station itself, a feeder head, a gun or torch, a neck. Which hangs on which is in `mount`. */
export const carrier = mysqlTable(
  'carrier',
  {
    id: idColumn<'carrier'>('id').primaryKey(),
    type: varchar('type', { length: 8 }).$type<CarrierType>().notNull(),
    name: varchar('name', { length: 40 }).notNull(),
    /** Set on the station's own carrier only. */
    stationId: idColumn<'station'>('station_id'),
    /** Positions this one has, in path order; a kind, or kind#lane. */
    positions: json('positions').$type<Position[]>().notNull(),
    /** What a gun is, wherever it hangs; null: as the place it hangs at. */
    built: json('built').$type<GunBuilt>(),
    /** Counts projections of this carrier; rows read at one revision hold until the next. */
    revision: int('revision').notNull().default(0),
    /** Counts acts that spoke of it (or entered use of it), in the transaction that wrote them: what was read of its lines at one count holds until the next. */
    said: int('said').notNull().default(0),
  },
  (t) => [index('carrier_station').on(t.stationId)],
)
