import Papa from 'papaparse'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { guessColumns } from '@core/ingest/columns.ts'
import { IMPORT_KINDS, type ImportKind, type ImportPreview } from '@contract/ingest.ts'
import { type LogbookAnswer } from '@contract/logbook.ts'
import { WANTED } from '@core/ingest/guess.ts'
import { LABELS } from './sheet.ts'
import { contentOf } from '@server/testing/powercut.ts'
import { Client, makePlaces, nextKey, openShop, startTestServer, type TestServer } from '@server/testing/testserver.ts'

/** A shop's own sheet comes back in its own columns, and taken in again changes nothing. */
let server: TestServer
let lead: Client
const sheet = async (kind: ImportKind, more = '') =>
  (await lead.get<string>(`/ingest/sheet.csv?kind=${kind}${more}`)).body.replace(/^\uFEFF/, '')
const table = (text: string) => Papa.parse<string[]>(text.trim()).data
const take = (kind: ImportKind, text: string, over: object = {}) =>
  lead.post<{ did: Record<string, number> }>('/ingest/take', { kind, text, ...over })

beforeAll(async () => {
  server = await startTestServer({ nowMs: Date.UTC(2026, 10, 23, 15) })
  lead = await openShop(server)
  await makePlaces(lead, 'A1–A3')
  await lead.post('/shop/shifts', {
    key: nextKey(),
    areaId: null,
    shifts: [{ name: 'early', weekdays: [1, 2, 3, 4, 5], start: '06:00', end: '14:00', breaks: [] }],
  })
  await lead.post('/people/person', { key: nextKey(), name: 'Ana', role: 'hand', isActive: true })
})
afterAll(async () => {
  expect(server.faults).toEqual([])
  await server.close()
})

const NOTES = [
  'Bay A what we did;;;;',
  'Nr;Weather;When;By;Job done',
  'A-01;rain;5.10.2026;Ana;"tip x2 + liner, nest"',
  'a2;;6.10.2026 07:30;Nobody Known;nozzle cleaned',
  'A3;sun;7.10.26;;=HYPERLINK("x") new tip',
].join('\n')

describe('a history', () => {
  it('comes in with who did it, where that is somebody here', async () => {
    const decisions = { 'tip unsaid': 'changed', 'liner unsaid': 'changed' }
    expect((await take('history', NOTES, { decisions, leaveOutBad: true })).status).toBe(200)
    const day = async (d: string) => (await lead.get<LogbookAnswer>(`/logbook?day=${d}`)).body.lines
    expect((await day('2026-10-05')).map((l) => l.who)).toEqual(['Ana', 'Ana'])
    expect((await day('2026-10-06')).map((l) => l.who)).toEqual([null])
    expect((await day('2026-10-07')).map((l) => l.who)).toEqual(['Lead'])
  })
  it('comes back in the columns it came in, one row a note, formulas harmless', async () => {
    const rows = table(await sheet('history'))
    expect(rows[0]).toEqual(['Nr', 'Weather', 'When', 'By', 'Job done'])
    expect(rows.slice(1)).toEqual([
      ['A1', '', '2026-10-05', 'Ana', 'tip x2 + liner, nest'],
      ['A2', '', '2026-10-06 07:30', '', 'nozzle cleaned'],
      ['A3', '', '2026-10-07', 'Lead', '\'=HYPERLINK("x") new tip'],
    ])
  })
  it('taken in again changes nothing; what was tapped since comes along in words that read back', async () => {
    await lead.post('/logbook', {
      key: nextKey(),
      acts: [
        { stationId: (await placeIds())['A2'], act: 'changed', position: 'tip', outReason: 'burnedBack', count: 2 },
      ],
    })
    const text = await sheet('history')
    expect(text).toContain('contact tip changed x2, burnt back')
    const { body } = await lead.post<ImportPreview>('/ingest/preview', { kind: 'history', text })
    expect(body).toMatchObject({ bad: [], unread: [] })
    expect(body.groups.find((g) => g.key === 'tip changed')).toMatchObject({ parts: 3 })
  })
  it('of some days only, when asked', async () => {
    expect(table(await sheet('history', '&from=2026-10-06&to=2026-10-06'))).toHaveLength(2)
  })
})

describe('shift totals', () => {
  it('come back by shift, idle guns left out on the way in', async () => {
    const text =
      'booth,day,turn,arc h,remark\nA1,2026-11-20,early,2.5,x\nA2,2026-11-20,early,,idle\nA3,2026-11-20,,6,\n'
    expect((await take('usage', text)).body.did).toMatchObject({ 'usage rows new': 2, 'rows or amounts left out': 1 })
    const back = await sheet('usage')
    expect(table(back)).toEqual([
      ['booth', 'day', 'turn', 'arc h', 'remark'],
      ['A3', '2026-11-20', '', '6', ''],
      ['A1', '2026-11-20', 'early', '2.5', ''],
    ])
    expect((await take('usage', back)).body.did).toMatchObject({ 'usage rows new': 0, 'usage rows there already': 2 })
  })
})

describe('purchases and places', () => {
  it('purchases come back as pieces and kilos', async () => {
    await take('purchases', 'Article;Period;Amount;Per\ncontact tips;2026-09;3;box of 50\nwelding wire;2026-09;0,5;t')
    const back = await sheet('purchases')
    expect(table(back)).toEqual([
      ['Article', 'Period', 'Amount', 'Per'],
      ['contact tips', '2026-09', '150', 'pcs'],
      ['welding wire', '2026-09', '500', 'kg'],
    ])
    expect((await take('purchases', back)).body.did).toMatchObject({ 'purchases new': 0, 'purchases there already': 2 })
  })
  it('places come back with what is on them, and read as the same', async () => {
    const back = await sheet('places')
    // A shop without robots is asked for nothing of theirs.
    const asked = ['place', 'area', 'which part', 'part code', 'put on (date)', 'wire', 'cable (m)', 'kind of place']
    expect(table(back)[0]).toEqual(asked)
    expect(
      table(back)
        .slice(1)
        .map((r) => r.slice(0, 3)),
    ).toContainEqual(['A2', 'Bay A', 'contact tip'])
    const { body } = await lead.post<ImportPreview>('/ingest/preview', { kind: 'places', text: back })
    expect(body).toMatchObject({ bad: [], would: { 'places new': 0, 'places there already': 3 } })
  })
})

describe('plain headings', () => {
  it.each(IMPORT_KINDS)('of %s are found again, each in its own place', (kind) => {
    const labels = WANTED[kind].map((w) => LABELS[w.key] ?? w.key)
    expect(guessColumns(labels, WANTED[kind])).toEqual(Object.fromEntries(WANTED[kind].map((w, i) => [w.key, i])))
  })
})

describe('a blank one', () => {
  it('knows the shop’s places and items, in the shop’s columns where it has some', async () => {
    expect(table(await sheet('usage', '&blank=1'))).toEqual([
      ['booth', 'day', 'turn', 'arc h', 'remark'],
      ...['A1', 'A2', 'A3'].map((name) => [name, '2026-11-23', '', '', '']),
    ])
    await lead.post('/shop/part', { key: nextKey(), code: 'QX-T', name: 'tip', kindKey: 'tip' })
    expect(table(await sheet('purchases', '&blank=1'))[1]).toEqual(['QX-T', '2026-11', '', 'pcs'])
  })
  it('taken in as it is, it says that nothing is in it and writes no use', async () => {
    const text = await sheet('usage', '&blank=1')
    const { body } = await lead.post<ImportPreview>('/ingest/preview', { kind: 'usage', text })
    expect(body).toMatchObject({ bad: [], would: { 'usage rows new': 0, 'rows or amounts left out': 3 } })
  })
  it('is the lead’s, and writes nothing', async () => {
    const before = await contentOf(server)
    await sheet('places', '&blank=1')
    expect(await contentOf(server)).toEqual(before)
    expect((await new Client(server.url).get('/ingest/sheet.csv?kind=usage')).status).toBe(401)
  })
})

async function placeIds(): Promise<Record<string, string>> {
  const { body } = await lead.get<{ places: { stationId: string; name: string }[] }>('/find')
  return Object.fromEntries(body.places.map((p) => [p.name, p.stationId]))
}

describe('shift totals in other units', () => {
  it.each([
    ['16', 'arc min', 'lb', '150', '22'],
    ['17', 'arc_on_s', 'wire (g)', '9000', '9979'],
    ['18', 'arc time [h]', 'pounds', '2.5', '0.1'],
  ])(
    'the %sth in %s and %s comes back as it was written, and in again is there already',
    async (day, arc, wire, time, weight) => {
      server.clock.nowMs += 60_000
      const text = `booth,day,turn,${arc},${wire}\nA3,2026-11-${day},early,${time},${weight}\n`
      expect((await take('usage', text)).status).toBe(200)
      const back = await sheet('usage', `&from=2026-11-${day}&to=2026-11-${day}`)
      expect(table(back)).toEqual([
        ['booth', 'day', 'turn', arc, wire],
        ['A3', `2026-11-${day}`, 'early', time, weight],
      ])
      expect((await take('usage', back)).body.did).toMatchObject({ 'usage rows new': 0, 'usage rows there already': 1 })
    },
  )
})
