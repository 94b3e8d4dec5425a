import { sql } from 'drizzle-orm'
import { type TestServer } from './testserver.ts'

/** Every transaction does all of its work and then fails at the last moment, until `work` is over. */
export async function withPowerCut<T>(server: TestServer, work: () => Promise<T>): Promise<T> {
  const { db } = server.parts.deps
  const original = db.transaction.bind(db)
  db.transaction = (job: Parameters<typeof original>[0], config: Parameters<typeof original>[1]) =>
    original(async (tx) => {
      await job(tx)
      throw new Error('power cut')
    }, config)
  try {
    return await work()
  } finally {
    db.transaction = original
    server.faults.length = 0
  }
}

/** What was asked, not what the shop holds: a key that stands for its request, a sign-in that failed, how far the reading of a sheet came. */
const ASKED = ['request_key', 'sign_in_try', 'refused_entry', 'lease', 'import_progress']

/** A sum over the content of every table, by its name: equal before and after means that nothing at all was written. */
export async function contentOf(server: TestServer, without: readonly string[] = []): Promise<Record<string, string>> {
  const { db } = server.parts.deps
  const [tables] = (await db.execute(
    sql`select table_name as name from information_schema.tables where table_schema = database() order by table_name`,
  )) as unknown as [{ name: string }[]]
  const names = tables
    .map((t) => t.name)
    .filter((name) => !name.startsWith('__') && ![...ASKED, ...without].includes(name))
  const [sums] = (await db.execute(
    sql.raw(`checksum table ${names.map((n) => `\`${n}\``).join(', ')}`),
  )) as unknown as [{ Table: string; Checksum: number }[]]
  return Object.fromEntries(sums.map((s) => [s.Table.split('.').at(-1) ?? s.Table, String(s.Checksum)]))
}
