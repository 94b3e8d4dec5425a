import { double, json, mysqlTable, varchar } from 'drizzle-orm/mysql-core'
import { type WireFit } from '@core/rightparts/facts.ts'
import { idColumn } from './columns.ts'

export const wire = mysqlTable('wire', {
  id: idColumn<'wire'>('id').primaryKey(),
  name: varchar('name', { length: 60 }).notNull().unique(),
  construction: varchar('construction', { length: 20 }).notNull(),
  diameterMm: double('diameter_mm').notNull(),
  densityGPerCm3: double('density_g_per_cm3').notNull(),
  spoolKg: double('spool_kg').notNull(),
  /** What an empty spool of it weighs, and how it is wound: for what is left by weight and by a rule. */
  tareKg: double('tare_kg'),
  coreMm: double('core_mm'),
  fullMm: double('full_mm'),
  widthMm: double('width_mm'),
  fit: json('fit').$type<WireFit>(),
})
