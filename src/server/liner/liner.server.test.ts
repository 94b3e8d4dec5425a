import { describe, expect, it } from 'vitest'
import { type Problem } from '@contract/common.ts'
import { type GunAnswer } from '@contract/gun.ts'
import { type LinerAnswer, type StuckAnswer } from '@contract/liner.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import { openFitShop, type FitShop } from '@server/testing/fitshop.ts'
import { contentOf } from '@server/testing/powercut.ts'
import { nextKey, type Client, type TestServer } from '@server/testing/testserver.ts'
import { serverForAll } from '@server/testing/serverforall.ts'

let server: TestServer
let lead: Client
let at: FitShop
const id = (name: string) => at.ids.get(name) ?? ''
const liner = async (name: string) => (await lead.get<LinerAnswer>(`/liner?stationId=${id(name)}`)).body
const shelf = async (code: string) =>
  (await lead.get<ShopAnswer>('/shop')).body.parts.find((p) => p.code === code)?.onHand ?? null
const stuck = (name: string, atMm: number | null, isKinked = false) =>
  lead.post<StuckAnswer>('/liner/stuck', { key: nextKey(), stationId: id(name), atMm, isKinked })
const CUT = {
  by: 'A' as const,
  neededMm: 18,
  standsOutMm: 48,
  firstCutMm: 27,
  nowMm: 21.2,
  secondCutMm: 3.2,
  leftMm: 18,
  lengthMm: 4168,
}
const job = (name: string, over: Record<string, unknown> = {}) => ({
  key: nextKey(),
  stationId: id(name),
  outReason: 'kinked',
  old: { found: ['bunched', 'kinked'], isCertain: false, atMm: 900, lengthMm: 4170 },
  isBlown: true,
  cut: CUT,
  minutes: 31,
  overrun: 'nutWinds',
  settled: [],
  ...over,
})

serverForAll({ nowMs: Date.UTC(2026, 10, 23, 6) }, async (here) => {
  ;({ server, lead } = here)
  at = await openFitShop(lead, 'B1–B6')
  const kelp = at.shop.families.find((f) => f.name === 'Kelp')
  await lead.post('/shop/family', {
    key: nextKey(),
    id: kelp?.id,
    name: 'Kelp',
    fit: { ...kelp?.fit, seatDepthMm: 18 },
  })
})

describe('before a tool is picked up', () => {
  it('tells the length to order, the room, the second person, the rule and the tool', async () => {
    expect(await liner('B1')).toMatchObject({
      put: { code: 'LS10' },
      putLengthMm: 5000,
      orderMm: 4000 + 150 + 40 + 150,
      clearFloorMm: 4650,
      secondPerson: ['longCable'],
      by: 'A',
      neededMm: 18,
      cutter: 'side cutters',
      last: null,
      stuckBefore: [],
    })
  })
  it('has no rule where the family’s figure is not told, and copies where the shop copies', async () => {
    const kelp = at.shop.families.find((f) => f.name === 'Kelp')
    await lead.post('/shop/family', {
      key: nextKey(),
      id: kelp?.id,
      name: 'Kelp',
      fit: { ...kelp?.fit, seatDepthMm: null },
    })
    expect(await liner('B1')).toMatchObject({ by: 'notTold', neededMm: null })
    await lead.post('/houserule', { key: nextKey(), code: 'D07', scopeType: 'site', scopeKey: '*', option: 'old' })
    expect(await liner('B1')).toMatchObject({ by: 'C', shouldBe: 'A' })
    await lead.post('/houserule', { key: nextKey(), code: 'D07', scopeType: 'site', scopeKey: '*', option: 'family' })
    await lead.post('/shop/family', {
      key: nextKey(),
      id: kelp?.id,
      name: 'Kelp',
      fit: { ...kelp?.fit, seatDepthMm: 18 },
    })
  })
})

describe('on the way in', () => {
  it('a kinked liner is scrap at once, and off the shelf', async () => {
    const before = await shelf('LS10')
    expect((await stuck('B2', 1400, true)).body.is).toBe('scrap')
    expect(await shelf('LS10')).toBe((before ?? 0) - 1)
    expect((await liner('B2')).spoiled).toEqual({ n: 1, of: 1 })
  })
  it('another that sticks at the same place condemns the cable; elsewhere the cable is not straight', async () => {
    expect((await stuck('B3', 1400)).body.is).toBe('straighten')
    server.clock.nowMs += 60_000
    expect((await stuck('B3', 1460)).body).toMatchObject({ is: 'cable' })
    expect((await liner('B3')).stuckBefore).toHaveLength(2)
    expect((await stuck('B4', 4050)).body.is).toBe('neck')
  })
  it('the same stop sent twice is one stop', async () => {
    const body = { key: nextKey(), stationId: id('B5'), atMm: 700, isKinked: false }
    const said = await Promise.all([
      lead.post<StuckAnswer>('/liner/stuck', body),
      lead.post<StuckAnswer>('/liner/stuck', body),
    ])
    expect(said.map((s) => s.body.is)).toEqual(['straighten', 'straighten'])
    // The answer was lost and it is asked for again: it must not meet itself.
    server.clock.nowMs += 60_000
    expect((await lead.post<StuckAnswer>('/liner/stuck', body)).body.is).toBe('straighten')
    expect((await liner('B5')).stuckBefore).toHaveLength(1)
  })
  it('a place beyond the gun is refused with the length of the gun', async () => {
    const before = await contentOf(server)
    const answer = await lead.post<Problem>('/liner/stuck', {
      key: nextKey(),
      stationId: id('B4'),
      atMm: 9000,
      isKinked: false,
    })
    expect(answer.status).toBe(400)
    expect(answer.body.message).toContain('4150 mm')
    expect(await contentOf(server)).toEqual(before)
  })
})

describe('the job done', () => {
  it('is one act with the cut, the autopsy and the minutes, and is remembered for next time', async () => {
    const { body } = await lead.post<{ eventId: string }>('/liner/done', job('B1'))
    const after = await liner('B1')
    expect(after.last).toMatchObject({ by: 'A', leftMm: 18, lengthMm: 4168 })
    expect(after.autopsies).toMatchObject([{ found: ['bunched', 'kinked'], isCertain: false, atMm: 900 }])
    expect(after.minutes).toMatchObject({ n: 1, held: [{ reason: 'nutWinds', n: 1 }] })
    const gun = (await lead.get<GunAnswer>(`/gun/${id('B1')}`)).body
    expect(gun.tape.map((l) => l.fact.kind).sort()).toEqual(['autopsy', 'blown', 'fitted', 'linerCut'])
    expect(gun.followUps.map((f) => f.task)).toEqual(['tension', 'freeFeed', 'seat', 'orings'])
    await lead.post('/logbook/undo', { key: nextKey(), eventIds: [body.eventId] })
    expect(await liner('B1')).toMatchObject({ last: null, autopsies: [], minutes: { n: 0 } })
  })
  it('what was done on the way is settled; the seat is asked for again when it has run', async () => {
    await lead.post('/liner/done', job('B6', { settled: ['tension', 'freeFeed', 'orings'] }))
    const open = async () => (await lead.get<GunAnswer>(`/gun/${id('B6')}`)).body.followUps
    expect(await open()).toMatchObject([{ task: 'seat', isAsked: false }])
    server.clock.nowMs += 2 * 3_600_000
    expect(await open()).toMatchObject([{ task: 'seat', isAsked: true }])
  })
  it('refuses more cut than stood out, a length below nothing, and writes nothing', async () => {
    const before = await contentOf(server)
    for (const cut of [
      { ...CUT, firstCutMm: 60 },
      { ...CUT, standsOutMm: -4 },
    ]) {
      const answer = await lead.post<Problem>('/liner/done', job('B5', { cut }))
      expect(answer.status).toBe(400)
    }
    expect(await contentOf(server)).toEqual(before)
  })
})
