import { gte, isNull, or } from 'drizzle-orm'
import { type z } from 'zod'
import { compareRates, untilItTells } from '@core/stats/rates.ts'
import { type Cause } from '@core/diagnose/knowledge.ts'
import { type downNowAnswer, type downNowQuery } from '@contract/down.ts'
import { stoppage } from '@server/db/schema.ts'
import { isLead, mustRead, type Deps, type Who } from '@server/http/context.ts'
import { stoppedMinutes } from '@server/projection/stationrows.ts'
import { loadShop, mustHaveArea, type ShopModel } from '@server/shop/model.ts'
import { explainedSince, explanationOf, type Explained } from './explained.ts'
import { knowledgeNow } from './knowledge.ts'

const DAY_MS = 86_400_000
type Answer = z.input<typeof downNowAnswer>

/** What is down now, and where the minutes of the last weeks went, along the path. */
export async function readDownNow(deps: Deps, who: Who, q: z.output<typeof downNowQuery>): Promise<Answer> {
  mustRead(who)
  const nowMs = deps.now()
  const shop = await loadShop(deps.db, deps.calendar, nowMs)
  mustHaveArea(shop, q.areaId)
  const sinceMs = nowMs - q.days * DAY_MS
  const beforeMs = sinceMs - q.days * DAY_MS
  const [{ knowledge }, explained, rows] = await Promise.all([
    knowledgeNow(deps.db),
    explainedSince(deps.db, sinceMs - DAY_MS),
    deps.db
      .select()
      .from(stoppage)
      .where(or(gte(stoppage.fromMs, beforeMs), isNull(stoppage.toMs))),
  ])
  const here = rows.filter((s) => {
    const station = shop.stationById.get(s.stationId)
    return station !== undefined && (!q.areaId || station.areaId === q.areaId)
  })
  const at: PlaceAt = { who, shop, nowMs, explained }
  const placed = here.filter((s) => s.fromMs >= sinceMs || s.toMs === null).map((s) => placedAt(s, at))
  placed.sort((a, b) => a.fromMs - b.fromMs)
  return {
    nowMs,
    zone: shop.site.zone,
    days: q.days,
    areas: shop.areas.map(({ id, name }) => ({ id, name })),
    currency: shop.site.currency,
    before: againstBefore(
      here.filter((s) => s.fromMs < sinceMs && s.fromMs >= beforeMs).length,
      here.filter((s) => s.fromMs >= sinceMs).length,
      q.days,
    ),
    ...whereItWent(placed, shop, new Map(knowledge.causes.map((c) => [c.key, c]))),
  }
}

interface PlaceAt {
  who: Who
  shop: ShopModel
  nowMs: number
  explained: readonly Explained[]
}
function placedAt(s: typeof stoppage.$inferSelect, { who, shop, nowMs, explained }: PlaceAt): Placed {
  const station = shop.stationById.get(s.stationId)
  const minutes = s.minutes ?? stoppedMinutes(s, station ? shop.scheduleOfArea(station.areaId) : null, nowMs)
  const cost = costPerMinute(who, shop, s.stationId)
  const costMinor = cost === null ? null : minutes * cost
  return { ...s, name: station?.name ?? '', minutes, costMinor, said: explanationOf(s, explained)?.fact ?? null }
}

/** What a minute of standing costs, for leads; null: nobody said. */
function costPerMinute(who: Who, shop: ShopModel, stationId: string): number | null {
  const perHour = shop.classes.get(shop.stationById.get(stationId)?.classKey ?? '')?.stopMinorPerHour ?? 0
  return isLead(who) && perHour > 0 ? perHour / 60 : null
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

type Placed = typeof stoppage.$inferSelect & {
  name: string
  minutes: number
  costMinor: number | null
  said: Explained['fact'] | null
}
type CauseOf = ReadonlyMap<string, Cause>
function whereItWent(
  placed: readonly Placed[],
  shop: ShopModel,
  causeOf: CauseOf,
): Pick<Answer, 'down' | 'stops' | 'firstFix' | 'causes'> {
  const closed = placed.flatMap((s) => (s.said && s.said.closing !== 'notTested' ? [s.said] : []))
  const isFirst = (c: Explained['fact']) => c.closing === 'good' && !c.said.some((x) => x.type === 'fix')
  return {
    down: placed
      .filter((s) => s.toMs === null)
      .map(({ stationId, name, fromMs, minutes, position }) => ({ stationId, name, fromMs, minutes, position })),
    stops: placed.map(({ stationId, name, fromMs, minutes, costMinor, position, said }) => {
      const cause = said?.cause ? (causeOf.get(said.cause) ?? null) : null
      return {
        ...{ stationId, name, fromMs, minutes },
        column: columnOf(cause?.at ?? position, shop),
        cause: cause?.says ?? null,
        isSure: said?.isCertain ?? false,
        isExplained: said !== null,
        costMinor,
      }
    }),
    firstFix: { right: closed.filter(isFirst).length, of: closed.length },
    causes: causeTotals(placed, causeOf),
  }
}

/** Column of the path a position stands in; off the wire stands by itself. */
function columnOf(at: string | null, shop: ShopModel): string | null {
  if (at === null) return null
  const kind = at.split('#')[0] ?? at
  return shop.kindByKey.get(kind)?.column ?? kind
}

function causeTotals(stops: readonly Placed[], causeOf: CauseOf): Answer['causes'] {
  const totals = new Map<string, Answer['causes'][number]>()
  for (const { minutes, said } of stops) {
    const cause = said?.cause ? causeOf.get(said.cause) : undefined
    if (!cause) continue
    const before = totals.get(cause.key) ?? { key: cause.key, says: cause.says, n: 0, minutes: 0 }
    totals.set(cause.key, { ...before, n: before.n + 1, minutes: before.minutes + minutes })
  }
  return [...totals.values()].sort((a, b) => b.minutes - a.minutes)
}
