import { type z } from 'zod'
import { type CarrierId, type EventId } from '@core/ids/id.ts'
import { USUAL_CABLE_M } from '@core/guide/feed.ts'
import { type Fact } from '@core/ledger/event.ts'
import { judgePush } from '@core/liner/resistance.ts'
import { type linerDoneRequest, type spoiledRequest, type StuckAnswer, type stuckRequest } from '@contract/liner.ts'
import { happenedAt, type Deps, type Who } from '@server/call/context.ts'
import { DomainError } from '@server/problem/problem.ts'
import { leftFacts } from '@server/followup/act.ts'
import { taskFacts } from '@server/guide/done.ts'
import { carrierAt, type Place } from '@server/write/place.ts'
import { logFacts } from '@server/write/facts.ts'
import { actByKey } from '@server/ledger/lines.ts'
import { keyOf } from '@server/write/act.ts'
import { hungOne } from '@server/gunnow/hung.ts'
import { builtHere, likelyPart } from '@server/gunnow/setup.ts'
import { OK } from '@server/write/changing.ts'
import { loadShop, type ShopModel } from '@server/shopmodel/model.ts'
import { linerHistory } from './history.ts'

/** A liner that stuck on the way in, as evidence; a kinked one is scrap at once, and nobody can say otherwise. */
export async function logStuck(deps: Deps, who: Who, r: z.output<typeof stuckRequest>): Promise<StuckAnswer> {
  const shop = await loadShop(deps.db, deps.shops, deps.now())
  const hung = await hungOne(deps.db, shop, r.stationId)
  const { cableM, familyId } = builtHere(hung, shop)
  const neckMm = shop.familyById.get(familyId ?? '')?.fit?.neckMm ?? 0
  const cableMm = (cableM ?? USUAL_CABLE_M) * 1000
  if (r.atMm !== null && r.atMm > cableMm + neckMm)
    throw new DomainError(
      'bad-request',
      `${Math.round(r.atMm)} mm is beyond the gun: its cable and neck are ${cableMm + neckMm} mm.`,
      ['Measure from the feeder end of the cable, or leave it open.'],
    )
  await logFacts(deps, who, {
    kind: 'job',
    key: r.key,
    stationId: r.stationId,
    factsOf: (place) => {
      const carrierId = carrierAt(place, 'liner', shop)
      const stuck: Fact = { kind: 'stuck', carrierId, position: 'liner', atMm: r.atMm, isKinked: r.isKinked }
      return r.isKinked ? [stuck, spoiledFact(place, shop, { hung, why: 'kinked' })] : [stuck]
    },
  })
  // Those before this one: asked again under the same key, it must not meet itself.
  const own = await actByKey(deps.db, 'job', keyOf(r.key))
  const { stuck } = await linerHistory(deps.db, hung.now.gunId)
  const before = stuck.filter((s) => s.atMs < (own?.happenedMs ?? happenedAt(deps)))
  const { atMm: metAtMm, isKinked } = r
  const verdict = judgePush({ metAtMm, isKinked, cableMm, neckMm, before })
  return { is: verdict.is, beforeMs: verdict.is === 'cable' ? verdict.before.atMs : null }
}

type HungHere = Awaited<ReturnType<typeof hungOne>>
function spoiledFact(
  place: Place,
  shop: ShopModel,
  of: { hung: HungHere; why: z.output<typeof spoiledRequest>['why'] },
): Fact {
  const partId = likelyPart(of.hung, shop, 'liner')
  return { kind: 'spoiled', carrierId: carrierAt(place, 'liner', shop), position: 'liner', partId, why: of.why }
}

/** A new liner that will never serve: cut short, or otherwise lost. It is off the shelf, and no life of the gun. */
export async function logSpoiled(deps: Deps, who: Who, r: z.output<typeof spoiledRequest>) {
  await logFacts(deps, who, {
    key: r.key,
    stationId: r.stationId,
    factsOf: async (place, shop, tx) => [
      spoiledFact(place, shop, { hung: await hungOne(tx, shop, r.stationId), why: r.why }),
    ],
  })
  return OK
}

/** A liner job, from the old one to the closing test, as one act. */
export async function logLiner(
  deps: Deps,
  who: Who,
  r: z.output<typeof linerDoneRequest>,
): Promise<{ eventId: EventId }> {
  const eventId = await logFacts(deps, who, {
    kind: 'job',
    key: r.key,
    stationId: r.stationId,
    note: r.note ?? null,
    factsOf: async (place, shop, tx) => {
      const hung = await hungOne(tx, shop, r.stationId)
      const carrierId = carrierAt(place, 'liner', shop)
      const partId = likelyPart(hung, shop, 'liner')
      const { outReason } = r
      return [
        { kind: 'fitted', carrierId, position: 'liner', partId, outReason, count: 1, entryAge: 'new' },
        ...foundFacts(r, carrierId),
        ...taskFacts({ guide: 'liner', ...r }, { carrierId, familyId: builtHere(hung, shop).familyId }),
        ...leftFacts(place, shop, r),
      ]
    },
  })
  return { eventId }
}

/** What was seen and cut on the way. */
function foundFacts(r: z.output<typeof linerDoneRequest>, carrierId: CarrierId): Fact[] {
  const facts: Fact[] = []
  if (r.old && (r.old.found.length > 0 || r.old.lengthMm !== null))
    facts.push({ kind: 'autopsy', carrierId, position: 'liner', ...r.old })
  if (r.isBlown) facts.push({ kind: 'blown', carrierId })
  if (r.cut) facts.push({ kind: 'linerCut', carrierId, ...r.cut })
  return facts
}
