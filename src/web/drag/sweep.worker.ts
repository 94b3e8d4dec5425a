import { makeRandom } from '@core/random/random.ts'
import { sensitivities, spreadOf } from '@core/drag/sweep.ts'
import { type SweepAnswer, type SweepAsk } from './sweepasked.ts'

const DRAWS = 2000
const SEED = 17

/** Two thousand guns that the guesses allow, away from the page that is being dragged. */
self.onmessage = ({ data }: MessageEvent<SweepAsk>) => {
  const { id, setup, spans } = data
  const spread = spreadOf(setup, spans, { draws: DRAWS, random: makeRandom(SEED) })
  self.postMessage({ id, spread, order: sensitivities(setup, spans) } satisfies SweepAnswer)
}
