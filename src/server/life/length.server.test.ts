import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { type GunAnswer } from '@contract/gun.ts'
import { type LogbookAnswer } from '@contract/logbook.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import { type SpoolAct, type SpoolsAnswer } from '@contract/spools.ts'
import { life, toldLife } from '@server/db/schema.ts'
import { rebuild } from '@server/projection/rebuild.ts'
import {
  type Client,
  makePlaces,
  nextKey,
  openShop,
  startTestServer,
  type TestServer,
} from '@server/testing/testserver.ts'

/** A liner that is counted in length of wire, on a gun that ran steel and then aluminium. */
const HOUR = 3_600_000
let server: TestServer
let lead: Client
let a1 = ''
const wires = new Map<string, string>()
const later = (hours: number) => void (server.clock.nowMs += hours * HOUR)
const act = (what: SpoolAct) => lead.post<{ numbers: number[] }>('/spools', { key: nextKey(), what })
const shelf = async () => (await lead.get<SpoolsAnswer>('/spools')).body.shelf
/** A new spool of a wire goes on; the one before ran out. */
const load = async (wire: string) => {
  await act({ act: 'in', wireId: wires.get(wire) as never, count: 1 })
  const spool = (await shelf()).find((s) => s.wireName === wire && s.isNew)
  const done = await act({ act: 'load', stationId: a1 as never, spoolId: spool?.spoolId as never })
  expect(done.status).toBe(200)
}
const linerChanged = () =>
  lead.post('/logbook', {
    key: nextKey(),
    acts: [{ stationId: a1, act: 'changed', position: 'liner', outReason: 'worn', count: 1 }],
  })
const liner = async () => (await lead.get<GunAnswer>(`/gun/${a1}`)).body.positions.find((p) => p.kindKey === 'liner')
const countIn = (lifeUnit: string) => lead.post('/shop/kind', { key: nextKey(), kindKey: 'liner', lifeUnit })
const limit = async () =>
  (await lead.get<ShopAnswer>('/shop')).body.rules.find((r) => r.kindKey === 'liner')?.changeLimit
const drift = async () => Object.values(await rebuild(server.parts.deps, false)).reduce((a, b) => a + b, 0)

beforeAll(async () => {
  server = await startTestServer({ nowMs: Date.UTC(2026, 10, 2, 6) })
  lead = await openShop(server)
  const wire = { construction: 'solid', spoolKg: 15 }
  await lead.post('/shop/wire', { key: nextKey(), ...wire, name: 'steel 1.0', size: '1.0', densityGPerCm3: 7.85 })
  await lead.post('/shop/wire', {
    ...{ key: nextKey(), ...wire, name: 'aluminium 1.2', size: '1.2', densityGPerCm3: 2.66, spoolKg: 7 },
  })
  for (const w of (await lead.get<ShopAnswer>('/shop')).body.wires) wires.set(w.name, w.id)
  const built = { wireId: wires.get('steel 1.0'), cableM: 4, wireSpeedMPerMin: 10 }
  a1 = (await makePlaces(lead, 'A1', { built })).get('A1') ?? ''
  await linerChanged()
  for (const wireName of ['steel 1.0', 'steel 1.0', 'aluminium 1.2', 'aluminium 1.2']) {
    later(20)
    await load(wireName)
  }
  await lead.post('/shop/rule', {
    ...{ key: nextKey(), kindKey: 'liner', classKey: '*', changeLimit: 900, cleanLimit: null, lookDays: null },
  })
  await lead.post('/life/word', { key: nextKey(), kindKey: 'liner', classKey: '*', usual: 800, early: 400 })
})
afterAll(async () => {
  expect(server.faults).toEqual([])
  await server.close()
})

describe('counted in length of wire', () => {
  it('weight tells two metals not apart', async () => {
    expect(await liner()).toMatchObject({ unit: 'kg' })
    expect((await liner())?.used).toBeCloseTo(15 + 15 + 7, 0)
  })
  it('each kilogram by the wire it was of; the limit goes along, and so does the lead’s word', async () => {
    expect((await countIn('km')).status).toBe(200)
    const now = await liner()
    // 30 kg of 1.0 steel are 4.87 km, 7 kg of 1.2 aluminium 2.33 km.
    expect(now).toMatchObject({ unit: 'km' })
    expect(now?.used).toBeCloseTo(7.19, 1)
    expect(now?.change?.limit).toBeCloseTo(146, 0)
    const [word] = await server.parts.deps.db.select().from(toldLife)
    expect(word?.usual).toBeCloseTo(800 * 0.1622, 0)
    // What was fitted to lives in kg is fitted anew, not read as km.
    expect(now?.usual?.amount ?? 130).toBeLessThan(150)
    expect(await drift()).toBe(0)
  })
  it('the log says what was changed, and old limits stay in their own unit', async () => {
    const { lines } = (await lead.get<LogbookAnswer>('/logbook')).body
    const rules = lines.flatMap((l) =>
      l.fact.kind === 'shopChanged' && l.fact.change.of === 'houseRule' ? [[l.fact.change.changeAt, l.names.unit]] : [],
    )
    expect(rules.map(([at, unit]) => `${Math.round(Number(at))} ${unit}`).sort()).toEqual(['146 km', '900 kg'])
    expect(lines.map((l) => l.fact)).toContainEqual({
      kind: 'shopChanged',
      change: { of: 'kind', kindKey: 'liner', unit: 'km' },
    })
  })
  it('a life that ends is kept in length too', async () => {
    // An hour on, at the pace of the last weeks: another 0.2 km.
    later(1)
    await linerChanged()
    const rows = await server.parts.deps.db.select().from(life)
    expect(rows.find((r) => r.position === 'liner')?.km).toBeCloseTo(7.19 + 0.21, 1)
    expect(await drift()).toBe(0)
  })
  it('back to weight the limit is the old one, and no length is kept', async () => {
    await countIn('kg')
    expect(await limit()).toBeCloseTo(900, 6)
    const rows = await server.parts.deps.db.select().from(life)
    expect(rows.every((r) => r.km === null)).toBe(true)
    expect(await drift()).toBe(0)
  })
  it('in what it can’t be said in, limit and word are put aside', async () => {
    await countIn('arcHours')
    expect(await limit()).toBeNull()
    expect((await lead.get<{ body: unknown }>('/life?kind=liner&where=class:booth')).status).toBe(200)
  })
})
