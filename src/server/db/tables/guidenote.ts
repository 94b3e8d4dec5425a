import { boolean, mysqlTable, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import { type GuideKey } from '@core/guide/keys.ts'
import { idColumn, instantMs } from './columns.ts'

/** The shop's own words at a step of a guide: beside what the program says, or in its place. Cautions and gates stay. */
export const guideNote = mysqlTable(
  'guide_note',
  {
    id: idColumn<'guideNote'>('id').primaryKey(),
    guide: varchar('guide', { length: 12 }).$type<GuideKey>().notNull(),
    /** A step's key; "*": the guide as a whole. */
    step: varchar('step', { length: 24 }).notNull(),
    /** A family's id, or a feeder type's; "*": every gun. */
    familyId: idColumn<'family' | 'feederType'>('family_id').notNull(),
    words: varchar('words', { length: 400 }).notNull(),
    isInstead: boolean('is_instead').notNull(),
    byId: idColumn<'person'>('by_id'),
    atMs: instantMs('at_ms').notNull(),
  },
  (t) => [uniqueIndex('guide_note_where').on(t.guide, t.step, t.familyId)],
)
