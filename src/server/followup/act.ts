import { type z } from 'zod'
import { TAGS, TAG_TEXT } from '@core/changeover/tags.ts'
import { type FollowUp } from '@core/followup/keys.ts'
import { type Fact } from '@core/ledger/event.ts'
import { type followUpRequest } from '@contract/followup.ts'
import { type Deps, type Who } from '@server/call/context.ts'
import { carrierAt, type Place } from '@server/write/place.ts'
import { logFacts } from '@server/write/facts.ts'
import { type ShopPlaces, type ShopKinds } from '@server/shopmodel/model.ts'
import { OK } from '@server/write/changing.ts'

/** What a crash leaves open at the place itself, whatever hangs there later. */
const OF_CRASH: ReadonlySet<FollowUp> = new Set<FollowUp>(['toolCentre', 'neckStraight', 'cableLook', 'reamer'])

/** Done, wherever it stands open: the feeder and the gun may each have asked for it, and after a crash the place itself. */
export function settledFacts(place: Place, tasks: readonly FollowUp[]): Fact[] {
  const carriers = [place.now.gunId, place.now.neckId, place.now.headId].flatMap((id) => (id ? [id] : []))
  const of = (task: FollowUp) => (OF_CRASH.has(task) ? [...carriers, place.stationCarrierId] : carriers)
  return tasks.flatMap((task) => of(task).map((carrierId): Fact => ({ kind: 'followedUp', carrierId, task })))
}

/** Reminders that stay tied, each where it hangs. */
export const tiedFacts = (place: Place, shop: ShopPlaces & ShopKinds, stillTied: readonly string[]): Fact[] =>
  TAGS.filter((tag) => stillTied.includes(tag)).map((tag) => ({
    kind: 'tied',
    carrierId: carrierAt(place, TAG_TEXT[tag].at, shop),
    tag,
  }))

/** What a list left: follow-ups done on the way, reminders still tied. */
export const leftFacts = (
  place: Place,
  shop: ShopPlaces & ShopKinds,
  r: { settled: readonly FollowUp[]; stillTied: readonly string[] },
): Fact[] => [...settledFacts(place, r.settled), ...tiedFacts(place, shop, r.stillTied)]

export async function followedUp(deps: Deps, who: Who, r: z.output<typeof followUpRequest>) {
  await logFacts(deps, who, {
    kind: 'followed',
    key: r.key,
    stationId: r.stationId,
    factsOf: (place) => settledFacts(place, [r.task]),
  })
  return OK
}
