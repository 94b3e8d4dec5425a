import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { type Problem } from '@contract/common.ts'
import { type LogAnswer } from '@contract/logbook.ts'
import { type PhotoLine } from '@contract/photo.ts'
import { contentOf, withPowerCut } from '@server/testing/powercut.ts'
import { Client, makePlaces, nextKey, openShop, startTestServer, type TestServer } from '@server/testing/testserver.ts'

/** Photos: made small and clean, kept in the database, taken back but never lost. */
let server: TestServer
let lead: Client
let tablet: Client
let ids: Map<string, string>
const of = (name: string, position = 'tip') => ({ type: 'position', key: `${ids.get(name) ?? ''} ${position}` })

/** A photo as a phone takes it: larger than needed, lying on its side, with where and when in it. */
const phonePhoto = () =>
  sharp({ create: { width: 2400, height: 1800, channels: 3, background: '#b5703c' } })
    .withExif({ IFD0: { Copyright: 'somebody' }, IFD3: { GPSLatitude: '59/1 54/1 0/1' } })
    .withMetadata({ orientation: 6 })
    .jpeg()
    .toBuffer()

async function send(
  who: Client,
  what: { type: string; key: string } & Record<string, string>,
  bytes: Uint8Array,
  once = nextKey(),
) {
  const query = new URLSearchParams({ ...what, once })
  return who.send<{ id: string } & Problem>(`/photo?${query.toString()}`, bytes)
}
const SLOW_DRAWING = `<svg xmlns="http://www.w3.org/2000/svg" width="7000" height="7000"><filter id="f">
<feTurbulence baseFrequency="0.9" numOctaves="9"/><feMorphology operator="dilate" radius="40"/></filter>
<rect width="7000" height="7000" filter="url(#f)"/></svg>`
const list = async (what: { type: string; key: string }, who = lead) =>
  (await who.get<{ photos: PhotoLine[] }>(`/photo?${new URLSearchParams(what).toString()}`)).body.photos

beforeAll(async () => {
  server = await startTestServer({ nowMs: Date.UTC(2026, 10, 23, 12) })
  lead = await openShop(server)
  ids = await makePlaces(lead, 'A1–A2')
  const link = await lead.post<{ path: string }>('/people/device-link', {
    key: nextKey(),
    name: 'tablet',
    stationId: ids.get('A1'),
  })
  tablet = new Client(server.url)
  await tablet.post('/people/bind', { token: link.body.path.split('/').at(-1) })
})
afterAll(async () => {
  expect(server.faults).toEqual([])
  await server.close()
})

describe('a clip', () => {
  it('is pictures in rows on one photo, and says how they stand', async () => {
    const rows = await sharp({ create: { width: 1596, height: 996, channels: 3, background: '#335577' } })
      .jpeg()
      .toBuffer()
    const kept = await send(lead, { ...of('A2', 'liner'), frames: '30', perRow: '6', stepMs: '150' }, rows)
    expect(kept.status).toBe(200)
    expect(await list(of('A2', 'liner'))).toMatchObject([
      { id: kept.body.id, clip: { frames: 30, perRow: 6, stepMs: 150 }, widthPx: 1596 },
    ])
  })
  it('that does not say all of it is refused, and nothing is kept', async () => {
    const before = await contentOf(server)
    const half = await send(lead, { ...of('A2', 'liner'), frames: '30' }, await phonePhoto())
    expect(half.status).toBe(400)
    expect(JSON.stringify(half.body)).toContain('how many in a row')
    expect(
      (await send(lead, { ...of('A2', 'liner'), frames: '0', perRow: '1', stepMs: '150' }, await phonePhoto())).status,
    ).toBe(400)
    expect(await contentOf(server)).toEqual(before)
  })
})

describe('a photo', () => {
  it('is turned upright, made small, and nothing rides along', async () => {
    const kept = await send(tablet, of('A1'), await phonePhoto())
    expect(kept.status).toBe(200)
    expect(await list(of('A1'))).toMatchObject([{ id: kept.body.id, widthPx: 1200, heightPx: 1600, canHide: true }])
    const picture = await lead.bytes(`/photo/${kept.body.id}.jpg`)
    const seen = await sharp(picture).metadata()
    expect(seen).toMatchObject({ format: 'jpeg', width: 1200, height: 1600 })
    expect([seen.exif, seen.xmp, seen.icc, seen.orientation]).toEqual([undefined, undefined, undefined, undefined])
    expect((await sharp(await lead.bytes(`/photo/${kept.body.id}-small.jpg`)).metadata()).height).toBe(240)
  })
  it('of a reading noted without a link is named by the key the reading went under, and was taken then', async () => {
    const key = nextKey()
    const atMs = server.clock.nowMs - 2 * 3_600_000
    const reading = { key, stationId: ids.get('A1'), what: 'bore', method: 'look', how: 'looked', grade: 'oval' }
    const picture = { type: 'event', key: `key:${key}` }
    tablet.notedMs = atMs
    expect((await send(tablet, picture, await phonePhoto())).status).toBe(404)
    const read = await tablet.post<{ eventId: string }>('/reading', reading)
    expect((await send(tablet, picture, await phonePhoto())).status).toBe(200)
    tablet.notedMs = null
    expect(await list({ type: 'event', key: read.body.eventId })).toMatchObject([{ takenMs: atMs }])
  })
  it('sent twice is kept once, also when both arrive together', async () => {
    const bytes = await phonePhoto()
    const once = nextKey()
    const both = await Promise.all([1, 2, 3].map(() => send(lead, of('A2'), bytes, once)))
    expect(new Set(both.map((b) => b.body.id)).size).toBe(1)
    expect(await list(of('A2'))).toHaveLength(1)
  })
  it('may be of a line of the log', async () => {
    const log = await lead.post<LogAnswer>('/logbook', {
      key: nextKey(),
      acts: [{ stationId: ids.get('A2'), act: 'changed', position: 'tip', outReason: 'worn' }],
    })
    const line = { type: 'event', key: log.body.logged[0]?.eventId ?? '' }
    expect((await send(lead, line, await phonePhoto())).status).toBe(200)
    expect(await list(line)).toHaveLength(1)
  })
  it.each([
    ['text', Buffer.from('no picture at all'), 422],
    ['nothing', Buffer.alloc(0), 422],
    ['half a picture', null, 422],
    // Rendering this one takes half a minute and a core, and four of them stopped sign-ins and pages.
    ['a drawing that is rendered', Buffer.from(SLOW_DRAWING), 422],
    ['a document', Buffer.from('%PDF-1.7'), 422],
    ['a picture of another format', Buffer.from('GIF89a'), 422],
  ])('%s is refused in words, and nothing is kept', async (_, bytes, status) => {
    const before = await contentOf(server)
    const half = (await phonePhoto()).subarray(0, 1500)
    const answer = await send(lead, of('A1'), bytes ?? half)
    expect(answer.status).toBe(status)
    expect(answer.body.message).toContain('no picture')
    expect(await contentOf(server)).toEqual(before)
  })
  it('of a guide is of one there is, for a family there is or for all', async () => {
    const bytes = await phonePhoto()
    expect((await send(lead, { type: 'guide', key: 'tip *' }, bytes)).status).toBe(200)
    for (const key of ['tip', 'tip fam_none', 'tips *', 'tip * more'])
      expect((await send(lead, { type: 'guide', key }, bytes)).status).toBe(404)
  })
  it('a picture that unpacks to far more than it weighs is refused', async () => {
    const bomb = await sharp({ create: { width: 12_000, height: 9000, channels: 3, background: '#000' } })
      .png({ compressionLevel: 9 })
      .toBuffer()
    expect(bomb.length).toBeLessThan(1_000_000)
    expect((await send(lead, of('A1'), bomb)).status).toBe(422)
  })
  it('of nothing there is, or of another bay’s gun, is refused', async () => {
    const bytes = await phonePhoto()
    expect((await send(lead, { type: 'spool', key: 'spool_none' }, bytes)).status).toBe(404)
    expect((await send(lead, { type: 'position', key: 'stn_none tip' }, bytes)).status).toBe(404)
    expect((await send(tablet, of('A2'), bytes)).status).toBe(403)
    expect((await send(new Client(server.url), of('A1'), bytes)).status).toBe(401)
  })
  it('is seen by nobody who is not signed in, and a made-up name is no file', async () => {
    const [one] = await list(of('A1'))
    const stranger = new Client(server.url)
    expect((await stranger.get(`/photo/${one?.id ?? ''}.jpg`)).status).toBe(401)
    expect((await lead.get('/photo/..%2f..%2fetc.jpg')).status).toBe(404)
  })
  it('taken back is no longer shown, is kept, and the Logbook says so', async () => {
    const [one] = await list(of('A2'))
    expect(await tablet.post('/photo/hide', { key: nextKey(), id: one?.id })).toMatchObject({ status: 403 })
    expect(await lead.post('/photo/hide', { key: nextKey(), id: one?.id })).toMatchObject({ status: 200 })
    expect(await list(of('A2'))).toEqual([])
    expect((await lead.get(`/photo/${one?.id ?? ''}.jpg`)).status).toBe(404)
    expect((await lead.get<string>('/shop/whole.jsonl')).body).toContain(one?.id ?? 'none')
  })
  it('a power cut keeps nothing', () =>
    withPowerCut(server, async () => {
      const before = await contentOf(server)
      await send(lead, of('A1'), await phonePhoto())
      await lead.post('/photo/hide', { key: nextKey(), id: (await list(of('A1')))[0]?.id })
      expect(await contentOf(server)).toEqual(before)
    }))
})

describe('a whole shop', () => {
  it('takes its photos along, byte for byte', async () => {
    const file = (await lead.get<string>('/shop/whole.jsonl')).body
    const other = await startTestServer({ nowMs: server.clock.nowMs })
    const answer = await fetch(`${other.url}/api/shop/whole`, {
      method: 'POST',
      headers: { 'x-idle-spool': '1' },
      body: file,
    })
    expect(answer.status).toBe(200)
    const there = new Client(other.url)
    await there.post('/people/sign-in', { name: 'Lead', password: 'a long password' })
    const [one] = await list(of('A1'))
    const path = `/photo/${one?.id ?? ''}.jpg`
    expect(Buffer.compare(await there.bytes(path), await lead.bytes(path))).toBe(0)
    await other.close()
  })
})
