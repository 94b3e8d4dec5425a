import { inArray } from 'drizzle-orm'
import { readPurchases, type PurchasePlan } from './purchases.ts'
import { type BadRow, type ImportRequest } from '@contract/ingest.ts'
import { part } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { type ShopModel } from '@server/shopmodel/model.ts'
import { planFamilies, planParts, type FamilyPlan, type PartPlan } from './fitsheet.ts'
import { planHistory, type HistoryPlan } from './history.ts'
import { planPlaces, type PlacePlan } from './places.ts'
import { missingColumns, readSheet, type Sheet } from './sheet.ts'
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
  places: { kind: 'places', plan: { places: [], fits: [], bad: [] } },
  usage: { kind: 'usage', plan: { rows: [], leftOut: [], bad: [] } },
  history: { kind: 'history', plan: { notes: [], bad: [] } },
  purchases: { kind: 'purchases', plan: { rows: [], leftOut: [], bad: [] } },
  parts: { kind: 'parts', plan: { parts: [], bad: [] } },
  families: { kind: 'families', plan: { families: [], bad: [] } },
}

/** What a sheet asks for, and every cell that can't be taken. Reads only. */
export async function planOf(
  db: Reader,
  request: ImportRequest,
  at: { shop: ShopModel; nowMs: number },
): Promise<PlannedSheet> {
  const { shop, nowMs } = at
  const sheet = readSheet(request.kind, request.text, request.columns)
  const missing = missingColumns(request.kind, sheet)
  if (missing.length > 0) return { sheet, bad: missing, planned: NOTHING[request.kind] }
  if (request.kind === 'usage') {
    const plan = planUsage(sheet, shop, nowMs)
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
    const plan = planHistory(sheet, shop, nowMs)
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
