import { and, asc, eq, gte, lte } from 'drizzle-orm'
import { traceOf } from '@core/cell/stopseen.ts'
import { AFTER_STOP_MS, BEFORE_STOP_MS } from '@core/clock/thin.ts'
import { type StationId } from '@core/ids/id.ts'
import { type TraceAnswer } from '@contract/cell.ts'
import { mustRead, type Deps, type Who } from '@server/call/context.ts'
import { feeder, stationNow, telemetryRow } from '@server/db/schema.ts'
import { loadShop } from '@server/shopmodel/model.ts'

/** Ten rows a second for a minute, and some. */
const MOST = 1000

/** The minute before a place stopped, as its feeder sent it; rows are kept two weeks. */
export async function readTrace(deps: Deps, who: Who, stationId: StationId): Promise<TraceAnswer> {
  mustRead(who)
  const { site } = await loadShop(deps.db, deps.shops, deps.now())
  const [now] = await deps.db.select().from(stationNow).where(eq(stationNow.stationId, stationId))
  const nothing = { atMs: now?.downSinceMs ?? null, zone: site.zone, points: [] }
  const atMs = now?.downSinceMs
  if (!now?.headId || atMs == null) return nothing
  const [own] = await deps.db.select().from(feeder).where(eq(feeder.headId, now.headId))
  if (!own) return nothing
  const rows = await deps.db
    .select()
    .from(telemetryRow)
    .where(
      and(
        eq(telemetryRow.equipmentId, own.equipmentId),
        gte(telemetryRow.atMs, atMs - BEFORE_STOP_MS),
        lte(telemetryRow.atMs, atMs + AFTER_STOP_MS),
      ),
    )
    .orderBy(asc(telemetryRow.atMs))
    .limit(MOST)
  return { ...nothing, points: traceOf(rows, atMs) }
}
