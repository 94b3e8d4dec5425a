import { indexOf } from '@core/diagnose/belief.ts'
import {
  anyOrder,
  byReckoning,
  drawFault,
  drawWorld,
  linerEarly,
  quickFirst,
  race,
  type World,
} from '@core/diagnose/race.ts'
import { planned } from '@core/diagnose/plan.ts'
import { reckon } from '@core/diagnose/session.ts'
import { SHIPPED } from '@core/diagnose/shipped/knowledge.ts'
import { makeRandom } from '@core/random/random.ts'

/** Minutes to fix on made-up stops: what listens to each answer against orders that do not; on the shipped chances, and where they are off. */
const STOPS = Number(process.env['BENCH_STOPS'] ?? 100)
const WORLDS = Number(process.env['BENCH_WORLDS'] ?? 200)
const SPREAD = 0.7

const knowledge = indexOf(SHIPPED)
const symptoms = SHIPPED.symptoms.filter((s) => s.causes.length >= 3).map((s) => s.key)
const mean = (x: readonly number[]) => x.reduce((a, b) => a + b, 0) / x.length
const p90 = (x: readonly number[]) => [...x].sort((a, b) => a - b)[Math.floor(x.length * 0.9)] ?? NaN

/** Every symptom as often as the next; the better of the two fixed orders is chosen for each symptom. */
function run(world: World, seed: number, stops: number) {
  const random = makeRandom(seed)
  const minutes = { ours: [] as number[], fixed: [] as number[], random: [] as number[] }
  for (const symptom of symptoms) {
    const faults = Array.from({ length: stops }, () => drawFault(world, random, symptom))
    minutes.ours.push(...race(world, faults, byReckoning(knowledge)))
    const quick = race(world, faults, quickFirst(knowledge))
    const liner = race(world, faults, linerEarly(knowledge))
    minutes.fixed.push(...(mean(quick) <= mean(liner) ? quick : liner))
    minutes.random.push(...race(world, faults, anyOrder(knowledge, makeRandom(seed + 1))))
  }
  return minutes
}

const shipped = run(drawWorld(SHIPPED, makeRandom(1), 0), 2, STOPS)
console.table(
  Object.entries(shipped).map(([order, x]) => ({
    order: { ours: 'what is known after each answer', fixed: 'the better fixed order', random: 'any order' }[order],
    'mean min': mean(x).toFixed(1),
    'p90 min': p90(x).toFixed(0),
  })),
)
const faster = 1 - mean(shipped.ours) / mean(shipped.fixed)
console.log(
  `shipped chances: ${(100 * faster).toFixed(0)} % quicker (wanted: 20), p90 ${p90(shipped.ours).toFixed(0)} against ${p90(shipped.fixed).toFixed(0)}`,
)

const gains = Array.from({ length: WORLDS }, (_, n) => {
  const made = run(drawWorld(SHIPPED, makeRandom(100 + n), SPREAD), 1000 + n, Math.max(4, Math.round(STOPS / 20)))
  return 1 - mean(made.ours) / mean(made.fixed)
})
const slower = gains.filter((g) => g < 0).length
console.log(
  `${WORLDS} worlds with every chance × e^N(0, ${SPREAD}): ${(100 * mean(gains)).toFixed(0)} % quicker in the mean (wanted: not slower), worst ${(100 * Math.min(...gains)).toFixed(0)} %, slower in ${slower}`,
)

const times: number[] = []
for (const s of SHIPPED.symptoms)
  for (let i = 0; i < 5; i++) {
    const from = performance.now()
    planned(reckon(knowledge, { symptom: s.key, said: [{ type: 'cantTell', key: 'pull' }] }))
    times.push(performance.now() - from)
  }
console.log(
  `next check: p90 ${p90(times).toFixed(1)} ms, longest ${Math.max(...times).toFixed(1)} ms here; a phone a quarter as fast is to take under 20 ms`,
)
