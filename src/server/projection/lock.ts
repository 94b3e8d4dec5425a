import { type CarrierId } from '@core/ids/id.ts'
import { asc, inArray } from 'drizzle-orm'
import { carrier } from '@server/db/schema.ts'
import { type Tx } from '@server/db/db.ts'

/** Takes the rows in id order, and answers them. */
export async function lock(tx: Tx, carrierIds: ReadonlySet<CarrierId>): Promise<(typeof carrier.$inferSelect)[]> {
  if (carrierIds.size === 0) return []
  return tx
    .select()
    .from(carrier)
    .where(inArray(carrier.id, [...carrierIds]))
    .orderBy(asc(carrier.id))
    .for('update')
}
