import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { type Problem } from '@contract/common.ts'
import { type LogbookAnswer, type ScanAnswer } from '@contract/logbook.ts'
import { codedActs, codePath } from '@core/logbook/actcode.ts'
import { KIND_DEFAULTS } from '@core/path/kinds.ts'
import { contentOf, withPowerCut } from '@server/testing/powercut.ts'
import { Client, makePlaces, nextKey, openShop, startTestServer, type TestServer } from '@server/testing/testserver.ts'

/** A scan is a log: no glass touched, once. */
let server: TestServer
let lead: Client
let ids: Map<string, string>
const scan = <T = ScanAnswer>(code: string, key = nextKey()) => lead.post<T>('/logbook/scan', { key, code })
const lines = async () =>
  (await lead.get<LogbookAnswer>('/logbook')).body.lines.filter(
    (l) => l.fact.kind !== 'shopChanged' && l.standing !== 'withdrawn',
  )

beforeAll(async () => {
  server = await startTestServer({ nowMs: Date.UTC(2026, 10, 23, 6) })
  lead = await openShop(server)
  ids = await makePlaces(lead, 'A1–A9')
  for (const [name, id] of await makePlaces(lead, 'Cell 2', { areaName: 'Cells' })) ids.set(name, id)
})
beforeEach(() => void (server.clock.nowMs += 3_600_000))
afterAll(async () => {
  expect(server.faults).toEqual([])
  await server.close()
})

describe('a scanned code', () => {
  it('logs what it stands for, whatever host is printed on it', async () => {
    const { body } = await scan('http://10.1.2.3:8460/go/A1/tip-changed')
    expect(body).toMatchObject({
      said: 'logged',
      stationName: 'A1',
      logged: [{ stationId: ids.get('A1'), position: 'tip' }],
    })
    expect((await lines())[0]).toMatchObject({
      fact: { kind: 'fitted', outReason: 'notSaid' },
      position: 'tip',
      stationName: 'A1',
    })
  })
  it('every code that can be printed is understood', async () => {
    for (const act of codedActs(KIND_DEFAULTS)) {
      server.clock.nowMs += 300_000
      expect((await scan(codePath('Cell 2', act.slug))).body).toMatchObject({ said: 'logged', stationName: 'Cell 2' })
    }
  })
  it('held too long it is logged once; on another gun, or later, it is another act', async () => {
    const before = (await lines()).length
    expect((await scan('/go/A2/tip-changed')).body.said).toBe('logged')
    server.clock.nowMs += 60_000
    expect((await scan('/go/A2/tip-changed')).body.said).toBe('twice')
    expect((await scan('/go/A3/tip-changed')).body.said).toBe('logged')
    expect((await scan('/go/A2/nozzle-cleaned')).body.said).toBe('logged')
    server.clock.nowMs += 121_000
    expect((await scan('/go/A2/tip-changed')).body.said).toBe('logged')
    expect((await lines()).length).toBe(before + 4)
  })
  it('sent again by a page that lost the answer it is the same scan', async () => {
    const key = nextKey()
    const first = await scan('/go/A4/liner-changed', key)
    expect((await scan('/go/A4/liner-changed', key)).body).toEqual(first.body)
  })
  it('"two of them" after a change makes it two, and says so when there was none', async () => {
    await scan('/go/A5/tip-changed')
    expect((await scan('/go/A5/x2')).body).toMatchObject({ said: 'again', acts: [{ position: 'tip', count: 2 }] })
    expect((await lines()).find((l) => l.stationName === 'A5')).toMatchObject({
      fact: { count: 2 },
      standing: 'changed',
    })
    expect(await scan<Problem>('/go/A6/x2')).toMatchObject({ status: 400 })
  })
  it('a code of a page opens that one there, and writes nothing', async () => {
    expect((await scan('/go/A7/before-class')).body).toMatchObject({
      ...{ said: 'open', page: 'beforeClass', stationId: ids.get('A7'), logged: [] },
    })
    expect((await scan('/go/A7/right-wrong')).body).toMatchObject({ said: 'open', page: 'pairs' })
  })
  it('a gun’s own code opens it, and writes nothing', async () => {
    const before = await contentOf(server)
    expect((await scan('/go/a7')).body).toMatchObject({ said: 'open', stationId: ids.get('A7') })
    expect(await contentOf(server)).toEqual(before)
  })
  it.each([
    ['/go/Z9/tip-changed', 404, 'No gun has "Z9" painted on it.'],
    ['https://elsewhere.example/menu', 400, 'none of this shop’s'],
    ['/go/A1/tea-made', 400, 'none of this shop’s'],
  ])('%s is told what is wrong', async (code, status, why) => {
    const answer = await scan<Problem>(code)
    expect(answer.status).toBe(status)
    expect(answer.body.message).toContain(why)
  })
  it('a tablet of one bay scans there and nowhere else', async () => {
    const link = await lead.post<{ path: string }>('/people/device-link', {
      key: nextKey(),
      name: 'tablet',
      stationId: ids.get('A8'),
    })
    const tablet = new Client(server.url)
    await tablet.post('/people/bind', { token: link.body.path.split('/').at(-1) })
    const at = (code: string) => tablet.post('/logbook/scan', { key: nextKey(), code })
    expect((await at('/go/A8/tip-changed')).status).toBe(200)
    expect((await at('/go/A9/tip-changed')).status).toBe(403)
    // Another place's gun scanned at this one's tablet may have come here: it is asked about, and nothing is logged.
    expect((await at('/go/A9')).body).toMatchObject({
      said: 'gunHere',
      stationName: 'A8',
      hungAt: { stationId: ids.get('A9'), gunName: 'gun A9' },
    })
    expect((await at('/go/A8')).body).toMatchObject({ said: 'open', stationName: 'A8' })
  })
  it('a power cut leaves nothing of it', () =>
    withPowerCut(server, async () => {
      const before = await contentOf(server)
      await scan('/go/A1/tip-changed')
      expect(await contentOf(server)).toEqual(before)
    }))
})

describe('paper', () => {
  const pdf = async (query: string, who = lead) => who.get<string>(`/print.pdf?${query}`)
  const pages = (text: string) => (text.match(/\/Type \/Page\b(?!s)/g) ?? []).length
  it('one card a booth, whatever is asked for', async () => {
    const all = await pdf('what=cards')
    expect(all.body.startsWith('%PDF-')).toBe(true)
    expect(pages(all.body)).toBe(10)
    expect(pages((await pdf(`what=cards&stationId=${ids.get('A1') ?? ''}`)).body)).toBe(1)
    expect(pages((await pdf('what=guns')).body)).toBe(1)
  })
  it('nothing to print for is said, and not everybody prints', async () => {
    expect(await pdf('what=spools')).toMatchObject({ status: 404 })
    expect(await pdf('what=everything')).toMatchObject({ status: 400 })
    expect(await pdf('what=cards', new Client(server.url))).toMatchObject({ status: 401 })
  })
})
