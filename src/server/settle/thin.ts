import { and, asc, desc, eq, gt, gte, inArray, isNotNull, lt, lte, sql } from 'drizzle-orm'
import { AFTER_STOP_MS, BEFORE_STOP_MS, THIN_MS, thinOf, type Kept } from '@core/clock/thin.ts'
import { HOUR_MS, MIN_MS } from '@core/units/time.ts'
import { feeder, stationNow, stoppage, telemetryRow } from '@server/db/schema.ts'
import { transact, type Tx } from '@server/db/db.ts'
import { type SettleDeps } from './settle.ts'

/**
 * Rows are kept as they came for two hours, and one in ten seconds for two weeks: a hundred robots that send ten a second would fill an office computer's
 * disk in a day. The minute before a stop, and a little after it, stays whole.
 *
 * 1. A feeder at a time, some minutes of it at a time; one that another server has in hand is left to that one.
 * 2. The watch takes rows within seconds; one that lags by hours is told by one row in ten seconds as well.
 */
const WHOLE_MS = 2 * HOUR_MS
const WINDOW_MS = 10 * MIN_MS
const AT_ONCE = 1000

/** The feeder whose rows wait longest, some minutes of them. Answers whether there was any. */
export async function thinRows({ db, now }: SettleDeps): Promise<boolean> {
  const untilMs = now() - WHOLE_MS
  return transact(db, async (tx) => {
    const [due] = await tx
      .select({ equipmentId: feeder.equipmentId, headId: feeder.headId, thinnedMs: feeder.thinnedMs })
      .from(feeder)
      .where(and(isNotNull(feeder.receivedMs), sql`coalesce(${feeder.thinnedMs}, 0) < ${untilMs - WINDOW_MS}`))
      .orderBy(asc(feeder.thinnedMs))
      .limit(1)
      .for('update', { skipLocked: true })
    if (!due) return false
    const toMs = await thinOne(tx, due, untilMs)
    await tx.update(feeder).set({ thinnedMs: toMs }).where(eq(feeder.equipmentId, due.equipmentId))
    return true
  })
}

type Due = Pick<typeof feeder.$inferSelect, 'equipmentId' | 'headId' | 'thinnedMs'>
async function thinOne(tx: Tx, { equipmentId, headId, thinnedMs }: Due, untilMs: number): Promise<number> {
  const isOwn = eq(telemetryRow.equipmentId, equipmentId)
  const fromMs = thinnedMs ?? 0
  // On to the next rows there are: weeks without any take no time.
  const [first] = await tx
    .select({ atMs: telemetryRow.atMs })
    .from(telemetryRow)
    .where(and(isOwn, gte(telemetryRow.atMs, fromMs), lt(telemetryRow.atMs, untilMs)))
    .orderBy(asc(telemetryRow.atMs))
    .limit(1)
  if (!first) return untilMs
  const toMs = Math.min(untilMs, first.atMs - (first.atMs % THIN_MS) + WINDOW_MS)
  const rows = await tx
    .select({ bootId: telemetryRow.bootId, seq: telemetryRow.seq, atMs: telemetryRow.atMs })
    .from(telemetryRow)
    .where(and(isOwn, gte(telemetryRow.atMs, first.atMs), lt(telemetryRow.atMs, toMs)))
    .orderBy(asc(telemetryRow.atMs), asc(telemetryRow.bootId), asc(telemetryRow.seq))
  const going = thinOf(rows, await stopsNear(tx, headId, { fromMs: first.atMs, toMs }))
  for (let i = 0; i < going.length; i += AT_ONCE) await forget(tx, equipmentId, going.slice(i, i + AT_ONCE))
  return toMs
}

/** The minute before each stop of the place where this feeder stands. */
async function stopsNear(tx: Tx, headId: Due['headId'], at: { fromMs: number; toMs: number }): Promise<Kept[]> {
  const stops = await tx
    .select({ fromMs: stoppage.fromMs })
    .from(stoppage)
    .innerJoin(stationNow, eq(stationNow.stationId, stoppage.stationId))
    .where(
      and(
        eq(stationNow.headId, headId),
        gt(stoppage.fromMs, at.fromMs - AFTER_STOP_MS),
        lte(stoppage.fromMs, at.toMs + BEFORE_STOP_MS),
      ),
    )
    .orderBy(desc(stoppage.fromMs))
  return stops.map(({ fromMs }) => ({ fromMs: fromMs - BEFORE_STOP_MS, toMs: fromMs + AFTER_STOP_MS }))
}

async function forget(tx: Tx, equipmentId: string, rows: readonly { bootId: string; seq: number }[]): Promise<void> {
  for (const bootId of new Set(rows.map((r) => r.bootId)))
    await tx.delete(telemetryRow).where(
      and(
        eq(telemetryRow.equipmentId, equipmentId),
        eq(telemetryRow.bootId, bootId),
        inArray(
          telemetryRow.seq,
          rows.filter((r) => r.bootId === bootId).map((r) => r.seq),
        ),
      ),
    )
}
