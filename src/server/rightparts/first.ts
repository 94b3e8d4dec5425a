import { type AreaId } from '@core/ids/id.ts'
import { type FloorDeps } from '@server/gunnow/positions.ts'
import { kindOfPosition } from '@core/path/columns.ts'
import { FITTED_KINDS } from '@core/rightparts/facts.ts'
import { readFor, rollReads } from '@core/rightparts/rollrules.ts'
import { type Stocked } from '@core/rightparts/check.ts'
import { type LookAnswer, type LookGun } from '@contract/rightparts.ts'
import { mustRead, type Who } from '@server/call/context.ts'
import { survey, type Surveyed } from '@server/floor/survey.ts'
import { loadShop, type ShopModel } from '@server/shopmodel/model.ts'
import { findingLines, stockedParts } from '@server/gunnow/line.ts'
import { partFacts } from '@server/gunnow/setup.ts'

const LOOKED_AT = new Set<string>(FITTED_KINDS)

/** The guns of an area in walking order: what the bay says is on them, and what is known. */
export async function readFirstLook(deps: FloorDeps, who: Who, areaId: AreaId | undefined): Promise<LookAnswer> {
  mustRead(who)
  const nowMs = deps.now()
  const shop = await loadShop(deps.db, deps.shops, nowMs)
  const ids = areaId ? shop.stations.filter((s) => s.areaId === areaId).map((s) => s.id) : undefined
  const [surveyed, parts] = await Promise.all([
    survey(deps.db, shop, { nowMs, store: deps.positions, ...(ids ? { stationIds: ids } : {}) }),
    stockedParts(deps.db),
  ])
  return {
    nowMs,
    zone: shop.site.zone,
    areas: shop.areas.map((a) => ({ id: a.id, name: a.name })),
    guns: surveyed.filter((s) => s.now.gunId !== null).map((s) => lookGun(s, shop, parts)),
  }
}

function lookGun(s: Surveyed, shop: ShopModel, parts: readonly Stocked[]): LookGun {
  const built = shop.built(s.station.id)
  const { setup } = s.checked
  const rollId = s.positions.find((p) => p.row.position === 'rolls')?.row.partId ?? built.parts['rolls']
  const roll = rollId ? shop.partById.get(rollId) : undefined
  const wireId = setup.wire?.id ?? built.wireId
  const wire = setup.wire
  const looked = s.positions.filter((p) => LOOKED_AT.has(p.kind.key))
  const seen = looked.map((p) => p.row.seenMs)
  return {
    stationId: s.station.id,
    name: s.station.name,
    areaId: s.station.areaId,
    wireId: wireId ?? null,
    positions: looked.map((p) => ({
      position: p.row.position,
      kindKey: p.kind.key,
      partId: p.row.partId,
      bayPartId: built.parts[kindOfPosition(p.row.position)] ?? null,
    })),
    rollCount: setup.feeder?.rollCount ?? 4,
    bayReadMm:
      roll && wire
        ? (readFor(partFacts(roll), wire, setup.feeder?.runsFace ?? 'read') ?? wire.diameterMm)
        : (wire?.diameterMm ?? null),
    reads: rollReads(setup),
    settings: setup.settings,
    lookedMs: seen.length > 0 && seen.every((ms) => ms !== null) ? Math.min(...seen.map((ms) => ms ?? 0)) : null,
    findings: findingLines(s.checked, { shop, parts }),
  }
}
