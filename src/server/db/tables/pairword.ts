import { type PairKey } from '@core/classes/items.ts'
import { boolean, mysqlTable, varchar } from 'drizzle-orm/mysql-core'

/** A pair of the library in this shop's words; null: as it came. */
export const pairWord = mysqlTable('pair_word', {
  pair: varchar('pair_key', { length: 16 }).$type<PairKey>().primaryKey(),
  right: varchar('right_words', { length: 200 }),
  wrong: varchar('wrong_words', { length: 200 }),
  why: varchar('why_words', { length: 200 }),
  exercise: varchar('exercise_words', { length: 200 }),
  /** A picture in words that stays in the head. */
  image: varchar('image_words', { length: 200 }),
  isWrongHere: boolean('is_wrong_here').notNull().default(false),
  source: varchar('source', { length: 120 }),
  reviewedBy: varchar('reviewed_by', { length: 60 }),
  reviewedDay: varchar('reviewed_day', { length: 10 }),
})
