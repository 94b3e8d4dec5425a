import mysql from 'mysql2/promise'
import { causesOf, isConflict } from '@server/db/causes.ts'
import { DomainError } from '@server/problem/problem.ts'

const EVERY_MS = 1000
/** A database that has failed to answer for so long is taken for gone, whatever it still promises. */
const LOST_AFTER_MS = 3000
const ANSWER_WITHIN_MS = 2000

export const databaseAway = () =>
  new DomainError('busy', 'The database does not answer.', [
    'Nothing that was acknowledged is lost. Try the same again in a moment: what did go in is not written twice.',
  ])

/**
 * Asks the database once a second, by a line of its own, whether it is there. While it is not, nobody waits for it: new requests are refused at once and
 * those under way are answered, so that a database that hangs does not take the whole program along.
 */
export class DatabaseWatch {
  private readonly url: string
  private readonly now: () => number
  private line: mysql.Connection | null = null
  private timer: NodeJS.Timeout | undefined
  /** Since when every look has failed; a program that was busy itself has failed at nothing. */
  private failingMs: number | null = null
  private isStopped = false
  private readonly waiting = new Set<(problem: Error) => void>()

  constructor(url: string, now: () => number = () => performance.now()) {
    this.url = url
    this.now = now
  }

  start(): this {
    this.timer = setTimeout(() => void this.look(), EVERY_MS)
    this.timer.unref()
    return this
  }

  /** Whether it has answered lately. */
  isThere = (): boolean => this.failingMs === null || this.now() - this.failingMs < LOST_AFTER_MS

  /** Whether it answers now, within two seconds. */
  async answers(): Promise<boolean> {
    try {
      this.line ??= await mysql.createConnection({ uri: this.url, connectTimeout: ANSWER_WITHIN_MS })
      await this.line.query({ sql: 'select 1', timeout: ANSWER_WITHIN_MS })
      this.failingMs = null
      return true
    } catch {
      this.failingMs ??= this.now()
      this.line?.destroy()
      this.line = null
      return false
    }
  }

  /** What is asked of the database, or the refusal as soon as it is taken for gone. */
  async within<T>(work: () => Promise<T>): Promise<T> {
    if (!this.isThere()) throw databaseAway()
    let give: ((problem: Error) => void) | undefined
    const lost = new Promise<never>((_, fail) => {
      give = fail
      this.waiting.add(fail)
    })
    try {
      return await Promise.race([work(), lost])
    } finally {
      if (give) this.waiting.delete(give)
    }
  }

  stop(): void {
    this.isStopped = true
    clearTimeout(this.timer)
    this.line?.destroy()
  }

  private async look(): Promise<void> {
    await this.answers()
    if (this.isStopped) return void this.line?.destroy()
    if (!this.isThere()) for (const give of this.waiting) give(databaseAway())
    this.start()
  }
}

/** Numbers of the driver and the database that say: not there, not now. */
const AWAY: ReadonlySet<string> = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'ENOENT',
  'EPIPE',
  'ETIMEDOUT',
  'PROTOCOL_CONNECTION_LOST',
  'PROTOCOL_SEQUENCE_TIMEOUT',
  'ER_CON_COUNT_ERROR',
  'ER_SERVER_SHUTDOWN',
  'ER_NORMAL_SHUTDOWN',
  // A node of a cluster that has lost the others.
  'ER_UNKNOWN_COM_ERROR',
])
/** Said without a number, where a line was cut between two statements or more wait for one than may. */
const CLOSED = /Pool is closed|Queue limit reached|in closed state/
const FULL: ReadonlySet<string> = new Set(['ER_DISK_FULL', 'ER_RECORD_FILE_FULL', 'ENOSPC', 'EDQUOT'])
const codesOf = (problem: unknown): string[] =>
  causesOf(problem).flatMap((at) => ('code' in at && typeof at.code === 'string' ? at.code : []))
const isOfDatabase = (problem: unknown): boolean =>
  causesOf(problem).some((at) => 'query' in at || 'sqlState' in at || 'fatal' in at)

/** A fault of the database that passes by itself or by room on the disk, as a refusal in words; null for any other. */
export function passingFault(problem: unknown): DomainError | null {
  // Of a transaction that gets no connection the driver tells by its words alone.
  if (causesOf(problem).some(({ message }) => CLOSED.test(message))) return databaseAway()
  if (!isOfDatabase(problem)) return null
  const codes = codesOf(problem)
  if (codes.some((c) => FULL.has(c)))
    return new DomainError('disk-full', 'The disk of the server is full; nothing was written.', [
      'Make room there, then do the same again. What was written before stands.',
    ])
  if (isConflict(problem))
    return new DomainError('busy', 'Others are writing to the same place just now; nothing was written.', [
      'Try the same again in a moment.',
    ])
  return codes.some((c) => AWAY.has(c)) ? databaseAway() : null
}
