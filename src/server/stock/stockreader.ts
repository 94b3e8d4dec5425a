import { type StockAnswer } from '@contract/stock.ts'
import { sql } from 'drizzle-orm'
import { stockNow } from '@server/db/schema.ts'
import { stockNowAnswer, type StockDeps } from './answer.ts'

const KEPT_MS = 60_000
/** In a shop where it takes long, a tip that went on somewhere does not have it worked out anew at once: the thread would do nothing else. */
const [LONG_MS, SHELF_MS] = [400, 15_000]

/**
 * What will be wanted and what to buy, kept for a minute under what it was worked out by: the set-up (counts, deliveries, orders, prices are changes of it),
 * so that whoever noted one sees it at once, and what lies on the shelves: in a large shop within a quarter of a minute.
 */
export class StockReader {
  private readonly kept = new Map<string, Kept>()
  constructor(private readonly deps: StockDeps) {}

  forget(): void {
    this.kept.clear()
  }

  async read(until: string | undefined): Promise<StockAnswer> {
    const [key, nowMs] = [until ?? '', this.deps.now()]
    const { setUp, lies } = await this.revision()
    const known = this.kept.get(key)
    const isShelf = known && (known.lies === lies || (known.tookMs > LONG_MS && nowMs < known.madeMs + SHELF_MS))
    if (known && isShelf && known.setUp === setUp && nowMs < known.madeMs + KEPT_MS) return known.answer
    const fromMs = performance.now()
    const answer = stockNowAnswer(this.deps, until)
    // Other days were asked for once and are not asked for again.
    if (this.kept.size > MOST) this.kept.clear()
    const kept: Kept = { madeMs: nowMs, tookMs: 0, setUp, lies, answer }
    this.kept.set(key, kept)
    answer.then(() => (kept.tookMs = performance.now() - fromMs)).catch(() => this.kept.delete(key))
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
