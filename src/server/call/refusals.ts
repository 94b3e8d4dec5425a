import { createHash } from 'node:crypto'
import { lt } from 'drizzle-orm'
import { DAY_MS } from '@core/units/time.ts'
import { refusedEntry } from '@server/db/schema.ts'
import { type Deps, type Who } from './context.ts'
import { DomainError } from '@server/problem/problem.ts'

const REFUSALS_KEPT_MS = 14 * DAY_MS

const nameOf = ({ person, device }: Who): string =>
  [person?.name, device?.name].filter((name) => name !== undefined).join(', ') || 'nobody'

/** Notes that something a device had kept without a link could not be taken; the same sent again is one refusal. */
export async function noteRefusals(
  deps: Deps,
  who: Who,
  refused: readonly { key: string; why: string }[],
): Promise<void> {
  if (refused.length === 0) return
  const atMs = deps.now()
  const fromName = nameOf(who).slice(0, 130)
  await deps.db
    .insert(refusedEntry)
    .values(refused.map(({ key, why }) => ({ key: key.slice(0, 100), why: why.slice(0, 300), fromName, atMs })))
    .onDuplicateKeyUpdate({ set: { atMs } })
  await deps.db.delete(refusedEntry).where(lt(refusedEntry.atMs, atMs - REFUSALS_KEPT_MS))
}

/** `work`, which a device had kept until there was a link: what refuses it is noted, and refuses it all the same. */
export async function notingRefusal<T>(
  deps: Deps,
  { who, key }: { who: Who; key: string | null },
  work: () => Promise<T>,
): Promise<T> {
  try {
    return await work()
  } catch (problem) {
    if (problem instanceof DomainError && problem.code !== 'busy' && problem.code !== 'disk-full') {
      const why = [problem.message, ...problem.details].join(' ')
      await noteRefusals(deps, who, [{ key: key ?? createHash('sha256').update(why).digest('hex'), why }])
    }
    throw problem
  }
}
