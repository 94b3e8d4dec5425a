import { type SpoolId } from '@core/ids/id.ts'
import { foldSpool } from '@core/spools/foldspool.ts'
import { spoolNow } from '@server/db/schema.ts'
import { type Tx } from '@server/db/db.ts'
import { standingOfSpools } from '@server/ledger/standings.ts'
import { sync } from './sync.ts'

export type SpoolNowRow = typeof spoolNow.$inferSelect
const BATCH = 500

/** Each touched spool folded whole from its own lines. */
export async function projectSpools(tx: Tx, ids: ReadonlySet<SpoolId>): Promise<number> {
  const list = [...ids].sort()
  let written = 0
  for (let i = 0; i < list.length; i += BATCH) {
    const some = list.slice(i, i + BATCH)
    const standings = await standingOfSpools(tx, some)
    written += await sync(tx, spoolNow, {
      rows: some.flatMap((id) => rowOf(id, foldSpool(standings.get(id) ?? []))),
      owner: { column: spoolNow.spoolId, ids: some },
      key: (r) => r.spoolId,
      keyColumn: spoolNow.spoolId,
      keyOf: (r) => r.spoolId,
    })
  }
  return written
}

function rowOf(spoolId: SpoolId, story: ReturnType<typeof foldSpool>): SpoolNowRow[] {
  if (!story) return []
  const { base, on, wireId, labelKg, lot, tareKg, inMs, lostKg, goneMs, goneKg } = story
  return [
    {
      spoolId,
      wireId,
      labelKg,
      lot,
      tareKg,
      inMs,
      headId: on?.headId ?? null,
      sinceMs: on?.sinceMs ?? null,
      baseKg: base?.kg ?? null,
      baseSdKg: base?.sdKg ?? null,
      baseMs: base?.atMs ?? null,
      baseHow: base?.how ?? null,
      lostKg,
      goneMs,
      goneKg,
    },
  ]
}
