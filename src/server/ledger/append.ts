import { inArray } from 'drizzle-orm'
import { ledgerEvent } from '@server/db/schema.ts'
import { insertMany, type Tx } from '@server/db/db.ts'
import { nothingTouched, toRow, type Draft, type EventRow, type Touched } from './lines.ts'

/**
 * Appends lines and answers what they touch, including what older lines of a corrected chain said. Only the writer of acts calls this.
 */
export async function append(tx: Tx, drafts: readonly Draft[]): Promise<Touched> {
  const touched = nothingTouched()
  const rows = drafts.map(toRow)
  await insertMany(tx, ledgerEvent, { rows })
  rows.forEach((row) => touch(touched, row))
  const corrected = drafts.filter((d) => d.body.type === 'correction').map((d) => d.rootId)
  if (corrected.length > 0) {
    const chain = await tx.select().from(ledgerEvent).where(inArray(ledgerEvent.rootId, corrected))
    chain.forEach((row) => touch(touched, row))
  }
  return touched
}

function touch(touched: Touched, row: EventRow): void {
  if (row.carrierId) touched.carrierIds.add(row.carrierId)
  if (row.stationId) touched.stationIds.add(row.stationId)
  if (row.partId) touched.partIds.add(row.partId)
  if (row.spoolId) touched.spoolIds.add(row.spoolId)
  if (row.body.type === 'fact' && row.body.fact.kind === 'mounted' && row.body.fact.onId)
    touched.carrierIds.add(row.body.fact.onId)
}
