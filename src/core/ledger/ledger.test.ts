import { type Position } from '@core/path/columns.ts'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { type CarrierId, type EventId, type PartId, type StationId } from '@core/ids/id.ts'
import { buildClock, clockAt } from '@core/clock/clock.ts'
import { makeRandom } from '@core/random/random.ts'
import { type Fact, type LedgerEvent, type Occurrence } from './event.ts'
import { chainStretches, exposureOver, withoutOffs, type ChainStretch } from './exposure.ts'
import { foldCarrier } from './fold.ts'
import { foldStation } from './foldstation.ts'
import { standingFacts } from './resolve.ts'

const GUN = 'car_gun' as CarrierId
const HEAD = 'car_head' as CarrierId
const STATION = 'stn_1' as StationId
const id = (n: number) => `ev_${String(n).padStart(4, '0')}` as EventId
const base = { precision: 'exact' as const, stationId: STATION, personId: null, deviceId: null, note: null }
const said = (n: number, happenedMs: number, fact: Fact, loggedMs = n): LedgerEvent => ({
  ...base,
  id: id(n),
  happenedMs,
  loggedMs,
  body: { type: 'fact', fact },
})
const corrected = (n: number, of: number, replacement: Occurrence | null, loggedMs = n): LedgerEvent => ({
  ...base,
  id: id(n),
  happenedMs: 0,
  loggedMs,
  body: { type: 'correction', correctsId: id(of), replacement },
})
const fitted = (position: Position = 'tip', over: Partial<Extract<Fact, { kind: 'fitted' }>> = {}): Fact => ({
  kind: 'fitted',
  carrierId: GUN,
  position,
  partId: null,
  outReason: 'worn',
  count: 1,
  entryAge: 'new',
  ...over,
})
const at = (happenedMs: number, fact: Fact): Occurrence => ({
  fact,
  happenedMs,
  precision: 'exact',
  stationId: STATION,
})
const story = (events: LedgerEvent[]) => foldCarrier(standingFacts(events))

describe('corrections', () => {
  it('a line that was taken back says nothing', () =>
    expect(standingFacts([said(1, 10, fitted()), corrected(2, 1, null)])).toEqual([]))
  it('a replaced line says the replacement', () =>
    expect(standingFacts([said(1, 10, fitted()), corrected(2, 1, at(5, fitted('nozzle')))])[0]).toMatchObject({
      happenedMs: 5,
      eventId: id(1),
    }))
  it('taking a correction back makes the line stand again', () =>
    expect(standingFacts([said(1, 10, fitted()), corrected(2, 1, null), corrected(3, 2, null)])).toHaveLength(1))
  it('a correction can be corrected', () =>
    expect(
      standingFacts([said(1, 10, fitted()), corrected(2, 1, at(5, fitted())), corrected(3, 2, at(7, fitted()))])[0]
        ?.happenedMs,
    ).toBe(7))
  it('of two corrections the later stands, and the earlier again when the later is taken back', () => {
    const events = [said(1, 10, fitted()), corrected(2, 1, at(5, fitted())), corrected(3, 1, at(8, fitted()))]
    expect(standingFacts(events)[0]?.happenedMs).toBe(8)
    expect(standingFacts([...events, corrected(4, 3, null)])[0]?.happenedMs).toBe(5)
  })
})

const facts: Fact[] = [
  fitted(),
  fitted('nozzle'),
  { kind: 'removed', carrierId: GUN, position: 'tip', outReason: 'toTry' },
  fitted('liner'),
  fitted('liner', { again: true, entryAge: 'unknown' }),
  { kind: 'removed', carrierId: GUN, position: 'liner', outReason: 'toTry' },
  { kind: 'cleaned', carrierId: GUN, position: 'nozzle' },
  { kind: 'mounted', carrierId: GUN, onId: HEAD },
  { kind: 'mounted', carrierId: GUN, onId: null },
  { kind: 'confirmed', carrierId: GUN, position: null },
]
const anyEvents = fc
  .array(
    fc.record({
      fact: fc.constantFrom(...facts),
      happened: fc.integer({ min: 0, max: 30 }),
      of: fc.option(fc.integer({ min: 0, max: 20 }), { nil: null }),
      isWithdrawn: fc.boolean(),
    }),
    { minLength: 1, maxLength: 25 },
  )
  .map((list) =>
    list.map((l, n) =>
      l.of !== null && l.of < n
        ? corrected(n, l.of, l.isWithdrawn ? null : at(l.happened, l.fact))
        : said(n, l.happened, l.fact),
    ),
  )

describe('fold of a carrier', () => {
  it('is the same whatever order lines arrive in', () => {
    fc.assert(
      fc.property(anyEvents, fc.integer({ min: 1, max: 999 }), (events, seed) => {
        const random = makeRandom(seed)
        const shuffled = [...events]
          .map((e) => ({ e, k: random() }))
          .sort((a, b) => a.k - b.k)
          .map((x) => x.e)
        expect(story(shuffled)).toEqual(story(events))
      }),
      { seed: 21, numRuns: 300 },
    )
  })
  it('has at most one open life a position, and no two of a position are on at the same time', () => {
    fc.assert(
      fc.property(anyEvents, (events) => {
        const { lives } = story(events)
        for (const position of new Set(lives.map((l) => l.position))) {
          expect(lives.filter((l) => l.position === position && l.toMs === null).length).toBeLessThanOrEqual(1)
          const own = lives
            .filter((l) => l.position === position)
            .flatMap(({ fromMs, toMs, offs }) => {
              const starts = [fromMs, ...offs.map((o) => o.toMs)]
              const ends = [...offs.map((o) => o.fromMs), toMs]
              return starts.map((from, i) => ({ fromMs: from, toMs: ends[i] ?? null }))
            })
            .sort((a, b) => a.fromMs - b.fromMs || (a.toMs ?? Infinity) - (b.toMs ?? Infinity))
          own.forEach((l, i) =>
            expect(own[i + 1]?.fromMs ?? Infinity).toBeGreaterThanOrEqual(l.toMs ?? own[i + 1]?.fromMs ?? Infinity),
          )
        }
      }),
      { seed: 22, numRuns: 300 },
    )
  })
  it('a part put on an occupied position ends the life before, with the reason that was said', () => {
    const { lives } = story([said(1, 0, fitted()), said(2, 50, fitted('tip', { outReason: 'burnedBack' }))])
    expect(lives).toMatchObject([
      { fromMs: 0, toMs: 50, outReason: 'burnedBack', count: 1 },
      { fromMs: 50, toMs: null },
    ])
  })
  it('at the same instant the removal comes before the fitting', () => {
    const { lives } = story([
      said(1, 0, fitted()),
      said(2, 50, fitted()),
      said(3, 50, { kind: 'removed', carrierId: GUN, position: 'tip', outReason: 'knocked' }),
    ])
    expect(lives[0]).toMatchObject({ toMs: 50, outReason: 'knocked' })
  })
  const out = (outReason: 'toTry' | 'worn' = 'toTry'): Fact => ({
    ...{ kind: 'removed', carrierId: GUN, position: 'liner', outReason },
  })
  const back = (over = {}) => fitted('liner', { again: true, entryAge: 'unknown', ...over })
  it('a liner taken out good and put back is one life, with the time between off', () => {
    const { lives } = story([said(1, 0, fitted('liner')), said(2, 30, out()), said(3, 70, back())])
    expect(lives).toMatchObject([{ fromMs: 0, toMs: null, entryAge: 'new', offs: [{ fromMs: 30, toMs: 70 }] }])
  })
  it('so is one that made way for another wire’s, by its own part', () => {
    const [steel, plastic] = ['part_1' as PartId, 'part_2' as PartId]
    const { lives } = story([
      said(1, 0, fitted('liner', { partId: steel })),
      said(2, 30, fitted('liner', { partId: plastic, outReason: 'toTry' })),
      said(3, 70, back({ partId: steel, outReason: 'toTry' })),
      said(4, 90, fitted('liner', { partId: steel, outReason: 'worn' })),
    ])
    expect(lives).toMatchObject([
      { fromMs: 30, toMs: 70, partId: plastic, outReason: 'toTry' },
      { fromMs: 0, toMs: 90, partId: steel, outReason: 'worn', offs: [{ fromMs: 30, toMs: 70 }] },
      { fromMs: 90, toMs: null, offs: [] },
    ])
  })
  it('worn out it does not come back; a tip begins anew at an age nobody knows', () => {
    const worn = story([said(1, 0, fitted('liner')), said(2, 30, out('worn')), said(3, 70, back())]).lives
    expect(worn).toMatchObject([{ toMs: 30 }, { fromMs: 70, entryAge: 'unknown', offs: [] }])
    const tip = [
      said(1, 0, fitted()),
      said(2, 30, { kind: 'removed', carrierId: GUN, position: 'tip', outReason: 'toTry' }),
      said(3, 70, fitted('tip', { again: true, entryAge: 'unknown' })),
    ]
    expect(story(tip).lives).toMatchObject([{ toMs: 30 }, { fromMs: 70, entryAge: 'unknown' }])
  })
  it('×3 since the last log is one stretch that stands for three lives', () =>
    expect(story([said(1, 0, fitted()), said(2, 50, fitted('tip', { count: 3 }))]).lives[0]).toMatchObject({
      toMs: 50,
      count: 3,
    }))
  it('counts cleanings of the part that is on', () => {
    const clean: Fact = { kind: 'cleaned', carrierId: GUN, position: 'nozzle' }
    const told = story([
      said(1, 0, fitted('nozzle')),
      said(2, 5, clean),
      said(3, 9, clean),
      said(4, 20, fitted('nozzle')),
    ])
    expect(told.lives[0]).toMatchObject({ cleanings: 2 })
    expect(told.positions.get('nozzle')).toMatchObject({ cleanings: 0, cleanedMs: 20 })
  })
})

describe('fold of a station', () => {
  const stopped: Fact = { kind: 'stopped', carrierId: GUN, position: 'liner' }
  const station = (events: LedgerEvent[]) => foldStation(standingFacts(events))
  it('ends with "running"', () =>
    expect(station([said(1, 0, stopped), said(2, 9, { kind: 'restarted', carrierId: GUN })]).stoppages).toMatchObject([
      { fromMs: 0, toMs: 9, endedBy: 'running' },
    ]))
  it('ends with the next log there, marked', () =>
    expect(station([said(1, 0, stopped), said(2, 9, fitted())]).stoppages).toMatchObject([{ toMs: 9, endedBy: 'log' }]))
  it('said twice is one stoppage', () =>
    expect(station([said(1, 0, stopped), said(2, 3, { ...stopped, position: 'tip' })]).stoppages).toMatchObject([
      { fromMs: 0, position: 'tip', toMs: null },
    ]))
  it('is parked until the next log there', () => {
    expect(station([said(1, 0, { kind: 'parked', carrierId: GUN })]).isParked).toBe(true)
    expect(station([said(1, 0, { kind: 'parked', carrierId: GUN }), said(2, 4, fitted())]).isParked).toBe(false)
  })
})

describe('exposure', () => {
  const clock = buildClock('kg', [{ fromMs: 0, toMs: 100, amount: 100, source: 'telemetry', loggedMs: 0 }], null)
  const clocks = () => ({ kg: clock, arcHours: null, starts: null })
  it('counts only while the whole chain hung together', () => {
    const stretches = chainStretches([{ onId: HEAD, fromMs: 10, toMs: 60 }], () => [
      { headId: HEAD, fromMs: 40, toMs: null },
    ])
    expect(stretches).toEqual([{ headId: HEAD, fromMs: 40, toMs: 60 }])
    expect(exposureOver(stretches, clocks, { fromMs: 0, toMs: 100 }).kg?.amount).toBeCloseTo(20)
  })
  it('splits without loss: a life cut in two has used what it used whole', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 100 }), (cut) => {
        const whole = [{ headId: HEAD, fromMs: 0, toMs: null }]
        const of = (fromMs: number, toMs: number) => exposureOver(whole, clocks, { fromMs, toMs }).kg?.amount ?? NaN
        expect(of(0, cut) + of(cut, 100)).toBeCloseTo(clock ? clockAt(clock, 100).amount : NaN)
      }),
      { seed: 2 },
    )
  })
  it('leaves out what was out of the chain: never more than the whole, and nothing twice', () => {
    const whole: ChainStretch[] = [
      { headId: HEAD, fromMs: 0, toMs: 50 },
      { headId: HEAD, fromMs: 60, toMs: null },
    ]
    expect(withoutOffs(whole, [{ fromMs: 40, toMs: 70 }])).toEqual([
      { headId: HEAD, fromMs: 0, toMs: 40 },
      { headId: HEAD, fromMs: 70, toMs: null },
    ])
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 90 }), fc.integer({ min: 1, max: 60 }), (fromMs, long) => {
        const off = { fromMs, toMs: fromMs + long }
        const used = (of: ChainStretch[], from: number, to: number) =>
          exposureOver(of, clocks, { fromMs: from, toMs: to }).kg?.amount ?? NaN
        const left = used(withoutOffs(whole, [off]), 0, 100)
        expect(left + used(whole, off.fromMs, Math.min(100, off.toMs))).toBeCloseTo(used(whole, 0, 100))
      }),
      { seed: 3 },
    )
  })
  it('is unknown, not nothing, for a counter without a clock', () =>
    expect(exposureOver([{ headId: HEAD, fromMs: 0, toMs: null }], clocks, { fromMs: 0, toMs: 5 }).arcHours).toBeNull())
})
