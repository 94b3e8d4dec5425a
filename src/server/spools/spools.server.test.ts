import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { type Problem } from '@contract/common.ts'
import { type LogbookAnswer } from '@contract/logbook.ts'
import { type SpoolAct, type SpoolsAnswer } from '@contract/spools.ts'
import { type GuideAnswer } from '@contract/guide.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import { rebuild } from '@server/projection/rebuild.ts'
import { contentOf, withPowerCut } from '@server/testing/powercut.ts'
import {
  type Client,
  makePlaces,
  nextKey,
  openShop,
  startTestServer,
  type TestServer,
} from '@server/testing/testserver.ts'

/** Spools from the door to the bin: numbers on flanges, what is left, what was lost. */
const HOUR = 3_600_000
let server: TestServer
let lead: Client
let ids: Map<string, string>
let wireId = ''
const id = (name: string) => ids.get(name) ?? ''
type Done = { numbers: number[]; leftKg: number | null; sdKg: number | null }
const act = <T = Done>(what: SpoolAct, key = nextKey()) => lead.post<T>('/spools', { key, what })
const spools = async () => (await lead.get<SpoolsAnswer>('/spools')).body
const onGun = async (name: string) => (await spools()).guns.find((g) => g.stationId === id(name))
const onShelf = async (number: number) => (await spools()).shelf.find((s) => s.number === number)
const later = (hours: number) => void (server.clock.nowMs += hours * HOUR)

beforeAll(async () => {
  server = await startTestServer({ nowMs: Date.UTC(2026, 10, 23, 6) })
  lead = await openShop(server)
  const wire = { name: 'solid 1.0', construction: 'solid', size: '1.0', densityGPerCm3: 7.85, spoolKg: 15 }
  await lead.post('/shop/wire', { key: nextKey(), ...wire, tareKg: 0.9, coreMm: 180, fullMm: 275, widthMm: 90 })
  wireId = (await lead.get<ShopAnswer>('/shop')).body.wires[0]?.id ?? ''
  ids = await makePlaces(lead, 'A1–A3', { built: { wireId, cableM: 4, wireSpeedMPerMin: 10 } })
})
afterAll(async () => {
  const drift = await rebuild(server.parts.deps, false)
  expect(Object.values(drift).every((n) => n === 0)).toBe(true)
  expect(server.faults).toEqual([])
  await server.close()
})

describe('a spool', () => {
  it('comes in with a number of its own, and its label', async () => {
    expect((await act({ act: 'in', wireId, count: 3, lot: 'H-77' })).body.numbers).toEqual([1, 2, 3])
    expect(await onShelf(2)).toMatchObject({
      leftKg: 15,
      lot: 'H-77',
      how: 'label',
      isNew: true,
      isShort: false,
      build: 1,
    })
  })
  it('the same request again gives the same numbers, and two at once get different ones', async () => {
    const key = nextKey()
    const first = await act({ act: 'in', wireId }, key)
    expect((await act({ act: 'in', wireId }, key)).body).toEqual(first.body)
    const both = await Promise.all([act({ act: 'in', wireId }), act({ act: 'in', wireId })])
    expect(both.map((b) => b.body.numbers[0]).sort()).toEqual([5, 6])
  })
  it('goes on a gun, and the gun says how long wire takes to come through', async () => {
    const spoolId = (await onShelf(1))?.spoolId ?? ''
    expect(await act({ act: 'load', stationId: id('A1'), spoolId })).toMatchObject({ status: 200 })
    const gun = await onGun('A1')
    expect(gun).toMatchObject({ number: 1, wireName: 'solid 1.0' })
    // One number for one test: what the guide says.
    const guide = (await lead.get<GuideAnswer>(`/guide?stationId=${id('A1')}&guide=wire`)).body
    expect(guide.steps.find((step) => step.key === 'feed')?.do).toContain(`about ${Math.round(gun?.threadUpS ?? 0)} s`)
    expect((await onGun('A1'))?.cableKg).toBeCloseTo(0.0247, 3)
    expect(await onShelf(1)).toBeUndefined()
    expect(await act({ act: 'load', stationId: id('A1'), spoolId })).toMatchObject({ status: 400 })
  })
  it('weighed on the gun it tells what is left, and the clock what ran since', async () => {
    later(5)
    const weighed = await act({ act: 'read', stationId: id('A1'), grossKg: 10.9 })
    expect(weighed.body.leftKg).toBeCloseTo(10, 9)
    later(5)
    await act({ act: 'read', stationId: id('A1'), grossKg: 5.9 })
    later(2)
    const gun = await onGun('A1')
    expect(gun?.leftKg).toBeLessThan(4)
    expect(gun?.leftKg).toBeGreaterThan(2)
    expect(gun?.sdKg).toBeGreaterThan(0.05)
    expect(gun?.emptyMs).toBeGreaterThan(server.clock.nowMs)
    expect(gun?.emptyEarlyMs).toBeLessThan(gun?.emptyMs ?? 0)
    expect(gun?.emptyLateMs).toBeGreaterThan(gun?.emptyMs ?? 0)
  })
  it('measured across the wire it agrees with the scale', async () => {
    const spoolId = (await onShelf(2))?.spoolId ?? ''
    const { body } = await act({ act: 'read', spoolId, diameterMm: 230 })
    expect(body.leftKg).toBeCloseTo((15 * (230 ** 2 - 180 ** 2)) / (275 ** 2 - 180 ** 2), 9)
    expect(await onShelf(2)).toMatchObject({ how: 'measured', isNew: false })
  })
  it.each([
    ['a weight under an empty one', { grossKg: 0.2 }, 'weighs less than an empty one'],
    ['more than it holds', { grossKg: 40 }, 'more than a full one holds'],
    ['a diameter under the core', { diameterMm: 120 }, 'under the core'],
  ])('%s is asked about, and nothing is written', async (_, reading, why) => {
    const before = await contentOf(server)
    const answer = await act<Problem>({ act: 'read', stationId: id('A1'), ...reading })
    expect(answer.status).toBe(400)
    expect(answer.body.message).toContain(why)
    expect(await contentOf(server)).toEqual(before)
  })
  it('comes off part-used and lies on the shelf; put on another gun it starts from there', async () => {
    const off = (await onGun('A1'))?.leftKg ?? 0
    await act({ act: 'off', stationId: id('A1'), leftKg: 2 })
    expect(off).toBeGreaterThan(1)
    expect(await onShelf(1)).toMatchObject({ leftKg: 2, how: 'said', isShort: true })
    expect(await onGun('A1')).toMatchObject({ number: null, leftKg: null })
    await act({ act: 'load', stationId: id('A2'), spoolId: (await onShelf(1))?.spoolId ?? '' })
    expect(await onGun('A2')).toMatchObject({ number: 1 })
  })
  it('the next one on says the one before is empty; or what was left of it', async () => {
    later(3)
    await act({ act: 'load', stationId: id('A2'), spoolId: (await onShelf(2))?.spoolId ?? '' })
    expect(await onShelf(1)).toBeUndefined()
    later(3)
    await act({ act: 'load', stationId: id('A2'), spoolId: (await onShelf(3))?.spoolId ?? '', oldLeftKg: 3.5 })
    expect(await onShelf(2)).toMatchObject({ leftKg: 3.5 })
  })
  it('moved from gun to gun without a word it takes along what the clock leaves on it', async () => {
    later(1)
    const moved = (await onGun('A2'))?.spoolId ?? ''
    await act({ act: 'load', stationId: id('A3'), spoolId: moved })
    expect(await onGun('A2')).toMatchObject({ number: null })
    expect(await onGun('A3')).toMatchObject({ number: 3 })
  })
  it('the one-tap "new spool" needs no number; taken off part-used it gets one', async () => {
    const acts = [{ stationId: id('A1'), act: 'newSpool' }]
    await lead.post('/logbook', { key: nextKey(), acts })
    expect(await onGun('A1')).toMatchObject({ number: null, how: 'label' })
    const next = (await act({ act: 'in', wireId })).body.numbers[0] ?? 0
    await act({ act: 'off', stationId: id('A1'), leftKg: 6 })
    expect(await onShelf(next + 1)).toMatchObject({ leftKg: 6, wireName: 'solid 1.0', how: 'said' })
  })
  it('thrown away it is waste, and gone; a spool on a gun is not thrown away', async () => {
    const on = (await onGun('A3'))?.spoolId ?? ''
    expect(await act({ act: 'gone', spoolId: on })).toMatchObject({ status: 400 })
    await act({ act: 'gone', spoolId: (await onShelf(2))?.spoolId ?? '' })
    expect(await onShelf(2)).toBeUndefined()
    expect((await spools()).thrown).toEqual({ kg: 3.5, spools: 1 })
  })
  it('wire lost in a cable goes by its length, a nest by its metres', async () => {
    await act({ act: 'lost', stationId: id('A3'), why: 'cable emptied' })
    await act({ act: 'lost', stationId: id('A3'), why: 'nest', metres: 40 })
    const { lost } = await spools()
    expect(lost.map((l) => [l.why, l.times])).toEqual([
      ['nest', 1],
      ['cable emptied', 1],
    ])
    expect(lost[0]?.kg).toBeCloseTo(0.2466, 3)
  })
  it('a reading booked on the wrong gun is put right, and the gun it was on knows only its label again', async () => {
    later(1)
    await lead.post('/logbook', { key: nextKey(), acts: [{ stationId: id('A1'), act: 'newSpool' }] })
    later(1)
    await act({ act: 'read', stationId: id('A1'), grossKg: 9 })
    expect(await onGun('A1')).toMatchObject({ how: 'weighed' })
    const { lines } = (await lead.get<LogbookAnswer>('/logbook')).body
    const line = lines.find((l) => l.fact.kind === 'spoolRead' && l.stationName === 'A1')
    const fix = { key: nextKey(), eventId: line?.eventId, stationId: id('A3') }
    expect(await lead.post('/logbook/correct', fix)).toMatchObject({ status: 200 })
    expect(await onGun('A1')).toMatchObject({ how: 'label' })
    expect(await onGun('A3')).toMatchObject({ how: 'weighed' })
  })
  it('all of it is told in the Logbook', async () => {
    const { lines } = (await lead.get<LogbookAnswer>('/logbook')).body
    for (const kind of ['spoolIn', 'wireLoaded', 'spoolRead', 'wireOff', 'wireLost', 'spoolGone'])
      expect(lines.some((l) => l.fact.kind === kind)).toBe(true)
  })
  it('a power cut leaves nothing of any of it', () =>
    withPowerCut(server, async () => {
      const before = await contentOf(server)
      await act({ act: 'in', wireId })
      await act({ act: 'load', stationId: id('A1'), spoolId: (await onShelf(5))?.spoolId ?? '' })
      await act({ act: 'lost', stationId: id('A3'), why: 'nest', metres: 4 })
      await act({ act: 'off', stationId: id('A3'), leftKg: 1 })
      await act({ act: 'gone', spoolId: (await onShelf(5))?.spoolId ?? '' })
      expect(await contentOf(server)).toEqual(before)
    }))
})
