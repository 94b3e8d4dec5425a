import { HOUR_MS } from '@core/units/time.ts'
import { Rounds } from '@server/time/rounds.ts'
import { settle, sweepRows, type SettleDeps } from './settle.ts'

const EVERY_MS = 4_000
const SWEEP_EVERY_MS = HOUR_MS

/** Counts clocks of feeders that sent something, every few seconds, one round at a time; sweeps old rows once an hour. */
export function settler(deps: SettleDeps, onProblem: (problem: unknown) => void): Rounds {
  let sweptMs = 0
  return new Rounds({
    everyMs: EVERY_MS,
    onProblem,
    round: async (isOn) => {
      for (let isMore = true; isMore && isOn();) {
        const startMs = performance.now()
        isMore = (await settle(deps)) > 0
        // Counting may take a tenth of this process's time: what sends and what asks come first.
        if (isMore) await new Promise((done) => setTimeout(done, 9 * (performance.now() - startMs)))
      }
      if (deps.now() - sweptMs <= SWEEP_EVERY_MS) return
      await sweepRows(deps)
      sweptMs = deps.now()
    },
  })
}
