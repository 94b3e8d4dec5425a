import { drawWeibull } from '@core/random/random.ts'
import { loggingShare } from './loggingshare.ts'
import { type SharedGap } from './fitted.ts'
import { type WearAndChance } from './renewalgrid.ts'
import { totalOf, type RuleCosts } from './rulecost.ts'

/**
 * A made-up shop for trying rules out: guns with one part each, worn by a life nobody is told, changed when it goes, and written down as people
 * do. What the program may see of its first year (gaps and a count of parts bought) is kept apart from what was true.
 */
export interface RaceShop {
  life: WearAndChance
  guns: number
  /** Use of each gun in a working day. */
  perDay: number
  logShare: number
  /** Share of lines written at the end of the shift. */
  lateShare: number
  notSaidShare: number
  /** What the program is not told and does not think of; each left out: it is not so. */
  odd?: OddWorld
}
/** Ways in which a shop differs from what is assumed of it. */
export interface OddWorld {
  /** Wear that is no Weibull life: use drawn of a part that goes on at this use of its gun. */
  wear?: (random: () => number, at: number) => number
  /** The share that gets logged of what happens at this use of a gun, in place of the same share always. */
  logShareAt?: (at: number, gun: number) => number
  /** The share is told wrong by so much. */
  shareOff?: number
  /** So many of the reasons said are the other one. */
  mixUps?: number
  /** By how much more a gun runs at this use of it: a busy month. */
  busyAt?: (at: number) => number
}
export const YEAR_DAYS = 240
const MONTHS_6 = 120
const WEEK_DAYS = 5

/** The first year's log under run to failure, as gaps with what a count of parts says of the logging share. */
export function firstYear(
  shop: RaceShop,
  random: () => number,
): { gaps: SharedGap[]; share: { value: number; low: number; high: number } } {
  const { odd } = shop
  const raw: Omit<SharedGap, 'share' | 'shareLow' | 'shareHigh'>[] = []
  let [made, logged] = [0, 0]
  const until = YEAR_DAYS * shop.perDay
  for (let gun = 0; gun < shop.guns; gun++) {
    let [t, last, lastWide, isFirst] = [-random() * shop.life.scale * 3, 0, 0, true]
    for (;;) {
      const { used, isWorn } = oneLife(shop, t, random)
      t += used
      if (t >= until) break
      if (t <= 0) continue
      made++
      if (random() > (odd?.logShareAt?.(t, gun) ?? shop.logShare)) continue
      logged++
      const wide = random() < shop.lateShare ? shop.perDay * (odd?.busyAt?.(t) ?? 1) : 0
      // Written at the end of the shift: it happened some time in it.
      const stamp = wide > 0 ? Math.min(until, t + random() * wide) : t
      const isSaidWorn = random() < (odd?.mixUps ?? 0) ? !isWorn : isWorn
      const end = random() < shop.notSaidShare ? 'either' : isSaidWorn ? 'worn' : 'chance'
      const gap = stamp - last
      if (gap > 0)
        raw.push({ low: Math.max(0, gap - wide), high: gap + lastWide, end, isAgeUnknown: isFirst, parts: 1 })
      ;[last, lastWide, isFirst] = [stamp, wide, false]
    }
    if (until > last)
      raw.push({ low: until - last, high: until - last + lastWide, end: 'cut', isAgeUnknown: isFirst, parts: 1 })
  }
  const share = toldWrong(shareOf(logged, made), odd?.shareOff ?? 0)
  return { gaps: raw.map((g) => ({ ...g, share: share.value, shareLow: share.low, shareHigh: share.high })), share }
}
/** One bought in twenty never gets put on; boxes are bought some weeks ahead. */
const LOST = 0.05
function shareOf(logged: number, made: number) {
  const taken = made / (1 - LOST)
  const answer = loggingShare({ logged, taken, sdTaken: Math.sqrt(taken) * 0.5 })
  return answer.ok
    ? { value: Math.min(1, answer.share), low: Math.min(1, answer.low), high: Math.min(1, answer.high) }
    : { value: 1, low: 0.8, high: 1 }
}
const LEAST_SHARE = 0.05
function toldWrong(share: { value: number; low: number; high: number }, off: number) {
  const as = (x: number) => Math.min(1, Math.max(LEAST_SHARE, x + off))
  return { value: as(share.value), low: as(share.low), high: as(share.high) }
}
function oneLife({ life, odd }: RaceShop, at: number, random: () => number): { used: number; isWorn: boolean } {
  const wear = odd?.wear ? odd.wear(random, at) : drawWeibull(random, life.shape, life.scale)
  const chance = life.rate > 0 ? -Math.log(1 - random()) / life.rate : Infinity
  return { used: Math.min(wear, chance), isWorn: wear < chance }
}

export type RaceRule = { kind: 'never' } | { kind: 'age'; at: number } | { kind: 'fridays' }
/** Money for one unit of use over the next half year under a rule, by what is true. */
export function replay(shop: RaceShop, costs: RuleCosts, at: { rule: RaceRule; random: () => number }): number {
  const { rule, random } = at
  const until = MONTHS_6 * shop.perDay
  let money = 0
  for (let gun = 0; gun < shop.guns; gun++) {
    let [t, friday] = [0, WEEK_DAYS * shop.perDay]
    while (t < until) {
      const { used, isWorn } = oneLife(shop, t, random)
      const planned = rule.kind === 'age' ? rule.at : rule.kind === 'fridays' ? friday - t : Infinity
      const isPlanned = planned <= used
      t += Math.min(used, planned)
      if (t >= until) break
      while (friday <= t + 1e-12) friday += WEEK_DAYS * shop.perDay
      money += totalOf(isPlanned ? costs.planned : isWorn ? costs.worn : costs.chance)
    }
  }
  return money / (shop.guns * until)
}
