import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { drizzle } from 'drizzle-orm/mysql2'
import { migrate } from 'drizzle-orm/mysql2/migrator'
import mysql from 'mysql2/promise'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { migrateDatabase } from './db.ts'

/**
 * Every version there was, with data in it, taken to this one: the tables are brought forward version by version, and in each every table that is there
 * gets a row of its own. What was written under version 3 goes through all that came after it.
 */
const MIGRATIONS = fileURLToPath(new URL('./migrations', import.meta.url))
const base = process.env['TEST_DATABASE_URL'] ?? ''
const name = `t_history_${process.pid}`
const url = (() => {
  const at = new URL(base)
  at.pathname = `/${name}`
  return at.href
})()
const folder = mkdtempSync(join(tmpdir(), 'idle-history-'))
let connection: mysql.Connection
beforeAll(async () => {
  connection = await mysql.createConnection({ uri: base, supportBigNumbers: true })
  await connection.query(`create database ${name} character set utf8mb4`)
  await connection.query(`use ${name}`)
})
afterAll(async () => {
  await connection.query(`drop database ${name}`)
  await connection.end()
  rmSync(folder, { recursive: true, force: true })
})

interface Journal {
  entries: { idx: number; tag: string }[]
}
const journal = JSON.parse(readFileSync(join(MIGRATIONS, 'meta/_journal.json'), 'utf8')) as Journal
/** The folder of migrations as that version had it. */
function asOf(version: number): string {
  const at = join(folder, String(version))
  cpSync(MIGRATIONS, at, { recursive: true })
  writeFileSync(
    join(at, 'meta/_journal.json'),
    JSON.stringify({ ...journal, entries: journal.entries.slice(0, version + 1) }),
  )
  return at
}

interface Column {
  name: string
  type: string
  length: number | null
  extra: string
  is_json: number
}
type Row = Record<string, unknown>
const rows = async <T>(text: string, values: unknown[] = []) => (await connection.query(text, values))[0] as T[]
const tables = async () =>
  (await rows<Row>("show full tables where table_type = 'BASE TABLE'"))
    .map((r) => String(Object.values(r)[0]))
    .filter((t) => !t.startsWith('__') && t !== 'lease')

/** A value of a column's kind that no other row has. */
function valueOf(table: string, c: Column, n: number): unknown {
  if (c.is_json) return table === 'ledger_event' ? JSON.stringify({ type: 'fact', fact: { kind: 'confirmed' } }) : '{}'
  if (c.name === 'kind' && table === 'ledger_event') return 'confirmed'
  if (c.name === 'act_kind') return 'log'
  if (/char/.test(c.type)) return `v${n}`.slice(0, c.length ?? 1)
  return /blob|binary/.test(c.type)
    ? Buffer.from([n % 256])
    : n % 2 && c.type === 'tinyint'
      ? 1
      : c.type === 'tinyint'
        ? 0
        : n
}

async function putOne(table: string, n: number): Promise<Row> {
  const columns = await rows<Column>(
    `select c.column_name as name, c.data_type as type, c.character_maximum_length as length, c.extra as extra,
       exists (select 1 from information_schema.check_constraints k where k.constraint_schema = database()
         and k.table_name = c.table_name and k.constraint_name = c.column_name and k.check_clause like '%json_valid%') as is_json
     from information_schema.columns c where c.table_schema = database() and c.table_name = ?`,
    [table],
  )
  const own = columns.filter((c) => !c.extra.includes('auto_increment') && !c.extra.includes('GENERATED'))
  const row = Object.fromEntries(own.map((c) => [c.name, valueOf(table, c, n)]))
  await connection.query(`insert into \`${table}\` set ?`, [row])
  return row
}

it(`from each of ${journal.entries.length} versions, with a row in every table, nothing is lost or changed on the way`, async () => {
  const put = new Map<string, Row[]>()
  let n = 100
  for (const { idx } of journal.entries) {
    await migrate(drizzle(connection), { migrationsFolder: asOf(idx) })
    for (const table of await tables()) {
      // There is one shop.
      if (table === 'site' && put.has(table)) continue
      put.set(table, [...(put.get(table) ?? []), await putOne(table, n++)])
    }
  }
  await migrateDatabase(url, MIGRATIONS)
  for (const [table, all] of put) {
    // Beside what was there, one word that months of use are to be counted at the next start.
    const now = (await rows<Row>(`select * from \`${table}\``)).filter((r) => r['meta_key'] !== 'beingBuilt')
    expect([table, now.length]).toEqual([table, all.length])
  }
  expect(await rows<Row>("select value from meta where meta_key = 'beingBuilt'")).toEqual([{ value: 'months' }])
  // What was said stays as it was said; where it belongs was found for all of it.
  const lines = await rows<{ id: string; happened_ms: number; note: string; act_kind: string }>(
    'select * from ledger_event',
  )
  const said = put.get('ledger_event') ?? []
  for (const { id, happened_ms, note } of said as typeof lines)
    expect(lines.find((l) => l.id === id)).toMatchObject({ happened_ms, note })
  expect(lines.filter((l) => l.act_kind === '')).toEqual([])
}, 240_000)
