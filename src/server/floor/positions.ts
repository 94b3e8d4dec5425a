import { inArray } from 'drizzle-orm'
import { carrier, positionNow } from '@server/db/schema.ts'
import { readMany, type Reader } from '@server/db/db.ts'

export type PositionRow = typeof positionNow.$inferSelect

/**
 * What is on every position of the shop, kept by carrier and its revision: a whole floor is thousands of rows of which an act
 * changes a few.
 * 1. The revision is read before the rows, so kept rows are at least as new as the revision they are kept under.
 * 2. A projection counts the revision in the transaction that writes the rows: newer rows, newer revision.
 * 3. Nothing depends on one process: any server with an empty or old store reads what it lacks.
 */
export class PositionStore {
  private readonly kept = new Map<string, { revision: number; rows: PositionRow[] }>()

  async readAll(db: Reader): Promise<Map<string, PositionRow[]>> {
    const carriers = await db.select({ id: carrier.id, revision: carrier.revision }).from(carrier)
    const stale = carriers.filter((c) => this.kept.get(c.id)?.revision !== c.revision)
    const fresh = await readFresh(
      db,
      stale.map((c) => c.id),
      carriers.length,
    )
    for (const c of stale) this.kept.set(c.id, { revision: c.revision, rows: fresh.get(c.id) ?? [] })
    return new Map(carriers.map((c) => [c.id, this.kept.get(c.id)?.rows ?? []]))
  }
}

/** Beyond this share of the shop one read of everything is quicker than a long list of ids. */
const MOST = 0.5

function readFresh(db: Reader, ids: readonly string[], of: number): Promise<Map<string, PositionRow[]>> {
  if (ids.length === 0) return Promise.resolve(new Map())
  return ids.length > of * MOST ? readPositions(db, null) : readPositions(db, ids)
}

export async function readPositions(db: Reader, ids: readonly string[] | null): Promise<Map<string, PositionRow[]>> {
  const rows = await readMany(
    db,
    positionNow,
    ids ? inArray(positionNow.carrierId, ids.length > 0 ? [...ids] : ['']) : undefined,
  )
  const groups = new Map<string, PositionRow[]>()
  for (const row of rows) {
    const group = groups.get(row.carrierId)
    if (group) group.push(row)
    else groups.set(row.carrierId, [row])
  }
  return groups
}
