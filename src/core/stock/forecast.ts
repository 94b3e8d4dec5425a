import { type WearAndChance } from '@core/life/renewalgrid.ts'
import { normalCdf } from '@core/stats/normal.ts'
import { logGamma } from '@core/stats/beta.ts'
import { atMost, enoughFor, meanOf, mixed, poissonCounts, together, varianceOf, type Counts } from './counts.ts'
import { Renewals, sumOf } from './renewals.ts'

/** How a kind of part lasts at a class of places, as a forecast takes it. */
export interface StockLife {
  /** Same key, same life. */
  key: string
  life: WearAndChance
  /** Changed at that use by rule; null: when it is done for. */
  limit: number | null
  /** How well the life is known: one standard deviation of the logarithm of its middle. */
  sdLog: number
  /** Share of the changes that is written down. */
  share: number
}
/** A part that is on a gun. */
export interface InUse {
  life: StockLife
  /** Use since its change was written down; null: nobody knows. */
  age: number | null
  /** Use it will do within so many days from now. */
  useIn: (days: number) => number
  /** What halts together names the same group. */
  group: string
}
/** What left the shelf, counted twice: for that many days, how many, and how sure. */
export interface Seen {
  days: number
  taken: number
  sd: number
}

/** How many will be wanted within some days. */
export interface Need {
  days: number
  counts: Counts
  mean: number
  /** 9 in 10 lie between them. */
  low: number
  high: number
}
/** By days from now. */
export interface Forecast {
  over: (days: number) => Need
  /** By what it goes: lives of the parts that are on, what left the shelf, or both. */
  by: 'lives' | 'counts' | 'both'
  /** Parts that are on and were taken into it. */
  parts: number
}

/** Nodes and weights of a normal for ∫ f(z)φ(z)dz, exact up to degree seven (Gauss–Hermite). */
const NODES: readonly (readonly [number, number])[] = [
  [-2.334414218338977, 0.045875854768068],
  [-0.741963784302726, 0.454124145231932],
  [0.741963784302726, 0.454124145231932],
  [2.334414218338977, 0.045875854768068],
]
/** However many lives: next quarter is not quite like the last. A guess. */
const NOT_QUITE = 0.1
/** What left the shelf is held against as many days to come. */
const LIKE_DAYS = 28

/** Renewals once made are kept for all parts of one life. */
export class RenewalsKept {
  private readonly kept = new Map<string, Renewals>()
  of({ key, life, limit }: StockLife, times: number): Renewals {
    const name = `${key} ${times}`
    const made =
      this.kept.get(name) ?? new Renewals({ ...life, scale: life.scale * times, rate: life.rate / times }, limit)
    this.kept.set(name, made)
    return made
  }
}

/**
 * What will be wanted of one part number, from every part in place: its age, its life, its use to come, the rule it is changed by.
 *
 * 1. On one gun by renewals (`Renewals`); guns do not know of each other.
 * 2. How well a life is known is common to all guns: the sum is mixed over four lives about the middle one (Gauss–Hermite on its logarithm).
 * 3. For each that is put on, `lossShare` more is lost, dropped, pocketed.
 * 4. What left the shelf between two counts speaks for the lives under which just so many would have gone (normal about it).
 */
export function forecastByLives(
  inUse: readonly InUse[],
  { lossShare, seen, kept = new RenewalsKept() }: { lossShare: number; seen?: Seen | null; kept?: RenewalsKept },
): Forecast {
  const at = (z: number, days: number): Counts => {
    const each = inUse.map(({ life, age, useIn }) =>
      kept.of(life, Math.exp(z * Math.hypot(life.sdLog, NOT_QUITE))).within(useIn(days), age, life.share),
    )
    const put = sumOf(each)
    return together(put, poissonCounts((lossShare / (1 - lossShare)) * meanOf(put)))
  }
  const weights = weighed(at, seen ?? null)
  return {
    by: seen ? 'both' : 'lives',
    parts: inUse.length,
    over: once((days) =>
      needOf(days, mixed(NODES.map(([z], i) => ({ weight: weights[i] ?? 0, counts: at(z, days) })))),
    ),
  }
}

/** Advice asks for the same days again and again. */
function once(over: Forecast['over']): Forecast['over'] {
  const known = new Map<number, Need>()
  return (days) => {
    const need = known.get(days) ?? over(days)
    known.set(days, need)
    return need
  }
}

/** Each node as much as what left the shelf speaks for it. */
function weighed(at: (z: number, days: number) => Counts, seen: Seen | null): number[] {
  if (!seen) return NODES.map(([, w]) => w)
  const logs = NODES.map(([z, w]) => {
    const like = at(z, LIKE_DAYS)
    const mean = (meanOf(like) * seen.days) / LIKE_DAYS
    const variance = (varianceOf(like) * seen.days) / LIKE_DAYS + seen.sd ** 2 + 1
    return Math.log(w) - (seen.taken - mean) ** 2 / (2 * variance) - Math.log(variance) / 2
  })
  const most = Math.max(...logs)
  const raw = logs.map((l) => Math.exp(l - most))
  const sum = raw.reduce((a, b) => a + b, 0)
  return raw.map((w) => w / sum)
}

/** A group that halts together, standing a day. */
export interface StandsAt {
  minorPerDay: number
}
/** What is there instead: guns that hang ready, and what hanging one costs. */
export interface Instead {
  ready: number
  swapMinor: number
}

/**
 * What some days without any of a part are to be expected to cost: a group stands from the moment one of its guns wants one, ∫ (1 − Π P₀ᵢ(t)) dt by
 * Simpson's rule; as many guns as hang ready are hung instead, first come first served.
 */
export function withoutAny(
  wants: readonly { group: string; none: (days: number) => number }[],
  days: number,
  { groups, instead }: { groups: ReadonlyMap<string, StandsAt>; instead: Instead },
): number {
  const at = (t: number) => {
    const none = new Map<string, number>()
    let wanting = 0
    for (const { group, none: noneBy } of wants) {
      const p = noneBy(t)
      wanting += 1 - p
      none.set(group, (none.get(group) ?? 1) * p)
    }
    const standing = [...none].reduce((sum, [g, p]) => sum + (1 - p) * (groups.get(g)?.minorPerDay ?? 0), 0)
    return { wanting, minor: standing * (wanting > 0 ? Math.max(0, 1 - instead.ready / wanting) : 0) }
  }
  const [first, middle, last] = [at(0), at(days / 2), at(days)]
  const stood = (days * (first.minor + 4 * middle.minor + last.minor)) / 6
  return stood + Math.min(instead.ready, last.wanting) * instead.swapMinor
}
/** On each gun the chance that none is wanted within some days, by the middle life. */
export const wantsOf = (inUse: readonly InUse[], kept: RenewalsKept) =>
  inUse.map(({ life, age, useIn, group }) => {
    const renewals = kept.of(life, 1)
    return { group, none: (days: number) => renewals.within(useIn(days), age, life.share)[0] ?? 0 }
  })

/**
 * The same from what left the shelf alone, where no life is known: of n in d days the rate is gamma (n + ½, d), so that the count to come is negative
 * binomial (Jeffreys). The spread of what was taken widens it. Source: Gelman et al., Bayesian Data Analysis.
 */
export function forecastByCounts({ days: seenDays, taken, sd }: Seen): Forecast {
  if (!(seenDays > 0 && taken >= 0)) throw new RangeError(`forecastByCounts: expected days > 0 and taken >= 0`)
  // As many as would be as uncertain.
  const worth = taken + 0.5
  const size = worth / (1 + sd ** 2 / worth)
  return {
    by: 'counts',
    parts: 0,
    over: once((days) => needOf(days, negativeBinomial(size, (worth * days) / seenDays))),
  }
}
function negativeBinomial(size: number, mean: number): Counts {
  if (mean <= 0) return [1]
  const p = size / (size + mean)
  const counts: number[] = []
  for (let k = 0, sum = 0; sum < 1 - 1e-9 && k < 100_000; k++) {
    const q = Math.exp(logGamma(k + size) - logGamma(size) - logGamma(k + 1) + size * Math.log(p) + k * Math.log1p(-p))
    counts.push(q)
    sum += q
  }
  return counts
}

function needOf(days: number, counts: Counts): Need {
  return {
    days,
    counts,
    mean: meanOf(counts),
    low: enoughFor(counts, 0.05),
    high: enoughFor(counts, 0.95),
  }
}
/** What lies there, as far as it is known. */
export interface OnShelf {
  mean: number
  sd: number
}
/** Ordered and still to come. */
export interface Coming {
  quantity: number
  days: number
}
/** Chance that more is wanted than is there. */
export function chanceShort(counts: Counts, { mean, sd }: OnShelf): number {
  if (sd < 0.05) return 1 - atMost(counts, Math.floor(mean + 1e-9))
  return counts.reduce((sum, p, k) => sum + p * normalCdf((k - 0.5 - mean) / sd), 0)
}

export interface RunsOut {
  /** Days until it is as likely as not that one is wanted and none there; and when 1 in 20 and 19 in 20; null: not within a year. */
  low: number | null
  middle: number | null
  high: number | null
}
const HORIZONS = [1, 2, 4, 7, 10, 14, 21, 30, 45, 60, 90, 120, 180, 270, 365] as const
/** Chance of having been short by then: looked at just before each lot that comes, and in the end. */
export function shortBy(
  forecast: Forecast,
  days: number,
  { shelf, coming }: { shelf: OnShelf; coming: readonly Coming[] },
): number {
  const ends = [...coming.flatMap((c) => (c.days < days ? [c.days] : [])), days]
  return Math.max(
    0,
    ...ends.map((end) => {
      const there = coming.reduce((sum, c) => sum + (c.days < end ? c.quantity : 0), shelf.mean)
      return chanceShort(forecast.over(end).counts, { ...shelf, mean: there })
    }),
  )
}

/** When it runs out, by the chance of having run short by each of some days, straight between them. What is on order counts from the day it is due. */
export function runsOut(forecast: Forecast, shelf: OnShelf, coming: readonly Coming[] = []): RunsOut {
  const points: { days: number; chance: number }[] = [{ days: 0, chance: shelf.mean < 0.5 ? 1 : 0 }]
  const looked = [...HORIZONS, ...coming.map((c) => c.days)].filter((d) => d > 0).sort((a, b) => a - b)
  for (const days of looked) {
    const there = coming.reduce((sum, c) => sum + (c.days < days ? c.quantity : 0), shelf.mean)
    const chance = chanceShort(forecast.over(days).counts, { ...shelf, mean: there })
    points.push({ days, chance: Math.max(chance, points.at(-1)?.chance ?? 0) })
    if (chance > 0.97) break
  }
  const at = (p: number): number | null => {
    const i = points.findIndex((point) => point.chance >= p)
    if (i < 0) return null
    const [a, b] = [points[i - 1], points[i]]
    if (!a || !b) return 0
    return a.days + ((p - a.chance) / (b.chance - a.chance)) * (b.days - a.days)
  }
  return { low: at(0.05), middle: at(0.5), high: at(0.95) }
}
