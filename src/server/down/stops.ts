import { type AreaId } from '@core/ids/id.ts'
import { DAY_MS } from '@core/units/time.ts'
import { gte, isNull, or } from 'drizzle-orm'
import { type Cause } from '@core/diagnose/knowledge.ts'
import { isPosition, kindOfPosition, type CausePlace, type Position } from '@core/path/columns.ts'
import { stoppage } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { stoppedMinutes } from '@server/projection/stationrows.ts'
import { groupBy, type ShopModel, type ShopKinds } from '@server/shopmodel/model.ts'
import { knowledgeNow } from '@server/knowledge/now.ts'
import { explainedSince, explanationOf, isOnlySeen, type Explained } from './explained.ts'

export type Stop = typeof stoppage.$inferSelect & {
  name: string
  areaId: AreaId
  /** Scheduled minutes it stood; up to now where it still does. */
  minutes: number
  said: Explained['fact'] | null
  cause: Cause | null
  /** Column of the path where it began; null: nobody said. */
  column: CausePlace | null
  /** What somebody said is seen is a nest. */
  isNest: boolean
}
export interface StopsAt {
  shop: ShopModel
  nowMs: number
  sinceMs: number
  areaId?: AreaId | undefined
}

/** Stops that began since then, and any that still stands, oldest first, with what somebody said they were. */
export async function stopsSince(db: Reader, at: StopsAt): Promise<Stop[]> {
  const [{ knowledge }, explained, rows] = await Promise.all([
    knowledgeNow(db),
    explainedSince(db, at.sinceMs - DAY_MS),
    db
      .select()
      .from(stoppage)
      .where(or(gte(stoppage.fromMs, at.sinceMs), isNull(stoppage.toMs))),
  ])
  const causeOf = new Map(knowledge.causes.map((c) => [c.key, c]))
  const nests = new Set(knowledge.symptoms.filter((s) => s.picture === 'nest').map((s) => s.key))
  const saidAt = groupBy(explained, (e) => e.stationId)
  return rows
    .flatMap((s): Stop[] => {
      const station = at.shop.stationById.get(s.stationId)
      if (!station || (at.areaId && station.areaId !== at.areaId)) return []
      const { name, areaId } = station
      const minutes = s.minutes ?? stoppedMinutes(s, at.shop.scheduleOfArea(areaId), at.nowMs)
      const told = explanationOf(s, saidAt.get(s.stationId) ?? [])?.fact ?? null
      const said = told && isOnlySeen(told) ? null : told
      const cause = said?.cause ? (causeOf.get(said.cause) ?? null) : null
      return [
        {
          ...s,
          name,
          areaId,
          minutes,
          said,
          cause,
          column: columnOf(cause?.at ?? s.position, at.shop),
          isNest: nests.has(told?.symptom ?? ''),
        },
      ]
    })
    .sort((a, b) => a.fromMs - b.fromMs)
}

/** Column of the path a position stands in; off the wire stands by itself. */
function columnOf(at: Position | CausePlace | null, shop: ShopKinds): CausePlace | null {
  if (at === null) return null
  const kind = isPosition(at) ? kindOfPosition(at) : at
  return shop.kindByKey.get(kind)?.column ?? kind
}
