// The journal: every write, kept by the database beside its tables, so that a back-up can be taken forward to any second after it.
import { spawn } from 'node:child_process'
import { existsSync, readdirSync } from 'node:fs'
import { basename, join } from 'node:path'
import { pipeline } from 'node:stream/promises'
import { ended, readJson, SetupError, writeJson } from './machine.mjs'

/** The folder it lies in, of a database's folder; where it is there, a journal is kept. */
export const journalOf = (folder) => join(folder, 'journal')
const LOG = /^log\.\d+$/
/** Longer than the newest daily back-up is likely to be away. */
const KEPT_DAYS = 9

/** How the database is told to keep it: each write on the disk before it is acknowledged. */
export const journalArgs = (folder) =>
  existsSync(journalOf(folder))
    ? [
        `--log-bin=${join(journalOf(folder), 'log')}`,
        '--sync-binlog=1',
        '--binlog-format=ROW',
        `--expire-logs-days=${KEPT_DAYS}`,
        '--max-binlog-size=256M',
        '--server-id=1',
        // The ledger's own rule is a trigger.
        '--log-bin-trust-function-creators=1',
      ]
    : ['--skip-log-bin']
/** What an account needs to read it, to go by it, and to leave a restore out of it. */
export const JOURNAL_RIGHTS = 'BINLOG MONITOR, BINLOG ADMIN, BINLOG REPLAY'

/** Where the journal stands for this connection; null where none is kept. */
export async function journalPosition(connection) {
  const [[{ isKept }]] = await connection.query('select @@log_bin as isKept')
  if (!isKept) return null
  const [[at]] = await connection.query('show master status')
  return { file: at.File, position: Number(at.Position) }
}

const restoresOf = (folder) => join(folder, 'restored.json')
/** A restore is no write of the shop's: what comes after it does not follow from what came before. */
export const noteRestore = (folder, atMs) =>
  writeJson(restoresOf(folder), [...(readJson(restoresOf(folder)) ?? []), atMs])

/** The pieces of a journal that follow on a back-up, up to an instant; or why it can't be taken so far. */
export function piecesAfter({ head, untilMs, folder, journal, nowMs = Date.now() }) {
  if (!head.journal) throw new SetupError('That back-up was made without a journal: it can only be put back as it is.')
  if (Number.isNaN(untilMs)) throw new SetupError('Until when? Write it like 2026-11-30T14:05:00Z.')
  if (untilMs < head.madeMs)
    throw new SetupError(
      `That back-up is of ${new Date(head.madeMs).toISOString()}: take one of before the time you want.`,
    )
  if (untilMs > nowMs) throw new SetupError('That time is still to come.')
  const between = (readJson(restoresOf(folder)) ?? []).find((ms) => ms > head.madeMs && ms <= untilMs)
  if (between)
    throw new SetupError(
      `Something was put back at ${new Date(between).toISOString()}, after that back-up: take one of after it, or a time of before.`,
    )
  const pieces = existsSync(journal)
    ? readdirSync(journal)
        .filter((name) => LOG.test(name))
        .sort()
    : []
  const from = pieces.indexOf(head.journal.file)
  if (from < 0)
    throw new SetupError(
      `The journal in ${journal} does not begin before that back-up: ${head.journal.file} is not there.`,
    )
  return pieces.slice(from).map((name) => join(journal, name))
}

/** Does again what the journal says was written after the back-up, as far as an instant (a whole second). */
export async function replay({ pieces, head, untilMs, to }) {
  const { args, env, database } = to
  const at = new Date(untilMs + 1000).toISOString().slice(0, 19).replace('T', ' ')
  const reader = spawn(
    'mariadb-binlog',
    [
      '--no-defaults',
      '--disable-log-bin',
      `--database=${database}`,
      `--start-position=${head.journal.position}`,
      `--stop-datetime=${at}`,
      ...pieces,
    ],
    { env: { ...process.env, TZ: 'UTC' }, stdio: ['ignore', 'pipe', 'pipe'] },
  )
  const writer = spawn('mariadb', [...args, '--binary-mode', database], {
    env,
    stdio: ['pipe', 'ignore', 'pipe'],
  })
  await Promise.all([
    pipeline(reader.stdout, writer.stdin),
    ended(reader, `Reading ${basename(pieces[0])}`),
    ended(writer, 'Going on from the back-up'),
  ])
}
