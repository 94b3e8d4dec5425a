import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath, pathToFileURL } from 'node:url'
import { gunzipSync, gzipSync } from 'node:zlib'
import mysql from 'mysql2/promise'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { type LogAnswer } from '@contract/logbook.ts'
import type { Client } from './testserver.ts'
import { makePlaces, nextKey, openShop, startTestServer, type TestServer } from './testserver.ts'
import { emptyDatabase } from './worlds.ts'

/** A back-up made while people log, checked, put back, and refused when it is not whole. */
interface Head {
  shop: string
  sums: Record<string, [number, string]>
}
interface Backups {
  makeBackup: (of: { url: string; folder: string; nowMs?: number }) => Promise<{ path: string; head: Head }>
  checkBackup: (path: string) => Promise<Head>
  restoreBackup: (path: string, to: { url: string }) => Promise<Head>
  backupsIn: (folder: string) => { name: string; madeMs: number }[]
  backupsToDrop: <T extends { madeMs: number }>(backups: T[]) => T[]
}
const DAY = 86_400_000
let backups: Backups
let server: TestServer
let lead: Client
let ids: Map<string, string>
let folder: string
beforeAll(async () => {
  const script = fileURLToPath(new URL('../../../scripts/lib/backup.mjs', import.meta.url))
  backups = (await import(/* @vite-ignore */ pathToFileURL(script).href)) as Backups
  folder = mkdtempSync(join(existsSync('/dev/shm') ? '/dev/shm' : tmpdir(), 'idle-backup-'))
  server = await startTestServer({ nowMs: Date.UTC(2026, 10, 23, 12) })
  lead = await openShop(server)
  ids = await makePlaces(lead, 'A1–A6')
})
afterAll(async () => {
  await server.close()
  rmSync(folder, { recursive: true, force: true })
})
const tip = (name: string) =>
  lead.post<LogAnswer>('/logbook', {
    key: nextKey(),
    acts: [{ stationId: ids.get(name), act: 'changed', position: 'tip', outReason: 'worn', note: "ünïcode \\ ' 😀" }],
  })
const countIn = async (url: string, table: string) => {
  const connection = await mysql.createConnection(url)
  const [rows] = await connection.query<mysql.RowDataPacket[]>(`select count(*) as n from \`${table}\``)
  await connection.end()
  return Number(rows[0]?.['n'])
}

describe('a back-up', () => {
  it('made while people log is of one instant, and put back it is the same, row by row', async () => {
    let isOver = false
    const logging = (async () => {
      for (let i = 0; !isOver; i++) expect((await tip(`A${(i % 6) + 1}`)).status).toBe(200)
    })()
    const { path, head } = await backups.makeBackup({ url: server.databaseUrl, folder })
    isOver = true
    await logging
    expect(statSync(path).mode & 0o077).toBe(0)
    expect(readdirSync(folder)).toHaveLength(1)
    // What was logged while it was written is in none of its tables.
    expect(head.sums['ledger_event']?.[0]).toBeLessThan(await countIn(server.databaseUrl, 'ledger_event'))
    expect((await backups.checkBackup(path)).shop).toBe(head.shop)
    const other = await emptyDatabase(server.databaseUrl, `restored_${process.pid}`)
    await backups.restoreBackup(path, { url: other })
    expect(await countIn(other, 'ledger_event')).toBe(head.sums['ledger_event']?.[0])
    expect(await countIn(other, 'person')).toBe(1)
  }, 120_000)
  it('cut, altered or of something else is refused in words, and nothing is put in place of what is there', async () => {
    const [whole] = backups.backupsIn(folder)
    const bytes = readFileSync(join(folder, whole?.name ?? ''))
    const text = gunzipSync(bytes).toString()
    const made = (name: string, content: Buffer) => {
      writeFileSync(join(folder, name), content)
      return join(folder, name)
    }
    const altered = text.replace(/(INSERT INTO `station` VALUES\s*[^;]*?)'A1'/, "$1'A9'")
    expect(altered).not.toBe(text)
    const bad: [string, RegExp][] = [
      [made('cut.gz', bytes.subarray(0, bytes.length - 3000)), /can't be read to its end|is not whole/],
      [made('short.gz', bytes.subarray(0, 30)), /is no back-up/],
      [made('altered.gz', gzipSync(altered)), /is not whole:\n {2}station: 6 rows/],
      [made('other.gz', gzipSync('select 1;\n')), /is no back-up/],
      [join(folder, 'none.gz'), /There is no file/],
    ]
    const before = await countIn(server.databaseUrl, 'station')
    for (const [path, words] of bad)
      await expect(backups.restoreBackup(path, { url: server.databaseUrl })).rejects.toThrow(words)
    expect(await countIn(server.databaseUrl, 'station')).toBe(before)
  }, 120_000)
  it('of a database without a shop is none', async () => {
    const url = await emptyDatabase(server.databaseUrl, `bare_${process.pid}`)
    await expect(backups.makeBackup({ url, folder: join(folder, 'bare') })).rejects.toThrow('There is no shop')
    expect(readdirSync(join(folder, 'bare'))).toEqual([])
  })
})

describe('which back-ups stay', () => {
  const nowMs = Date.UTC(2026, 10, 30, 3)
  const staying = (all: { madeMs: number }[]) => {
    const gone = new Set(backups.backupsToDrop(all))
    return all.filter((b) => !gone.has(b)).map((b) => Math.round((nowMs - b.madeMs) / DAY))
  }
  const daily = (days: number) => Array.from({ length: days }, (_, i) => ({ madeMs: nowMs - i * DAY }))
  it('the last seven days, four weeks and twelve months, each by its newest', () => {
    const kept = staying(daily(800))
    expect(kept.slice(0, 7)).toEqual([0, 1, 2, 3, 4, 5, 6])
    expect(kept.length).toBeLessThanOrEqual(7 + 4 + 12)
    expect(Math.max(...kept)).toBeGreaterThan(300)
    expect(Math.max(...kept)).toBeLessThan(366)
  })
  it('of many in a day the newest, and never none', () => {
    const all = [0, 1, 2, 3].map((i) => ({ madeMs: nowMs - i * 1000 }))
    expect(backups.backupsToDrop(all)).toEqual(all.slice(1))
    expect(backups.backupsToDrop([{ madeMs: 0 }])).toEqual([])
    expect(backups.backupsToDrop([])).toEqual([])
  })
})
