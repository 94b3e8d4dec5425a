import { makeRandom, drawNormal } from '@core/random/random.ts'
import { atShare, mean } from '@core/stats/mean.ts'
import { simulateNecks } from './necksim.ts'

/** A mean that is known so well: one standard deviation of its log. */
export interface Reckoned {
  mean: number
  sdLog: number
}
export interface NeckNeed {
  robots: number
  /** Spare necks there are now, ready or away. */
  spares: number
  places: number
  /** Hours by the wall between going on and coming off, and from coming off to ready. */
  lifeH: Reckoned
  mendH: Reckoned
  lifeShape: number
  mendSigma: number
  seed: number
}
export interface NecksAt {
  spares: number
  /** Weeks in which a robot waits for a neck, of all; low and high: as far as lives and mending are not known. */
  pWeekShort: number
  low: number
  high: number
  /** Hours that robots stand for it, in a week. */
  standingPerWeek: number
}

/** So many worlds are drawn, each with its own mean life and mending. */
const WORLDS = 40
/** Events to be worked through for one number of spares: a second on an office computer for the whole table. */
const EVENTS = 60_000
const WEEK_H = 168
const LEAST_WEEKS = 20
const MOST_WEEKS = 400
const TENTH = 0.1

/**
 * What one spare more or less would do: for each number of spares around what is there, the share of weeks in which a robot waits for a neck,
 * over lives and mending times that are only known so well. The same draws stand under every row, so that rows differ by the spares alone.
 * Chance without unit, hours by the wall. Source: simulation of the finite-source queue, its means drawn from log-normal spreads.
 */
export function necksNeeded(of: NeckNeed, beside = 2): NecksAt[] {
  const worlds = worldsOf(of)
  const from = Math.max(0, of.spares - beside)
  return Array.from({ length: of.spares + beside - from + 1 }, (_, i) => necksWith(of, from + i, worlds))
}

interface World {
  meanLifeH: number
  meanMendH: number
  seed: number
}
function worldsOf({ lifeH, mendH, seed }: NeckNeed): World[] {
  const random = makeRandom(seed)
  return Array.from({ length: WORLDS }, () => ({
    meanLifeH: lifeH.mean * Math.exp(lifeH.sdLog * drawNormal(random)),
    meanMendH: mendH.mean * Math.exp(mendH.sdLog * drawNormal(random)),
    seed: Math.floor(random() * 2 ** 31),
  }))
}

function necksWith(of: NeckNeed, spares: number, worlds: readonly World[]): NecksAt {
  const { robots, places, lifeShape, mendSigma } = of
  const runs = worlds.map((world) => {
    const perWeek = (2 * robots * WEEK_H) / world.meanLifeH
    const weeks = Math.round(Math.min(MOST_WEEKS, Math.max(LEAST_WEEKS, EVENTS / WORLDS / Math.max(perWeek, 0.1))))
    return simulateNecks({ ...world, robots, spares, places, lifeShape, mendSigma, weeks, weekH: WEEK_H })
  })
  const shares = runs.map((r) => r.weeksShort / r.weeks).sort((a, b) => a - b)
  return {
    spares,
    pWeekShort: mean(shares),
    ...{ low: atShare(shares, TENTH), high: atShare(shares, 1 - TENTH) },
    standingPerWeek: mean(runs.map((r) => r.standingPerWeek)),
  }
}

/** Weeks until one more neck has paid for itself; null where it saves nothing to speak of. */
export function neckPaysBackWeeks(of: {
  now: NecksAt
  more: NecksAt
  stopMinorPerHour: number
  priceMinor: number
}): number | null {
  const savedH = of.now.standingPerWeek - of.more.standingPerWeek
  const savedMinor = savedH * of.stopMinorPerHour
  return savedMinor > 0 ? of.priceMinor / savedMinor : null
}
