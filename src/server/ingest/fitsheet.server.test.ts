import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { type ImportPreview } from '@contract/ingest.ts'
import { type Problem } from '@contract/common.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import { contentOf } from '@server/testing/powercut.ts'
import { openShop, startTestServer, type Client, type TestServer } from '@server/testing/testserver.ts'

let server: TestServer
let lead: Client
const shop = async () => (await lead.get<ShopAnswer>('/shop')).body
const take = (kind: string, text: string) =>
  lead.post<{ did: Record<string, number> } & Problem>('/ingest/take', { kind, text })
const FAMILIES = 'family,tip thread,pin,liner held by,nozzle,neck mm\nKelp,fine six,long,set,push,170\nReed,,,,,\n'
const PARTS = [
  'code,kind,family,size,for wire,made of,length m,faces,price,on hand,for aluminium',
  'T-10,tip,Kelp,1.0 mm,,,,,0.64,140,no',
  'L-10,liner,,,0.9–1.0,steel coil,4.5,,31.50,6,',
  'R-10,drive rolls,,,,,,0.9 V / 1.0 V,24.50,4,',
  'G-1,outlet guide,,,.030 to .047,polymer,,,9,,',
].join('\n')

beforeAll(async () => {
  server = await startTestServer({ nowMs: Date.UTC(2026, 10, 23, 12) })
  lead = await openShop(server)
})
afterAll(async () => {
  expect(server.faults).toEqual([])
  await server.close()
})

describe('sheets of what fits what', () => {
  it('families come in with how their parts seat', async () => {
    expect((await take('families', FAMILIES)).body.did).toEqual({ 'families new': 2, 'families there already': 0 })
    expect((await shop()).families.find((f) => f.name === 'Kelp')?.fit).toMatchObject({
      thread: 'fine six',
      linerHeldBy: 'set screw',
      nozzleStyle: 'push-on',
      neckMm: 170,
    })
  })
  it('parts come in with sizes, faces, ranges, prices and counts', async () => {
    expect((await take('parts', PARTS)).body.did).toEqual({ 'parts new': 4, 'parts there already': 0 })
    const { parts, families } = await shop()
    const of = (code: string) => parts.find((p) => p.code === code)
    expect(of('T-10')).toMatchObject({
      familyId: families.find((f) => f.name === 'Kelp')?.id,
      wireSizeMm: 1,
      priceMinor: 64,
      onHand: 140,
      fit: { isForAluminium: false },
    })
    expect(of('L-10')?.fit).toMatchObject({ wireMm: [0.9, 1], linerKind: 'steel coil', lengthM: 4.5 })
    expect(of('R-10')?.fit?.grooves).toEqual([
      { shape: 'V', sizeMm: 0.9 },
      { shape: 'V', sizeMm: 1 },
    ])
    expect(of('G-1')?.fit).toMatchObject({ wireMm: [0.8, 1.2], material: 'polymer' })
  })
  it('given back and taken in again they change nothing', async () => {
    for (const kind of ['parts', 'families']) {
      const before = await shop()
      const sheet = (await lead.get<string>(`/ingest/sheet.csv?kind=${kind}`)).body
      await take(kind, sheet)
      const after = await shop()
      expect(after.parts).toEqual(before.parts)
      expect(after.families).toEqual(before.families)
    }
  })
  it('what the sheet leaves empty stays as it was', async () => {
    await take('parts', 'code,kind,price\nL-10,liner,33')
    expect((await shop()).parts.find((p) => p.code === 'L-10')).toMatchObject({
      priceMinor: 3300,
      fit: { linerKind: 'steel coil', lengthM: 4.5 },
    })
  })
  it.each([
    ['an unknown family', 'code,kind,family\nX,tip,Heron', 'there is no such fit family'],
    ['an unknown kind', 'code,kind\nX,widget', 'there is no kind of part called that'],
    ['an impossible size', 'code,kind,size\nX,tip,9 mm', 'no wire size we know'],
    ['a face without a number', 'code,kind,faces\nX,drive rolls,V / 1.0 V', 'has no number'],
    ['a range that is none', 'code,kind,for wire\nX,liner,wide', 'no'],
  ])('%s is named, and nothing is taken', async (_, text, why) => {
    const preview = (await lead.post<ImportPreview>('/ingest/preview', { kind: 'parts', text })).body
    expect(preview.canTake).toBe(false)
    expect(preview.bad[0]?.why).toContain(why)
    const before = await contentOf(server)
    expect((await take('parts', text)).status).toBe(422)
    expect(await contentOf(server)).toEqual(before)
  })
})
