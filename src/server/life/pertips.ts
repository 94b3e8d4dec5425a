import { type StationId } from '@core/ids/id.ts'
import { type KindKey } from '@core/path/columns.ts'
import { sql } from 'drizzle-orm'
import { perTips } from '@core/life/pertips.ts'
import { type LifeAnswer } from '@contract/life.ts'
import { type Reader } from '@server/db/db.ts'
import { type StationRow, type ShopPlaces } from '@server/shopmodel/model.ts'
import { LOOK_BACK_MS } from './lives.ts'

/** What the tip screws into: how many of it go for 100 tips tells how tips are put on. */
const SPOILED_BY_TIPS = 'diffuser'

export async function perTipsOf(
  db: Reader,
  shop: ShopPlaces,
  at: { kindKey: KindKey; places: readonly StationRow[]; nowMs: number },
): Promise<LifeAnswer['perTips']> {
  if (at.kindKey !== SPOILED_BY_TIPS) return null
  const [rows] = (await db.execute(sql`
    select e.station_id stationId, l.kind_key kindKey, sum(greatest(l.parts, 1)) n
    from life l join ledger_event e on e.id = l.to_event_id
    where l.kind_key in ('tip', ${SPOILED_BY_TIPS}) and l.to_ms >= ${at.nowMs - LOOK_BACK_MS}
    group by e.station_id, l.kind_key`)) as unknown as [{ stationId: StationId | null; kindKey: KindKey; n: string }[]]
  const count = (stationId: StationId, kindKey: KindKey) =>
    Number(rows.find((r) => r.stationId === stationId && r.kindKey === kindKey)?.n ?? 0)
  const told = perTips(at.places.map((p) => ({ key: p.id, n: count(p.id, SPOILED_BY_TIPS), tips: count(p.id, 'tip') })))
  if (!told) return null
  const { over, ...all } = told
  return {
    ...all,
    over: over.map(({ key, n, tips, per100 }) => ({
      ...{ stationId: key as StationId, name: shop.stationById.get(key as StationId)?.name ?? '?', n, tips, per100 },
    })),
  }
}
