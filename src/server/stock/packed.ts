import { type PartId } from '@core/ids/id.ts'
import { stillPacked } from '@core/stock/packed.ts'
import { desc, isNull } from 'drizzle-orm'
import { kit, type KitLine } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { type Surveyed } from '@server/floor/survey.ts'

export type OpenKit = typeof kit.$inferSelect & { left: KitLine[] }

/** Kits that are packed, newest first, with what did not go on a gun since. */
export async function openKits(db: Reader, surveyed: readonly Surveyed[]): Promise<OpenKit[]> {
  const rows = await db.select().from(kit).where(isNull(kit.closedMs)).orderBy(desc(kit.madeMs))
  if (rows.length === 0) return []
  const on = new Map(
    surveyed.flatMap((s) =>
      s.positions.flatMap(({ row }) =>
        row.partId && row.entryAge === 'new' ? [[`${row.partId} ${s.station.name}`, row.fittedMs] as const] : [],
      ),
    ),
  )
  return rows.map((row) => ({
    ...row,
    left: row.lines.map((line) => stillPacked(line, row.madeMs ?? 0, (gun) => on.get(`${line.partId} ${gun}`) ?? null)),
  }))
}

/** How many of each part lie in kits. */
export function packedOf(kits: readonly OpenKit[]): Map<PartId, number> {
  const sum = new Map<PartId, number>()
  for (const { left } of kits)
    for (const { partId, quantity } of left) sum.set(partId, (sum.get(partId) ?? 0) + quantity)
  return sum
}
