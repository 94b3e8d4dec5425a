import { DAY_MS } from '@core/units/time.ts'
import { and, eq, isNull } from 'drizzle-orm'
import { type CarrierId, type PartId, type StationId } from '@core/ids/id.ts'
import { kindOfPosition, ridesOnNeck, type Position } from '@core/path/columns.ts'
import { mount, stationNow } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { DomainError } from '@server/problem/problem.ts'
import { type StationNowRow } from '@server/projection/stationrows.ts'
import { type ShopPlaces, type ShopKinds } from '@server/shopmodel/model.ts'

/** A place as a writer meets it: itself, and what hangs there now. */
export interface Place {
  stationId: StationId
  stationCarrierId: CarrierId
  now: Pick<StationNowRow, 'headId' | 'gunId' | 'neckId'>
  /** The part that most likely went on when nobody says which; null: as the bay has it. */
  partFor?: (position: Position) => PartId | null
}

/** A place that has been projected. */
export type PlaceNow = Place & { now: StationNowRow }

export async function placeOf(db: Reader, stationId: StationId, shop: ShopPlaces): Promise<PlaceNow> {
  const stationCarrierId = shop.carrierOfStation.get(stationId)
  const [now] = await db.select().from(stationNow).where(eq(stationNow.stationId, stationId))
  if (!stationCarrierId || !now)
    throw new DomainError('not-found', 'There is no such place.', ['It may have been renamed; find it by its number.'])
  return { stationId, stationCarrierId, now }
}

/** Every place by its name in small letters, for sheets that speak of many. */
export async function placesByName(db: Reader, shop: ShopPlaces): Promise<Map<string, Place>> {
  const nows = new Map((await db.select().from(stationNow)).map((n) => [n.stationId, n]))
  return new Map(
    shop.stations.flatMap((s) => {
      const now = nows.get(s.id)
      const stationCarrierId = shop.carrierOfStation.get(s.id)
      return now && stationCarrierId
        ? [[s.name.toLowerCase(), { stationId: s.id, stationCarrierId, now }] as const]
        : []
    }),
  )
}

/** The carrier that a position of a place rides on. */
export function carrierAt(place: Place, position: Position, shop: ShopPlaces & ShopKinds): CarrierId {
  const kind = shop.kindByKey.get(kindOfPosition(position))
  const name = shop.stationById.get(place.stationId)?.name ?? place.stationId
  if (!kind) throw new DomainError('not-found', `There is no part called "${position}" on ${name}.`)
  const { headId: head, gunId: gun, neckId } = place.now
  const isOnNeck = neckId !== null && ridesOnNeck(position)
  const by = { station: place.stationCarrierId, head, gun: isOnNeck ? neckId : gun, neck: neckId ?? gun }
  const id = by[kind.rides]
  if (!id)
    throw new DomainError('not-found', `There is no ${kind.rides === 'head' ? 'feeder' : 'gun'} on ${name} now.`, [
      'Say in Our shop what hangs there.',
    ])
  return id
}

/** What a gun or neck hangs on now; null: nothing. */
export async function hangsOn(db: Reader, childId: CarrierId): Promise<CarrierId | null> {
  const [on] = await db
    .select({ onId: mount.onId })
    .from(mount)
    .where(and(eq(mount.childId, childId), isNull(mount.toMs)))
  return on?.onId ?? null
}

/** How far a clock may be ahead before a time is taken for a slip. */
const AHEAD_MS = 5 * 60_000
const OLDEST_MS = 3 * 365 * DAY_MS

export function checkTime(happenedMs: number, nowMs: number): void {
  if (happenedMs > nowMs + AHEAD_MS)
    throw new DomainError('time-refused', 'That time is still to come.', ['Give the time when it was done.'])
  if (happenedMs < nowMs - OLDEST_MS)
    throw new DomainError('time-refused', 'That is over three years ago.', ['Bring old records in as a sheet instead.'])
}
