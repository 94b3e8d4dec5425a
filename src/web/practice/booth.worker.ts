import { indexOf, type Index } from '@core/diagnose/belief.ts'
import { SHIPPED } from '@core/diagnose/shipped/knowledge.ts'
import { runBead } from '@core/practice/bead.ts'
import { gasTrace } from '@core/practice/gas.ts'
import { debriefOf } from '@core/practice/debrief.ts'
import { drawScenario, faultsFor, played, rigOf } from '@core/practice/drill.ts'
import { actOf, stepsFor } from '@core/practice/engine.ts'
import { metersOf } from '@core/practice/meters.ts'
import { beadPicture } from '@core/practice/picture.ts'
import { soundRig } from '@core/practice/rig.ts'
import { dailyScenario } from '@core/practice/setups.ts'
import { signsOf } from '@core/practice/signs.ts'
import { nextFault } from '@core/practice/skill.ts'
import { captionsOf, soundOf } from '@core/practice/sound.ts'
import { makeRandom } from '@core/random/random.ts'
import {
  type Bead,
  type BoothAnswered,
  type BoothAnswers,
  type BoothAsk,
  type BoothAsked,
  type BoothAsks,
} from './boothasked.ts'

let knowledge: Index = indexOf(SHIPPED)

const DOES: { [K in BoothAsk]: (of: BoothAsks[K]) => BoothAnswers[K] } = {
  know: (of) => {
    knowledge = indexOf(of.knowledge)
    return true
  },
  draw: ({ setup, seed, among, attempts, ...how }) => {
    const random = makeRandom(seed)
    const next = attempts ? nextFault(faultsFor(knowledge, setup), attempts, random) : null
    return drawScenario(knowledge, setup, { random, ...how, ...(among ? { among } : next ? { among: [next] } : {}) })
  },
  daily: ({ day }) => dailyScenario(knowledge, day),
  bead: ({ scenario, left, n }): Bead => {
    const rig = rigOf({ setup: scenario.setup, left })
    const seed = scenario.seed + n
    const run = runBead(rig, { seed })
    const at = { rig, setup: scenario.setup, seed }
    return {
      ...{
        wave: soundOf(run, rig),
        trace: run.trace,
        gas: gasTrace(rig, run.trace.volts.length),
        captions: captionsOf(run, rig),
      },
      ...{ picture: beadPicture(run, at), signs: signsOf(run, at), mark: rig.mark },
    }
  },
  meters: ({ scenario, left, check }) =>
    metersOf(check, { rig: rigOf({ setup: scenario.setup, left }), sound: soundRig(scenario.setup) }),
  hint: ({ scenario, acts }) => {
    const [next] = stepsFor(knowledge, scenario, played(knowledge, scenario, acts))
    return next ? actOf(next) : null
  },
  debrief: ({ scenario, acts }) => debriefOf(knowledge, scenario, acts),
}
const does = <K extends BoothAsk>(ask: K, of: BoothAsks[K]): BoothAnswers[K] => DOES[ask](of)

self.onmessage = ({ data }: MessageEvent<BoothAsked>) => {
  const answer = does(data.ask, data.of)
  self.postMessage({ id: data.id, answer } satisfies BoothAnswered)
}
