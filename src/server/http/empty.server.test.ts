import { beforeAll, describe, expect, it, vi } from 'vitest'
import { addressFor } from '@server/testing/routecases.ts'
import { serverForAll } from '@server/testing/serverforall.ts'
import { makePlaces, type Client, type TestServer } from '@server/testing/testserver.ts'
import { endpoints } from './endpoints.ts'

/** A shop's first minutes: every page is opened before anything is known that its numbers could be made of. */
let server: TestServer
let lead: Client
serverForAll({ nowMs: Date.UTC(2026, 10, 23, 12) }, (here) => {
  ;({ server, lead } = here)
})
const reads = endpoints.filter((e) => e.method === 'get')
/** Questions that an empty shop is asked most: every part, and what there is to choose. */
const ASKED: Record<string, string[]> = {
  '/life': ['kind=tip', 'kind=liner', 'kind=nozzle&by=part', 'kind=diffuser&by=family'],
  '/payback': ['days=30', 'days=365'],
  '/walk': ['minutes=10', 'minutes=60&people=3'],
}
const addresses = (stationId: string) =>
  reads.flatMap(({ path }) => [addressFor(path, stationId), ...(ASKED[path] ?? []).map((query) => `${path}?${query}`)])

/** Nothing tripped; what was answered has its shape (the server of a test holds each answer against it). */
async function readAll(stationId: string): Promise<string[]> {
  const tripped: string[] = []
  for (const address of addresses(stationId)) {
    const { status } = await lead.get(address)
    if (status >= 500) tripped.push(address)
  }
  return [...tripped, ...server.faults.map(String)]
}

describe('an answer of another shape than its endpoint’s', () => {
  it.each([
    ['a share of nothing', { places: [], kinds: NaN }],
    ['nothing', undefined],
  ])('is a fault of the server’s and no answer: %s', async (_, answer) => {
    const find = reads.find((e) => e.path === '/find')
    if (!find) throw new Error('no /find')
    const run = vi.spyOn(find, 'run').mockResolvedValue(answer)
    expect((await lead.get('/find')).status).toBe(500)
    run.mockRestore()
    expect(server.faults.splice(0).map(String)).toEqual([
      expect.stringContaining('/find answers what it is not described with'),
    ])
    expect((await lead.get('/find')).status).toBe(200)
  })
})

describe('every read of a shop of which nothing is known', () => {
  it('holds with no guns', async () => expect(await readAll('stn_none')).toEqual([]))
  describe('with two guns, of which nobody has said anything', () => {
    let stationId: string
    beforeAll(async () => {
      stationId = (await makePlaces(lead, 'A1–A2')).get('A1') ?? ''
    })
    it('holds', async () => expect(await readAll(stationId)).toEqual([]))
  })
})
