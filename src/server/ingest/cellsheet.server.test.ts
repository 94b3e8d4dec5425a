import { describe, expect, it } from 'vitest'
import { type CellsAnswer } from '@contract/cell.ts'
import { type GunAnswer } from '@contract/gun.ts'
import { type ImportPreview } from '@contract/ingest.ts'
import { contentOf } from '@server/testing/powercut.ts'
import { serverForAll } from '@server/testing/serverforall.ts'
import { type Client, type TestServer } from '@server/testing/testserver.ts'

/** Robots' cells by sheet: how each is built, told, told again and given back. */
let server: TestServer
let lead: Client
const take = (text: string) => lead.post<{ did: Record<string, number> }>('/ingest/take', { kind: 'places', text })
const preview = async (text: string) =>
  (await lead.post<ImportPreview>('/ingest/preview', { kind: 'places', text })).body
const cells = async () => (await lead.get<CellsAnswer>('/cells')).body.cells
const SHEET = [
  'cell,area,wire,payoff,booster,conduit,wire cutter,tool centre,arc a cycle s,ream every',
  'C1,Line,solid steel 1.2,drum,electric,"drum to post 4 m 2 bends polymer; along the arm 1.6 m 1 bend rollers",clamps and shears,0.4,75,8',
  'C2,Line,solid steel 1.2,spool,none,,none,,,',
].join('\n')

serverForAll({ nowMs: Date.UTC(2026, 10, 23, 12) }, async (here) => {
  ;({ server, lead } = here)
})

describe('a sheet of cells', () => {
  it('tells how each is built, what stands beside its torch, and is no booth', async () => {
    const told = await preview(SHEET)
    expect(told).toMatchObject({ bad: [], would: { 'places new': 2, 'cells told how they are built': 2 } })
    expect((await take(SHEET)).status).toBe(200)
    const [c1, c2] = await cells()
    expect(c1?.cell).toMatchObject({
      ...{
        payoff: 'drum',
        booster: 'electric',
        cutter: 'clamps and shears',
        centreMm: 0.4,
        cycleArcS: 75,
        reamEvery: 8,
      },
      conduit: [
        { name: 'drum to post', lengthM: 4, bends: 2, lining: 'polymer' },
        { name: 'along the arm', lengthM: 1.6, bends: 1, lining: 'rollers' },
      ],
    })
    expect(c2?.cell).toMatchObject({ payoff: 'spool', cutter: 'none', conduit: null })
    const { positions } = (await lead.get<GunAnswer>(`/gun/${c1?.stationId ?? ''}`)).body
    expect(positions.map((p) => p.position)).toEqual(expect.arrayContaining(['cutter', 'reamer']))
  })
  it('again changes nothing; with one cell of it changed, that alone', async () => {
    const before = await contentOf(server, ['import_run', 'import_progress'])
    await take(SHEET)
    expect(await contentOf(server, ['import_run', 'import_progress'])).toEqual(before)
    await take(SHEET.replace(',8', ',12').replace('C2,Line,solid steel 1.2,spool,none', 'C2,Line,,,air'))
    const [c1, c2] = await cells()
    expect(c1?.cell).toMatchObject({ reamEvery: 12, payoff: 'drum' })
    expect(c2?.cell).toMatchObject({ payoff: 'spool', booster: 'air' })
  })
  it('is given back as it stands and reads as the same', async () => {
    const back = (await lead.get<string>('/ingest/sheet.csv?kind=places')).body
    expect(back).toContain('along the arm 1.6 m 1 bend rollers')
    expect(await preview(back)).toMatchObject({
      bad: [],
      would: { 'places new': 0, 'cells told how they are built': 2 },
    })
  })
  it('names the row and column of what can’t be read, and what it would have to be', async () => {
    const { bad } = await preview(
      'cell,area,kind of place,payoff,conduit,tool centre,ream every\nC3,Line,cell,bucket,long,far,0\nC4,Line,booth,drum,,,\nC1,Line,,drum,post 90 m,,',
    )
    const why = (row: number, column: string) => bad.find((b) => b.row === row && b.column === column)?.why ?? ''
    expect(why(2, 'payoff')).toContain('write spool, drum')
    expect(why(2, 'conduit')).toContain('drum to post 4 m 2 bends')
    expect(why(2, 'tool centre')).not.toBe('')
    expect(why(2, 'ream every')).not.toBe('')
    expect(why(3, 'kind of place')).toContain('write cell')
    expect(why(4, 'conduit')).toContain('post 90 m')
  })
})
