import { type z } from 'zod'
import { type CarrierId, type EventId, type PartId, type WireId } from '@core/ids/id.ts'
import { type Fact } from '@core/ledger/event.ts'
import { TAG_TEXT, type Tag } from '@core/changeover/tags.ts'
import { type ChangePlan } from '@core/changeover/plan.ts'
import { type SettingName, type Settings } from '@core/rightparts/facts.ts'
import { type changeRequest } from '@contract/changeover.ts'
import { once } from '@server/call/once.ts'
import { mustRead, type Deps, type Who } from '@server/call/context.ts'
import { DomainError } from '@server/problem/problem.ts'
import { actsByKeys } from '@server/ledger/lines.ts'
import { hungOne } from '@server/gunnow/hung.ts'
import { settingCarrier, settingFact } from '@server/rightparts/act.ts'
import { settledFacts, tiedFacts } from '@server/followup/act.ts'
import { type Stocked } from '@core/rightparts/check.ts'
import { stockedParts } from '@server/gunnow/line.ts'
import { tagsHere } from '@server/gunnow/setup.ts'
import { type ShopModel, type ShopKinds, type ShopFit, type ShopPlaces } from '@server/shopmodel/model.ts'
import { keyOf, writeAct, type Writing } from '@server/write/act.ts'
import { sayFacts, type OneAct } from '@server/write/facts.ts'
import { carrierAt, type Place } from '@server/write/place.ts'
import { planAt, type Planned } from './read.ts'

type Request = z.output<typeof changeRequest>

/** Wire changed at one gun or many: every part, setting and reminder of it, one act a gun, all of them or none. */
export async function logChange(deps: Deps, who: Who, r: Request): Promise<{ eventIds: EventId[] }> {
  mustRead(who)
  const known = async () => {
    const keys = r.stationIds.map((_, i) => keyOf(r.key, i))
    const rows = await actsByKeys(deps.db, 'change', keys)
    return rows.size === 0 ? null : { eventIds: keys.flatMap((key) => rows.get(key)?.id ?? []) }
  }
  return once(known, () => writeAct(deps, who, (w) => sayAll(w, r)))
}

async function sayAll(w: Writing, r: Request): Promise<{ eventIds: EventId[] }> {
  const eventIds: EventId[] = []
  const shop = await w.shop()
  // What one gun took is off the shelf for the next.
  const taken = new Map<string, number>()
  for (const [i, stationId] of r.stationIds.entries()) {
    const hung = await hungOne(w.tx, shop, stationId)
    const parts = withoutTaken(await stockedParts(w.tx), taken)
    const { wireId, procedureId, isScrapped } = r
    const planned = planAt(hung, { shop, parts, wireId, procedureId, isScrapped })
    mustBeServed(planned, r, shop)
    for (const { to, kindKey } of planned.plan.swaps)
      if (to && !r.skipped.includes(kindKey) && !wasKept(planned, to.id, shop))
        taken.set(to.id, (taken.get(to.id) ?? 0) + 1)
    const act: OneAct = {
      kind: 'change',
      note: r.note ?? null,
      key: r.key,
      stationId,
      factsOf: (place) => factsOf(planned, { place, shop, r }),
    }
    eventIds.push(await sayFacts(w, act, i))
  }
  return { eventIds }
}

const withoutTaken = (parts: readonly Stocked[], taken: ReadonlyMap<string, number>): Stocked[] =>
  parts.map((p) => (p.onHand === null ? p : { ...p, onHand: p.onHand - (taken.get(p.id) ?? 0) }))

/** A part the shop has none of: the change would end with a wrong one on it, so it is said instead of logged. */
function mustBeServed({ plan, hung }: Planned, r: Request, shop: ShopKinds & ShopFit): void {
  const none = plan.swaps.filter((s) => s.to === null && !r.skipped.includes(s.kindKey))
  if (none.length === 0) return
  const wire = shop.wires.get(r.wireId)?.name ?? 'that wire'
  const kinds = none.map((s) => shop.kindByKey.get(s.kindKey)?.name ?? s.kindKey)
  throw new DomainError('wrong-part', `${hung.station.name}: the shop has no ${kinds.join(', no ')} for ${wire}.`, [
    'Describe one under Our shop, or say that what is on it stays.',
  ])
}

interface At {
  place: Place
  shop: ShopModel
  r: Request
}

/** The lines of one change; the first says it in one. */
function factsOf(planned: Planned, at: At): Fact[] {
  const { place, shop, r } = at
  const { plan } = planned
  const head = carrierAt(place, 'hub', shop)
  const wireId = r.wireId as WireId
  const swaps = plan.swaps.filter((s) => s.to && !r.skipped.includes(s.kindKey))
  return [
    {
      kind: 'changedOver',
      carrierId: head,
      wireId,
      fromWireId: plan.from.wire?.id ?? null,
      minutes: r.minutes ?? null,
      usualMin: planned.cost.plannedMin,
    },
    ...swaps.map((s): Fact => ({
      kind: 'fitted',
      carrierId: carrierAt(place, s.kindKey, shop),
      position: s.kindKey,
      partId: s.to?.id ?? null,
      outReason: 'toTry',
      count: 1,
      ...(wasKept(planned, s.to?.id, shop)
        ? ({ entryAge: 'unknown', again: true } as const)
        : ({ entryAge: 'new' } as const)),
    })),
    ...guideFacts(planned, at),
    ...wireFacts(planned, at),
    ...Object.entries(setOf(plan, r)).map(([name, value]) =>
      settingFact(settingCarrier(place, name as SettingName), { name: name as SettingName, value }, 'set'),
    ),
    ...tagFacts(planned, at),
    ...settledFacts(place, r.settled),
  ]
}

/** What is set now. Of rolls that stayed and nobody read nothing is known, and nothing is written. */
function setOf({ settings, unread }: ChangePlan, { isUnread }: Request): Settings {
  const unknown = isUnread ? (unread?.rolls ?? []).map((roll) => `roll${roll}`) : []
  return Object.fromEntries(Object.entries(settings).filter(([name]) => !unknown.includes(name)))
}

const keptOn = (planned: Planned, shop: ShopPlaces) =>
  tagsHere(planned.hung, shop).find((t) => t.tag === 'partsKept')?.partIds ?? []
const wasKept = (planned: Planned, partId: PartId | undefined, shop: ShopPlaces) =>
  partId !== undefined && keptOn(planned, shop).some((id) => id === partId)

function guideFacts({ plan, hung }: Planned, { place, shop }: At): Fact[] {
  const carrierId = carrierAt(place, 'outlet', shop)
  if (plan.outletGuide === 'out')
    return plan.from.parts['outlet'] === undefined
      ? []
      : [{ kind: 'removed', carrierId, position: 'outlet', outReason: 'toTry' }]
  if (plan.outletGuide === 'stays') return []
  const guideId = tagsHere(hung, shop).find((t) => t.tag === 'guideOut')?.partIds[0] ?? null
  return [
    {
      kind: 'fitted',
      carrierId,
      position: 'outlet',
      partId: guideId,
      outReason: 'toTry',
      count: 1,
      entryAge: 'unknown',
      again: true,
    },
  ]
}

/** The new spool, and what was binned of the old wire. */
function wireFacts({ plan, cost }: Planned, { place, shop, r }: At): Fact[] {
  const carrierId = carrierAt(place, 'hub', shop)
  const labelKg = shop.wires.get(r.wireId)?.spoolKg ?? null
  const load: Fact = { kind: 'wireLoaded', carrierId, wireId: r.wireId, labelKg, leftKg: null }
  if (!r.isScrapped || !plan.from.wire) return [load]
  return [{ kind: 'wireLost', carrierId, spoolId: null, kg: cost.wireKg, why: 'cable emptied' }, load]
}

/** Reminders: what the change left tied, what it undid, and the parts put by to go back on. */
function tagFacts(planned: Planned, { place, shop, r }: At): Fact[] {
  const { plan } = planned
  const carrierFor = (tag: Tag): CarrierId => carrierAt(place, TAG_TEXT[tag].at, shop)
  const facts = tiedFacts(place, shop, r.stillTied)
  if (plan.outletGuide === 'out') {
    const guide = plan.from.parts['outlet']
    facts.push({
      kind: 'tied',
      carrierId: carrierFor('guideOut'),
      tag: 'guideOut',
      partIds: guide ? [guide.id] : [],
    })
  }
  if (plan.outletGuide === 'back') facts.push({ kind: 'untied', carrierId: carrierFor('guideOut'), tag: 'guideOut' })
  const onNow = new Set(plan.swaps.flatMap((s) => s.to?.id ?? []))
  const came = plan.swaps.flatMap((s) =>
    s.isKept && s.from && s.to && !r.skipped.includes(s.kindKey) ? [s.from.id] : [],
  )
  const before = keptOn(planned, shop)
  const kept = [...new Set([...before.filter((id) => !onNow.has(id)), ...came])] as PartId[]
  const isSame = kept.length === before.length && kept.every((id) => before.includes(id))
  if (isSame) return facts
  const tag = 'partsKept' as const
  const carrierId = carrierFor(tag)
  return [
    ...facts,
    kept.length > 0 ? { kind: 'tied', carrierId, tag, partIds: kept } : { kind: 'untied', carrierId, tag },
  ]
}
