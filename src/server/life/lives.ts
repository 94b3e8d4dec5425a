import { type CarrierId, type EventId, type PartId, type StationId } from '@core/ids/id.ts'
import { DAY_MS } from '@core/units/time.ts'
import { sql } from 'drizzle-orm'
import { benchEnd, type Bench, type LifeFact, type Unsure } from '@core/life/facts.ts'
import { lengthTimes } from '@core/spools/bylength.ts'
import { isMeasured } from '@core/ledger/exposure.ts'
import { kindOfPosition, type LifeUnit, type OutReason } from '@core/path/columns.ts'
import { carriersAt } from '@server/gunnow/setup.ts'
import { headNow, positionNow, stationNow } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { standingOfKind } from '@server/ledger/standings.ts'
import { amountOf } from '@server/logbook/payback.ts'
import { groupBy, type KindRow, type ShopFit, type ShopPlaces } from '@server/shopmodel/model.ts'

export interface Life extends LifeFact {
  carrierId: CarrierId
  /** What the bench showed of it, where it was looked at. */
  bench?: Bench
  partId: PartId | null
  stationId: StationId | null
  classKey: string | null
  fromMs: number
  toMs: number | null
  toEventId: EventId | null
  cleanings: number
  kg: number | null
}
export interface Lives {
  lives: Life[]
  /** Left out: nothing was welded between its two lines; no clock there; counted in another unit only. */
  noUse: number
  noClock: number
  otherUnit: number
  /** Ends the bench was asked about, and those it was not sure of. */
  benched: number
  unsure: number
}
/** Habits, parts and people change: what ended longer ago speaks of another shop. */
export const LOOK_BACK_MS = 2 * 365 * DAY_MS
/** So many say all there is to say, and are read in a moment. */
export const MOST_LIVES = 20_000
const SHIFT_H = 8

type EndedRow = Omit<Life, 'used' | 'reason' | 'isAgeUnknown' | 'perShift'> & {
  reason: OutReason
  entryAge: 'new' | 'unknown'
  km: number | null
  arcHours: number | null
  starts: number | null
  matings: number
  spools: number
}
interface LivesAt {
  kind: KindRow
  nowMs: number
  classKey?: string | null
  /** What is taken of a bench that was not sure; the reason that was said where left out. */
  unsure?: Unsure | undefined
}

/** Lives of one kind from the ledger, newest first: ended within two years, and those still going on. */
export async function livesOf(db: Reader, shop: ShopPlaces & ShopFit, at: LivesAt): Promise<Lives> {
  const [ended, open, places, benchOf] = await Promise.all([
    endedOf(db, at),
    openOf(db, at.kind),
    placesNow(db, shop),
    benchesOf(db, at),
  ])
  const found: Lives = { lives: [], noUse: 0, noClock: 0, otherUnit: 0, benched: 0, unsure: 0 }
  const perShift = perShiftOf(places, at.kind)
  for (const row of ended) take(found, row, { unit: at.kind.lifeUnit, places, perShift })
  for (const row of open) {
    const stationId = places.stationOf.get(row.carrierId) ?? null
    const place = stationId ? shop.stationById.get(stationId) : undefined
    if (!place || (at.classKey && place.classKey !== at.classKey)) continue
    const { used, ...life } = row
    if (used === null) found.noClock++
    else if (used > 0)
      found.lives.push({
        ...{ ...life, used, reason: null, stationId, classKey: place.classKey },
        ...{ toMs: null, toEventId: null, perShift: perShift(stationId) },
      })
  }
  for (const life of found.lives) {
    asOfOneWire(life, at.kind, shop)
    const bench = benchOf(life)
    if (!bench) continue
    found.benched++
    if (!bench.isCertain) found.unsure++
    life.bench = bench
    life.end = benchEnd(life.reason, bench, at.unsure ?? 'said')
  }
  return found
}

/** Told with the act that took it out. */
const SAME_MS = 60_000
/** What wears by length is counted as of one wire, whatever ran through it: by the wire of its place, as that is built now. */
function asOfOneWire(life: Life, kind: KindRow, shop: ShopFit): void {
  const wireId = life.stationId ? shop.built(life.stationId).wireId : null
  const times = lengthTimes(kind, wireId ? (shop.wires.get(wireId) ?? null) : null)
  life.used /= times
  life.perShift /= times
}

/** What the bench showed of the parts that came out; only of liners is anything kept. */
async function benchesOf(db: Reader, at: LivesAt): Promise<(life: Life) => Bench | null> {
  if (at.kind.key !== 'liner') return () => null
  const told = (await standingOfKind(db, 'autopsy', at.nowMs - LOOK_BACK_MS)).flatMap(({ fact, happenedMs }) =>
    fact.kind === 'autopsy' && fact.position === 'liner' ? [{ ...fact, happenedMs }] : [],
  )
  const byCarrier = groupBy(told, (t) => t.carrierId)
  return ({ carrierId, toMs }) =>
    toMs === null
      ? null
      : ((byCarrier.get(carrierId) ?? []).find((t) => Math.abs(t.happenedMs - toMs) < SAME_MS) ?? null)
}

function take(
  found: Lives,
  row: EndedRow,
  at: { unit: LifeUnit; places: Places; perShift: (stationId: StationId | null) => number },
): void {
  const { carrierId, entryAge, km, arcHours, starts, matings, spools, ...life } = row
  const used = amountOf({ kg: row.kg, km, arcHours, starts, cleanings: row.cleanings, matings, spools }, at.unit)
  if (used === null) {
    if (row.kg === null && arcHours === null && starts === null) found.noClock++
    else found.otherUnit++
    return
  }
  if (!(used > 0)) return void found.noUse++
  const stationId = row.stationId ?? at.places.stationOf.get(carrierId) ?? null
  found.lives.push({
    ...life,
    carrierId,
    stationId,
    used,
    isAgeUnknown: entryAge === 'unknown',
    perShift: at.perShift(stationId),
  })
}

async function endedOf(db: Reader, at: LivesAt): Promise<EndedRow[]> {
  const ofClass = at.classKey ? sql`and l.class_key = ${at.classKey}` : sql``
  const [rows] = await db.execute(sql`
    select l.carrier_id carrierId, l.part_id partId, e.station_id stationId, l.class_key classKey, l.from_ms fromMs,
      l.to_ms toMs, l.to_event_id toEventId, l.from_precision fromPrecision, l.to_precision toPrecision,
      l.entry_age entryAge, l.out_reason reason, l.parts parts, l.wire_kg kg, l.wire_km km, l.arc_hours arcHours, l.arc_starts starts,
      l.cleanings cleanings, l.matings matings, l.spools spools
    from life l left join ledger_event e on e.id = l.to_event_id
    where l.kind_key = ${at.kind.key} ${ofClass} and l.to_ms >= ${at.nowMs - LOOK_BACK_MS}
    order by l.to_ms desc limit ${MOST_LIVES}`)
  return rows as unknown as EndedRow[]
}

async function openOf(db: Reader, kind: KindRow) {
  const rows = await db
    .select()
    .from(positionNow)
    .where(sql`${positionNow.position} like ${`${kind.key}%`} and ${positionNow.fittedMs} is not null`)
  return rows
    .filter((row) => kindOfPosition(row.position) === kind.key)
    .map((row) => ({
      carrierId: row.carrierId,
      partId: row.partId,
      fromMs: row.fittedMs ?? 0,
      fromPrecision: 'exact' as const,
      toPrecision: 'exact' as const,
      isAgeUnknown: row.entryAge !== 'new',
      parts: 1,
      cleanings: row.cleanings,
      kg: row.sinceFitted?.kg?.amount ?? null,
      used: isMeasured(kind.lifeUnit)
        ? (row.sinceFitted?.[kind.lifeUnit]?.amount ?? null)
        : amountOf({ ...row, kg: null, km: null, arcHours: null, starts: null }, kind.lifeUnit),
    }))
}

export interface Places {
  stationOf: Map<CarrierId, StationId>
  headOf: Map<StationId, typeof headNow.$inferSelect>
}
/** What hangs where, and the head of each place. */
export async function placesNow(db: Reader, shop: ShopPlaces): Promise<Places> {
  const [nows, heads] = await Promise.all([db.select().from(stationNow), db.select().from(headNow)])
  const headById = new Map(heads.map((h) => [h.headId, h]))
  const places: Places = { stationOf: new Map(), headOf: new Map() }
  for (const now of nows) {
    for (const id of carriersAt(now.stationId, now, shop)) places.stationOf.set(id, now.stationId)
    const head = now.headId ? headById.get(now.headId) : undefined
    if (head) places.headOf.set(now.stationId, head)
  }
  return places
}
/** Use in a worked shift at a place, at its present rate: how wide "this shift" is. */
function perShiftOf({ headOf }: Places, kind: KindRow): (stationId: StationId | null) => number {
  const unit = kind.lifeUnit
  return (stationId) =>
    isMeasured(unit) && stationId ? (headOf.get(stationId)?.runOn[unit]?.perWorkedHour ?? 0) * SHIFT_H : 0
}
