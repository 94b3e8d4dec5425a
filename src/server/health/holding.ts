import { readdir, stat, statfs } from 'node:fs/promises'
import { join } from 'node:path'
import { count, desc, eq, isNotNull, min, sql } from 'drizzle-orm'
import { type z } from 'zod'
import { judgeHolding } from '@core/holding/holding.ts'
import { type holdingAnswer } from '@contract/holding.ts'
import { feeder, meta, refusedEntry, site } from '@server/db/schema.ts'
import { firstLoggedMs } from '@server/ledger/lines.ts'
import { mustLead, type Deps, type Who } from '@server/call/context.ts'

/** What only whoever started this server knows of its machine; null: not told. */
export interface Machine {
  /** The folder that the shop's data lie in. */
  folder: string | null
  /** The folder that daily back-ups go to. */
  backups: string | null
  upSinceMs: number
  clockAheadMs: () => number
}
export type HoldingDeps = Deps & { machine: Machine }

const BACKUP = /^shop-(\d{4}-\d\d-\d\d)T(\d\d)(\d\d)(\d\d)Z\.sql\.gz$/
const SHOWN = 20

async function backupsIn(folder: string, isKept: boolean) {
  const names = await readdir(folder).catch(() => [])
  const made = names.flatMap((name) => {
    const [, day, h, m, s] = BACKUP.exec(name) ?? []
    return day ? [{ name, madeMs: Date.parse(`${day}T${h}:${m}:${s}Z`) }] : []
  })
  const sizes = await Promise.all(made.map(({ name }) => stat(join(folder, name)).then(({ size }) => size)))
  return {
    isKept,
    count: made.length,
    newestMs: made.length > 0 ? Math.max(...made.map((b) => b.madeMs)) : null,
    bytes: sizes.reduce((a, b) => a + b, 0),
  }
}

async function diskOf(folder: string) {
  const { bavail, blocks, bsize } = await statfs(folder)
  return { freeBytes: bavail * bsize, totalBytes: blocks * bsize }
}

/** How long the least question takes, milliseconds, and how large the database is, bytes. */
async function askDatabase({ db }: Deps) {
  const askedMs = performance.now()
  await db.execute(sql`select 1`)
  const answeredMs = performance.now() - askedMs
  const [[row]] = (await db.execute(
    sql`select sum(data_length + index_length) as bytes from information_schema.tables where table_schema = database()`,
  )) as unknown as [{ bytes: string | number | null }[]]
  return { answeredMs, databaseBytes: Number(row?.bytes ?? 0) }
}

/** How the program holds up on this machine: what is well, what wants a look, what is to be done today. */
export async function readHolding(deps: HoldingDeps, who: Who): Promise<z.input<typeof holdingAnswer>> {
  mustLead(who)
  const { db, machine } = deps
  const nowMs = deps.now()
  const [[shop], [demo]] = await Promise.all([
    db.select({ zone: site.zone }).from(site),
    db.select().from(meta).where(eq(meta.key, 'demo')),
  ])
  const isDemo = Boolean(demo)
  const [asked, sinceMs, backups, disk, feeders, [waiting], [all], newest] = await Promise.all([
    askDatabase(deps),
    firstLoggedMs(db),
    // A demo is built anew in a minute.
    machine.backups ? backupsIn(machine.backups, !isDemo) : null,
    machine.folder ? diskOf(machine.folder) : null,
    db.select().from(feeder).where(eq(feeder.isActive, true)),
    db
      .select({ sinceMs: min(feeder.dirtyMs) })
      .from(feeder)
      .where(isNotNull(feeder.dirtyMs)),
    db.select({ n: count() }).from(refusedEntry),
    db.select().from(refusedEntry).orderBy(desc(refusedEntry.atMs)).limit(SHOWN),
  ])
  const holding = {
    ...{ nowMs, sinceMs, backups, disk, answeredMs: asked.answeredMs },
    clockAheadMs: machine.clockAheadMs(),
    feeders: feeders.map((f) => ({ name: f.equipmentId, heardMs: f.receivedMs, clockOffMs: f.clockOffMs ?? 0 })),
    countingSinceMs: waiting?.sinceMs ?? null,
    refused: all?.n ?? 0,
  }
  return {
    ...{ ...holding, ...asked, isDemo },
    zone: shop?.zone ?? 'UTC',
    upSinceMs: machine.upSinceMs,
    refusals: newest.map(({ atMs, fromName, why }) => ({ atMs, from: fromName, why })),
    lines: judgeHolding(holding),
  }
}
