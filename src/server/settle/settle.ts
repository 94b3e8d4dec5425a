import { DAY_MS } from '@core/units/time.ts'
import { asc, inArray, isNotNull, lt } from 'drizzle-orm'
import { feeder, telemetryRow } from '@server/db/schema.ts'
import { transact } from '@server/db/db.ts'
import { type Deps } from '@server/call/context.ts'
import { nothingTouched } from '@server/ledger/lines.ts'
import { project } from '@server/projection/project.ts'
import { Recall, storiesOf } from '@server/projection/recall.ts'
import { loadShop } from '@server/shopmodel/model.ts'

/** What counting clocks takes: no more, for it runs in a thread of its own. */
export type SettleDeps = Pick<Deps, 'db' | 'shops' | 'now'>
/** Rows as they came in are kept so long. */
export const RAW_KEPT_MS = 14 * DAY_MS
const AT_ONCE = 1
const SWEPT_AT_ONCE = 5000

/**
 * Counts the clocks of feeders whose hours changed: rows come by the second, clocks are counted every few. Any server may do
 * it; a feeder that another one is counting is left to that one.
 * @returns how many feeders were counted
 */
export async function settle(deps: SettleDeps): Promise<number> {
  const { counted, recall } = await transact(deps.db, async (tx) => {
    const recall = new Recall(storiesOf(deps.db), [])
    const dirty = await tx
      .select({ equipmentId: feeder.equipmentId, headId: feeder.headId })
      .from(feeder)
      .where(isNotNull(feeder.dirtyMs))
      .orderBy(asc(feeder.dirtyMs))
      .limit(AT_ONCE)
      .for('update', { skipLocked: true })
    if (dirty.length === 0) return { counted: 0, recall }
    const touched = { ...nothingTouched(), carrierIds: new Set(dirty.map((d) => d.headId)) }
    const shop = await loadShop(tx, deps.shops, deps.now())
    await project(tx, touched, { shop, recall, isOnlyCounted: true })
    await tx
      .update(feeder)
      .set({ dirtyMs: null })
      .where(
        inArray(
          feeder.equipmentId,
          dirty.map((d) => d.equipmentId),
        ),
      )
    return { counted: dirty.length, recall }
  })
  recall.written()
  return counted
}

/** Rows older than two weeks go, some at a time; their hours stay for ever. Answers whether there are more. */
export async function sweepRows(deps: SettleDeps): Promise<boolean> {
  const [done] = await deps.db
    .delete(telemetryRow)
    .where(lt(telemetryRow.atMs, deps.now() - RAW_KEPT_MS))
    .limit(SWEPT_AT_ONCE)
  return done.affectedRows === SWEPT_AT_ONCE
}
