import { DAY_MS } from '@core/units/time.ts'
import { and, gte, lt, sql } from 'drizzle-orm'
import { type FoundCount } from '@core/walk/looks.ts'
import { reading } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'

/** What chances are learnt from. */
export const LEARNT_FROM_MS = 60 * DAY_MS
export type Found = ReadonlyMap<string, FoundCount>

/** What the shop's own looks found, by what was looked at. */
export async function foundCounts(db: Reader, span: { fromMs: number; toMs: number }): Promise<Found> {
  const rows = await db
    .select({
      what: reading.what,
      bad: sql<string>`sum(case when ${reading.verdict} = 'good' then 0 else 1 end)`,
      // Looks noted too quickly to have been looks, and walks on which too little was found, count for less.
      of: sql<string>`sum(coalesce(json_value(${reading.madeFrom}, '$.weight'), 1))`,
    })
    .from(reading)
    .where(and(gte(reading.atMs, span.fromMs), lt(reading.atMs, span.toMs)))
    .groupBy(reading.what)
  return new Map(rows.map((r) => [r.what, { bad: Number(r.bad), of: Number(r.of) }]))
}
