// How far the tables of this version of the program go.
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { ROOT } from './machine.mjs'

/** Migrations there are; a database counts those it has had. */
export const latestVersion = () =>
  JSON.parse(readFileSync(join(ROOT, 'src/server/db/migrations/meta/_journal.json'), 'utf8')).entries.length

/** How far those of a database go; null where there is no shop in it. */
export async function versionOf(url) {
  const connection = await (await import('mysql2/promise')).createConnection(url)
  try {
    const [shops] = await connection.query('select 1 from site')
    const [[{ n }]] = await connection.query('select count(*) as n from __drizzle_migrations')
    return shops.length > 0 ? Number(n) : null
  } catch {
    return null
  } finally {
    connection.destroy()
  }
}
