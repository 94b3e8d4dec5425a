import { and, desc, eq, sql } from 'drizzle-orm'
import { type LifeAnswer } from '@contract/life.ts'
import { ledgerEvent } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'

const MOST = 8
/** What was chosen for a kind before, from the ledger: the class's own lines and those for all. */
export async function ruleHistory(
  db: Reader,
  at: { kindKey: string; classKey: string | null },
): Promise<LifeAnswer['history']> {
  const like = `house rule: ${at.kindKey}, %`
  const what = sql<string>`json_unquote(json_extract(${ledgerEvent.body}, '$.fact.what'))`
  const rows = await db
    .select({ what, atMs: ledgerEvent.happenedMs })
    .from(ledgerEvent)
    .where(and(eq(ledgerEvent.kind, 'shopChanged'), sql`${what} like ${like}`))
    .orderBy(desc(ledgerEvent.happenedMs))
    .limit(40)
  const classes = [at.classKey, '*'].flatMap((c) => c ?? [])
  const isHere = (text: string) =>
    at.classKey === null || classes.some((c) => text.startsWith(`house rule: ${at.kindKey}, ${c}`))
  return rows.filter((r) => isHere(r.what)).slice(0, MOST)
}
