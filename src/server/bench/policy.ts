import { compareSchools } from '@core/life/chooserule.ts'
import { fitLives } from '@core/life/fitted.ts'
import { tradePrior } from '@core/life/guesses.ts'
import { bestRule, type OneChange, type RuleCosts } from '@core/life/rulecost.ts'
import { firstYear, replay, type RaceRule, type RaceShop } from '@core/life/shoprace.ts'
import { makeRandom } from '@core/random/random.ts'
import { ODD_KINDS, type OddKind } from './oddworlds.ts'

/** Six months in made-up shops: run to failure, every Friday, the rule this program chose from an imperfect first year, and the one that knows the truth. */
const WORLDS = Number(process.env['BENCH_WORLDS'] ?? 120)
const REPLAYS = 4

const change = (partMinor: number, standMinor = 0): OneChange => ({
  ...{ partMinor, standMinor, handsMin: 1, handsMinor: 40, standMin: standMinor / 100, collateralMinor: 0 },
})
interface World {
  shop: RaceShop
  costs: RuleCosts
  ratio: number
}
function drawShop(seed: number): World {
  const random = makeRandom(seed)
  const between = (a: number, b: number) => a + (b - a) * random()
  const shape = between(1, 4)
  const scale = between(3, 30)
  const ratio = between(1.5, 14)
  const planned = change(60)
  const extra = 100 * (ratio - 1)
  return {
    ratio,
    costs: {
      planned,
      worn: change(60, extra),
      chance: change(60, extra * between(0.6, 1.2)),
      lookMin: 0.3,
      lookMinor: 12,
    },
    shop: {
      life: { shape, scale, rate: between(0.02, 0.25) / scale },
      guns: Math.round(between(6, 60)),
      perDay: between(1.5, 6),
      logShare: between(0.4, 1),
      lateShare: between(0, 0.6),
      notSaidShare: between(0, 0.3),
    },
  }
}

interface Outcome extends World {
  chosen: number
  saved: { ours: number; friday: number; best: number }
  share: number
}
function play(seed: number): Outcome {
  const world = drawShop(seed)
  const { shop, costs } = world
  const { gaps, share } = firstYear(shop, makeRandom(seed + 1))
  const fit = fitLives(gaps, tradePrior('tip', 'arcHours'))
  const schools = fit.ok ? compareSchools(fit.life, fit.beliefs, { costs, fixed: null, lookEvery: null }) : null
  const T = schools && schools.advised === 'leastCost' ? schools.best.T : null
  const truth = bestRule([shop.life], costs).T
  const money = (rule: RaceRule) => {
    let sum = 0
    for (let i = 0; i < REPLAYS; i++) sum += replay(shop, costs, { rule, random: makeRandom(seed + 7 + i) })
    return sum / REPLAYS
  }
  const ruleOf = (at: number | null): RaceRule => (at === null ? { kind: 'never' } : { kind: 'age', at })
  const never = money({ kind: 'never' })
  const saved = (rule: RaceRule) => 1 - money(rule) / never
  return {
    ...world,
    chosen: T ?? Infinity,
    share: share.value,
    saved: { ours: saved(ruleOf(T)), friday: saved({ kind: 'fridays' }), best: saved(ruleOf(truth)) },
  }
}

const outcomes = Array.from({ length: WORLDS }, (_, n) => play(5000 + 31 * n))
const mean = (x: readonly number[]) => x.reduce((a, b) => a + b, 0) / Math.max(1, x.length)
const percent = (x: number) => `${(100 * x).toFixed(1)} %`
const bands: readonly (readonly [string, (o: Outcome) => boolean])[] = [
  ['all', () => true],
  ['shape ≥ 2 and ratio ≥ 5', (o) => o.shop.life.shape >= 2 && o.ratio >= 5],
  ['of these, 0.4–0.6 logged', (o) => o.shop.life.shape >= 2 && o.ratio >= 5 && o.shop.logShare < 0.6],
  ['others', (o) => o.shop.life.shape < 2 || o.ratio < 5],
]
console.table(
  bands.map(([shops, is]) => {
    const some = outcomes.filter(is)
    return {
      shops,
      n: some.length,
      'rule chosen': percent(mean(some.map((o) => o.saved.ours))),
      'every Friday': percent(mean(some.map((o) => o.saved.friday))),
      'true parameters': percent(mean(some.map((o) => o.saved.best))),
      worst: percent(Math.min(...some.map((o) => o.saved.ours))),
    }
  }),
)
const needed = (o: Outcome) => Math.min(0.15, 0.8 * o.saved.best)
const short = outcomes.filter((o) => o.shop.life.shape >= 2 && o.ratio >= 5 && o.saved.ours < needed(o))
const dear = outcomes.filter((o) => o.saved.ours < -0.03)
const told = (o: Outcome) =>
  `shape ${o.shop.life.shape.toFixed(1)}, ratio ${o.ratio.toFixed(1)}, ${o.shop.guns} guns, logged ${o.shop.logShare.toFixed(2)} (taken for ${o.share.toFixed(2)}): saved ${percent(o.saved.ours)}, the truth ${percent(o.saved.best)}, at ${o.chosen.toFixed(1)} of ${o.shop.life.scale.toFixed(1)}`
console.log(`too little saved where required: ${short.length}; more than 3 % dearer anywhere: ${dear.length}`)
;[...short, ...dear].slice(0, 12).forEach((o) => console.log(`  ${told(o)}`))
if (short.length + dear.length > 0) process.exitCode = 1

/** Shops of each odd kind, and half years over which the best age is looked for by what is true. */
const ODD_SHOPS = Number(process.env['BENCH_ODD'] ?? 40)
const TRIED_REPLAYS = 6
const TRIED_AGES = 14
/** Worth a rule at all: the best age saves a tenth over running to failure. */
const WORTH = 0.1
/** Of the possible as much as this is wanted where it is worth it, and never more than so much dearer than running to failure. */
const WANTED = { share: 0.7, dearer: 0.05 }

interface OddOutcome {
  possible: number
  ours: number
}
function playOdd(kind: OddKind, seed: number): OddOutcome {
  const world = drawShop(seed)
  const { life, perDay, logShare } = world.shop
  const shop = { ...world.shop, odd: kind.draw({ ...life, perDay, logShare }, seed + 3) }
  const { gaps } = firstYear(shop, makeRandom(seed + 1))
  const fit = fitLives(gaps, tradePrior('tip', 'arcHours'))
  const schools = fit.ok
    ? compareSchools(fit.life, fit.beliefs, { costs: world.costs, fixed: null, lookEvery: null })
    : null
  const T = schools && schools.advised === 'leastCost' ? schools.best.T : null
  const money = (at: number | null) => {
    let sum = 0
    for (let i = 0; i < TRIED_REPLAYS; i++)
      sum += replay(shop, world.costs, {
        rule: at === null ? { kind: 'never' } : { kind: 'age', at },
        random: makeRandom(seed + 70 + i),
      })
    return sum / TRIED_REPLAYS
  }
  const never = money(null)
  const ages = Array.from({ length: TRIED_AGES }, (_, i) => life.scale * 0.15 * 1.2 ** i)
  const best = Math.min(never, ...ages.map(money))
  return { possible: 1 - best / never, ours: 1 - money(T) / never }
}

const oddRows = ODD_KINDS.map((kind) => {
  const all = Array.from({ length: ODD_SHOPS }, (_, n) => playOdd(kind, 9000 + 37 * n))
  const worth = all.filter((o) => o.possible >= WORTH)
  const share = mean(worth.map((o) => o.ours)) / Math.max(1e-9, mean(worth.map((o) => o.possible)))
  return {
    name: kind.name,
    worth: worth.length,
    possible: mean(worth.map((o) => o.possible)),
    share,
    worst: Math.min(...all.map((o) => o.ours)),
  }
})
console.table(
  oddRows.map((r) => ({
    world: r.name,
    'worth a rule': `${r.worth} of ${ODD_SHOPS}`,
    possible: percent(r.possible),
    'of it saved': percent(r.share),
    worst: percent(r.worst),
  })),
)
const failed = oddRows.filter((r) => r.share < WANTED.share || r.worst < -WANTED.dearer)
console.log(
  `worlds not as assumed: ${failed.length === 0 ? 'all met' : `missed in ${failed.map((r) => r.name).join('; ')}`}`,
)
if (failed.length > 0) process.exitCode = 1
