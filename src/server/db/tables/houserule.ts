import { type KindKey } from '@core/path/columns.ts'
import { double, int, json, mysqlTable, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import { type RuleBasis } from '@core/life/kept.ts'
import { idColumn, instantMs } from './columns.ts'

/** The first house rule: fixed usage per kind and station class, and how often a look is due. `classKey` '*': every class. */
export const houseRule = mysqlTable(
  'house_rule',
  {
    id: idColumn<'rule'>('id').primaryKey(),
    kindKey: varchar('kind_key', { length: 20 }).$type<KindKey>().notNull(),
    classKey: varchar('class_key', { length: 20 }).notNull(),
    changeLimit: double('change_limit'),
    cleanLimit: double('clean_limit'),
    lookDays: int('look_days'),
    /** The school the change limit was chosen by, and the lives it rested on; null: set by hand. */
    basis: json('basis').$type<RuleBasis>(),
    chosenById: idColumn<'person'>('chosen_by_id'),
    chosenMs: instantMs('chosen_ms').notNull(),
  },
  (t) => [uniqueIndex('house_rule_scope').on(t.kindKey, t.classKey)],
)
