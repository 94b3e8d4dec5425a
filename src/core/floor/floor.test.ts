import { anId } from '@core/testing/ids.ts'
import { makeSchedule } from '@core/clock/schedule.ts'
import { describe, expect, it } from 'vitest'
import { type Due } from '@core/houserule/due.ts'
import { openedRows, shiftsOver, type RankedInput } from './rank.ts'
import { stateOf, worstOf, type PositionInput } from './state.ts'

const HOUR = 3_600_000
const DAY = 24 * HOUR
const NOW = 100 * DAY
const due = (over: Partial<Due> = {}): Due => ({
  used: 3,
  usedSd: 0.1,
  usedFraction: 0.3,
  estimatedShare: 0,
  isReached: false,
  chanceBy: 0,
  reachedMs: NOW + 3 * DAY,
  earlyMs: null,
  lateMs: null,
  ...over,
})
const position = (over: Partial<PositionInput> = {}): PositionInput => ({
  isOnGun: true,
  isDownHere: false,
  hasWrongPart: false,
  isQuestioned: false,
  isToPutRight: false,
  dues: [{ act: 'change', due: due() }],
  hasLimit: true,
  lookEveryDays: null,
  confirmDays: 7,
  seenMs: NOW - DAY,
  hasFittingDate: true,
  isClockFresh: true,
  nowMs: NOW,
  cutoffMs: NOW + 4 * HOUR,
  ...over,
})

describe('state of a position', () => {
  it('is good only when limit, fitting date, look and clock are all known', () => {
    expect(stateOf(position()).state).toBe('good')
    expect(stateOf(position({ hasLimit: false, dues: [] }))).toMatchObject({ state: 'notSeen', why: 'no rule' })
    expect(stateOf(position({ hasFittingDate: false, dues: [] }))).toMatchObject({
      state: 'notSeen',
      why: 'no fitting date',
    })
    expect(stateOf(position({ seenMs: null }))).toMatchObject({ state: 'notSeen', why: 'nobody has looked' })
    expect(stateOf(position({ seenMs: NOW - 8 * DAY }))).toMatchObject({ state: 'notSeen', why: 'nobody has looked' })
    expect(stateOf(position({ isClockFresh: false }))).toMatchObject({ state: 'notSeen', why: 'no clock' })
  })
  it('is due when the limit is reached, or would be before the next window', () => {
    expect(stateOf(position({ dues: [{ act: 'clean', due: due({ isReached: true }) }] }))).toMatchObject({
      state: 'due',
      act: 'clean',
    })
    expect(stateOf(position({ dues: [{ act: 'change', due: due({ reachedMs: NOW + HOUR }) }] })).state).toBe('due')
    expect(stateOf(position({ dues: [{ act: 'change', due: due({ reachedMs: NOW + 5 * HOUR }) }] })).state).toBe('good')
  })
  it('past belief is no age: not seen, unless somebody has just looked at that very part', () => {
    const far = [{ act: 'change' as const, due: due({ usedFraction: 6, isReached: true, reachedMs: NOW - 50 * DAY }) }]
    expect(stateOf(position({ dues: far, seenMs: NOW - 40 * DAY }))).toMatchObject({
      state: 'notSeen',
      act: null,
      why: 'past belief',
    })
    expect(stateOf(position({ dues: far, seenMs: NOW - DAY }))).toMatchObject({ state: 'due', act: 'change' })
    const dirty = [...far, { act: 'clean' as const, due: due({ usedFraction: 1.1, isReached: true }) }]
    expect(stateOf(position({ dues: dirty, seenMs: null }))).toMatchObject({ state: 'due', act: 'clean' })
  })
  it('of two limits shows the one further gone', () => {
    const dues = [
      { act: 'change' as const, due: due({ usedFraction: 0.2 }) },
      { act: 'clean' as const, due: due({ usedFraction: 1.2, isReached: true }) },
    ]
    expect(stateOf(position({ dues })).act).toBe('clean')
  })
  it('read and to be put right is due, whatever its use; what is due by use stays that', () => {
    expect(stateOf(position({ isToPutRight: true }))).toMatchObject({ state: 'due', act: 'look' })
    const dues = [{ act: 'change' as const, due: due({ isReached: true }) }]
    expect(stateOf(position({ isToPutRight: true, dues }))).toMatchObject({ state: 'due', act: 'change' })
  })
  it('is part-worn over half of its life', () =>
    expect(stateOf(position({ dues: [{ act: 'change', due: due({ usedFraction: 0.51 }) }] })).state).toBe('partWorn'))
  it('a look is due after its interval', () =>
    expect(
      stateOf(position({ hasLimit: false, dues: [], lookEveryDays: 5, seenMs: NOW - 6 * DAY, confirmDays: 30 })).state,
    ).toBe('look'))
  it('down outranks wrong, wrong outranks due; absent outranks nothing', () => {
    expect(stateOf(position({ isDownHere: true, hasWrongPart: true })).state).toBe('down')
    expect(
      stateOf(position({ hasWrongPart: true, dues: [{ act: 'change', due: due({ isReached: true }) }] })).state,
    ).toBe('wrong')
    expect(stateOf(position({ isOnGun: false })).state).toBe('absent')
    expect(worstOf(['good', 'absent', 'look', 'partWorn'])).toBe('look')
    expect(worstOf([])).toBe('absent')
  })
})

const gun = (name: string, over: Partial<RankedInput> = {}): RankedInput => ({
  stationId: anId('station', name),
  walkOrder: 1,
  isParked: false,
  downSinceMs: null,
  wrongMinutes: 0,
  foundMinutes: 0,
  stopRateMinorPerHour: 5000,
  schedule: null,
  wants: [],
  ...over,
})
const want = (state: 'due' | 'wrong' | 'look' | 'notSeen', over: Partial<Due> = {}) => ({
  position: 'tip' as const,
  state,
  act: 'change' as const,
  minutes: 2,
  due: due({ isReached: true, reachedMs: NOW - 8 * HOUR, ...over }),
})

describe('opened rows', () => {
  it('put down first, then wrong part, then what was read to be put right, then due by lateness', () => {
    const rows = openedRows(
      [
        gun('due', { wants: [want('due')] }),
        gun('late', { wants: [want('due', { reachedMs: NOW - 5 * DAY })] }),
        gun('wrong', { wrongMinutes: 2, wants: [want('wrong')] }),
        gun('found', { foundMinutes: 5 }),
        gun('down', { downSinceMs: NOW - HOUR }),
      ],
      NOW,
    )
    expect(rows.map((r) => r.stationId)).toEqual(['down', 'wrong', 'found', 'late', 'due'])
  })
  it('looks, not seen and parked guns open nothing', () => {
    expect(
      openedRows(
        [
          gun('a', { wants: [want('look'), want('notSeen')] }),
          gun('b', { isParked: true, wants: [want('due')] }),
          gun('c'),
        ],
        NOW,
      ),
    ).toEqual([])
  })
  it('of equal lateness the dearer standing comes first, then the walk', () => {
    const wants = [want('due')]
    const rows = openedRows(
      [
        gun('b', { walkOrder: 2, wants }),
        gun('a', { wants }),
        gun('cell', { walkOrder: 9, stopRateMinorPerHour: 14_000, wants }),
      ],
      NOW,
    )
    expect(rows.map((r) => r.stationId)).toEqual(['cell', 'a', 'b'])
    expect(rows[1]).toMatchObject({ minutes: 2 })
    expect(rows[1]?.shiftsOver).toBeCloseTo((8 / 24) * (5 / 7))
  })
  it('count lateness in the shifts worked at the gun’s own place', () => {
    const everyDay = makeSchedule(
      Array.from({ length: 20 }, (_, d) => ({ fromMs: NOW - (d + 1) * DAY, toMs: NOW - (d + 1) * DAY + 8 * HOUR })),
    )
    const oncePerWeek = makeSchedule([{ fromMs: NOW - 5 * DAY, toMs: NOW - 5 * DAY + 8 * HOUR }])
    const wants = [want('due', { reachedMs: NOW - 6 * DAY })]
    const rows = openedRows(
      [gun('rare', { wants, schedule: oncePerWeek }), gun('busy', { wants, schedule: everyDay })],
      NOW,
    )
    expect(rows.map((r) => [r.stationId, r.shiftsOver])).toEqual([
      ['busy', 6],
      ['rare', 1],
    ])
  })
  it('counts one shift a working day where nobody has told them', () => {
    const past = due({ isReached: true, reachedMs: NOW - 14 * DAY })
    expect(shiftsOver(past, null, NOW)).toBeCloseTo(10)
  })
  it('counts shifts only once a limit is reached', () => expect(shiftsOver(due(), null, NOW)).toBe(0))
})
