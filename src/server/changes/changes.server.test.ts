import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import {
  makePlaces,
  nextKey,
  openShop,
  startTestServer,
  Client,
  LEAD,
  type TestServer,
} from '@server/testing/testserver.ts'

let server: TestServer
let other: TestServer
let lead: Client
let ids: Map<string, string>
beforeAll(async () => {
  server = await startTestServer({ nowMs: Date.UTC(2026, 10, 23, 8) })
  other = await server.second()
  lead = await openShop(server)
  ids = await makePlaces(lead, 'A1–A2')
})
afterAll(async () => {
  await other.close()
  await server.close()
})
const log = (client: Client, name: string) =>
  client.post('/logbook', { key: nextKey(), acts: [{ stationId: ids.get(name), act: 'cleaned', position: 'nozzle' }] })

describe('two servers on one database', () => {
  it('each tells its listeners what the other wrote, once', async () => {
    const told: string[] = []
    const stop = other.parts.changes.listen((stations) => told.push(...stations))
    await other.parts.changes.poll()
    told.length = 0
    server.clock.nowMs += 1000
    await log(lead, 'A1')
    await other.parts.changes.poll()
    await other.parts.changes.poll()
    stop()
    expect(told).toEqual([ids.get('A1')])
  })
  it('a line that a slow clock stamps a little in the past is still told', async () => {
    const told: string[] = []
    const stop = other.parts.changes.listen((stations) => told.push(...stations))
    server.clock.nowMs += 20_000
    await log(lead, 'A1')
    await other.parts.changes.poll()
    server.clock.nowMs -= 15_000
    await log(lead, 'A2')
    await other.parts.changes.poll()
    stop()
    expect(told).toContain(ids.get('A2'))
  })
  it('share sessions: signed in at one is signed in at the other', async () => {
    const client = new Client(other.url)
    await client.post('/people/sign-in', LEAD)
    expect((await log(client, 'A2')).status).toBe(200)
  })
})

describe('the stream', () => {
  it('says hello and then what changed', async () => {
    const client = new Client(server.url)
    await client.post('/people/sign-in', LEAD)
    const cookie = [...(client as unknown as { cookies: Map<string, string> }).cookies]
      .map(([k, v]) => `${k}=${v}`)
      .join('; ')
    const abort = new AbortController()
    const response = await fetch(`${server.url}/api/changes`, { headers: { cookie }, signal: abort.signal })
    const reader = response.body?.getReader()
    const read = async () => new TextDecoder().decode((await reader?.read())?.value)
    expect(await read()).toContain('event: hello')
    server.clock.nowMs += 60_000
    await log(lead, 'A1')
    let text = ''
    while (!text.includes(ids.get('A1') ?? '?')) text += await read()
    abort.abort()
    expect(text).toContain('event: changed')
  })
  it('is for those who may read', async () => expect((await fetch(`${server.url}/api/changes`)).status).toBe(401))
})
