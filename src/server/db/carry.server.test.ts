import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Readable } from 'node:stream'
import { fileURLToPath } from 'node:url'
import { asc } from 'drizzle-orm'
import { drizzle } from 'drizzle-orm/mysql2'
import { migrate } from 'drizzle-orm/mysql2/migrator'
import mysql from 'mysql2/promise'
import { beforeAll, describe, expect, it } from 'vitest'
import { type FactKind } from '@core/ledger/event.ts'
import { KIND_DEFAULTS } from '@core/path/kinds.ts'
import { ledgerEvent, partKind } from '@server/db/schema.ts'
import { importAll } from '@server/shop/whole.ts'
import { startTestServer } from '@server/testing/testserver.ts'
import { urlOf } from '@server/testing/worlds.ts'
import { migrateDatabase, openDatabase } from './db.ts'

/** A database as the version before acts were things of their own left it, with a line of each sort in it. */
const MIGRATIONS = fileURLToPath(new URL('./migrations', import.meta.url))
const LAST_OLD = 20
const FORMER = 'ev_'

interface OldLine {
  id: string
  key: string
  kind: FactKind | 'corrected'
  body: object
  spoolId?: string
}
const fact = (id: string, key: string, kind: FactKind, more: Record<string, unknown> = {}): OldLine => ({
  id: FORMER + id,
  key,
  kind,
  body: { type: 'fact', fact: { kind, carrierId: 'car_1', ...more } },
  ...(typeof more['spoolId'] === 'string' ? { spoolId: more['spoolId'] } : {}),
})
const shop = (id: string, what: string) => ({
  ...fact(id, `setup-${id}`, 'shopChanged'),
  body: { type: 'fact', fact: { kind: 'shopChanged', what } },
})
const OLD: readonly OldLine[] = [
  fact('log0', 'twoacts-1#0', 'cleaned', { position: 'nozzle' }),
  fact('log1', 'twoacts-1#1', 'fitted', { position: 'tip' }),
  fact('seen0', 'lookedat-1#0', 'confirmed', { position: null }),
  fact('seen1', 'lookedat-1#0/1', 'confirmed', { position: null }),
  fact('seen2', 'lookedat-1#0/2', 'confirmed', { position: null }),
  fact('one0', 'onepart-1#0', 'confirmed', { position: 'tip' }),
  fact('chg0', 'chg/change-key-1/1#0', 'changedOver'),
  fact('chg1', 'chg/change-key-1/1#1', 'fitted', { position: 'tip' }),
  fact('chg2', 'chg/change-key-1/1#10', 'setting'),
  fact('job0', 'job/work-key-1#0', 'taskDone'),
  fact('job1', 'job/work-key-1#1', 'followedUp'),
  fact('read0', 'read/read-key-1#0', 'reading', { what: 'tension' }),
  fact('walk0', 'walk/walk-key-1#0', 'reading', { what: 'bore' }),
  fact('walk1', 'walk/walk-key-1#1', 'reading', { what: 'bore' }),
  fact('act0', 'walk-key-1.act#0', 'fitted', { position: 'tip' }),
  fact('done0', 'walk-key-1.done#0', 'followedUp'),
  fact('done1', 'walk-key-1.done#1', 'followedUp'),
  fact('why0', 'why/why-key-1#0', 'explained'),
  fact('hang0', 'mount/ev_x', 'mounted', { onId: 'car_2' }),
  fact('swap0', 'swap-key-1#0', 'mounted', { onId: 'car_2' }),
  fact('swap1', 'swap-key-1#1', 'mounted', { onId: null }),
  fact('swap2', 'swap-key-1#2', 'gunStatus'),
  fact('move0', 'move-key-1/0', 'mounted', { onId: 'car_2' }),
  fact('move1', 'move-key-1/1', 'mounted', { onId: 'car_3' }),
  fact('gun0', 'status-key', 'gunStatus'),
  fact('gun1', 'makegun-1/status', 'gunStatus'),
  fact('part0', 'shelf-key/part0', 'counted'),
  fact('part1', 'shelf-key/part1', 'counted'),
  fact('use0', 'usage-key', 'usageEntered'),
  fact('sheet0', 'sheet/0a1b', 'fitted', { position: 'tip' }),
  fact('spool0', 'spool-key-1#0', 'wireOff', { spoolId: null }),
  fact('spool1', 'spool-key-1#1', 'spoolIn', { spoolId: 'spool_1' }),
  fact('load0', 'newspool-1#0', 'wireLoaded'),
  {
    ...{ id: `${FORMER}corr0`, key: 'undo-key-1#0', kind: 'corrected' as const },
    body: { type: 'correction', correctsId: `${FORMER}log0`, replacement: null },
  },
  shop('rule', 'house rule: tip, cell: change at 6.5 (least cost, from 210 lives)'),
  shop('class', 'house rule D06, class cell: signs (kink, pull ×1.7, 3 tips)'),
  shop('other', 'something nobody can read any more'),
]
const HAPPENED = Date.UTC(2026, 8, 1)

/** The migrations of then. */
function foldersOfThen(): string {
  const folder = mkdtempSync(join(tmpdir(), 'idle-migrations-'))
  cpSync(MIGRATIONS, folder, { recursive: true })
  const path = join(folder, 'meta', '_journal.json')
  const journal = JSON.parse(readFileSync(path, 'utf8')) as { entries: { idx: number }[] }
  writeFileSync(path, JSON.stringify({ ...journal, entries: journal.entries.filter((e) => e.idx <= LAST_OLD) }))
  return folder
}

async function databaseOfThen(): Promise<string> {
  const base = process.env['TEST_DATABASE_URL'] ?? ''
  const name = `carry_${process.pid}`
  const connection = await mysql.createConnection(base)
  await connection.query(`create database \`${name}\` character set utf8mb4`)
  await connection.changeUser({ database: name })
  const folder = foldersOfThen()
  await migrate(drizzle(connection), { migrationsFolder: folder })
  rmSync(folder, { recursive: true })
  for (const line of OLD)
    await connection.query(
      `insert into ledger_event (id, root_id, kind, carrier_id, spool_id, happened_ms, happened_precision, logged_ms, body, idempotency_key)
       values (?, ?, ?, 'car_1', ?, ?, 'exact', ?, ?, ?)`,
      [
        ...[line.id, line.id, line.kind, line.spoolId ?? null, HAPPENED, HAPPENED],
        ...[JSON.stringify(line.body), line.key],
      ],
    )
  const kindOf = "insert into part_kind values (?, ?, ?, 'gun', 'wear part', 'arcHours', 1, 4, 3, 30, ?, '[]', ?)"
  await connection.query(kindOf, ['diffuser', 'diffuser', 'diffuser', DIFFUSER_THEN, 1])
  await connection.query(kindOf, ['tip', 'contact tip', 'tip', '["worn","due"]', 0])
  await connection.end()
  return urlOf(base, name)
}
const DIFFUSER_THEN = '["worn","stripped","blocked","due","knocked","toTry"]'

/** `kind first/number key` of each line, by its id. */
async function actsIn(url: string): Promise<Record<string, string>> {
  const { db, close } = openDatabase(url)
  const rows = await db.select().from(ledgerEvent)
  await close()
  const short = (id: string) => id.slice(FORMER.length)
  return Object.fromEntries(
    rows.map((r) => [short(r.id), `${r.actKind} ${short(r.actId)}/${r.lineNo} ${r.idempotencyKey ?? '-'}`]),
  )
}
async function changesIn(url: string): Promise<unknown[]> {
  const { db, close } = openDatabase(url)
  const rows = await db.select().from(ledgerEvent)
  await close()
  return rows.flatMap(({ body }) =>
    body.type === 'fact' && body.fact.kind === 'shopChanged' ? [body.fact.change] : [],
  )
}

const WANTED = {
  log0: 'log log0/0 twoacts-1#0',
  log1: 'log log1/0 twoacts-1#1',
  seen0: 'seen seen0/0 lookedat-1#0',
  seen1: 'seen seen0/1 -',
  seen2: 'seen seen0/2 -',
  one0: 'log one0/0 onepart-1#0',
  chg0: 'change chg0/0 change-key-1#1',
  chg1: 'change chg0/1 -',
  chg2: 'change chg0/10 -',
  job0: 'job job0/0 work-key-1#0',
  job1: 'job job0/1 -',
  read0: 'read read0/0 read-key-1#0',
  walk0: 'walked walk0/0 walk-key-1#0',
  walk1: 'walked walk0/1 -',
  act0: 'log act0/0 walk-key-1.act#0',
  done0: 'followed done0/0 walk-key-1.done#0',
  done1: 'followed done0/1 -',
  why0: 'explained why0/0 why-key-1#0',
  hang0: 'hang hang0/0 -',
  swap0: 'swap swap0/0 swap-key-1#0',
  swap1: 'swap swap0/1 -',
  swap2: 'swap swap0/2 -',
  move0: 'move move0/0 move-key-1#0',
  move1: 'move move0/1 -',
  gun0: 'gun gun0/0 status-key#0',
  gun1: 'gun gun1/0 -',
  part0: 'supply part0/0 -',
  part1: 'supply part0/1 -',
  use0: 'usage use0/0 usage-key#0',
  sheet0: 'sheet sheet0/0 0a1b',
  spool0: 'spool spool0/0 spool-key-1#0',
  spool1: 'spool spool0/1 -',
  load0: 'log load0/0 newspool-1#0',
  corr0: 'correct corr0/0 undo-key-1#0',
  rule: 'shop rule/0 setup-rule#0',
  class: 'shop class/0 setup-class#0',
  other: 'shop other/0 setup-other#0',
}
const CHANGES = [
  {
    ...{ of: 'houseRule', kindKey: 'tip', classKey: 'cell', changeAt: 6.5, cleanAt: null },
    ...{ lookDays: null, school: 'leastCost', lives: 210 },
  },
  {
    ...{ of: 'school', code: 'D06', scopeType: 'class', scopeKey: 'cell', option: 'signs' },
    terms: { on: ['kink', 'pull', 'tips'], pullRatio: 1.7, tips: 3 },
  },
  { of: 'other', said: 'something nobody can read any more' },
]

describe('a database of the version before', () => {
  let url: string
  beforeAll(async () => {
    url = await databaseOfThen()
    await migrateDatabase(url, MIGRATIONS)
  })
  it('knows of every line which act it belongs to, and the key it was sent under', async () =>
    expect(await actsIn(url)).toEqual(WANTED))
  it('has fields for what was changed; what nobody can read stays as it was said', async () => {
    expect(await changesIn(url)).toHaveLength(CHANGES.length)
    expect(await changesIn(url)).toEqual(expect.arrayContaining(CHANGES))
  })
  it('has the kinds that came since, in their order, and the codes of a diffuser’s five duties where nobody had changed them', async () => {
    const { db, close } = openDatabase(url)
    const kinds = await db.select().from(partKind).orderBy(asc(partKind.walkOrder))
    await close()
    expect(kinds.map((k) => k.key)).toEqual([
      ...['conduit', 'booster', 'plug', 'cable', 'handle', 'trigger', 'diffuser', 'tip'],
      ...['cutter', 'reamer', 'lead'],
    ])
    const shipped = (key: string) => KIND_DEFAULTS.find((k) => k.key === key)
    const by = (key: string) => kinds.find((k) => k.key === key)
    expect(by('diffuser')?.reasons).toEqual(shipped('diffuser')?.reasons)
    expect(by('tip')?.reasons).toEqual(['worn', 'due'])
    const { isOptional: _, ...trigger } = shipped('trigger') ?? {}
    expect(by('trigger')).toMatchObject(trigger)
  })
  it('opened again stays as it is', async () => {
    await migrateDatabase(url, MIGRATIONS)
    expect(await actsIn(url)).toEqual(WANTED)
  })
})

describe('an export of the version before', () => {
  it('is taken in as if its lines had been written today', async () => {
    const server = await startTestServer({ nowMs: HAPPENED + 86_400_000 })
    const lines = OLD.map((line) => ({
      t: 'ledger_event',
      r: {
        ...{ id: line.id, rootId: line.id, kind: line.kind, carrierId: 'car_1', spoolId: line.spoolId ?? null },
        ...{ happenedMs: HAPPENED, precision: 'exact', loggedMs: HAPPENED, body: line.body, idempotencyKey: line.key },
      },
    }))
    const head = { format: 'idle-spool shop', version: 1, madeMs: HAPPENED, tables: { ledger_event: lines.length } }
    const file = [head, ...lines].map((line) => JSON.stringify(line)).join('\n')
    await importAll(server.parts.deps, Readable.from([file]))
    expect(await actsIn(server.databaseUrl)).toEqual(WANTED)
    expect(await changesIn(server.databaseUrl)).toEqual(expect.arrayContaining(CHANGES))
    await server.close()
  })
})
