import { int, mysqlTable, varchar } from 'drizzle-orm/mysql-core'

export const stationClass = mysqlTable('station_class', {
  key: varchar('class_key', { length: 20 }).primaryKey(),
  name: varchar('name', { length: 40 }).notNull(),
  labourMinorPerHour: int('labour_minor_per_hour').notNull(),
  stopMinorPerHour: int('stop_minor_per_hour').notNull(),
  /** What a piece of work costs that is scrapped; 0: nobody said. */
  scrapMinorPerPiece: int('scrap_minor_per_piece').notNull().default(0),
})
