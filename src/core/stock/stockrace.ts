import { drawNormal, drawWeibull } from '@core/random/random.ts'
import { type WearAndChance } from '@core/life/renewalgrid.ts'

/**
 * A year of one part number in a made-up shop, day by day: parts wear out on guns, are taken from the shelf, some are lost, some changes are written
 * down; what is ordered comes after its lead time; a gun that finds none stands until some come.
 */
export interface ShelfWorld {
  life: WearAndChance
  guns: number
  /** Use of a gun in a working day, on average. */
  perDay: number
  logShare: number
  lossShare: number
  leadDays: number
  sdLeadDays: number
  /** Pieces in an order; whole packs. */
  orderOf: number
  begins: number
}
/** What somebody who orders can know. */
export interface ShelfSeen {
  day: number
  /** As somebody sees who looks into the bin. */
  inBin: number
  /** Last count, and what was put on by the log since. */
  counted: number
  countedDay: number
  loggedSince: number
  receivedSince: number
  coming: readonly { quantity: number; days: number }[]
  /** Of each gun the use since its last line in the log; null: there was none yet. */
  ages: readonly (number | null)[]
  /** What left the shelf between the first count and the last. */
  seen: { days: number; taken: number } | null
}
/** How many to order; 0: none. Asked every working day. */
export type ShelfPolicy = (seen: ShelfSeen) => number
export interface ShelfYear {
  /** Gun minutes stood for want of the part. */
  standMin: number
  meanStock: number
  orders: number
  used: number
}

export const YEAR = 364
const SHIFT_MIN = 480
/** Counted every four weeks, one piece in a hundred off. */
const COUNT_DAYS = 28
const COUNT_ERROR = 0.01

interface Gun {
  left: number
  since: number | null
  isWaiting: boolean
}
export function raceShelf(world: ShelfWorld, policy: ShelfPolicy, random: () => number): ShelfYear {
  const draw = () =>
    Math.min(
      drawWeibull(random, world.life.shape, world.life.scale),
      world.life.rate > 0 ? drawWeibull(random, 1, 1 / world.life.rate) : Infinity,
    )
  const guns: Gun[] = Array.from({ length: world.guns }, () => ({
    left: draw() * random(),
    since: null,
    isWaiting: false,
  }))
  const book = new Book(world, random)
  let standMin = 0
  for (let day = 0; day < YEAR; day++) {
    book.begin(day)
    const isWork = day % 7 < 5
    if (isWork) {
      for (const gun of guns) {
        const use = world.perDay * Math.max(0, 1 + 0.4 * drawNormal(random))
        standMin += runGun(gun, use, { world, book, draw, random })
      }
      const order = policy(book.told(day, guns))
      if (order > 0) book.order(order, day)
    }
    book.end()
  }
  return { standMin, meanStock: book.stockDays / YEAR, orders: book.orders, used: book.used }
}

/** A day of one gun; answers the minutes it stood. */
function runGun(
  gun: Gun,
  use: number,
  at: { world: ShelfWorld; book: Book; draw: () => number; random: () => number },
): number {
  const { world, book, draw, random } = at
  let todo = use
  while (todo > 0) {
    if (gun.isWaiting) {
      if (!book.take()) return (todo / use) * SHIFT_MIN
      gun.isWaiting = false
      gun.left = draw()
      const isLogged = random() < world.logShare
      if (isLogged) book.logged++
      gun.since = isLogged ? 0 : gun.since
    }
    const done = Math.min(todo, gun.left)
    gun.left -= done
    todo -= done
    if (gun.since !== null) gun.since += done
    if (gun.left <= 0) gun.isWaiting = true
  }
  return 0
}

/** The shelf: what lies there, what is coming, what was counted. */
class Book {
  stockDays = 0
  orders = 0
  used = 0
  logged = 0
  private there: number
  private coming: { quantity: number; day: number; due: number }[] = []
  private counted = 0
  private countedDay = 0
  private received = 0
  private first: { day: number; counted: number } | null = null
  private receivedInAll = 0
  private last: { day: number; taken: number } | null = null
  constructor(
    private readonly world: ShelfWorld,
    private readonly random: () => number,
  ) {
    this.there = world.begins
  }
  begin(day: number): void {
    for (const c of this.coming.filter((o) => o.day <= day)) {
      this.there += c.quantity
      this.received += c.quantity
      this.receivedInAll += c.quantity
    }
    this.coming = this.coming.filter((o) => o.day > day)
    if (day % COUNT_DAYS === 0) this.count(day)
  }
  private count(day: number): void {
    this.counted = Math.max(0, Math.round(this.there * (1 + COUNT_ERROR * drawNormal(this.random))))
    this.countedDay = day
    if (this.first) this.last = { day, taken: this.first.counted + this.receivedInAll - this.counted }
    else this.first = { day, counted: this.counted }
    this.received = 0
    this.logged = 0
  }
  /** One from the shelf, and now and then another one that is lost. */
  take(): boolean {
    if (this.there <= 0) return false
    this.there--
    this.used++
    if (this.there > 0 && this.random() < this.world.lossShare) this.there--
    return true
  }
  order(quantity: number, day: number): void {
    const { leadDays, sdLeadDays } = this.world
    const lead = Math.max(1, Math.round(leadDays + sdLeadDays * drawNormal(this.random)))
    this.coming.push({ quantity, day: day + lead, due: day + leadDays })
    this.orders++
  }
  told(day: number, guns: readonly Gun[]): ShelfSeen {
    return {
      day,
      inBin: this.there,
      counted: this.counted,
      countedDay: this.countedDay,
      loggedSince: this.logged,
      receivedSince: this.received,
      coming: this.coming.map((c) => ({ quantity: c.quantity, days: Math.max(1, c.due - day) })),
      ages: guns.map((g) => g.since),
      seen: this.last && this.first ? { days: this.last.day - this.first.day, taken: this.last.taken } : null,
    }
  }
  end(): void {
    this.stockDays += this.there
  }
}

/** Ordered when the bin is found empty and nothing is coming. */
export const whenEmpty =
  (orderOf: number): ShelfPolicy =>
  ({ inBin, coming }) =>
    inBin <= 0 && coming.length === 0 ? orderOf : 0

/** Ordered when somebody who looks in on Monday finds no more than that. */
export const fixedMinimum =
  (least: number, orderOf: number): ShelfPolicy =>
  ({ day, inBin, coming }) =>
    day % 7 === 0 && inBin <= least && coming.length === 0 ? orderOf : 0
