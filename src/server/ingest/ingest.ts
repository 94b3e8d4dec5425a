import { createHash } from 'node:crypto'
import { and, eq, inArray, max } from 'drizzle-orm'
import { makeId, type CarrierId, type EventId, type PartId, type StationId } from '@core/ids/id.ts'
import { type BadRow, type ImportPreview, type ImportRequest } from '@contract/ingest.ts'
import { importRun, ledgerEvent, part, station, stationNow, usageSpan } from '@server/db/schema.ts'
import { isDuplicate, transact, type Reader, type Tx } from '@server/db/db.ts'
import { mustLead, type Deps, type Who } from '@server/http/context.ts'
import { DomainError } from '@server/http/problem.ts'
import { append, nothingTouched, type Draft, type Touched } from '@server/ledger/append.ts'
import { project } from '@server/projection/project.ts'
import { usageDraft } from '@server/clock/usage.ts'
import { loadShop, type ShopModel } from '@server/shop/model.ts'
import { ensureArea, insertStations } from '@server/shop/places.ts'
import { placeOf } from '@server/logbook/log.ts'
import { carrierAt } from '@server/logbook/draft.ts'
import { LABELS, missingColumns, readSheet, WANTED, type Sheet } from './sheet.ts'
import { planPlaces, type PlacePlan } from './places.ts'
import { planUsage, type UsagePlan } from './usage.ts'

type Planned = { kind: 'places'; plan: PlacePlan } | { kind: 'usage'; plan: UsagePlan }

async function planOf(
  db: Reader,
  request: ImportRequest,
  at: { shop: ShopModel; nowMs: number },
): Promise<{ sheet: Sheet; bad: BadRow[]; planned: Planned }> {
  const { shop, nowMs } = at
  const sheet = readSheet(request.kind, request.text, request.columns)
  const missing = missingColumns(request.kind, sheet)
  if (missing.length > 0) {
    const nothing: Planned =
      request.kind === 'places'
        ? { kind: 'places', plan: { places: [], fits: [], bad: [] } }
        : { kind: 'usage', plan: { rows: [], bad: [] } }
    return { sheet, bad: missing, planned: nothing }
  }
  if (request.kind === 'usage') {
    const plan = planUsage(sheet, shop, nowMs)
    return { sheet, bad: plan.bad, planned: { kind: 'usage', plan } }
  }
  const plan = planPlaces(sheet, shop, { nowMs })
  const codes = [...new Set(plan.fits.flatMap((f) => f.partCode ?? []))]
  const parts = codes.length === 0 ? [] : await db.select().from(part).where(inArray(part.code, codes))
  const unknown = plan.fits.filter((f) => f.partCode && !parts.some((p) => p.code === f.partCode))
  const wrongKind = plan.fits.filter((f) => parts.some((p) => p.code === f.partCode && p.kindKey !== f.kind.key))
  const column = sheet.headings[sheet.columns['part'] ?? -1] ?? 'part'
  const bad = [
    ...plan.bad,
    ...unknown.map((f) => ({
      row: f.row,
      column,
      value: f.partCode ?? '',
      why: 'no part has this code; add it under Our shop, or leave the cell empty',
    })),
    ...wrongKind.map((f) => ({
      row: f.row,
      column,
      value: f.partCode ?? '',
      why: `that code is not a ${f.kind.name}`,
    })),
  ].sort((a, b) => a.row - b.row)
  return { sheet, bad, planned: { kind: 'places', plan } }
}

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

const shortHash = (text: string) => createHash('sha256').update(text).digest('hex').slice(0, 40)
/** A row is the same row when place, time and amounts are: the same file twice changes nothing, a mended total is a new entry. */
const usageKey = (row: UsagePlan['rows'][number]) =>
  `sheet/${shortHash(`${row.identity} ${row.kg} ${row.arcHours} ${row.starts}`)}`

/** Takes a whole sheet in, or nothing of it. The same sheet again is told apart by its content and does nothing. */
export async function takeImport(
  deps: Deps,
  who: Who,
  request: ImportRequest,
): Promise<{ did: Record<string, number>; isRepeat: boolean }> {
  mustLead(who)
  const key = `import/${shortHash(JSON.stringify([request.kind, request.text, request.columns ?? null]))}`
  const [before] = await deps.db.select().from(importRun).where(eq(importRun.idempotencyKey, key))
  if (before) return { did: before.summary, isRepeat: true }
  try {
    return await transact(deps.db, async (tx) => {
      const shop = await loadShop(tx, deps.calendar, deps.now())
      const { bad, planned } = await planOf(tx, request, { shop, nowMs: deps.now() })
      if (bad.length > 0)
        throw new DomainError(
          'sheet-refused',
          `${bad.length} of the sheet's cells can't be taken; nothing was.`,
          bad.map((b) => `row ${b.row}, ${b.column}, "${b.value}": ${b.why}`),
        )
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

const BATCH = 2000

async function writeUsage(
  tx: Tx,
  at: { deps: Deps; who: Who; rows: UsagePlan['rows']; key: string },
): Promise<Touched> {
  const { deps, rows } = at
  const nows = await tx
    .select()
    .from(stationNow)
    .where(inArray(stationNow.stationId, [...new Set(rows.map((r) => r.stationId))]))
  const headOf = new Map(nows.map((n) => [n.stationId, n.headId]))
  const keys = rows.map(usageKey)
  const known = new Set(
    (
      await tx.select({ key: usageSpan.idempotencyKey }).from(usageSpan).where(inArray(usageSpan.idempotencyKey, keys))
    ).map((k) => k.key),
  )
  const fresh = rows.flatMap((row) => {
    const headId = headOf.get(row.stationId)
    const idempotencyKey = usageKey(row)
    if (!headId || known.has(idempotencyKey)) return []
    return [
      {
        id: makeId('usage', deps.now(), deps.random),
        headId,
        fromMs: row.fromMs,
        toMs: row.toMs,
        source: 'shiftLog' as const,
        kg: row.kg,
        arcHours: row.arcHours,
        starts: row.starts,
        loggedMs: deps.now(),
        idempotencyKey,
      },
    ]
  })
  for (let i = 0; i < fresh.length; i += BATCH) await tx.insert(usageSpan).values(fresh.slice(i, i + BATCH))
  await append(tx, [
    usageDraft(deps, at.who, {
      key: at.key,
      headId: null,
      stationId: null,
      rows: fresh.length,
      happenedMs: deps.now(),
    }),
  ])
  return {
    ...nothingTouched(),
    carrierIds: new Set(fresh.map((r) => r.headId)),
    stationIds: new Set(rows.map((r) => r.stationId)),
  }
}

async function writePlaces(tx: Tx, at: { deps: Deps; who: Who; plan: PlacePlan; shop: ShopModel }): Promise<Touched> {
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
  const byName = new Map(shop.stations.map((s) => [s.name.toLowerCase(), s.id]))
  const codes = [...new Set(plan.fits.flatMap((f) => f.partCode ?? []))]
  const parts = new Map(
    (codes.length === 0 ? [] : await tx.select().from(part).where(inArray(part.code, codes))).map((p) => [
      p.code,
      p.id,
    ]),
  )
  const drafts: Draft[] = []
  for (const fit of plan.fits) {
    const stationId = byName.get(fit.place.toLowerCase()) ?? ''
    const place = await placeOf(tx, stationId, shop)
    const carrierId = carrierAt(place, fit.kind.key, shop)
    const idempotencyKey = `sheet/${shortHash(`${stationId} ${fit.kind.key} ${fit.fittedMs}`)}`
    const [there] = await tx
      .select({ id: ledgerEvent.id })
      .from(ledgerEvent)
      .where(and(eq(ledgerEvent.idempotencyKey, idempotencyKey)))
    if (there || drafts.some((d) => d.idempotencyKey === idempotencyKey)) continue
    const id = makeId('event', deps.now(), deps.random) as EventId
    drafts.push({
      id,
      rootId: id,
      happenedMs: fit.fittedMs,
      loggedMs: deps.now(),
      precision: 'day',
      stationId: stationId as StationId,
      personId: (who.person?.id ?? null) as Draft['personId'],
      deviceId: null,
      note: null,
      body: {
        type: 'fact',
        fact: {
          kind: 'fitted',
          carrierId: carrierId as CarrierId,
          position: fit.kind.key,
          partId: (fit.partCode ? (parts.get(fit.partCode) ?? null) : null) as PartId | null,
          outReason: 'notSaid',
          count: 1,
          entryAge: 'new',
        },
      },
      idempotencyKey,
    })
  }
  return drafts
}
