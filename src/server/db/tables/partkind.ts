import { boolean, double, int, json, mysqlTable, varchar } from 'drizzle-orm/mysql-core'
import {
  type CarrierType,
  type Column,
  type LifeUnit,
  type OutReason,
  type PartClass,
  type KindKey,
} from '@core/path/columns.ts'

export const partKind = mysqlTable('part_kind', {
  key: varchar('kind_key', { length: 20 }).$type<KindKey>().primaryKey(),
  name: varchar('name', { length: 40 }).notNull(),
  column: varchar('path_column', { length: 12 }).$type<Column>().notNull(),
  rides: varchar('rides', { length: 8 }).$type<CarrierType>().notNull(),
  partClass: varchar('part_class', { length: 20 }).$type<PartClass>().notNull(),
  lifeUnit: varchar('life_unit', { length: 12 }).$type<LifeUnit>().notNull(),
  canClean: boolean('can_clean').notNull(),
  changeMin: double('change_min').notNull(),
  cleanMin: double('clean_min').notNull(),
  confirmDays: int('confirm_days'),
  reasons: json('reasons').$type<OutReason[]>().notNull(),
  synonyms: json('synonyms').$type<string[]>().notNull(),
  walkOrder: int('walk_order').notNull(),
})
