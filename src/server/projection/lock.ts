import { asc, inArray } from 'drizzle-orm'
import { carrier } from '@server/db/schema.ts'
import { type Tx } from '@server/db/db.ts'

/** Takes the rows in id order. */
export async function lock(tx: Tx, carrierIds: ReadonlySet<string>): Promise<void> {
  if (carrierIds.size === 0) return
  await tx
    .select({ id: carrier.id })
    .from(carrier)
    .where(inArray(carrier.id, [...carrierIds]))
    .orderBy(asc(carrier.id))
    .for('update')
}
