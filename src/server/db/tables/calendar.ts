import { type CalendarKind } from '@core/classes/calendar.ts'
import { boolean, index, mysqlTable, primaryKey, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import { idColumn, instantMs } from './columns.ts'

/** What stands in the shop's calendar besides shifts and holidays, in the site's wall time; `rule` null: once. */
export const calendarEntry = mysqlTable(
  'calendar_entry',
  {
    id: idColumn<'entry'>('id').primaryKey(),
    kind: varchar('kind', { length: 10 }).$type<CalendarKind>().notNull(),
    name: varchar('name', { length: 80 }).notNull(),
    areaId: idColumn<'area'>('area_id'),
    groupId: idColumn<'group'>('group_id'),
    firstDay: varchar('first_day', { length: 10 }).notNull(),
    start: varchar('start_wall', { length: 5 }).notNull(),
    end: varchar('end_wall', { length: 5 }).notNull(),
    /** As iCalendar says it: `FREQ=WEEKLY;BYDAY=MO,WE;UNTIL=20270611T235959Z`, its days the site's. */
    rule: varchar('rule', { length: 400 }),
    /** What another calendar calls it: taken in again it is the same one. */
    uid: varchar('uid', { length: 200 }).notNull(),
    isActive: boolean('is_active').notNull().default(true),
    madeMs: instantMs('made_ms').notNull(),
  },
  (t) => [uniqueIndex('calendar_uid').on(t.uid), index('calendar_group').on(t.groupId)],
)
/** One time of one that comes again, elsewhere or not at all (`toDay` null). `day`: when it would have been. */
export const calendarMove = mysqlTable(
  'calendar_move',
  {
    entryId: idColumn<'entry'>('entry_id').notNull(),
    day: varchar('day', { length: 10 }).notNull(),
    toDay: varchar('to_day', { length: 10 }),
    start: varchar('start_wall', { length: 5 }),
    end: varchar('end_wall', { length: 5 }),
  },
  (t) => [primaryKey({ columns: [t.entryId, t.day] })],
)
