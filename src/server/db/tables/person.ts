import { boolean, mysqlTable, varchar } from 'drizzle-orm/mysql-core'
import { idColumn } from './columns.ts'

export type Role = 'lead' | 'instructor' | 'hand' | 'learner'
export const person = mysqlTable('person', {
  id: idColumn<'person'>('id').primaryKey(),
  name: varchar('name', { length: 60 }).notNull().unique(),
  role: varchar('role', { length: 12 }).$type<Role>().notNull(),
  passwordHash: varchar('password_hash', { length: 200 }),
  isActive: boolean('is_active').notNull().default(true),
})
