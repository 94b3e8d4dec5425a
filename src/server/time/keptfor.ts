/** What is worked out once and kept for a while by each server. Two who ask at once wait for the same work; what failed is not kept. */
export class KeptFor<T> {
  private kept: { untilMs: number; made: Promise<T> } | null = null
  constructor(private readonly keptMs: number) {}

  read(nowMs: number, make: () => Promise<T>): Promise<T> {
    if (this.kept && nowMs < this.kept.untilMs) return this.kept.made
    const kept = { untilMs: nowMs + this.keptMs, made: make() }
    this.kept = kept
    kept.made.catch(() => {
      if (this.kept === kept) this.forget()
    })
    return kept.made
  }
  /** The next who asks has it worked out anew. */
  forget(): void {
    this.kept = null
  }
}
