import { NO_ID } from '@core/ids/id.ts'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { count, eq, isNotNull } from 'drizzle-orm'
import { type LogAnswer } from '@contract/logbook.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import { device, importRun, ledgerEvent, person, session, site, usageSpan } from '@server/db/schema.ts'
import { rebuild } from '@server/projection/rebuild.ts'
import { Client, makePlaces, nextKey, openShop, startTestServer, type TestServer } from '@server/testing/testserver.ts'

/** Writes that arrive at the same moment, at two server processes on one database. */
let server: TestServer
let second: TestServer
let lead: Client
let ids: Map<string, string>
const id = (name: string) => ids.get(name) ?? ''
const shop = async () => (await lead.get<ShopAnswer>('/shop')).body
interface Spares {
  guns: { gunId: string; name: string; status: string }[]
}
type Counted = typeof person | typeof device | typeof ledgerEvent | typeof importRun | typeof usageSpan | typeof site
const rows = async (table: Counted, at = server) =>
  (await at.parts.deps.db.select({ n: count() }).from(table))[0]?.n ?? 0

beforeAll(async () => {
  server = await startTestServer({ nowMs: Date.UTC(2026, 10, 23, 12) })
  second = await server.second()
  lead = await openShop(server)
  ids = await makePlaces(lead, 'A1–A6')
})
afterAll(async () => {
  const written = await rebuild(server.parts.deps, false)
  expect(Object.entries(written).filter(([, n]) => n > 0)).toEqual([])
  expect([...server.faults, ...second.faults]).toEqual([])
  await second.close()
  await server.close()
})
beforeEach(() => {
  server.clock.nowMs += 60_000
})

/** The lead's browser at both servers, so that what one process holds in memory helps nobody. */
async function atBoth(): Promise<Client[]> {
  const there = new Client(second.url)
  await there.post('/people/sign-in', { name: 'Lead', password: 'a long password' })
  return [lead, there]
}
const atOnce = async (path: string, bodies: object[]) => {
  const clients = await atBoth()
  return Promise.all(bodies.map((body, i) => (clients[i % 2] as Client).post(path, body)))
}
const statuses = (answers: { status: number }[]) => answers.map((a) => a.status).sort()

describe('at once', () => {
  it('two first leads: one opens the shop, the other is told', async () => {
    const fresh = await startTestServer({ nowMs: server.clock.nowMs })
    const twin = await fresh.second()
    const ask = (at: TestServer, name: string) =>
      new Client(at.url).post('/people/first-lead', {
        shopName: `shop of ${name}`,
        zone: 'UTC',
        units: 'metric',
        name,
        password: 'ten letters or more',
      })
    expect(statuses(await Promise.all([ask(fresh, 'Oda'), ask(twin, 'Per'), ask(fresh, 'Siv')]))).toEqual([
      200, 409, 409,
    ])
    expect(await rows(site, fresh)).toBe(1)
    const leads = await fresh.parts.deps.db.select().from(person).where(isNotNull(person.passwordHash))
    expect(leads.length).toBe(1)
    expect([...fresh.faults, ...twin.faults]).toEqual([])
    await twin.close()
    await fresh.close()
  })
  it('two devices open one link: one is bound', async () => {
    const link = await lead.post<{ path: string }>('/people/device-link', { key: nextKey(), name: 'tablet' })
    const token = link.body.path.split('/').at(-1)
    const tablets = [new Client(server.url), new Client(second.url), new Client(server.url)]
    const answers = await Promise.all(tablets.map((t) => t.post('/people/bind', { token })))
    expect(statuses(answers)).toEqual([200, 410, 410])
    const floors = await Promise.all(tablets.map((t) => t.get('/floor')))
    expect(floors.map((f) => f.status).sort()).toEqual([200, 401, 401])
  })
  it('one link asked for twice under one key is one device, whose last link works', async () => {
    const before = await rows(device)
    const body = { key: nextKey(), name: 'phone' }
    const answers = await atOnce('/people/device-link', [body, body, body])
    expect(statuses(answers)).toEqual([200, 200, 200])
    expect(await rows(device)).toBe(before + 1)
    const again = await lead.post<{ path: string }>('/people/device-link', body)
    const token = again.body.path.split('/').at(-1)
    expect((await new Client(server.url).post('/people/bind', { token })).status).toBe(200)
    expect(await lead.post('/people/device-link', body)).toMatchObject({ status: 409, body: { code: 'key-used' } })
  })
  it('one person added twice under one key is there once; two of one name are told apart', async () => {
    const body = { key: nextKey(), name: 'Ana', role: 'hand', isActive: true }
    expect(statuses(await atOnce('/people/person', [body, body]))).toEqual([200, 200])
    const twins = [1, 2].map(() => ({ key: nextKey(), name: 'Bo', role: 'hand', isActive: true }))
    expect(statuses(await atOnce('/people/person', twins))).toEqual([200, 409])
    expect((await shop()).people.map((p) => p.name).sort()).toEqual(['Ana', 'Bo', 'Lead'])
  })
  it('a new password ends every session of its owner, also one opened in that moment or before it', async () => {
    const added = { key: nextKey(), name: 'Cy', role: 'lead', password: 'the first password', isActive: true }
    await lead.post('/people/person', added)
    const own = new Client(second.url)
    await own.post('/people/sign-in', { name: 'Cy', password: 'the first password' })
    const cy = (await shop()).people.find((p) => p.name === 'Cy')
    await lead.post('/people/person', { ...added, key: nextKey(), id: cy?.id, password: 'the second password' })
    expect((await own.get('/shop')).status).toBe(401)
    const left = await server.parts.deps.db
      .select()
      .from(session)
      .where(eq(session.personId, cy?.id ?? NO_ID))
    expect(left).toEqual([])
  })
  it('the same undo from two fingers is one correction', async () => {
    const log = await lead.post<LogAnswer>('/logbook', {
      key: nextKey(),
      acts: [{ stationId: id('A1'), act: 'changed', position: 'tip' }],
    })
    const eventIds = log.body.logged.map((l) => l.eventId)
    const before = await rows(ledgerEvent)
    const key = nextKey()
    expect(
      statuses(
        await atOnce(
          '/logbook/undo',
          [1, 2, 3, 4].map(() => ({ key, eventIds })),
        ),
      ),
    ).toEqual([200, 200, 200, 200])
    expect(await rows(ledgerEvent)).toBe(before + 1)
  })
  it('two people correct one line: both corrections are kept, the later stands', async () => {
    const log = await lead.post<LogAnswer>('/logbook', {
      key: nextKey(),
      acts: [{ stationId: id('A2'), act: 'changed', position: 'tip', outReason: 'worn' }],
    })
    const eventId = log.body.logged[0]?.eventId
    const answers = await atOnce('/logbook/correct', [
      { key: nextKey(), eventId, outReason: 'knocked' },
      { key: nextKey(), eventId, stationId: id('A3') },
    ])
    expect(statuses(answers)).toEqual([200, 200])
    const chain = await server.parts.deps.db
      .select()
      .from(ledgerEvent)
      .where(eq(ledgerEvent.rootId, eventId ?? NO_ID))
    expect(chain.length).toBe(3)
  })
  it('the same sheet from two desks is taken in once', async () => {
    const body = { kind: 'usage', text: 'date,booth,arc hours\n2026-11-19,A1,2\n2026-11-20,A2,3' }
    const before = [await rows(importRun), await rows(usageSpan)]
    expect(statuses(await atOnce('/ingest/take', [body, body, body]))).toEqual([200, 200, 200])
    expect([await rows(importRun), await rows(usageSpan)]).toEqual([(before[0] ?? 0) + 1, (before[1] ?? 0) + 2])
  })
  it('one house rule from two desks is one rule', async () => {
    const rule = { kindKey: 'tip', classKey: '*', cleanLimit: null, lookDays: null }
    const answers = await atOnce('/shop/rule', [
      { key: nextKey(), ...rule, changeLimit: 5 },
      { key: nextKey(), ...rule, changeLimit: 7 },
    ])
    expect(statuses(answers)).toEqual([200, 200])
    const rules = (await shop()).rules.filter((r) => r.kindKey === 'tip')
    expect(rules.length).toBe(1)
    expect([5, 7]).toContain(rules[0]?.changeLimit)
  })
  it('one part counted at two desks is one part, and the count is one of the two', async () => {
    const part = { code: 'T-9', name: 'tip', kindKey: 'tip' }
    const answers = await atOnce('/shop/part', [
      { key: nextKey(), ...part, onHand: 10 },
      { key: nextKey(), ...part, onHand: 20 },
    ])
    expect(statuses(answers)).toEqual([200, 200])
    const parts = (await shop()).parts.filter((p) => p.code === 'T-9')
    expect(parts.length).toBe(1)
    expect([10, 20]).toContain(parts[0]?.onHand)
  })
  it('two guns swapped from both ends end on different places, each with one gun', async () => {
    await atOnce('/shop/move', [
      { key: nextKey(), stationId: id('A4'), gunOfStationId: id('A5') },
      { key: nextKey(), stationId: id('A5'), gunOfStationId: id('A6') },
    ])
    const guns = (await shop()).stations.filter((s) => ['A4', 'A5', 'A6'].includes(s.name)).map((s) => s.gunName)
    expect(new Set(guns).size).toBe(3)
    expect(guns).not.toContain(null)
  })
  it('a spare gun hung, put right and asked for twice under one key: one line each, and it hangs once', async () => {
    await lead.post('/gun/spare', { key: nextKey(), name: 'spare', familyId: null, cableM: null })
    const spare = async () => (await lead.get<Spares>('/gun/spares')).body.guns.find((g) => g.name === 'spare')
    const gunId = (await spare())?.gunId
    server.clock.nowMs += 1000
    const status = { key: nextKey(), gunId, status: 'toRefurbish' }
    const before = await rows(ledgerEvent)
    expect(statuses(await atOnce('/gun/status', [status, status, status]))).toEqual([200, 200, 200])
    expect(await rows(ledgerEvent)).toBe(before + 1)
    expect((await spare())?.status).toBe('toRefurbish')
    const swap = { key: nextKey(), stationId: id('A1'), gunId, oldGun: 'ready' }
    expect(statuses(await atOnce('/gun/swap', [swap, swap]))).toEqual([200, 200])
    expect(await spare()).toBeUndefined()
    expect(await rows(ledgerEvent)).toBe(before + 1 + 3)
  })
  it('a joint’s trouble and a part handed out, each sent twice at once, count once', async () => {
    await lead.post('/shop/part', { key: nextKey(), code: 'T-X', name: 'tip', kindKey: 'tip', onHand: 10 })
    const partId = (await shop()).parts.find((p) => p.code === 'T-X')?.id
    server.clock.nowMs += 1000
    const before = await rows(ledgerEvent)
    const joint = { key: nextKey(), stationId: id('A2'), joint: 'tip', fault: 'seized', thread: null }
    expect(statuses(await atOnce('/rightparts/joint', [joint, joint, joint]))).toEqual([200, 200, 200])
    const issue = { key: nextKey(), stationId: id('A2'), partId, quantity: 2 }
    expect(statuses(await atOnce('/parts/issue', [issue, issue]))).toEqual([200, 200])
    expect(await rows(ledgerEvent)).toBe(before + 2)
    expect((await shop()).parts.find((p) => p.code === 'T-X')?.onHand).toBe(8)
  })
  it('one change of wire on two guns sent twice at once is one change each, under the same lines', async () => {
    const steel = { name: 'steel 0.9', construction: 'solid', size: '0.9', densityGPerCm3: 7.85, spoolKg: 15 }
    await lead.post('/shop/wire', { key: nextKey(), ...steel })
    const wireId = (await shop()).wires.find((w) => w.name === 'steel 0.9')?.id
    const stationIds = [id('A2'), id('A3')]
    const change = { key: nextKey(), stationIds, wireId, isScrapped: false, stillTied: [], skipped: [] }
    const answers = await atOnce('/changeover', [change, change, change])
    expect(statuses(answers)).toEqual([200, 200, 200])
    expect(new Set(answers.map((a) => JSON.stringify(a.body))).size).toBe(1)
    const changes = await server.parts.deps.db.select().from(ledgerEvent).where(eq(ledgerEvent.kind, 'changedOver'))
    expect(changes.map((c) => c.stationId).sort()).toEqual([...stationIds].sort())
  })
  it('work done by a guide, a liner job and a follow-up, each sent twice at once, are done once', async () => {
    const before = await rows(ledgerEvent)
    const tip = { key: nextKey(), stationId: id('A4'), guide: 'tip', did: 'changed', minutes: 3, overrun: null }
    expect(statuses(await atOnce('/guide/done', [tip, tip, tip]))).toEqual([200, 200, 200])
    expect(await rows(ledgerEvent)).toBe(before + 2)
    const job = { stationId: id('A4'), old: null, isBlown: true, cut: null, minutes: 30, overrun: null }
    const liner = { key: nextKey(), ...job }
    expect(statuses(await atOnce('/liner/done', [liner, liner]))).toEqual([200, 200])
    expect(await rows(ledgerEvent)).toBe(before + 2 + 3)
    const follow = { key: nextKey(), stationId: id('A4'), task: 'tension' }
    expect(statuses(await atOnce('/followup', [follow, follow]))).toEqual([200, 200])
    // One line on the gun, one on the feeder.
    expect(await rows(ledgerEvent)).toBe(before + 2 + 3 + 2)
  })
  it('thirty logs on one gun from two servers are all kept, in one story', async () => {
    const before = await rows(ledgerEvent)
    const acts = Array.from({ length: 30 }, (_, i) => ({
      key: nextKey(),
      acts: [
        {
          stationId: id('A6'),
          act: i % 3 === 0 ? 'cleaned' : 'changed',
          position: i % 2 === 0 ? 'nozzle' : 'tip',
          happenedMs: server.clock.nowMs - i * 1000,
        },
      ],
    }))
    const answers = await atOnce('/logbook', acts)
    expect(new Set(statuses(answers))).toEqual(new Set([200]))
    expect(await rows(ledgerEvent)).toBe(before + 30)
  })
})
