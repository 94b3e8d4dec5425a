import { and, countDistinct, eq, gte, lte, sql } from 'drizzle-orm'
import { type Level } from '@core/classes/groups.ts'
import { paceByClasses, wireRates, type ClassTime, type WireRates } from '@core/classes/wireuse.ts'
import { type Occurrence } from '@core/classes/calendar.ts'
import { workedMs } from '@core/clock/schedule.ts'
import { type StationId, type WireId } from '@core/ids/id.ts'
import { DAY_MS, HOUR_MS } from '@core/units/time.ts'
import { type Reader } from '@server/db/db.ts'
import { stationNow, usageSpan } from '@server/db/schema.ts'
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

/** What classes of each level weld with each wire: from ten weeks, day by day where use is told so, else week by week. */
export async function ratesByWire(
  db: Reader,
  shop: ShopModel,
  nowMs: number,
): Promise<Map<WireId, { rates: WireRates; stations: ReadonlySet<StationId> }>> {
  const days = daysBack(shop.site.zone, nowMs)
  const sinceMs = days[0]?.fromMs ?? nowMs
  const classes = boothClasses(shop, { fromMs: sinceMs, toMs: nowMs }).filter((c) => c.fromMs < nowMs)
  if (classes.length === 0) return new Map()
  const booths = new Set(classes.map((c) => c.stationId))
  // Of booths with classes alone: the page that asks is asked again with each line of the log.
  const ofBooths = { ...shop, stations: shop.stations.filter((s) => booths.has(s.id)) }
  const [used, told] = [await usageIn(db, ofBooths, days), await toldByDay(db, sinceMs)]
  const byWire = new Map<WireId, Set<StationId>>()
  for (const stationId of booths) {
    const { wireId } = shop.built(stationId)
    if (wireId) byWire.set(wireId, (byWire.get(wireId) ?? new Set()).add(stationId))
  }
  return new Map(
    [...byWire].flatMap(([wireId, stations]) => {
      const own = classes.filter((c) => stations.has(c.stationId))
      const times = days.map((day, i) => ({
        kg: [...stations].reduce((s, id) => s + used(id, i).kg, 0),
        hours: hoursByLevel(own.filter((c) => c.fromMs >= day.fromMs && c.fromMs < day.toMs)),
      }))
      const classDays = times.filter((t) => t.hours.size > 0).length
      const daysTold = [...stations].reduce((n, id) => n + (told.get(id) ?? 0), 0)
      // Without shifts a day's total is spread over its night too, and half of it lies in the days beside.
      const dayByDay = daysTold >= 0.5 * classDays * stations.size && [...stations].every((id) => hasShifts(shop, id))
      const rates = wireRates(dayByDay ? times : inWeeks(times))
      return rates ? [[wireId, { rates, stations }] as const] : []
    }),
  )
}

function hasShifts(shop: ShopModel, stationId: StationId): boolean {
  const areaId = shop.stationById.get(stationId)?.areaId
  return areaId !== undefined && shop.scheduleOfArea(areaId) !== null
}

function daysBack(zone: string, nowMs: number): { fromMs: number; toMs: number }[] {
  const today = dayOf(zone, nowMs)
  return Array.from({ length: CLASS_WEEKS * 7 }, (_, i) => addDays(today, i - CLASS_WEEKS * 7)).map((day) => ({
    fromMs: wallToMsOrNext(zone, day, '00:00'),
    toMs: wallToMsOrNext(zone, addDays(day, 1), '00:00'),
  }))
}

/** Seven days as one: what runs off a spool between two changes is spread evenly over them, so no day of it tells anything. */
const inWeeks = (days: readonly ClassTime[]): ClassTime[] =>
  Array.from({ length: Math.ceil(days.length / 7) }, (_, w) => {
    const week = days.slice(7 * w, 7 * w + 7)
    const hours = new Map<Level, number>()
    for (const day of week) for (const [level, h] of day.hours) hours.set(level, (hours.get(level) ?? 0) + h)
    return { kg: week.reduce((s, day) => s + day.kg, 0), hours }
  })

/** A shift's total; an hour's count. */
const LONGEST_TOLD_MS = 26 * HOUR_MS
/** On how many days each place was told what it used, by shift or by the feeder’s own count. */
async function toldByDay(db: Reader, sinceMs: number): Promise<Map<StationId, number>> {
  const rows = await db
    .select({ stationId: stationNow.stationId, days: countDistinct(sql`floor(${usageSpan.fromMs} / ${DAY_MS})`) })
    .from(usageSpan)
    .innerJoin(stationNow, eq(stationNow.headId, usageSpan.headId))
    .where(and(gte(usageSpan.fromMs, sinceMs), lte(sql`${usageSpan.toMs} - ${usageSpan.fromMs}`, LONGEST_TOLD_MS)))
    .groupBy(stationNow.stationId)
  return new Map(rows.map((r) => [r.stationId, r.days]))
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
