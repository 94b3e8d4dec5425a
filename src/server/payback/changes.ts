import { and, desc, eq, gte, inArray } from 'drizzle-orm'
import { type Fact } from '@core/ledger/event.ts'
import { type PaybackAnswer } from '@contract/payback.ts'
import { ledgerEvent, life } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { standingOfKind } from '@server/ledger/standings.ts'
import { type ShopModel } from '@server/shop/model.ts'

const MOST = 60
/** Parts whose change is a change of how it feeds; a tip is changed every day. */
const LASTING = ['inlet', 'rolls', 'outlet', 'liner', 'jump', 'neck', 'diffuser', 'wiper', 'hub']
const KINDS = ['shopChanged', 'mounted', 'changedOver', 'calibrated', 'blown'] as const
type Change = PaybackAnswer['changes'][number]
type At = { sinceMs: number; areaId: string | undefined }

/** What was changed lately that may have helped, newest first: house rules everywhere, lasting parts, guns and wires at single places. */
export async function changesSince(db: Reader, shop: ShopModel, at: At): Promise<Change[]> {
  const [acts, parts] = await Promise.all([actsSince(db, at.sinceMs), partsSince(db, at.sinceMs)])
  return [...acts, ...parts]
    .flatMap((c): Change[] => {
      const station = c.stationId ? shop.stationById.get(c.stationId) : undefined
      if (!station && c.stationId !== null) return []
      if (at.areaId && station && station.areaId !== at.areaId) return []
      return [{ ...c, name: station?.name ?? null }]
    })
    .sort((a, b) => b.happenedMs - a.happenedMs)
    .slice(0, MOST)
}

type Raw = Omit<Change, 'name'>
async function actsSince(db: Reader, sinceMs: number): Promise<Raw[]> {
  const told = await Promise.all(KINDS.map((kind) => standingOfKind(db, kind, sinceMs)))
  return told.flat().flatMap((s): Raw[] => {
    const what = actWord(s.fact)
    if (what === null || (s.fact.kind !== 'shopChanged' && !s.stationId)) return []
    return [{ eventId: s.eventId, happenedMs: s.happenedMs, position: null, what, stationId: s.stationId ?? null }]
  })
}
function actWord(fact: Fact): string | null {
  if (fact.kind === 'shopChanged') return /rule|limit/.test(fact.what) ? fact.what : null
  if (fact.kind === 'mounted') return fact.onId ? 'gun' : null
  if (fact.kind === 'changedOver') return 'wire'
  if (fact.kind === 'calibrated') return 'knob'
  return fact.kind === 'blown' ? 'blown' : null
}

/** Lasting parts that came out, so that another went on. */
async function partsSince(db: Reader, sinceMs: number): Promise<Raw[]> {
  const rows = await db
    .select({
      eventId: life.toEventId,
      happenedMs: life.toMs,
      position: life.position,
      stationId: ledgerEvent.stationId,
    })
    .from(life)
    .innerJoin(ledgerEvent, eq(ledgerEvent.id, life.toEventId))
    .where(and(gte(life.toMs, sinceMs), inArray(life.kindKey, LASTING)))
    .orderBy(desc(life.toMs))
    .limit(MOST)
  return rows.flatMap((r) => (r.stationId ? [{ ...r, what: 'part' }] : []))
}
