import { inArray } from 'drizzle-orm'
import { guessKind } from '@core/ingest/guess.ts'
import { type Knowing } from '@core/ingest/shape.ts'
import { type BadRow, type ImportKind, type ImportRequest } from '@contract/ingest.ts'
import { parseDay } from '@contract/when.ts'
import { part } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { type ShopModel } from '@server/shopmodel/model.ts'
import { dayOf } from '@server/time/wall.ts'
import { planFamilies, planParts, type FamilyPlan, type PartPlan } from './fitsheet.ts'
import { placeFinder } from './findplace.ts'
import { planHistory, type HistoryPlan } from './history.ts'
import { planPlaces, type PlacePlan } from './places.ts'
import { readPurchases, type PurchasePlan } from './purchases.ts'
import { lookAt, missingColumns, readSheet, type LookedAt, type Sheet } from './sheet.ts'
import { planUsage, type UsagePlan } from './usage.ts'

export type Planned =
  | { kind: 'places'; plan: PlacePlan }
  | { kind: 'usage'; plan: UsagePlan }
  | { kind: 'history'; plan: HistoryPlan }
  | { kind: 'purchases'; plan: PurchasePlan }
  | { kind: 'parts'; plan: PartPlan }
  | { kind: 'families'; plan: FamilyPlan }
export interface PlannedSheet {
  sheet: Sheet
  bad: BadRow[]
  planned: Planned
}

const NOTHING: Record<ImportRequest['kind'], Planned> = {
  places: { kind: 'places', plan: { places: [], fits: [], bad: [], words: [] } },
  usage: { kind: 'usage', plan: { rows: [], leftOut: [], bad: [], names: [] } },
  history: { kind: 'history', plan: { notes: [], bad: [], leftOut: [], names: [] } },
  purchases: { kind: 'purchases', plan: { rows: [], leftOut: [], bad: [] } },
  parts: { kind: 'parts', plan: { parts: [], bad: [], leftOut: [], words: [] } },
  families: { kind: 'families', plan: { families: [], bad: [] } },
}

/** What the shop knows that helps to read how a sheet lies. */
function knowing(shop: ShopModel, nowMs: number): Knowing {
  const today = dayOf(shop.site.zone, nowMs)
  return {
    dayOf: (text) => parseDay(text, shop.site.units, today),
    kinds: shop.kinds,
    places: shop.stations.map((s) => s.name),
  }
}

/** A sheet's text in the eyes of this shop. */
export const seenBy = (shop: ShopModel, text: string, nowMs: number): LookedAt => lookAt(text, knowing(shop, nowMs))

/** What a sheet holds by the looks of it: a line a gun with days is past work where the guns are known, and the guns themselves where they aren't. */
export function kindOfSheet(seen: LookedAt, shop: ShopModel): ImportKind {
  const { rows } = seen
  const laid = seen.laid(false)
  const find = placeFinder(shop, {})
  if (laid)
    return laid.lies === 'daysAcross' || laid.rows.some((r) => find(r.cells[0] ?? '') !== null) ? 'history' : 'places'
  // Two columns that are headed like its own make a table; anything else that names a day and two guns is a diary.
  const guessed = guessKind(rows)
  if (guessed.columns >= 2) return guessed.kind
  const isOneColumn = rows.every((row) => row.filter((c) => c.trim()).length <= 1)
  return isOneColumn || seen.diary() ? 'history' : guessed.kind
}

/** What a sheet asks for, and every cell that can't be taken. Reads only. */
export async function planOf(
  db: Reader,
  request: ImportRequest,
  at: { shop: ShopModel; nowMs: number; seen: LookedAt },
): Promise<PlannedSheet> {
  const { shop, nowMs } = at
  const sheet = readSheet(request, at.seen)
  const names = request.names ?? {}
  const missing = missingColumns(request.kind, sheet)
  if (missing.length > 0) return { sheet, bad: missing, planned: NOTHING[request.kind] }
  if (request.kind === 'usage') {
    const plan = planUsage(sheet, shop, { nowMs, names })
    return { sheet, bad: plan.bad, planned: { kind: 'usage', plan } }
  }
  if (request.kind === 'purchases') {
    const plan = await readPurchases(db, sheet, { shop, nowMs })
    return { sheet, bad: plan.bad, planned: { kind: 'purchases', plan } }
  }
  if (request.kind === 'parts') {
    const plan = planParts(sheet, shop)
    return { sheet, bad: plan.bad, planned: { kind: 'parts', plan } }
  }
  if (request.kind === 'families') {
    const plan = planFamilies(sheet)
    return { sheet, bad: plan.bad, planned: { kind: 'families', plan } }
  }
  if (request.kind === 'history') {
    const plan = planHistory(sheet, shop, { nowMs, names })
    return { sheet, bad: plan.bad, planned: { kind: 'history', plan } }
  }
  const plan = planPlaces(sheet, shop, { nowMs })
  const bad = [...plan.bad, ...(await badCodes(db, plan, sheet))].sort((a, b) => a.row - b.row)
  return { sheet, bad, planned: { kind: 'places', plan } }
}

/** Part codes that nobody entered, or that are another kind of part. */
async function badCodes(db: Reader, plan: PlacePlan, sheet: Sheet): Promise<BadRow[]> {
  const codes = [...new Set(plan.fits.flatMap((f) => f.partCode ?? []))]
  const parts = codes.length === 0 ? [] : await db.select().from(part).where(inArray(part.code, codes))
  const kindOf = new Map(parts.map((p) => [p.code, p.kindKey]))
  const column = sheet.headings[sheet.columns['part'] ?? -1] ?? 'part'
  return plan.fits.flatMap(({ row, partCode, kind }) => {
    if (!partCode || kindOf.get(partCode) === kind.key) return []
    const why = kindOf.has(partCode)
      ? `that code is not a ${kind.name}`
      : 'no part has this code; add it under Our shop, or leave the cell empty'
    return [{ row, column, value: partCode, why }]
  })
}
