/** Work that comes round every few seconds, one round at a time: a round that is late is not begun beside itself. */
export class Rounds {
  private timer: NodeJS.Timeout | null = null
  private current: Promise<void> | null = null

  /** `round` asks now and then whether it is to go on. */
  constructor(
    private readonly of: {
      everyMs: number
      round: (isOn: () => boolean) => Promise<void>
      onProblem: (problem: unknown) => void
    },
  ) {}

  start(): void {
    this.timer ??= setInterval(() => {
      this.current ??= this.of
        .round(() => this.timer !== null)
        .catch(this.of.onProblem)
        .finally(() => (this.current = null))
    }, this.of.everyMs)
    this.timer.unref()
  }

  /** Lets the round that runs come to its end. */
  async stop(): Promise<void> {
    if (this.timer) clearInterval(this.timer)
    this.timer = null
    await this.current
  }
}
