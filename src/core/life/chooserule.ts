import { drawNormal, makeRandom } from '@core/random/random.ts'
import { ninety } from './fitted.ts'
import { type WearAndChance } from './renewalgrid.ts'
import {
  bestRule,
  costOfAge,
  costOnCondition,
  costOnSigns,
  type BestRule,
  type CostRate,
  type OneChange,
  type RuleCosts,
  type SignsSeen,
} from './rulecost.ts'

/** Schools of when to change a part. */
export type School = 'runToFailure' | 'fixed' | 'onCondition' | 'signs' | 'leastCost'
export interface SchoolLine {
  school: School
  /** Changed, or looked at, each time it has so much use; null: never on purpose. */
  at: number | null
  /** Per unit of use. */
  cost: CostRate
  /** Against run to failure, as a share of it; 9 in 10 hold. */
  saving: { value: number; low: number; high: number }
  /** Chance that it saves anything at all. */
  chanceBetter: number
}
export interface Schools {
  lines: SchoolLine[]
  best: BestRule
  /** The cheapest that is surely enough worth its trouble; run to failure where none is. */
  advised: School
}

/**
 * Less than this is not worth a rule; and it has to be so likely to save anything. Where wear hardly rises with age, a saving rests on the form of the
 * curve: log-normal lives taken for Weibull ones of shape 1.2 turned a foreseen 5 % into a loss of 7 % (bench), so more is wanted there.
 */
const WORTH = { saving: 0.02, chance: 0.8 }
const WEAK_WEAR = { shape: 1.5, saving: 0.08 }

/**
 * The schools side by side in money, over beliefs about the life: each line's cost by the middle belief, its saving with its spread over all. Least
 * cost is the age of least mean cost. Advised is, of those that rest on the shop's own log (on condition rests on a guess of when wear shows; signs until some liners ended that were looked at), the one of least cost that saves at least 2 % (8 % where the shape is under 1.5) and does so in 8 of 10 beliefs.
 */
export function compareSchools(
  life: WearAndChance,
  beliefs: readonly WearAndChance[],
  at: {
    costs: RuleCosts
    standCv?: number
    fixed: number | null
    lookEvery: number | null
    /** What signs did here, and draws of it as far as it is known, one for each belief. */
    signs?: { seen: SignsSeen; drawn: readonly SignsSeen[]; isGuess: boolean } | null
  },
): Schools {
  const { costs } = at
  const drawn = drawnCosts(costs, beliefs.length, at.standCv ?? 0)
  const costsAt = (i: number) => drawn[i] ?? costs
  const best = bestRule(beliefs, costs)
  const never = costOfAge(life, costs, null)
  const neverOf = beliefs.map((b, i) => costOfAge(b, costsAt(i), null))
  type Of = (l: WearAndChance, c: RuleCosts, i: number | null) => CostRate
  const line = (school: School, use: number | null, of: Of): SchoolLine => {
    const cost = of(life, costs, null)
    const saved = beliefs.map((b, i) => savedShare(of(b, costsAt(i), i), neverOf[i] ?? never))
    return {
      ...{ school, at: use, cost },
      saving: { value: savedShare(cost, never), ...ninety(saved) },
      chanceBetter: saved.filter((s) => s > 0).length / saved.length,
    }
  }
  const lines = [
    line('runToFailure', null, (l, c) => costOfAge(l, c, null)),
    ...(at.fixed === null ? [] : [line('fixed', at.fixed, (l, c) => costOfAge(l, c, at.fixed))]),
    ...(at.lookEvery === null
      ? []
      : [line('onCondition', at.lookEvery, (l, c) => costOnCondition(l, c, { every: at.lookEvery ?? 1 }))]),
    ...(at.signs ? [line('signs', null, signsOf(at.signs))] : []),
    ...(best.T === null ? [] : [line('leastCost', best.T, (l, c) => costOfAge(l, c, best.T))]),
  ]
  const guessed: School[] = at.signs?.isGuess === false ? ['onCondition'] : ['onCondition', 'signs']
  const own = lines.filter((l) => !guessed.includes(l.school))
  return { lines, best, advised: advisedOf(own, life) }
}
/** What is saved, as a share of what running to failure costs; of a cost of nothing (no price and no rate known yet) nothing. */
const savedShare = (cost: CostRate, never: CostRate): number => (never.total > 0 ? 1 - cost.total / never.total : 0)
const signsOf =
  ({ seen, drawn }: { seen: SignsSeen; drawn: readonly SignsSeen[] }) =>
  (l: WearAndChance, c: RuleCosts, i: number | null): CostRate =>
    costOnSigns(l, c, (i === null ? null : drawn[i]) ?? seen)

/** What a worn part's standing costs beyond the change is itself known only so far: as many draws of it as there are beliefs. */
function drawnCosts(costs: RuleCosts, n: number, cv: number): RuleCosts[] {
  if (cv <= 0) return []
  const random = makeRandom(SEED)
  const sigma = Math.sqrt(Math.log1p(cv * cv))
  return Array.from({ length: n }, () => {
    const factor = Math.exp(sigma * drawNormal(random) - (sigma * sigma) / 2)
    const late = (c: OneChange): OneChange => {
      const own = Math.min(c.standMin, costs.planned.handsMin)
      const standMin = own + (c.standMin - own) * factor
      const perMin = c.standMin > 0 ? c.standMinor / c.standMin : 0
      return { ...c, standMin, standMinor: standMin * perMin, collateralMinor: c.collateralMinor * factor }
    }
    return { ...costs, worn: late(costs.worn), chance: late(costs.chance) }
  })
}
const SEED = 30_011

function advisedOf(lines: readonly SchoolLine[], { shape }: WearAndChance): School {
  const least = shape < WEAK_WEAR.shape ? WEAK_WEAR.saving : WORTH.saving
  const worth = lines.filter((l) => l.saving.value >= least && l.chanceBetter >= WORTH.chance)
  return [...worth].sort((a, b) => a.cost.total - b.cost.total)[0]?.school ?? 'runToFailure'
}
