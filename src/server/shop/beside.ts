import { eq } from 'drizzle-orm'
import { type StationId } from '@core/ids/id.ts'
import { type Position } from '@core/path/columns.ts'
import { type CellFit } from '@core/rightparts/facts.ts'
import { carrier } from '@server/db/schema.ts'
import { type Writing } from '@server/write/act.ts'

/** A cutter or a reamer that was told of has a blade that wears, is changed and has a life of its own. */
export async function standBeside(w: Writing, stationId: StationId, cell: Partial<CellFit>): Promise<void> {
  const { tx } = w
  const { cutter, reamEvery } = cell
  const [own] = await tx.select().from(carrier).where(eq(carrier.stationId, stationId)).for('update')
  if (!own) return
  const has = new Set<string>(own.positions)
  if (cutter) has[cutter === 'none' ? 'delete' : 'add']('cutter')
  if (reamEvery) has.add('reamer')
  const { kinds } = await w.shop()
  const positions = kinds.filter((k) => has.has(k.key)).map((k): Position => k.key)
  const lanes = own.positions.filter((p) => p.includes('#'))
  await tx
    .update(carrier)
    .set({ positions: [...positions, ...lanes] })
    .where(eq(carrier.id, own.id))
}
