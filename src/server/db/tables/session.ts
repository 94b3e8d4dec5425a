import { mysqlTable, varchar } from 'drizzle-orm/mysql-core'
import { idColumn, instantMs } from './columns.ts'

/** Only a hash of the cookie is kept, so that a copy of the database signs nobody in. */
export const session = mysqlTable('session', {
  tokenHash: varchar('token_hash', { length: 64 }).primaryKey(),
  personId: idColumn<'person'>('person_id').notNull(),
  expiresMs: instantMs('expires_ms').notNull(),
})
