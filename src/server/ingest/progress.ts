import { DAY_MS } from '@core/units/time.ts'
import { eq, lt } from 'drizzle-orm'
import { type ImportProgress } from '@contract/ingest.ts'
import { importProgress } from '@server/db/schema.ts'
import { mustLead, type Deps, type Who } from '@server/call/context.ts'
import { DomainError } from '@server/problem/problem.ts'

/** Says how far an import is. Throws when somebody asked for it to stop, which rolls everything back. */
export type Progress = (stage: string, done: number, of: number) => Promise<void>
const SILENT: Progress = () => Promise.resolve()
const KEPT_MS = DAY_MS

/** Written beside the import's transaction, so that any server can tell it before the import is committed. */
export async function startProgress(deps: Deps, runKey: string | undefined): Promise<Progress> {
  if (!runKey) return SILENT
  await deps.db.delete(importProgress).where(lt(importProgress.atMs, deps.now() - KEPT_MS))
  const tell: Progress = async (stage, done, of) => {
    const now = { stage, done, of, atMs: deps.now() }
    await deps.db
      .insert(importProgress)
      .values({ key: runKey, ...now })
      .onDuplicateKeyUpdate({ set: now })
    const [row] = await deps.db.select().from(importProgress).where(eq(importProgress.key, runKey))
    if (row?.isCancelled)
      throw new DomainError('stopped-by-you', 'Stopped. Nothing of that sheet was taken in.', [
        'Take it in again whenever you like.',
      ])
  }
  await tell('reading', 0, 0)
  return tell
}

export async function readProgress(deps: Deps, who: Who, runKey: string): Promise<ImportProgress> {
  mustLead(who)
  const [row] = await deps.db.select().from(importProgress).where(eq(importProgress.key, runKey))
  return row ? { stage: row.stage, done: row.done, of: row.of } : { stage: 'not begun', done: 0, of: 0 }
}

/** Asked for before or while it runs, it stops at its next step. */
export async function cancelImport(deps: Deps, who: Who, runKey: string): Promise<{ ok: true }> {
  mustLead(who)
  const blank = { stage: 'stopping', done: 0, of: 0, atMs: deps.now(), isCancelled: true }
  await deps.db
    .insert(importProgress)
    .values({ key: runKey, ...blank })
    .onDuplicateKeyUpdate({ set: { isCancelled: true } })
  return { ok: true }
}
