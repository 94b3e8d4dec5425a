import { makeRandom } from '@core/random/random.ts'
import { type DragSetup, type Guesses } from '@core/drag/setup.ts'
import { sensitivities, spreadOf, type Sensitivity, type Spread } from '@core/drag/sweep.ts'

export interface SweepAsk {
  id: number
  setup: DragSetup
  spans: Guesses
}
export interface SweepAnswer {
  id: number
  spread: Spread
  order: Sensitivity[]
}
const DRAWS = 2000
const SEED = 17

/** Two thousand guns that the guesses allow, away from the page that is being dragged. */
self.onmessage = ({ data }: MessageEvent<SweepAsk>) => {
  const { id, setup, spans } = data
  const spread = spreadOf(setup, spans, { draws: DRAWS, random: makeRandom(SEED) })
  self.postMessage({ id, spread, order: sensitivities(setup, spans) } satisfies SweepAnswer)
}
