import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { type Problem } from '@contract/common.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import { contentOf } from '@server/testing/powercut.ts'
import { Client, makePlaces, nextKey, openShop, startTestServer, type TestServer } from '@server/testing/testserver.ts'
import { forgetKeys } from './bound.ts'

/** A key stands for what it was first sent with; and guessing at passwords ends. */
let server: TestServer
let lead: Client
let ids: Map<string, string>
beforeAll(async () => {
  server = await startTestServer({ nowMs: Date.UTC(2026, 10, 23, 12) })
  lead = await openShop(server)
  ids = await makePlaces(lead, 'A1–A2')
})
afterAll(async () => {
  expect(server.faults).toEqual([])
  await server.close()
})
const acts = (place: string, position = 'tip') => [
  { stationId: ids.get(place), act: 'changed', position, outReason: 'worn' },
]

describe('a key', () => {
  it('sent again with the same, in any order of its fields, is answered as before', async () => {
    const key = nextKey()
    const first = await lead.post('/logbook', { key, acts: acts('A1') })
    const again = await lead.post('/logbook', { acts: acts('A1').map((a) => ({ ...a, position: a.position })), key })
    expect([first.status, again.status]).toEqual([200, 200])
    expect((again.body as { isRepeat: boolean }).isRepeat).toBe(true)
  })
  it.each([
    ['another content', '/logbook', () => ({ acts: acts('A2', 'nozzle') })],
    ['another route', '/people/person', () => ({ name: 'Ada', role: 'hand', isActive: true })],
  ])('sent with %s is refused, and nothing is taken for written', async (_, route, body) => {
    const key = nextKey()
    await lead.post('/logbook', { key, acts: acts('A1') })
    const before = await contentOf(server)
    expect(await lead.post<Problem>(route, { key, ...body() })).toMatchObject({
      status: 409,
      body: { code: 'key-used' },
    })
    expect(await contentOf(server)).toEqual(before)
  })
  it('of a request that was refused is free for what is meant', async () => {
    const key = nextKey()
    expect((await lead.post('/logbook', { key, acts: [{ stationId: 'stn_none', act: 'seen' }] })).status).toBe(404)
    expect((await lead.post('/logbook', { key, acts: acts('A1') })).status).toBe(200)
  })
  it('two that come together with different things under one key write one of them', async () => {
    const key = nextKey()
    const name = (n: string) => ({ key, name: n, role: 'hand', isActive: true })
    const both = await Promise.all(['One', 'Two'].map((n) => lead.post('/people/person', name(n))))
    expect(both.map((b) => b.status).sort()).toEqual([200, 409])
    const people = (await lead.get<ShopAnswer>('/shop')).body.people.map((p) => p.name)
    expect(people.filter((n) => n === 'One' || n === 'Two')).toHaveLength(1)
  })
  it('of months ago stands for nothing any more', async () => {
    const key = nextKey()
    await lead.post('/logbook', { key, acts: acts('A1') })
    await forgetKeys({ db: server.parts.deps.db, now: () => server.clock.nowMs + 200 * 86_400_000 })
    expect(await server.parts.deps.db.query.requestKey.findMany()).toEqual([])
  })
})

describe('guessing at a password', () => {
  const PASSWORD = 'ten letters or more'
  const at = (who: Client, name: string, password: string) => who.post<Problem>('/people/sign-in', { name, password })
  it('ends after a few tries, on every server, and holds up nobody else', async () => {
    for (const name of ['Bea', 'Cid'])
      await lead.post('/people/person', { key: nextKey(), name, role: 'hand', password: PASSWORD, isActive: true })
    const second = await server.second()
    const [here, there] = [new Client(server.url), new Client(second.url)]
    for (let i = 0; i < 8; i++) expect((await at(i % 2 ? here : there, 'Bea', `guess ${i} of many`)).status).toBe(401)
    for (const who of [here, there])
      expect(await at(who, ' bea', PASSWORD)).toMatchObject({ status: 429, body: { code: 'too-many' } })
    // The same address, another name: one wrong phone shuts out nobody.
    expect((await at(here, 'Cid', PASSWORD)).status).toBe(200)
    server.clock.nowMs += 6 * 60_000
    expect((await at(there, 'Bea', PASSWORD)).status).toBe(200)
    await second.close()
  })
})
