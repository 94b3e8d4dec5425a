import { type AreaId, NO_ID, type StationId } from '@core/ids/id.ts'
import { DAY_MS } from '@core/units/time.ts'
import { type z } from 'zod'
import { COLUMNS, kindOfPosition, type KindKey, type CausePlace } from '@core/path/columns.ts'
import { isExit } from '@core/diagnose/exits.ts'
import { heapsOf, middleHalf, type Heap } from '@core/payback/heaps.ts'
import { availability, forHundred, perHundred } from '@core/payback/rates.ts'
import { addCost, NO_COST, totalMinor } from '@core/payback/stopcost.ts'
import { type paybackAnswer, type paybackQuery } from '@contract/payback.ts'
import { type Reader } from '@server/db/db.ts'
import { stopsSince } from '@server/down/stops.ts'
import { isLead, mustRead, type Who } from '@server/call/context.ts'
import { groupBy, loadShop, mustHaveArea, type ShopModel, type ShopKinds } from '@server/shopmodel/model.ts'
import { prices } from '@server/shopmodel/prices.ts'
import { changesSince } from './changes.ts'
import { costedStops, type CostedStop } from './stopuse.ts'
import { type PutOn, type PutOnDeps } from './puton.ts'
import { addUsed, NOTHING_USED, usageIn } from './usagein.ts'

type Answer = z.input<typeof paybackAnswer>

/** What it cost that guns stood, where on the path, and how often they did for what was welded. */
export async function readPayback(deps: PutOnDeps, who: Who, q: z.output<typeof paybackQuery>): Promise<Answer> {
  mustRead(who)
  const nowMs = deps.now()
  const shop = await loadShop(deps.db, deps.shops, nowMs)
  mustHaveArea(shop, q.areaId)
  const sinceMs = nowMs - q.days * DAY_MS
  const beforeMs = sinceMs - q.days * DAY_MS
  const [stops, fitted] = await Promise.all([
    stopsSince(deps.db, { shop, nowMs, sinceMs: beforeMs, areaId: q.areaId }),
    deps.putOn.read(deps.db, Math.min(beforeMs, nowMs - CHANGES_MS), nowMs),
  ])
  const [costed, rates, changes] = await Promise.all([
    costedStops(deps.db, shop, { stops, sinceMs: beforeMs, fitted }),
    ratesOf(deps.db, shop, { stops, fitted, fromMs: sinceMs, toMs: nowMs, areaId: q.areaId }),
    changesSince(deps.db, shop, { sinceMs: nowMs - CHANGES_MS, areaId: q.areaId, fitted }),
  ])
  const now = costed.filter((s) => s.fromMs >= sinceMs || s.toMs === null)
  const before = costed.filter((s) => s.fromMs < sinceMs && s.toMs !== null)
  const isMoney = isLead(who)
  return {
    ...{ nowMs, zone: shop.site.zone, currency: shop.site.currency, days: q.days, isMoney },
    areas: shop.areas.map(({ id, name }) => ({ id, name })),
    total: { now: heapLine(totalOf(now), isMoney), before: heapLine(totalOf(before), isMoney) },
    heaps: heapLines({ now, before, shop, isMoney }),
    notFeed: notFeedOf(now),
    nests: nestsOf(
      now.filter((s) => s.isNest),
      isMoney,
    ),
    unpriced: unpricedOf(now, shop),
    rates,
    changes,
  }
}
/** Stops by which somebody found that nothing of the feed was wrong: no part of the gun puts these right. */
function notFeedOf(stops: readonly CostedStop[]): Answer['notFeed'] {
  const explained = stops.filter((s) => s.cause !== null)
  if (explained.length === 0) return null
  const exits = explained.filter((s) => isExit(s.cause?.key))
  return {
    ...{ explained: explained.length, n: exits.length },
    minutes: exits.reduce((sum, s) => sum + s.minutes, 0),
    whys: [...groupBy(exits, (s) => s.cause?.says ?? '')]
      .map(([says, list]) => ({ says, n: list.length }))
      .sort((a, b) => b.n - a.n || (a.says < b.says ? -1 : 1)),
  }
}

/** So far back a change can be asked about. */
const CHANGES_MS = 200 * DAY_MS

const heapLine = (heap: Heap | undefined, isMoney: boolean): Answer['total']['now'] => ({
  stops: heap?.stops ?? 0,
  minutes: heap?.minutes ?? 0,
  cost: isMoney ? (heap?.cost ?? NO_COST) : null,
})
const totalOf = (stops: readonly CostedStop[]): Heap | undefined =>
  heapsOf(stops.map((s) => ({ ...s, column: null })))[0]

const PLACES: readonly (CausePlace | null)[] = [...COLUMNS, 'off', null]
function heapLines(of: {
  now: readonly CostedStop[]
  before: readonly CostedStop[]
  shop: ShopModel
  isMoney: boolean
}): Answer['heaps'] {
  const [now, before] = [heapsOf(of.now), heapsOf(of.before)]
  const priceOf = prices(of.shop)
  return PLACES.flatMap((column) => {
    const [here, then] = [now, before].map((heaps) => heaps.find((h) => h.column === column))
    if (!here && !then) return []
    const used = of.now.filter((s) => s.column === column).flatMap((s) => s.parts)
    const kind = commonest(used.filter((p) => of.shop.kindByKey.get(p.kindKey)?.column === column))
    return [
      {
        column,
        now: heapLine(here, of.isMoney),
        before: heapLine(then, of.isMoney),
        parts: used.reduce((sum, p) => sum + p.n, 0),
        partKind: kind,
        partMinor: kind && of.isMoney ? priceOf(null, kind) : null,
      },
    ]
  })
}
function commonest(used: readonly { kindKey: KindKey; n: number }[]): KindKey | null {
  const counts = new Map<KindKey, number>()
  for (const { kindKey, n } of used) counts.set(kindKey, (counts.get(kindKey) ?? 0) + n)
  return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0] ?? null
}

function nestsOf(nests: readonly CostedStop[], isMoney: boolean): Answer['nests'] {
  const half = middleHalf(nests.map((s) => totalMinor(s.cost)))
  if (!half) return null
  return {
    n: nests.length,
    meanMin: nests.reduce((sum, s) => sum + s.minutes, 0) / nests.length,
    meanMinor: isMoney ? half.mean : null,
    lowMinor: isMoney ? half.low : null,
    highMinor: isMoney ? half.high : null,
    cost: isMoney ? nests.reduce((sum, s) => addCost(sum, s.cost), NO_COST) : null,
    wireKg: nests.reduce((sum, s) => sum + s.wireKg, 0),
    guessedWire: nests.filter((s) => s.isWireGuessed).length,
  }
}

function unpricedOf(stops: readonly CostedStop[], shop: ShopKinds): Answer['unpriced'] {
  const kinds = new Set(stops.flatMap((s) => s.parts.filter((p) => p.priceMinor === null).map((p) => p.kindKey)))
  return {
    parts: [...kinds].map((key) => shop.kindByKey.get(key)?.name ?? key),
    wire: stops.some((s) => s.wireKg > 0 && s.cost.wireMinor === 0),
    standing: stops.some((s) => s.minutes > 0 && s.cost.standMinor === 0),
    scrap: stops.filter((s) => (s.said?.scrapped ?? 0) > 0 && s.cost.scrapMinor === 0).length,
  }
}

interface RatesAt {
  stops: readonly { stationId: StationId; fromMs: number; areaId: AreaId; minutes: number }[]
  /** Parts put on, that time among others. */
  fitted: readonly PutOn[]
  fromMs: number
  toMs: number
  areaId: AreaId | undefined
}
/** How often it stood for what was welded, area by area; the whole first. */
async function ratesOf(db: Reader, shop: ShopModel, at: RatesAt): Promise<Answer['rates']> {
  const used = await usageIn(db, shop, [{ fromMs: at.fromMs, toMs: at.toMs }])
  const changed = changedParts(at.fitted, at.fromMs)
  const lineOf = (areaId: AreaId | null, name: string): Answer['rates'][number] => {
    const places = shop.stations.filter((s) => areaId === null || s.areaId === areaId)
    const ids = new Set(places.map((s) => s.id))
    const all = places.map((s) => used(s.id, 0)).reduce(addUsed, NOTHING_USED)
    const stops = at.stops.filter((s) => s.fromMs >= at.fromMs && ids.has(s.stationId))
    const minutes = stops.reduce((sum, s) => sum + s.minutes, 0)
    const count = (kind: string) =>
      changed.filter((c) => c.kindKey === kind && ids.has(c.stationId ?? NO_ID)).reduce((sum, c) => sum + c.n, 0)
    const [tips, diffusers] = [count('tip'), count('diffuser')]
    return {
      ...{ areaId, name, stops: stops.length, kg: all.kg, arcHours: all.arcHours, tips, diffusers },
      estimatedShare: all.arcHours > 0 ? all.estimatedH / all.arcHours : 0,
      per100kg: perHundred(stops.length, all.kg),
      per100h: perHundred(stops.length, all.arcHours),
      ...availability({ stops: stops.length, minutes, scheduledMin: all.scheduledMin, arcHours: all.arcHours }),
      diffusersFor100Tips: forHundred(diffusers, tips),
    }
  }
  const areas = shop.areas.filter((a) => !at.areaId || a.id === at.areaId).map((a) => lineOf(a.id, a.name))
  return at.areaId || areas.length < 2 ? areas : [lineOf(null, ''), ...areas]
}

/** Tips and diffusers put on since then, by place. */
const changedParts = (fitted: readonly PutOn[], sinceMs: number) =>
  fitted
    .filter((p) => p.happenedMs >= sinceMs)
    .map(({ position, stationId, n }) => ({ kindKey: kindOfPosition(position), stationId, n }))
