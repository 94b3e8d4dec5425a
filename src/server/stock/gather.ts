import { type FamilyId, type PartId, type StationId, type StoreId } from '@core/ids/id.ts'
import { ranOn } from '@core/clock/clock.ts'
import { workedMs, type Schedule } from '@core/clock/schedule.ts'
import { linerAskedBy } from '@core/liner/clauses.ts'
import { isMeasured } from '@core/ledger/exposure.ts'
import { type KeptFit, type LifeSource } from '@core/life/kept.ts'
import { type KindKey } from '@core/path/columns.ts'
import { rightPart } from '@core/rightparts/check.ts'
import { lengthTimes } from '@core/spools/bylength.ts'
import { Z_95 } from '@core/stats/normal.ts'
import { type InUse, type StockLife } from '@core/stock/forecast.ts'
import { DAY_MS, HOUR_MS } from '@core/units/time.ts'
import { and, eq, isNull } from 'drizzle-orm'
import { carrier, carrierNow, mount } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { survey, type Surveyed } from '@server/floor/survey.ts'
import { readPace, type PaceByClasses } from '@server/classuse/classuse.ts'
import { wrongKinds } from '@server/gunnow/findings.ts'
import { stockedParts } from '@server/gunnow/line.ts'
import { keptKey, readKept } from '@server/lifekept/kept.ts'
import { openKits, packedOf } from './packed.ts'
import { stopGroupOf, type PartRow, type ShopModel } from '@server/shopmodel/model.ts'

/** All guns that use a part number, as a forecast takes them. */
export interface Used {
  part: PartRow
  inUse: InUse[]
  /** The same, by the place for parts that serves the gun; the main one has none. */
  inUseAt: Map<StoreId, InUse[]>
  stations: StationId[]
  /** Of these no life or no use is known. */
  untold: number
  /** How much of their pace so far the classes of some of them ask for. */
  paces: number[]
  source: LifeSource | null
}

/** Every position of every gun, by the part number that will be wanted there; and what lies packed in kits. */
export async function usedParts(
  db: Reader,
  shop: ShopModel,
  nowMs: number,
): Promise<{ used: Map<PartId, Used>; packed: Map<PartId, number> }> {
  const fits = await readKept(db)
  const [surveyed, stocked] = await Promise.all([survey(db, shop, { nowMs, fits }), stockedParts(db)])
  const pace = await readPace(db, shop, nowMs)
  const partOf = usualParts(surveyed, shop)
  const hours = hoursAhead(nowMs)
  const used = new Map<PartId, Used>(
    [...shop.partById.values()].map((part) => [
      part.id,
      { part, inUse: [], inUseAt: new Map(), stations: [], untold: 0, paces: [], source: null },
    ]),
  )
  for (const s of surveyed) {
    if (s.now.isParked) continue
    const wrong = wrongKinds(s.checked)
    for (const { row, kind, rule } of s.positions) {
      // What is wrong there is followed by what is right.
      const right = wrong.has(kind.key) ? rightPart(s.checked.setup, kind.key, stocked)?.id : null
      const of = used.get(right ?? row.partId ?? partOf(s, kind.key) ?? ('' as PartId))
      if (!of || of.part.kindKey !== kind.key) continue
      of.stations.push(s.station.id)
      const fit = fits.get(keptKey(kind.key, s.station.classKey))
      const limit = kind.key === 'liner' && linerAskedBy(s.liner.school) !== 'use' ? null : (rule?.changeLimit ?? null)
      const here = fit && inUseHere(s, { row, kind, fit, limit }, { nowMs, hours, pace })
      if (!here) of.untold++
      else {
        of.inUse.push(here)
        const storeId = shop.storeOf(s.station.id)
        if (storeId) of.inUseAt.set(storeId, [...(of.inUseAt.get(storeId) ?? []), here])
        const of28 = pace(s.station.id, EXACT_DAYS)
        if (of28 !== null) of.paces.push(of28)
        of.source = fit.source
      }
    }
  }
  return { used, packed: packedOf(await openKits(db, surveyed)) }
}

type At = Surveyed['positions'][number]
function inUseHere(
  s: Surveyed,
  of: { row: At['row']; kind: At['kind']; fit: KeptFit; limit: number | null },
  at: { nowMs: number; hours: (schedule: Schedule | null, days: number) => number; pace: PaceByClasses },
): InUse | null {
  const { row, kind, fit } = of
  const unit = kind.lifeUnit
  const runOn = isMeasured(unit) ? s.head?.runOn[unit] : null
  if (!isMeasured(unit) || !runOn) return null
  const asLong = lengthTimes(kind, s.checked.setup.wire)
  const base = row.sinceFitted?.[unit]?.amount
  const isKnown = row.entryAge === 'new' && row.fittedMs !== null && base !== undefined && row.chainFromMs !== null
  const used = isKnown
    ? base + ranOn(runOn, { schedule: s.schedule, sinceMs: [row.fittedMs ?? 0, row.chainFromMs ?? 0], nowMs: at.nowMs })
    : null
  return {
    life: lifeOf(kind.key, { fit, classKey: s.station.classKey, limit: of.limit }),
    age: used === null ? null : used / asLong,
    useIn: (days) => ((at.pace(s.station.id, days) ?? 1) * runOn.perWorkedHour * at.hours(s.schedule, days)) / asLong,
    group: stopGroupOf(s.station),
  }
}

function lifeOf(kindKey: KindKey, of: { fit: KeptFit; classKey: string; limit: number | null }): StockLife {
  const { fit, classKey, limit } = of
  return {
    key: `${kindKey} ${classKey} ${limit ?? ''}`,
    life: fit.life,
    limit,
    sdLog: Math.log(fit.high / fit.low) / (2 * Z_95),
    share: fit.share,
  }
}

const EXACT_DAYS = 28
/** Hours of work in the days to come: as they are planned for four weeks, then as in these. */
export function hoursAhead(nowMs: number) {
  const known = new Map<Schedule | null, Map<number, number>>()
  return (schedule: Schedule | null, days: number): number => {
    const of = known.get(schedule) ?? new Map<number, number>()
    known.set(schedule, of)
    const kept = of.get(days)
    if (kept !== undefined) return kept
    const near = Math.min(days, EXACT_DAYS)
    const hours = (workedMs(schedule, nowMs, nowMs + near * DAY_MS) / HOUR_MS) * (near > 0 ? days / near : 1)
    of.set(days, hours)
    return hours
  }
}

/** The part number that goes on where nobody said which is on: what its like have, kind by family and size of wire; else the only one that could. */
function usualParts(surveyed: readonly Surveyed[], shop: ShopModel) {
  const keyOf = (s: Surveyed, kindKey: KindKey) =>
    `${kindKey} ${s.familyId ?? ''} ${s.checked.setup.wire?.diameterMm ?? ''}`
  const counts = new Map<string, Map<PartId, number>>()
  for (const s of surveyed)
    for (const { row, kind } of s.positions) {
      if (!row.partId) continue
      const key = keyOf(s, kind.key)
      const of = counts.get(key) ?? new Map<PartId, number>()
      of.set(row.partId, (of.get(row.partId) ?? 0) + 1)
      counts.set(key, of)
    }
  return (s: Surveyed, kindKey: KindKey): PartId | null => {
    const of = [...(counts.get(keyOf(s, kindKey)) ?? [])].sort((a, b) => b[1] - a[1])[0]
    return of?.[0] ?? onlyOne(shop, { kindKey, familyId: s.familyId, mm: s.checked.setup.wire?.diameterMm ?? null })
  }
}
function onlyOne(
  shop: ShopModel,
  of: { kindKey: KindKey; familyId: FamilyId | null; mm: number | null },
): PartId | null {
  const could = [...shop.partById.values()].filter(
    (p) =>
      p.kindKey === of.kindKey &&
      (p.familyId === null || of.familyId === null || p.familyId === of.familyId) &&
      (p.wireSizeMm === null || of.mm === null || Math.abs(p.wireSizeMm - of.mm) < 0.03),
  )
  return could.length === 1 ? (could[0]?.id ?? null) : null
}

/** Guns that hang nowhere and are ready, by family. */
export async function readyGuns(db: Reader): Promise<Map<FamilyId, number>> {
  const rows = await db
    .select({ built: carrier.built, status: carrierNow.status })
    .from(carrier)
    .leftJoin(mount, and(eq(mount.childId, carrier.id), isNull(mount.toMs)))
    .leftJoin(carrierNow, eq(carrierNow.carrierId, carrier.id))
    .where(and(eq(carrier.type, 'gun'), isNull(mount.childId)))
  const counts = new Map<FamilyId, number>()
  for (const { built, status } of rows) {
    const family = built?.familyId
    if (family && status === 'ready') counts.set(family, (counts.get(family) ?? 0) + 1)
  }
  return counts
}
