import { createServer, type Server } from 'node:http'
import { type AddressInfo } from 'node:net'
import type mysql from 'mysql2/promise'
import { format } from 'mysql2/promise'
import { makeRandom } from '@core/random/random.ts'
import { compose, type Composed } from '@server/wiring/compose.ts'
import { rebuild } from '@server/projection/rebuild.ts'
import { Client, LEAD } from './client.ts'
import { copyOfYard, dropDatabase, migratedDatabase } from './worlds.ts'

/** A real server on a real database of its own, with a clock and a random source that the test holds. */
export interface TestServer {
  parts: Composed
  url: string
  databaseUrl: string
  clock: { nowMs: number }
  faults: unknown[]
  close: () => Promise<void>
  /** Another server process's worth of parts on the same database. */
  second: () => Promise<TestServer>
}
let made = 0

/** `isYard`: with the demo yard in it, as it stood when it was built at that instant. `base`: on a database server of the test's own. */
export async function startTestServer(at: {
  nowMs: number
  seed?: number
  isYard?: boolean
  base?: string
  machine?: { folder: string; backups: string }
}): Promise<TestServer> {
  const base = at.base ?? process.env['TEST_DATABASE_URL']
  if (!base) throw new Error('TEST_DATABASE_URL is not set: run npm test')
  const name = `t_${process.pid}_${Math.floor(performance.now())}_${made++}`
  const databaseUrl = at.isYard ? await copyOfYard(base, name, at.nowMs) : await migratedDatabase(base, name)
  return listen({
    databaseUrl,
    isKept: at.base !== undefined,
    open: { servers: 0 },
    clock: { nowMs: at.nowMs },
    seed: at.seed ?? 1,
    machine: at.machine,
  })
}

interface Listening {
  databaseUrl: string
  /** On a database server of the test's own, which takes it along at its end. */
  isKept: boolean
  /** How many run on it: with the last to close it goes, so that a run never holds more than it works on. */
  open: { servers: number }
  clock: { nowMs: number }
  seed: number
  machine?: { folder: string; backups: string } | undefined
}
async function listen(at: Listening): Promise<TestServer> {
  const faults: unknown[] = []
  at.open.servers++
  const parts = compose({
    databaseUrl: at.databaseUrl,
    webFolder: null,
    ...at.machine,
    onFault: (problem) => faults.push(problem),
    now: () => at.clock.nowMs,
    random: makeRandom(at.seed),
    signInsPerMinute: 1000,
    isAnswerChecked: true,
  })
  const server: Server = createServer(parts.app)
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done))
  return {
    parts,
    clock: at.clock,
    faults,
    databaseUrl: at.databaseUrl,
    url: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
    close: async () => {
      server.closeAllConnections()
      await new Promise((done) => server.close(done))
      await parts.close()
      if (--at.open.servers === 0 && !at.isKept) await dropDatabase(at.databaseUrl)
    },
    second: () => listen({ ...at, seed: at.seed + 100 }),
  }
}

type Values = Parameters<typeof format>[1]
type Asks = Record<'query' | 'execute', (...given: unknown[]) => unknown>
/** The statements a piece of work sends to the database, as they go out. */
export async function sentOf(server: TestServer, work: () => Promise<unknown>): Promise<string[]> {
  const { pool } = (server.parts.deps.db as unknown as { $client: mysql.Pool }).$client
  const own = new Map<Asks, Asks>()
  const sent: string[] = []
  const listen = (connection: Asks) => {
    if (own.has(connection)) return
    own.set(connection, { query: connection.query, execute: connection.execute })
    for (const way of ['query', 'execute'] as const) {
      const ask = connection[way]
      connection[way] = (...given) => {
        const [what, values] = given as [string | { sql: string; values?: Values }, Values?]
        const [text, own] = typeof what === 'string' ? [what, undefined] : [what.sql, what.values]
        sent.push(format(text, Array.isArray(values) ? values : own))
        return ask.apply(connection, given)
      }
    }
  }
  pool.on('acquire', listen as never)
  try {
    await work()
  } finally {
    pool.off('acquire', listen as never)
    for (const [connection, { query, execute }] of own) Object.assign(connection, { query, execute })
  }
  return sent
}
/** How many statements a piece of work sends to the database. */
export const statementsOf = async (server: TestServer, work: () => Promise<unknown>): Promise<number> =>
  (await sentOf(server, work)).length

/** Rows that building everything anew from the ledger would change: none, where every write projected what it had to. */
export const driftOf = async (server: TestServer): Promise<number> =>
  Object.values(await rebuild(server.parts.deps, false)).reduce((a, b) => a + b, 0)

export { Client, LEAD, makePlaces, nextKey, type Answer } from './client.ts'

/** A shop with its first lead signed in. */
export async function openShop(
  server: TestServer,
  over: { zone?: string; units?: 'metric' | 'us' } = {},
): Promise<Client> {
  const lead = new Client(server.url)
  await lead.post('/people/first-lead', {
    shopName: 'Test shop',
    zone: over.zone ?? 'UTC',
    units: over.units ?? 'metric',
    ...LEAD,
  })
  return lead
}
