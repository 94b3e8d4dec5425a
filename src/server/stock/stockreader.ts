import { type StockAnswer } from '@contract/stock.ts'
import { sql } from 'drizzle-orm'
import { stockNow } from '@server/db/schema.ts'
import { stockNowAnswer, type StockDeps } from './answer.ts'

const KEPT_MS = 60_000

/**
 * What will be wanted and what to buy, kept for a minute under what it was worked out by: the set-up (counts, deliveries, orders, prices are changes of it)
 * and what lies on the shelves, so that whoever noted something sees it at once.
 */
export class StockReader {
  private readonly kept = new Map<string, { untilMs: number; revision: string; answer: Promise<StockAnswer> }>()
  constructor(private readonly deps: StockDeps) {}

  forget(): void {
    this.kept.clear()
  }

  async read(until: string | undefined): Promise<StockAnswer> {
    const [key, nowMs] = [until ?? '', this.deps.now()]
    const revision = await this.revision()
    const known = this.kept.get(key)
    if (known && known.revision === revision && nowMs < known.untilMs) return known.answer
    const answer = stockNowAnswer(this.deps, until)
    // Other days were asked for once and are not asked for again.
    if (this.kept.size > MOST) this.kept.clear()
    this.kept.set(key, { untilMs: nowMs + KEPT_MS, revision, answer })
    answer.catch(() => this.kept.delete(key))
    return answer
  }

  private async revision(): Promise<string> {
    const { db, shops } = this.deps
    const [{ revision }, [lies]] = await Promise.all([
      shops.tables(db),
      db.select({ n: sql<string>`concat(count(*), ' ', coalesce(sum(${stockNow.onHand}), 0))` }).from(stockNow),
    ])
    return `${revision} ${lies?.n}`
  }
}
const MOST = 8
