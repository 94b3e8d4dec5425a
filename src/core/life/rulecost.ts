import { lowest } from './blockreplace.ts'
import { type WearAndChance } from './renewalgrid.ts'

/** What one change costs: money in minor units, minutes of hands and of standing. */
export interface OneChange {
  partMinor: number
  handsMin: number
  handsMinor: number
  standMin: number
  standMinor: number
  /** Scrapped work, wire, a nest cleared, a diffuser lost with the tip. */
  collateralMinor: number
}
export interface RuleCosts {
  planned: OneChange
  worn: OneChange
  /** Burned back or knocked: comes at any age, whatever the rule. */
  chance: OneChange
  /** One look at it, for the rule on condition. */
  lookMin: number
  lookMinor: number
}
export const totalOf = (c: OneChange): number => c.partMinor + c.handsMinor + c.standMinor + c.collateralMinor

/** Per unit of use. */
export interface CostRate {
  total: number
  partMinor: number
  handsMinor: number
  standMinor: number
  collateralMinor: number
  lookMinor: number
  handsMin: number
  standMin: number
  /** Changes, and those of them that came too late. */
  changes: number
  worn: number
}

const POINTS = 240
/** How far "run to failure" is followed, in scales: what is left by then is nothing. */
const FAR = 12

/** From new to age T (null: until it goes). */
export const cycleOf = (life: WearAndChance, T: number | null): ReturnType<typeof aheadOf> => aheadOf(life, 0, T)

/**
 * Cost for one unit of use when each part is changed at age T (null: when it goes): C(T) = [c_p S(T) + c_f P(worn first) + c_a r∫₀ᵀS] / ∫₀ᵀS, with
 * S(t) = exp(−(t/λ)^k − rt), taken apart into parts, hands, standing and collateral. T > 0; else misuse throws.
 * Source: Barlow & Proschan 1965, with competing age-free hazards.
 * @example costOfAge(life, costs, 2.9).total
 */
export function costOfAge(life: WearAndChance, costs: RuleCosts, T: number | null): CostRate {
  if (T !== null && !(T > 0)) throw new RangeError(`costOfAge: expected an age > 0, got ${T}`)
  return rateOf(cycleOf(life, T), costs)
}
function rateOf(
  cycle: { used: number; planned: number; worn: number; chance: number },
  costs: RuleCosts,
  looks = 0,
): CostRate {
  const { used, planned, worn, chance } = cycle
  const of = (pick: (c: OneChange) => number) =>
    (planned * pick(costs.planned) + worn * pick(costs.worn) + chance * pick(costs.chance)) / used
  const lookMinor = (looks * costs.lookMinor) / used
  return {
    total: of(totalOf) + lookMinor,
    partMinor: of((c) => c.partMinor),
    handsMinor: of((c) => c.handsMinor),
    standMinor: of((c) => c.standMinor),
    collateralMinor: of((c) => c.collateralMinor),
    lookMinor,
    handsMin: of((c) => c.handsMin) + (looks * costs.lookMin) / used,
    standMin: of((c) => c.standMin),
    changes: (planned + worn + chance) / used,
    worn: worn / used,
  }
}

/** From this share of its life on a worn part can be seen or measured. A guess. */
export const VISIBLE_FROM = 0.75
/**
 * Changed when a look finds it worn: looked at every `every` of use, seen from φ of its life on (delay time (1 − φ)X after Christer), so a look falls
 * in time with chance min(1, (1 − φ)X/τ). Ends by chance and by wear compete; by quadrature over the wear life X.
 * Source: Christer 1982, the delay-time model; φ is a shipped guess.
 */
export function costOnCondition(
  life: WearAndChance,
  costs: RuleCosts,
  looks: { every: number; visibleFrom?: number },
): CostRate {
  const { every, visibleFrom = VISIBLE_FROM } = looks
  if (!(every > 0) || !(visibleFrom > 0 && visibleFrom < 1))
    throw new RangeError(`costOnCondition: expected every > 0 and visibleFrom in 0…1, got ${every}, ${visibleFrom}`)
  const cycle = { used: 0, planned: 0, worn: 0, chance: 0 }
  let looked = 0
  for (let i = 0; i < POINTS; i++) {
    // Equally likely lives: quantiles of the wear.
    const wearLife = life.scale * (-Math.log1p(-(i + 0.5) / POINTS)) ** (1 / life.shape)
    const seen = Math.min(1, ((1 - visibleFrom) * wearLife) / every)
    const at = { seen: Math.min(wearLife, visibleFrom * wearLife + every / 2), late: wearLife }
    for (const [share, end] of [
      [seen, at.seen],
      [1 - seen, at.late],
    ] as const) {
      const lives = Math.exp(-life.rate * end)
      const used = life.rate > 0 ? (1 - lives) / life.rate : end
      cycle.used += (share * used) / POINTS
      cycle.chance += (share * (1 - lives)) / POINTS
      cycle[share === seen && end === at.seen ? 'planned' : 'worn'] += (share * lives) / POINTS
      looked += (share * used) / every / POINTS
    }
  }
  return rateOf(cycle, costs, looked)
}

/** What signs do: they come in time with this chance, at this share of the wear life, and falsely so often for one unit of use. */
export interface SignsSeen {
  chance: number
  atShare: number
  falseRate: number
  /** Minutes of measuring for one unit of use, made for its sake. */
  readMin: number
}
/**
 * Changed when a sign holds: over equally likely wear lives X, with chance p at φX in time, else at X when it goes; false signs come at any
 * age alike, at rate w, and cost a change in time each. Ends by chance compete: S(t) = exp(−(r + w)t). 0 ≤ p ≤ 1, 0 < φ ≤ 1, w ≥ 0; else
 * misuse throws. Source: as costOnCondition, with the chance and the share from the shop's own record.
 */
export function costOnSigns(life: WearAndChance, costs: RuleCosts, signs: SignsSeen): CostRate {
  const { chance, atShare, falseRate, readMin } = signs
  if (!(chance >= 0 && chance <= 1) || !(atShare > 0 && atShare <= 1) || !(falseRate >= 0) || !(readMin >= 0))
    throw new RangeError(
      `costOnSigns: expected 0…1, over 0…1 and twice ≥ 0, got ${chance}, ${atShare}, ${falseRate}, ${readMin}`,
    )
  const rate = life.rate + falseRate
  const cycle = { used: 0, planned: 0, worn: 0, chance: 0 }
  for (let i = 0; i < POINTS; i++) {
    const wearLife = life.scale * (-Math.log1p(-(i + 0.5) / POINTS)) ** (1 / life.shape)
    for (const [share, end, is] of [
      [chance, atShare * wearLife, 'planned'],
      [1 - chance, wearLife, 'worn'],
    ] as const) {
      const lives = Math.exp(-rate * end)
      const early = (share * (1 - lives)) / POINTS
      cycle.used += (share * (rate > 0 ? (1 - lives) / rate : end)) / POINTS
      cycle.chance += rate > 0 ? (early * life.rate) / rate : 0
      cycle.planned += rate > 0 ? (early * falseRate) / rate : 0
      cycle[is] += (share * lives) / POINTS
    }
  }
  // Minutes of measuring count as so many looks.
  return rateOf(cycle, costs, (readMin * cycle.used) / costs.lookMin)
}

/**
 * What a part of this age is worth less than a new one, by the best rule (age T, cost rate g): V(x) = [c_p S(T) + c_f P(worn) + c_a P(chance) − g ∫ₓᵀS] / S(x),
 * V(0) = 0. At an opportunity change it when that costs less than V(x). Beyond T it is due: c_p.
 * Source: Barlow & Proschan 1965; renewal reward.
 */
export function valueLost(
  life: WearAndChance,
  costs: RuleCosts,
  at: { age: number; T: number | null; rate: number },
): number {
  const { age, T, rate } = at
  if (T !== null && age >= T) return totalOf(costs.planned)
  const ahead = aheadOf(life, age, T === null ? null : T - age)
  return (
    ahead.planned * totalOf(costs.planned) +
    ahead.worn * totalOf(costs.worn) +
    ahead.chance * totalOf(costs.chance) -
    rate * ahead.used
  )
}

/** What becomes of a part of this age over so much more use (null: until it goes): ∫S by Simpson's rule, by chance r∫S, the rest is wear's. */
export function aheadOf(
  life: WearAndChance,
  age: number,
  more: number | null,
): { used: number; planned: number; worn: number; chance: number } {
  const until = more ?? FAR * life.scale * Math.max(1, 3 / life.shape)
  const gone = (age / life.scale) ** life.shape
  const left = (u: number) => Math.exp(gone - ((age + u) / life.scale) ** life.shape - life.rate * u)
  const h = until / POINTS
  let sum = 1 + left(until)
  for (let i = 1; i < POINTS; i++) sum += (i % 2 === 1 ? 4 : 2) * left(i * h)
  const used = (sum * h) / 3
  const planned = more === null ? 0 : left(until)
  const chance = Math.min(1 - planned, life.rate * used)
  return { used, planned, chance, worn: Math.max(0, 1 - planned - chance) }
}

/** Age of least mean cost over several beliefs about the life, and where it is within `flat` of that; null ends where never is as good. */
export interface BestRule {
  T: number | null
  cost: number
  costRunToFailure: number
  flat: [number, number | null] | null
}
const GRID = 48
const FLAT = 0.05
export function bestRule(lives: readonly WearAndChance[], costs: RuleCosts): BestRule {
  if (lives.length === 0) throw new RangeError('bestRule: expected at least one belief')
  const mean = (T: number | null) => lives.reduce((sum, l) => sum + costOfAge(l, costs, T).total, 0) / lives.length
  const never = mean(null)
  const scale = middleScale(lives)
  const ages = Array.from({ length: GRID }, (_, i) => scale * 0.04 * 75 ** (i / (GRID - 1)))
  const values = ages.map(mean)
  const least = values.indexOf(Math.min(...values))
  const about = [ages[Math.max(0, least - 1)] ?? scale, ages[Math.min(GRID - 1, least + 1)] ?? scale] as const
  // Flat at its bottom: a thousandth is finer than anybody changes parts.
  const T = lowest(mean, about, 1e-3)
  const cost = mean(T)
  if (!(cost < never) || least === GRID - 1) return { T: null, cost: never, costRunToFailure: never, flat: null }
  const within = ages.filter((_, i) => (values[i] ?? Infinity) <= cost * (1 + FLAT))
  const isOpen = never <= cost * (1 + FLAT)
  return { T, cost, costRunToFailure: never, flat: [Math.min(T, ...within), isOpen ? null : Math.max(T, ...within)] }
}
const middleScale = (lives: readonly WearAndChance[]) =>
  lives.map((l) => l.scale).sort((a, b) => a - b)[Math.floor(lives.length / 2)] ?? 1
