import { type StationId } from '@core/ids/id.ts'
import { gte } from 'drizzle-orm'
import { ledgerEvent } from '@server/db/schema.ts'
import { type Db } from '@server/db/db.ts'

/**
 * Tells browsers which stations changed, whichever server wrote it.
 *
 *   idle ──first listener──> polling ──last listener leaves──> idle
 *
 * 1. Nothing rests on one ever-growing id: lines are read by the time they were logged, from a while before the newest seen,
 *    so that a transaction that commits late (or a clock that runs behind) is still read.
 * 2. A line is told once per server: ids seen within the overlap are remembered.
 */
const EVERY_MS = 700
const OVERLAP_MS = 30_000

/** Which places; `*`: the shop itself. */
export type Listener = (placesOrAll: (StationId | '*')[]) => void

export class Changes {
  private readonly listeners = new Set<Listener>()
  private readonly seen = new Map<string, number>()
  private fromMs: number
  private timer: NodeJS.Timeout | null = null
  private isReading = false

  constructor(
    private readonly db: Db,
    private readonly now: () => number,
    private readonly onProblem: (problem: unknown) => void,
  ) {
    this.fromMs = now()
  }

  /** How many wait to be told. */
  count = (): number => this.listeners.size

  listen(listener: Listener): () => void {
    if (this.listeners.size === 0) this.begin()
    this.listeners.add(listener)
    return () => {
      this.listeners.delete(listener)
      if (this.listeners.size === 0) this.stop()
    }
  }

  private begin(): void {
    this.fromMs = this.now()
    this.timer = setInterval(() => void this.poll(), EVERY_MS)
    this.timer.unref()
  }

  stop(): void {
    if (this.timer) clearInterval(this.timer)
    this.timer = null
  }

  async poll(): Promise<void> {
    if (this.isReading) return
    this.isReading = true
    try {
      const nowMs = this.now()
      // A clock that was set back: what is logged from now on lies before the newest seen.
      if (nowMs < this.fromMs) this.fromMs = nowMs
      const since = this.fromMs - OVERLAP_MS
      const rows = await this.db
        .select({ id: ledgerEvent.id, stationId: ledgerEvent.stationId, loggedMs: ledgerEvent.loggedMs })
        .from(ledgerEvent)
        .where(gte(ledgerEvent.loggedMs, since))
      const fresh = rows.filter((row) => !this.seen.has(row.id) && row.loggedMs >= since)
      for (const row of rows) this.seen.set(row.id, row.loggedMs)
      this.fromMs = Math.min(nowMs, Math.max(this.fromMs, ...rows.map((r) => r.loggedMs)))
      for (const [id, loggedMs] of this.seen) if (loggedMs < this.fromMs - OVERLAP_MS) this.seen.delete(id)
      if (fresh.length > 0) this.tell([...new Set(fresh.map((row) => row.stationId ?? '*'))])
    } catch (problem) {
      this.onProblem(problem)
    } finally {
      this.isReading = false
    }
  }

  private tell(placesOrAll: (StationId | '*')[]): void {
    for (const listener of this.listeners) listener(placesOrAll)
  }
}
