import { type StationId } from '@core/ids/id.ts'
import { usedBetween, type Amount, type Clock } from '@core/clock/clock.ts'
import { workedMs } from '@core/clock/schedule.ts'
import { gte, isNull, or } from 'drizzle-orm'
import { mount } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'
import { headClocksSince } from '@server/projection/gather.ts'
import { type ShopModel } from '@server/shopmodel/model.ts'

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

/** What each place used in each of some stretches of time: of every head that hung there, while it did. */
export async function usageIn(
  db: Reader,
  shop: ShopModel,
  windows: readonly Window[],
): Promise<(stationId: StationId, window: number) => Used> {
  const sinceMs = Math.min(...windows.map((w) => w.fromMs))
  const [clocks, mounts] = await Promise.all([
    headClocksSince(db, shop, sinceMs),
    db
      .select()
      .from(mount)
      .where(or(isNull(mount.toMs), gte(mount.toMs, sinceMs))),
  ])
  const used = new Map<string, Used[]>(
    shop.stations.map((s) => [
      s.id,
      windows.map((w) => ({
        ...NOTHING_USED,
        scheduledMin: workedMs(shop.scheduleOfArea(s.areaId), w.fromMs, w.toMs) / 60_000,
      })),
    ]),
  )
  for (const m of mounts) {
    const clock = clocks.get(m.childId)
    const here = used.get(shop.stationOfCarrier.get(m.onId) ?? '')
    if (!clock || !here) continue
    windows.forEach((w, i) => {
      const [fromMs, toMs] = [Math.max(w.fromMs, m.fromMs), Math.min(w.toMs, m.toMs ?? Infinity)]
      if (toMs <= fromMs) return
      const hours = amount(clock.arcHours, fromMs, toMs)
      const row = { kg: amount(clock.kg, fromMs, toMs).amount, arcHours: hours.amount, estimatedH: hours.estimated }
      here[i] = addUsed(here[i] ?? NOTHING_USED, { ...row, scheduledMin: 0 })
    })
  }
  return (stationId, window) => used.get(stationId)?.[window] ?? NOTHING_USED
}
const NONE: Amount = { amount: 0, estimated: 0, sd: 0 }
const amount = (clock: Clock | null, fromMs: number, toMs: number) => (clock ? usedBetween(clock, fromMs, toMs) : NONE)
