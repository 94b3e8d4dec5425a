import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { eq } from 'drizzle-orm'
import { ALL_TABS } from '@core/ingest/tabs.ts'
import { type Problem } from '@contract/common.ts'
import { type FindAnswer } from '@contract/gun.ts'
import { type ImportPreview, type ReadFileAnswer } from '@contract/ingest.ts'
import { type LogbookAnswer } from '@contract/logbook.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import { workbookOf } from '@server/testing/workbook.ts'
import { part, usageSpan } from '@server/db/schema.ts'
import {
  driftOf,
  makePlaces,
  nextKey,
  openShop,
  startTestServer,
  Client,
  type TestServer,
} from '@server/testing/testserver.ts'

/** Sheets as shops have them, each lying another way, into a shop that has two bays and knows nothing else. */
let server: TestServer
let lead: Client
beforeAll(async () => {
  server = await startTestServer({ nowMs: Date.UTC(2026, 10, 23, 15) })
  lead = await openShop(server)
  await makePlaces(lead, 'A1–A6')
})
afterAll(async () => {
  expect(server.faults).toEqual([])
  await server.close()
})
beforeEach(() => {
  server.clock.nowMs += 60_000
})
const look = async (text: string, over: object = {}) =>
  (await lead.post<ImportPreview>('/ingest/preview', { kind: 'guess', text, ...over })).body
const take = (kind: string, text: string, over: object = {}) =>
  lead.post<{ did: Record<string, number> } & Problem>('/ingest/take', { kind, text, ...over })
const say = (word: string, kindKey: string | null) => lead.post('/ingest/word', { key: nextKey(), word, kindKey })
const shop = async () => (await lead.get<ShopAnswer>('/shop')).body
const factsOf = async (day: string) =>
  (await lead.get<LogbookAnswer>(`/logbook?day=${day}`)).body.lines.map(
    (l) => `${l.stationName ?? ''} ${'position' in l.fact ? l.fact.position : ''} ${l.fact.kind}`,
  )

describe('a line a gun with parts across', () => {
  const KNOWN = 'Changes\nGun,Tip,Shroud,Liner\nA1,3.11.,"3.11., 17.11.",\nA2,soon,-,2 Oct\nA3,,,'
  it('of known guns is past work: a line in the log for each day, a cell that is no day named', async () => {
    const seen = await look(KNOWN)
    expect(seen).toMatchObject({ kind: 'history', lies: 'partsAcross', bad: [{ row: 4, value: 'soon' }] })
    expect((await take('history', KNOWN, { leaveOutBad: true })).body.did).toMatchObject({ 'parts put on': 4 })
    expect(await factsOf('2026-11-03')).toEqual(['A1 tip fitted', 'A1 nozzle fitted'])
    expect(await factsOf('2026-10-02')).toEqual(['A2 liner fitted'])
  })
  it('of guns nobody set up makes them, in the bay that is said once, with the wires of the trade it names', async () => {
    const text = 'Booth,Wire,Tip,Cup\nP1,.035 solid,3.11.,\nP2,.035 solid,,4.11.\nP3,1.2,,'
    const seen = await look(text)
    expect(seen).toMatchObject({ kind: 'places', lies: 'partsAcross' })
    expect(seen.bad.map((b) => b.column)).toEqual(['area'])
    expect(seen.notTaken).toEqual([])
    const filled = await look(text, { fill: { area: 'Practice' } })
    expect(filled).toMatchObject({ canTake: true, would: { 'places new': 3, 'wires new': 1, 'parts put on': 2 } })
    expect(filled.bad).toMatchObject([{ row: 4, value: '1.2' }])
    expect((await take('places', text, { fill: { area: 'Practice' }, leaveOutBad: true })).status).toBe(200)
    const { areas, stations } = await shop()
    const practice = areas.find((a) => a.name === 'Practice')
    expect(stations.filter((s) => s.areaId === practice?.id).map((s) => s.name)).toEqual(['P1', 'P2', 'P3'])
  })
})

describe('a diary in sentences', () => {
  const DIARY = [
    'Mon 2 Nov: A4 nested at the rolls, new drive wheel. Cleaned the cup too.',
    'Boss wants more spools.',
    'Tue 3 Nov - A5 and A6 swapped lance; gun A4 new tip, burnt back',
    'Wed 4 Nov: a-05 swapped lance again',
  ].join('\n')
  it('becomes lines of its guns and days; what names no gun stays named by its row', async () => {
    const seen = await look(DIARY)
    expect(seen).toMatchObject({ kind: 'history', lies: 'diary', bad: [] })
    expect(seen.unread).toContainEqual({ row: 2, text: 'Boss wants more spools.' })
    expect(seen.words).toEqual([{ word: 'lance', notes: 3, examples: ['swapped lance', 'swapped lance again'] }])
  })
  it('has words that are asked about once, and found by search from then on', async () => {
    const names = async () => (await lead.get<FindAnswer>('/find')).body.kinds.find((k) => k.key === 'neck')?.words
    expect(await names()).not.toContain('lance')
    expect((await say('Lance', 'neck')).status).toBe(200)
    expect(await names()).toContain('lance')
    const seen = await look(DIARY)
    expect(seen.words).toEqual([])
    expect(seen.groups.find((g) => g.kindName === 'neck')).toMatchObject({ verb: 'changed', parts: 3 })
    expect((await take('history', DIARY)).body.did).toMatchObject({ 'parts put on': 5, cleanings: 1 })
    expect(await factsOf('2026-11-03')).toEqual(
      expect.arrayContaining(['A5 neck fitted', 'A6 neck fitted', 'A4 tip fitted']),
    )
  })
  it('a word may be taken back to another part, or be none on a gun', async () => {
    await say('lance', 'liner')
    const { kinds } = await shop()
    expect(kinds.filter((k) => k.synonyms.includes('lance')).map((k) => k.key)).toEqual(['liner'])
    await say('lance', null)
    expect((await shop()).kinds.some((k) => k.synonyms.includes('lance'))).toBe(false)
    expect((await look(DIARY)).words).toEqual([])
    await say('lance', 'neck')
    expect((await look(DIARY)).groups.some((g) => g.kindName === 'neck')).toBe(true)
  })
  it('said by a hand is refused', async () => {
    const hand = new Client(server.url)
    expect((await hand.post('/ingest/word', { key: nextKey(), word: 'lance', kindKey: 'tip' })).status).toBe(401)
  })
})

describe('a workbook with a tab a bay', () => {
  const workbook = async (tabs: Parameters<typeof workbookOf>[0]) =>
    (await lead.send<ReadFileAnswer>(`/ingest/file?sheet=${encodeURIComponent(ALL_TABS)}`, await workbookOf(tabs))).body
  const HEAD = ['Gun', 'Wire', 'Part', 'Put on']
  it('is read as one, the tab is the bay, and a bad cell is named by its tab and its row there', async () => {
    const file = await workbook({
      'North hall': [['North hall, 2026'], HEAD, ['N1', '', 'tip', '2026-11-02'], ['N2', '', 'sombrero', '2026-11-02']],
      'South hall': [HEAD, [], ['S1', '', 'shroud', '2026-11-03']],
    })
    expect(file).toMatchObject({ sheet: ALL_TABS, sheets: ['North hall', 'South hall'] })
    const seen = await look(file.text)
    expect(seen.kind).toBe('places')
    expect(seen.bad).toMatchObject([{ row: 3, value: 'sombrero' }])
    // Only of rows that it speaks of.
    expect(seen.rowNames).toEqual({ 3: 'North hall, row 4' })
    expect(seen.words.map((w) => w.word)).toEqual(['sombrero'])
    expect((await take('places', file.text, { leaveOutBad: true })).status).toBe(200)
    const { areas, stations } = await shop()
    const areaOf = (name: string) => areas.find((a) => a.id === stations.find((s) => s.name === name)?.areaId)?.name
    expect([areaOf('N2'), areaOf('S1')]).toEqual(['North hall', 'South hall'])
  })
})

describe('a bill', () => {
  const BILL = [
    'Weldright of Nowhere Ltd,,,,,',
    'Invoice 2206 of 12.11.2026,,,,,',
    'Pos,Article no,Description,Qty,Unit price,per',
    '1,T-1009,"Contact tip M6 x 28, 0.9",200,"64,00 €",100',
    '2,N-22,Shroud conical,10,9.80,1',
    '3,X-1,Leather gloves,6,11.00,1',
    '4,L-7,Steel liner 0.9-1.0 4 m,5,31.50,',
    ',,Freight,1,12.00,',
    ',,Total,,431.70,',
  ].join('\n')
  it('is a list of parts: what they are stands in their names, gloves and freight stay out and are named', async () => {
    const seen = await look(BILL)
    expect(seen).toMatchObject({ kind: 'parts', bad: [], would: { 'parts new': 3 } })
    expect(seen.leftOut.map((l) => l.row)).toEqual([6, 8, 9])
    expect((await take('parts', BILL)).status).toBe(200)
    const [tip] = await server.parts.deps.db.select().from(part).where(eq(part.code, 'T-1009'))
    expect(tip).toMatchObject({ kindKey: 'tip', wireSizeMm: 0.9, priceMinor: 64 })
  })
  it('is what was bought as well, in the month of the bill', async () => {
    const seen = await look(BILL, { kind: 'purchases' })
    expect(seen).toMatchObject({ bad: [], would: { 'purchases new': 3 } })
    expect((await take('purchases', BILL)).body.did).toMatchObject({ 'purchases new': 3 })
  })
})

describe('a class list', () => {
  const CLASS = 'Name,Booth,Wire,Process\nPia Moss,L1,0.9 solid,GMAW\nOle Tarn,L2,0.9 solid,GMAW\nIda Reed,L1,,GMAW'
  it('makes its booths, and neither takes nor keeps who learns there', async () => {
    const seen = await look(CLASS)
    expect(seen).toMatchObject({ kind: 'places', notTaken: ['Name', 'Process'] })
    const fill = { area: 'Class hall' }
    expect((await look(CLASS, { fill })).would).toMatchObject({ 'places new': 2, 'wires new': 0 })
    expect((await take('places', CLASS, { fill })).status).toBe(200)
    const { wires } = await shop()
    expect(wires.map((w) => w.name)).toContain('solid steel 0.9')
  })
})

describe('a feeder’s own export', () => {
  const EXPORT = [
    'timestamp;machine;arc_on_s;wire_m;starts',
    '2026-11-20T22:10:00Z;A1;900;100;3',
    '2026-11-20 23:40:00;A1;1800;50;2',
    '1795219200;WF-77;600;;1',
    '2026-11-20 10:00:00;A2;;;',
  ].join('\n')
  it('is added up by gun and day; seconds are hours, and metres wait for a wire to weigh them by', async () => {
    const seen = await look(EXPORT)
    expect(seen.kind).toBe('usage')
    expect(seen.names).toEqual([{ name: 'WF-77', rows: 1 }])
    expect(seen.bad.map((b) => b.column)).toEqual(['machine'])
    expect(seen.leftOut[0]).toMatchObject({ row: 2, text: expect.stringContaining('weighed by its wire') })
    const [a3] = (await shop()).stations.filter((s) => s.name === 'A3')
    const own = { names: { 'WF-77': a3?.id ?? '' } }
    expect(await look(EXPORT, { kind: 'usage', ...own })).toMatchObject({
      bad: [],
      would: { 'usage rows new': 2, 'rows or amounts left out': 3 },
    })
    expect((await take('usage', EXPORT, own)).status).toBe(200)
    const spans = await server.parts.deps.db.select().from(usageSpan)
    expect(spans.map((s) => [s.arcHours, s.starts])).toEqual(
      expect.arrayContaining([
        [0.75, 5],
        [600 / 3600, 1],
      ]),
    )
    expect((await look(EXPORT, { kind: 'usage', ...own, names: { 'WF-77': 'out' } })).leftOut).toContainEqual({
      row: 4,
      text: 'WF-77: left out',
    })
  })
})

it('all of it counts up to what is kept', async () => expect(await driftOf(server)).toBe(0))
