import { type CarrierId, NO_ID, type StationId } from '@core/ids/id.ts'
import { isNotNull } from 'drizzle-orm'
import { carrier, ledgerEvent, mount, spool } from '@server/db/schema.ts'
import { transact, type Tx } from '@server/db/db.ts'
import { type Deps } from '@server/call/context.ts'
import { nothingTouched, touchesNothing } from '@server/ledger/lines.ts'
import { loadShop } from '@server/shopmodel/model.ts'
import { project, projectMounts, type Written } from './project.ts'

const MOUNT_BATCH = 200
const HEAD_BATCH = 20

class OnlyLooking extends Error {}

/**
 * Builds everything projected again from ledger and usage, and counts rows that differ from what is stored: none when both
 * agree. First what hangs on what, then head by head with all that hangs on it, then what never hung anywhere. Without
 * `isWriting` each batch is rolled back after counting.
 */
export async function rebuild(
  deps: Deps,
  isWriting: boolean,
  onBatch: (done: number, of: number) => void = () => {},
): Promise<Written> {
  const total: Written = {
    mount: 0,
    life: 0,
    positionNow: 0,
    carrierNow: 0,
    taskDone: 0,
    reading: 0,
    headNow: 0,
    headMonth: 0,
    stationNow: 0,
    stoppage: 0,
    stockNow: 0,
    spoolNow: 0,
  }
  const add = (written: Partial<Written>) => {
    for (const table of Object.keys(written) as (keyof Written)[]) total[table] += written[table] ?? 0
  }
  const carriers = await deps.db
    .select({ id: carrier.id, type: carrier.type, stationId: carrier.stationId })
    .from(carrier)
  for (const ids of batches(
    carriers.map((c) => c.id),
    MOUNT_BATCH,
  )) {
    add({ mount: await oneBatch(deps, isWriting, (tx) => projectMounts(tx, new Set(ids))) })
  }
  const jobs = (await jobsOf(deps, carriers)).filter((touched) => !touchesNothing(touched))
  const shop = jobs.length === 0 ? null : await loadShop(deps.db, deps.shops, deps.now())
  for (const [i, touched] of jobs.entries()) {
    if (shop) add(await oneBatch(deps, isWriting, (tx) => project(tx, touched, { shop })))
    onBatch(i + 1, jobs.length)
  }
  if (total.taskDone > 0) deps.shops.countWork()
  return total
}

function batches<T>(list: readonly T[], size: number): T[][] {
  return Array.from({ length: Math.ceil(list.length / size) }, (_, i) => list.slice(i * size, (i + 1) * size))
}

type CarrierLine = { id: CarrierId; type: string; stationId: StationId | null }

async function jobsOf(deps: Deps, carriers: readonly CarrierLine[]) {
  const hung = new Set((await deps.db.selectDistinct({ id: mount.childId }).from(mount)).map((m) => m.id))
  const parts = await deps.db
    .selectDistinct({ id: ledgerEvent.partId })
    .from(ledgerEvent)
    .where(isNotNull(ledgerEvent.partId))
  const spools = await deps.db.select({ id: spool.id }).from(spool)
  const heads = carriers.filter((c) => c.type === 'head').map((c) => c.id)
  const loose = carriers.filter((c) => c.type !== 'head' && (c.type === 'station' || !hung.has(c.id)))
  return [
    ...batches(heads, HEAD_BATCH).map((ids) => ({ ...nothingTouched(), carrierIds: new Set(ids) })),
    ...batches(
      loose.filter((c) => c.type !== 'station').map((c) => c.id),
      MOUNT_BATCH,
    ).map((ids) => ({ ...nothingTouched(), carrierIds: new Set(ids) })),
    ...batches(
      loose.flatMap((c) => c.stationId ?? []),
      MOUNT_BATCH,
    ).map((ids) => ({ ...nothingTouched(), stationIds: new Set(ids) })),
    { ...nothingTouched(), partIds: new Set(parts.map((p) => p.id ?? NO_ID)) },
    ...batches(
      spools.map((s) => s.id),
      MOUNT_BATCH,
    ).map((ids) => ({ ...nothingTouched(), spoolIds: new Set(ids) })),
  ]
}

async function oneBatch<T>(deps: Deps, isWriting: boolean, work: (tx: Tx) => Promise<T>): Promise<T> {
  const done: T[] = []
  try {
    // Tried again where the counting of feeders meets it at the same rows.
    await transact(deps.db, async (tx) => {
      done.splice(0, done.length, await work(tx))
      if (!isWriting) throw new OnlyLooking()
    })
  } catch (problem) {
    if (!(problem instanceof OnlyLooking)) throw problem
  }
  const [result] = done
  if (result === undefined) throw new Error('rebuild: a batch answered nothing')
  return result
}
