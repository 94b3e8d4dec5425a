import { type CarrierId, type StationId } from '@core/ids/id.ts'
import { MIN_MS } from '@core/units/time.ts'
import { and, asc, desc, eq, inArray, isNull } from 'drizzle-orm'
import { alias } from 'drizzle-orm/mysql-core'
import { type FoldedStoppage, type StationStory } from '@core/ledger/foldstation.ts'
import { shiftEndMs, workedMs, type Schedule } from '@core/clock/schedule.ts'
import { mount, type stationNow, type stoppage } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { standingOfStations } from '@server/ledger/standings.ts'
import { type ShopPlaces, type ShopTimes } from '@server/shopmodel/model.ts'
import { type Recall, type SaidRow } from './recall.ts'

export type StationNowRow = typeof stationNow.$inferSelect
export type StoppageRow = typeof stoppage.$inferSelect

/**
 * Minutes a gun stood, in scheduled time. One ended by another log than "running" counts no further than the end of the
 * shift it began in: nobody knows when it ran again.
 */
export function stoppedMinutes(
  stoppage: Pick<FoldedStoppage, 'fromMs' | 'toMs' | 'endedBy'>,
  schedule: Schedule | null,
  nowMs: number,
): number {
  const toMs = stoppage.toMs ?? nowMs
  const capped = stoppage.endedBy === 'running' ? toMs : Math.min(toMs, shiftEndMs(schedule, stoppage.fromMs))
  return workedMs(schedule, stoppage.fromMs, capped) / MIN_MS
}

export interface StationNeeds {
  shop: ShopPlaces & ShopTimes
  recall: Recall
  /** As far as they were read for it: a place whose own is not among them is not remembered. */
  carriers: ReadonlyMap<string, SaidRow>
}

export async function stationRows(
  db: Reader,
  stationIds: readonly StationId[],
  at: StationNeeds,
): Promise<{ now: StationNowRow[]; stoppages: StoppageRow[] }> {
  const { shop } = at
  const stories = await storiesAt(db, stationIds, at)
  const hung = await hungAt(db, stationIds, shop)
  const now: StationNowRow[] = []
  const stoppages: StoppageRow[] = []
  for (const stationId of stationIds) {
    const row = shop.stationById.get(stationId)
    const story = stories.get(stationId)
    if (!row || !story) continue
    const open = story.stoppages.at(-1)
    const down = open && open.toMs === null ? open : null
    now.push({
      stationId,
      ...(hung.get(stationId) ?? { headId: null, gunId: null, neckId: null }),
      downSinceMs: down?.fromMs ?? null,
      downPosition: down?.position ?? null,
      isParked: story.isParked,
      lastMs: story.lastMs,
    })
    const schedule = shop.scheduleOfArea(row.areaId)
    for (const s of story.stoppages)
      stoppages.push({ ...s, stationId, minutes: s.toMs === null ? null : stoppedMinutes(s, schedule, s.toMs) })
  }
  return { now, stoppages }
}

/** What became of each place: as remembered, the rest read. */
async function storiesAt(
  db: Reader,
  stationIds: readonly StationId[],
  { shop, recall, carriers }: StationNeeds,
): Promise<Map<string, StationStory>> {
  const stories = new Map<string, StationStory>()
  const rowOf = (id: StationId) => carriers.get(shop.carrierOfStation.get(id) ?? '')
  const unknown = stationIds.filter((id) => {
    const row = rowOf(id)
    const kept = row ? recall.placeOf(id, row) : null
    if (kept) stories.set(id, kept)
    return !kept
  })
  const read = await standingOfStations(db, unknown)
  for (const id of unknown) stories.set(id, recall.tellPlace(rowOf(id), read.get(id) ?? []))
  return stories
}

/** The head that stands at each station now, the gun on it, and the neck on that. */
async function hungAt(
  db: Reader,
  stationIds: readonly StationId[],
  shop: ShopPlaces,
): Promise<Map<string, { headId: CarrierId | null; gunId: CarrierId | null; neckId: CarrierId | null }>> {
  const carriers = stationIds.flatMap((id) => shop.carrierOfStation.get(id) ?? [])
  if (carriers.length === 0) return new Map()
  const [gun, neck] = [alias(mount, 'gun'), alias(mount, 'neck')]
  const heads = await db
    .select({ onId: mount.onId, headId: mount.childId, gunId: gun.childId, neckId: neck.childId })
    .from(mount)
    .leftJoin(gun, and(eq(gun.onId, mount.childId), isNull(gun.toMs)))
    .leftJoin(neck, and(eq(neck.onId, gun.childId), isNull(neck.toMs)))
    .where(and(inArray(mount.onId, carriers), isNull(mount.toMs)))
    .orderBy(mount.childId, desc(gun.childId), asc(neck.fromMs))
  return new Map(
    heads.map(({ onId, headId, gunId, neckId }) => [shop.stationOfCarrier.get(onId) ?? '', { headId, gunId, neckId }]),
  )
}
