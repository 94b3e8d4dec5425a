import { DAY_MS } from '@core/units/time.ts'
import { type z } from 'zod'
import { compareRates, untilItTells } from '@core/stats/rates.ts'
import { type downNowAnswer, type downNowQuery } from '@contract/down.ts'
import { isLead, mustRead, type Deps, type Who } from '@server/call/context.ts'
import { loadShop, mustHaveArea } from '@server/shopmodel/model.ts'
import { type Knowledge } from '@core/diagnose/knowledge.ts'
import { knowledgeNow } from '@server/knowledge/now.ts'
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
    searches: isLead(who) ? howSearchesWent(all, (await knowledgeNow(deps.db)).knowledge) : [],
  }
}

/** It runs, and nothing else was mended before. */
const wasFirstFix = ({ closing, said }: Pick<NonNullable<Stop['said']>, 'closing' | 'said'>): boolean =>
  closing === 'good' && !said.some((s) => s.type === 'fix')

/** Fewer searches tell nothing. */
const ENOUGH = 3
const MOST_IN_VAIN = 3
/** By what was seen, of stops looked into to a closing test: how often the first fix was it, and which looks found nothing. */
function howSearchesWent(stops: readonly Stop[], { symptoms, checks }: Knowledge): Answer['searches'] {
  const done = stops.flatMap(({ said }) => (said?.by === 'search' && said.closing === 'good' ? [said] : []))
  return symptoms
    .flatMap(({ key, says }) => {
      const here = done.filter((s) => s.symptom === key)
      if (here.length < ENOUGH) return []
      const vain = new Map<string, number>()
      for (const one of here.flatMap((s) => s.said)) {
        const check = one.type === 'check' ? checks.find((c) => c.key === one.key) : undefined
        if (check && one.type === 'check' && one.outcome === check.outcomes.at(-1)?.key)
          vain.set(check.do, (vain.get(check.do) ?? 0) + 1)
      }
      const inVain = [...vain].map(([does, n]) => ({ says: does, n })).sort((a, b) => b.n - a.n)
      const firstRight = here.filter(wasFirstFix).length
      return [{ key, says, n: here.length, firstRight, inVain: inVain.slice(0, MOST_IN_VAIN) }]
    })
    .sort((a, b) => a.firstRight / a.n - b.firstRight / b.n)
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
    firstFix: { right: closed.filter(wasFirstFix).length, of: closed.length },
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
