import { randomBytes } from 'node:crypto'
import { setTimeout as pause } from 'node:timers/promises'
import { sql, type SQL } from 'drizzle-orm'
import { type MySql2Database } from 'drizzle-orm/mysql2'
import { isConflict } from './causes.ts'

/**
 * Something that one server does at a time. A row with an end, not a lock of the database's: those hold on one node of a cluster only.
 *
 * 1. Who holds it goes on holding it while its work lasts; whoever dies loses it after `LASTS_MS`.
 * 2. Time is the database's, so servers whose clocks differ agree on the end.
 * 3. Of two that take it in the same moment on two nodes one is refused by the cluster, and has not got it.
 */
const LASTS_MS = 12_000
const NOW = sql`cast(unix_timestamp(now(3)) * 1000 as unsigned)`
type Carrier = Pick<MySql2Database, 'execute'>

async function rowsHit(db: Carrier, statement: SQL): Promise<number> {
  const [done] = (await db.execute(statement)) as unknown as [{ affectedRows: number }]
  return done.affectedRows
}

/** The table itself may not be there yet: it stands before all others. */
export const LEASE_TABLE = sql`create table if not exists \`lease\` (
  \`name\` varchar(40) not null, \`holder\` varchar(40) not null, \`until_ms\` bigint not null, constraint \`lease_name\` primary key(\`name\`))`

async function take(db: Carrier, name: string, holder: string): Promise<boolean> {
  try {
    await db.execute(sql`insert ignore into lease (name, holder, until_ms) values (${name}, '', 0)`)
    const hit = await rowsHit(
      db,
      sql`update lease set holder = ${holder}, until_ms = ${NOW} + ${LASTS_MS}
          where name = ${name} and (until_ms < ${NOW} or holder = ${holder})`,
    )
    return hit === 1
  } catch (problem) {
    if (isConflict(problem)) return false
    throw problem
  }
}

/** `work` while nobody else does it; null where somebody does. */
export async function withLease<T>(db: Carrier, name: string, work: () => Promise<T>): Promise<T | null> {
  const holder = randomBytes(12).toString('hex')
  if (!(await take(db, name, holder))) return null
  // A renewal that fails is tried again before the lease is over.
  const renewal = setInterval(() => void take(db, name, holder).catch(() => false), LASTS_MS / 4)
  try {
    return await work()
  } finally {
    clearInterval(renewal)
    await db
      .execute(sql`update lease set until_ms = 0 where name = ${name} and holder = ${holder}`)
      .catch(() => undefined)
  }
}

/** The same, waiting for its turn. */
export async function inTurn<T>(db: Carrier, at: { name: string; waitMs: number }, work: () => Promise<T>): Promise<T> {
  for (const endMs = performance.now() + at.waitMs; performance.now() < endMs; await pause(200)) {
    let isMine = false
    const done = await withLease(db, at.name, () => {
      isMine = true
      return work()
    })
    if (isMine) return done as T
  }
  throw new Error(`Another server has been at "${at.name}" for ${at.waitMs / 1000} seconds.`)
}
