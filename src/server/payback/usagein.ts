import { type CarrierId, NO_ID, type StationId } from '@core/ids/id.ts'
import { DAY_MS, MIN_MS } from '@core/units/time.ts'
import { daysOfUse, usedOver, type DaysOfUse, type MonthOfUse } from '@core/clock/months.ts'
import { workedMs } from '@core/clock/schedule.ts'
import { and, gte, inArray, isNull, or } from 'drizzle-orm'
import { headMonth, headNow, mount } from '@server/db/schema.ts'
import { readMany, type Reader } from '@server/db/db.ts'
import { type HeadRow } from '@server/projection/rows.ts'
import { groupBy, type ShopModel } from '@server/shopmodel/model.ts'

export interface Window {
  fromMs: number
  toMs: number
}
export interface Used {
  kg: number
  arcHours: number
  /** Of the arc hours, those nobody counted. */
  estimatedH: number
  scheduledMin: number
}
export const NOTHING_USED: Used = { kg: 0, arcHours: 0, estimatedH: 0, scheduledMin: 0 }
export const addUsed = (a: Used, b: Used): Used => ({
  kg: a.kg + b.kg,
  arcHours: a.arcHours + b.arcHours,
  estimatedH: a.estimatedH + b.estimatedH,
  scheduledMin: a.scheduledMin + b.scheduledMin,
})

/** A month begins at most so long before a day of it. */
const MONTH_MS = 31 * DAY_MS
/** What each place used in each of some stretches of time: of every head that hung there, while it did. */
export async function usageIn(
  db: Reader,
  shop: ShopModel,
  windows: readonly Window[],
): Promise<(stationId: StationId, window: number) => Used> {
  const sinceMs = Math.min(...windows.map((w) => w.fromMs))
  const [months, heads, mounts] = await Promise.all([
    readMany(db, headMonth, gte(headMonth.monthMs, sinceMs - MONTH_MS)),
    readMany(db, headNow, undefined),
    db
      .select()
      .from(mount)
      .where(or(isNull(mount.toMs), gte(mount.toMs, sinceMs))),
  ])
  const uses = usesOf(months, heads)
  const used = new Map<string, Used[]>(
    shop.stations.map((s) => [
      s.id,
      windows.map((w) => ({
        ...NOTHING_USED,
        scheduledMin: workedMs(shop.scheduleOfArea(s.areaId), w.fromMs, w.toMs) / MIN_MS,
      })),
    ]),
  )
  for (const m of mounts) {
    const use = uses.get(m.childId)
    const station = shop.stationById.get(shop.stationOfCarrier.get(m.onId) ?? NO_ID)
    const here = station && used.get(station.id)
    if (!use || !here) continue
    const schedule = shop.scheduleOfArea(station.areaId)
    windows.forEach((w, i) => {
      const [fromMs, toMs] = [Math.max(w.fromMs, m.fromMs), Math.min(w.toMs, m.toMs ?? Infinity)]
      if (toMs <= fromMs) return
      const row = usedOver(use.days, { fromMs, toMs, schedule, runOn: use.runOn })
      here[i] = addUsed(here[i] ?? NOTHING_USED, { ...row, scheduledMin: 0 })
    })
  }
  return (stationId, window) => used.get(stationId)?.[window] ?? NOTHING_USED
}

export interface HeadUse {
  days: DaysOfUse
  runOn: HeadRow['runOn']
}
/** What some heads used, day by day, since a moment: asked for stretches by `usedOver`. */
export async function usesSince(
  db: Reader,
  heads: readonly HeadRow[],
  sinceMs: number,
): Promise<Map<CarrierId, HeadUse>> {
  if (heads.length === 0) return new Map()
  const ids = heads.map((h) => h.headId)
  const isTheirs = and(inArray(headMonth.headId, ids), gte(headMonth.monthMs, sinceMs - MONTH_MS))
  return usesOf(await readMany(db, headMonth, isTheirs), heads)
}

/** Heads that anything was ever told of. */
function usesOf(
  months: readonly (typeof headMonth.$inferSelect)[],
  heads: readonly HeadRow[],
): Map<CarrierId, HeadUse> {
  const monthsOf = groupBy(months, (m) => m.headId)
  return new Map(
    heads.map(({ headId, runOn }) => {
      const told = (monthsOf.get(headId) ?? []).map(({ monthMs, used }): MonthOfUse => ({ monthMs, ...used }))
      return [headId, { days: daysOfUse(told), runOn }]
    }),
  )
}
