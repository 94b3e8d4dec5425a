import { type HandItemKey } from '@core/classes/items.ts'
import { type TurnedOut } from '@core/classes/technique.ts'
import { type Level } from '@core/classes/groups.ts'
import { boolean, index, int, json, mysqlTable, primaryKey, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import { idColumn, instantMs } from './columns.ts'

/** Who learns together. Nobody's name is in it: how many they are, and how far they have come. */
export const learnerGroup = mysqlTable(
  'learner_group',
  {
    id: idColumn<'group'>('id').primaryKey(),
    name: varchar('name', { length: 40 }).notNull(),
    level: varchar('level', { length: 8 }).$type<Level>().notNull(),
    size: int('size'),
    isActive: boolean('is_active').notNull().default(true),
  },
  (t) => [uniqueIndex('learner_group_name').on(t.name)],
)
/** The booths of a group: with which wire, and who has it, as a code that says no name; null: nobody said, or they left. */
export const groupBooth = mysqlTable(
  'group_booth',
  {
    groupId: idColumn<'group'>('group_id').notNull(),
    stationId: idColumn<'station'>('station_id').notNull(),
    wireId: idColumn<'wire'>('wire_id'),
    learner: varchar('learner', { length: 12 }),
  },
  (t) => [primaryKey({ columns: [t.groupId, t.stationId] }), index('group_booth_station').on(t.stationId)],
)
/** A lesson of two minutes, given to a group. */
export const lessonGiven = mysqlTable(
  'lesson_given',
  {
    id: idColumn<'lesson'>('id').primaryKey(),
    groupId: idColumn<'group'>('group_id').notNull(),
    item: varchar('item', { length: 16 }).$type<HandItemKey>().notNull(),
    day: varchar('day', { length: 10 }).notNull(),
    atMs: instantMs('at_ms').notNull(),
  },
  (t) => [index('lesson_group').on(t.groupId)],
)
/** What a group answered to a quiz, question by question; of nobody by name. */
export const quizTaken = mysqlTable(
  'quiz_taken',
  {
    id: idColumn<'quiz'>('id').primaryKey(),
    groupId: idColumn<'group'>('group_id'),
    stationId: idColumn<'station'>('station_id'),
    day: varchar('day', { length: 10 }).notNull(),
    atMs: instantMs('at_ms').notNull(),
    idempotencyKey: varchar('idempotency_key', { length: 100 }).notNull(),
    answers: json('answers').$type<{ kind: string; about: string; isRight: boolean }[]>().notNull(),
  },
  (t) => [uniqueIndex('quiz_key').on(t.idempotencyKey), index('quiz_group').on(t.groupId, t.day)],
)
/** What a bad bead turned out to be, once the equipment had been looked at; of nobody by name. */
export const techniqueTold = mysqlTable(
  'technique_told',
  {
    id: idColumn<'told'>('id').primaryKey(),
    groupId: idColumn<'group'>('group_id'),
    stationId: idColumn<'station'>('station_id').notNull(),
    was: varchar('was', { length: 12 }).$type<TurnedOut>().notNull(),
    day: varchar('day', { length: 10 }).notNull(),
    atMs: instantMs('at_ms').notNull(),
    idempotencyKey: varchar('idempotency_key', { length: 100 }).notNull(),
  },
  (t) => [uniqueIndex('technique_key').on(t.idempotencyKey), index('technique_group').on(t.groupId, t.day)],
)
