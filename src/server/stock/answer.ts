import { type PartId } from '@core/ids/id.ts'
import { LOSS_GUESS } from '@core/life/loggingshare.ts'
import { Z_90 } from '@core/stats/normal.ts'
import { advise, KEEP_OF_PRICE, type Absence, type Advice, type Offer } from '@core/stock/advise.ts'
import { meanOrNought } from '@core/stats/mean.ts'
import { varianceOf } from '@core/stock/counts.ts'
import { priceAt } from '@core/stock/ordersize.ts'
import { fewer } from '@core/stock/fewer.ts'
import {
  forecastByCounts,
  forecastByLives,
  RenewalsKept,
  wantsOf,
  withoutAny,
  type Forecast,
} from '@core/stock/forecast.ts'
import { DAY_MS } from '@core/units/time.ts'
import { type OfferLine, type StockAnswer, type StockPart } from '@contract/stock.ts'
import { offer, supplier } from '@server/db/schema.ts'
import { type Db, type Reader } from '@server/db/db.ts'
import { groupBy, loadShop, stopGroupOf, type PartRow, type ShopModel } from '@server/shopmodel/model.ts'
import { type ShopStore } from '@server/shopmodel/store.ts'
import { wallToMsOrNext } from '@server/time/wall.ts'
import { hoursAhead, readyGuns, usedParts, type Used } from './gather.ts'
import { liesTold, storesTold } from './fill.ts'
import { readShelves, type Shelf, type Shelves } from './onshelf.ts'
import { learntLead, orderTold, readOrders, toCome, type LearntLead, type Order } from './orders.ts'

export interface StockDeps {
  db: Db
  shops: ShopStore
  now: () => number
}
/** Where nobody said how long an order takes: a week, give or take. A guess. */
const LEAD_GUESS = { days: 7, sd: 3 }
/** Of a lead time somebody said: about a third either way. A guess. */
const LEAD_CV = 0.33
/** One order, where nobody said: a quarter of an hour of somebody's time. A guess. */
const ORDER_MIN = 15
/** Taking one gun off and hanging another. A guess. */
const SWAP_MIN = 10
const NEEDS = [7, 30, 90] as const

type SupplierRow = typeof supplier.$inferSelect
type OfferRow = typeof offer.$inferSelect
interface At {
  shop: ShopModel
  nowMs: number
  shelves: Shelves
  orders: readonly Order[]
  suppliers: ReadonlyMap<string, SupplierRow & { learnt: LearntLead | null }>
  offersOf: ReadonlyMap<string, OfferRow[]>
  ready: Awaited<ReturnType<typeof readyGuns>>
  kept: RenewalsKept
  packed: ReadonlyMap<PartId, number>
  untilDays: number | null
  weekHours: (stationIds: Used['stations']) => number
}

/** What will be asked for, what is there, what to buy: part number by part number. */
export async function stockNowAnswer(deps: StockDeps, until: string | undefined): Promise<StockAnswer> {
  const nowMs = deps.now()
  const shop = await loadShop(deps.db, deps.shops, nowMs)
  const { used, packed } = await usedParts(deps.db, shop, nowMs)
  const at = { ...(await gathered(deps.db, shop, { nowMs, until })), packed }
  const parts = [...used.values()].map((u) => partOf(u, at))
  const told = parts.flatMap((p) => (p.line ? [p.line] : []))
  return {
    nowMs,
    ...{ zone: shop.site.zone, currency: shop.site.currency, untilDays: at.untilDays },
    parts: told.sort((a, b) => kindOrder(shop, a) - kindOrder(shop, b) || (a.code < b.code ? -1 : 1)),
    orders: at.orders.filter((o) => o.isOpen).map((o) => orderTold(o, shop, nowMs)),
    suppliers: [...at.suppliers.values()].map(({ id, name, leadDays, orderMinor, columns, learnt }) => ({
      ...{ id, name, leadDays, orderMinor, columns, learnt },
    })),
    stores: storesTold(parts, at),
    tiedUpMinor: told.reduce((sum, p) => sum + (p.advice?.tiedUpMinor ?? 0), 0),
    fewer: fewerOf(parts, at),
    orphans: orphansOf(used, at),
  }
}
const kindOrder = (shop: ShopModel, p: StockPart) => shop.kindByKey.get(p.kindKey)?.walkOrder ?? 0

async function gathered(
  db: Reader,
  shop: ShopModel,
  of: { nowMs: number; until: string | undefined },
): Promise<Omit<At, 'packed'>> {
  const { nowMs, until } = of
  const [shelves, orders, suppliers, offers, ready] = await Promise.all([
    readShelves(db, shop, nowMs),
    readOrders(db, nowMs),
    db.select().from(supplier),
    db.select().from(offer),
    readyGuns(db),
  ])
  const hours = hoursAhead(nowMs)
  const endMs = until ? wallToMsOrNext(shop.site.zone, until, '23:59') : null
  return {
    ...{ shop, nowMs, shelves, orders, ready, kept: new RenewalsKept() },
    suppliers: new Map(suppliers.map((s) => [s.id, { ...s, learnt: learntLead(orders, s.id) }])),
    offersOf: groupBy(offers, (o) => o.partId),
    untilDays: endMs === null ? null : Math.max(0, (endMs - nowMs) / DAY_MS),
    weekHours: (ids) => {
      const areas = ids.flatMap((id) => shop.stationById.get(id)?.areaId ?? [])
      const each = areas.map((a) => hours(shop.scheduleOfArea(a), 28) / 4)
      return each.length > 0 ? each.reduce((a, b) => a + b, 0) / each.length : 40
    },
  }
}

/** An order that is late is not here tomorrow: as long again as its supplier's orders are off by, three days at least. */
const LATE_DAYS = 3
function comesIn({ dueMs, supplierId }: ReturnType<typeof toCome>[number], { nowMs, suppliers }: At): number {
  if (dueMs >= nowMs) return (dueMs - nowMs) / DAY_MS
  return Math.max(LATE_DAYS, suppliers.get(supplierId)?.learnt?.sd ?? 0)
}

/** Nobody counted: when to order and how many is told, when it runs out is not. */
const NOT_COUNTED = { mean: Infinity, sd: 0 }

interface Worked {
  used: Used
  forecast: Forecast | null
  advice: Advice | null
  offers: Asked[]
  shelf: Shelf | null
  seen: ReturnType<Shelves['seen']>
  line: StockPart | null
}
/** One part number; without guns, without a count and without an order there is nothing to say of it. */
function partOf(used: Used, at: At): Worked {
  const { part } = used
  const [shelf, seen] = [at.shelves.of(part), at.shelves.seen(part)]
  const coming = toCome(at.orders, part.id)
  const forecast = forecastOf(used, seen, at)
  const offers = askedOffers(part, used, at)
  const advice =
    forecast &&
    advise({
      forecast,
      shelf: shelf ?? NOT_COUNTED,
      coming: coming.map((c) => ({ quantity: c.quantity, days: comesIn(c, at) })),
      offers,
      absence: absenceOf(used, forecast, at),
      shelfMost: part.shelfMost,
    })
  const isKnown = used.stations.length > 0 || shelf !== null || coming.length > 0 || seen !== null
  const line = isKnown ? lineOf(used, { at, shelf, seen, coming, forecast, advice, offers }) : null
  return { used, forecast, advice, offers, shelf, seen, line }
}

function forecastOf(used: Used, seen: ReturnType<Shelves['seen']>, { kept }: At): Forecast | null {
  if (used.inUse.length > 0) return forecastByLives(used.inUse, { lossShare: LOSS_GUESS, seen: seen ?? null, kept })
  // A gun takes it, and nobody knows how long it lasts: what left the shelf tells.
  return seen && used.stations.length > 0 ? forecastByCounts(seen) : null
}

type Asked = Offer & { row: OfferRow | null; supplierName: string | null; leadBy: OfferLine['leadBy'] }
/** What is said to sell it; where nobody is, a guess: of its own price, a week away. */
function askedOffers(part: PartRow, used: Used, at: At): Asked[] {
  const labour = labourOf(used, at)
  const said = at.offersOf.get(part.id) ?? []
  if (said.length === 0) {
    const { days, sd } = LEAD_GUESS
    const bands = [{ from: 0, each: part.priceMinor ?? 0.01 }]
    const guess = { id: 'guess', bands, packOf: 1, leadDays: days, sdLeadDays: sd, isSure: true }
    return [{ ...guess, orderMinor: (ORDER_MIN / 60) * labour, row: null, supplierName: null, leadBy: 'guess' }]
  }
  return said.map((row): Asked => {
    const of = at.suppliers.get(row.supplierId)
    const told = row.leadDays ?? of?.leadDays ?? null
    const lead = of?.learnt
      ? { leadDays: of.learnt.days, sdLeadDays: of.learnt.sd, leadBy: 'orders' as const }
      : told !== null
        ? { leadDays: told, sdLeadDays: told * LEAD_CV, leadBy: 'told' as const }
        : { leadDays: LEAD_GUESS.days, sdLeadDays: LEAD_GUESS.sd, leadBy: 'guess' as const }
    return {
      ...{ id: row.id, bands: row.bands, packOf: row.packOf, isSure: row.isSure, ...lead },
      orderMinor: of?.orderMinor ?? (ORDER_MIN / 60) * labour,
      ...{ row, supplierName: of?.name ?? '' },
    }
  })
}

const meanOver = (used: Used, of: (id: Used['stations'][number]) => number) =>
  used.stations.length === 0 ? 0 : used.stations.reduce((sum, id) => sum + of(id), 0) / used.stations.length
const labourOf = (used: Used, { shop }: At) =>
  meanOver(used, (id) => shop.classes.get(shop.stationById.get(id)?.classKey ?? '')?.labourMinorPerHour ?? 0)

/** What rides on the gun may be stepped round by another gun; where no life is known, need is spread over the guns alike. */
function absenceOf(used: Used, forecast: Forecast, at: At): Absence {
  const { shop, kept } = at
  const hours = at.weekHours(used.stations) / 7
  const groups = new Map(
    used.stations.flatMap((id) => {
      const station = shop.stationById.get(id)
      return station ? [[stopGroupOf(station), { minorPerDay: shop.stopRateOf(id) * hours }] as const] : []
    }),
  )
  const rides = shop.kindByKey.get(used.part.kindKey)?.rides
  const perDayMinor = meanOver(used, shop.stopRateOf) * hours
  const swapMinor = rides === 'head' ? 0 : (SWAP_MIN / 60) * (meanOver(used, shop.stopRateOf) + labourOf(used, at))
  const instead = { ready: readyFor(used, at), swapMinor }
  const wants = used.inUse.length > 0 ? wantsOf(used.inUse, kept) : alikeOf(used, forecast, at)
  return { ...instead, perDayMinor, without: (days) => withoutAny(wants, days, { groups, instead }) }
}
const alikeOf = (used: Used, forecast: Forecast, { shop }: At) =>
  used.stations.flatMap((id) => {
    const station = shop.stationById.get(id)
    const none = (days: number) => Math.exp(-forecast.over(days).mean / used.stations.length)
    return station ? [{ group: stopGroupOf(station), none }] : []
  })
function readyFor({ part }: Used, at: At): number {
  const rides = at.shop.kindByKey.get(part.kindKey)?.rides
  return rides === 'head' || part.familyId === null ? 0 : (at.ready.get(part.familyId) ?? 0)
}

interface LineAt {
  at: At
  shelf: Shelf | null
  seen: ReturnType<Shelves['seen']>
  coming: ReturnType<typeof toCome>
  forecast: Forecast | null
  advice: Advice | null
  offers: readonly Asked[]
}
function lineOf(used: Used, of: LineAt): StockPart {
  const { part } = used
  const { at, shelf, seen, forecast, advice, coming } = of
  const kind = at.shop.kindByKey.get(part.kindKey)
  const days = at.untilDays === null ? NEEDS : [...NEEDS, at.untilDays]
  return {
    ...{ partId: part.id, code: part.code, name: part.name, kindKey: part.kindKey, shelf: part.shelf },
    ...{ kindName: kind?.name ?? part.kindKey, column: kind?.column ?? 'tip', shelfMost: part.shelfMost },
    familyName: part.familyId ? (at.shop.families.get(part.familyId) ?? null) : null,
    wireSizeMm: part.wireSizeMm,
    onHand: shelf?.onHand ?? null,
    countedMs: shelf?.countedMs ?? null,
    lies: liesTold(shelf, at.shop),
    packed: at.packed.get(part.id) ?? 0,
    likely: shelf ? likelyTold(shelf) : null,
    coming: coming.map(({ quantity, dueMs }) => ({ quantity, dueMs, isLate: dueMs < at.nowMs })),
    ...{ inUse: used.stations.length, untold: used.untold, ready: readyFor(used, at) },
    byClasses: used.paces.length > 0 ? { booths: used.paces.length, pace: meanOrNought(used.paces) } : null,
    by: forecast?.by ?? 'nothing',
    source: used.inUse.length > 0 ? used.source : null,
    seen: seen && { taken: seen.taken, days: seen.days, by: seen.by },
    need: forecast
      ? days.map((d) => {
          const { mean, low, high } = forecast.over(d)
          return { days: d, mean, low, high }
        })
      : [],
    advice: advice && adviceTold(advice, of.offers),
    offers: of.offers.map((o) => offerTold(o, advice)),
    stands: standsFirst(used, at),
  }
}

const likelyTold = ({ mean, sd, share }: Shelf): StockPart['likely'] => ({
  mean,
  low: Math.max(0, mean - Z_90 * sd),
  high: mean + Z_90 * sd,
  share,
})

function adviceTold(advice: Advice, offers: readonly Asked[]): StockPart['advice'] {
  const of = offers.find((o) => o.id === advice.offerId)
  const { leadDays, point, service, meanwhile, quantity, orderInDays, runsOut } = advice
  const { chanceShort, tiedUpMinor, yearMinor, weekWithoutMinor, shortMinor } = advice
  return {
    ...{ supplierName: of?.supplierName ?? null, offerId: of?.row?.id ?? null },
    ...{ leadDays, point, service, meanwhile, quantity, orderInDays, runsOut, chanceShort },
    eachMinor: of && of.bands.some((b) => b.each >= 1 || of.row) ? priceAt(of, quantity) : null,
    ...{ tiedUpMinor, yearMinor, weekWithoutMinor, shortMinor },
    bridge: bridgeTold(advice, offers),
  }
}
function bridgeTold({ bridge }: Advice, offers: readonly Asked[]) {
  if (!bridge) return null
  const { quantity, minor, standWithMinor, standWithoutMinor, chanceShort, offerId } = bridge
  const supplierName = offers.find((o) => o.id === offerId)?.supplierName ?? null
  return { supplierName, quantity, minor, standWithMinor, standWithoutMinor, chanceShort }
}
function offerTold(o: Asked, advice: Advice | null): OfferLine {
  const weighed = advice?.offers.find((w) => w.id === o.id)
  return {
    ...{ id: o.row?.id ?? null, supplierId: o.row?.supplierId ?? null, supplierName: o.supplierName },
    ...{ theirCode: o.row?.theirCode ?? null, packOf: o.packOf, bands: [...o.bands], isSure: o.isSure },
    ...{ leadDays: o.leadDays, sdLeadDays: o.sdLeadDays, leadBy: o.leadBy },
    quantity: weighed?.quantity ?? 0,
    minor: weighed?.minor ?? 0,
    standMinor: weighed?.standMinor ?? 0,
    chanceShort: weighed?.chanceShort ?? 0,
  }
}

const SHOWN = 3
/** Where standing costs most. */
const standsFirst = (used: Used, { shop }: At): string[] =>
  [...new Set(used.stations)]
    .sort((a, b) => shop.stopRateOf(b) - shop.stopRateOf(a))
    .slice(0, SHOWN)
    .flatMap((id) => shop.stationById.get(id)?.name ?? [])

/** Of one kind and size of wire in several families. */
function fewerOf(parts: readonly Worked[], at: At): StockAnswer['fewer'] {
  const asked = parts.filter((p) => p.forecast && p.advice && p.used.part.familyId !== null)
  const groups = groupBy(asked, (p) => `${p.used.part.kindKey} ${p.used.part.wireSizeMm ?? ''}`)
  return [...groups.values()].flatMap((group) => {
    const families = new Set(group.map((p) => p.used.part.familyId))
    const [first] = group
    if (families.size < 2 || !first) return []
    const likes = group.map((p) => {
      const need = p.forecast?.over(p.advice?.leadDays ?? LEAD_GUESS.days)
      const sd = Math.sqrt(need ? varianceOf(need.counts) : 0)
      return { mean: need?.mean ?? 0, sd, eachMinor: p.used.part.priceMinor ?? 0 }
    })
    const kindMinor = COUNTS_A_YEAR * (COUNT_MIN / 60) * labourOf(first.used, at)
    const saved = fewer(likes, { z: Z_90, keepShare: KEEP_OF_PRICE, kindMinor })
    return [
      {
        ...{ kindName: at.shop.kindByKey.get(first.used.part.kindKey)?.name ?? '', families: families.size },
        codes: group.map((p) => p.used.part.code),
        ...saved,
        yearMinor: group.reduce((sum, p) => sum + (p.advice?.yearMinor ?? 0), 0),
      },
    ]
  })
}
/** A shelf is counted once a month, a minute and a half a part number. Guesses. */
const [COUNTS_A_YEAR, COUNT_MIN] = [12, 1.5]

/** On the shelf, and on no gun there is. */
function orphansOf(used: ReadonlyMap<PartId, Used>, at: At): StockAnswer['orphans'] {
  // Where nobody has said yet what is on the guns, nothing is an orphan.
  const kinds = new Set([...used.values()].filter((u) => u.stations.length > 0).map((u) => u.part.kindKey))
  return [...used.values()].flatMap(({ part, stations }) => {
    const onHand = at.shelves.of(part)?.onHand ?? 0
    if (stations.length > 0 || onHand <= 0 || !kinds.has(part.kindKey)) return []
    const minor = part.priceMinor === null ? null : part.priceMinor * onHand
    return [{ partId: part.id, code: part.code, onHand, minor }]
  })
}
