import { request as ask } from 'node:http'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { type Problem } from '@contract/common.ts'
import { type GunAnswer } from '@contract/gun.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import { doorOf, RIGHTS_OF, ROUTES, type Right, type Route } from '@server/call/rights.ts'
import { contentOf } from '@server/testing/powercut.ts'
import { addressFor, bodyFor, WRITES } from '@server/testing/routecases.ts'
import { Doors } from './doors.ts'
import {
  Client,
  makePlaces,
  nextKey,
  openShop,
  sentOf,
  startTestServer,
  type TestServer,
} from '@server/testing/testserver.ts'

/** Who may do what, route by route and caller by caller; and what a request that can't be read is told. */
const CALLERS = [
  ...['nobody', 'forged', 'device of A1', 'device of Bay A', 'device of the shop'],
  ...['learner', 'hand', 'instructor', 'lead'],
] as const
type Caller = (typeof CALLERS)[number]
const PASSWORD = 'ten letters or more'
let server: TestServer
let lead: Client
let ids: Map<string, string>
const people = {} as Record<Caller | 'tablet', Client>
const id = (name: string) => ids.get(name) ?? ''

beforeAll(async () => {
  server = await startTestServer({ nowMs: Date.UTC(2026, 10, 23, 12) })
  lead = await openShop(server)
  ids = await makePlaces(lead, 'A1–A3')
  for (const [name, stationId] of await makePlaces(lead, 'B1', { areaName: 'Bay B' })) ids.set(name, stationId)
  people.nobody = new Client(server.url)
  people.forged = new Client(server.url, { idle_session: 'x'.repeat(32), idle_device: 'y'.repeat(32) })
  people.lead = lead
  for (const role of ['learner', 'hand', 'instructor'] as const) {
    await lead.post('/people/person', { key: nextKey(), name: role, role, password: PASSWORD, isActive: true })
    people[role] = new Client(server.url)
    await people[role].post('/people/sign-in', { name: role, password: PASSWORD })
  }
  const areaId = (await lead.get<ShopAnswer>('/shop')).body.areas.find((a) => a.name === 'Bay A')?.id
  for (const [caller, place] of [
    ['device of A1', { stationId: id('A1') }],
    ['device of Bay A', { areaId }],
    ['device of the shop', {}],
  ] as const) {
    const link = await lead.post<{ path: string }>('/people/device-link', { key: nextKey(), name: caller, ...place })
    people[caller] = new Client(server.url)
    await people[caller].post('/people/bind', { token: link.body.path.split('/').at(-1) })
  }
  people.tablet = people['device of Bay A']
})
afterAll(async () => {
  expect(server.faults).toEqual([])
  await server.close()
})

const bodyOf = (path: string) => bodyFor(path, { id, nowMs: server.clock.nowMs })

const RIGHTS_OF_CALLER: Readonly<Record<Caller, readonly Right[]>> = {
  nobody: ['anybody'],
  forged: ['anybody'],
  'device of A1': ['anybody', 'here'],
  'device of Bay A': ['anybody', 'here'],
  'device of the shop': ['anybody', 'here'],
  ...RIGHTS_OF,
}
/** Looked at by tests of their own: a stream, a way out, a token, an address. */
const OF_THEIR_OWN: readonly Route[] = ['GET /changes', 'POST /people/sign-out', 'POST /ingest', 'GET /metrics']
const routes = (Object.keys(ROUTES) as Route[]).filter((route) => !OF_THEIR_OWN.includes(route))
async function told(caller: Caller, route: Route) {
  const [method, path = ''] = route.split(' ')
  const { status, body } = await (method === 'POST'
    ? people[caller].post<Partial<Problem>>(path, bodyOf(path))
    : people[caller].get<Partial<Problem>>(addressFor(path, id('A1'))))
  return { caller, status, code: body.code }
}

describe('who may do what', () => {
  it('every write of the table has the least it needs here', () => {
    const own = ['/people/sign-in', '/people/first-lead', '/people/bind', '/people/password', '/shop/whole']
    const files = ['/photo', '/ingest/file']
    const writes = routes.filter((r) => r.startsWith('POST ')).map((r) => r.slice(5))
    expect([...WRITES, ...own, ...files].sort()).toEqual([...writes].sort())
  })
  it.each(routes)(
    '%s lets in whom the table names, and refuses all others before anything is written',
    async (route) => {
      const right = ROUTES[route] ?? 'owner'
      const sent = await sentOf(server, async () => {
        for (const caller of CALLERS.filter((c) => !RIGHTS_OF_CALLER[c].includes(right))) {
          const isKnown = caller !== 'nobody' && caller !== 'forged' && right !== 'person'
          const refused = isKnown ? { status: 403, code: 'not-yours' } : { status: 401, code: 'not-signed-in' }
          expect(await told(caller, route)).toEqual({ caller, ...refused })
        }
      })
      expect(sent.filter((statement) => !/^\s*select\b/i.test(statement))).toEqual([])
      for (const caller of CALLERS.filter((c) => RIGHTS_OF_CALLER[c].includes(right))) {
        const { status, code } = await told(caller, route)
        expect([caller, status < 500, ['not-yours', 'not-signed-in'].includes(code ?? '')]).toEqual([
          caller,
          true,
          false,
        ])
      }
    },
  )
  it('a name that somebody made to point here is no way in', async () => {
    const { hostname: host, port } = new URL(server.url)
    const status = await new Promise((done) =>
      ask({ host, port, path: '/api/live', headers: { host: 'evil.example' } }, (res) => done(res.statusCode)).end(),
    )
    expect(status).toBe(421)
  })
  it('a way in that the table does not know cannot be opened', () => {
    expect(() => doorOf('GET /nowhere')).toThrow(/No right/)
    expect(() => new Doors(() => Promise.reject(new Error())).mustBeAll()).toThrow(/not served/)
  })
  it('a change of one’s own password ends what else was signed in, and wants the old one', async () => {
    const NEXT = 'another ten letters'
    const name = 'Own'
    await lead.post('/people/person', { key: nextKey(), name, role: 'hand', password: PASSWORD, isActive: true })
    const [phone, desk] = [new Client(server.url), new Client(server.url)]
    for (const at of [phone, desk]) await at.post('/people/sign-in', { name, password: PASSWORD })
    const to = (old: string, password = NEXT) => phone.post<Problem>('/people/password', { old, password })
    expect(await to('not the old one')).toMatchObject({ status: 401, body: { code: 'wrong-password' } })
    expect((await to(PASSWORD, 'short')).status).toBe(400)
    expect((await desk.get('/floor')).status).toBe(200)
    // Sent twice, as when the answer was lost: done once.
    expect([(await to(PASSWORD)).status, (await to(PASSWORD)).status]).toEqual([200, 200])
    expect([(await phone.get('/floor')).status, (await desk.get('/floor')).status]).toEqual([200, 401])
    expect((await desk.post('/people/sign-in', { name, password: PASSWORD })).status).toBe(401)
    expect((await desk.post('/people/sign-in', { name, password: NEXT })).status).toBe(200)
  })
  it('what is not there is not changed, and no line says it was', async () => {
    const before = await contentOf(server)
    const none: [string, object, number][] = [
      ['/people/person', { id: 'per_none', name: 'x', role: 'hand', isActive: true }, 404],
      ['/people/device-drop', { deviceId: 'dev_none' }, 404],
      ['/people/device-link', { name: 'x', areaId: 'area_none' }, 404],
      ['/people/device-link', { name: 'x', stationId: 'stn_none' }, 404],
      ['/shop/class', { classKey: 'none', labourMinorPerHour: 1, stopMinorPerHour: 1 }, 404],
      ['/shop/rule', { kindKey: 'tip', classKey: 'none', changeLimit: 1, cleanLimit: null, lookDays: null }, 404],
      [
        '/shop/rule',
        { kindKey: 'tip', classKey: 'x'.repeat(300), changeLimit: 1, cleanLimit: null, lookDays: null },
        400,
      ],
      ['/shop/shifts', { areaId: 'area_none', shifts: [] }, 404],
      ['/shop/places', { names: 'Z\u0000', areaName: 'Bay A' }, 400],
      ['/shop/places', { names: 'Z\ud800', areaName: 'Bay A' }, 400],
      ['/down/tune', { ...bodyOf('/down/tune'), to: 1e308 }, 400],
      ['/down/tune', { ...bodyOf('/down/tune'), to: -1 }, 400],
    ]
    for (const [path, body, status] of none)
      expect([path, (await lead.post(path, { key: nextKey(), ...body })).status]).toEqual([path, status])
    expect(await contentOf(server)).toEqual(before)
  })
  it('a tablet of one bay takes no gun away from another, and speaks of none that hangs there', async () => {
    const from = { key: nextKey(), stationId: id('A1'), gunOfStationId: id('B1') }
    expect(await people.tablet.post('/shop/move', from)).toMatchObject({ status: 403 })
    const gunId = (await lead.get<GunAnswer>(`/gun/${id('B1')}`)).body.gunId
    const status = { key: nextKey(), gunId, status: 'toRefurbish' }
    expect(await people.tablet.post('/gun/status', status)).toMatchObject({ status: 403 })
  })
  it('who has left is signed in nowhere, also when they are back', async () => {
    const saved = { name: 'short stay', role: 'hand', password: 'ten letters or more' }
    await lead.post('/people/person', { key: nextKey(), ...saved, isActive: true })
    const guest = new Client(server.url)
    await guest.post('/people/sign-in', { name: saved.name, password: saved.password })
    expect((await guest.get('/floor')).status).toBe(200)
    const known = (await lead.get<ShopAnswer>('/shop')).body.people.find((p) => p.name === saved.name)
    for (const isActive of [false, true])
      await lead.post('/people/person', { key: nextKey(), id: known?.id, name: saved.name, role: 'hand', isActive })
    expect((await guest.get('/floor')).status).toBe(401)
  })
  it('a tablet of one bay logs there and nowhere else', async () => {
    const at = (name: string) => ({ key: nextKey(), acts: [{ stationId: id(name), act: 'seen' }] })
    expect((await people.tablet.post('/logbook', at('A2'))).status).toBe(200)
    expect(await people.tablet.post<Problem>('/logbook', at('B1'))).toMatchObject({ status: 403 })
    expect(
      (await people.tablet.post('/clock/usage', { key: nextKey(), stationId: id('B1'), day: '2026-11-20', kg: 4 }))
        .status,
    ).toBe(403)
  })
  it('money is told to leads only', async () => {
    await lead.post('/shop/class', {
      key: nextKey(),
      classKey: 'booth',
      labourMinorPerHour: 4000,
      stopMinorPerHour: 9000,
    })
    await lead.post('/shop/part', { key: nextKey(), code: 'P1', name: 'tip', kindKey: 'tip', priceMinor: 64 })
    await lead.post('/logbook', { key: nextKey(), acts: [{ stationId: id('A3'), act: 'down' }] })
    for (const who of [people.hand, people.tablet]) {
      const shop = (await who.get<ShopAnswer>('/shop')).body
      expect(shop.classes.every((c) => c.stopMinorPerHour === 0 && c.labourMinorPerHour === 0)).toBe(true)
      expect(shop.parts.every((p) => p.priceMinor === null)).toBe(true)
      expect(shop.people).toEqual([])
      expect((await who.get<GunAnswer>(`/gun/${id('A3')}`)).body.stopMinorPerHour).toBeNull()
    }
    expect((await lead.get<GunAnswer>(`/gun/${id('A3')}`)).body.stopMinorPerHour).toBe(9000)
  })
})

const LONG = 'x'.repeat(500)
const BAD: [what: string, path: string, body: () => object, says: RegExp][] = [
  ['no key', '/logbook', () => ({ key: undefined, acts: [] }), /key/],
  ['a short key', '/logbook', () => ({ key: 'abc', acts: [] }), /key/],
  ['no acts', '/logbook', () => ({ acts: [] }), /acts/],
  ['an act nobody knows', '/logbook', () => ({ acts: [{ stationId: id('A1'), act: 'polished' }] }), /acts\.0\.act/],
  ['a change of nothing', '/logbook', () => ({ acts: [{ stationId: id('A1'), act: 'changed' }] }), /say which part/],
  [
    'a position that is code',
    '/logbook',
    () => ({ acts: [{ stationId: id('A1'), act: 'cleaned', position: "tip'; drop table" }] }),
    /position/,
  ],
  [
    'twenty-one tips',
    '/logbook',
    () => ({ acts: [{ stationId: id('A1'), act: 'changed', position: 'tip', count: 21 }] }),
    /count/,
  ],
  [
    'a spool of a tonne and more',
    '/logbook',
    () => ({ acts: [{ stationId: id('A1'), act: 'newSpool', labelKg: 1001 }] }),
    /labelKg/,
  ],
  [
    'a spool of less than nothing',
    '/logbook',
    () => ({ acts: [{ stationId: id('A1'), act: 'newSpool', labelKg: -1 }] }),
    /labelKg/,
  ],
  ['a note without end', '/logbook', () => ({ acts: [{ stationId: id('A1'), act: 'seen', note: LONG }] }), /note/],
  ['a place that is no id', '/logbook', () => ({ acts: [{ stationId: 'A1', act: 'seen' }] }), /stationId/],
  ['a day that is no day', '/clock/usage', () => ({ stationId: id('A1'), day: '2026-02-30', kg: 1 }), /day/],
  [
    'a day of 25 arc hours',
    '/clock/usage',
    () => ({ stationId: id('A1'), day: '2026-11-20', arcHours: 25 }),
    /arcHours/,
  ],
  ['usage of nothing', '/clock/usage', () => ({ stationId: id('A1'), day: '2026-11-20' }), /give arc hours/],
  ['half a start', '/clock/usage', () => ({ stationId: id('A1'), day: '2026-11-20', starts: 1.5 }), /starts/],
  ['a sheet of another kind', '/ingest/take', () => ({ kind: 'songs', text: 'a,b' }), /kind/],
  ['an empty sheet', '/ingest/take', () => ({ kind: 'usage', text: '' }), /text/],
  [
    'a limit of nought',
    '/shop/rule',
    () => ({ kindKey: 'tip', classKey: '*', changeLimit: 0, cleanLimit: null, lookDays: null }),
    /changeLimit/,
  ],
  [
    'a shift on no day',
    '/shop/shifts',
    () => ({ areaId: null, shifts: [{ name: 'x', weekdays: [], start: '06:00', end: '14:00', breaks: [] }] }),
    /weekdays/,
  ],
  [
    'a shift at 25 o’clock',
    '/shop/shifts',
    () => ({ areaId: null, shifts: [{ name: 'x', weekdays: [1], start: '25:00', end: '14:00', breaks: [] }] }),
    /start/,
  ],
  [
    'a day off that is none',
    '/shop/shifts',
    () => ({ areaId: null, shifts: [], holidays: [{ day: '2026-13-01', name: '' }] }),
    /day/,
  ],
  [
    'a currency of two letters',
    '/shop/site',
    () => ({ name: 'x', zone: 'UTC', units: 'metric', currency: 'EU' }),
    /currency/,
  ],
  [
    'a wire as dense as nothing known',
    '/shop/wire',
    () => ({ name: 'w', construction: 'solid', size: '1.0', densityGPerCm3: 21, spoolKg: 15 }),
    /density/,
  ],
  ['half a part on hand', '/shop/part', () => ({ code: 'T', name: 't', kindKey: 'tip', onHand: 1.5 }), /onHand/],
  [
    'a password of nine letters',
    '/people/person',
    () => ({ name: 'n', role: 'lead', password: '123456789', isActive: true }),
    /password/,
  ],
  ['a role nobody has', '/people/person', () => ({ name: 'n', role: 'king', isActive: true }), /role/],
  ['a name of nothing', '/people/device-link', () => ({ name: '   ' }), /name/],
]

describe('a request that can’t be read', () => {
  it.each(BAD)('%s is told what and where, and nothing is written', async (_, path, body, says) => {
    const before = await contentOf(server)
    const answer = await lead.post<Problem>(path, { key: nextKey(), ...body() })
    expect(answer.status).toBe(400)
    expect(answer.body.details.join('\n')).toMatch(says)
    expect(await contentOf(server)).toEqual(before)
  })
  it('is no JSON, is too much at once, or goes nowhere: each in words', async () => {
    const signedIn = await fetch(`${server.url}/api/people/sign-in`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', 'x-idle-spool': '1' },
      body: JSON.stringify({ name: 'hand', password: 'ten letters or more' }),
    })
    const cookie = signedIn.headers
      .getSetCookie()
      .map((c) => c.split(';')[0])
      .join('; ')
    const send = (path: string, body: string, who = cookie) =>
      fetch(`${server.url}/api${path}`, {
        method: 'POST',
        headers: { 'content-type': 'application/json', 'x-idle-spool': '1', cookie: who },
        body,
      })
    // Nobody is told so before any of it is read.
    expect((await send('/logbook', '{"key": ', '')).status).toBe(401)
    const no = await send('/logbook', '{"key": ')
    expect([no.status, ((await no.json()) as Problem).message]).toEqual([400, 'That request is no JSON.'])
    const much = await send('/logbook', JSON.stringify({ key: 'x'.repeat(17_000_000) }))
    expect([much.status, ((await much.json()) as Problem).details]).toEqual([413, ['Bring it in parts.']])
    expect((await lead.post<Problem>('/nowhere', {})).body.message).toBe('There is nothing at that address.')
    const odd = await fetch(`${server.url}/api/gun/%ff`)
    expect([odd.status, odd.headers.get('x-request-id')]).toEqual([400, expect.stringMatching(/^[0-9a-f]{10}$/)])
  })
})
