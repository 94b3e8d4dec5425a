import mysql from 'mysql2/promise'
import { fileURLToPath } from 'node:url'

/**
 * A world that takes long to build is built once for all tests of a run, and each test begins from a copy of its own. Whoever comes first builds it;
 * the others wait for its lock.
 */
const MIGRATIONS = fileURLToPath(new URL('../db/migrations', import.meta.url))
const LOCK_S = 300
/** A working morning in autumn: where nothing hangs on the day, the yard was built then. */
export const YARD_MS = Date.UTC(2026, 10, 25, 7, 40)

export const urlOf = (base: string, name: string) => base.replace(/\/[^/?]*(?=\?|$)/, `/${name}`)

/** A database with nothing in it. Answers its address. */
export async function emptyDatabase(base: string, name: string): Promise<string> {
  const connection = await mysql.createConnection(base)
  await connection.query(`create database \`${name}\` character set utf8mb4`)
  await connection.end()
  return urlOf(base, name)
}

/** The same with every table of the program, as the migrations make them. Answers its address. */
export const migratedDatabase = (base: string, name: string) =>
  copyOfKept(base, name, {
    kept: 'kept_tables',
    build: async (kept) => {
      const { migrateDatabase } = await import('@server/db/db.ts')
      await migrateDatabase(await emptyDatabase(base, kept), MIGRATIONS)
    },
  })

/** It and all that is in it is gone; who still reads it is told so. */
export async function dropDatabase(url: string): Promise<void> {
  const connection = await mysql.createConnection(url)
  await connection.query(`drop database \`${new URL(url).pathname.slice(1)}\``)
  await connection.end()
}

/** A database of its own with all that is in another, its triggers too. `like` leaves foreign keys behind: there are none here. */
export async function copyDatabase(connection: mysql.Connection, from: string, to: string): Promise<void> {
  await connection.query(`create database \`${to}\` character set utf8mb4`)
  const [tables] = await connection.query<mysql.RowDataPacket[]>(`show tables from \`${from}\``)
  for (const table of tables.map((row) => String(Object.values(row)[0]))) {
    await connection.query(`create table \`${to}\`.\`${table}\` like \`${from}\`.\`${table}\``)
    await connection.query(`insert into \`${to}\`.\`${table}\` select * from \`${from}\`.\`${table}\``)
  }
  const [triggers] = await connection.query<mysql.RowDataPacket[]>(`show triggers from \`${from}\``)
  // By its bare name, as the migration made it: the text is kept, and a back-up puts it back under another name of the database.
  await connection.query(`use \`${to}\``)
  for (const { Trigger, Timing, Event, Table, Statement } of triggers)
    await connection.query(`create trigger ${Trigger} ${Timing} ${Event} on ${Table} for each row ${Statement}`)
}

/** A copy, under `name`, of the demo yard as it stands when it was built at an instant. Answers its address. */
export const copyOfYard = (base: string, name: string, builtMs: number) =>
  copyOfKept(base, name, {
    kept: `kept_yard_${builtMs}`,
    build: async (kept) => buildYard(await migratedDatabase(base, kept), builtMs),
  })

interface World {
  kept: string
  /** Makes it, under the name it is kept by. */
  build: (kept: string) => Promise<void>
}
async function copyOfKept(base: string, name: string, { kept, build }: World): Promise<string> {
  const connection = await mysql.createConnection(base)
  try {
    await connection.query('select get_lock(?, ?)', [kept, LOCK_S])
    if (!(await exists(connection, `${kept}_done`))) {
      await connection.query(`drop database if exists \`${kept}\``)
      await build(kept)
      await connection.query(`create database \`${kept}_done\``)
    }
    await connection.query('select release_lock(?)', [kept])
    await copyDatabase(connection, kept, name)
  } finally {
    await connection.end()
  }
  return urlOf(base, name)
}

async function exists(connection: mysql.Connection, name: string): Promise<boolean> {
  const [found] = await connection.query<mysql.RowDataPacket[]>('show databases like ?', [name])
  return found.length > 0
}

async function buildYard(databaseUrl: string, builtMs: number): Promise<void> {
  // Loaded by who builds it only: a journey finds it built, and need not read a whole server.
  const [{ compose }, { buildDemo }] = await Promise.all([
    import('@server/wiring/compose.ts'),
    import('@server/demo/demo.ts'),
  ])
  const faults: unknown[] = []
  const parts = compose({
    databaseUrl,
    webFolder: null,
    onFault: (problem) => faults.push(problem),
    now: () => builtMs,
  })
  await buildDemo(parts.deps)
  await parts.close()
  if (faults.length > 0) throw new Error('the yard could not be built', { cause: faults[0] })
}
