import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { type Problem } from '@contract/common.ts'
import { type Me } from '@contract/people.ts'
import {
  Client,
  LEAD,
  makePlaces,
  nextKey,
  openShop,
  startTestServer,
  type TestServer,
} from '@server/testing/testserver.ts'

let server: TestServer
let lead: Client
let ids: Map<string, string>
beforeAll(async () => {
  server = await startTestServer({ nowMs: Date.UTC(2026, 10, 23, 8) })
  lead = await openShop(server)
  ids = await makePlaces(lead, 'A1–A2')
  for (const [name, id] of await makePlaces(lead, 'B1', { areaName: 'Bay B' })) ids.set(name, id)
})
afterAll(() => server.close())
const clean = (name: string) => ({
  key: nextKey(),
  acts: [{ stationId: ids.get(name), act: 'cleaned', position: 'nozzle' }],
})

describe('signing in', () => {
  it('lets the right password in and no other, in the same words', async () => {
    const client = new Client(server.url)
    const wrong = [
      { name: LEAD.name, password: 'nope' },
      { name: 'Nobody', password: 'nope' },
    ]
    const answers = await Promise.all(wrong.map((w) => client.post<Problem>('/people/sign-in', w)))
    expect(answers.map((a) => [a.status, a.body.message])).toEqual([
      [401, 'That name and password do not go together.'],
      [401, 'That name and password do not go together.'],
    ])
    await client.post('/people/sign-in', LEAD)
    expect((await client.get<Me>('/people/me')).body.person).toMatchObject({ name: LEAD.name, role: 'lead' })
    await client.post('/people/sign-out', {})
    expect((await client.get<Me>('/people/me')).body.person).toBeNull()
  })
  it('a shop has one first lead', async () =>
    expect(
      (
        await new Client(server.url).post('/people/first-lead', {
          shopName: 'x',
          zone: 'UTC',
          units: 'metric',
          ...LEAD,
        })
      ).status,
    ).toBe(409))
  it('a session ends after two weeks', async () => {
    const client = new Client(server.url)
    await client.post('/people/sign-in', LEAD)
    server.clock.nowMs += 15 * 86_400_000
    expect((await client.get<Me>('/people/me')).body.person).toBeNull()
    server.clock.nowMs -= 15 * 86_400_000
  })
  it('a write from another site’s page is refused: it can’t set the header', async () => {
    const response = await fetch(`${server.url}/api/people/sign-in`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(LEAD),
    })
    expect(response.status).toBe(400)
  })
})

describe('a device of a place', () => {
  it('is bound by a link once, reads everywhere, logs at its place, and changes nothing of the set-up', async () => {
    const areaId = (await lead.get<{ areas: { id: string; name: string }[] }>('/shop')).body.areas.find(
      (a) => a.name === 'Bay A',
    )?.id
    const link = await lead.post<{ path: string }>('/people/device-link', { key: nextKey(), name: 'tablet', areaId })
    const token = link.body.path.replace('/link/', '')
    const tablet = new Client(server.url)
    expect((await tablet.post('/people/bind', { token })).status).toBe(200)
    expect((await new Client(server.url).post<Problem>('/people/bind', { token })).body.code).toBe('link-used')
    expect((await tablet.get('/floor')).status).toBe(200)
    expect((await tablet.post('/logbook', clean('A1'))).status).toBe(200)
    expect(await tablet.post<Problem>('/logbook', clean('B1'))).toMatchObject({
      status: 403,
      body: { code: 'not-yours' },
    })
    expect((await tablet.post('/shop/places', { key: nextKey(), names: 'Z1', areaName: 'x' })).status).toBe(403)
    expect((await tablet.get<{ people: unknown[] }>('/shop')).body.people).toEqual([])
  })
  it('takes back only what it logged itself', async () => {
    const link = await lead.post<{ path: string }>('/people/device-link', { key: nextKey(), name: 'other' })
    const other = new Client(server.url)
    await other.post('/people/bind', { token: link.body.path.replace('/link/', '') })
    const mine = await lead.post<{ logged: { eventId: string }[] }>('/logbook', clean('A2'))
    expect(
      (await other.post<Problem>('/logbook/undo', { key: nextKey(), eventIds: [mine.body.logged[0]?.eventId] })).body
        .code,
    ).toBe('not-yours')
  })
  it('with an unused link over a day old is refused', async () => {
    const link = await lead.post<{ path: string }>('/people/device-link', { key: nextKey(), name: 'late' })
    server.clock.nowMs += 25 * 3_600_000
    expect(
      (await new Client(server.url).post('/people/bind', { token: link.body.path.replace('/link/', '') })).status,
    ).toBe(410)
  })
})

describe('the API', () => {
  it('describes every endpoint from the shapes that check it', async () => {
    const { body } = await lead.get<{ openapi: string; paths: Record<string, unknown> }>('/openapi.json')
    expect(body.openapi).toBe('3.1.0')
    expect(Object.keys(body.paths)).toEqual(
      expect.arrayContaining([
        '/api/floor',
        '/api/gun/{stationId}',
        '/api/logbook',
        '/api/shop/places',
        '/api/ingest',
        '/api/ingest/take',
      ]),
    )
  })
  it('answers what it does not know with words', async () =>
    expect(await lead.get<Problem>('/nothing')).toMatchObject({ status: 404, body: { code: 'not-found' } }))
})
