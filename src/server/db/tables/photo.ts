import { customType, index, int, json, mysqlTable, uniqueIndex, varchar } from 'drizzle-orm/mysql-core'
import { type Clip } from '@core/photo/clip.ts'
import { type PhotoOf } from '@core/photo/photo.ts'
import { idColumn, instantMs } from './columns.ts'

/** Bytes in the database, base64 in the program: so a photo is text in the whole-shop file like everything else. */
const picture = customType<{ data: string; driverData: Buffer }>({
  dataType: () => 'mediumblob',
  fromDriver: (bytes) => Buffer.from(bytes).toString('base64'),
  toDriver: (text) => Buffer.from(text, 'base64'),
})

/** Photos of a position, spool, part, line of the log or guide. Never deleted: taken back, a photo is only not shown. */
export const photo = mysqlTable(
  'photo',
  {
    id: idColumn<'photo'>('id').primaryKey(),
    ofType: varchar('of_type', { length: 8 }).$type<PhotoOf['type']>().notNull(),
    ofKey: varchar('of_key', { length: 80 }).notNull(),
    widthPx: int('width_px').notNull(),
    heightPx: int('height_px').notNull(),
    jpeg: picture('jpeg').notNull(),
    small: picture('small').notNull(),
    /** Its pictures in rows, where it is a clip. */
    clip: json('clip').$type<Clip | null>(),
    takenMs: instantMs('taken_ms').notNull(),
    personId: idColumn<'person'>('person_id'),
    deviceId: idColumn<'device'>('device_id'),
    hiddenMs: instantMs('hidden_ms'),
    idempotencyKey: varchar('idempotency_key', { length: 100 }).notNull(),
  },
  (t) => [uniqueIndex('photo_key').on(t.idempotencyKey), index('photo_of').on(t.ofType, t.ofKey)],
)
