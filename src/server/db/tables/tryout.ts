import { type StationId } from '@core/ids/id.ts'
import { type KindKey } from '@core/path/columns.ts'
import { double, int, json, mysqlTable, varchar } from 'drizzle-orm/mysql-core'
import { type TryoutEnd } from '@core/life/tryout.ts'
import { idColumn, instantMs } from './columns.ts'

/** A try-out: one thing or another at places drawn by lot, for one kind of part, until it is answered. */
export const tryout = mysqlTable('tryout', {
  id: idColumn<'tryout'>('id').primaryKey(),
  kindKey: varchar('kind_key', { length: 20 }).$type<KindKey>().notNull(),
  question: varchar('question', { length: 120 }).notNull(),
  /** What the first and the second half of the places get; a part where it is one. */
  nameA: varchar('name_a', { length: 60 }).notNull(),
  nameB: varchar('name_b', { length: 60 }).notNull(),
  partAId: idColumn<'part'>('part_a_id'),
  partBId: idColumn<'part'>('part_b_id'),
  stationsA: json('stations_a').$type<StationId[]>().notNull(),
  stationsB: json('stations_b').$type<StationId[]>().notNull(),
  /** The difference that would matter: so many times as long. */
  ratio: double('ratio').notNull(),
  needed: int('needed').notNull(),
  fromMs: instantMs('from_ms').notNull(),
  toMs: instantMs('to_ms'),
  verdict: json('verdict').$type<TryoutEnd>(),
  startedById: idColumn<'person'>('started_by_id'),
})
