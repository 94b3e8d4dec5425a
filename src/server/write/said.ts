import { type Fact } from '@core/ledger/event.ts'
import { hasIdentity, kindOfPosition, type Position } from '@core/path/columns.ts'
import { type ActRead } from '@contract/logbook.ts'
import { happenedAt, type Deps } from '@server/call/context.ts'
import { type ShopModel, type ShopPlaces, type ShopKinds } from '@server/shopmodel/model.ts'
import { type SaidAct } from './act.ts'
import { carrierAt, checkTime, type Place } from './place.ts'

/** The one taken out goes back on. The life it goes on with knows which part it was; a kind that is not told apart begins at an age nobody knows. */
function putBackFact(act: ActRead, place: Place, shop: ShopPlaces & ShopKinds): Fact {
  const at = partOf(act)
  const likely = hasIdentity(at) ? null : (place.partFor?.(at) ?? null)
  return {
    kind: 'fitted',
    carrierId: carrierAt(place, at, shop),
    position: at,
    partId: act.partId ?? likely,
    outReason: act.outReason,
    ...{ count: 1, entryAge: 'unknown', again: true },
  }
}

/** Where a part was put on, taken off or cleaned: the shape of an act asks for it there. */
function partOf({ act, position }: ActRead): Position {
  if (!position) throw new RangeError(`factOf: expected a position with ${act}, got none`)
  return position
}
const spotOf = (act: ActRead, place: Place, shop: ShopPlaces & ShopKinds) => ({
  carrierId: carrierAt(place, partOf(act), shop),
  position: partOf(act),
})

function changedFact(act: ActRead, place: Place, shop: ShopModel): Fact {
  const at = partOf(act)
  const bays = shop.built(place.stationId).parts[kindOfPosition(at)] ?? null
  return {
    kind: 'fitted',
    ...spotOf(act, place, shop),
    partId: act.partId ?? (place.partFor ? place.partFor(at) : bays),
    outReason: act.outReason,
    count: act.count,
    entryAge: 'new',
  }
}

/** What a hand said, as the fact the ledger keeps. */
export function factOf(act: ActRead, place: Place, shop: ShopModel): Fact {
  const here = place.stationCarrierId
  switch (act.act) {
    case 'changed':
      return changedFact(act, place, shop)
    case 'putBack':
      return putBackFact(act, place, shop)
    case 'removed':
      return { kind: 'removed', ...spotOf(act, place, shop), outReason: act.outReason }
    case 'cleaned':
      return { kind: 'cleaned', ...spotOf(act, place, shop) }
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
        carrierId: act.position ? carrierAt(place, act.position, shop) : here,
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
    wireId: wireId,
    labelKg,
    leftKg: act.leftKg ?? null,
  }
}

/** What a hand said, as an act. "Seen" of a whole place is said of everything that hangs there. */
export function actOf(act: ActRead, at: { place: Place; shop: ShopModel; deps: Deps; key: string }): SaidAct {
  const { place, shop, deps, key } = at
  const nowMs = deps.now()
  const happenedMs = act.happenedMs ?? happenedAt(deps)
  checkTime(happenedMs, nowMs)
  const isEverywhere = act.act === 'seen' && !act.position
  const facts = isEverywhere ? seenEverywhere(place) : [factOf(act, place, shop)]
  return {
    kind: isEverywhere ? 'seen' : 'log',
    key,
    lines: facts.map((fact) => ({
      fact,
      stationId: place.stationId,
      happenedMs: Math.min(happenedMs, nowMs),
      precision: act.precision,
      note: act.note ?? null,
    })),
  }
}

function seenEverywhere(place: Place): Fact[] {
  const ids = [place.stationCarrierId, place.now.headId, place.now.gunId, place.now.neckId].filter((id) => id !== null)
  return ids.map((id) => ({ kind: 'confirmed', carrierId: id, position: null }))
}
