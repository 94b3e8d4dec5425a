import { inArray } from 'drizzle-orm'
import { type CarrierId, makeId } from '@core/ids/id.ts'
import { stationNow, usageSpan } from '@server/db/schema.ts'
import { insertMany, type Tx } from '@server/db/db.ts'
import { usageLine } from '@server/clock/usage.ts'
import { type Deps } from '@server/call/context.ts'
import { keyOf, type Writing } from '@server/write/act.ts'
import { usageKey } from './key.ts'
import { type UsagePlan } from './usage.ts'

/** Usage rows that are not there yet. */
export async function writeUsage(w: Writing, at: { rows: UsagePlan['rows']; key: string }): Promise<void> {
  const { tx, deps } = w
  const fresh = await freshRows(tx, deps, at.rows)
  await insertMany(tx, usageSpan, { rows: fresh })
  const line = usageLine({ headId: null, stationId: null, rows: fresh.length, happenedMs: deps.now() })
  w.say({ kind: 'usage', key: keyOf(at.key), lines: [line] })
  w.touch({
    carrierIds: new Set(fresh.map((r) => r.headId)),
    stationIds: new Set(at.rows.map((r) => r.stationId)),
  })
}

async function freshRows(
  tx: Tx,
  deps: Deps,
  rows: UsagePlan['rows'],
): Promise<(typeof usageSpan.$inferInsert & { headId: CarrierId })[]> {
  const nows = await tx
    .select()
    .from(stationNow)
    .where(inArray(stationNow.stationId, [...new Set(rows.map((r) => r.stationId))]))
  const headOf = new Map(nows.map((n) => [n.stationId, n.headId]))
  const keys = rows.map(usageKey)
  const known = new Set(
    (
      await tx.select({ key: usageSpan.idempotencyKey }).from(usageSpan).where(inArray(usageSpan.idempotencyKey, keys))
    ).map((k) => k.key),
  )
  return rows.flatMap((row) => {
    const headId = headOf.get(row.stationId)
    const idempotencyKey = usageKey(row)
    if (!headId || known.has(idempotencyKey)) return []
    return [
      {
        id: makeId('usage', deps.now(), deps.random),
        headId,
        fromMs: row.fromMs,
        toMs: row.toMs,
        source: 'shiftLog' as const,
        kg: row.kg,
        arcHours: row.arcHours,
        starts: row.starts,
        loggedMs: deps.now(),
        idempotencyKey,
      },
    ]
  })
}
