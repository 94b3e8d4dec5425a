import { type Level } from '@core/classes/groups.ts'
import { paceByClasses, wireRates, type ClassDay, type WireRates } from '@core/classes/wireuse.ts'
import { type Occurrence } from '@core/classes/calendar.ts'
import { workedMs } from '@core/clock/schedule.ts'
import { type StationId, type WireId } from '@core/ids/id.ts'
import { DAY_MS, HOUR_MS } from '@core/units/time.ts'
import { type Reader } from '@server/db/db.ts'
import { usageIn } from '@server/payback/usagein.ts'
import { groupBy, type ShopModel } from '@server/shopmodel/model.ts'
import { activeBooths, timesOf } from '@server/shopmodel/school.ts'
import { addDays, dayOf, wallToMsOrNext } from '@server/time/wall.ts'

/** So many weeks of classes are counted; so far ahead the calendar is gone through, later weeks are as those. */
export const CLASS_WEEKS = 10
const AHEAD_DAYS = 180

/** Hours of class at one booth. */
interface BoothClass {
  stationId: StationId
  level: Level
  fromMs: number
  hours: number
}
/** Every class between two instants, booth by booth; of groups that left none. */
export function boothClasses(
  { school, site }: Pick<ShopModel, 'school' | 'site'>,
  span: { fromMs: number; toMs: number },
): BoothClass[] {
  if (school.entries.length === 0) return []
  const levelOf = new Map(school.groups.map((g) => [g.id, g.level]))
  return timesOf(school, site.zone, span).flatMap((o: Occurrence) => {
    const level = o.kind === 'class' && o.groupId ? levelOf.get(o.groupId) : undefined
    if (!level || !o.groupId) return []
    const hours = (o.toMs - o.fromMs) / HOUR_MS
    return activeBooths(school, o.groupId).map((stationId) => ({ stationId, level, fromMs: o.fromMs, hours }))
  })
}

/** Their hours by level. */
export function hoursByLevel(classes: readonly BoothClass[]): Map<Level, number> {
  const hours = new Map<Level, number>()
  for (const c of classes) hours.set(c.level, (hours.get(c.level) ?? 0) + c.hours)
  return hours
}

/** What classes of each level weld with each wire: from ten weeks of days, as far as days tell levels apart. */
export async function ratesByWire(
  db: Reader,
  shop: ShopModel,
  nowMs: number,
): Promise<Map<WireId, { rates: WireRates; stations: ReadonlySet<StationId> }>> {
  const { zone } = shop.site
  const today = dayOf(zone, nowMs)
  const days = Array.from({ length: CLASS_WEEKS * 7 }, (_, i) => addDays(today, i - CLASS_WEEKS * 7))
  const windows = days.map((day) => ({
    fromMs: wallToMsOrNext(zone, day, '00:00'),
    toMs: wallToMsOrNext(zone, addDays(day, 1), '00:00'),
  }))
  const sinceMs = windows[0]?.fromMs ?? nowMs
  const classes = boothClasses(shop, { fromMs: sinceMs, toMs: nowMs }).filter((c) => c.fromMs < nowMs)
  if (classes.length === 0) return new Map()
  const used = await usageIn(db, shop, windows)
  const byWire = new Map<WireId, { stations: Set<StationId>; days: ClassDay[] }>()
  for (const { stationId } of classes) {
    const { wireId } = shop.built(stationId)
    if (!wireId) continue
    const of = byWire.get(wireId) ?? { stations: new Set<StationId>(), days: [] }
    byWire.set(wireId, of)
    of.stations.add(stationId)
  }
  for (const of of byWire.values())
    of.days = windows.map((w, i) => ({
      kg: [...of.stations].reduce((s, id) => s + used(id, i).kg, 0),
      hours: hoursByLevel(
        classes.filter((c) => of.stations.has(c.stationId) && c.fromMs >= w.fromMs && c.fromMs < w.toMs),
      ),
    }))
  return new Map(
    [...byWire].flatMap(([wireId, of]) => {
      const rates = wireRates(of.days)
      return rates ? [[wireId, { rates, stations: of.stations }] as const] : []
    }),
  )
}

export type PaceByClasses = (stationId: StationId, days: number) => number | null
const AS_BEFORE: PaceByClasses = () => null

/**
 * By how much a booth’s use will be more or less than its pace so far, by the classes that come: the term’s last week, holidays, a group more. Null: no
 * class, or too few to go by.
 */
export async function readPace(db: Reader, shop: ShopModel, nowMs: number): Promise<PaceByClasses> {
  const fromMs = nowMs - CLASS_WEEKS * 7 * DAY_MS
  const classes = boothClasses(shop, { fromMs, toMs: nowMs + AHEAD_DAYS * DAY_MS })
  if (classes.length === 0) return AS_BEFORE
  const rates = [...(await ratesByWire(db, shop, nowMs)).values()]
  const of = groupBy(classes, (c) => c.stationId)
  const known = new Map<string, number | null>()
  const paceAt: PaceByClasses = (stationId, days) => {
    const own = of.get(stationId)
    const areaId = shop.stationById.get(stationId)?.areaId
    if (!own || !areaId) return null
    const [first] = own
    const toMs = nowMs + Math.min(days, AHEAD_DAYS) * DAY_MS
    const schedule = shop.scheduleOfArea(areaId)
    // Before its first class nobody told of any: those weeks are not weeks without.
    const sinceMs = first ? wallToMsOrNext(shop.site.zone, dayOf(shop.site.zone, first.fromMs), '00:00') : fromMs
    return paceByClasses({
      past: hoursByLevel(own.filter((c) => c.fromMs < nowMs)),
      coming: hoursByLevel(own.filter((c) => c.fromMs >= nowMs && c.fromMs < toMs)),
      workedPast: workedMs(schedule, sinceMs, nowMs) / HOUR_MS,
      workedComing: workedMs(schedule, nowMs, toMs) / HOUR_MS,
      rates: rates.find((r) => r.stations.has(stationId))?.rates ?? null,
    })
  }
  return (stationId, days) => {
    const key = `${stationId} ${days}`
    const kept = known.get(key)
    if (kept !== undefined) return kept
    const made = paceAt(stationId, days)
    known.set(key, made)
    return made
  }
}
