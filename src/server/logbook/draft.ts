import { type CarrierId, type PartId, type WireId } from '@core/ids/id.ts'
import { type Fact } from '@core/ledger/event.ts'
import { hasIdentity, kindOfPosition } from '@core/path/columns.ts'
import { type ActRead } from '@contract/logbook.ts'
import { happenedAt, type Deps, type Who } from '@server/http/context.ts'
import { DomainError } from '@server/http/problem.ts'
import { factDraft, type Draft } from '@server/ledger/append.ts'
import { type ShopModel } from '@server/shop/model.ts'
import { type StationNowRow } from '@server/projection/stationrows.ts'

export interface Place {
  stationId: string
  stationCarrierId: string
  now: StationNowRow
  /** The part that most likely went on when nobody says which; null: as the bay has it. */
  partFor?: (position: string) => string | null
}

/** The carrier that a position of a place rides on. */
export function carrierAt(place: Place, position: string, shop: ShopModel): CarrierId {
  const kind = shop.kindByKey.get(kindOfPosition(position))
  const name = shop.stationById.get(place.stationId)?.name ?? place.stationId
  if (!kind) throw new DomainError('not-found', `There is no part called "${position}" on ${name}.`)
  const by = { station: place.stationCarrierId, head: place.now.headId, gun: place.now.gunId, neck: place.now.gunId }
  const id = by[kind.rides]
  if (!id)
    throw new DomainError('not-found', `There is no ${kind.rides === 'head' ? 'feeder' : 'gun'} on ${name} now.`, [
      'Say in Our shop what hangs there.',
    ])
  return id as CarrierId
}

/** The one taken out goes back on. The life it goes on with knows which part it was; a kind that is not told apart begins at an age nobody knows. */
function putBackFact(act: ActRead, place: Place, shop: ShopModel): Fact {
  const at = act.position ?? ''
  const likely = hasIdentity(at) ? null : (place.partFor?.(at) ?? null)
  return {
    kind: 'fitted',
    carrierId: carrierAt(place, at, shop),
    position: at,
    partId: (act.partId ?? likely) as PartId | null,
    outReason: act.outReason,
    ...{ count: 1, entryAge: 'unknown', again: true },
  }
}

/** What a hand said, as the fact the ledger keeps. */
export function factOf(act: ActRead, place: Place, shop: ShopModel): Fact {
  const built = shop.built(place.stationId)
  const here = place.stationCarrierId as CarrierId
  const at = act.position ?? ''
  switch (act.act) {
    case 'changed':
      return {
        kind: 'fitted',
        carrierId: carrierAt(place, at, shop),
        position: at,
        partId: (act.partId ??
          (place.partFor ? place.partFor(at) : (built.parts[kindOfPosition(at)] ?? null))) as PartId | null,
        outReason: act.outReason,
        count: act.count,
        entryAge: 'new',
      }
    case 'putBack':
      return putBackFact(act, place, shop)
    case 'removed':
      return { kind: 'removed', carrierId: carrierAt(place, at, shop), position: at, outReason: act.outReason }
    case 'cleaned':
      return { kind: 'cleaned', carrierId: carrierAt(place, at, shop), position: at }
    case 'newSpool':
      return spoolFact(act, place, shop)
    case 'down':
      return { kind: 'stopped', carrierId: here, position: act.position ?? null }
    case 'running':
      return { kind: 'restarted', carrierId: here }
    case 'parked':
      return { kind: 'parked', carrierId: here }
    case 'unparked':
      return { kind: 'unparked', carrierId: here }
    case 'seen':
      return {
        kind: 'confirmed',
        carrierId: act.position ? carrierAt(place, at, shop) : here,
        position: act.position ?? null,
      }
  }
}

function spoolFact(act: ActRead, place: Place, shop: ShopModel): Fact {
  const wireId = act.wireId ?? shop.built(place.stationId).wireId
  const labelKg = act.labelKg ?? (wireId ? (shop.wires.get(wireId)?.spoolKg ?? null) : null)
  return {
    kind: 'wireLoaded',
    carrierId: carrierAt(place, 'hub', shop),
    wireId: wireId as WireId | null,
    labelKg,
    leftKg: act.leftKg ?? null,
  }
}

/** How far a clock may be ahead before a time is taken for a slip. */
const AHEAD_MS = 5 * 60_000
const OLDEST_MS = 3 * 365 * 86_400_000

export function checkTime(happenedMs: number, nowMs: number): void {
  if (happenedMs > nowMs + AHEAD_MS)
    throw new DomainError('time-refused', 'That time is still to come.', ['Give the time when it was done.'])
  if (happenedMs < nowMs - OLDEST_MS)
    throw new DomainError('time-refused', 'That is over three years ago.', ['Bring old records in as a sheet instead.'])
}

/** Lines for one act. "Seen" of a whole place is said of everything that hangs there. */
export function draftsOf(
  act: ActRead,
  at: { place: Place; shop: ShopModel; who: Who; deps: Deps; key: string },
): Draft[] {
  const { place, shop, who, deps, key } = at
  const nowMs = deps.now()
  const happenedMs = act.happenedMs ?? happenedAt(deps)
  checkTime(happenedMs, nowMs)
  const facts = act.act === 'seen' && !act.position ? seenEverywhere(place) : [factOf(act, place, shop)]
  return facts.map((fact, i) =>
    factDraft(deps, who, {
      fact,
      happenedMs: Math.min(happenedMs, nowMs),
      precision: act.precision,
      stationId: place.stationId,
      note: act.note ?? null,
      idempotencyKey: i === 0 ? key : `${key}/${i}`,
    }),
  )
}

function seenEverywhere(place: Place): Fact[] {
  const ids = [place.stationCarrierId, place.now.headId, place.now.gunId].filter((id): id is string => Boolean(id))
  return ids.map((id) => ({ kind: 'confirmed', carrierId: id as CarrierId, position: null }))
}
