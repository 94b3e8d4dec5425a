import { DAY_MS } from '@core/units/time.ts'
import { and, desc, eq } from 'drizzle-orm'
import { type Standing } from '@core/ledger/resolve.ts'
import { ledgerEvent, stockNow } from '@server/db/schema.ts'
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

export async function stockRow(db: Reader, partId: string): Promise<typeof stockNow.$inferSelect | null> {
  const [count] = await db
    .select({ at: ledgerEvent.happenedMs })
    .from(ledgerEvent)
    .where(and(eq(ledgerEvent.partId, partId), eq(ledgerEvent.kind, 'counted')))
    .orderBy(desc(ledgerEvent.happenedMs))
    .limit(1)
  if (!count) return null
  // A withdrawn count makes an older one stand again, so everything is read then; usually the newest stands.
  const recent = stockFrom(await standingOfPart(db, partId, count.at))
  const stock = recent && recent.countedMs === count.at ? recent : stockFrom(await standingOfPart(db, partId, 0))
  return stock && { partId, ...stock }
}

export async function projectStock(tx: Tx, partIds: ReadonlySet<string>): Promise<number> {
  let written = 0
  for (const partId of [...partIds].sort()) {
    const row = await stockRow(tx, partId)
    const [stored] = await tx.select().from(stockNow).where(eq(stockNow.partId, partId))
    if (stored?.onHand === row?.onHand && stored?.countedMs === row?.countedMs) continue
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
