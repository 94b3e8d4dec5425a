// How far the tables of this version of the program go.
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { ROOT } from './machine.mjs'

/** Migrations there are; a database counts those it has had. */
export const latestVersion = () =>
  JSON.parse(readFileSync(join(ROOT, 'src/server/db/migrations/meta/_journal.json'), 'utf8')).entries.length

/** The shop that is in a database, and how far its tables go; null where there is none. */
export async function shopAt(url) {
  const connection = await (await import('mysql2/promise')).createConnection(url)
  try {
    const [[shop]] = await connection.query('select name from site')
    const [[{ n }]] = await connection.query('select count(*) as n from __drizzle_migrations')
    return shop ? { name: shop.name, version: Number(n) } : null
  } catch {
    // No tables yet.
    return null
  } finally {
    connection.destroy()
  }
}
