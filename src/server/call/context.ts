import { type AreaId, type DeviceId, type PersonId, type StationId } from '@core/ids/id.ts'
import { type Db } from '@server/db/db.ts'
import { type ShopStore } from '@server/shopmodel/store.ts'
import { type Role } from '@server/db/schema.ts'
import { DomainError } from '@server/problem/problem.ts'

/** What every service is handed. What only some need (positions, shares, fits) is added to it by those who need it, and put together at the roof. */
export interface Deps {
  db: Db
  shops: ShopStore
  now: () => number
  random: () => number
  /** When what is written happened, where a device kept it until there was a link; absent: now. */
  happenedMs?: number
}

/** When what is written happened: when the device says it was noted, and never later than now. */
export const happenedAt = (deps: Pick<Deps, 'now' | 'happenedMs'>) =>
  Math.min(deps.happenedMs ?? deps.now(), deps.now())

/** Who is asking: a person signed in, a device that belongs to a place, both, or nobody. */
export interface Who {
  person: { id: PersonId; name: string; role: Role } | null
  device: { id: DeviceId; name: string; areaId: AreaId | null; stationId: StationId | null } | null
}

export const isLead = (who: Who) => who.person?.role === 'lead' || who.person?.role === 'instructor'

export function mustRead(who: Who): void {
  if (!who.person && !who.device)
    throw new DomainError('not-signed-in', 'Nobody is signed in here, and this device belongs to no place.', [
      'Sign in, or ask the lead for a link that binds this device to its place.',
    ])
}

export function mustLead(who: Who): void {
  mustRead(who)
  if (!isLead(who))
    throw new DomainError('not-yours', 'Only a lead or instructor can do this.', ['Sign in as one, then try again.'])
}

/** What is the lead's alone: people and their passwords, whose device is whose, the whole shop with all of that in it. */
export function mustOwn(who: Who): void {
  mustRead(who)
  if (who.person?.role !== 'lead') throw new DomainError('not-yours', 'Only a lead can do this.', ['Ask one.'])
}

/** May this one log at a place: people anywhere, a device at its own place. */
export function mustLogAt(who: Who, place: { id: StationId; areaId: AreaId; name: string }): void {
  mustRead(who)
  if (who.person || !who.device) return
  const { areaId, stationId } = who.device
  const isThere = stationId ? stationId === place.id : areaId ? areaId === place.areaId : true
  if (!isThere)
    throw new DomainError('not-yours', `This device does not belong to ${place.name}.`, ['Log it there, or sign in.'])
}
