import { type PartId } from '@core/ids/id.ts'
import { DAY_MS } from '@core/units/time.ts'
import { and, eq, inArray, max, sql } from 'drizzle-orm'
import { type Standing } from '@core/ledger/resolve.ts'
import { ledgerEvent, part, stockNow } from '@server/db/schema.ts'
import { type Reader, type Tx } from '@server/db/db.ts'
import { standingOfPart } from '@server/ledger/standings.ts'

const ISSUED_FOR_MS = 14 * DAY_MS

/**
 * On hand = last count + received since − handed out since − put on or spoiled since; null without a count: nothing is known then. What
 * was handed out for a place and put on there within two weeks is one part, not two.
 */
export function stockFrom(standings: readonly Standing[]): { onHand: number; countedMs: number } | null {
  const counts = standings
    .filter((s) => s.fact.kind === 'counted')
    .sort((a, b) => b.happenedMs - a.happenedMs || b.loggedMs - a.loggedMs)
  const [last] = counts
  if (!last || last.fact.kind !== 'counted') return null
  let onHand = last.fact.quantity
  const handedOut = new Map<string, number[]>()
  const inOrder = [...standings].sort((a, b) => a.happenedMs - b.happenedMs || a.loggedMs - b.loggedMs)
  for (const { fact, happenedMs, stationId } of inOrder) {
    if (happenedMs <= last.happenedMs) continue
    if (fact.kind === 'received') onHand += fact.quantity
    if (fact.kind === 'issued') {
      onHand -= fact.quantity
      const list = handedOut.get(stationId ?? '') ?? []
      handedOut.set(stationId ?? '', [...list, ...Array<number>(fact.quantity).fill(happenedMs)])
    }
    if (fact.kind === 'spoiled' || (fact.kind === 'fitted' && fact.entryAge === 'new')) {
      const list = (handedOut.get(stationId ?? '') ?? []).filter((at) => happenedMs - at <= ISSUED_FOR_MS)
      const used = fact.kind === 'fitted' ? fact.count : 1
      const fromHand = Math.min(list.length, used)
      handedOut.set(stationId ?? '', list.slice(fromHand))
      onHand -= used - fromHand
    }
  }
  return { onHand, countedMs: last.happenedMs }
}

type StockRow = typeof stockNow.$inferSelect

async function stockRow(db: Reader, partId: PartId, newestMs: number | null): Promise<StockRow | null> {
  if (newestMs === null) return null
  // A withdrawn count makes an older one stand again, so everything is read then; usually the newest stands.
  const recent = stockFrom(await standingOfPart(db, partId, newestMs))
  const stock = recent && recent.countedMs === newestMs ? recent : stockFrom(await standingOfPart(db, partId, 0))
  return stock && { partId, ...stock }
}

/** When each of these was last counted, if ever, and what is kept of them. */
async function keptStock(tx: Tx, partIds: readonly PartId[]) {
  const counted = and(eq(ledgerEvent.partId, part.id), eq(ledgerEvent.kind, 'counted'))
  const newestMs = sql<number | null>`(${tx
    .select({ at: max(ledgerEvent.happenedMs) })
    .from(ledgerEvent)
    .where(counted)})`
  return tx
    .select({ partId: part.id, newestMs: newestMs.mapWith(Number), kept: stockNow })
    .from(part)
    .leftJoin(stockNow, eq(stockNow.partId, part.id))
    .where(inArray(part.id, [...partIds]))
    .orderBy(part.id)
}

export async function projectStock(tx: Tx, partIds: ReadonlySet<PartId>): Promise<number> {
  if (partIds.size === 0) return 0
  let written = 0
  for (const { partId, newestMs, kept } of await keptStock(tx, [...partIds])) {
    const row = await stockRow(tx, partId, newestMs)
    if (kept?.onHand === row?.onHand && kept?.countedMs === row?.countedMs) continue
    written++
    if (!row) await tx.delete(stockNow).where(eq(stockNow.partId, partId))
    else
      await tx
        .insert(stockNow)
        .values(row)
        .onDuplicateKeyUpdate({ set: { onHand: row.onHand, countedMs: row.countedMs } })
  }
  return written
}
