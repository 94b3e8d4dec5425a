import { HOUR_MS } from '@core/units/time.ts'
import { Rounds } from '@server/time/rounds.ts'
import { settle, sweepRows, type SettleDeps } from './settle.ts'
import { thinRows } from './thin.ts'

const EVERY_MS = 4_000
const SWEEP_EVERY_MS = HOUR_MS
/** Of this process's time counting may take so much, and thinning and sweeping as much again: what sends and what asks come first. */
const SHARE = 0.1

/** Counts clocks of feeders that sent something, every few seconds, one round at a time; thins what is past, and sweeps old rows once an hour until there are none. */
export function settler(deps: SettleDeps, onProblem: (problem: unknown) => void): Rounds {
  let sweptMs = 0
  return new Rounds({
    everyMs: EVERY_MS,
    onProblem,
    round: async (isOn) => {
      // Each has its turn: where feeders send all the time there is always something to count.
      await whileMore(awhile(isOn), async () => (await settle(deps)) > 0)
      const isDue = awhile(isOn)
      await whileMore(isDue, () => thinRows(deps))
      if (deps.now() - sweptMs > SWEEP_EVERY_MS && !(await whileMore(isDue, () => sweepRows(deps))))
        sweptMs = deps.now()
    },
  })
}

/** So long clocks are counted, and so long rows thinned and swept, before the other has its turn. */
const TURN_MS = 20_000
function awhile(isOn: () => boolean): () => boolean {
  const endMs = performance.now() + TURN_MS
  return () => isOn() && performance.now() < endMs
}

/** Goes on while there is more, with breaks that leave the rest of the time to others; answers whether some is left. */
async function whileMore(isOn: () => boolean, step: () => Promise<boolean>): Promise<boolean> {
  let isMore = true
  while (isMore && isOn()) {
    const startMs = performance.now()
    isMore = await step()
    if (isMore) await new Promise((done) => setTimeout(done, (1 / SHARE - 1) * (performance.now() - startMs)))
  }
  return isMore
}
