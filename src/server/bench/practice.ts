import { indexOf } from '@core/diagnose/belief.ts'
import { SHIPPED } from '@core/diagnose/shipped/knowledge.ts'
import { BEAD_S, runBead } from '@core/practice/bead.ts'
import { debriefOf } from '@core/practice/debrief.ts'
import { drawScenario, rigOf, type Scenario } from '@core/practice/drill.ts'
import { bestPlay } from '@core/practice/engine.ts'
import { USUAL_BOOTHS } from '@core/practice/setups.ts'
import { captionsOf, soundOf } from '@core/practice/sound.ts'
import { makeRandom } from '@core/random/random.ts'

/** How fast the practice booth computes on one core: beads over real time, the first sound, a drill drawn and gone over again. */
const REAL_TIME = 50
const FIRST_SOUND_MS = 150
const DRILLS = Number(process.env['BENCH_WORLDS'] ?? 60)

const ms = (work: () => void): number => {
  const began = performance.now()
  work()
  return performance.now() - began
}
const p95 = (list: readonly number[]) => [...list].sort((a, b) => a - b)[Math.floor(0.95 * list.length)] ?? 0

function main(): void {
  const knowledge = indexOf(SHIPPED)
  const random = makeRandom(77)
  const drills: Scenario[] = []
  const draws: number[] = []
  for (let n = 0; n < DRILLS; n++) {
    const setup = USUAL_BOOTHS[n % USUAL_BOOTHS.length]
    draws.push(
      ms(() => {
        const scenario = setup ? drawScenario(knowledge, setup, { random }) : null
        if (scenario) drills.push(scenario)
      }),
    )
  }
  const beads = drills.map((s) => {
    const rig = rigOf({ setup: s.setup, left: s.faults })
    return ms(() => void runBead(rig, { seed: s.seed }))
  })
  const sounds = drills.map((s) => {
    const rig = rigOf({ setup: s.setup, left: s.faults })
    return ms(() => {
      const run = runBead(rig, { seed: s.seed })
      soundOf(run, rig)
      captionsOf(run, rig)
    })
  })
  const debriefs = drills.map((s) =>
    ms(
      () =>
        void debriefOf(
          knowledge,
          s,
          bestPlay(knowledge, s).steps.map((x) => x.act),
        ),
    ),
  )
  const times = (1000 * BEAD_S * beads.length) / beads.reduce((a, b) => a + b, 0)
  console.log(`${drills.length} drills. Beads at ${times.toFixed(0)} times real time (at least ${REAL_TIME}).`)
  console.log(`From the trigger to its sound: p95 ${p95(sounds).toFixed(0)} ms (at most ${FIRST_SOUND_MS}).`)
  console.log(`A drill drawn: p95 ${p95(draws).toFixed(0)} ms; gone over again: p95 ${p95(debriefs).toFixed(0)} ms.`)
  process.exitCode = times >= REAL_TIME && p95(sounds) <= FIRST_SOUND_MS ? 0 : 1
}
main()
