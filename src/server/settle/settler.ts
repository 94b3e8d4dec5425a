import { HOUR_MS } from '@core/units/time.ts'
import { settle, sweepRows, type SettleDeps } from './settle.ts'

const EVERY_MS = 4_000
const SWEEP_EVERY_MS = HOUR_MS

/** Counts clocks of feeders that sent something, every few seconds, one round at a time; sweeps old rows once an hour. */
export class Settler {
  private timer: NodeJS.Timeout | null = null
  private current: Promise<void> | null = null
  private sweptMs = 0

  constructor(
    private readonly deps: SettleDeps,
    private readonly onProblem: (problem: unknown) => void,
  ) {}

  start(): void {
    this.timer ??= setInterval(() => {
      this.current ??= this.round().finally(() => (this.current = null))
    }, EVERY_MS)
    this.timer.unref()
  }

  /** Lets the round that runs come to its end. */
  async stop(): Promise<void> {
    if (this.timer) clearInterval(this.timer)
    this.timer = null
    await this.current
  }

  private async round(): Promise<void> {
    try {
      for (let isMore = true; isMore && this.timer;) {
        const startMs = performance.now()
        isMore = (await settle(this.deps)) > 0
        // Counting may take a tenth of this process's time: what sends and what asks come first.
        if (isMore) await new Promise((done) => setTimeout(done, 9 * (performance.now() - startMs)))
      }
      if (this.deps.now() - this.sweptMs > SWEEP_EVERY_MS) {
        await sweepRows(this.deps)
        this.sweptMs = this.deps.now()
      }
    } catch (problem) {
      this.onProblem(problem)
    }
  }
}
