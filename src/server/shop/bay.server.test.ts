import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { asc, eq } from 'drizzle-orm'
import { NO_ID } from '@core/ids/id.ts'
import { takingOver } from '@server/db/carry.ts'
import { ledgerEvent } from '@server/db/schema.ts'
import { type BayAnswers } from '@core/catalogue/bay.ts'
import { type Problem } from '@contract/common.ts'
import { type HelpsAnswer } from '@contract/firsthour.ts'
import { type GunAnswer } from '@contract/gun.ts'
import { type LookAnswer } from '@contract/rightparts.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import {
  Client,
  driftOf,
  makePlaces,
  nextKey,
  openShop,
  startTestServer,
  type TestServer,
} from '@server/testing/testserver.ts'

let server: TestServer
let lead: Client
let ids: Map<string, string>
const shop = async () => (await lead.get<ShopAnswer>('/shop')).body
const gun = async (name: string) => (await lead.get<GunAnswer>(`/gun/${ids.get(name) ?? ''}`)).body
const areaId = async (name = 'Bay A') => (await shop()).areas.find((a) => a.name === name)?.id

const ANSWERS: BayAnswers = {
  wire: { kind: 'steel', sizeMm: 0.9 },
  gunName: 'grey gun',
  nozzle: 'push-on',
  feeder: 'four',
  mode: 'short circuit',
  gas: 'mix80',
  cableM: 3,
}
const say = async (answers: BayAnswers, area?: string) =>
  lead.post<Problem>('/shop/bay', { key: nextKey(), areaId: await areaId(area), answers })

beforeAll(async () => {
  server = await startTestServer({ nowMs: Date.UTC(2026, 10, 23, 8) })
  lead = await openShop(server)
  ids = new Map([...(await makePlaces(lead, '1–6')), ...(await makePlaces(lead, '7–9', { areaName: 'Bay B' }))])
})
afterAll(() => server.close())

describe('a bay from seven answers', () => {
  it('has wire, family, feeder and the parts for that wire, and its guns are built of them', async () => {
    expect((await say(ANSWERS)).status).toBe(200)
    const { wires, families, feederTypes, parts, areas } = await shop()
    expect(wires).toMatchObject([{ name: 'solid steel 0.9', diameterMm: 0.9, densityGPerCm3: 7.85 }])
    expect(families).toMatchObject([{ name: 'grey gun', fit: { nozzleStyle: 'push-on' } }])
    expect(feederTypes).toMatchObject([{ fit: { rollCount: 4 } }])
    expect(parts.map((p) => p.name).sort()).toEqual([
      'contact tip 0.9',
      'drive rolls V 0.9',
      'nozzle, push-on',
      'steel coil liner for 0.9',
    ])
    expect(areas[0]?.built).toMatchObject({
      ...{ wireId: wires[0]?.id, familyId: families[0]?.id, cableM: 3, rollCount: 4 },
      ...{ mode: 'short circuit', gas: 'argon mix' },
    })
    expect(Object.keys(areas[0]?.built.parts ?? {}).sort()).toEqual(['liner', 'nozzle', 'rolls', 'tip'])
    expect(await driftOf(server)).toBe(0)
  })
  it('said again makes nothing twice; an answer left out takes nothing back', async () => {
    const before = await shop()
    await say(ANSWERS)
    await say({ ...ANSWERS, gunName: 'Grey Gun', wire: null, gas: null, cableM: null })
    const after = await shop()
    expect([after.wires, after.parts, after.families, after.feederTypes, after.areas]).toEqual([
      before.wires,
      before.parts,
      before.families,
      before.feederTypes,
      before.areas,
    ])
  })
  it('a second bay, as the first but for its wire, shares what fits both', async () => {
    await say({ ...ANSWERS, wire: { kind: 'gasless', sizeMm: 1.2 }, gas: 'none' }, 'Bay B')
    const { parts, families, areas } = await shop()
    expect(families).toHaveLength(1)
    const [a, b] = ['Bay A', 'Bay B'].map((n) => areas.find((x) => x.name === n)?.built.parts ?? {})
    expect(b?.['nozzle']).toBe(a?.['nozzle'])
    expect(b?.['tip']).not.toBe(a?.['tip'])
    expect(parts.find((p) => p.id === b?.['rolls'])?.name).toBe('drive rolls knurled V 1.2')
  })
  it('finds a wrong roll by the number that is read on it', async () => {
    const look = (await lead.get<LookAnswer>('/rightparts/look')).body.guns.find((g) => g.name === '2')
    const said = await lead.post<{ findings: { rule: string; severity: string }[] }>('/rightparts/look', {
      key: nextKey(),
      stationId: look?.stationId,
      wireId: look?.wireId,
      parts: look?.positions.flatMap((p) => (p.bayPartId ? [{ position: p.position, partId: p.bayPartId }] : [])),
      settings: [
        { name: 'roll1', value: '1.2' },
        { name: 'roll2', value: '0.9' },
      ],
    })
    expect(said.status).toBe(200)
    expect((await gun('2')).findings).toMatchObject([{ rule: 'grooveSize', severity: 'stops' }])
  })
  it('a part gets its number when somebody has the bag in hand', async () => {
    const tip = (await shop()).parts.find((p) => p.name === 'contact tip 0.9')
    const body = { id: tip?.id, code: 'GT-09', name: 'contact tip 0.9', kindKey: 'tip', familyId: tip?.familyId }
    expect((await lead.post('/shop/part', { key: nextKey(), ...body, wireSize: '0.9' })).status).toBe(200)
    const parts = (await shop()).parts.filter((p) => p.kindKey === 'tip')
    expect(parts.map((p) => p.code).sort()).toEqual(['GT-09', 'contact tip 1.2'])
    const taken = await lead.post<Problem>('/shop/part', {
      key: nextKey(),
      ...body,
      code: 'contact tip 1.2',
      wireSize: '0.9',
    })
    expect([taken.status, taken.body.message]).toEqual([409, 'There is one with that name already.'])
    await say(ANSWERS)
    expect((await shop()).parts.filter((p) => p.kindKey === 'tip')).toHaveLength(2)
  })
  it('is the lead’s to say, of an area that is there', async () => {
    const nobody = new Client(server.url)
    const body = { key: nextKey(), areaId: await areaId(), answers: ANSWERS }
    expect((await nobody.post('/shop/bay', body)).status).toBe(401)
    expect((await lead.post('/shop/bay', { ...body, areaId: 'are_1m88tdaefqzc19ef6fch' })).status).toBe(404)
  })
})

describe('the trade’s limits', () => {
  it('taken in one tap are marked as the trade’s, each a line of the Logbook, and make parts due or seen', async () => {
    expect((await gun('1')).positions.find((p) => p.position === 'tip')?.state).toBe('notSeen')
    const limits = [
      { kindKey: 'tip', changeLimit: 8, lookDays: 7 },
      { kindKey: 'nozzle', changeLimit: null, lookDays: 7 },
    ]
    expect((await lead.post('/shop/limits', { key: nextKey(), classKey: '*', limits })).status).toBe(200)
    const { rules } = await shop()
    expect(rules.find((r) => r.kindKey === 'tip')).toMatchObject({ changeLimit: 8, lookDays: 7, isTrade: true })
    expect(rules.find((r) => r.kindKey === 'nozzle')).toMatchObject({ changeLimit: null, lookDays: 7, isTrade: false })
  })
  it('changed by hand are the shop’s own', async () => {
    const rule = { kindKey: 'tip', classKey: '*', changeLimit: 6, cleanLimit: null, lookDays: 7 }
    await lead.post('/shop/rule', { key: nextKey(), ...rule })
    expect((await shop()).rules.find((r) => r.kindKey === 'tip')).toMatchObject({ changeLimit: 6, isTrade: false })
  })
  it('of a part nobody knows are refused whole', async () => {
    const limits = [{ kindKey: 'gas', changeLimit: 5, lookDays: null }]
    const answer = await lead.post('/shop/limits', {
      key: nextKey(),
      classKey: '*',
      limits: [...limits, { ...limits[0], kindKey: 'wings' }],
    })
    expect(answer.status).toBe(400)
    expect((await shop()).rules.some((r) => r.kindKey === 'gas')).toBe(false)
  })
})

describe('what else would help', () => {
  const helps = async (who = lead) => (await who.get<HelpsAnswer>('/shop/helps')).body.helps.map((h) => h.key)
  it('is told to a lead of a young shop, and goes as it is done', async () => {
    // Both bays are told, limits are set, one gun was looked at.
    expect(await helps()).toEqual(['hours', 'look', 'shifts'])
    const half = { key: nextKey(), areaId: await areaId(), arcHours: 2 }
    expect((await lead.post('/clock/standing', half)).status).toBe(200)
    expect(await helps()).toEqual(['look', 'shifts', 'costs'])
    // A shop that has written things down for weeks is asked nothing any more.
    const { db } = server.parts.deps
    const [first] = await db.select().from(ledgerEvent).orderBy(asc(ledgerEvent.id)).limit(1)
    const logged = (loggedMs: number) =>
      db.transaction((tx) =>
        takingOver(tx, async () => {
          await tx
            .update(ledgerEvent)
            .set({ loggedMs })
            .where(eq(ledgerEvent.id, first?.id ?? NO_ID))
        }),
      )
    await logged(server.clock.nowMs - 46 * 86_400_000)
    expect(await helps()).toEqual([])
    await logged(first?.loggedMs ?? 0)
    expect((await lead.post('/shop/helps-closed', { key: nextKey(), what: 'all' })).status).toBe(200)
    expect(await helps()).toEqual([])
  })
  it('about so much in a shift makes a tip come due, as an estimate, until something counts; said twice it counts once', async () => {
    const logged = await lead.post('/logbook', {
      key: nextKey(),
      acts: [{ stationId: ids.get('3'), act: 'changed', position: 'tip', outReason: 'worn' }],
    })
    expect(logged.status).toBe(200)
    const again = { key: nextKey(), areaId: await areaId(), arcHours: 3 }
    await lead.post('/clock/standing', again)
    await lead.post('/clock/standing', again)
    server.clock.nowMs += 3 * 86_400_000
    const tip = (await gun('3')).positions.find((p) => p.position === 'tip')
    // No shifts are told: ten in two weeks, three hours each, all round the clock.
    expect(tip?.used).toBeCloseTo((3 * 10 * 3) / 14, 1)
    expect(tip?.isEstimated).toBe(true)
    expect(await driftOf(server)).toBe(0)
  })
  it('said after past work was brought in, gives that work its age: a tip of last month is due at once', async () => {
    const past = new Date(server.clock.nowMs - 28 * 86_400_000).toISOString().slice(0, 10)
    const text = `gun,date,what\n4,${past},new tip`
    const taken = await lead.post('/ingest/take', { kind: 'history', text, decisions: { 'tip:changed': 'changed' } })
    expect(taken.status).toBe(200)
    await lead.post('/clock/standing', { key: nextKey(), areaId: await areaId(), arcHours: 2 })
    const tip = (await gun('4')).positions.find((p) => p.position === 'tip')
    // Five shifts in seven days, since noon of that day.
    expect(tip?.used).toBeGreaterThan(2 * 27 * (5 / 7))
    expect(tip?.used).toBeLessThan(2 * 29 * (5 / 7))
    expect(tip?.isEstimated).toBe(true)
    expect(await driftOf(server)).toBe(0)
  })
  it('of more hours than a day has is refused', async () => {
    const answer = await lead.post<Problem>('/clock/standing', { key: nextKey(), areaId: await areaId(), arcHours: 40 })
    expect(answer.status).toBe(400)
  })
})
