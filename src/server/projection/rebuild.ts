import { isNotNull } from 'drizzle-orm'
import { carrier, ledgerEvent, station } from '@server/db/schema.ts'
import { type Deps } from '@server/http/context.ts'
import { nothingTouched } from '@server/ledger/append.ts'
import { project, type Written } from './project.ts'

const BATCH = 60

class OnlyLooking extends Error {}

/**
 * Builds everything projected again from ledger and usage, and counts rows that differ from what is stored: none when both
 * agree. Without `isWriting` each batch is rolled back after counting.
 */
export async function rebuild(
  deps: Deps,
  isWriting: boolean,
  onBatch: (done: number, of: number) => void = () => {},
): Promise<Written> {
  const carriers = (await deps.db.select({ id: carrier.id }).from(carrier)).map((c) => c.id)
  const stations = (await deps.db.select({ id: station.id }).from(station)).map((s) => s.id)
  const parts = (
    await deps.db.selectDistinct({ id: ledgerEvent.partId }).from(ledgerEvent).where(isNotNull(ledgerEvent.partId))
  ).map((p) => p.id ?? '')
  const total: Written = { mount: 0, life: 0, positionNow: 0, headNow: 0, stationNow: 0, stoppage: 0, stockNow: 0 }
  const batches = Math.max(1, Math.ceil(Math.max(carriers.length, stations.length) / BATCH))
  for (let i = 0; i < batches; i++) {
    const cut = (list: string[]) => new Set(list.slice(i * BATCH, (i + 1) * BATCH))
    const touched = {
      ...nothingTouched(),
      carrierIds: cut(carriers),
      stationIds: cut(stations),
      partIds: i === 0 ? new Set(parts) : new Set<string>(),
    }
    const written = await oneBatch(deps, touched, isWriting)
    for (const table of Object.keys(total) as (keyof Written)[]) total[table] += written[table]
    onBatch(i + 1, batches)
  }
  return total
}

async function oneBatch(deps: Deps, touched: Parameters<typeof project>[1], isWriting: boolean): Promise<Written> {
  let written: Written | null = null
  try {
    await deps.db.transaction(
      async (tx) => {
        written = await project(tx, touched, { calendar: deps.calendar, nowMs: deps.now() })
        if (!isWriting) throw new OnlyLooking()
      },
      { isolationLevel: 'read committed' },
    )
  } catch (problem) {
    if (!(problem instanceof OnlyLooking)) throw problem
  }
  if (!written) throw new Error('rebuild: nothing was projected')
  return written
}
