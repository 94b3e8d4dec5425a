import { eq, inArray } from 'drizzle-orm'
import { WANTED } from '@core/ingest/guess.ts'
import { askedWords, groupNotes } from '@core/ingest/notes.ts'
import { TAB_HEADINGS } from '@core/ingest/tabs.ts'
import {
  type BadRow,
  type ImportPreview,
  type ImportRequest,
  type NoteDecision,
  type PreviewRequest,
} from '@contract/ingest.ts'
import { importRun, usageSpan } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { once } from '@server/call/once.ts'
import { mustLead, type Deps, type Who } from '@server/call/context.ts'
import { DomainError } from '@server/problem/problem.ts'
import { loadShop, type ShopFit, type ShopKinds, type ShopPlaces, type ShopSite } from '@server/shopmodel/model.ts'
import { writeAct, type Writing } from '@server/write/act.ts'
import { decided, type HistoryPlan } from './history.ts'
import { sheetKey, usageKey } from './key.ts'
import { kindOfSheet, planOf, seenBy, type Planned } from './plan.ts'
import { type PurchasePlan } from './purchases.ts'
import { startProgress } from './progress.ts'
import { LABELS, type Sheet } from './sheet.ts'
import { writeFamilies, writeParts } from './takefit.ts'
import { writeHistory } from './takehistory.ts'
import { freshPurchases, writePurchases } from './takepurchases.ts'
import { writePlaces } from './takeplaces.ts'
import { writeUsage } from './takeusage.ts'

/** What a sheet holds, what is wrong with it, and what taking it in would do. Writes nothing. */
export async function previewImport(deps: Deps, who: Who, asked: PreviewRequest): Promise<ImportPreview> {
  mustLead(who)
  const shop = await loadShop(deps.db, deps.shops, deps.now())
  const nowMs = deps.now()
  const seen = seenBy(shop, asked.text, nowMs)
  const request = { ...asked, kind: asked.kind === 'guess' ? kindOfSheet(seen, shop) : asked.kind }
  const { sheet, bad, planned } = await planOf(deps.db, request, { shop, nowMs, seen })
  const used = new Set(Object.values(sheet.columns))
  const leftOut = 'leftOut' in planned.plan ? planned.plan.leftOut.slice(0, MOST_UNREAD) : []
  const notes = notesOf(planned, { shop, sheet })
  const spokenOf = [...bad, ...leftOut, ...notes.unread].map((r) => r.row)
  return {
    kind: request.kind,
    lies: sheet.lies,
    headings: sheet.headings,
    columns: sheet.columns,
    wanted: WANTED[request.kind].map((w) => ({ key: w.key, label: LABELS[w.key] ?? w.key, isNeeded: w.isNeeded })),
    rows: sheet.rows.length,
    sample: sheet.rows.slice(0, 5),
    bad,
    leftOut,
    ...notes,
    words: wordsOf(planned, shop),
    names: 'names' in planned.plan ? counted(planned.plan.names) : [],
    notTaken: sheet.headings.filter(
      (h, i) => i >= sheet.made && h !== '' && !used.has(i) && !TAB_HEADINGS.some((t) => t === h),
    ),
    rowNames: Object.fromEntries(spokenOf.flatMap((row) => (sheet.rowNames[row] ? [[row, sheet.rowNames[row]]] : []))),
    would: await wouldDo(deps.db, planned, { shop, decisions: request.decisions ?? {} }),
    canTake: bad.length === 0 || canLeaveOut(planned),
  }
}

const MOST_NAMES = 60
/** Each name once, the most frequent first; a name that is missing is no name. */
const counted = (names: readonly string[]): ImportPreview['names'] => {
  const counts = new Map<string, number>()
  for (const name of names) if (name) counts.set(name, (counts.get(name) ?? 0) + 1)
  return [...counts]
    .map(([name, rows]) => ({ name, rows }))
    .sort((a, b) => b.rows - a.rows || (a.name < b.name ? -1 : 1))
    .slice(0, MOST_NAMES)
}

/** Words for parts that are nobody's yet, in notes or in a list of parts. */
function wordsOf(planned: Planned, shop: ShopSite): ImportPreview['words'] {
  const others = new Set(shop.site.otherWords ?? [])
  if (planned.kind === 'history') return askedWords(planned.plan.notes, others)
  if (planned.kind !== 'parts' && planned.kind !== 'places') return []
  const notes = planned.plan.words.map((text) => ({ text, read: { words: [text.toLowerCase()] } }))
  return askedWords(notes, others)
}

const MOST_UNREAD = 200

/** Rows that can't be read may stay out where there are others; families hang together with parts and go whole. */
function canLeaveOut({ kind, plan }: Planned): boolean {
  switch (kind) {
    case 'history':
      return plan.notes.length > 0
    case 'purchases':
    case 'usage':
      return plan.rows.length > 0
    case 'places':
      return plan.places.length > 0
    case 'parts':
      return plan.parts.length > 0
    case 'families':
      return false
  }
}

/** A history's groups, and what in its notes nobody but a person can read. */
function notesOf(
  planned: Planned,
  { shop, sheet }: { shop: ShopKinds; sheet: Sheet },
): Pick<ImportPreview, 'groups' | 'unread'> {
  if (planned.kind !== 'history') return { groups: [], unread: [] }
  const groups = groupNotes(planned.plan.notes).map(({ kindKey, ...group }) => {
    const kind = shop.kindByKey.get(kindKey)
    return { ...group, kindName: kind?.name ?? kindKey, canClean: kind?.canClean ?? false }
  })
  const unread = planned.plan.notes.flatMap(({ row, text, read }) =>
    read.unread.length > 0 || read.acts.length === 0 ? [{ row, text }] : [],
  )
  const all = [...sheet.unread, ...unread].sort((a, b) => a.row - b.row)
  return { groups, unread: all.slice(0, MOST_UNREAD) }
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
      'rows or amounts left out': planned.plan.leftOut.length,
    }
  }
  const names = new Set(shop.stations.map((s) => s.name.toLowerCase()))
  const fresh = planned.plan.places.filter((p) => !names.has(p.name.toLowerCase()))
  return {
    'places new': fresh.length,
    'places there already': planned.plan.places.length - fresh.length,
    'cells told how they are built': planned.plan.places.filter((p) => Object.keys(p.cell).length > 0).length,
    'wires new': new Set(fresh.flatMap((p) => p.newWire?.name ?? [])).size,
    'parts put on': planned.plan.fits.length,
    'cells left out': planned.plan.bad.length,
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
  const nowMs = deps.now()
  const seen = seenBy(shop, request.text, nowMs)
  const { sheet, bad, planned } = await planOf(tx, request, { shop, nowMs, seen })
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
