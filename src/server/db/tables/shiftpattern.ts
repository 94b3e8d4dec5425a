import { json, mysqlTable, varchar } from 'drizzle-orm/mysql-core'
import { idColumn } from './columns.ts'

export interface ShiftBreak {
  start: string
  minutes: number
}
/** One shift of the week in the site's wall time; `areaId` null: for every area without patterns of its own. */
export const shiftPattern = mysqlTable('shift_pattern', {
  id: idColumn<'pattern'>('id').primaryKey(),
  areaId: idColumn<'area'>('area_id'),
  name: varchar('name', { length: 40 }).notNull(),
  /** 1 Monday … 7 Sunday. */
  weekdays: json('weekdays').$type<number[]>().notNull(),
  start: varchar('start_wall', { length: 5 }).notNull(),
  end: varchar('end_wall', { length: 5 }).notNull(),
  breaks: json('breaks').$type<ShiftBreak[]>().notNull(),
})
