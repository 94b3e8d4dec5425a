import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { type Problem } from '@contract/common.ts'
import { type GunAnswer } from '@contract/gun.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import { contentOf } from '@server/testing/powercut.ts'
import { Client, makePlaces, nextKey, openShop, startTestServer, type TestServer } from '@server/testing/testserver.ts'
import { UNTOLD_FEEDER, UNTOLD_PROCEDURE } from '@core/rightparts/untold.ts'
import { endpoints } from './endpoints.ts'

/** Who may do what, endpoint by endpoint; and what a request that can't be read is told. */
let server: TestServer
let lead: Client
let ids: Map<string, string>
const people: Record<'stranger' | 'tablet' | 'hand' | 'instructor' | 'lead', Client> = {} as never
const id = (name: string) => ids.get(name) ?? ''

beforeAll(async () => {
  server = await startTestServer({ nowMs: Date.UTC(2026, 10, 23, 12) })
  lead = await openShop(server)
  ids = await makePlaces(lead, 'A1–A3')
  for (const [name, stationId] of await makePlaces(lead, 'B1', { areaName: 'Bay B' })) ids.set(name, stationId)
  people.stranger = new Client(server.url)
  people.lead = lead
  for (const role of ['hand', 'instructor'] as const) {
    const password = 'ten letters or more'
    await lead.post('/people/person', { key: nextKey(), name: role, role, password, isActive: true })
    people[role] = new Client(server.url)
    await people[role].post('/people/sign-in', { name: role, password })
  }
  const areaId = (await lead.get<ShopAnswer>('/shop')).body.areas.find((a) => a.name === 'Bay A')?.id
  const link = await lead.post<{ path: string }>('/people/device-link', { key: nextKey(), name: 'tablet', areaId })
  people.tablet = new Client(server.url)
  await people.tablet.post('/people/bind', { token: link.body.path.split('/').at(-1) })
})
afterAll(async () => {
  expect(server.faults).toEqual([])
  await server.close()
})

const FOR_LEADS_ALONE = ['/people/person', '/people/device-link', '/people/device-drop']
const NOT_FOUND_IS_ALLOWED = [200, 400, 404, 409, 422]
/** The least that each endpoint needs to get past its shape; services refuse by who asks before they look at what. */
const BODIES: Record<string, () => object> = {
  '/down/tune': () => ({
    ...{ stationId: id('A1'), name: 'volts', from: 20, to: 21, saw: 'better', symptom: null, guard: 'notAsked' },
  }),
  '/life/rule': () => ({ kindKey: 'tip', classKey: 'booth', school: 'fixed', at: 5 }),
  '/life/word': () => ({ kindKey: 'tip', classKey: '*', usual: 6, early: 3 }),
  '/life/tryout': () => ({
    ...{ kindKey: 'tip', question: 'dip or none?', nameA: 'dip', nameB: 'none' },
    ...{ partAId: null, partBId: null, stationIds: [id('A1'), id('A2')], ratio: 1.5 },
  }),
  '/life/tryout/end': () => ({ id: 'try_none' }),
  '/down/tune/kept': () => ({ stationId: id('A1'), symptom: null, values: { volts: 21 } }),
  '/down/explained': () => ({
    stationId: id('A1'),
    symptom: 'jerk',
    cause: 'linerWorn',
    isCertain: true,
    by: 'known',
    closing: 'good',
  }),
  '/down/knowledge': () => ({ knowledge: null }),
  '/logbook': () => ({ acts: [{ stationId: id('A1'), act: 'cleaned', position: 'nozzle' }] }),
  '/logbook/scan': () => ({ code: '/go/A1/nozzle-cleaned' }),
  '/logbook/undo': () => ({ eventIds: ['ev_000000000abc'] }),
  '/logbook/correct': () => ({ eventId: 'ev_000000000abc', outReason: 'worn' }),
  '/clock/usage': () => ({ stationId: id('A1'), day: '2026-11-20', arcHours: 2 }),
  '/ingest/preview': () => ({ kind: 'usage', text: 'date,booth,arc hours\n2026-11-20,A1,2' }),
  '/ingest/take': () => ({ kind: 'usage', text: 'date,booth,arc hours\n2026-11-19,A1,2' }),
  '/ingest/cancel': () => ({ runKey: nextKey() }),
  '/ingest/word': () => ({ word: 'lance', kindKey: 'neck' }),
  '/shop/places': () => ({ names: 'A1', areaName: 'Bay A' }),
  '/shop/site': () => ({ name: 'x', zone: 'UTC', units: 'metric', currency: 'EUR' }),
  '/shop/area': () => ({ areaId: 'area_none' }),
  '/shop/station': () => ({ stationId: id('A1'), walkMinutes: 1 }),
  '/shop/move': () => ({ stationId: id('A1'), gunOfStationId: id('A2') }),
  '/shop/feeder': () => ({ stationId: id('A1'), equipmentId: 'F-1' }),
  '/shop/rule': () => ({ kindKey: 'tip', classKey: '*', changeLimit: 6, cleanLimit: null, lookDays: null }),
  '/shop/limits': () => ({ classKey: '*', limits: [{ kindKey: 'tip', changeLimit: 8, lookDays: null }] }),
  '/shop/bay': () => ({
    areaId: 'area_none',
    answers: { wire: null, gunName: null, nozzle: null, feeder: null, mode: null, gas: null, cableM: null },
  }),
  '/shop/helps-closed': () => ({ what: 'cards' }),
  '/clock/standing': () => ({ areaId: 'area_none', arcHours: 2 }),
  '/shop/class': () => ({ classKey: 'booth', labourMinorPerHour: 1, stopMinorPerHour: 1 }),
  '/shop/kind': () => ({ kindKey: 'tip', changeMin: 2 }),
  '/shop/part': () => ({ code: 'T', name: 'tip', kindKey: 'tip' }),
  '/shop/family': () => ({ name: 'Kite' }),
  '/shop/feedertype': () => ({ name: 'f', fit: UNTOLD_FEEDER }),
  '/shop/procedure': () => ({ name: 'p', fit: UNTOLD_PROCEDURE }),
  '/rightparts/look': () => ({
    stationId: id('A1'),
    parts: [],
    settings: [{ name: 'polarity', value: 'gun positive' }],
  }),
  '/rightparts/set': () => ({
    stationId: id('A1'),
    how: 'read',
    settings: [{ name: 'polarity', value: 'gun positive' }],
  }),
  '/rightparts/keep': () => ({ stationId: id('A1'), rule: 'polarity', at: 'off', isKept: false }),
  '/rightparts/tag': () => ({ stationId: id('A1'), tag: 'brakeTight', isBack: false }),
  '/rightparts/joint': () => ({ stationId: id('A1'), joint: 'tip', fault: 'seized', thread: null }),
  '/parts/issue': () => ({ stationId: id('A1'), partId: 'part_none' }),
  '/changeover': () => ({
    stationIds: [id('A1')],
    wireId: 'wire_none',
    isScrapped: false,
    stillTied: [],
    skipped: [],
  }),
  '/changeover/day': () => ({ lines: [{ booth: 'A1', period: 'one', wireId: 'wire_none' }] }),
  '/guide/done': () => ({ stationId: id('A1'), guide: 'tip', did: 'changed', minutes: 3, overrun: null }),
  '/guide/note': () => ({ guide: 'tip', step: 'tipOn', familyId: '*', words: 'a nip, no more', isInstead: false }),
  '/guide/caution': () => ({ hazard: 'hot', words: 'Hot. Gloves.' }),
  '/guide/nearmiss': () => ({ stationId: id('A1'), hazard: 'hot' }),
  '/followup': () => ({ stationId: id('A1'), task: 'tension' }),
  '/reading': () => ({ stationId: id('A1'), what: 'orings', method: 'look', how: 'looked', grade: 'whole' }),
  '/walk/found': () => ({
    entries: [
      {
        key: nextKey(),
        stationId: id('A1'),
        happenedMs: server.clock.nowMs,
        looks: [{ what: 'nozzleOpen', grade: 'clean' }],
      },
    ],
  }),
  '/drag/calibrate': () => ({
    stationId: id('A1'),
    pulls: [
      { mark: 1, forcesN: [40] },
      { mark: 4, forcesN: [150] },
    ],
  }),
  '/liner/stuck': () => ({ stationId: id('A1'), atMm: 900, isKinked: false }),
  '/liner/spoiled': () => ({ stationId: id('A1'), why: 'cutShort' }),
  '/liner/done': () => ({ stationId: id('A1'), old: null, isBlown: false, cut: null, minutes: null, overrun: null }),
  '/gun/swap': () => ({ stationId: id('A1'), gunId: 'car_none', oldGun: 'ready' }),
  '/gun/spare': () => ({ name: 'spare', familyId: null, cableM: null }),
  '/gun/status': () => ({ gunId: 'car_none', status: 'ready' }),
  '/shop/wire': () => ({ name: 'w', construction: 'solid', size: '1.0', densityGPerCm3: 7.85, spoolKg: 15 }),
  '/shop/shifts': () => ({ areaId: null, shifts: [] }),
  '/parts/count': () => ({ counts: [{ partId: 'part_none', quantity: 3 }] }),
  '/parts/received': () => ({ partId: 'part_none', quantity: 3 }),
  '/parts/tin': () => ({
    areaId: 'area_none',
    kindKey: 'tip',
    grams: 10,
    pieces: 50,
    gramsOfPieces: 600,
    isEmptied: true,
  }),
  '/houserule': () => ({ code: 'D10', scopeType: 'site', scopeKey: '*', option: 'on' }),
  '/photo/hide': () => ({ id: 'pic_none' }),
  '/spools': () => ({ what: { act: 'gone', spoolId: 'spool_none' } }),
  '/people/person': () => ({ name: 'new one', role: 'hand', isActive: true }),
  '/people/device-link': () => ({ name: 'phone' }),
  '/people/device-drop': () => ({ deviceId: 'dev_none' }),
}
/** What anybody who may read may also do; everything else that writes is the lead's. */
const FOR_HANDS = [
  '/logbook',
  '/logbook/scan',
  '/logbook/undo',
  '/logbook/correct',
  '/clock/usage',
  '/shop/move',
  '/spools',
  '/photo/hide',
  '/rightparts/look',
  '/rightparts/set',
  '/rightparts/tag',
  '/rightparts/joint',
  '/parts/issue',
  '/changeover',
  '/changeover/day',
  '/gun/swap',
  '/gun/status',
  '/guide/done',
  '/guide/nearmiss',
  '/followup',
  '/reading',
  '/walk/found',
  '/drag/calibrate',
  '/down/explained',
  '/down/tune',
  '/down/tune/kept',
  '/liner/stuck',
  '/liner/spoiled',
  '/liner/done',
]
const WITHOUT_KEY = ['/ingest/take', '/ingest/preview', '/ingest/cancel', '/changeover/day']
const writes = endpoints.filter((e) => e.method === 'post').map((e) => e.path)
const reads = endpoints.filter((e) => e.method === 'get' && e.path !== '/people/me')
const bodyOf = (path: string) => ({
  ...(WITHOUT_KEY.includes(path) ? {} : { key: nextKey() }),
  ...(BODIES[path]?.() ?? {}),
})

describe('who may do what', () => {
  it('every write has a case here', () => expect(Object.keys(BODIES).sort()).toEqual([...writes].sort()))
  it.each(writes)('a stranger may not %s, and nothing is written', async (path) => {
    const before = await contentOf(server)
    expect(await people.stranger.post(path, bodyOf(path))).toMatchObject({ status: 401 })
    expect(await contentOf(server)).toEqual(before)
  })
  it.each(reads.map((e) => e.path))('a stranger may not read %s', async (path) =>
    expect(
      (
        await people.stranger.get(
          path
            .replace(':stationId', id('A1'))
            .replace(/^.photo$/, '/photo?type=spool&key=x')
            .replace('progress', `progress?runKey=${nextKey()}`)
            .replace(/^.changeover$/, `/changeover?stationIds=${id('A1')}&wireId=wire_none`)
            .replace(/^.reading$/, `/reading?stationId=${id('A1')}`)
            .replace(/^.down$/, `/down?stationId=${id('A1')}`)
            .replace(/tune$/, `tune?stationId=${id('A1')}`)
            .replace('helped', 'helped?atMs=1')
            .replace('preview', 'preview?kind=tip&classKey=booth&at=5')
            .replace(/^.drag$/, `/drag?stationId=${id('A1')}`)
            .replace(/^.liner$/, `/liner?stationId=${id('A1')}`)
            .replace('dedicate', `dedicate?stationId=${id('A1')}&gunMinor=1&gunYears=1`),
        )
      ).status,
    ).toBe(401),
  )
  it.each(writes.filter((p) => !FOR_HANDS.includes(p)))('hands and tablets may not %s', async (path) => {
    const before = await contentOf(server)
    for (const who of [people.hand, people.tablet])
      expect(await who.post(path, bodyOf(path))).toMatchObject({ status: 403, body: { code: 'not-yours' } })
    expect(await contentOf(server)).toEqual(before)
  })
  it.each(FOR_HANDS)('hands and tablets get past the door of %s', async (path) => {
    for (const who of [people.hand, people.tablet])
      expect(NOT_FOUND_IS_ALLOWED).toContain((await who.post(path, bodyOf(path))).status)
  })
  it.each(writes.filter((p) => !FOR_LEADS_ALONE.includes(p)))(
    'leads and instructors get past the door of %s',
    async (path) => {
      for (const who of [people.instructor, people.lead])
        expect(NOT_FOUND_IS_ALLOWED).toContain((await who.post(path, bodyOf(path))).status)
    },
  )
  it.each(FOR_LEADS_ALONE)('%s is the lead’s alone', async (path) => {
    const before = await contentOf(server)
    expect(await people.instructor.post(path, bodyOf(path))).toMatchObject({ status: 403, body: { code: 'not-yours' } })
    expect(await contentOf(server)).toEqual(before)
    expect(NOT_FOUND_IS_ALLOWED).toContain((await people.lead.post(path, bodyOf(path))).status)
  })
  it('the whole shop with its sign-ins is given to leads alone', async () => {
    for (const who of [people.instructor, people.hand, people.tablet])
      expect((await who.get('/shop/whole.jsonl')).status).toBe(403)
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
    const much = await send('/ingest/take', JSON.stringify({ kind: 'usage', text: 'x'.repeat(17_000_000) }))
    expect([much.status, ((await much.json()) as Problem).details]).toEqual([413, ['Bring it in parts.']])
    expect((await lead.post<Problem>('/nowhere', {})).body.message).toBe('There is nothing at that address.')
    const odd = await fetch(`${server.url}/api/gun/%ff`)
    expect([odd.status, odd.headers.get('x-request-id')]).toEqual([400, expect.stringMatching(/^[0-9a-f]{10}$/)])
  })
})
