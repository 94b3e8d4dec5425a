import { atMost, enoughFor, meanOf, mixed, type Counts } from './counts.ts'
import { runsOut, shortBy, type Coming, type Forecast, type Instead, type OnShelf, type RunsOut } from './forecast.ts'
import { orderSize, priceAt, yearOf, type OrderCosts, type PriceBand } from './ordersize.ts'

/** What somebody sells a part for. Money in minor units of the shop's currency. */
export interface Offer {
  id: string
  /** A price each, from so many on. */
  bands: readonly PriceBand[]
  packOf: number
  leadDays: number
  sdLeadDays: number
  /** One order of it: writing, the trip, taking it in. */
  orderMinor: number
  /** Known to fit here; else somebody only says so, and it is a try-out. */
  isSure: boolean
}
/** What it is like to stand without it. */
export interface Absence extends Instead {
  /** Of the guns that use it, what one costs standing for a day, with all that halt with it. */
  perDayMinor: number
  /** What some days without any are to be expected to cost. */
  without: (days: number) => number
}
export interface AskedPart {
  forecast: Forecast
  shelf: OnShelf
  coming: readonly Coming[]
  offers: readonly Offer[]
  absence: Absence
  /** No more of it go on its shelf. */
  shelfMost: number | null
}
export interface OfferWeighed {
  id: string
  quantity: number
  /** Parts, and the order itself. */
  minor: number
  /** To be expected from guns that stand until it is in. */
  standMinor: number
  chanceShort: number
}
/** A small order of the quickest until the usual one is in. */
export interface Bridge {
  offerId: string
  quantity: number
  minor: number
  /** Standing to be expected with it, and without. */
  standWithMinor: number
  standWithoutMinor: number
  /** That it runs short without. */
  chanceShort: number
}
export interface Advice {
  /** By which offer it is usually bought. */
  offerId: string
  leadDays: number
  /** Order when no more than that is there and coming; it lasts with that chance until the order is in. */
  point: number
  service: number
  /** Wanted meanwhile, on average. */
  meanwhile: number
  quantity: number
  /** Days until the point is reached, at the middle; 0: now. Null: not within a year. */
  orderInDays: number | null
  runsOut: RunsOut
  /** That it runs short before an order of today is in. */
  chanceShort: number
  tiedUpMinor: number
  yearMinor: number
  /** To be expected of a week without it. */
  weekWithoutMinor: number
  /** One piece short, until the quickest that is sure to fit is in. */
  shortMinor: number
  bridge: Bridge | null
  /** What each offer comes to for an order of today. */
  offers: OfferWeighed[]
}

/** Of what lies there a fifth of its price a year: money, room, what is lost and goes out of use. A guess. */
export const KEEP_OF_PRICE = 0.2
/** However cheap it is to be without: nobody likes to be asked for what is not there. And none is ever sure. */
const [LEAST_SERVICE, MOST_SERVICE] = [0.8, 0.999]
/** More than that nobody buys ahead, unless one pack is more. */
const MOST_YEARS = 1.5
const YEAR_DAYS = 365
/** Three points of a lead time (Gauss–Hermite). */
const LEADS: readonly (readonly [number, number])[] = [
  [-Math.sqrt(3), 1 / 6],
  [0, 2 / 3],
  [Math.sqrt(3), 1 / 6],
]

/** What is wanted while an order is on its way, over the spread of its lead time. */
export function needOverLead(
  forecast: Forecast,
  { leadDays, sdLeadDays }: Pick<Offer, 'leadDays' | 'sdLeadDays'>,
): Counts {
  const nodes = sdLeadDays > 0 ? LEADS : ([[0, 1]] as const)
  return mixed(
    nodes.map(([z, weight]) => ({
      weight,
      counts: forecast.over(Math.max(0, leadDays + z * sdLeadDays)).counts,
    })),
  )
}

/**
 * When to order a part, how many, of whom, and what being without it costs. Null without an offer.
 *
 * 1. Service by what one short costs: of Q at a time, D a year, p each short and h a year each kept, the least cost lasts with 1 − hQ/(Dp)
 *    (Hadley & Whitin 1963), between 0.8 and 0.999. One short costs what a gun stands until the quickest that is sure to fit is in, or a swap.
 * 2. Quantity by orders and keeping (`orderSize`) at prices by quantity, in whole packs, up to what the shelf takes and a year and a half.
 * 3. Of several that are sure to fit the one with the least cost in a year; what is only said to fit is never the usual one.
 */
export function advise(part: AskedPart): Advice | null {
  const { forecast, shelf, coming, absence } = part
  const sure = part.offers.filter((o) => o.isSure)
  const usable = sure.length > 0 ? sure : part.offers
  if (usable.length === 0) return null
  const perYear = Math.max(forecast.over(90).mean * (YEAR_DAYS / 90), 1e-3)
  const shortMinor = shortCost(part, usable)
  const plans = usable.map((offer) => planFor(offer, { part, perYear, shortMinor }))
  const [first, ...more] = plans
  if (!first) return null
  const best = more.reduce((b, p) => (p.yearMinor < b.yearMinor ? p : b), first)
  const there = shelf.mean + coming.reduce((sum, c) => sum + c.quantity, 0)
  return {
    ...best,
    orderInDays: there <= best.point ? 0 : daysUntil(forecast, there - best.point),
    runsOut: runsOut(forecast, shelf, coming),
    chanceShort: shortBy(forecast, best.leadDays, part),
    weekWithoutMinor: absence.without(7),
    shortMinor,
    bridge: bridgeOf(part, best.offer),
    offers: part.offers.map((offer) => weigh(offer, part, Math.max(best.quantity, offer.packOf))),
  }
}

/** One piece short: a gun stands until the quickest is in, or another hangs in its place and only a second one stands. */
function shortCost({ forecast, absence }: AskedPart, offers: readonly Offer[]): number {
  const waitDays = Math.min(...offers.map((o) => o.leadDays))
  const standMinor = waitDays * absence.perDayMinor
  if (absence.ready === 0) return standMinor
  const { counts } = forecast.over(waitDays)
  const isMore = 1 - atMost(counts, absence.ready)
  const isAny = Math.max(1 - atMost(counts, 0), 1e-9)
  return Math.min(standMinor, absence.swapMinor + standMinor * Math.min(1, isMore / isAny))
}

function planFor(
  offer: Offer,
  { part, perYear, shortMinor }: { part: AskedPart; perYear: number; shortMinor: number },
) {
  const counts = needOverLead(part.forecast, offer)
  const costs: OrderCosts = {
    perYear,
    orderCost: offer.orderMinor,
    holding: { ofPrice: KEEP_OF_PRICE },
    discount: 'all',
    bands: offer.bands,
  }
  const quantity = inPacks(offer, costs, part.shelfMost)
  const each = priceAt(offer, quantity)
  const wanted = 1 - (KEEP_OF_PRICE * each * quantity) / (perYear * Math.max(shortMinor, 1e-9))
  const point = enoughFor(counts, Math.min(MOST_SERVICE, Math.max(LEAST_SERVICE, wanted)))
  const meanwhile = meanOf(counts)
  const safety = Math.max(0, point - meanwhile)
  const shortYear =
    (perYear / quantity) * shortOver(counts, { shelf: point, days: offer.leadDays, absence: part.absence })
  return {
    offer,
    offerId: offer.id,
    leadDays: offer.leadDays,
    point,
    service: atMost(counts, point),
    meanwhile,
    quantity,
    tiedUpMinor: (safety + quantity / 2) * each,
    yearMinor: yearOf(quantity, costs) + safety * each * KEEP_OF_PRICE + shortYear,
  }
}

/** The order of least cost in whole packs. */
function inPacks(offer: Offer, costs: OrderCosts, shelfMost: number | null): number {
  const { packOf } = offer
  const most = Math.min(shelfMost ?? Infinity, costs.perYear * MOST_YEARS)
  const best = orderSize({ ...costs, orderCost: Math.max(costs.orderCost, 1e-6) }).quantity
  const starts = offer.bands.map((b) => Math.ceil(b.from / packOf) * packOf)
  const candidates = [Math.floor(best / packOf) * packOf, Math.ceil(best / packOf) * packOf, ...starts]
  const whole = candidates.filter((q) => q >= packOf && q <= most)
  // Where not even one pack is allowed one is still the least that is sold.
  const [first, ...more] = whole.length > 0 ? whole : [Math.max(packOf, Math.floor(most / packOf) * packOf)]
  return more.reduce((b, q) => (yearOf(q, costs) < yearOf(b, costs) ? q : b), first ?? packOf)
}

/** Days in which so many are wanted, at the middle, straight between the days that are looked at; null: not within a year. */
function daysUntil(forecast: Forecast, quantity: number): number | null {
  let [low, high] = [0, YEAR_DAYS]
  if (forecast.over(high).mean < quantity) return null
  while (high - low > 0.5) {
    const middle = (low + high) / 2
    if (forecast.over(middle).mean < quantity) low = middle
    else high = middle
  }
  return high
}

/** An order of today by one offer: what is paid, and what guns that stand until it is in are to be expected to cost. */
function weigh(offer: Offer, part: AskedPart, atLeast: number): OfferWeighed {
  const quantity = Math.ceil(atLeast / offer.packOf) * offer.packOf
  return {
    id: offer.id,
    quantity,
    minor: quantity * priceAt(offer, quantity) + offer.orderMinor,
    standMinor: standUntil(part, offer),
    chanceShort: shortBy(part.forecast, offer.leadDays, part),
  }
}

/** Standing until an order of today is in: before the first lot that comes, and with what comes after it. */
function standUntil({ forecast, shelf, coming, absence }: AskedPart, offer: Offer): number {
  const { leadDays } = offer
  const first = Math.min(...coming.map((c) => c.days))
  const before =
    first < leadDays ? shortOver(forecast.over(first).counts, { shelf: shelf.mean, days: first, absence }) : 0
  const there = coming.reduce((sum, c) => sum + (c.days < leadDays ? c.quantity : 0), shelf.mean)
  return before + shortOver(needOverLead(forecast, offer), { shelf: there, days: leadDays, absence })
}

/** How sure a bridge is to reach. */
const BRIDGED = 0.95
/** Worth a second order only where it may be needed. */
const NEEDED = 0.02
/**
 * Pay more now or wait: what of the quickest offer would bridge the time until an order of today by the usual one is in, what it costs, and what waiting
 * without it is to be expected to cost. Null where the usual one is the quickest, or it lasts.
 */
function bridgeOf(part: AskedPart, usual: Offer): Bridge | null {
  const sure = part.offers.filter((o) => o.isSure)
  const [first, ...more] = sure
  if (!first) return null
  const quickest = more.reduce((best, o) => (o.leadDays < best.leadDays ? o : best), first)
  const chance = shortBy(part.forecast, usual.leadDays, part)
  if (quickest.id === usual.id || quickest.leadDays >= usual.leadDays || chance < NEEDED) return null
  const { shelf, coming, forecast } = part
  const there = coming.reduce((sum, c) => sum + (c.days < usual.leadDays ? c.quantity : 0), shelf.mean)
  const reach = Math.min(...coming.map((c) => c.days), usual.leadDays)
  // It has to reach to the first lot that comes, and with that to the end.
  const lacks = Math.max(
    enoughFor(needOverLead(forecast, usual), BRIDGED) - there,
    enoughFor(forecast.over(reach).counts, BRIDGED) - shelf.mean,
  )
  const quantity = Math.max(1, Math.ceil(lacks / quickest.packOf)) * quickest.packOf
  return {
    offerId: quickest.id,
    quantity,
    minor: quantity * priceAt(quickest, quantity) + quickest.orderMinor,
    standWithMinor: standUntil(part, quickest),
    standWithoutMinor: standUntil(part, usual),
    chanceShort: chance,
  }
}

/**
 * What standing is to be expected to cost while an order is on its way: of k wanted with s there, it is out for (k − s)/k of that time. Told for a few
 * lengths of it, straight between them.
 */
function shortOver(counts: Counts, at: { shelf: number; days: number; absence: Absence }): number {
  const { days, absence } = at
  const there = Math.max(0, Math.floor(at.shelf))
  if (there >= counts.length || days <= 0) return 0
  const costs = Array.from({ length: PARTS + 1 }, (_, i) => (i === 0 ? 0 : absence.without((days * i) / PARTS)))
  let sum = 0
  for (let k = counts.length - 1; k > there; k--) {
    const x = ((k - there) / k) * PARTS
    const [i, f] = [Math.floor(x), x - Math.floor(x)]
    sum += (counts[k] ?? 0) * ((costs[i] ?? 0) * (1 - f) + (costs[i + 1] ?? 0) * f)
  }
  return sum
}
const PARTS = 4
