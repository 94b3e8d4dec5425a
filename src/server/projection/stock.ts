import { NO_ID, type PartId } from '@core/ids/id.ts'
import { allTogether, ISSUED_FOR_MS, liesFrom, type LiesAt } from '@core/stock/onhand.ts'
import { and, eq, inArray, max, sql } from 'drizzle-orm'
import { ledgerEvent, part, stockNow } from '@server/db/schema.ts'
import { type Reader, type Tx } from '@server/db/db.ts'
import { standingOfPart, standingOfShelves } from '@server/ledger/standings.ts'
import { groupBy, type ShopPlaces } from '@server/shopmodel/model.ts'

type StockRow = typeof stockNow.$inferSelect
type Places = Pick<ShopPlaces, 'stores' | 'storeOf'>

/** Where a part is counted in one place alone, its newest count is where reading begins; a withdrawn one makes an older one stand again: then all is read. */
async function liesInOne(db: Reader, partId: PartId, newestMs: number): Promise<LiesAt[]> {
  const recent = liesFrom(await standingOfPart(db, partId, newestMs - ISSUED_FOR_MS))
  const isWhole = recent.some((l) => l.countedMs === newestMs)
  return isWhole ? recent : liesFrom(await standingOfPart(db, partId, 0))
}

/** In several places each has its own count: read from where the oldest of those that hold begins. */
async function liesInSeveral(db: Reader, partId: PartId, { storeOf }: Places): Promise<LiesAt[]> {
  const said = (await standingOfShelves(db, [partId], 0)).get(partId) ?? []
  const since = said.filter(({ fact }) => fact.kind !== 'received')
  const begins = liesFrom(since, storeOf).map((l) => l.countedMs)
  if (begins.length === 0) return []
  const standings = await standingOfPart(db, partId, Math.min(...begins) - ISSUED_FOR_MS)
  return liesFrom(standings, storeOf)
}

/** When each of these was last counted or carried somewhere, if ever, with each place that is kept of it. */
function keptStock(tx: Tx, partIds: readonly PartId[]) {
  const told = and(eq(ledgerEvent.partId, part.id), inArray(ledgerEvent.kind, ['counted', 'carried']))
  const newestMs = sql<number | null>`(${tx
    .select({ at: max(ledgerEvent.happenedMs) })
    .from(ledgerEvent)
    .where(told)})`
  return tx
    .select({ partId: part.id, newestMs: newestMs.mapWith(Number), kept: stockNow })
    .from(part)
    .leftJoin(stockNow, eq(stockNow.partId, part.id))
    .where(inArray(part.id, [...partIds]))
    .orderBy(part.id)
}

export async function projectStock(tx: Tx, partIds: ReadonlySet<PartId>, places: Places): Promise<number> {
  if (partIds.size === 0) return 0
  let written = 0
  for (const of of groupBy(await keptStock(tx, [...partIds]), (row) => row.partId).values()) {
    const [{ partId, newestMs } = { partId: NO_ID, newestMs: null }] = of
    const kept = of.flatMap((row) => row.kept ?? [])
    const lies =
      newestMs === null
        ? []
        : places.stores.length === 0
          ? await liesInOne(tx, partId, newestMs)
          : await liesInSeveral(tx, partId, places)
    const rows = lies.map(({ storeId, ...rest }): StockRow => ({ partId, storeId: storeId ?? NO_ID, ...rest }))
    written += await writeOf(tx, partId, { rows, kept })
  }
  return written
}

async function writeOf(
  tx: Tx,
  partId: PartId,
  { rows, kept }: { rows: readonly StockRow[]; kept: readonly StockRow[] },
): Promise<number> {
  const isKept = (row: StockRow) =>
    kept.some((k) => k.storeId === row.storeId && k.onHand === row.onHand && k.countedMs === row.countedMs)
  const gone = kept.filter((k) => !rows.some((r) => r.storeId === k.storeId)).map((k) => k.storeId)
  const changed = rows.filter((row) => !isKept(row))
  if (gone.length > 0)
    await tx.delete(stockNow).where(and(eq(stockNow.partId, partId), inArray(stockNow.storeId, gone)))
  for (const row of changed)
    await tx
      .insert(stockNow)
      .values(row)
      .onDuplicateKeyUpdate({ set: { onHand: row.onHand, countedMs: row.countedMs } })
  return gone.length + changed.length
}

/** What lies where, of every part that was counted. */
export async function readLies(db: Reader): Promise<Map<PartId, LiesAt[]>> {
  const lies = new Map<PartId, LiesAt[]>()
  for (const { partId, storeId, onHand, countedMs } of await db.select().from(stockNow)) {
    const at = { storeId: storeId === NO_ID ? null : storeId, onHand, countedMs: countedMs ?? 0 }
    lies.set(partId, [...(lies.get(partId) ?? []), at])
  }
  return lies
}

/** How many there are of each counted part, all places together. */
export const readOnHand = async (db: Reader): Promise<Map<PartId, number>> =>
  new Map([...(await readLies(db))].map(([id, lies]) => [id, allTogether(lies)?.onHand ?? 0]))
