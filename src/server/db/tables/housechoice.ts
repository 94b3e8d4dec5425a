import { json, mysqlTable, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import { type ScopeType, type QuestionCode } from '@core/houserule/schools.ts'
import { type LinerTerms } from '@core/liner/clauses.ts'
import { idColumn, instantMs } from './columns.ts'

/** The shop's choice among schools, for the site or something narrower. What was chosen before stands in the ledger. */
export const houseChoice = mysqlTable(
  'house_choice',
  {
    id: idColumn<'rule'>('id').primaryKey(),
    code: varchar('code', { length: 4 }).$type<QuestionCode>().notNull(),
    scopeType: varchar('scope_type', { length: 12 }).$type<ScopeType>().notNull(),
    scopeKey: varchar('scope_key', { length: 40 }).notNull(),
    option: varchar('chosen_option', { length: 20 }).notNull(),
    note: varchar('note', { length: 200 }),
    /** Its terms, where the school has some: the clauses of the liner's rule. */
    terms: json('terms').$type<LinerTerms>(),
    chosenById: idColumn<'person'>('chosen_by_id'),
    chosenMs: instantMs('chosen_ms').notNull(),
  },
  (t) => [uniqueIndex('house_choice_scope').on(t.code, t.scopeType, t.scopeKey)],
)
