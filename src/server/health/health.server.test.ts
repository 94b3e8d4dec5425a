import { mkdtempSync, rmSync, existsSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath, pathToFileURL } from 'node:url'
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest'
import { type Problem } from '@contract/common.ts'
import type { Client } from '@server/testing/testserver.ts'
import { makePlaces, nextKey, openShop, startTestServer, type TestServer } from '@server/testing/testserver.ts'
import { DatabaseWatch, passingFault } from './watch.ts'

/** A database that hangs, goes and comes back, under a server that stays. */
interface Started {
  url: string
  pid: number
  stop: () => Promise<void>
}
const script = pathToFileURL(fileURLToPath(new URL('../../../scripts/lib/mariadb.mjs', import.meta.url))).href
let folder: string
let database: Started
const start = async () => {
  const { startDatabase } = (await import(/* @vite-ignore */ script)) as {
    startDatabase: (at: object) => Promise<Started>
  }
  return startDatabase({ folder: join(folder, 'db'), isThrowaway: true })
}
beforeAll(async () => {
  folder = mkdtempSync(join(existsSync('/dev/shm') ? '/dev/shm' : tmpdir(), 'idle-health-'))
  database = await start()
}, 60_000)
afterAll(async () => {
  await database.stop()
  rmSync(folder, { recursive: true, force: true })
})

describe('a database that hangs', () => {
  let server: TestServer
  let lead: Client
  let ids: Map<string, string>
  beforeAll(async () => {
    server = await startTestServer({ nowMs: Date.UTC(2026, 10, 23, 12), base: database.url })
    lead = await openShop(server)
    ids = await makePlaces(lead, 'A1')
  })
  afterAll(() => server.close())
  const tip = () => ({
    key: nextKey(),
    acts: [{ stationId: ids.get('A1'), act: 'changed', position: 'tip', outReason: 'worn' }],
  })

  it('keeps nobody waiting: what is under way and what comes is refused as not now, and after it all is well', async () => {
    const status = async (path: string) => (await fetch(`${server.url}/api${path}`)).status
    expect([await status('/live'), await status('/ready')]).toEqual([200, 200])
    process.kill(database.pid, 'SIGSTOP')
    const written = tip()
    try {
      const underway = await lead.post<Problem>('/logbook', written)
      expect(underway).toMatchObject({ status: 503, body: { code: 'busy' } })
      expect(await lead.get<Problem>('/floor')).toMatchObject({ status: 503, body: { code: 'busy' } })
      expect([await status('/live'), await status('/ready')]).toEqual([200, 503])
    } finally {
      process.kill(database.pid, 'SIGCONT')
    }
    await vi.waitFor(async () => expect((await lead.get('/floor')).status).toBe(200), { timeout: 15_000 })
    // The same again is written once, whether it went in meanwhile or not.
    expect((await lead.post('/logbook', written)).status).toBe(200)
    const day = await lead.get<{ lines: { fact: { kind: string } }[] }>('/logbook')
    expect(day.body.lines.filter((l) => l.fact.kind === 'fitted')).toHaveLength(1)
  }, 60_000)

  it('killed and started again is used again by the server that stayed', async () => {
    process.kill(database.pid, 'SIGKILL')
    const refused = await lead.post<Problem>('/logbook', tip())
    expect(refused).toMatchObject({ status: 503, body: { code: 'busy' } })
    await database.stop()
    const again = await start()
    expect(again.url).toBe(database.url)
    database = again
    await vi.waitFor(async () => expect((await lead.post('/logbook', tip())).status).toBe(200), { timeout: 15_000 })
  }, 60_000)

  it('numbers are for this machine and for leads, by route and never by address', async () => {
    const metrics = await (await fetch(`${server.url}/api/metrics`)).text()
    expect(metrics).toMatch(/idle_database_there 1/)
    expect(metrics).toMatch(/idle_http_seconds_count\{method="POST",route="\/api\/logbook",status="200"\} \d/)
    for (const id of ids.values()) expect(metrics).not.toContain(id)
    const passedOn = { headers: { 'x-forwarded-for': '10.0.0.9' } }
    expect((await fetch(`${server.url}/api/metrics`, passedOn)).status).toBe(401)
  })
})

describe('the watch', () => {
  it('takes a database for gone only when looks have failed for a while', async () => {
    let nowMs = 0
    const watch = new DatabaseWatch('mysql://nobody:x@127.0.0.1:1/none', () => nowMs)
    expect(await watch.answers()).toBe(false)
    expect(watch.isThere()).toBe(true)
    nowMs += 3000
    expect(watch.isThere()).toBe(false)
    await expect(watch.within(() => Promise.resolve(1))).rejects.toMatchObject({ code: 'busy' })
  })
})

it.each([
  [{ code: 'ER_DISK_FULL', sqlState: 'HY000' }, 'disk-full'],
  [{ code: 'ER_RECORD_FILE_FULL', sqlState: 'HY000' }, 'disk-full'],
  [{ code: 'ECONNREFUSED', fatal: true }, 'busy'],
  [{ code: 'ER_LOCK_DEADLOCK', errno: 1213, sqlState: '40001' }, 'busy'],
  [{ message: "Can't add new command when connection is in closed state", fatal: true }, 'busy'],
  [{ code: 'ER_DUP_ENTRY', sqlState: '23000' }, undefined],
  // A file that is not there is no database.
  [{ code: 'ENOENT' }, undefined],
])('%o is told as %s', (from, code) =>
  expect(passingFault(new Error('x', { cause: Object.assign(new Error('y'), from) }))?.code).toBe(code),
)
it('more that wait for a connection than may is told as busy, and is no fault of the program', () =>
  // A transaction that gets none says so by the driver's own words, with no number and no query.
  expect(passingFault(new Error('Queue limit reached.'))?.code).toBe('busy'))
