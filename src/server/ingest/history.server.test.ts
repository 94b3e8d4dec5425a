import { and, eq } from 'drizzle-orm'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { makeRandom, pick } from '@core/random/random.ts'
import { type Problem } from '@contract/common.ts'
import { type ImportPreview, type ReadFileAnswer } from '@contract/ingest.ts'
import { type LifeAnswer } from '@contract/life.ts'
import { tooMuch } from './xlsxworker.ts'
import { importProgress, ledgerEvent, life } from '@server/db/schema.ts'
import { rawWorkbook, workbookOf } from '@server/testing/workbook.ts'
import { contentOf, withPowerCut } from '@server/testing/powercut.ts'
import {
  driftOf,
  type Client,
  makePlaces,
  nextKey,
  openShop,
  startTestServer,
  type TestServer,
} from '@server/testing/testserver.ts'
import { decode } from './readfile.ts'

let server: TestServer
let lead: Client
beforeAll(async () => {
  server = await startTestServer({ nowMs: Date.UTC(2026, 10, 23, 15) })
  lead = await openShop(server)
  await makePlaces(lead, 'A1–A12')
  await makePlaces(lead, 'Cell 1–3', { areaName: 'Cells' })
})
afterAll(async () => {
  expect(server.faults).toEqual([])
  await server.close()
})
beforeEach(() => {
  server.clock.nowMs += 60_000
})
const preview = async (text: string) =>
  (await lead.post<ImportPreview>('/ingest/preview', { kind: 'history', text })).body
const take = (text: string, over: object = {}) =>
  lead.post<{ did: Record<string, number>; isRepeat: boolean } & Problem>('/ingest/take', {
    kind: 'history',
    text,
    ...over,
  })
const imported = () => server.parts.deps.db.select().from(ledgerEvent).where(eq(ledgerEvent.actKind, 'sheet'))

const MESSY = `Bay A, tips and that,
,,printed 3.1.
Gun,Date,What
A-01,20.10.2026,"tip x2 + liner, nest, bad wire?"
gun A2,21.10.2026,New tip
a 3,22.10.26,nozzle cleaned

A4,23.10.2026 07:30,"changed contact tip, worn"
A4,24.10.2026,asked Per about it
B9,24.10.2026,tip
A5,31.02.2026,tip
A6,1.1.2030,tip
Cell 02,25.10.2026,"cup, knocked"`

describe('past work in a shop’s own words', () => {
  it('is read under its title, gun by gun, whatever way the guns are written; what can’t be is named by its own row', async () => {
    const read = await preview(MESSY)
    expect(read.headings).toEqual(['Gun', 'Date', 'What'])
    expect(read.bad.map((b) => [b.row, b.value])).toEqual([
      [10, 'B9'],
      [11, '31.02.2026'],
      [12, '1.1.2030'],
    ])
    expect(read.groups.map((g) => [g.key, g.notes, g.parts])).toEqual([
      ['tip changed', 2, 2],
      ['liner unsaid', 1, 1],
      ['nozzle cleaned', 1, 1],
      ['nozzle unsaid', 1, 1],
      ['tip unsaid', 1, 2],
    ])
    expect(read.unread.map((u) => u.row)).toEqual([4, 9])
    expect(read.canTake).toBe(true)
  })
  it('with rows that can’t be read is refused, unless they are left out by choice', async () => {
    const before = await contentOf(server)
    const refused = await take(MESSY)
    expect(refused.status).toBe(422)
    expect(refused.body.details[0]).toContain('row 10, Gun, "B9"')
    expect(await contentOf(server)).toEqual(before)
    const taken = await take(MESSY, {
      leaveOutBad: true,
      decisions: { 'tip unsaid': 'changed', 'nozzle unsaid': 'out' },
    })
    expect(taken.body.did).toEqual({
      'parts put on': 4,
      cleanings: 1,
      looks: 0,
      'acts left out': 2,
      'rows left out': 3,
    })
    const lines = await imported()
    expect(lines.map((l) => [l.kind, l.precision, l.note]).sort()).toEqual([
      ['cleaned', 'day', 'nozzle cleaned'],
      ['fitted', 'day', 'New tip'],
      ['fitted', 'day', 'tip x2 + liner, nest, bad wire?'],
      ['fitted', 'exact', 'changed contact tip, worn'],
    ])
    const x2 = lines.find((l) => l.note?.startsWith('tip x2'))
    expect(x2?.body).toMatchObject({ fact: { kind: 'fitted', count: 2, position: 'tip', outReason: 'notSaid' } })
  })
  it('that has grown adds only what is new, and two equal notes of one day are two acts', async () => {
    const text = 'gun,date,what\nA7,2026-09-01,new tip\nA7,2026-09-01,new tip\nA7,2026-09-02,new tip'
    await take(text)
    const once = (await imported()).length
    expect((await take(text)).body.isRepeat).toBe(true)
    await take(`${text}\nA7,2026-09-03,new tip`)
    expect((await imported()).length).toBe(once + 1)
    const lives = await server.parts.deps.db
      .select()
      .from(life)
      .where(and(eq(life.position, 'tip')))
    expect(lives.length).toBeGreaterThanOrEqual(3)
    expect(await driftOf(server)).toBe(0)
  })
  it('cut off at the last moment leaves nothing, and then goes through', async () => {
    const text = 'gun,date,what\nA8,2026-08-01,new liner'
    const before = await contentOf(server)
    expect((await withPowerCut(server, () => take(text))).status).toBe(500)
    expect(await contentOf(server)).toEqual(before)
    expect((await take(text)).status).toBe(200)
  })
  it('three hundred messy rows become a history that the lives can be read from', async () => {
    const random = makeRandom(77)
    const notes = [
      'tip',
      'new tip',
      'tip x2',
      'contact tip, worn',
      'tip + nozzle cleaned',
      'liner',
      'nest',
      'changed shroud',
      '???',
    ]
    const days = Array.from({ length: 300 }, (_, i) =>
      new Date(Date.UTC(2026, 0, 1) + i * 86_400_000).toISOString().slice(0, 10),
    )
    const rows = days.map(
      (day) => `A${1 + Math.floor(random() * 12)},${day.split('-').reverse().join('.')},"${pick(random, notes)}"`,
    )
    const text = ['What we did', 'Gun,Date,What', ...rows].join('\n')
    const read = await preview(text)
    expect(read.bad).toEqual([])
    expect(read.groups[0]?.notes).toBeGreaterThan(40)
    const decisions = Object.fromEntries(read.groups.map((g) => [g.key, g.verb === 'unsaid' ? 'changed' : g.verb]))
    expect((await take(text, { decisions })).status).toBe(200)
    const lives = await server.parts.deps.db.select().from(life).where(eq(life.kindKey, 'tip'))
    expect(lives.length).toBeGreaterThan(100)
    expect(lives.every((l) => l.toMs >= l.fromMs)).toBe(true)
    expect(await driftOf(server)).toBe(0)
  })
})

describe('a long import', () => {
  const long = [
    'gun,date,what',
    ...Array.from(
      { length: 4000 },
      (_, i) =>
        `A${1 + (i % 12)},${new Date(Date.UTC(2024, 0, 1) + Math.floor(i / 12) * 86_400_000).toISOString().slice(0, 10)},new tip`,
    ),
  ].join('\n')
  it('tells how far it is', async () => {
    const runKey = nextKey()
    expect((await lead.get(`/ingest/progress?runKey=${runKey}`)).body).toEqual({ stage: 'not begun', done: 0, of: 0 })
    const seen = new Set<string>()
    const run = take(long.replace('new tip', 'changed tip'), { runKey })
    for (let i = 0; i < 200; i++) {
      const { stage } = (await lead.get<{ stage: string }>(`/ingest/progress?runKey=${runKey}`)).body
      seen.add(stage)
      if (stage === 'counting guns again') break
    }
    expect((await run).status).toBe(200)
    expect(seen).toContain('writing the lines')
  })
  it('stopped half way keeps nothing, and can be taken in afterwards', async () => {
    const runKey = nextKey()
    const text = long.replaceAll('new tip', 'tip changed')
    const before = await contentOf(server, ['import_progress'])
    await lead.post('/ingest/cancel', { runKey })
    expect(await take(text, { runKey })).toMatchObject({ status: 409, body: { code: 'stopped-by-you' } })
    expect(await contentOf(server, ['import_progress'])).toEqual(before)
    expect((await take(text, { runKey: nextKey() })).status).toBe(200)
    const [row] = await server.parts.deps.db.select().from(importProgress).where(eq(importProgress.key, runKey))
    expect(row?.isCancelled).toBe(true)
  })
})

describe('past work that is in', () => {
  const tips = async () => (await lead.get<LifeAnswer>('/life?kind=tip')).body.seen
  it('is told by Part life at once, though somebody looked a moment before', async () => {
    const { ended: before } = await tips()
    const weeks = ['2026-10-05', '2026-10-12', '2026-10-19']
    expect((await take(`gun,date,what\n${weeks.map((d) => `Cell 3,${d},"new tip, worn"`).join('\n')}`)).status).toBe(
      200,
    )
    const used = await lead.post<{ did: Record<string, number> }>('/ingest/take', {
      kind: 'usage',
      text: `date,cell,arc hours,lb\n${['2026-10-06', '2026-10-13'].map((d) => `${d},Cell 3,6,22`).join('\n')}`,
    })
    expect(used.body.did).toMatchObject({ 'usage rows new': 2 })
    expect((await tips()).ended).toBe(before + 2)
  })
})

describe('a file', () => {
  const send = async (bytes: Uint8Array) => {
    const cookie = (lead as unknown as { cookies: Map<string, string> }).cookies
    const response = await fetch(`${server.url}/api/ingest/file`, {
      method: 'POST',
      headers: {
        'content-type': 'application/octet-stream',
        'x-idle-spool': '1',
        cookie: [...cookie].map(([k, v]) => `${k}=${v}`).join('; '),
      },
      body: Buffer.from(bytes),
    })
    return { status: response.status, body: (await response.json()) as ReadFileAnswer & Problem }
  }
  const text = (s: string) => new TextEncoder().encode(s)
  it('of text is read whatever page it was written on', async () => {
    expect((await send(text('Gun,Größe\nA1,ö'))).body).toEqual({
      text: 'Gun,Größe\nA1,ö',
      notes: [],
      sheets: [],
      sheet: null,
    })
    const western = Uint8Array.from([0x47, 0x72, 0xf6, 0xdf, 0x65])
    expect(decode(western)).toEqual({ text: 'Größe', notes: ['read as Windows western text'], sheets: [], sheet: null })
    const utf16 = new Uint8Array([
      0xff,
      0xfe,
      ...new Uint8Array(new Uint16Array([...'Gun;1'].map((c) => c.charCodeAt(0))).buffer),
    ])
    expect(decode(utf16)).toEqual({ text: 'Gun;1', notes: ['read as UTF-16'], sheets: [], sheet: null })
  })
  it.each([
    ['a PDF in a CSV’s clothes', text('%PDF-1.7 …'), 'That file is a PDF, whatever its name says.'],
    [
      'an old workbook',
      Uint8Array.from([0xd0, 0xcf, 0x11, 0xe0, 1]),
      'That file is an old workbook (XLS), whatever its name says.',
    ],
    ['a picture', Uint8Array.from([0x89, 0x50, 0x4e, 0x47, 1]), 'That file is a picture, whatever its name says.'],
    [
      'bytes that are no text',
      Uint8Array.from([65, 66, 0, 67]),
      'That file is no text: there is a NUL byte at place 3.',
    ],
    ['nothing', new Uint8Array(), 'That file is empty.'],
    ['a damaged workbook', Uint8Array.from([0x50, 0x4b, 3, 4, 9, 9, 9]), 'That workbook can'],
  ])('%s is refused in words that say what to do', async (_, bytes, message) => {
    const { status, body } = await send(bytes)
    expect(status).toBe(422)
    expect(body.message).toContain(message)
    expect(body.details).toEqual(['Open it in a spreadsheet and save the sheet as CSV or XLSX.'])
  })
  it('that unpacks to more than fits is refused by what it is, not by what it says', async () => {
    const bomb = rawWorkbook(`<row r="1"><c r="A1" t="inlineStr"><is><t>${'x'.repeat(3e6)}</t></is></c></row>`)
    expect([bomb.length < 6000, tooMuch(bomb, 2e6), tooMuch(bomb, 4e6)]).toEqual([
      ...[true, 'it unpacks to more than fits', null],
    ])
    const far = rawWorkbook('<row r="1048576"><c r="XFD1048576"><v>1</v></c></row>')
    expect(await send(far)).toMatchObject({
      status: 422,
      body: { message: expect.stringMatching(/reaches to cell XFD1048576; delete what lies beyond the table/) },
    })
  })
  it('with a stray cell is refused by where it stands, wherever its pieces are cut', () => {
    const cell = (at: string) => `<c r="${at}" t="inlineStr"><is><t>${'word '.repeat(40)}</t></is></c>`
    const rows = Array.from(
      { length: 3000 },
      (_, i) => `<row r="${i + 1}">${cell(`A${i + 1}`)}${cell(`Z${i + 1}`)}</row>`,
    )
    expect(tooMuch(rawWorkbook(rows.join('')))).toBeNull()
    const stray = [...rows, '<row r="1048576"><c r="B1048576"><v>1</v></c></row>']
    expect(tooMuch(rawWorkbook(stray.join('')))).toBe(
      'a sheet reaches to cell Z1048576; delete what lies beyond the table',
    )
  })
  it('of few columns with a stray cell is read, as far as rows are looked at', async () => {
    const stray = rawWorkbook(
      '<row r="1"><c r="L1"><v>7</v></c></row><row r="1048576"><c r="A1048576"><v>1</v></c></row>',
    )
    const { status, body } = await send(stray)
    expect([status, body.notes]).toEqual([200, ['read the sheet "Sheet"', 'cut after 21,000 rows']])
    expect(body.text.slice(0, 12)).toBe(',,,,,,,,,,,7')
  }, 60_000)
  it('of 21 MB is too much, and said so', async () =>
    expect((await send(new Uint8Array(21_000_000).fill(65))).status).toBe(413))
  it('that is a workbook is read with its days, times, formulas and title; other sheets are named', async () => {
    const day = (ms: number) => ms / 86_400_000 + 25_569
    const [first, second] = [day(Date.UTC(2026, 9, 5)), day(Date.UTC(2026, 9, 6, 7, 30))]
    const file = rawWorkbook(
      [
        '<row r="1"><c r="A1" t="s"><v>0</v></c></row>',
        '<row r="3"><c r="A3" t="inlineStr"><is><t>Gun</t></is></c><c r="B3" t="inlineStr"><is><t>Date</t></is></c><c r="C3" t="inlineStr"><is><t>What</t></is></c></row>',
        `<row r="4"><c r="A4" t="inlineStr"><is><t>A1</t></is></c><c r="B4" s="1"><v>${first}</v></c><c r="C4" t="s"><v>1</v></c></row>`,
        `<row r="5"><c r="A5" t="inlineStr"><is><t>A2</t></is></c><c r="B5" s="2"><v>${second}</v></c><c r="C5"><f>1+1</f><v>2</v></c></row>`,
      ].join(''),
      ['<t>What we did</t>', '<r><t xml:space="preserve">new </t></r><r><t>tip</t></r>'],
    )
    const { status, body } = await send(file)
    expect(status).toBe(200)
    expect(body).toMatchObject({ notes: ['read the sheet "Sheet"'], sheets: ['Sheet'], sheet: 'Sheet' })
    // The empty row stays: rows are named by their number in the sheet.
    expect(body.text.split('\n').slice(2)).toEqual(['Gun,Date,What', 'A1,2026-10-05,new tip', 'A2,2026-10-06 07:30,2'])
    expect((await preview(body.text)).groups.map((g) => g.key)).toEqual(['tip changed'])
  })
  it('with several sheets gives the one that is asked for', async () => {
    const bay = (gun: string) => [
      ['Gun', 'Date', 'What'],
      [gun, '2026-10-05', 'new tip'],
    ]
    const bytes = await workbookOf({ 'Bay A': bay('A1'), empty: [[null]], 'Bay B & C': bay('A2') })
    const read = async (sheet: string) =>
      (await lead.send<ReadFileAnswer>(`/ingest/file?sheet=${encodeURIComponent(sheet)}`, bytes)).body
    expect(await read('Bay B & C')).toMatchObject({ sheet: 'Bay B & C', sheets: ['Bay A', 'empty', 'Bay B & C'] })
    expect((await read('Bay B & C')).text).toContain('A2,2026-10-05')
    expect((await read('Bay A')).text).toContain('A1,2026-10-05')
  })
  it('is for leads', async () =>
    expect(
      (await fetch(`${server.url}/api/ingest/file`, { method: 'POST', headers: { 'x-idle-spool': '1' }, body: 'x' }))
        .status,
    ).toBe(401))
})
