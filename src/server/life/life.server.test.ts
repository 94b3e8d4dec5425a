import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { type Problem } from '@contract/common.ts'
import { type FloorAnswer } from '@contract/floor.ts'
import { type GunAnswer } from '@contract/gun.ts'
import { type LifeAnswer } from '@contract/life.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import { type SpoolsAnswer } from '@contract/spools.ts'
import { UNTOLD_PART } from '@core/rightparts/untold.ts'
import { drawWeibull, makeRandom } from '@core/random/random.ts'
import { contentOf, withPowerCut } from '@server/testing/powercut.ts'
import {
  Client,
  driftOf,
  LEAD,
  makePlaces,
  nextKey,
  openShop,
  startTestServer,
  type TestServer,
} from '@server/testing/testserver.ts'

/** Six booths with three arc hours a day, whose tips wear out at about five hours and are all logged. */
const DAY = 86_400_000
const DAYS = 24
const FIRST = Date.UTC(2026, 9, 5)
const NAMES = ['A1', 'A2', 'A3', 'A4', 'A5', 'A6']
let server: TestServer
let lead: Client
let ids: Map<string, string>
const id = (name: string) => ids.get(name) ?? ''
const life = async (query = '?kind=tip') => (await lead.get<LifeAnswer>(`/life${query}`)).body
const floor = async () => (await lead.get<FloorAnswer>('/floor')).body
const opened = (at: FloorAnswer) => at.guns.filter((g) => g.rank !== null).map((g) => g.name)
const act = (name: string, what: Record<string, unknown>) =>
  lead.post('/logbook', { key: nextKey(), acts: [{ stationId: id(name), ...what }] })
const rule = (over: Record<string, unknown> = {}) =>
  lead.post<Problem>('/life/rule', {
    ...{ key: nextKey(), kindKey: 'tip', classKey: 'booth', school: 'fixed', at: 2 },
    ...over,
  })
const word = (usual: number | null, early: number | null) =>
  lead.post<Problem>('/life/word', { key: nextKey(), kindKey: 'tip', classKey: '*', usual, early })

/** Three hours on every gun: a tip goes when its own hours are over. */
async function workDay(
  day: number,
  guns: readonly { name: string; random: () => number; left: number }[],
): Promise<void> {
  const date = new Date(FIRST + day * DAY).toISOString().slice(0, 10)
  server.clock.nowMs = FIRST + day * DAY + 14.2 * 3_600_000
  await lead.post('/people/sign-in', LEAD)
  for (const gun of guns) {
    await lead.post('/clock/usage', { key: nextKey(), stationId: id(gun.name), day: date, shift: 'day', arcHours: 3 })
    let done = 0
    while (done + gun.left < 3) {
      done += gun.left
      gun.left = drawWeibull(gun.random, 3, 5.6)
      const happenedMs = Math.round(FIRST + day * DAY + (6 + (done / 3) * 8) * 3_600_000)
      const outReason = gun.random() < 0.1 ? 'notSaid' : 'worn'
      await act(gun.name, { act: 'changed', position: 'tip', outReason, happenedMs })
    }
    gun.left -= 3 - done
  }
}

beforeAll(async () => {
  server = await startTestServer({ nowMs: FIRST })
  lead = await openShop(server)
  ids = await makePlaces(lead, 'A1–A6')
  const shift = { name: 'day', weekdays: [1, 2, 3, 4, 5, 6, 7], start: '06:00', end: '14:00', breaks: [] }
  await lead.post('/shop/shifts', { key: nextKey(), areaId: null, shifts: [shift] })
})
afterAll(async () => {
  expect(server.faults).toEqual([])
  expect(await driftOf(server)).toBe(0)
  await server.close()
})

describe('before anything is known', () => {
  it('the trade’s guess is told as one, with nothing of its own', async () => {
    const at = await life()
    expect(at.told).toMatchObject({ source: 'trade', n: 0, worn: 0 })
    expect(at.told?.median.value).toBeCloseTo(8, 0)
    expect(at.seen).toMatchObject({ ended: 0, share: { isGuess: true } })
  })
  it('a kind the trade has no guess of is not known at all', async () =>
    expect(await life('?kind=gas')).toMatchObject({ told: null, refused: 'noLives', money: null }))
  it('the lead’s word goes before it, and can be taken back', async () => {
    expect(await word(6, 3)).toMatchObject({ status: 200 })
    const at = await life()
    expect(at).toMatchObject({ told: { source: 'told' }, word: { usual: 6, early: 3, isForAll: true } })
    expect(at.told?.median.value).toBeCloseTo(6, 1)
    expect(at.told?.b10.value).toBeCloseTo(3, 1)
    await word(null, null)
    expect((await life()).word).toBeNull()
  })
  it('a word that contradicts itself is refused, with why', async () => {
    const answer = await word(3, 6)
    expect(answer).toMatchObject({ status: 400, body: { message: expect.stringContaining('less') as string } })
    expect((await life()).word).toBeNull()
  })
  it.each([
    ['?kind=nonsense', 400],
    ['?where=area:none', 404],
    ['?where=class:none', 404],
  ])('%s is not here', async (query, status) => expect(await lead.get(`/life${query}`)).toMatchObject({ status }))
})

/** Three cables lie straight, two are coiled, of one nobody looked; every wiper is kept but one. */
async function look(): Promise<void> {
  const grades = ['straight', 'straight', 'straight', 'coiled', 'coiled']
  for (const [i, grade] of grades.entries()) {
    const of = { stationId: id(NAMES[i] ?? ''), method: 'look', how: 'looked' }
    expect(await lead.post('/reading', { key: nextKey(), ...of, what: 'layout', grade })).toMatchObject({ status: 200 })
    await lead.post('/reading', { key: nextKey(), ...of, what: 'wiper', grade: i === 0 ? 'sheds' : 'clean' })
  }
}
/** One spool of a told lot on A1. */
async function oneLot(): Promise<void> {
  const wire = { name: 'solid 1.0', construction: 'solid', size: '1.0', densityGPerCm3: 7.85, spoolKg: 300 }
  await lead.post('/shop/wire', { key: nextKey(), ...wire })
  const wireId = (await lead.get<ShopAnswer>('/shop')).body.wires[0]?.id ?? ''
  await lead.post('/spools', { key: nextKey(), what: { act: 'in', wireId, lot: 'S-77', labelKg: 300 } })
  const spoolId = (await lead.get<SpoolsAnswer>('/spools')).body.shelf[0]?.spoolId
  const load = { act: 'load', stationId: id('A1'), spoolId }
  expect(await lead.post('/spools', { key: nextKey(), what: load })).toMatchObject({ status: 200 })
}

describe('lives from the ledger', () => {
  beforeAll(async () => {
    const guns = NAMES.map((name, i) => {
      const random = makeRandom(40 + i)
      return { name, random, left: drawWeibull(random, 3, 5.6) }
    })
    server.clock.nowMs = FIRST + 3_600_000
    for (const { name } of guns) await act(name, { act: 'changed', position: 'tip', outReason: 'notSaid' })
    await look()
    await oneLot()
    for (let day = 0; day < DAYS; day++) await workDay(day, guns)
    server.clock.nowMs = FIRST + DAYS * DAY + 7 * 3_600_000
  }, 120_000)

  it('give shape and half-life back within their own intervals', async () => {
    const { told, seen } = await life('?kind=tip&where=class:booth')
    expect(told).toMatchObject({ source: 'yours' })
    expect(told?.n).toBeGreaterThan(60)
    expect(told?.wornMedian.low).toBeLessThan(5.6 * Math.LN2 ** (1 / 3))
    expect(told?.wornMedian.high).toBeGreaterThan(5.6 * Math.LN2 ** (1 / 3))
    expect(seen.in).toBe(6)
    expect(seen.noUse).toBeLessThanOrEqual(6)
  })
  it('each is a stroke with its place and days, the longest first', async () => {
    const { strokes, strokesOf } = await life()
    expect(strokes).toHaveLength(strokesOf)
    expect(strokes.map((s) => s.used)).toEqual(strokes.map((s) => s.used).sort((a, b) => b - a))
    expect(strokes.every((s) => NAMES.includes(s.name) && (s.toMs ?? Infinity) > s.fromMs)).toBe(true)
  })
  it('what nobody said is told both ways, and may be counted either way', async () => {
    const at = await life()
    expect(at.told?.notSaid).toBeGreaterThan(0)
    expect(at.asWorn).toBeLessThan(at.asCut ?? 0)
    const [worn, cut] = [await life('?kind=tip&notSaid=worn'), await life('?kind=tip&notSaid=cut')]
    expect(worn.told?.median.value).toBeLessThan(cut.told?.median.value ?? 0)
  })
  it('side by side with nothing to tell apart says so, and nobody is accused', async () => {
    const at = await life('?kind=tip&by=area')
    expect(at.groups).toHaveLength(1)
    expect(at).toMatchObject({ compared: [], hungry: [], placesSeen: 6 })
  })
  it('are told apart by what was found at their place, where somebody looked', async () => {
    const names = async (by: string) => (await life(`?kind=tip&by=${by}`)).groups.map((g) => g.name).sort()
    expect(await names('layout')).toEqual(['cable coiled or bent', 'cable laid out'])
    expect(await names('wiper')).toEqual(['wiper kept', 'wiper that sheds'])
    expect(await names('lot')).toEqual(['lot S-77'])
    const { groups, strokesOf } = await life('?kind=tip&by=layout')
    expect(groups.reduce((sum, g) => sum + g.n, 0)).toBeLessThan(strokesOf)
  })
  it('and by what they are made of, as far as that is told', async () => {
    expect((await life('?kind=tip&by=metal')).groups).toEqual([])
  })
  it('only minutes until somebody names a price', async () => {
    const { money } = await life('?kind=tip&where=class:booth')
    expect(money?.unpriced).toEqual(['part', 'labour', 'standing'])
  })
})

describe('a rule in money', () => {
  beforeAll(async () => {
    await lead.post('/shop/class', {
      ...{ key: nextKey(), classKey: 'booth', labourMinorPerHour: 3000, stopMinorPerHour: 30_000 },
    })
    await lead.post('/shop/part', { key: nextKey(), code: 'T-1', name: 'Tip', kindKey: 'tip', priceMinor: 60 })
    // Another way of asking, so that no kept answer is in the way.
    await word(6, 3)
  })
  it('the schools stand side by side, the least cost with its spread', async () => {
    const { money } = await life('?kind=tip&where=class:booth')
    const best = money?.lines.find((l) => l.school === 'leastCost')
    expect(money).toMatchObject({ advised: 'leastCost', per: 'arcHours', unpriced: [] })
    expect(best?.saving.low).toBeGreaterThan(0)
    expect(best?.saving.low).toBeLessThan(best?.saving.value ?? 0)
    expect(best?.at).toBeLessThan(5)
  })
  it('is shown beforehand in what it moves on Floor, and moves just that', async () => {
    const before = opened(await floor())
    const moves = (
      await lead.get<{ opens: string[]; closes: string[]; due: number }>('/life/preview?kind=tip&classKey=booth&at=2')
    ).body
    expect(opened(await floor())).toEqual(before)
    expect(moves.opens.length).toBeGreaterThan(0)
    expect(await rule()).toMatchObject({ status: 200 })
    const after = opened(await floor())
    expect(after.filter((n) => !before.includes(n)).sort()).toEqual([...moves.opens].sort())
  })
  it('is kept with what it rested on, and stands in the history', async () => {
    const at = await life('?kind=tip&where=class:booth')
    expect(at.rule).toMatchObject({
      changeLimit: 2,
      school: 'fixed',
      isForAll: false,
      chosenBy: 'Lead',
      isNewer: false,
    })
    expect(at.rule.n).toBe(at.told?.n)
    const chosen = { kindKey: 'tip', classKey: 'booth', changeAt: 2, school: 'fixed', lives: at.told?.n }
    expect(at.history[0]).toMatchObject({ change: chosen, names: { unit: 'arcHours' } })
    await act('A1', { act: 'changed', position: 'tip', outReason: 'worn' })
    await word(6, 3.1)
    expect((await life('?kind=tip&where=class:booth')).rule).toMatchObject({ changeLimit: 2, isNewer: true })
  })
  it('Floor ranks by leaving it till tomorrow, and the gun tells the chance', async () => {
    // What was read to be put right comes before what is due.
    const rows = (await floor()).guns
      .filter((g) => g.rank !== null && g.found.length === 0)
      .sort((a, b) => (a.rank ?? 0) - (b.rank ?? 0))
    const chances = rows.map((g) => g.wants.find((w) => w.position === 'tip')?.leave?.chance ?? 0)
    expect(chances.length).toBeGreaterThan(1)
    expect(chances).toEqual([...chances].sort((a, b) => b - a))
    const { positions } = (await lead.get<GunAnswer>(`/gun/${ids.get(rows[0]?.name ?? '') ?? ''}`)).body
    const tip = positions.find((p) => p.position === 'tip')
    expect(tip?.leave?.chance).toBeCloseTo(chances[0] ?? 0, 2)
    expect(tip?.usual).toMatchObject({ source: 'yours' })
  })
  it('run to failure takes the limit away; a fixed rule without its use is refused', async () => {
    await rule({ school: 'runToFailure', at: null })
    const { rules } = (await lead.get<ShopAnswer>('/shop')).body
    expect(rules.find((r) => r.kindKey === 'tip' && r.classKey === 'booth')).toMatchObject({ changeLimit: null })
    expect(await rule({ at: null })).toMatchObject({ status: 400 })
    expect(await rule({ classKey: 'nowhere' })).toMatchObject({ status: 404 })
  })
  it('a power cut leaves nothing; the same key twice is once', async () => {
    const before = await contentOf(server)
    await withPowerCut(server, () => rule({ at: 3 }))
    expect(await contentOf(server)).toEqual(before)
    const key = nextKey()
    for (let i = 0; i < 2; i++) await rule({ key, at: 4 })
    const { history } = await life('?kind=tip&where=class:booth')
    expect(history.filter((h) => h.change.of === 'houseRule' && h.change.changeAt === 4)).toHaveLength(1)
  })
})

describe('a try-out', () => {
  const start = (over: Record<string, unknown> = {}) =>
    lead.post<Problem>('/life/tryout', {
      ...{ key: nextKey(), kindKey: 'tip', question: 'dip or none?', nameA: 'none', nameB: 'dip', ratio: 1.5 },
      ...{ stationIds: NAMES.map(id), ...over },
    })
  const tryouts = async () => (await life('?kind=tip')).tryouts
  it('deals the places out and says how many it needs', async () => {
    expect(await start()).toMatchObject({ status: 200 })
    const [made] = await tryouts()
    expect(made?.placesA).toHaveLength(3)
    expect([...(made?.placesA ?? []), ...(made?.placesB ?? [])].sort()).toEqual(NAMES)
    expect(made).toMatchObject({ needed: 48, now: { answer: 'notYet', ends: 0 }, toMs: null })
  })
  it('each gun tells what it was dealt', async () => {
    const [made] = await tryouts()
    const gets = async (name: string) => (await lead.get<GunAnswer>(`/gun/${id(name)}`)).body.tryouts
    expect(await gets(made?.placesA[0] ?? '')).toMatchObject([{ kindKey: 'tip', gets: 'none' }])
    expect(await gets(made?.placesB[0] ?? '')).toMatchObject([{ kindKey: 'tip', gets: 'dip' }])
  })
  it('one at a time at a place', async () => {
    expect(await start()).toMatchObject({
      status: 400,
      body: { message: expect.stringContaining('another') as string },
    })
    expect(await start({ stationIds: [id('A1'), 'stn_none'] })).toMatchObject({ status: 404 })
    expect(await start({ kindKey: 'nonsense' })).toMatchObject({ status: 400 })
    expect(await tryouts()).toHaveLength(1)
  })
  it('ended it keeps what it had come to, and ending it again changes nothing', async () => {
    const [made] = await tryouts()
    const end = () => lead.post('/life/tryout/end', { key: nextKey(), id: made?.id })
    await end()
    server.clock.nowMs += DAY
    await end()
    const [ended] = await tryouts()
    expect(ended?.toMs).toBe(server.clock.nowMs - DAY)
    expect(ended?.now.answer).toBe('notYet')
    expect(await start()).toMatchObject({ status: 200 })
    await lead.post('/life/tryout/end', { key: nextKey(), id: (await tryouts())[0]?.id })
  })
  it('a part of which it is only heard that it fits is asked about, tried, and confirmed by what came of it', async () => {
    await lead.post('/shop/part', {
      ...{ key: nextKey(), code: 'HEARD-9', name: 'look-alike tip', kindKey: 'tip', familyId: null, wireSize: null },
      ...{ priceMinor: 40, onHand: 10, fit: { ...UNTOLD_PART, proof: 'rumour' } },
    })
    const partOf = async () => (await lead.get<ShopAnswer>('/shop')).body.parts.find((p) => p.code === 'HEARD-9')
    const partId = (await partOf())?.id ?? ''
    const heard = async (name: string) =>
      (await lead.get<GunAnswer>(`/gun/${id(name)}`)).body.findings.find((f) => f.rule === 'fitRumour')?.severity
    server.clock.nowMs += 60_000
    await act('A1', { act: 'changed', position: 'tip', outReason: 'toTry', partId })
    expect(await heard('A1')).toBe('harms')
    const dealt = {
      stationIds: [id('A1'), id('A2')],
      partAId: partId,
      partBId: partId,
      nameA: 'HEARD-9',
      nameB: 'ours',
    }
    expect(await start(dealt)).toMatchObject({ status: 200 })
    expect(await heard('A1')).toBe('note')
    const [made] = await tryouts()
    expect(made?.unproven).toContain('HEARD-9')
    await lead.post('/life/tryout/end', { key: nextKey(), id: made?.id, fits: true })
    expect((await partOf())?.fit?.proof).toBe('confirmed')
    expect(await heard('A1')).toBeUndefined()
  })
})

it('hands do not see it', async () => {
  const password = 'ten letters or more'
  await lead.post('/people/person', { key: nextKey(), name: 'Ana', role: 'hand', password, isActive: true })
  const hand = new Client(server.url)
  await hand.post('/people/sign-in', { name: 'Ana', password })
  expect(await hand.get('/life')).toMatchObject({ status: 403 })
  expect(await hand.get('/life/preview?kind=tip&classKey=booth')).toMatchObject({ status: 403 })
})
