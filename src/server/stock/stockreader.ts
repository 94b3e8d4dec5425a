import { type StockAnswer } from '@contract/stock.ts'
import { sql } from 'drizzle-orm'
import { stockNow } from '@server/db/schema.ts'
import { stockNowAnswer, type StockDeps } from './answer.ts'

const KEPT_MS = 60_000
/** In a shop where it takes long nobody waits for the next one: what was worked out so long ago at most is shown while it is made. */
const [LONG_MS, BEHIND_MS] = [400, 10 * 60_000]

/**
 * What will be wanted and what to buy, kept under what it was worked out by: the set-up (counts, deliveries, orders, prices are changes of it) and what
 * lies on the shelves.
 * 1. Whoever noted a change of the set-up sees it at once.
 * 2. A tip that went on somewhere, or a minute that went by, has it worked out anew; where that takes long, behind the answer that is kept.
 * 3. One at a time: who asks meanwhile gets the one that is being made, or the one before.
 */
export class StockReader {
  private readonly kept = new Map<string, Kept>()
  private readonly making = new Map<string, Promise<unknown>>()
  constructor(
    private readonly deps: StockDeps,
    /** A test has its own work, and says how long it took. */
    private readonly how: {
      work: (until: string | undefined) => Promise<StockAnswer>
      timer: () => number
    } = { work: (until) => stockNowAnswer(deps, until), timer: () => performance.now() },
  ) {}

  forget(): void {
    this.kept.clear()
  }

  async read(until: string | undefined): Promise<StockAnswer> {
    const [key, nowMs] = [until ?? '', this.deps.now()]
    const { setUp, lies } = await this.revision()
    const known = this.kept.get(key)
    if (!known || known.setUp !== setUp) return this.make(key, { setUp, lies })
    if (known.lies === lies && nowMs < known.madeMs + KEPT_MS) return known.answer
    if (!(known.tookMs > LONG_MS && nowMs < known.madeMs + BEHIND_MS)) return this.make(key, { setUp, lies })
    if (!this.making.has(key)) {
      // What went wrong behind is told to whoever asks when nothing is kept any more.
      const next = this.make(key, { setUp, lies }, known).catch(() => undefined)
      this.making.set(key, next)
      void next.finally(() => this.making.delete(key))
    }
    return known.answer
  }

  /** Worked out now; with one that stands meanwhile, it is put in its place only when it is there. */
  private async make(key: string, by: Pick<Kept, 'setUp' | 'lies'>, meanwhile?: Kept): Promise<StockAnswer> {
    const fromMs = this.how.timer()
    const answer = this.how.work(key || undefined)
    // Other days were asked for once and are not asked for again.
    if (this.kept.size > MOST) this.kept.clear()
    const kept: Kept = { ...by, madeMs: this.deps.now(), tookMs: 0, answer }
    if (!meanwhile) this.kept.set(key, kept)
    try {
      await answer
      kept.tookMs = this.how.timer() - fromMs
      const now = this.kept.get(key)
      if (meanwhile && now === meanwhile) this.kept.set(key, kept)
    } catch (problem) {
      if (this.kept.get(key) === kept) this.kept.delete(key)
      throw problem
    }
    return answer
  }

  private async revision(): Promise<Pick<Kept, 'setUp' | 'lies'>> {
    const { db, shops } = this.deps
    const [{ revision }, [lies]] = await Promise.all([
      shops.tables(db),
      db.select({ n: sql<string>`concat(count(*), ' ', coalesce(sum(${stockNow.onHand}), 0))` }).from(stockNow),
    ])
    // A shop whose set-up was never changed is read anew each time.
    return { setUp: revision ?? NaN, lies: lies?.n ?? '' }
  }
}
const MOST = 8
interface Kept {
  madeMs: number
  tookMs: number
  setUp: number
  lies: string
  answer: Promise<StockAnswer>
}
