// Back-ups of one shop's database: made from one instant, checked by putting them back beside and comparing every table, kept by a rule.
import { spawn } from 'node:child_process'
import {
  chmodSync,
  createReadStream,
  createWriteStream,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  renameSync,
  rmSync,
} from 'node:fs'
import { tmpdir } from 'node:os'
import { basename, join } from 'node:path'
import { PassThrough } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { createGunzip, createGzip } from 'node:zlib'
import { journalPosition, replay } from './journal.mjs'
import { startDatabase } from './mariadb.mjs'
import { ended, SetupError } from './machine.mjs'

const FORMAT = '-- idle-spool back-up '
const NAME = /^shop-(\d{4}-\d\d-\d\d)T(\d\d)(\d\d)(\d\d)Z\.sql\.gz$/
const LOCK_S = 30
const KEPT = { days: 7, weeks: 4, months: 12 }

const connect = async (url) => (await import('mysql2/promise')).createConnection({ uri: url, supportBigNumbers: true })

/** How the database's own tools reach it; the secret goes by the environment, where only this user can read it. */
function toolArgs(url) {
  const at = new URL(url)
  const socket = at.searchParams.get('socketPath')
  const where = socket ? [`--socket=${socket}`] : [`--host=${at.hostname}`, `--port=${at.port}`]
  return {
    args: ['--no-defaults', ...where, `--user=${at.username}`, '--default-character-set=utf8mb4'],
    env: { ...process.env, MYSQL_PWD: at.password },
    database: at.pathname.slice(1),
  }
}

const tablesOf = async (connection) =>
  (await connection.query('show tables'))[0].map((row) => String(Object.values(row)[0])).sort()

/** Rows and checksum of every table, as they stand for this connection. */
async function sumsOf(connection, tables) {
  const sums = {}
  for (const table of tables) {
    const [[{ n }]] = await connection.query(`select count(*) as n from \`${table}\``)
    const [[{ Checksum: sum }]] = await connection.query(`checksum table \`${table}\``)
    sums[table] = [Number(n), String(sum)]
  }
  return sums
}

/** The bytes of a stream as far as a word, or to its end. */
async function readUntil(stream, word) {
  let read = Buffer.alloc(0)
  while (!read.includes(word) && !stream.readableEnded) {
    const chunk = stream.read()
    if (chunk) read = Buffer.concat([read, chunk])
    else await new Promise((done) => ['readable', 'end', 'close'].forEach((e) => stream.once(e, done)))
  }
  return read
}

/**
 * Writes the shop into `folder` as it stands at one instant: nothing is written for the moment in which the dump takes hold of that instant, and the sums are
 * counted of the very same. Answers { path, head }.
 */
export async function makeBackup({ url, folder, nowMs = Date.now() }) {
  mkdirSync(folder, { recursive: true, mode: 0o700 })
  const [holder, reader] = [await connect(url), await connect(url)]
  const path = join(folder, `shop-${new Date(nowMs).toISOString().slice(0, 19).replaceAll(':', '')}Z.sql.gz`)
  const part = `${path}.part`
  try {
    const tables = await tablesOf(holder)
    if (!tables.includes('site')) throw new SetupError('There is no shop in this database yet: nothing to back up.')
    await holder.query(`set session lock_wait_timeout = ${LOCK_S}`)
    await holder.query(`lock tables ${tables.map((t) => `\`${t}\` read`).join(', ')}`)
    await reader.query('set session transaction isolation level repeatable read')
    await reader.query('start transaction with consistent snapshot')
    const journal = await journalPosition(holder)
    const { args, env, database } = toolArgs(url)
    const dump = spawn(
      'mariadb-dump',
      [...args, '--single-transaction', '--quick', '--hex-blob', '--skip-dump-date', '--skip-comments', database],
      { env, stdio: ['ignore', 'pipe', 'pipe'] },
    )
    const isDone = ended(dump, 'mariadb-dump')
    // It writes its first table after it has taken hold of its instant.
    // (Piped on at once: what nobody reads of a process that has ended is thrown away.)
    const told = dump.stdout.pipe(new PassThrough())
    const begun = await readUntil(told, 'CREATE TABLE')
    await holder.query('unlock tables')
    const sums = await sumsOf(reader, tables)
    const [[shop]] = await reader.query('select name from site')
    const [[{ version }]] = await reader.query('select count(*) as version from __drizzle_migrations')
    const head = {
      madeMs: nowMs,
      shop: shop?.name ?? '',
      version: Number(version),
      ...(journal ? { journal } : {}),
      sums,
    }
    async function* all() {
      yield `${FORMAT}${JSON.stringify(head)}\n`
      yield begun
      if (!told.readableEnded) yield* told
    }
    await Promise.all([pipeline(all, createGzip({ level: 6 }), createWriteStream(part, { mode: 0o600 })), isDone])
    await reader.query('rollback')
    renameSync(part, path)
    return { path, head }
  } finally {
    rmSync(part, { force: true })
    holder.destroy()
    reader.destroy()
  }
}

/** The text a stream begins with, as far as its first line or as it can be read. */
async function beginningOf(stream) {
  let text = ''
  try {
    for await (const chunk of stream) {
      text += chunk
      if (text.includes('\n')) break
    }
  } catch {
    // As far as it goes.
  }
  return text
}

/** What a back-up says of itself in its first line. */
export async function headOf(path) {
  if (!existsSync(path)) throw new SetupError(`There is no file ${path}.`)
  const file = createReadStream(path)
  const [line] = (await beginningOf(file.pipe(createGunzip()))).split('\n')
  file.destroy()
  if (line?.startsWith(FORMAT))
    try {
      return JSON.parse(line.slice(FORMAT.length))
    } catch {
      // Cut in its first line: said below.
    }
  throw new SetupError(`${path} is no back-up of this program, or its beginning is damaged.`)
}

/** What is put back is no write of the shop's. */
const NO_JOURNAL = (isJournaled) => (isJournaled ? ['--init-command=set sql_log_bin = 0'] : [])

/** Puts a back-up into the database at `url`, which holds nothing. */
async function load(path, url, isJournaled = false) {
  const { args, env, database } = toolArgs(url)
  const client = spawn('mariadb', [...args, ...NO_JOURNAL(isJournaled), database], {
    env,
    stdio: ['pipe', 'ignore', 'pipe'],
  })
  await Promise.all([pipeline(createReadStream(path), createGunzip(), client.stdin), ended(client, 'Putting it back')])
}

/** What differs between what a back-up says of itself and what is in the database; empty: nothing. */
async function differences(url, head) {
  const connection = await connect(url)
  try {
    const tables = await tablesOf(connection)
    const here = await sumsOf(connection, tables)
    const all = [...new Set([...tables, ...Object.keys(head.sums)])]
    return all.flatMap((table) => {
      const [a, b] = [head.sums[table], here[table]]
      return String(a) === String(b) ? [] : [`${table}: ${a?.[0] ?? 'no'} rows in it, ${b?.[0] ?? 'none'} put back`]
    })
  } finally {
    connection.destroy()
  }
}

/** Puts a back-up back beside, into a database of its own that is thrown away, and compares rows and checksum of every table. */
export async function checkBackup(path) {
  const head = await headOf(path)
  const folder = mkdtempSync(join(existsSync('/dev/shm') ? '/dev/shm' : tmpdir(), 'idle-check-'))
  // The database's own user must reach it.
  chmodSync(folder, 0o755)
  const scratch = await startDatabase({ folder: join(folder, 'db'), isThrowaway: true })
  try {
    await load(path, scratch.url)
    const off = await differences(scratch.url, head)
    if (off.length > 0) throw new SetupError(`${basename(path)} is not whole:\n  ${off.join('\n  ')}`)
    return head
  } catch (problem) {
    if (problem instanceof SetupError) throw problem
    throw new SetupError(`${basename(path)} can't be read to its end: ${problem.message}`)
  } finally {
    await scratch.stop()
    rmSync(folder, { recursive: true, force: true })
  }
}

/**
 * Checks a back-up, then puts it in place of whatever is in the database at `url`. With `onward` ({ pieces, untilMs }) the journal is done again from
 * there as far as that second.
 */
export async function restoreBackup(path, { url, onward = null }) {
  const head = await checkBackup(path)
  const connection = await connect(url)
  const to = toolArgs(url)
  const isJournaled = (await journalPosition(connection)) !== null
  if (isJournaled) await connection.query('set sql_log_bin = 0')
  await connection.query(`drop database if exists \`${to.database}\``)
  await connection.query(`create database \`${to.database}\` character set utf8mb4`)
  connection.destroy()
  await load(path, url, isJournaled)
  const off = await differences(url, head)
  if (off.length > 0) throw new SetupError(`Put back, but not the same:\n  ${off.join('\n  ')}`)
  if (onward) await replay({ ...onward, head, to })
  return head
}

/** The back-ups of a folder, newest first. */
export function backupsIn(folder) {
  if (!existsSync(folder)) return []
  return readdirSync(folder)
    .filter((name) => NAME.test(name))
    .sort()
    .reverse()
    .map((name) => {
      const [, day, h, m, s] = NAME.exec(name)
      return {
        name,
        path: join(folder, name),
        madeMs: Date.parse(`${day}T${h}:${m}:${s}Z`),
      }
    })
}

const dayOf = (ms) => new Date(ms).toISOString().slice(0, 10)
const weekOf = (ms) => String(Math.floor((ms / 86_400_000 + 3) / 7))
/**
 * Which of them go: the newest of each of the last seven days that have one, of four weeks and of twelve months stay, and the newest of all.
 * @example backupsToDrop([{ madeMs: now }, { madeMs: now - 1000 }]) // [{ madeMs: now - 1000 }]
 */
export function backupsToDrop(backups) {
  const newestFirst = [...backups].sort((a, b) => b.madeMs - a.madeMs)
  const stay = new Set(newestFirst.slice(0, 1))
  for (const [keyOf, most] of [
    [dayOf, KEPT.days],
    [weekOf, KEPT.weeks],
    [(ms) => dayOf(ms).slice(0, 7), KEPT.months],
  ]) {
    const seen = new Set()
    for (const backup of newestFirst) {
      const key = keyOf(backup.madeMs)
      if (seen.has(key) || seen.size >= most) continue
      seen.add(key)
      stay.add(backup)
    }
  }
  return newestFirst.filter((b) => !stay.has(b))
}
