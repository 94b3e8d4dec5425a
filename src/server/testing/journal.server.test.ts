import { existsSync, mkdirSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as pause } from 'node:timers/promises'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { type LogbookAnswer } from '@contract/logbook.ts'
import { makePlaces, nextKey, openShop, startTestServer, type Client, type TestServer } from './testserver.ts'

/** A back-up taken forward to a second after it, by what the database kept of every write. */
interface Head {
  madeMs: number
  journal?: { file: string; position: number }
}
interface Scripts {
  startDatabase: (at: object) => Promise<{ url: string; stop: () => Promise<void> }>
  makeBackup: (of: { url: string; folder: string; nowMs?: number }) => Promise<{ path: string; head: Head }>
  restoreBackup: (path: string, to: { url: string; onward?: object | null }) => Promise<Head>
  piecesAfter: (at: object) => string[]
  noteRestore: (folder: string, atMs: number) => void
}
let scripts: Scripts
let database: Awaited<ReturnType<Scripts['startDatabase']>>
let server: TestServer
let lead: Client
let ids: Map<string, string>
const home = mkdtempSync(join(existsSync('/dev/shm') ? '/dev/shm' : tmpdir(), 'idle-journal-'))
const [folder, kept] = [join(home, 'db'), join(home, 'backups')]
const journal = join(folder, 'journal')
beforeAll(async () => {
  const from = async (name: string) =>
    (await import(/* @vite-ignore */ new URL(`../../../scripts/lib/${name}.mjs`, import.meta.url).href)) as Scripts
  scripts = { ...(await from('mariadb')), ...(await from('backup')), ...(await from('journal')) }
  mkdirSync(home, { recursive: true, mode: 0o755 })
  database = await scripts.startDatabase({ folder, wantedPort: 35_900, isThrowaway: true, isJournaled: true })
  server = await startTestServer({ nowMs: Date.now(), base: database.url })
  lead = await openShop(server)
  ids = await makePlaces(lead, 'A1')
}, 120_000)
afterAll(async () => {
  await server.close()
  await database.stop()
  rmSync(home, { recursive: true, force: true })
})
const note = async (words: string) => {
  server.clock.nowMs = Date.now()
  const act = { stationId: ids.get('A1'), act: 'changed', position: 'tip', outReason: 'worn', note: words }
  expect((await lead.post('/logbook', { key: nextKey(), acts: [act] })).status).toBe(200)
}
const notes = async () =>
  (await lead.get<LogbookAnswer>('/logbook')).body.lines.flatMap((l) => ('note' in l && l.note ? [String(l.note)] : []))

describe('a journal', () => {
  it('takes a back-up forward to the second that is asked for, and no further', async () => {
    await note('before it')
    const { path, head } = await scripts.makeBackup({ url: server.databaseUrl, folder: kept })
    expect(head.journal?.file).toMatch(/^log[.]\d+$/)
    await note('after it')
    await pause(1500)
    const untilMs = Math.floor(Date.now() / 1000) * 1000
    await pause(2500)
    await note('the mistake')
    const onward = { untilMs, pieces: scripts.piecesAfter({ head, untilMs, folder, journal }) }
    await scripts.restoreBackup(path, { url: server.databaseUrl, onward })
    expect((await notes()).sort()).toEqual(['after it', 'before it'])
    // And what is noted from here on goes in as ever.
    await note('anew')
    expect(await notes()).toContain('anew')
    scripts.noteRestore(folder, Date.now())
    expect(() => scripts.piecesAfter({ head, untilMs: Date.now(), folder, journal })).toThrow(/put back at/)
  }, 120_000)
  it('says why it can’t be gone by', async () => {
    const { head } = await scripts.makeBackup({ url: server.databaseUrl, folder: kept, nowMs: Date.now() + 1000 })
    const at = { head: { ...head, madeMs: Date.now() }, folder, journal }
    const nowMs = Date.now() + 10_000
    expect(scripts.piecesAfter({ ...at, untilMs: nowMs - 1000, nowMs }).length).toBeGreaterThan(0)
    for (const [over, words] of [
      [{ head: { ...head, journal: undefined } }, /without a journal/],
      [{ untilMs: NaN }, /Until when/],
      [{ untilMs: head.madeMs - 60_000 }, /take one of before/],
      [{ untilMs: nowMs + 1 }, /still to come/],
      [{ journal: home }, /does not begin before/],
    ] as const)
      expect(() => scripts.piecesAfter({ ...at, untilMs: nowMs - 1000, nowMs, ...over })).toThrow(words)
  }, 60_000)
})
