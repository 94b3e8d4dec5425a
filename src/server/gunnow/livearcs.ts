import { and, eq, isNotNull, lte } from 'drizzle-orm'
import { type Deps } from '@server/call/context.ts'
import { feeder } from '@server/db/schema.ts'

/** Is an arc burning at a head, as far as its feeder said a moment ago. */
const LIVE_MS = 60_000
export async function liveArcs(deps: Pick<Deps, 'db' | 'now'>): Promise<Map<string, boolean>> {
  const rows = await deps.db
    .select({ headId: feeder.headId, isArcOn: feeder.isArcOn, receivedMs: feeder.receivedMs })
    .from(feeder)
    .where(and(eq(feeder.isActive, true), isNotNull(feeder.receivedMs), lte(feeder.receivedMs, deps.now())))
  return new Map(rows.filter((r) => deps.now() - (r.receivedMs ?? 0) < LIVE_MS).map((r) => [r.headId, r.isArcOn]))
}
