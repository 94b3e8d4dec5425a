import { type AreaId, NO_ID } from '@core/ids/id.ts'
import { carriersAt } from '@server/gunnow/setup.ts'
import { chainsWhere } from '@server/ledger/chains.ts'
import { type FactKind } from '@core/ledger/event.ts'
import Papa from 'papaparse'
import { and, asc, desc, eq, gte, inArray, isNotNull, lt } from 'drizzle-orm'
import { z } from 'zod'
import { standingFacts, type Standing } from '@core/ledger/resolve.ts'
import { kindOfPosition } from '@core/path/columns.ts'
import { IMPORT_KINDS, type ImportKind } from '@contract/ingest.ts'
import { importRun, ledgerEvent, part, person, positionNow, stationNow, usageSpan } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { mustLead, type Deps, type Who } from '@server/call/context.ts'
import { fromRow } from '@server/ledger/lines.ts'
import { harmless } from '@server/logbook/csv.ts'
import { readLies } from '@server/projection/stock.ts'
import { readPurchases } from '@server/parts/purchases.ts'
import {
  loadShop,
  type ShopModel,
  type ShopPlaces,
  type ShopSite,
  type ShopKinds,
  type StationRow,
} from '@server/shopmodel/model.ts'
import { shiftSpan, shiftsOf } from '@server/time/calendar.ts'
import { addDays, dayOf, wallOf, wallToMsOrNext } from '@server/time/wall.ts'
import { hoursEach, kgEach } from '@core/ingest/amounts.ts'
import { CELL_COLUMNS } from '@core/ingest/cellsheet.ts'
import { WANTED } from '@core/ingest/guess.ts'
import { LABELS } from './sheet.ts'
import { gramsOf } from './usage.ts'

/** A row by the wanted columns' keys. */
type Row = Record<string, string>
interface At {
  db: Reader
  shop: ShopModel
  nowMs: number
  fromMs: number
  toMs: number
  /** What a wanted column is called in the sheet; '' where it has none. Its unit is read of it, on the way back too. */
  headingOf: (key: string) => string
}

export const sheetQuery = z.object({
  kind: z.enum(IMPORT_KINDS),
  /** Only headings, and what is known beforehand: places, items. */
  blank: z.enum(['0', '1']).default('0'),
  from: z.iso.date().optional(),
  to: z.iso.date().optional(),
})
const DAYS_BACK = 366

/**
 * A sheet given back: what is known, in the very columns the shop's own sheet came in, or in plain ones where none did. A column
 * that means nothing here comes back empty. Taken in again it changes nothing that is there.
 */
export async function sheetBack(deps: Deps, who: Who, query: z.output<typeof sheetQuery>): Promise<string> {
  mustLead(who)
  const nowMs = deps.now()
  const shop = await loadShop(deps.db, deps.shops, nowMs)
  const { zone } = shop.site
  const to = query.to ?? dayOf(zone, nowMs)
  const from = query.from ?? addDays(to, -DAYS_BACK)
  const { headings, columns } = await columnsOf({ db: deps.db, shop }, query.kind)
  const at: At = {
    db: deps.db,
    shop,
    nowMs,
    fromMs: wallToMsOrNext(zone, from, '00:00'),
    toMs: wallToMsOrNext(zone, addDays(to, 1), '00:00'),
    headingOf: (key) => headings[columns[key] ?? -1] ?? '',
  }
  const rows = query.blank === '1' ? await blanks(query.kind, at) : await ROWS[query.kind](at)
  const keyAt = new Map(Object.entries(columns).map(([key, index]) => [index, key]))
  const data = rows.map((row) => headings.map((_, i) => harmless(row[keyAt.get(i) ?? ''] ?? '')))
  return Papa.unparse({ fields: headings.map(harmless), data }, { newline: '\r\n' })
}

/** The columns of the newest sheet of a kind, as it came in. */
async function columnsOf(
  { db, shop }: Pick<At, 'db' | 'shop'>,
  kind: ImportKind,
): Promise<{ headings: string[]; columns: Record<string, number> }> {
  const [last] = await db
    .select()
    .from(importRun)
    .where(and(eq(importRun.kind, kind), isNotNull(importRun.headings)))
    .orderBy(desc(importRun.atMs))
    .limit(1)
  if (last?.headings && last.columns) return { headings: last.headings, columns: last.columns }
  // A shop without robots is not asked how their cells are built.
  const hasCells = shop.stations.some((s) => s.classKey === 'cell')
  const keys = WANTED[kind].map((w) => w.key).filter((key) => hasCells || !OF_CELLS.has(key))
  return { headings: keys.map((k) => LABELS[k] ?? k), columns: Object.fromEntries(keys.map((k, i) => [k, i])) }
}

const OF_CELLS: ReadonlySet<string> = new Set(CELL_COLUMNS.map((c) => c.key))
const ROWS: Record<ImportKind, (at: At) => Promise<Row[]>> = {
  places: placeRows,
  usage: usageRows,
  history: historyRows,
  purchases: purchaseRows,
  parts: partRows,
  families: familyRows,
}

async function blanks(kind: ImportKind, at: At): Promise<Row[]> {
  const today = dayOf(at.shop.site.zone, at.nowMs)
  const places = at.shop.stations.map((s) => ({ place: s.name, area: areaName(s.areaId, at.shop) }))
  if (kind === 'usage') return places.map(({ place }) => ({ place, date: today }))
  if (kind === 'places') return places
  if (kind === 'history' || kind === 'families') return []
  if (kind === 'parts') return at.shop.kinds.map((k) => ({ kind: k.name }))
  const parts = await at.db.select().from(part).orderBy(asc(part.code))
  const month = today.slice(0, 7)
  return [
    ...parts.map((p) => ({ item: p.code, month, unit: 'pcs' })),
    ...[...at.shop.wires.values()].map((w) => ({ item: w.name, month, unit: 'kg' })),
  ]
}

const areaName = (areaId: AreaId, shop: ShopPlaces) => shop.areas.find((a) => a.id === areaId)?.name ?? ''
const text = (value: number | null | undefined) => (value === null || value === undefined ? '' : String(value))

/** A range as it reads back. */
const rangeText = (span: readonly [number, number] | null | undefined) => (span ? `${span[0]}–${span[1]} mm` : '')
const yesNo = (value: boolean | null | undefined) => (value === null || value === undefined ? '' : value ? 'yes' : 'no')

async function partRows({ db, shop }: At): Promise<Row[]> {
  const rows = await db.select().from(part).orderBy(asc(part.code))
  // A sheet is a count of the main place: that is what it gives back.
  const lies = await readLies(db)
  return rows.map((p) => ({
    part: p.code,
    kind: shop.kindByKey.get(p.kindKey)?.name ?? p.kindKey,
    partName: p.name,
    family: shop.families.get(p.familyId ?? '') ?? '',
    size: p.wireSizeMm === null ? '' : `${p.wireSizeMm} mm`,
    wires: rangeText(p.fit?.wireMm),
    made: p.fit?.linerKind ?? p.fit?.material ?? p.fit?.metal ?? '',
    partLength: text(p.fit?.lengthM),
    faces: p.fit?.grooves?.map((g) => `${g.sizeMm} ${g.shape}`).join(' / ') ?? '',
    forAluminium: yesNo(p.fit?.isForAluminium),
    rated: text(p.fit?.ratedAmps),
    proof: p.fit?.proof ?? '',
    price: p.priceMinor === null ? '' : String(p.priceMinor / 100),
    onHand: text(lies.get(p.id)?.find((l) => l.storeId === null)?.onHand),
  }))
}

function familyRows({ shop }: At): Promise<Row[]> {
  return Promise.resolve(
    [...shop.familyById.values()].map(({ name, fit }) => ({
      family: name,
      thread: fit?.thread ?? '',
      pin: fit?.pin ?? '',
      linerHeld: fit?.linerHeldBy ?? '',
      nozzle: fit?.nozzleStyle ?? '',
      neck: text(fit?.neckMm),
      standsOut: text(fit?.seatDepthMm),
    })),
  )
}

function placeRow(s: StationRow, shop: ShopModel): Row {
  const built = shop.built(s.id)
  const cell = s.classKey === 'cell' ? built.cell : null
  return {
    place: s.name,
    area: areaName(s.areaId, shop),
    wire: shop.wires.get(built.wireId ?? '')?.name ?? '',
    cable: text(built.cableM),
    placeClass: shop.classes.get(s.classKey)?.name ?? s.classKey,
    ...(cell ? Object.fromEntries(CELL_COLUMNS.map((c) => [c.key, c.write(cell)])) : {}),
  }
}

async function placeRows({ db, shop }: At): Promise<Row[]> {
  const [nows, positions, parts] = await Promise.all([
    db.select().from(stationNow),
    db
      .select({
        carrierId: positionNow.carrierId,
        position: positionNow.position,
        partId: positionNow.partId,
        fittedMs: positionNow.fittedMs,
      })
      .from(positionNow)
      .where(isNotNull(positionNow.fittedMs)),
    db.select().from(part),
  ])
  const codeOf = new Map(parts.map((p) => [p.id, p.code]))
  const nowOf = new Map(nows.map((n) => [n.stationId, n]))
  return shop.stations.flatMap((s) => {
    const now = nowOf.get(s.id)
    const carriers = new Set(carriersAt(s.id, now, shop))
    const here = placeRow(s, shop)
    const on = positions
      .filter((p) => carriers.has(p.carrierId))
      .map((p) => ({
        ...here,
        position: shop.kindByKey.get(kindOfPosition(p.position))?.name ?? p.position,
        part: codeOf.get(p.partId ?? NO_ID) ?? '',
        fitted: dayOf(shop.site.zone, p.fittedMs ?? 0),
      }))
    return on.length > 0 ? on : [here]
  })
}

/** Shift totals as entered, the newest entry of each stretch, in the units of the sheet's own headings. */
async function usageRows({ db, shop, fromMs, toMs, headingOf }: At): Promise<Row[]> {
  const [spans, nows] = await Promise.all([
    db
      .select()
      .from(usageSpan)
      .where(and(eq(usageSpan.source, 'shiftLog'), gte(usageSpan.fromMs, fromMs), lt(usageSpan.fromMs, toMs)))
      .orderBy(asc(usageSpan.fromMs), asc(usageSpan.loggedMs)),
    db.select().from(stationNow),
  ])
  const stationOf = new Map(nows.map((n) => [n.headId ?? '', shop.stationById.get(n.stationId)]))
  const held = new Map(spans.map((s) => [`${s.headId} ${s.fromMs} ${s.toMs}`, s]))
  return [...held.values()].flatMap((s) => {
    const station = stationOf.get(s.headId)
    if (!station) return []
    const day = dayOf(shop.site.zone, s.fromMs)
    const shift = shiftsOf(shop.shifts, station.areaId).find((p) => {
      const span = shiftSpan(shop.site.zone, p, day)
      return span.fromMs === s.fromMs && span.toMs >= s.toMs
    })
    return [
      {
        place: station.name,
        date: day,
        shift: shift?.name ?? '',
        arcHours: inUnit(s.arcHours, hoursEach(headingOf('arcHours'))),
        kg: inUnit(s.kg, kgEach(headingOf('kg'), gramsOf(shop.wires.get(shop.built(station.id).wireId ?? '')))),
        starts: text(s.starts),
      },
    ]
  })
}

/** As many of the heading's unit as it came from; '' where it cannot be told in it. */
const inUnit = (value: number | null, each: number | null): string =>
  value === null || each === null ? '' : text(Number((value / each).toPrecision(12)))

const WORK: FactKind[] = ['fitted', 'cleaned', 'confirmed']

/** Work on parts, a note a row: the note it was brought in with, else what was done in words that read back as the same. */
async function historyRows({ db, shop, fromMs, toMs }: At): Promise<Row[]> {
  const [rows, people] = await Promise.all([
    chainsWhere(
      db,
      and(gte(ledgerEvent.happenedMs, fromMs), lt(ledgerEvent.happenedMs, toMs), inArray(ledgerEvent.kind, WORK)),
    ),
    db.select().from(person),
  ])
  const said = new Map(rows.filter((r) => r.id === r.rootId).map((r) => [r.id, r]))
  const nameOf = new Map(people.map((p) => [p.id, p.name]))
  const notes = new Map<string, { atMs: number; row: Row }>()
  for (const standing of standingFacts(rows.map(fromRow))) {
    const first = said.get(standing.eventId)
    const station = shop.stationById.get(standing.stationId ?? NO_ID)
    const words = wordsOf(standing, shop)
    if (!station || !words || standing.happenedMs < fromMs || standing.happenedMs >= toMs) continue
    // One note of a sheet may have become several lines; it comes back as the one note it was.
    const isBrought = first?.actKind === 'sheet' && first.note !== null
    const note = isBrought ? (first.note ?? '') : words
    const key = isBrought ? `${station.id} ${standing.happenedMs} ${note}` : standing.eventId
    notes.set(key, {
      atMs: standing.happenedMs,
      row: { ...whenOf(standing, shop), place: station.name, note, who: nameOf.get(first?.personId ?? NO_ID) ?? NO_ID },
    })
  }
  return [...notes.values()].sort((a, b) => a.atMs - b.atMs).map((n) => n.row)
}

function whenOf(standing: Standing, shop: ShopSite): Row {
  const day = dayOf(shop.site.zone, standing.happenedMs)
  return { date: standing.precision === 'exact' ? `${day} ${wallOf(shop.site.zone, standing.happenedMs)}` : day }
}

const REASON: Record<string, string> = {
  worn: ', worn',
  burnedBack: ', burnt back',
  due: ', due',
  knocked: ', knocked',
  stripped: ', stripped',
  blocked: ', blocked',
  kinked: ', kinked',
}

function wordsOf({ fact }: Standing, shop: ShopKinds): string | null {
  if (!('position' in fact) || !fact.position) return null
  const name = shop.kindByKey.get(kindOfPosition(fact.position))?.name ?? fact.position
  if (fact.kind === 'cleaned') return `${name} cleaned`
  if (fact.kind === 'confirmed') return `${name} looked at`
  if (fact.kind !== 'fitted') return null
  return `${name} changed${fact.count > 1 ? ` x${fact.count}` : ''}${REASON[fact.outReason] ?? ''}`
}

const MONTHS_BACK = 60

async function purchaseRows({ db, shop, nowMs, fromMs, toMs }: At): Promise<Row[]> {
  const { zone } = shop.site
  const rows = await readPurchases(db, { zone, nowMs, months: MONTHS_BACK })
  const [from, to] = [dayOf(zone, fromMs).slice(0, 7), dayOf(zone, toMs - 1).slice(0, 7)]
  return rows
    .filter((r) => r.month >= from && r.month <= to)
    .sort((a, b) => (a.month < b.month ? -1 : a.month > b.month ? 1 : a.item < b.item ? -1 : 1))
    .map((r) => ({
      item: r.item,
      month: r.month,
      quantity: text(r.quantity),
      unit: r.kindKey === null ? 'kg' : 'pcs',
      area: r.areaId ? areaName(r.areaId, shop) : '',
    }))
}
