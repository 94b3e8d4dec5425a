import { NOTHING_OF_CELL } from '@core/rightparts/facts.ts'
import {
  type CarrierId,
  type StationId,
  type FamilyId,
  type Id,
  NO_ID,
  type PartId,
  type WireId,
} from '@core/ids/id.ts'
import { kindOfPosition, type Position } from '@core/path/columns.ts'
import { rulingFor, type QuestionCode, type RuledBy, type SchoolOf } from '@core/houserule/schools.ts'
import { withGun, type Built } from '@core/shop/built.ts'
import {
  type FamilyFacts,
  type FeederFacts,
  type PartFacts,
  type ProcedureFacts,
  type SettingName,
  type Settings,
  type Setup,
  type WireFacts,
} from '@core/rightparts/facts.ts'
import { UNTOLD_FEEDER } from '@core/rightparts/untold.ts'
import { findingsWith } from '@core/rightparts/check.ts'
import { type Tag } from '@core/changeover/tags.ts'
import { type FoldedTag } from '@core/ledger/fold.ts'
import { type stationNow } from '@server/db/schema.ts'
import { type CarrierState } from './positions.ts'
import {
  type PartRow,
  type ShopModel,
  type StationRow,
  type ShopFit,
  type ShopPlaces,
  type ShopRules,
} from '@server/shopmodel/model.ts'

/** A place with what is projected of its carriers. */
export interface Hung {
  station: StationRow
  now: typeof stationNow.$inferSelect
  stateOf: (carrierId: CarrierId | null | undefined) => CarrierState | undefined
  /** The wire on the feeder; null where no spool was ever logged. */
  spoolWireId: WireId | null
}

export const wireFacts = (row: ShopModel['wires'] extends Map<string, infer W> ? W : never): WireFacts => ({
  id: row.id,
  name: row.name,
  construction: row.construction,
  diameterMm: row.diameterMm,
  densityGPerCm3: row.densityGPerCm3,
  fit: row.fit,
})
export const partFacts = (row: PartRow): PartFacts => ({
  id: row.id,
  code: row.code,
  name: row.name,
  kindKey: row.kindKey,
  familyId: row.familyId,
  sizeMm: row.wireSizeMm,
  fit: row.fit,
})

/** How this gun is built: as the bay, except; and what the gun brought along. */
export function builtHere(hung: Hung, shop: ShopFit): Built {
  return withGun(shop.built(hung.station.id), hung.stateOf(hung.now.gunId)?.built ?? null)
}

export function ruledBy(station: StationRow, built: Built): RuledBy {
  return {
    family: built.familyId,
    feederType: built.feederTypeId,
    feeder: built.rollCount === null ? null : String(built.rollCount),
    mode: built.mode,
    class: station.classKey,
  }
}

/** The feeder of a place: its type, or what little the roll count tells. */
function feederOf(built: Built, shop: ShopFit): FeederFacts | null {
  const type = built.feederTypeId ? shop.feederTypes.get(built.feederTypeId) : undefined
  if (type) return { id: type.id, name: type.name, ...type.fit }
  if (built.rollCount === null) return null
  return { ...UNTOLD_FEEDER, id: '', name: `${built.rollCount}-roll feeder`, rollCount: built.rollCount }
}

/** The place itself, its feeder, its gun and the neck on that, in that order; a missing one keeps its turn. */
export const carrierIdsOf = (now: Hung['now'], shop: ShopPlaces) =>
  [shop.carrierOfStation.get(now.stationId) ?? null, now.headId, now.gunId, now.neckId] as const
/** Those of them that are there, what hangs before the place itself; of a place that was never projected only itself. */
export const carriersAt = (
  stationId: StationId,
  now: Omit<Hung['now'], 'stationId'> | undefined,
  shop: ShopPlaces,
): CarrierId[] => [now?.headId, now?.gunId, now?.neckId, shop.carrierOfStation.get(stationId)].flatMap((id) => id ?? [])
/** What carries tip and nozzle here: the neck where necks go round, else the gun. */
export const frontOf = (hung: Hung) => hung.stateOf(hung.now.neckId ?? hung.now.gunId)
const carriersOf = (hung: Hung, shop: ShopPlaces) => carrierIdsOf(hung.now, shop).map((id) => hung.stateOf(id))

/** What was last read or set on the place, its feeder and its gun. */
export function settingsHere(hung: Hung, shop: ShopPlaces): Settings {
  const all: Settings = {}
  for (const state of carriersOf(hung, shop))
    for (const [name, said] of Object.entries(state?.now?.settings ?? {})) all[name as SettingName] = said.value
  return all
}
export function tagsHere(hung: Hung, shop: ShopPlaces): (FoldedTag & { tag: Tag; carrierId: CarrierId })[] {
  return carriersOf(hung, shop).flatMap((state) =>
    Object.entries(state?.now?.tags ?? {}).map(([tag, said]) => ({
      ...said,
      tag: tag as Tag,
      carrierId: state?.now?.carrierId ?? NO_ID,
    })),
  )
}

function partsHere(hung: Hung, shop: ShopPlaces & ShopFit): Setup['parts'] {
  const parts: Record<string, PartFacts | null> = {}
  for (const state of carriersOf(hung, shop))
    for (const row of state?.rows ?? []) {
      if (row.position.includes('#')) continue
      const on = row.partId ? shop.partById.get(row.partId) : undefined
      parts[kindOfPosition(row.position)] = on ? partFacts(on) : null
    }
  return parts
}

/** The shop's own way in one question, for what hangs here. */
export const schoolHere = <C extends QuestionCode>(
  code: C,
  hung: Hung,
  shop: ShopPlaces & ShopFit & ShopRules,
): SchoolOf<C> => rulingFor(code, ruledBy(hung.station, builtHere(hung, shop)), shop.choices).school.key

/** The gun as it stands, for the rules of fit. */
export function setupOf(hung: Hung, shop: ShopModel): Setup {
  const built = builtHere(hung, shop)
  const wireRow = shop.wires.get(hung.spoolWireId ?? built.wireId ?? '')
  const by = ruledBy(hung.station, built)
  const polarity = rulingFor('D29', by, shop.choices).school.key
  const stands = rulingFor('D09', by, shop.choices).school.key
  return {
    wire: wireRow ? wireFacts(wireRow) : null,
    family: familyFacts(built.familyId, shop),
    feeder: feederOf(built, shop),
    procedure: procedureFacts(built.procedureId, shop),
    mode: built.mode,
    gas: built.gas,
    cableM: built.cableM,
    cell: hung.station.classKey === 'cell' ? (built.cell ?? NOTHING_OF_CELL) : null,
    settings: settingsHere(hung, shop),
    parts: partsHere(hung, shop),
    polarityBy: polarity === 'gasless' ? 'gasless' : 'wire',
    trying: shop.tryingAt.get(hung.station.id) ?? [],
    tipStands: stands === 'level' || stands === 'proud' ? stands : 'byMode',
  }
}

function familyFacts(id: FamilyId | null, shop: ShopFit): FamilyFacts | null {
  const row = id ? shop.familyById.get(id) : undefined
  return row ? { id: row.id, name: row.name, fit: row.fit } : null
}
export function procedureFacts(id: Id<'procedure'> | null, shop: ShopFit): ProcedureFacts | null {
  const row = id ? shop.procedures.get(id) : undefined
  return row ? { id: row.id, name: row.name, ...row.fit } : null
}

/**
 * The part that most likely went on: what the bay has, where that fits the wire on; else what was on, where that fits; else
 * null, and nobody is said to have put on a wrong one.
 */
export function likelyPart(hung: Hung, shop: ShopModel, position: Position): PartId | null {
  const kindKey = kindOfPosition(position)
  const setup = setupOf(hung, shop)
  const bay = shop.built(hung.station.id).parts[kindKey]
  const rows = [bay, setup.parts[kindKey]?.id].map((id) => (id ? shop.partById.get(id) : undefined))
  const fits = rows.find((row) => row && findingsWith(setup, partFacts(row)).every((f) => f.severity === 'note'))
  return fits?.id ?? null
}
