import { json, mysqlTable, varchar } from 'drizzle-orm/mysql-core'
import { type Knowledge } from '@core/diagnose/knowledge.ts'
import { idColumn, instantMs } from './columns.ts'

/** Why a gun stops, as the shop has it: a row for each version, the newest holds; null: what ships. */
export const knowledge = mysqlTable('knowledge', {
  id: idColumn<'knowledge'>('id').primaryKey(),
  body: json('body').$type<Knowledge | null>(),
  /** What shipped when it was written: by it what is new since is told from what the shop made. Null: nobody kept it, or what ships holds. */
  base: json('base').$type<Knowledge | null>(),
  atMs: instantMs('at_ms').notNull(),
  byId: varchar('by_id', { length: 40 }),
})
