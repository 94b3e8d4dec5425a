import { fitLives } from '@core/life/fitted.ts'
import { LOSS_GUESS } from '@core/life/loggingshare.ts'
import { firstYear } from '@core/life/shoprace.ts'
import { makeRandom } from '@core/random/random.ts'
import { advise } from '@core/stock/advise.ts'
import { forecastByLives, RenewalsKept, type StockLife } from '@core/stock/forecast.ts'
import {
  fixedMinimum,
  raceShelf,
  whenEmpty,
  type ShelfPolicy,
  type ShelfSeen,
  type ShelfWorld,
} from '@core/stock/stockrace.ts'
import { Z_95 } from '@core/stats/normal.ts'

/**
 * A year in made-up shops: ordered when the bin is empty; by a fixed minimum (a month as it was bought last year, whatever the lead time); and by this
 * program from imperfect logs, a count every four weeks and what it learnt of the first year. Orders are of the same size for all three.
 */
interface Drawn {
  world: ShelfWorld
  /** What the year before used of it, as it was bought. */
  monthly: number
  perHourMinor: number
  priceMinor: number
  packOf: number
}
const WORK_SHARE = 5 / 7

export function drawShelf(seed: number): Drawn {
  const random = makeRandom(seed)
  const between = (a: number, b: number) => a + (b - a) * random()
  const shape = between(1.2, 4)
  // From tips, a few a day, to liners, a few a month.
  const scale = 4 * 10 ** between(0, 1.3)
  const life = { shape, scale, rate: between(0.02, 0.2) / scale }
  const guns = Math.round(between(4, 40))
  const perDay = between(1.5, 5)
  const monthly = ((guns * perDay * 30 * WORK_SHARE) / (0.8 * scale)) * between(0.85, 1.2)
  const packOf = monthly > 60 ? 100 : monthly > 12 ? 10 : 1
  const orderOf = Math.max(1, Math.round((2 * monthly) / packOf)) * packOf
  const leadDays = Math.round(between(3, 28))
  return {
    ...{ monthly, packOf, perHourMinor: between(2000, 9000), priceMinor: between(50, 4000) },
    world: {
      ...{ life, guns, perDay, orderOf, leadDays, logShare: between(0.45, 1), lossShare: between(0.02, 0.08) },
      ...{ sdLeadDays: leadDays * between(0.1, 0.35), begins: orderOf },
    },
  }
}

/** What this program orders by: the lives of the year before from its log, the shelf by count and log, lead times as they were learnt. */
export function oursFor({ world, perHourMinor, priceMinor, packOf }: Drawn, seed: number): ShelfPolicy | null {
  const { gaps, share } = firstYear({ ...world, lateShare: 0.3, notSaidShare: 0.15 }, makeRandom(seed))
  const fit = fitLives(gaps)
  if (!fit.ok) return null
  const life: StockLife = {
    ...{ key: 'this', life: fit.life, limit: null, share: share.value },
    sdLog: Math.log(fit.median.high / fit.median.low) / (2 * Z_95),
  }
  const kept = new RenewalsKept()
  // Of a handful of orders: the mean is known to a fifth of their spread or so.
  const random = makeRandom(seed + 9)
  const leadDays = Math.max(1, world.leadDays + (random() - 0.5) * 0.8 * world.sdLeadDays)
  const sdLeadDays = world.sdLeadDays * (0.8 + 0.4 * random())
  const useIn = (days: number) => days * WORK_SHARE * world.perDay
  let asked = { day: -99, point: 0 }
  return (seen) => {
    if (seen.day - asked.day >= REVIEW_DAYS) asked = { day: seen.day, point: pointOf(seen) }
    const coming = seen.coming.reduce((sum, c) => sum + c.quantity, 0)
    return likely(seen, share.value) + coming <= asked.point ? world.orderOf : 0
  }
  function pointOf(seen: ShelfSeen): number {
    const inUse = seen.ages.map((age, i) => ({ life, age, useIn, group: String(i) }))
    const left = seen.seen && seen.seen.days >= 56 ? { ...seen.seen, sd: 0.02 * world.orderOf + 1 } : null
    const forecast = forecastByLives(inUse, { lossShare: LOSS_GUESS, seen: left, kept })
    const bands = [{ from: 0, each: priceMinor }]
    const offer = { id: 'only', bands, packOf, leadDays, sdLeadDays, orderMinor: 1500, isSure: true }
    const perDayMinor = perHourMinor * 8 * WORK_SHARE
    const absence = { ready: 0, swapMinor: 0, perDayMinor, without: (days: number) => days * perDayMinor }
    const advice = advise({
      ...{ forecast, shelf: { mean: Infinity, sd: 0 }, coming: [], offers: [offer], absence, shelfMost: world.orderOf },
    })
    return advice?.point ?? 0
  }
}
const REVIEW_DAYS = 14
/** As the page has it: what was put on since the count and not written down is gone too. */
const likely = (s: ShelfSeen, share: number): number =>
  Math.max(0, s.counted + s.receivedSince - s.loggedSince / Math.max(0.05, share))

export interface ShelfRace {
  empty: { standMin: number; meanStock: number }
  fixed: { standMin: number; meanStock: number }
  ours: { standMin: number; meanStock: number }
  used: number
}
export function playShelf(seed: number): ShelfRace | null {
  const drawn = drawShelf(seed)
  const ours = oursFor(drawn, seed + 1)
  if (!ours) return null
  const run = (policy: ShelfPolicy) => raceShelf(drawn.world, policy, makeRandom(seed + 2))
  const { orderOf } = drawn.world
  const mine = run(ours)
  return {
    empty: run(whenEmpty(orderOf)),
    fixed: run(fixedMinimum(Math.round(drawn.monthly), orderOf)),
    ours: mine,
    used: mine.used,
  }
}

/** Sums over worlds; stock in days of use, so that tips and liners weigh alike. */
export function sumUp(races: readonly ShelfRace[]) {
  const of = (name: 'empty' | 'fixed' | 'ours') => ({
    standMin: races.reduce((sum, r) => sum + r[name].standMin, 0) / races.length,
    stockDays: races.reduce((sum, r) => sum + (r[name].meanStock / Math.max(1, r.used)) * 364, 0) / races.length,
  })
  return { empty: of('empty'), fixed: of('fixed'), ours: of('ours') }
}

const WANTED = 0.8
function main(): void {
  const worlds = Number(process.env['BENCH_WORLDS'] ?? 120)
  const races = Array.from({ length: worlds }, (_, i) => playShelf(1000 + i * 17)).filter((r) => r !== null)
  const sum = sumUp(races)
  const line = (name: string, of: { standMin: number; stockDays: number }) =>
    console.log(`${name.padEnd(34)}${of.standMin.toFixed(0).padStart(12)}${of.stockDays.toFixed(1).padStart(16)}`)
  console.log(`${races.length} shelves, a year each (first year's log too thin to fit: ${worlds - races.length})`)
  console.log(`${''.padEnd(34)}${'gun min stood'.padStart(12)}${'days in stock'.padStart(16)}`)
  line('ordered when empty', sum.empty)
  line('fixed minimum: a month', sum.fixed)
  line('this program', sum.ours)
  const fewer = 1 - sum.ours.standMin / sum.empty.standMin
  const isLess = sum.ours.stockDays <= sum.fixed.stockDays
  console.log(
    `Standing against "when empty": ${(100 * fewer).toFixed(1)}% less (wanted 80); stock against the fixed minimum: ${isLess ? 'no more' : 'MORE'}.`,
  )
  process.exitCode = fewer >= WANTED && isLess ? 0 : 1
}
if (process.argv[1]?.endsWith('stock.js')) main()
