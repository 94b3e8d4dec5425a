import { compareSchools } from '@core/life/chooserule.ts'
import { fitLives } from '@core/life/fitted.ts'
import { tradePrior } from '@core/life/guesses.ts'
import { bestRule, type OneChange, type RuleCosts } from '@core/life/rulecost.ts'
import { firstYear, replay, type RaceRule, type RaceShop } from '@core/life/shoprace.ts'
import { makeRandom } from '@core/random/random.ts'

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
