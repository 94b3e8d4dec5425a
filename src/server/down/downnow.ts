import { DAY_MS } from '@core/units/time.ts'
import { type z } from 'zod'
import { compareRates, untilItTells } from '@core/stats/rates.ts'
import { type downNowAnswer, type downNowQuery } from '@contract/down.ts'
import { isLead, mustRead, type Deps, type Who } from '@server/call/context.ts'
import { loadShop, mustHaveArea } from '@server/shopmodel/model.ts'
import { stopsSince, type Stop } from './stops.ts'

type Answer = z.input<typeof downNowAnswer>

/** What is down now, and where the minutes of the last weeks went, along the path. */
export async function readDownNow(deps: Deps, who: Who, q: z.output<typeof downNowQuery>): Promise<Answer> {
  mustRead(who)
  const nowMs = deps.now()
  const shop = await loadShop(deps.db, deps.shops, nowMs)
  mustHaveArea(shop, q.areaId)
  const sinceMs = nowMs - q.days * DAY_MS
  const beforeMs = sinceMs - q.days * DAY_MS
  const all = await stopsSince(deps.db, { shop, nowMs, sinceMs: beforeMs, areaId: q.areaId })
  const now = all.filter((s) => s.fromMs >= sinceMs || s.toMs === null)
  const costOf = (s: Stop) => {
    const perHour = shop.stopRateOf(s.stationId)
    return isLead(who) && perHour > 0 ? (s.minutes * perHour) / 60 : null
  }
  return {
    nowMs,
    zone: shop.site.zone,
    days: q.days,
    areas: shop.areas.map(({ id, name }) => ({ id, name })),
    currency: shop.site.currency,
    before: againstBefore(
      all.filter((s) => s.fromMs < sinceMs && s.fromMs >= beforeMs).length,
      all.filter((s) => s.fromMs >= sinceMs).length,
      q.days,
    ),
    ...whereItWent(now, costOf),
  }
}

function againstBefore(then: number, now: number, days: number): Answer['before'] {
  const [before, after] = [
    { n: then, over: days },
    { n: now, over: days },
  ]
  const { ratio, low, high, p } = compareRates(before, after)
  return {
    stops: then,
    ratio,
    low,
    high: Number.isFinite(high) ? high : null,
    p,
    untilDays: untilItTells(before, after),
  }
}

function whereItWent(
  stops: readonly Stop[],
  costOf: (stop: Stop) => number | null,
): Pick<Answer, 'down' | 'stops' | 'firstFix' | 'causes'> {
  const closed = stops.flatMap((s) => (s.said && s.said.closing !== 'notTested' ? [s.said] : []))
  const isFirst = (c: (typeof closed)[number]) => c.closing === 'good' && !c.said.some((x) => x.type === 'fix')
  return {
    down: stops
      .filter((s) => s.toMs === null)
      .map(({ stationId, name, fromMs, minutes, position }) => ({ stationId, name, fromMs, minutes, position })),
    stops: stops.map((s) => {
      const { stationId, name, fromMs, minutes, column, cause, said } = s
      return {
        ...{ stationId, name, fromMs, minutes, column },
        cause: cause?.says ?? null,
        isSure: said?.isCertain ?? false,
        isExplained: said !== null,
        costMinor: costOf(s),
      }
    }),
    firstFix: { right: closed.filter(isFirst).length, of: closed.length },
    causes: causeTotals(stops),
  }
}

function causeTotals(stops: readonly Stop[]): Answer['causes'] {
  const totals = new Map<string, Answer['causes'][number]>()
  for (const { minutes, cause } of stops) {
    if (!cause) continue
    const before = totals.get(cause.key) ?? { key: cause.key, says: cause.says, n: 0, minutes: 0 }
    totals.set(cause.key, { ...before, n: before.n + 1, minutes: before.minutes + minutes })
  }
  return [...totals.values()].sort((a, b) => b.minutes - a.minutes)
}
