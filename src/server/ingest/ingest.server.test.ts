import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { count } from 'drizzle-orm'
import { type ImportPreview } from '@contract/ingest.ts'
import { type Problem } from '@contract/common.ts'
import { type FloorAnswer } from '@contract/floor.ts'
import { importRun, ledgerEvent, station, usageSpan } from '@server/db/schema.ts'
import { type Client, nextKey, openShop, startTestServer, type TestServer } from '@server/testing/testserver.ts'
import { withPowerCut } from '@server/testing/powercut.ts'
import { parseDay } from '@contract/when.ts'
import { lookAt, readSheet } from './sheet.ts'

const NOW = Date.UTC(2026, 10, 23, 15, 0)
let server: TestServer
let lead: Client
const rows = async (table: typeof station | typeof usageSpan | typeof ledgerEvent | typeof importRun) =>
  (await server.parts.deps.db.select({ n: count() }).from(table))[0]?.n ?? 0

beforeAll(async () => {
  server = await startTestServer({ nowMs: NOW })
  lead = await openShop(server)
  await lead.post('/shop/wire', {
    key: nextKey(),
    name: 'solid 1.0',
    construction: 'solid',
    size: '1.0',
    densityGPerCm3: 7.85,
    spoolKg: 15,
  })
})
afterAll(() => server.close())

const PLACES =
  'Booth;Bay;Part type;Part no;Put on;Wire;Cable m\nK1;North;tip;;20.11.2026;1,0;4\nK1;North;liner;;01.10.2026;;4\nK2;North;;;;;3,5'
const BROKEN =
  'Booth;Bay;Part type;Part no;Put on;Wire;Cable m\n;North;tip;;20.11.2026;;4\nK1;North;banana;;20.11.2026;;4\nK2;North;tip;;32.13.2026;;4\nK3;North;tip;XX-9;20.11.2026;;4\nK4;North;;;;2.2;4\nK5;North;;;;;4000'

describe('a sheet of places', () => {
  it('with mistakes is refused: a line each with row, column, value and why; nothing is written', async () => {
    const preview = (await lead.post<ImportPreview>('/ingest/preview', { kind: 'places', text: BROKEN })).body
    // Rows may be left out, but only where somebody says so.
    expect(preview.canTake).toBe(true)
    expect(preview.bad.map((b) => [b.row, b.column, b.value])).toEqual([
      [2, 'Booth', ''],
      [3, 'Part type', 'banana'],
      [4, 'Put on', '32.13.2026'],
      [5, 'Part no', 'XX-9'],
      [6, 'Wire', '2.2'],
      [7, 'Cable m', '4000'],
    ])
    expect(preview.bad.every((b) => b.why.length > 10)).toBe(true)
    const before = await rows(station)
    const refused = await lead.post<Problem>('/ingest/take', { kind: 'places', text: BROKEN })
    expect(refused.status).toBe(422)
    expect(refused.body.details).toHaveLength(6)
    expect(await rows(station)).toBe(before)
  })
  it('that is right is taken in whole, and again does nothing', async () => {
    const preview = (await lead.post<ImportPreview>('/ingest/preview', { kind: 'places', text: PLACES })).body
    expect(preview).toMatchObject({ canTake: true, rows: 3, would: { 'places new': 2, 'parts put on': 2 } })
    expect(await lead.post('/ingest/take', { kind: 'places', text: PLACES })).toMatchObject({
      status: 200,
      body: { isRepeat: false },
    })
    const [stations, events] = [await rows(station), await rows(ledgerEvent)]
    expect(await lead.post('/ingest/take', { kind: 'places', text: PLACES })).toMatchObject({
      body: { isRepeat: true },
    })
    expect(await lead.post('/ingest/take', { kind: 'places', text: `${PLACES}\n` })).toMatchObject({ status: 200 })
    expect([await rows(station), await rows(ledgerEvent)]).toEqual([stations, events])
    const floor = (await lead.get<FloorAnswer>('/floor')).body
    expect(floor.guns.map((g) => g.name)).toEqual(['K1', 'K2'])
  })
  it('whose needed column is missing says which', async () => {
    const preview = (await lead.post<ImportPreview>('/ingest/preview', { kind: 'places', text: 'x,y\n1,2' })).body
    expect(preview.bad.map((b) => b.column)).toEqual(['place', 'area'])
    const mapped = (
      await lead.post<ImportPreview>('/ingest/preview', {
        kind: 'places',
        text: 'x,y\n1,2',
        columns: { place: 0, area: 1 },
      })
    ).body
    expect(mapped.canTake).toBe(true)
  })
})

describe('a sheet of usage', () => {
  const USAGE = 'date,booth,arc hours,kg\n2026-11-20,K1,"2,4",\n2026-11-20,K2,,6.1\n2026-11-21,K1,3,'
  const BAD =
    'date,booth,arc hours,kg\n2026-11-20,K9,2,\nsoon,K1,2,\n2026-11-20,K1,150,\n2026-11-20,K2,,\n2027-01-01,K1,2,\n2026-11-20,K2,1,\n2026-11-20,K2,2,'
  it('with mistakes names each, with the likely slip', async () => {
    const preview = (await lead.post<ImportPreview>('/ingest/preview', { kind: 'usage', text: BAD })).body
    expect(preview.bad.map((b) => b.row)).toEqual([2, 3, 4, 6, 8])
    expect(preview.leftOut).toEqual([{ row: 5, text: 'K2: no amount' }])
    expect(preview.bad[2]?.why).toContain('minutes')
    expect(preview.bad[4]?.why).toContain('row 7')
  })
  it('moves the clocks; a mended total is taken beside what is there already', async () => {
    expect(await lead.post('/ingest/take', { kind: 'usage', text: USAGE })).toMatchObject({
      status: 200,
      body: { did: { 'usage rows new': 3 } },
    })
    const mended = USAGE.replace('"2,4"', '2.9')
    expect(await lead.post('/ingest/take', { kind: 'usage', text: mended })).toMatchObject({
      body: { did: { 'usage rows new': 1, 'usage rows there already': 2 } },
    })
    expect(await rows(usageSpan)).toBe(4)
  })
  it('that fails half way leaves nothing behind', async () => {
    const before = [await rows(usageSpan), await rows(ledgerEvent), await rows(importRun)]
    const text = 'date,booth,arc hours\n2026-11-18,K1,2\n2026-11-18,K2,3'
    const cut = await withPowerCut(server, () => lead.post('/ingest/take', { kind: 'usage', text }))
    expect(cut.status).toBe(500)
    expect([await rows(usageSpan), await rows(ledgerEvent), await rows(importRun)]).toEqual(before)
    expect((await lead.post('/ingest/take', { kind: 'usage', text })).status).toBe(200)
  })
})

describe('reading', () => {
  it('days are read as the shop writes them, and no day is refused', () => {
    expect(['2026-11-20', '20.11.2026', '20/11/2026', '3.1.2026'].map((t) => parseDay(t, 'metric'))).toEqual([
      '2026-11-20',
      '2026-11-20',
      '2026-11-20',
      '2026-01-03',
    ])
    expect(parseDay('11/20/2026', 'us')).toBe('2026-11-20')
    expect(['31.02.2026', 'today', ''].map((t) => parseDay(t, 'metric'))).toEqual([null, null, null])
  })
  it('an empty sheet and one without rows are refused with words', () =>
    expect(() =>
      readSheet({ kind: 'usage' }, lookAt('date,booth', { dayOf: () => null, kinds: [], places: [] })),
    ).toThrow('nothing in that sheet'))
})
