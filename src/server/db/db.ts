import { drizzle, type MySql2Database } from 'drizzle-orm/mysql2'
import { migrate } from 'drizzle-orm/mysql2/migrator'
import mysql from 'mysql2/promise'
import * as schema from './schema.ts'

export type Db = MySql2Database<typeof schema>
export type Tx = Parameters<Parameters<Db['transaction']>[0]>[0]
/** Queries take either: a plain connection to read, a transaction to write. */
export type Reader = Db | Tx

export interface Database {
  db: Db
  close: () => Promise<void>
}

export function openDatabase(url: string): Database {
  const pool = mysql.createPool({
    uri: url,
    connectionLimit: 12,
    supportBigNumbers: true,
    timezone: 'Z',
    charset: 'utf8mb4',
  })
  return { db: drizzle(pool, { schema, mode: 'default' }), close: () => pool.end() }
}

/** Brings the tables up to date. A named lock keeps two servers that start at once from doing it together. */
export async function migrateDatabase(url: string, folder: string): Promise<void> {
  const connection = await mysql.createConnection({ uri: url, timezone: 'Z' })
  try {
    await connection.query("select get_lock('idle_spool_migrate', 60)")
    await migrate(drizzle(connection), { migrationsFolder: folder })
  } finally {
    await connection.end()
  }
}

/** Deadlock, lock wait, and a certification failure (which Galera reports as a deadlock) are worth another try. */
const RETRIED = new Set([1213, 1205])
const TRIES = 5

export function errnoOf(problem: unknown): number | null {
  for (let at: unknown = problem, depth = 0; at instanceof Error && depth < 4; at = at.cause, depth++) {
    if ('errno' in at && typeof at.errno === 'number') return at.errno
  }
  return null
}
export const isDuplicate = (problem: unknown) => errnoOf(problem) === 1062

/** All writes go through here: one transaction, tried again when the database asks for it. */
export async function transact<T>(db: Db, work: (tx: Tx) => Promise<T>): Promise<T> {
  for (let attempt = 1; ; attempt++) {
    try {
      return await db.transaction(work, { isolationLevel: 'read committed' })
    } catch (problem) {
      if (attempt >= TRIES || !RETRIED.has(errnoOf(problem) ?? 0)) throw problem
      await new Promise((done) => setTimeout(done, 10 * attempt * attempt))
    }
  }
}
