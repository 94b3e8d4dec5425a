import { describe, expect, it } from 'vitest'
import { type StationId, type StoreId } from '@core/ids/id.ts'
import { type Fact } from '@core/ledger/event.ts'
import { type Standing } from '@core/ledger/resolve.ts'
import { makeRandom } from '@core/random/random.ts'
import { anId } from '@core/testing/ids.ts'
import { DAY_MS } from '@core/units/time.ts'
import { poissonCounts } from './counts.ts'
import { fillOf } from './fill.ts'
import { allTogether, liesFrom, takeFrom } from './onhand.ts'

const partId = anId('part', 'part_1')
const cells = anId('store', 'store_cells')
/** C1 gets its parts from the cells' cupboard, A1 from the main place. */
const storeOf = (id: StationId): StoreId | null => (id.startsWith('stn_c') ? cells : null)
const [C1, A1] = [anId('station', 'stn_c1'), anId('station', 'stn_a1')]

const said = (happenedMs: number, fact: Record<string, unknown>, stationId: StationId | null = null): Standing => ({
  eventId: anId('event', `ev_${happenedMs}`),
  ...{ loggedMs: happenedMs, happenedMs, precision: 'exact', stationId },
  fact: { partId, ...fact } as Fact,
})
const counted = (at: number, quantity: number, storeId?: StoreId) =>
  said(at, { kind: 'counted', quantity, ...(storeId ? { storeId } : {}) })
const carried = (at: number, quantity: number, fromStoreId: StoreId | null, toStoreId: StoreId | null) =>
  said(at, { kind: 'carried', quantity, fromStoreId, toStoreId })
const put = (at: number, stationId: StationId, count = 1) =>
  said(at, { kind: 'fitted', count, entryAge: 'new' }, stationId)
const handed = (at: number, stationId: StationId, quantity = 1) => said(at, { kind: 'issued', quantity }, stationId)
const by = (lies: ReturnType<typeof liesFrom>) => Object.fromEntries(lies.map((l) => [l.storeId ?? 'main', l.onHand]))
const of = (...standings: Standing[]) => by(liesFrom(standings, storeOf))

describe('what lies there', () => {
  it('is the last count, plus what came, less what was put on since', () => {
    const lies = liesFrom([
      counted(1, 50),
      put(2, A1, 3),
      counted(5, 20),
      said(6, { kind: 'received', quantity: 10 }),
      put(7, A1, 2),
    ])
    expect(lies).toEqual([{ storeId: null, onHand: 28, countedMs: 5 }])
    expect(allTogether(lies)).toEqual({ onHand: 28, countedMs: 5 })
  })
  it('without a count is not known', () => {
    expect(liesFrom([said(6, { kind: 'received', quantity: 10 })])).toEqual([])
    expect(allTogether([])).toBeNull()
  })
  it('a count of the same instant holds, whatever else was said then', () =>
    expect(of(put(5, A1), counted(5, 20), said(5, { kind: 'received', quantity: 3 }))).toEqual({ main: 20 }))
  it('what was handed out and put on within two weeks is one part, also where the shelf was counted in between', () => {
    expect(of(counted(1, 10), handed(2, A1, 2), put(3, A1))).toEqual({ main: 8 })
    expect(of(counted(1, 10), handed(2, A1, 2), counted(3, 8), put(4, A1, 2))).toEqual({ main: 8 })
    expect(of(counted(1, 10), handed(2, A1), put(2 + 15 * DAY_MS, A1))).toEqual({ main: 8 })
  })
})

describe('in several places', () => {
  it('each count is of its own place', () =>
    expect(of(counted(1, 40), counted(2, 6, cells), counted(3, 38))).toEqual({ main: 38, [cells]: 6 }))
  it('a gun takes from its own place while any is there, then from the main one', () =>
    expect(of(counted(1, 40), counted(2, 2, cells), put(3, C1, 3), put(4, A1))).toEqual({ main: 38, [cells]: 0 }))
  it('a place that does not keep the part is no place to take it from', () =>
    expect(of(counted(1, 40), put(3, C1, 3))).toEqual({ main: 37 }))
  it('where the main one was never counted, what is put on beyond the count shows as too few', () =>
    expect(of(counted(1, 1, cells), put(3, C1, 3))).toEqual({ [cells]: -2 }))
  it('what is carried leaves one and comes to the other; a place nobody counted begins as empty', () => {
    expect(of(counted(1, 40), carried(2, 6, null, cells), put(3, C1))).toEqual({ main: 34, [cells]: 5 })
    expect(of(counted(1, 40), counted(2, 3, cells), carried(3, 2, cells, null))).toEqual({ main: 42, [cells]: 1 })
  })
  it('all together: so many, since the main one was counted', () =>
    expect(allTogether(liesFrom([counted(1, 40), counted(9, 6, cells)], storeOf))).toEqual({
      onHand: 46,
      countedMs: 1,
    }))
  it('whatever order the log is read in, and carrying about changes no sum', () => {
    const random = makeRandom(8)
    for (let round = 0; round < 50; round++) {
      const log = [counted(1, 60), counted(2, 30, cells)]
      const [come, gone] = [Math.floor(random() * 9), Math.floor(random() * 20)]
      if (come > 0) log.push(said(3, { kind: 'received', quantity: come }))
      for (let i = 0; i < gone; i++) log.push(put(10 + i, random() < 0.5 ? C1 : A1))
      for (let i = 0; i < 5; i++) {
        const [from, to] = random() < 0.5 ? [null, cells] : [cells, null]
        log.push(carried(100 + i, 1 + Math.floor(random() * 4), from, to))
      }
      const lies = liesFrom(log, storeOf)
      expect(allTogether(lies)?.onHand).toBe(90 + come - gone)
      expect(by(liesFrom([...log].reverse(), storeOf))).toEqual(by(lies))
    }
  })
})

describe('taken along', () => {
  const lies = [
    { storeId: null, onHand: 9, countedMs: 1 },
    { storeId: cells, onHand: 2, countedMs: 1 },
  ]
  it('from the place of the guns first, the rest from the main one', () => {
    expect(takeFrom(lies, new Map([[cells, 3]]))).toEqual([
      { storeId: cells, quantity: 2 },
      { storeId: null, quantity: 1 },
    ])
    expect(takeFrom(lies, new Map([[null, 3]]))).toEqual([{ storeId: null, quantity: 3 }])
    expect(takeFrom([], new Map([[cells, 1]]))).toEqual([{ storeId: null, quantity: 1 }])
  })
})

describe('filled up', () => {
  it('to what is enough 19 times in 20, one at least, no more than the main place has', () => {
    const counts = poissonCounts(4)
    expect(fillOf(counts, { onHand: 3, main: 50 })).toEqual({ level: 8, carry: 5 })
    expect(fillOf(counts, { onHand: 3, main: 2 })).toEqual({ level: 8, carry: 2 })
    expect(fillOf(counts, { onHand: 3, main: null })).toEqual({ level: 8, carry: 5 })
    expect(fillOf(counts, { onHand: -2, main: -1 })).toEqual({ level: 8, carry: 0 })
    expect(fillOf([1], { onHand: 0, main: 5 })).toEqual({ level: 1, carry: 1 })
  })
  it('leaves the main place what its own guns take, or their share where there is too little for all', () => {
    const counts = poissonCounts(4)
    expect(fillOf(counts, { onHand: 0, main: 30, elsewhere: 12 }).carry).toBe(8)
    expect(fillOf(counts, { onHand: 0, main: 15, elsewhere: 12 }).carry).toBe(3)
    expect(fillOf(counts, { onHand: 0, main: 8, elsewhere: 12 }).carry).toBe(2)
  })
  it('where nobody knows what its guns take nothing is proposed', () =>
    expect(fillOf(null, { onHand: 0, main: 5 })).toEqual({ level: null, carry: 0 }))
})
