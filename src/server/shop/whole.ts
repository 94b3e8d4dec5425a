import { once } from 'node:events'
import { createInterface } from 'node:readline'
import { type Readable, type Writable } from 'node:stream'
import { and, asc, count, getTableColumns, getTableName, gt, or, eq, type SQL } from 'drizzle-orm'
import { getTableConfig, type MySqlColumn, type MySqlTable } from 'drizzle-orm/mysql-core'
import { withAllKinds } from '@server/people/seed.ts'
import * as schema from '@server/db/schema.ts'
import { carryOver } from '@server/db/carry.ts'
import { insertMany, transact, type Tx } from '@server/db/db.ts'
import { mustOwn, type Deps, type Who } from '@server/call/context.ts'
import { DomainError } from '@server/problem/problem.ts'
import { rebuild } from '@server/projection/rebuild.ts'

/**
 * A whole shop as lines of JSON, and back. The first line names the format and counts the rows of every table; each other line
 * is one row: {"t": table, "r": row}. Only the truth is in it; what is projected is built again on the way in.
 *
 * 1. Written from one snapshot: what is logged meanwhile is in it wholly or not at all.
 * 2. Taken in only by an empty shop, whole or not at all: a cut file is told by its counts.
 * 3. Out, in and out again gives the same lines.
 */
export const TRUTH: readonly MySqlTable[] = [
  schema.site,
  schema.store,
  schema.area,
  schema.stationClass,
  schema.station,
  schema.partKind,
  schema.fitFamily,
  schema.wire,
  schema.feederType,
  schema.procedure,
  schema.part,
  ...[schema.supplier, schema.offer, schema.partOrder, schema.kit, schema.weldJob],
  schema.spool,
  schema.carrier,
  schema.shiftPattern,
  schema.holiday,
  ...[schema.learnerGroup, schema.groupBooth, schema.calendarEntry, schema.calendarMove],
  ...[schema.lessonGiven, schema.quizTaken, schema.techniqueTold, schema.pairWord],
  ...[schema.drillSet, schema.practiceAttempt],
  schema.houseRule,
  schema.houseChoice,
  schema.toldLife,
  schema.tryout,
  schema.keptFinding,
  schema.guideNote,
  schema.knowledge,
  schema.ownCaution,
  schema.person,
  schema.device,
  schema.importRun,
  schema.meta,
  schema.ledgerEvent,
  schema.usageSpan,
  schema.purchase,
  schema.photo,
  schema.tinWeighing,
  schema.feeder,
  schema.telemetryHour,
  schema.telemetryRow,
]
/** Made anew from the truth, or of no use elsewhere: who is signed in, how far a sheet was read. A table stands in one of the two; a test says so. */
export const MADE: readonly MySqlTable[] = [
  ...[
    schema.carrierNow,
    schema.headNow,
    schema.headMonth,
    schema.gunWatch,
    schema.mount,
    schema.positionNow,
    schema.spoolNow,
    schema.stationNow,
  ],
  ...[schema.stockNow, schema.life, schema.lifeFit, schema.reading, schema.stoppage, schema.taskDone],
  ...[schema.session, schema.importProgress, schema.requestKey, schema.signInTry, schema.refusedEntry, schema.lease],
]
const FORMAT = 'idle-spool shop'
const VERSION = 2
/** Of before an act was a thing of its own: taken over line by line once it is in. */
const OLD_VERSION = 1
const PAGE = 2000
/** Photos are a third of a megabyte each: a few at a time, so that memory and the database's packets hold them. */
const PHOTO_PAGE = 4
const pageOf = (table: MySqlTable) => (table === schema.photo ? PHOTO_PAGE : PAGE)

interface Head {
  format: string
  version: number
  madeMs: number
  tables: Record<string, number>
}
type Row = Record<string, unknown>
const keysOf = (table: MySqlTable): MySqlColumn[] => {
  const config = getTableConfig(table)
  const own = config.columns.filter((c) => c.primary)
  return own.length > 0 ? own : (config.primaryKeys[0]?.columns ?? [])
}

/** Rows after one, in key order: pages that do not grow slower towards the end. */
function after(table: MySqlTable, last: Row | null): SQL | undefined {
  if (!last) return undefined
  const names = new Map(Object.entries(getTableColumns(table)).map(([name, column]) => [column.name, name]))
  const keys = keysOf(table)
  const valueOf = (column: MySqlColumn) => last[names.get(column.name) ?? '']
  return or(
    ...keys.map((key, i) =>
      and(...keys.slice(0, i).map((before) => eq(before, valueOf(before))), gt(key, valueOf(key))),
    ),
  )
}

async function* rowsOf(tx: Tx, table: MySqlTable): AsyncGenerator<Row> {
  let last: Row | null = null
  for (;;) {
    const page = (await tx
      .select()
      .from(table)
      .where(after(table, last))
      .orderBy(...keysOf(table).map((key) => asc(key)))
      .limit(pageOf(table))) as Row[]
    yield* page
    if (page.length < pageOf(table)) return
    last = page.at(-1) ?? null
  }
}

/** A carrier's revision counts projections here, and is no truth about the shop. */
const truthOf = (table: MySqlTable, { revision, ...row }: Row): Row =>
  table === schema.carrier || revision === undefined ? row : { ...row, revision }

/** Everything, to whoever reads; waits where the reader is slower than the database. */
export async function exportAll(deps: Deps, who: Who, out: Writable): Promise<void> {
  mustOwn(who)
  await deps.db.transaction(
    async (tx) => {
      const tables: Record<string, number> = {}
      for (const table of TRUTH) tables[getTableName(table)] = (await tx.select({ n: count() }).from(table))[0]?.n ?? 0
      const head: Head = { format: FORMAT, version: VERSION, madeMs: deps.now(), tables }
      const write = async (line: object) => {
        if (!out.write(`${JSON.stringify(line)}\n`)) await once(out, 'drain')
      }
      await write(head)
      for (const table of TRUTH)
        for await (const r of rowsOf(tx, table)) await write({ t: getTableName(table), r: truthOf(table, r) })
    },
    { isolationLevel: 'repeatable read', withConsistentSnapshot: true },
  )
}

const refuse = (message: string) =>
  new DomainError('sheet-refused', message, ['Nothing was taken in. Try the file again, or another one.'])

/** Takes a whole shop in where there is none yet. */
export async function importAll(deps: Deps, input: Readable): Promise<{ rows: number }> {
  const rows = await transact(deps.db, async (tx) => {
    const [there] = await tx.select({ n: count() }).from(schema.site)
    if ((there?.n ?? 0) > 0)
      throw new DomainError('already-set-up', 'There is a shop here already.', [
        'A whole shop goes only into an empty one.',
      ])
    const taken = await takeLines(tx, createInterface({ input, crlfDelay: Infinity }))
    await withAllKinds(tx)
    // Until all that is counted from them stands: a server that is started meanwhile goes on with it.
    await tx.insert(schema.meta).values({ key: BEING_BUILT, value: String(taken) })
    return taken
  })
  try {
    await finishBuilding(deps)
  } catch (problem) {
    throw Object.assign(
      new DomainError('busy', `All ${rows} rows are in; what is counted from them is not finished.`, [
        'It goes on by itself when the server is started again. Do not bring the file a second time.',
      ]),
      { cause: problem },
    )
  }
  return { rows }
}
const BEING_BUILT = 'beingBuilt'

/** Counts what the ledger comes to, where that is not finished: of a whole shop that was taken in, or of one whose program keeps more than before. Answers whether there was anything to do. */
export async function finishBuilding(deps: Deps): Promise<boolean> {
  const [open] = await deps.db.select().from(schema.meta).where(eq(schema.meta.key, BEING_BUILT))
  if (!open) return false
  await rebuild(deps, true)
  await deps.db.delete(schema.meta).where(eq(schema.meta.key, BEING_BUILT))
  return true
}

async function takeLines(tx: Tx, lines: AsyncIterable<string>): Promise<number> {
  const writer = pageWriter(tx)
  let head: Head | null = null
  let number = 0
  for await (const line of lines) {
    number++
    if (line.trim() === '') continue
    const read = readLine(line, number)
    if (head) await writer.take(rowIn(read, { number, version: head.version }), number)
    else head = headOf(read)
  }
  await writer.flush()
  if (head?.version === OLD_VERSION) await carryOver(tx)
  if (!head) throw refuse('That file is empty.')
  return mustBeWhole(head, writer.seen)
}

/** Gathers rows of one table and writes them a page at a time. */
function pageWriter(tx: Tx) {
  const byName = new Map(TRUTH.map((table) => [getTableName(table), table]))
  const seen: Record<string, number> = {}
  let name = ''
  let rows: Row[] = []
  const flush = async () => {
    const table = byName.get(name)
    if (table && rows.length > 0) await insertMany(tx, table, { rows: rows })
    rows = []
  }
  const take = async ({ t, r }: { t: string; r: Row }, number: number) => {
    const table = byName.get(t)
    if (!table) throw refuse(`Line ${number} speaks of "${t}", which this program does not know.`)
    if (t !== name || rows.length >= pageOf(table)) await flush()
    name = t
    rows.push(r)
    seen[t] = (seen[t] ?? 0) + 1
  }
  return { seen, take, flush }
}

function readLine(line: string, number: number): unknown {
  try {
    return JSON.parse(line)
  } catch {
    throw refuse(`Line ${number} is cut or no JSON.`)
  }
}
const isObject = (value: unknown): value is Record<string, unknown> => typeof value === 'object' && value !== null

function headOf(read: unknown): Head {
  if (!isObject(read) || read['format'] !== FORMAT) throw refuse('That file is no export of this program.')
  if (read['version'] !== VERSION && read['version'] !== OLD_VERSION)
    throw refuse(`That file is of version ${String(read['version'])}; this program reads up to ${VERSION}.`)
  return read as unknown as Head
}

function rowIn(read: unknown, { number, version }: { number: number; version: number }): { t: string; r: Row } {
  if (!isObject(read) || typeof read['t'] !== 'string' || !isObject(read['r']))
    throw refuse(`Line ${number} is no row.`)
  const [t, r] = [read['t'], read['r']]
  // A line of an older version belongs to no act yet.
  const isOldLine = version === OLD_VERSION && t === getTableName(schema.ledgerEvent)
  return { t, r: isOldLine ? { ...r, actId: r['id'], actKind: '', lineNo: 0 } : r }
}

function mustBeWhole(head: Head, seen: Record<string, number>): number {
  for (const [name, wanted] of Object.entries(head.tables))
    if ((seen[name] ?? 0) !== wanted)
      throw refuse(`That file is cut: it should hold ${wanted} rows of ${name} and holds ${seen[name] ?? 0}.`)
  return Object.values(seen).reduce((sum, n) => sum + n, 0)
}
