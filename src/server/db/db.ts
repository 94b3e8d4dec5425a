import { getTableColumns, getTableName, sql, type InferInsertModel, type InferSelectModel, type SQL } from 'drizzle-orm'
import { type MySqlTable } from 'drizzle-orm/mysql-core'
import { drizzle, type MySql2Database } from 'drizzle-orm/mysql2'
import { migrate } from 'drizzle-orm/mysql2/migrator'
import mysql from 'mysql2/promise'
import { carryOver } from './carry.ts'
import { isConflict } from './causes.ts'
import { inTurn, LEASE_TABLE } from './lease.ts'
import * as schema from './schema.ts'

export { errnoOf, isDuplicate } from './causes.ts'
export type Db = MySql2Database<typeof schema>
export type Tx = Parameters<Parameters<Db['transaction']>[0]>[0]
/** Queries take either: a plain connection to read, a transaction to write. */
export type Reader = Db | Tx

export interface Database {
  db: Db
  close: () => Promise<void>
}

export function openDatabase(url: string): Database {
  const pool = mysql.createPool({
    uri: url,
    connectionLimit: 24,
    // A request that would be the two hundred and first to wait is told to come again.
    queueLimit: 200,
    connectTimeout: 5000,
    supportBigNumbers: true,
    timezone: 'Z',
    charset: 'utf8mb4',
  })
  // Writers wait for each other at the row they lock, and then see what the other wrote.
  pool.pool.on('connection', (made) => made.query('set session transaction isolation level read committed'))
  quicken(pool)
  const getConnection = pool.getConnection.bind(pool)
  pool.getConnection = async () => quicken(await getConnection())
  return { db: drizzle(pool, { schema, mode: 'default' }), close: () => pool.end() }
}

/**
 * The mapper asks the driver to call back for every field, for date columns. There are none here (instants are whole
 * milliseconds), and without the call reading 5,000 rows takes a third of the time.
 */
function quicken<T extends { query: mysql.Pool['query'] }>(client: T): T {
  const query = client.query.bind(client) as (options: object | string, values?: unknown) => Promise<never>
  client.query = (options: object | string, values?: unknown) =>
    query(typeof options === 'string' ? options : { ...options, typeCast: true }, values)
  return client
}

/**
 * Whole rows as the driver gives them, without the mapper's work per field: for reads of thousands of rows. JSON columns are
 * parsed; a table with booleans cannot be read this way (the driver gives 0 and 1), which is misuse.
 */
export async function readMany<T extends MySqlTable>(
  db: Reader,
  table: T,
  where: SQL | undefined,
): Promise<InferSelectModel<T>[]> {
  const names = namesOf(table, getTableName(table))
  return rowsOf(db, table, {
    statement: where ? sql`select ${names} from ${table} where ${where}` : sql`select ${names} from ${table}`,
  })
}

/** As `readMany`, of each row only what is wanted: half the columns take half the time. */
export const readSome = <T extends MySqlTable, N extends NameIn<T>>(
  db: Reader,
  table: T,
  { where, wanted }: { where: SQL; wanted: readonly N[] },
): Promise<Pick<InferSelectModel<T>, N>[]> =>
  rowsOf(db, table, {
    statement: sql`select ${namesOf(table, getTableName(table), wanted)} from ${table} where ${where}`,
    wanted,
  })

/** Columns of a table under the names the program has for them: every one, or those wanted. */
export const namesOf = <T extends MySqlTable>(table: T, as: string, wanted?: readonly NameIn<T>[]): SQL =>
  sql.join(
    columnsOf(table, wanted).map(
      ([name, column]) => sql`${sql.identifier(as)}.${sql.identifier(column.name)} as ${sql.identifier(name)}`,
    ),
    sql`, `,
  )
type NameIn<T extends MySqlTable> = keyof InferSelectModel<T> & string
const columnsOf = <T extends MySqlTable>(table: T, wanted?: readonly NameIn<T>[]) =>
  Object.entries(getTableColumns(table)).filter(([name]) => !wanted || (wanted as readonly string[]).includes(name))

/** Rows of a table by a statement of one's own, which selects `namesOf` it: whole ones, or what is wanted of them. */
export async function rowsOf<T extends MySqlTable, N extends NameIn<T> = NameIn<T>>(
  db: Reader,
  table: T,
  { statement, wanted }: { statement: SQL; wanted?: readonly N[] },
): Promise<Pick<InferSelectModel<T>, N>[]> {
  const columns = columnsOf(table, wanted)
  if (columns.some(([, column]) => column.dataType === 'boolean'))
    throw new RangeError('rowsOf: expected a table without booleans')
  const [rows] = await db.execute(statement)
  const list = rows as unknown as Record<string, unknown>[]
  for (const [name, column] of columns)
    if (column.dataType === 'json')
      for (const row of list) if (typeof row[name] === 'string') row[name] = JSON.parse(row[name])
  return list as Pick<InferSelectModel<T>, N>[]
}

const INSERT_ROWS = 2000

/**
 * Many rows in few statements, formatted and escaped by the driver: the mapper's own way spends most of its time on putting
 * the statement together. With `isReplacing` a row whose key is there takes the new values.
 */
export async function insertMany<T extends MySqlTable>(
  db: Reader,
  table: T,
  { rows, isReplacing = false }: { rows: readonly InferInsertModel<T>[]; isReplacing?: boolean },
): Promise<void> {
  const columns = Object.entries(getTableColumns(table))
  const names = columns.map(([, column]) => `\`${column.name}\``)
  const head = `insert into \`${getTableName(table)}\` (${names.join(', ')}) values ?`
  const tail = isReplacing ? ` on duplicate key update ${names.map((n) => `${n} = values(${n})`).join(', ')}` : ''
  for (let i = 0; i < rows.length; i += INSERT_ROWS) {
    const values = rows.slice(i, i + INSERT_ROWS).map((row) => {
      const given = row as Record<string, unknown>
      return columns.map(([name, column]) => {
        const value = given[name] ?? (column.hasDefault ? column.default : null)
        return value === null || value === undefined ? null : (column.mapToDriverValue(value) as string | number)
      })
    })
    await db.execute(sql.raw(mysql.format(head + tail, [values])))
  }
}

const LONGEST_WAIT_MS = 60_000
/** Brings the tables up to date. Of servers that start at once one does it and the others wait. */
export async function migrateDatabase(url: string, folder: string): Promise<void> {
  const [connection, other] = await Promise.all([1, 2].map(() => mysql.createConnection({ uri: url, timezone: 'Z' })))
  if (!connection || !other) return
  const turn = drizzle(other)
  try {
    await turn.execute(LEASE_TABLE)
    await inTurn(turn, { name: 'migrate', waitMs: LONGEST_WAIT_MS }, async () => {
      await migrate(drizzle(connection), { migrationsFolder: folder })
      await drizzle(connection).transaction(carryOver)
    })
  } finally {
    await Promise.all([connection.end(), other.end()])
  }
}

const TRIES = 8

/** All writes go through here: one transaction, tried again when the database asks for it. */
export async function transact<T>(db: Db, work: (tx: Tx) => Promise<T>): Promise<T> {
  for (let attempt = 1; ; attempt++) {
    try {
      return await db.transaction(work)
    } catch (problem) {
      if (attempt >= TRIES || !isConflict(problem)) throw problem
      await new Promise((done) => setTimeout(done, (0.5 + Math.random()) * 10 * attempt * attempt))
    }
  }
}
