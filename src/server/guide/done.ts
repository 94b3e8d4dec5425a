import { type z } from 'zod'
import { type CarrierId, type EventId, type FamilyId } from '@core/ids/id.ts'
import { GUIDES } from '@core/guide/guides.ts'
import { isLoading } from '@core/guide/keys.ts'
import { type Fact } from '@core/ledger/event.ts'
import { type guideDoneRequest, type nearMissRequest } from '@contract/guide.ts'
import { type Deps, type Who } from '@server/call/context.ts'
import { DomainError } from '@server/problem/problem.ts'
import { leftFacts } from '@server/followup/act.ts'
import { carrierAt, type Place } from '@server/write/place.ts'
import { factOf } from '@server/write/said.ts'
import { logFacts } from '@server/write/facts.ts'
import { hungOne } from '@server/gunnow/hung.ts'
import { builtHere, likelyPart, type Hung } from '@server/gunnow/setup.ts'
import { OK } from '@server/write/changing.ts'
import { type ShopModel } from '@server/shopmodel/model.ts'

type Done = z.output<typeof guideDoneRequest>

/** Work done by a guide, as one act: the part, its minutes, what it settled and what stands tied. */
export async function logGuide(deps: Deps, who: Who, r: Done): Promise<{ eventId: EventId }> {
  const eventId = await logFacts(deps, who, {
    kind: 'job',
    key: r.key,
    stationId: r.stationId,
    note: r.note ?? null,
    factsOf: async (place, shop, tx) => {
      const hung = await hungOne(tx, shop, r.stationId)
      return [
        ...partFacts(r, { place, hung, shop }),
        ...taskFacts(r, { carrierId: workedOn(place), familyId: builtHere(hung, shop).familyId }),
        ...leftFacts(place, shop, r),
      ]
    },
  })
  return { eventId }
}

/** The gun, or the place where none hangs. */
export const workedOn = (place: Place) => place.now.gunId ?? place.stationCarrierId

/** That it was done by the list; its minutes teach only where they were work, and not reading. */
export function taskFacts(
  r: Pick<Done, 'guide' | 'minutes' | 'overrun'>,
  on: { carrierId: CarrierId; familyId: FamilyId | null },
): Fact[] {
  return [{ kind: 'taskDone', ...on, task: r.guide, minutes: r.minutes, reason: r.overrun }]
}

function partFacts(r: Done, at: { place: Place; hung: Hung; shop: ShopModel }): Fact[] {
  const { place, hung, shop } = at
  const { kindKey, name } = GUIDES[r.guide]
  if (isLoading(r.guide) && r.did === 'changed')
    return [factOf({ ...SAID, stationId: r.stationId, act: 'newSpool' }, place, shop)]
  // Fitting up the gas is a look at it; starting a machine or plugging in a gun is a look at nothing.
  if (kindKey === 'gas' && r.did === 'done')
    return [{ kind: 'confirmed', carrierId: carrierAt(place, kindKey, shop), position: kindKey }]
  if (!kindKey || r.did === 'done') return []
  if (!place.now.gunId && !place.now.headId)
    throw new DomainError('not-found', `${name}: nothing hangs here now.`, ['Say in Our shop what hangs there.'])
  const carrierId = carrierAt(place, kindKey, shop)
  if (r.did === 'cleaned') return [{ kind: 'cleaned', carrierId, position: kindKey }]
  if (r.did === 'looked') return [{ kind: 'confirmed', carrierId, position: kindKey }]
  const partId = likelyPart(hung, shop, kindKey)
  const { outReason } = r
  return [{ kind: 'fitted', carrierId, position: kindKey, partId, outReason, count: 1, entryAge: 'new' }]
}
const SAID = { outReason: 'notSaid', count: 1, precision: 'exact' } as const

/** Nobody was hurt, and it could have been: two taps, and the ledger keeps no name. */
export async function nearMiss(deps: Deps, who: Who, r: z.output<typeof nearMissRequest>) {
  await logFacts(deps, who, {
    key: r.key,
    stationId: r.stationId,
    isNameless: true,
    factsOf: (place) => [{ kind: 'nearMiss', carrierId: place.stationCarrierId, hazard: r.hazard }],
  })
  return OK
}
