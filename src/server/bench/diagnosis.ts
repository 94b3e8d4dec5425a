import { indexOf } from '@core/diagnose/belief.ts'
import {
  anyOrder,
  byReckoning,
  drawFault,
  drawWorld,
  linerEarly,
  quickFirst,
  race,
  raced,
  type Fault,
  type World,
} from '@core/diagnose/race.ts'
import { planned } from '@core/diagnose/plan.ts'
import { reckon, type Hint } from '@core/diagnose/session.ts'
import { TOUCHED_MEANS } from '@core/diagnose/touched.ts'
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
    const faults = Array.from({ length: stops }, () => drawFault(world, random, { symptom }))
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
  `shipped chances: ${(100 * faster).toFixed(0)} % quicker (wanted: 35), p90 ${p90(shipped.ours).toFixed(0)} against ${p90(shipped.fixed).toFixed(0)}`,
)
const slow = symptoms.flatMap((symptom, n) => {
  const of = (x: readonly number[]) => mean(x.slice(n * STOPS, (n + 1) * STOPS))
  return of(shipped.ours) > of(shipped.fixed) ? [symptom] : []
})
console.log(
  `slower on ${slow.length} of ${symptoms.length} symptoms (wanted: none)${slow.map((s) => `, ${s}`).join('')}`,
)

/** Stops as shops have them, each kind by itself; the engine is told only what a gun's page would tell. */
const world = drawWorld(SHIPPED, makeRandom(1), 0)
const hint = (cause: string, factor: number, isKnown = false): Hint => ({
  ...{ cause, factor, sign: 'reading', because: { how: 'read', what: 'pull' } },
  ...(isKnown ? { isKnown } : {}),
})
const drawn = (symptom: string, twoShare?: number): Fault[] => {
  const random = makeRandom(31)
  return Array.from({ length: Math.max(4, Math.round(STOPS / 4)) }, () =>
    drawFault(world, random, { symptom, twoShare }),
  )
}
/** Seven findings of ten are what it is; the others are true of the gun, and something else is it. */
function withFinding(fault: Fault, n: number): Fault {
  const listed = SHIPPED.symptoms.find((s) => s.key === fault.symptom)?.causes ?? []
  const own = knowledge.causes[fault.causes[0] ?? 0]?.key ?? ''
  const other = listed.find((c) => c !== own) ?? own
  return { ...fault, hints: [hint(n % 10 < 7 ? own : other, 10, true)] }
}
const sized = (fault: Fault): Fault => ({
  ...fault,
  hints: TOUCHED_MEANS.size.flatMap(([factor, causes]) => causes.map((c) => hint(c, factor))),
})
const OF_SIZE = new Set(['tipWrong', 'rollWrong', 'linerWrong', 'sizeMix'])
const isOfSize = ({ causes }: Fault) => causes.some((i) => OF_SIZE.has(knowledge.causes[i]?.key ?? ''))
const all = (twoShare?: number) => symptoms.flatMap((s) => drawn(s, twoShare))
const kinds: [string, Fault[], number][] = [
  ['every symptom alike', all(), 0],
  ['a finding is known', all().map(withFinding), 0],
  [
    'after a change of size',
    ['jerk', 'afterSize', 'curled', 'slips', 'stubs', 'nest']
      .flatMap((s) => drawn(s))
      .filter(isOfSize)
      .map(sized),
    0,
  ],
  ['nests', drawn('nest'), 0],
  ['two faults', all(1), 0],
  ['one answer of ten wrong', all(), 0.1],
]
console.table(
  kinds.map(([what, faults, errShare]) => {
    const ours = raced(world, faults, { order: byReckoning(knowledge), errShare })
    const least = Math.min(
      mean(raced(world, faults, { order: quickFirst(knowledge), errShare }).map((r) => r.minutes)),
      mean(raced(world, faults, { order: linerEarly(knowledge), errShare }).map((r) => r.minutes)),
    )
    const sum = (of: 'vainLooks' | 'wrongFixes' | 'dearEarly') => ours.reduce((n, r) => n + r[of], 0)
    return {
      stops: what,
      n: faults.length,
      'mean min': mean(ours.map((r) => r.minutes)).toFixed(1),
      'fixed order': least.toFixed(1),
      'looks in vain': (sum('vainLooks') / faults.length).toFixed(1),
      'wrong fixes': (sum('wrongFixes') / faults.length).toFixed(2),
      'long fix before its look (wanted: 0)': sum('dearEarly'),
    }
  }),
)

const gains = Array.from({ length: WORLDS }, (_, n) => {
  const made = run(drawWorld(SHIPPED, makeRandom(100 + n), SPREAD), 1000 + n, Math.max(4, Math.round(STOPS / 20)))
  return 1 - mean(made.ours) / mean(made.fixed)
})
const slower = gains.filter((g) => g < 0).length
console.log(
  `${WORLDS} worlds with every chance × e^N(0, ${SPREAD}): ${(100 * mean(gains)).toFixed(0)} % quicker in the mean (wanted: slower in 2 of 200 at most), worst ${(100 * Math.min(...gains)).toFixed(0)} %, slower in ${slower}`,
)

const times: number[] = []
for (const s of SHIPPED.symptoms)
  for (let i = 0; i < 5; i++) {
    const from = performance.now()
    planned(reckon(knowledge, { symptom: s.key, said: [{ type: 'cantTell', key: 'pull' }] }))
    times.push(performance.now() - from)
  }
console.log(
  `next check: p90 ${p90(times).toFixed(1)} ms, longest ${Math.max(...times).toFixed(1)} ms here; a phone a quarter as fast is to take under 50 ms in 95 of 100`,
)
