import { mysqlTable, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import { type RuleKey } from '@core/rightparts/finding.ts'
import { idColumn, instantMs } from './columns.ts'

/** A finding the lead has decided to live with: this rule, at this place, with this on it. Another part or wire asks anew. */
export const keptFinding = mysqlTable(
  'kept_finding',
  {
    id: idColumn<'kept'>('id').primaryKey(),
    stationId: idColumn<'station'>('station_id').notNull(),
    rule: varchar('rule', { length: 20 }).$type<RuleKey>().notNull(),
    at: varchar('at_position', { length: 24 }).notNull(),
    /** What was found and wanted, as one text. */
    of: varchar('found_and_wanted', { length: 160 }).notNull(),
    note: varchar('note', { length: 200 }),
    chosenById: idColumn<'person'>('chosen_by_id'),
    chosenMs: instantMs('chosen_ms').notNull(),
  },
  (t) => [uniqueIndex('kept_finding_what').on(t.stationId, t.rule, t.at)],
)
