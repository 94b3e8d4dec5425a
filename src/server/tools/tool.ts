import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import mysql from 'mysql2/promise'
import { compose } from '@server/wiring/compose.ts'
import { migrateDatabase } from '@server/db/db.ts'
import { buildDemo, ownShop } from '@server/demo/demo.ts'
import { faultText } from '@server/problem/fault.ts'
import { readEnv } from '@server/wiring/env.ts'
import { rebuild } from '@server/projection/rebuild.ts'

const MIGRATIONS = join(dirname(fileURLToPath(import.meta.url)), '../../src/server/db/migrations')

const composed = (url: string) =>
  compose({ databaseUrl: url, webFolder: null, onFault: (problem) => console.error(faultText(problem)) })

/** Empties the whole database and builds the demo anew: of a demo, or of nothing; of somebody's own shop only when its name is said. */
async function demoReset(url: string, said: string | null): Promise<number> {
  await migrateDatabase(url, MIGRATIONS)
  const before = composed(url)
  const shop = await ownShop(before.deps)
  await before.close()
  if (shop !== null && shop !== said) {
    console.error(
      `This is no demo: it is the shop "${shop}", and nothing was touched. To lose all of it, back it up first, then say its name:\n  npm run demo:reset -- --yes "${shop}"`,
    )
    return 1
  }
  const connection = await mysql.createConnection({ uri: url, multipleStatements: true })
  const name = new URL(url).pathname.slice(1)
  await connection.query(`drop database if exists \`${name}\`; create database \`${name}\` character set utf8mb4`)
  await connection.end()
  await migrateDatabase(url, MIGRATIONS)
  const parts = composed(url)
  await buildDemo(parts.deps)
  await parts.close()
  console.log('The demo is as new.')
  return 0
}

async function runRebuild(url: string, isWriting: boolean): Promise<number> {
  await migrateDatabase(url, MIGRATIONS)
  const parts = composed(url)
  const written = await rebuild(parts.deps, isWriting)
  await parts.close()
  for (const [table, rows] of Object.entries(written))
    console.log(`${table.padEnd(12)} ${rows === 0 ? 'agrees' : `${rows} rows differ`}`)
  const off = Object.values(written).reduce((sum, rows) => sum + rows, 0)
  if (off === 0) console.log('Rebuilt = stored.')
  else
    console.log(
      isWriting ? `${off} rows were put right.` : `${off} rows differ. "npm run rebuild -- --write" puts them right.`,
    )
  return off === 0 || isWriting ? 0 : 1
}

const [task, ...rest] = process.argv.slice(2)
const { DATABASE_URL } = readEnv(process.env)
const yes = rest.indexOf('--yes')
if (task === 'demo-reset') process.exitCode = await demoReset(DATABASE_URL, yes < 0 ? null : (rest[yes + 1] ?? null))
else if (task === 'rebuild') process.exitCode = await runRebuild(DATABASE_URL, rest.includes('--write'))
else {
  console.error(`There is no tool called "${task ?? ''}"; there is demo-reset and rebuild.`)
  process.exitCode = 2
}
