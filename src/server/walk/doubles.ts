import { NO_ID, type StationId } from '@core/ids/id.ts'
import { and, eq, gte, inArray } from 'drizzle-orm'
import { doublesOf, type DoneAct } from '@core/walk/doubles.ts'
import { type HandoverAnswer } from '@contract/handover.ts'
import { ledgerEvent } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { type ShopModel } from '@server/shopmodel/model.ts'

/** Facts that people read as a part changed or cleaned. */
export const DONE = { fitted: 'changed', cleaned: 'cleaned' } as const
export const DONE_KINDS = Object.keys(DONE) as (keyof typeof DONE)[]
export const isDone = (kind: string): kind is keyof typeof DONE => kind in DONE

type ActHere = DoneAct & { stationId: StationId }
/** Parts changed and cleaned, as first said, that nobody has corrected. */
async function actsSince(db: Reader, of: { sinceMs: number; stationIds: readonly StationId[] }): Promise<ActHere[]> {
  const rows = await db
    .select()
    .from(ledgerEvent)
    .where(
      and(
        gte(ledgerEvent.happenedMs, of.sinceMs),
        inArray(ledgerEvent.stationId, [...of.stationIds]),
        inArray(ledgerEvent.kind, DONE_KINDS),
      ),
    )
  const roots = rows.map((r) => r.rootId)
  const corrections = await db
    .select({ rootId: ledgerEvent.rootId })
    .from(ledgerEvent)
    .where(and(eq(ledgerEvent.kind, 'corrected'), inArray(ledgerEvent.rootId, roots)))
  const corrected = new Set(corrections.map((c) => c.rootId))
  return rows.flatMap((r): ActHere[] => {
    const fact = r.body.type === 'fact' ? r.body.fact : null
    if (!fact || !isDone(fact.kind) || !('position' in fact) || !fact.position || corrected.has(r.rootId)) return []
    const by = `${r.deviceId ?? ''} ${r.personId ?? ''}`
    const { kind, position } = fact
    const at = { carrierId: r.carrierId ?? NO_ID, stationId: r.stationId ?? NO_ID, happenedMs: r.happenedMs }
    return [{ ...at, eventId: r.id, position, kind, by }]
  })
}

/** Acts of these places that may be one act said twice; what was corrected since has been answered. */
export async function doublesSince(
  db: Reader,
  of: { shop: ShopModel; sinceMs: number; stationIds: readonly StationId[] },
): Promise<HandoverAnswer['doubles']> {
  if (of.stationIds.length === 0) return []
  const acts = await actsSince(db, of)
  const stationOf = new Map(acts.map((a) => [a.eventId, a.stationId]))
  return doublesOf(acts).flatMap(([first, second]) => {
    const station = of.shop.stationById.get(stationOf.get(second.eventId) ?? NO_ID)
    if (!station || !isDone(second.kind)) return []
    return [
      {
        stationId: station.id,
        name: station.name,
        act: DONE[second.kind],
        position: second.position,
        firstMs: first.happenedMs,
        secondMs: second.happenedMs,
        secondId: second.eventId,
      },
    ]
  })
}
