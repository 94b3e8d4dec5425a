import { eq, inArray } from 'drizzle-orm'
import { type BadRow, type ImportPreview, type ImportRequest } from '@contract/ingest.ts'
import { importRun, usageSpan } from '@server/db/schema.ts'
import { isDuplicate, transact, type Reader } from '@server/db/db.ts'
import { mustLead, type Deps, type Who } from '@server/http/context.ts'
import { DomainError } from '@server/http/problem.ts'
import { project } from '@server/projection/project.ts'
import { loadShop, type ShopModel } from '@server/shop/model.ts'
import { sheetKey, usageKey } from './key.ts'
import { planOf, type Planned } from './plan.ts'
import { LABELS, WANTED } from './sheet.ts'
import { writePlaces } from './takeplaces.ts'
import { writeUsage } from './takeusage.ts'

/** What a sheet holds, what is wrong with it, and what taking it in would do. Writes nothing. */
export async function previewImport(deps: Deps, who: Who, request: ImportRequest): Promise<ImportPreview> {
  mustLead(who)
  const shop = await loadShop(deps.db, deps.calendar, deps.now())
  const { sheet, bad, planned } = await planOf(deps.db, request, { shop, nowMs: deps.now() })
  return {
    headings: sheet.headings,
    columns: sheet.columns,
    wanted: WANTED[request.kind].map((w) => ({ key: w.key, label: LABELS[w.key] ?? w.key, isNeeded: w.isNeeded })),
    rows: sheet.rows.length,
    sample: sheet.rows.slice(0, 5),
    bad,
    would: await wouldDo(deps.db, planned, shop),
    canTake: bad.length === 0,
  }
}

async function wouldDo(db: Reader, planned: Planned, shop: ShopModel): Promise<Record<string, number>> {
  if (planned.kind === 'usage') {
    const keys = planned.plan.rows.map(usageKey)
    const known =
      keys.length === 0
        ? []
        : await db
            .select({ key: usageSpan.idempotencyKey })
            .from(usageSpan)
            .where(inArray(usageSpan.idempotencyKey, keys))
    return { 'usage rows new': keys.length - known.length, 'usage rows there already': known.length }
  }
  const names = new Set(shop.stations.map((s) => s.name.toLowerCase()))
  const fresh = planned.plan.places.filter((p) => !names.has(p.name.toLowerCase()))
  return {
    'places new': fresh.length,
    'places there already': planned.plan.places.length - fresh.length,
    'parts put on': planned.plan.fits.length,
  }
}

/** Takes a whole sheet in, or nothing of it. The same sheet again is told apart by its content and does nothing. */
export async function takeImport(
  deps: Deps,
  who: Who,
  request: ImportRequest,
): Promise<{ did: Record<string, number>; isRepeat: boolean }> {
  mustLead(who)
  const key = sheetKey(request)
  const [before] = await deps.db.select().from(importRun).where(eq(importRun.idempotencyKey, key))
  if (before) return { did: before.summary, isRepeat: true }
  try {
    return await transact(deps.db, async (tx) => {
      const shop = await loadShop(tx, deps.calendar, deps.now())
      const { bad, planned } = await planOf(tx, request, { shop, nowMs: deps.now() })
      mustBeGood(bad)
      const did = await wouldDo(tx, planned, shop)
      const touched =
        planned.kind === 'usage'
          ? await writeUsage(tx, { deps, who, rows: planned.plan.rows, key })
          : await writePlaces(tx, { deps, who, plan: planned.plan, shop })
      await project(tx, touched, { calendar: deps.calendar, nowMs: deps.now() })
      await tx.insert(importRun).values({
        idempotencyKey: key,
        kind: request.kind,
        atMs: deps.now(),
        byId: who.person?.id ?? null,
        summary: did,
      })
      return { did, isRepeat: false }
    })
  } catch (problem) {
    if (!isDuplicate(problem)) throw problem
    const [winner] = await deps.db.select().from(importRun).where(eq(importRun.idempotencyKey, key))
    if (!winner) throw problem
    return { did: winner.summary, isRepeat: true }
  }
}

function mustBeGood(bad: readonly BadRow[]): void {
  if (bad.length === 0) return
  throw new DomainError(
    'sheet-refused',
    `${bad.length} of the sheet's cells can't be taken; nothing was.`,
    bad.map((b) => `row ${b.row}, ${b.column}, "${b.value}": ${b.why}`),
  )
}
