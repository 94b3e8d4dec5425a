import { inArray, max } from 'drizzle-orm'
import { type PartId } from '@core/ids/id.ts'
import { type Fact } from '@core/ledger/event.ts'
import { part, station } from '@server/db/schema.ts'
import { type Tx } from '@server/db/db.ts'
import { type Deps, type Who } from '@server/http/context.ts'
import { append, factDraft, knownKeys, type Draft, type Touched } from '@server/ledger/append.ts'
import { carrierAt } from '@server/logbook/draft.ts'
import { placesByName } from '@server/logbook/log.ts'
import { loadShop, type ShopModel } from '@server/shop/model.ts'
import { ensureArea, insertStations } from '@server/shop/places.ts'
import { shortHash } from './key.ts'
import { type PlacePlan } from './places.ts'

/** Places that are not there yet, and the parts on them. */
export async function writePlaces(
  tx: Tx,
  at: { deps: Deps; who: Who; plan: PlacePlan; shop: ShopModel },
): Promise<Touched> {
  const { deps, who, plan, shop } = at
  const names = new Set(shop.stations.map((s) => s.name.toLowerCase()))
  const [last] = await tx.select({ order: max(station.walkOrder) }).from(station)
  const rows = []
  for (const place of plan.places.filter((p) => !names.has(p.name.toLowerCase()))) {
    const areaId = await ensureArea(tx, deps, { name: place.areaName })
    const except = {
      ...(place.wireId ? { wireId: place.wireId } : {}),
      ...(place.cableM ? { cableM: place.cableM } : {}),
    }
    rows.push({
      name: place.name,
      areaId,
      placeWord: 'booth',
      classKey: 'booth',
      walkMinutes: 1,
      walkOrder: (last?.order ?? 0) + rows.length + 1,
      except,
    })
  }
  await insertStations(tx, { deps, who, rows, kinds: shop.kinds })
  return append(tx, await fitDrafts(tx, at))
}

/** A part in place with the day it went on. One that the log has already, same day, is not logged twice. */
async function fitDrafts(tx: Tx, at: { deps: Deps; who: Who; plan: PlacePlan }): Promise<Draft[]> {
  const { deps, who, plan } = at
  const shop = await loadShop(tx, deps.calendar, deps.now())
  const placeByName = await placesByName(tx, shop)
  const codes = [...new Set(plan.fits.flatMap((f) => f.partCode ?? []))]
  const parts = codes.length === 0 ? [] : await tx.select().from(part).where(inArray(part.code, codes))
  const partIdOf = new Map(parts.map((p) => [p.code, p.id]))
  const drafts = new Map<string, Draft>()
  for (const fit of plan.fits) {
    const place = placeByName.get(fit.place.toLowerCase())
    if (!place) throw new Error(`fitDrafts: the place ${fit.place} was not made`)
    const idempotencyKey = `sheet/${shortHash(`${place.stationId} ${fit.kind.key} ${fit.fittedMs}`)}`
    const fact: Fact = {
      kind: 'fitted',
      carrierId: carrierAt(place, fit.kind.key, shop),
      position: fit.kind.key,
      partId: (partIdOf.get(fit.partCode ?? '') ?? null) as PartId | null,
      outReason: 'notSaid',
      count: 1,
      entryAge: 'new',
    }
    const when = { happenedMs: fit.fittedMs, precision: 'day' as const }
    drafts.set(idempotencyKey, factDraft(deps, who, { fact, ...when, stationId: place.stationId, idempotencyKey }))
  }
  const known = await knownKeys(tx, [...drafts.keys()])
  return [...drafts.values()].filter((d) => !known.has(d.idempotencyKey))
}
