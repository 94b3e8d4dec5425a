import { desc } from 'drizzle-orm'
import { type Knowledge } from '@core/diagnose/knowledge.ts'
import { SHIPPED } from '@core/diagnose/shipped/knowledge.ts'
import { knowledge } from '@server/db/schema.ts'
import { type Reader } from '@server/db/db.ts'

export interface KnowledgeNow {
  /** How often it was changed. */
  version: number
  isShipped: boolean
  atMs: number | null
  knowledge: Knowledge
}
/** Why a gun stops, as the shop has it now. */
export async function knowledgeNow(db: Reader): Promise<KnowledgeNow> {
  const rows = await db.select({ atMs: knowledge.atMs }).from(knowledge)
  const [newest] = await db.select().from(knowledge).orderBy(desc(knowledge.atMs), desc(knowledge.id)).limit(1)
  return {
    version: rows.length,
    isShipped: !newest?.body,
    atMs: newest?.atMs ?? null,
    knowledge: newest?.body ?? SHIPPED,
  }
}
