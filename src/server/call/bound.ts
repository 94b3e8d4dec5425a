import { createHash } from 'node:crypto'
import { and, eq, lt } from 'drizzle-orm'
import { DAY_MS } from '@core/units/time.ts'
import { requestKey } from '@server/db/schema.ts'
import { isDuplicate, type Db } from '@server/db/db.ts'
import { DomainError } from '@server/problem/problem.ts'

/** Nothing waits longer on a device without a link. */
const KEPT_DAYS = 120

/** A content as one text, whatever the order of its fields. */
function plainly(value: unknown): string {
  if (value instanceof Uint8Array) return createHash('sha256').update(value).digest('hex')
  if (Array.isArray(value)) return `[${value.map(plainly).join()}]`
  if (typeof value !== 'object' || value === null) return JSON.stringify(value) ?? 'null'
  const fields = Object.entries(value)
    .filter(([, inner]) => inner !== undefined)
    .sort(([a], [b]) => (a < b ? -1 : 1))
  return `{${fields.map(([name, inner]) => `${JSON.stringify(name)}:${plainly(inner)}`).join()}}`
}

export interface Bound {
  key: string
  route: string
  content: unknown
}

/**
 * A key belongs to the route and the content it was first sent with: the same again is answered as before, another thing under it is refused and not taken
 * for the first. A request that was refused leaves its key free. Whoever sends it may change (a tablet's list is sent on by whoever signs in there).
 */
export async function boundTo<T>(deps: { db: Db; now: () => number }, of: Bound, work: () => Promise<T>): Promise<T> {
  const { key } = of
  const hash = createHash('sha256')
    .update(`${of.route} ${plainly(of.content)}`)
    .digest('hex')
  const isFirst = await claim(deps, key, hash)
  try {
    return await work()
  } catch (problem) {
    // A fault may have written; a refusal has not.
    if (isFirst && problem instanceof DomainError)
      await deps.db.delete(requestKey).where(and(eq(requestKey.key, key), eq(requestKey.hash, hash)))
    throw problem
  }
}

async function claim({ db, now }: { db: Db; now: () => number }, key: string, hash: string): Promise<boolean> {
  try {
    await db.insert(requestKey).values({ key, hash, atMs: now() })
    return true
  } catch (problem) {
    if (!isDuplicate(problem)) throw problem
  }
  const [known] = await db.select({ hash: requestKey.hash }).from(requestKey).where(eq(requestKey.key, key))
  if (known && known.hash !== hash)
    throw new DomainError('key-used', 'This key was used before for something else.', [
      'Send it again under a new key.',
    ])
  return false
}

/** Keys of long ago stand for nothing any more. */
export const forgetKeys = async ({ db, now }: { db: Db; now: () => number }): Promise<void> =>
  void (await db.delete(requestKey).where(lt(requestKey.atMs, now() - KEPT_DAYS * DAY_MS)))
