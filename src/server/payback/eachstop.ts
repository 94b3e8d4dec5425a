import { DAY_MS } from '@core/units/time.ts'
import { type z } from 'zod'
import { totalMinor } from '@core/payback/stopcost.ts'
import { type paybackQuery, type stopsAnswer } from '@contract/payback.ts'
import { isLead, mustRead, type Who } from '@server/call/context.ts'
import { stopsSince } from '@server/down/stops.ts'
import { loadShop, mustHaveArea } from '@server/shopmodel/model.ts'
import { type PutOnDeps } from './puton.ts'
import { costedStops } from './stopuse.ts'

const MOST = 2000

/** Each stop behind the heaps, newest first: where, how long, what it was, what it took. */
export async function readStops(
  deps: PutOnDeps,
  who: Who,
  q: z.output<typeof paybackQuery>,
): Promise<z.input<typeof stopsAnswer>> {
  mustRead(who)
  const nowMs = deps.now()
  const shop = await loadShop(deps.db, deps.shops, nowMs)
  mustHaveArea(shop, q.areaId)
  const sinceMs = nowMs - q.days * DAY_MS
  const [all, fitted] = await Promise.all([
    stopsSince(deps.db, { shop, nowMs, sinceMs, areaId: q.areaId }),
    deps.putOn.read(deps.db, sinceMs, nowMs),
  ])
  const stops = await costedStops(deps.db, shop, { stops: all.slice(-MOST), sinceMs, fitted })
  const isMoney = isLead(who)
  return {
    ...{ zone: shop.site.zone, currency: shop.site.currency, isMoney, of: all.length },
    stops: stops.reverse().map((s) => ({
      ...{ eventId: s.fromEventId, stationId: s.stationId, name: s.name, fromMs: s.fromMs, toMs: s.toMs },
      ...{ minutes: s.minutes, column: s.column, cause: s.cause?.says ?? null },
      parts: s.parts.reduce((sum, p) => sum + p.n, 0),
      minor: isMoney ? totalMinor(s.cost) : null,
    })),
  }
}
