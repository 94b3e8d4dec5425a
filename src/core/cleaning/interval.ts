import { type WireId } from '@core/ids/id.ts'
import { OPEN_LOOK } from '@core/reading/target.ts'

/** One cleaning with what was found before it. */
export interface FoundClosed {
  /** Share of the opening that was shut by spatter. */
  closedShare: number
  /** Arc hours since it was last clean. */
  arcHours: number
}
export interface CleaningAsked {
  /** Newest last. */
  found: readonly FoundClosed[]
  /** Closure per arc hour of this class of work, with the spread of its log. */
  prior: { perHour: number; logSd: number }
  /** The interval that holds now; null: none yet. */
  currentH: number | null
  /** Share that stays shut after every cleaning; none where nobody said. */
  leftShare?: number
}
export interface CleaningInterval {
  hours: number
  /** 80th percentile of the closure rate it goes by. */
  perHour: number
  n: number
  /** Held back by the most it may change at a step. */
  isHeld: 'up' | 'down' | null
}

/** Shut by more than this a nozzle no longer steers the gas; and what is kept in hand before it. */
export const CLOSED_LIMIT = 1 - OPEN_LOOK
const MARGIN = 0.05
/** A cleaning is due when it is shut by so much. */
export const MOST_SHUT = CLOSED_LIMIT - MARGIN
const LAST = 12
const PERCENTILE = 0.8
/** The prior counts as so many cleanings. */
const PRIOR_WEIGHT = 3
const STEP = [0.5, 1.5] as const
const Z80 = 0.8416212335729143
/** Less than this was no run that tells a rate. */
export const LEAST_HOURS = 0.1

/**
 * Hours of arc between cleanings: r = (closure found − left by the last one) / arc hours since; interval = (limit − margin − left)/r₀.₈, r₀.₈ the
 * 80th percentile of the last 12 together with a class prior that counts as three; changed at most ×0.5…×1.5 a step. Cycles of a robot do for hours
 * alike. Source: limit, margin and prior are guesses.
 */
export function cleaningInterval(of: CleaningAsked): CleaningInterval {
  const { prior, currentH, leftShare = 0 } = of
  if (!(prior.perHour > 0) || !(prior.logSd >= 0))
    throw new RangeError(`cleaningInterval: expected a prior rate > 0, got ${prior.perHour}`)
  const rates = of.found
    .filter((f) => f.arcHours >= LEAST_HOURS)
    .slice(-LAST)
    .map((f) => Math.max(0, f.closedShare - leftShare) / f.arcHours)
  const quantiles = [-Z80, 0, Z80].map((z) => prior.perHour * Math.exp(z * prior.logSd))
  const weighted = [
    ...rates.map((rate) => ({ rate, weight: 1 })),
    ...quantiles.map((rate) => ({ rate, weight: PRIOR_WEIGHT / quantiles.length })),
  ].sort((a, b) => a.rate - b.rate)
  const perHour = Math.max(weightedQuantile(weighted, PERCENTILE), 1e-6)
  const wanted = Math.max(0, MOST_SHUT - leftShare) / perHour
  if (currentH === null) return { hours: wanted, perHour, n: rates.length, isHeld: null }
  const hours = Math.min(Math.max(wanted, currentH * STEP[0]), currentH * STEP[1])
  return { hours, perHour, n: rates.length, isHeld: hours < wanted ? 'up' : hours > wanted ? 'down' : null }
}

function weightedQuantile(list: readonly { rate: number; weight: number }[], q: number): number {
  const whole = list.reduce((s, r) => s + r.weight, 0)
  let sum = 0
  for (const r of list) {
    sum += r.weight
    if (sum >= q * whole - 1e-12) return r.rate
  }
  return list.at(-1)?.rate ?? NaN
}

/** Closure an arc hour by how the wire crosses and what shields it: guesses with a wide spread. */
const PRIORS = {
  'short circuit': 0.06,
  globular: 0.12,
  spray: 0.02,
  pulse: 0.025,
} as const
const CO2_TIMES = 1.6
const CORED_TIMES = 1.4
const ALUMINIUM_PULSE = 0.25
export const PRIOR_LOG_SD = 0.6
export function closurePrior(of: {
  mode: keyof typeof PRIORS | null
  gas: string | null
  isCored: boolean
  isAluminium: boolean
}): CleaningAsked['prior'] {
  const base = of.isAluminium && of.mode === 'pulse' ? ALUMINIUM_PULSE : PRIORS[of.mode ?? 'short circuit']
  const perHour = base * (of.gas === 'CO2' ? CO2_TIMES : 1) * (of.isCored ? CORED_TIMES : 1)
  return { perHour, logSd: PRIOR_LOG_SD }
}

/** Every so many cleanings of the nozzle the diffuser is brushed out too: a guess. */
export const DEEP_EVERY = 8
export const isDeepDue = (cleaningsSinceDeep: number, every = DEEP_EVERY) =>
  cleaningsSinceDeep > 0 && cleaningsSinceDeep % every === 0

/** How shut a look means, where no number stands beside it: guesses. */
const CLOSED_BY_LOOK: Readonly<Record<string, number>> = { clean: 0.08, ring: 0.3, half: 0.55 }
/** Share of a nozzle's opening that was shut, by number or by look; null where neither tells. */
export const closedShare = (read: { value: number | null; grade: string | null }): number | null =>
  read.value !== null ? 1 - read.value : (CLOSED_BY_LOOK[read.grade ?? ''] ?? null)

/** A cleaning's finding as it is kept: with the wire it was made with. */
export type FoundOn = FoundClosed & { wireId: WireId | null }
/** So many are kept: more than the interval goes by, so that those with another wire do not crowd it out. */
export const FOUND_KEPT = 2 * LAST

/** When a nozzle is cleaned where it is not by hours, and the days after which one is looked at then. Guesses. */
export const LOOKED_AT_DAYS = { eachPass: 0.5, cleanUp: 1, machine: 7 } as const
export const CLEANING_WAYS = ['hours', 'eachPass', 'cleanUp', 'machine'] as const
export type CleaningWay = (typeof CLEANING_WAYS)[number]
export const cleaningWay = (school: string): CleaningWay => CLEANING_WAYS.find((way) => way === school) ?? 'hours'

export interface CleanLimitAsked {
  /** School of the house rule on cleaning (D16). */
  school: string
  /** Arc hours the lead set; null: none. */
  ruleH: number | null
  learnt: CleaningInterval
}
export interface CleanLimit {
  hours: number
  by: 'rule' | 'found' | 'school'
  /** Findings of its own that it goes by. */
  n: number
  isHeld: CleaningInterval['isHeld']
}
/** From so many findings of its own a gun's interval goes by them. */
export const LEAST_FOUND = 3

/** The interval as it went, from what the lead set (or the class prior alone), step by step: each finding moves it by no more than half. */
export function learntInterval(
  of: Pick<CleaningAsked, 'found' | 'prior'> & { ruleH: number | null },
): CleaningInterval {
  const { found, prior, ruleH } = of
  const started = cleaningInterval({ found: [], prior, currentH: null })
  let made: CleaningInterval = ruleH === null ? started : { ...started, hours: ruleH }
  for (let i = 1; i <= found.length; i++)
    made = cleaningInterval({ found: found.slice(0, i), prior, currentH: made.hours })
  return made
}

/**
 * Arc hours at which a nozzle is cleaned, by the shop's school: each hour; as the lead set it; or as the lead set it and then by what is
 * found, from three findings on. Null: no hours count here (each pass, at clean-up, by the reamer), or nobody set any. A shipped guess never sets one.
 */
export function cleanLimit({ school, ruleH, learnt }: CleanLimitAsked): CleanLimit | null {
  if (school === 'hourly') return { hours: 1, by: 'school', n: 0, isHeld: null }
  if (cleaningWay(school) !== 'hours') return null
  const { hours, n, isHeld } = learnt
  if (school === 'byHours' && n >= LEAST_FOUND) return { hours, by: 'found', n, isHeld }
  return ruleH === null ? null : { hours: ruleH, by: 'rule', n, isHeld: null }
}
