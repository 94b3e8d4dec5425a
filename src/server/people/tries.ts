import { inArray, lt, sql } from 'drizzle-orm'
import { MIN_MS } from '@core/units/time.ts'
import { signInTry } from '@server/db/schema.ts'
import { type Deps } from '@server/call/context.ts'
import { DomainError } from '@server/problem/problem.ts'

/**
 * Sign-ins that fail are counted for a name from one address, for an address and for a name, in the database, so that all servers count together. Who signs
 * in rightly is held up by nobody else's tries from elsewhere, but for a name that very many guess at.
 */
const WITHIN_MS = 5 * MIN_MS
interface Trying {
  name: string
  from: string
}
const limitsOf = ({ name, from }: Trying): [string, number][] => {
  const who = name.trim().toLowerCase().slice(0, 80)
  const where = from.slice(0, 60)
  return [
    [`both ${who} ${where}`, 8],
    [`from ${where}`, 60],
    [`name ${who}`, 100],
  ]
}

export async function mustMayTry(deps: Deps, trying: Trying): Promise<void> {
  const limits = new Map(limitsOf(trying))
  const rows = await deps.db
    .select()
    .from(signInTry)
    .where(inArray(signInTry.who, [...limits.keys()]))
  const nowMs = deps.now()
  const over = rows.find(
    (row) => row.failed >= (limits.get(row.who) ?? Infinity) && Math.abs(nowMs - row.fromMs) < WITHIN_MS,
  )
  if (over) throw new DomainError('too-many', 'Too many tries in five minutes.', ['Wait five minutes, then try again.'])
}

export async function noteFailure(deps: Deps, trying: Trying): Promise<void> {
  const nowMs = deps.now()
  await deps.db.delete(signInTry).where(lt(signInTry.fromMs, nowMs - WITHIN_MS))
  for (const [who] of limitsOf(trying))
    await deps.db
      .insert(signInTry)
      .values({ who, fromMs: nowMs, failed: 1 })
      .onDuplicateKeyUpdate({ set: { failed: sql`${signInTry.failed} + 1` } })
}
