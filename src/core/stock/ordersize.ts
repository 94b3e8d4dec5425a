/** A price that holds from a quantity on. */
export interface PriceBand {
  from: number
  each: number
}
export interface OrderCosts {
  perYear: number
  /** What one order costs beside the parts: writing it, the trip, taking it in. */
  orderCost: number
  /** What it costs to keep a part for a year: of its price, or by the piece. */
  holding: { ofPrice: number } | { each: number }
  /** `all`: the price of the band for every part of the order; `steps`: each part at the price of its own band. */
  discount: 'all' | 'steps'
  bands: readonly PriceBand[]
}
export interface OrderSize {
  quantity: number
  cost: number
  each: number
  ordersPerYear: number
  whole: { quantity: number; cost: number }
}

/**
 * How many to order at a time: the least of K·D/Q + D·c(Q) + h·Q/2 a year. In each band the cost falls, then rises, so its least lies at
 * √(2·D·(K + what the steps below cost more)/h) or at an end of the band; a discount on all parts begins at its quantity exactly.
 * Source: Harris (1913); Silver, Pyke & Peterson (1998). Misuse throws.
 * @example orderSize({ perYear: 1200, orderCost: 45, holding: { each: 1.6 }, discount: 'all', bands: [{ from: 0, each: 8 }] }).quantity // 259.8
 */
export function orderSize(of: OrderCosts): OrderSize {
  const bands = checked(of)
  const ends = bands.map((band, i) => ({ ...band, to: bands[i + 1]?.from ?? Infinity, above: dearer(bands, i, of) }))
  const candidates = ends.flatMap((band) => {
    const holding = 'each' in of.holding ? of.holding.each : of.holding.ofPrice * band.each
    const least = Math.sqrt((2 * of.perYear * (of.orderCost + band.above)) / holding)
    return [least, band.from].filter((q) => q > 0 && q >= band.from && q < band.to)
  })
  const quantity = cheapest(candidates, of)
  const wholes = candidates.flatMap((q) => [Math.floor(q), Math.ceil(q)]).filter((q) => q >= 1)
  const best = cheapest(wholes.length > 0 ? wholes : [1], of)
  return {
    quantity,
    cost: yearOf(quantity, of),
    each: eachAt(quantity, of),
    ordersPerYear: of.perYear / quantity,
    whole: { quantity: best, cost: yearOf(best, of) },
  }
}

/** What a year costs by orders of that size. */
export function yearOf(quantity: number, of: OrderCosts): number {
  const each = eachAt(quantity, of)
  const holding = 'each' in of.holding ? of.holding.each : of.holding.ofPrice * each
  return (of.orderCost * of.perYear) / quantity + of.perYear * each + (holding * quantity) / 2
}

const byFrom = (bands: readonly PriceBand[]) => [...bands].sort((a, b) => a.from - b.from)
/** The price that holds for each of so many, where it holds for all of them; none without a price. */
export function priceAt({ bands }: { bands: readonly PriceBand[] }, quantity: number): number {
  const sorted = byFrom(bands)
  return (sorted.findLast((b) => quantity >= b.from) ?? sorted[0])?.each ?? 0
}

/** The price of a part in an order of that size, on average. */
function eachAt(quantity: number, { bands, discount }: OrderCosts): number {
  if (bands.length === 0) throw new RangeError('orderSize: expected a price')
  if (discount === 'all') return priceAt({ bands }, quantity)
  const sorted = byFrom(bands)
  const i = sorted.findLastIndex((b) => quantity >= b.from)
  const paid = sorted.slice(0, i + 1).reduce((sum, b, j) => {
    const to = j === i ? quantity : (sorted[j + 1]?.from ?? quantity)
    return sum + (to - b.from) * b.each
  }, 0)
  return paid / quantity
}

/** By how much the parts below a band cost more than at its own price: a fixed sum of every order that reaches it. */
function dearer(bands: readonly PriceBand[], i: number, { discount }: OrderCosts): number {
  if (discount === 'all') return 0
  const each = bands[i]?.each ?? 0
  return bands.slice(0, i).reduce((sum, b, j) => sum + ((bands[j + 1]?.from ?? 0) - b.from) * (b.each - each), 0)
}

function cheapest(quantities: readonly number[], of: OrderCosts): number {
  const [first = 1, ...more] = quantities
  return more.reduce((best, q) => (yearOf(q, of) < yearOf(best, of) ? q : best), first)
}

function checked(of: OrderCosts): PriceBand[] {
  const bands = byFrom(of.bands)
  const keep = 'each' in of.holding ? of.holding.each : of.holding.ofPrice
  if (!(of.perYear > 0 && of.orderCost >= 0 && keep > 0))
    throw new RangeError(
      'orderSize: expected a demand, an order that costs nothing less than zero, and keeping that costs something',
    )
  if (bands[0]?.from !== 0 || bands.some((b) => !(b.each > 0)))
    throw new RangeError('orderSize: expected prices above zero, the first from 0 on')
  return bands
}
