import { double, index, int, json, mysqlTable, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import { type BuiltExcept } from '@core/shop/built.ts'
import { idColumn } from './columns.ts'

export const station = mysqlTable(
  'station',
  {
    id: idColumn<'station'>('id').primaryKey(),
    areaId: idColumn<'area'>('area_id').notNull(),
    name: varchar('name', { length: 24 }).notNull(),
    /** The place's own word: booth, cell, bench. */
    placeWord: varchar('place_word', { length: 20 }).notNull(),
    classKey: varchar('class_key', { length: 20 }).notNull(),
    walkOrder: int('walk_order').notNull(),
    walkMinutes: double('walk_minutes').notNull(),
    /** Stations that halt together name the same group. */
    stopGroup: varchar('stop_group', { length: 40 }),
    except: json('built_except').$type<BuiltExcept>().notNull(),
  },
  (t) => [uniqueIndex('station_name').on(t.name), index('station_area').on(t.areaId)],
)
