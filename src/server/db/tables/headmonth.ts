import { json, mysqlTable, primaryKey } from 'drizzle-orm/mysql-core'
import { type MonthOfUse } from '@core/clock/months.ts'
import { idColumn, instantMs } from './columns.ts'

/** Projected: what a head used on each day of a month (UTC), as far as it was told. */
export const headMonth = mysqlTable(
  'head_month',
  {
    headId: idColumn<'carrier'>('head_id').notNull(),
    monthMs: instantMs('month_ms').notNull(),
    used: json('used').$type<Omit<MonthOfUse, 'monthMs'>>().notNull(),
  },
  (t) => [primaryKey({ columns: [t.headId, t.monthMs] })],
)
