import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { type Held } from '@core/holding/holding.ts'
import { type HoldingAnswer } from '@contract/holding.ts'
import {
  Client,
  LEAD,
  makePlaces,
  nextKey,
  openShop,
  startTestServer,
  type TestServer,
} from '@server/testing/testserver.ts'

/** What somebody who looks after the program is told of it. */
const NOW = Date.UTC(2026, 10, 23, 12)
const DAY = 86_400_000
const folder = mkdtempSync(join(tmpdir(), 'idle-holding-'))
const backups = join(folder, 'backups')
let server: TestServer
let lead: Client
let ids: Map<string, string>
beforeAll(async () => {
  mkdirSync(backups)
  server = await startTestServer({ nowMs: NOW, machine: { folder, backups } })
  lead = await openShop(server)
  ids = await makePlaces(lead, 'A1–A2')
})
afterAll(async () => {
  expect(server.faults).toEqual([])
  await server.close()
  rmSync(folder, { recursive: true, force: true })
})
const holding = async () => (await lead.get<HoldingAnswer>('/shop/holding')).body
const levelOf = (answer: HoldingAnswer, what: Held) => answer.lines.find((l) => l.what === what)?.level

describe('how it holds up', () => {
  it('tells the disk, the database and that nothing was ever backed up', async () => {
    const answer = await holding()
    expect(answer.disk?.freeBytes).toBeGreaterThan(0)
    expect(answer.databaseBytes).toBeGreaterThan(100_000)
    expect(levelOf(answer, 'database')).toBe('well')
    expect(answer.backups).toEqual({ isKept: true, newestMs: null, count: 0, bytes: 0 })
    expect(levelOf(answer, 'backups')).toBe('well')
    server.clock.nowMs += 8 * DAY
    expect(levelOf(await holding(), 'backups')).toBe('act')
    server.clock.nowMs = NOW
  })
  it('goes by the newest back-up, and by back-ups alone', async () => {
    for (const name of ['shop-2026-11-20T030000Z.sql.gz', 'shop-2026-11-22T030000Z.sql.gz', 'notes.txt'])
      writeFileSync(join(backups, name), 'x'.repeat(100))
    const answer = await holding()
    expect(answer.backups).toEqual({ isKept: true, newestMs: Date.UTC(2026, 10, 22, 3), count: 2, bytes: 200 })
    expect(levelOf(answer, 'backups')).toBe('well')
  })
  it('names what a device brought that was refused, once, and forgets it after a fortnight', async () => {
    const device = new Client(server.url)
    const link = await lead.post<{ path: string }>('/people/device-link', { key: nextKey(), name: 'bay tablet' })
    await device.post('/people/bind', { token: link.body.path.split('/').at(-1) })
    const late = { key: nextKey(), acts: [{ stationId: ids.get('A1'), act: 'seen' }] }
    // Refused at once, where somebody stands and reads it: nothing for anybody else.
    expect((await device.post('/logbook', { ...late, acts: [{ stationId: 'stn_none', act: 'seen' }] })).status).toBe(
      404,
    )
    device.notedMs = NOW + DAY
    for (let i = 0; i < 2; i++) expect((await device.post('/logbook', late)).status).toBe(422)
    device.notedMs = null
    const entry = {
      key: nextKey(),
      stationId: 'stn_none',
      happenedMs: NOW,
      looks: [{ what: 'nozzleOpen', grade: 'clean' }],
    }
    await device.post('/walk/found', { key: nextKey(), entries: [entry] })
    const { refusals, refused, lines } = await holding()
    expect([refused, refusals.map((r) => r.from)]).toEqual([2, ['bay tablet', 'bay tablet']])
    expect(lines.find((l) => l.what === 'refused')?.level).toBe('look')
    server.clock.nowMs += 15 * DAY
    await lead.post('/people/sign-in', LEAD)
    device.notedMs = server.clock.nowMs + DAY
    await device.post('/logbook', { ...late, key: nextKey() })
    expect((await holding()).refused).toBe(1)
  })
  it('names feeders that have gone silent', async () => {
    const made = await lead.post<{ token: string }>('/shop/feeder', {
      key: nextKey(),
      stationId: ids.get('A1'),
      equipmentId: 'F-1',
    })
    expect((await holding()).feeders).toEqual([{ name: 'F-1', heardMs: null, clockOffMs: 0 }])
    const row = {
      equipmentId: 'F-1',
      bootId: 'b',
      seq: 1,
      atMs: server.clock.nowMs,
      wireFedM: 1,
      arcOnS: 1,
      arcStarts: 1,
      isArcOn: false,
    }
    const sent = await fetch(`${server.url}/api/ingest`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', authorization: `Bearer ${made.body.token}` },
      body: JSON.stringify({ sentMs: server.clock.nowMs, rows: [row] }),
    })
    expect(sent.status).toBe(200)
    expect(levelOf(await holding(), 'feeders')).toBe('well')
    server.clock.nowMs += 4 * 3_600_000
    expect(levelOf(await holding(), 'feeders')).toBe('look')
  })
})
