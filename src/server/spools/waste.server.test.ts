import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { type ShopAnswer } from '@contract/shop.ts'
import { type WasteAnswer } from '@contract/waste.ts'
import { type SpoolsAnswer } from '@contract/spools.ts'
import {
  type Client,
  makePlaces,
  nextKey,
  openShop,
  startTestServer,
  type TestServer,
} from '@server/testing/testserver.ts'

/** Wire that never became weld, by why, month and area, and what a year takes. */
const NOW = Date.UTC(2026, 10, 20, 12)
let server: TestServer
let lead: Client
let ids: Map<string, string>
const waste = async () => (await lead.get<WasteAnswer>('/spools/waste')).body
const act = (what: object) => lead.post('/spools', { key: nextKey(), what })

beforeAll(async () => {
  server = await startTestServer({ nowMs: NOW })
  lead = await openShop(server)
  const wire = { name: 'solid 1.0', construction: 'solid', size: '1.0', densityGPerCm3: 7.85, spoolKg: 15 }
  const fit = {
    ...{ alloy: 'steel', isSelfShielded: null, polarity: null, gases: null, tipOutMm: null, grade: null },
    ...{ isCopperCoated: null, classification: null, pricePerKgMinor: 300 },
  }
  await lead.post('/shop/wire', { key: nextKey(), ...wire, fit })
  const wireId = (await lead.get<ShopAnswer>('/shop')).body.wires[0]?.id
  ids = await makePlaces(lead, 'A1–A2', { built: { wireId, cableM: 4, wireSpeedMPerMin: 10 } })
  await act({ act: 'in', wireId, count: 2, labelKg: 15 })
  const { shelf } = (await lead.get<SpoolsAnswer>('/spools')).body
  const [first, second] = [...shelf].sort((a, b) => a.number - b.number)
  await act({ act: 'load', stationId: ids.get('A1'), spoolId: first?.spoolId })
  await act({ act: 'lost', stationId: ids.get('A1'), why: 'nest', metres: 100 })
  await act({ act: 'read', spoolId: second?.spoolId, leftKg: 1.5 })
  await act({ act: 'gone', spoolId: second?.spoolId })
  await lead.post('/clock/usage', { key: nextKey(), stationId: ids.get('A1'), day: '2026-11-19', kg: 10 })
})
afterAll(async () => {
  expect(server.faults).toEqual([])
  await server.close()
})

describe('where wire goes', () => {
  it('by why, with its money; nests at their place, short ends of the shelf at none', async () => {
    const at = await waste()
    const by = (why: string) => at.whys.find((w) => w.why === why)
    const nestKg = (100 * Math.PI * 0.25 * 7.85) / 1000
    expect(by('nest')?.kg).toBeCloseTo(nestKg, 3)
    expect(by('nest')?.minor).toBeCloseTo(300 * nestKg, 1)
    expect(by('short end')).toMatchObject({ kg: 1.5, times: 1, minor: 450 })
    expect(at.areas).toMatchObject([{ name: 'Bay A', most: 'nest', times: 1 }])
    expect(at.byMonth.map((m) => m.month)).toEqual(['2026-06', '2026-07', '2026-08', '2026-09', '2026-10', '2026-11'])
    expect(at.byMonth.at(-1)).toMatchObject({ times: 2 })
  })
  it('what a year takes of each wire at each class, with what is a guess said', async () => {
    const [group] = (await waste()).groups
    expect(group).toMatchObject({ wireName: 'solid 1.0', spoolKg: 15, pricePerKgMinor: 300, isMinLearnt: false })
    expect(group).toMatchObject({ isShortSeen: false, guns: 2 })
    expect(group?.kgPerYear).toBeGreaterThan(10)
  })
  it('is for leads alone', async () => {
    const hand = { name: 'Bo', role: 'hand', password: 'ten letters or more', isActive: true }
    await lead.post('/people/person', { key: nextKey(), ...hand })
    const other = lead.at(server.url)
    await other.post('/people/sign-in', { name: 'Bo', password: hand.password })
    expect((await other.get('/spools/waste')).status).toBe(403)
  })
})
