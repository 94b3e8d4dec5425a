import { boolean, int, mysqlTable, varchar } from 'drizzle-orm/mysql-core'
import { instantMs } from './columns.ts'

/** How far a long import is, told outside its transaction so that others see it; and whether somebody asked it to stop. */
export const importProgress = mysqlTable('import_progress', {
  key: varchar('progress_key', { length: 100 }).primaryKey(),
  stage: varchar('stage', { length: 40 }).notNull(),
  done: int('done').notNull(),
  of: int('of_rows').notNull(),
  isCancelled: boolean('is_cancelled').notNull().default(false),
  atMs: instantMs('at_ms').notNull(),
})
