import { eq, inArray } from 'drizzle-orm'
import { groupNotes } from '@core/ingest/notes.ts'
import { type BadRow, type ImportPreview, type ImportRequest, type NoteDecision } from '@contract/ingest.ts'
import { importRun, usageSpan } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { once } from '@server/call/once.ts'
import { mustLead, type Deps, type Who } from '@server/call/context.ts'
import { DomainError } from '@server/problem/problem.ts'
import { loadShop, type ShopKinds, type ShopFit, type ShopPlaces } from '@server/shopmodel/model.ts'
import { writeAct, type Writing } from '@server/write/act.ts'
import { decided, type HistoryPlan } from './history.ts'
import { sheetKey, usageKey } from './key.ts'
import { planOf, type Planned } from './plan.ts'
import { type PurchasePlan } from './purchases.ts'
import { startProgress } from './progress.ts'
import { LABELS, WANTED, type Sheet } from './sheet.ts'
import { writeFamilies, writeParts } from './takefit.ts'
import { writeHistory } from './takehistory.ts'
import { freshPurchases, writePurchases } from './takepurchases.ts'
import { writePlaces } from './takeplaces.ts'
import { writeUsage } from './takeusage.ts'

/** What a sheet holds, what is wrong with it, and what taking it in would do. Writes nothing. */
export async function previewImport(deps: Deps, who: Who, request: ImportRequest): Promise<ImportPreview> {
  mustLead(who)
  const shop = await loadShop(deps.db, deps.shops, deps.now())
  const { sheet, bad, planned } = await planOf(deps.db, request, { shop, nowMs: deps.now() })
  return {
    headings: sheet.headings,
    columns: sheet.columns,
    wanted: WANTED[request.kind].map((w) => ({ key: w.key, label: LABELS[w.key] ?? w.key, isNeeded: w.isNeeded })),
    rows: sheet.rows.length,
    sample: sheet.rows.slice(0, 5),
    bad,
    leftOut: 'leftOut' in planned.plan ? planned.plan.leftOut.slice(0, MOST_UNREAD) : [],
    ...notesOf(planned, shop),
    would: await wouldDo(deps.db, planned, { shop, decisions: request.decisions ?? {} }),
    canTake: bad.length === 0 || canLeaveOut(planned),
  }
}

const MOST_UNREAD = 200

/** Old notes and purchase lists may be taken without the rows that can't be read; usage and places may not. */
const canLeaveOut = (planned: Planned) =>
  (planned.kind === 'history' && planned.plan.notes.length > 0) ||
  (planned.kind === 'purchases' && planned.plan.rows.length > 0)

/** A history's groups, and what in its notes nobody but a person can read. */
function notesOf(planned: Planned, shop: ShopKinds): Pick<ImportPreview, 'groups' | 'unread'> {
  if (planned.kind !== 'history') return { groups: [], unread: [] }
  const groups = groupNotes(planned.plan.notes).map(({ kindKey, ...group }) => {
    const kind = shop.kindByKey.get(kindKey)
    return { ...group, kindName: kind?.name ?? kindKey, canClean: kind?.canClean ?? false }
  })
  const unread = planned.plan.notes.flatMap(({ row, text, read }) =>
    read.unread.length > 0 || (read.acts.length === 0 && !read.isStop) ? [{ row, text }] : [],
  )
  return { groups, unread: unread.slice(0, MOST_UNREAD) }
}

async function wouldDo(
  db: Reader,
  planned: Planned,
  at: { shop: ShopPlaces & ShopFit; decisions: Record<string, NoteDecision> },
): Promise<Record<string, number>> {
  const { shop } = at
  if (planned.kind === 'history') return historyWould(planned.plan, at.decisions)
  if (planned.kind === 'parts' || planned.kind === 'families') return fitWould(planned, shop)
  if (planned.kind === 'purchases') return purchasesWould(db, planned.plan)
  if (planned.kind === 'usage') {
    const keys = planned.plan.rows.map(usageKey)
    const known =
      keys.length === 0
        ? []
        : await db
            .select({ key: usageSpan.idempotencyKey })
            .from(usageSpan)
            .where(inArray(usageSpan.idempotencyKey, keys))
    return {
      'usage rows new': keys.length - known.length,
      'usage rows there already': known.length,
      'idle rows left out': planned.plan.leftOut.length,
    }
  }
  const names = new Set(shop.stations.map((s) => s.name.toLowerCase()))
  const fresh = planned.plan.places.filter((p) => !names.has(p.name.toLowerCase()))
  return {
    'places new': fresh.length,
    'places there already': planned.plan.places.length - fresh.length,
    'parts put on': planned.plan.fits.length,
  }
}

async function purchasesWould(db: Reader, plan: PurchasePlan): Promise<Record<string, number>> {
  const { rows, leftOut, bad } = plan
  const fresh = await freshPurchases(db, rows)
  return {
    'purchases new': fresh.length,
    'purchases there already': rows.length - fresh.length,
    'rows of other goods left out': leftOut.length,
    'rows left out': bad.length,
  }
}

/** How many parts or families are new, and how many are there already and get what the sheet tells. */
function fitWould(planned: Extract<Planned, { kind: 'parts' | 'families' }>, shop: ShopFit): Record<string, number> {
  const isParts = planned.kind === 'parts'
  const names = isParts ? planned.plan.parts.map((p) => p.code) : planned.plan.families.map((f) => f.name)
  const known = isParts ? [...shop.partById.values()].map((p) => p.code) : [...shop.families.values()]
  const there = new Set(known.map((n) => n.toLowerCase()))
  const fresh = names.filter((n) => !there.has(n.toLowerCase())).length
  const word = isParts ? 'parts' : 'families'
  return { [`${word} new`]: fresh, [`${word} there already`]: names.length - fresh }
}

function historyWould(plan: HistoryPlan, decisions: Record<string, NoteDecision>): Record<string, number> {
  const did = { 'parts put on': 0, cleanings: 0, looks: 0, 'acts left out': 0 }
  for (const act of plan.notes.flatMap((n) => n.read.acts)) {
    const as = decided(act, decisions)
    if (as === 'changed') did['parts put on'] += act.count
    else if (as === 'cleaned') did.cleanings++
    else if (as === 'seen') did.looks++
    else did['acts left out']++
  }
  return { ...did, 'rows left out': plan.bad.length }
}

/** Takes a whole sheet in, or nothing of it. The same sheet again is told apart by its content and does nothing. */
export async function takeImport(
  deps: Deps,
  who: Who,
  request: ImportRequest,
): Promise<{ did: Record<string, number>; isRepeat: boolean }> {
  mustLead(who)
  const key = sheetKey(request)
  const known = async () => {
    const [run] = await deps.db.select().from(importRun).where(eq(importRun.idempotencyKey, key))
    return run ? { did: run.summary, isRepeat: true } : null
  }
  return once(known, async () => {
    const progress = await startProgress(deps, request.runKey)
    return writeAct(deps, who, async (w) => {
      w.inSteps((done, of) => progress('counting guns again', done, of))
      const { did, sheet } = await takeInside(w, { request, key })
      await w.tx.insert(importRun).values({
        idempotencyKey: key,
        kind: request.kind,
        atMs: deps.now(),
        byId: who.person?.id ?? null,
        summary: did,
        headings: sheet.headings,
        columns: sheet.columns,
      })
      await progress('writing the lines', 0, sheet.rows.length)
      return { did, isRepeat: false }
    })
  })
}

interface Taking {
  request: ImportRequest
  key: string
}

async function takeInside(w: Writing, at: Taking): Promise<{ did: Record<string, number>; sheet: Sheet }> {
  const { tx, deps } = w
  const { request } = at
  const shop = await w.shop()
  const { sheet, bad, planned } = await planOf(tx, request, { shop, nowMs: deps.now() })
  if (!(request.leaveOutBad && canLeaveOut(planned))) mustBeGood(bad)
  const decisions = request.decisions ?? {}
  const did = await wouldDo(tx, planned, { shop, decisions })
  await writePlanned(w, planned, { ...at, decisions })
  return { did, sheet }
}

function writePlanned(
  w: Writing,
  planned: Planned,
  at: Taking & { decisions: Record<string, NoteDecision> },
): Promise<void> {
  switch (planned.kind) {
    case 'usage':
      return writeUsage(w, { ...at, rows: planned.plan.rows })
    case 'places':
      return writePlaces(w, { plan: planned.plan })
    case 'purchases':
      return writePurchases(w, { ...at, rows: planned.plan.rows })
    case 'parts':
      return writeParts(w, { ...at, plan: planned.plan })
    case 'families':
      return writeFamilies(w, { ...at, plan: planned.plan })
    case 'history':
      return writeHistory(w, { ...at, plan: planned.plan })
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
