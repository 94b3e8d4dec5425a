import { isDeepStrictEqual } from 'node:util'
import { count, desc, eq } from 'drizzle-orm'
import { type Knowledge } from '@core/diagnose/knowledge.ts'
import { withNews, type Came } from '@core/diagnose/merge.ts'
import { SHIPPED } from '@core/diagnose/shipped/knowledge.ts'
import { knowledge } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'

export interface KnowledgeNow {
  /** How often it was changed. */
  version: number
  isShipped: boolean
  atMs: number | null
  knowledge: Knowledge
  /** Rows that ship new since the shop changed it last. */
  came: Came
}
const NOTHING_CAME: Came = { symptoms: 0, causes: 0, checks: 0 }
type Held = Pick<KnowledgeNow, 'isShipped' | 'knowledge' | 'came'>
const SHIPS: Held = { isShipped: true, knowledge: SHIPPED, came: NOTHING_CAME }
/** The newest version as it was read last: a row is never changed, and its lists are long. */
let last: { id: string; held: Held } | null = null

/** Why a gun stops, as the shop has it now, with what ships new since. */
export async function knowledgeNow(db: Reader): Promise<KnowledgeNow> {
  const order = [desc(knowledge.atMs), desc(knowledge.id)] as const
  const [[versions], [newest]] = await Promise.all([
    db.select({ n: count() }).from(knowledge),
    db
      .select({ id: knowledge.id, atMs: knowledge.atMs })
      .from(knowledge)
      .orderBy(...order)
      .limit(1),
  ])
  if (!newest) return { version: 0, atMs: null, ...SHIPS }
  if (last?.id !== newest.id) last = { id: newest.id, held: await heldAt(db, newest.id) }
  return { version: versions?.n ?? 0, atMs: newest.atMs, ...last.held }
}

async function heldAt(db: Reader, id: (typeof knowledge.$inferSelect)['id']): Promise<Held> {
  const [row] = await db
    .select({ body: knowledge.body, base: knowledge.base })
    .from(knowledge)
    .where(eq(knowledge.id, id))
  if (!row?.body) return SHIPS
  if (!row.base) return { isShipped: false, knowledge: row.body, came: NOTHING_CAME }
  return { isShipped: false, ...withNews({ base: row.base, own: row.body, ships: SHIPPED }, isDeepStrictEqual) }
}
