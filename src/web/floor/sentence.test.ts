import { describe, expect, it } from 'vitest'
import { STATES } from '@core/floor/state.ts'
import { type FloorGun } from '@contract/floor.ts'
import { floorGun, floorOf as floor, NOW, want } from '@web/testing/samples.ts'
import { floorSentence, honesty, leaving, nextOf, reach, rowAct, rowWhy, soonerWords } from './sentence.ts'
import { byLifeLeft } from './lifeleft.ts'

const HOUR = 3_600_000
const gun = (over: Partial<FloorGun> = {}) => floorGun('B7', over)

describe('the sentence', () => {
  it('says how many, by when, how long, and what the rest do', () => {
    expect(floorSentence(floor([gun({ rank: 0, minutes: 2 }), gun({ rank: 1, minutes: 29 })]))).toBe(
      'Two guns want hands before 09:15. 31 minutes. The rest can wait till tomorrow.',
    )
    expect(floorSentence(floor([gun({ rank: 0, minutes: 2 })], { laterGuns: 3 }))).toBe(
      'One gun wants hands before 09:15. 2 minutes. Three more by this time tomorrow.',
    )
  })
  it('goes quiet when nothing is wrong', () =>
    expect(floorSentence(floor([gun()]))).toBe('Nothing wants hands before 09:15. The rest can wait till tomorrow.'))
  it('says how sure the silence is', () => {
    expect(floorSentence(floor([gun()], { quietChance: 0.05 }))).toBe(
      'Nothing wants hands before 09:15 (1 in 20 that this is wrong). The rest can wait till tomorrow.',
    )
    expect(honesty(floor([gun({ rank: 0 }), gun()], { quietChance: 0.21 }))).toBe(
      '1 in 5 that one more gets there before then.',
    )
  })
  it('on the first day says that nobody has looked', () =>
    expect(floorSentence(floor([gun(), gun()], { notSeenGuns: 2 }))).toBe('Nobody has looked at 2 guns.'))
  it('with no guns says so', () => expect(floorSentence(floor([]))).toBe('No guns yet.'))
  it('owns up to what is not known, or says nothing', () => {
    expect(honesty(floor([gun()]))).toBe('')
    expect(honesty(floor([gun(), gun({ isParked: true })], { notSeenGuns: 1, estimatedGuns: 1 }))).toContain(
      '1 of 2 guns',
    )
  })
})

describe('a row', () => {
  it('names act, minutes, use against the rule, and what leaving it does', () => {
    const row = gun({
      rank: 0,
      minutes: 3,
      wants: [want(), want({ position: 'nozzle', act: 'clean', used: 4, limit: 3, isEstimated: true })],
    })
    expect(rowAct(row, { nowMs: NOW, zone: 'UTC', units: 'metric' })).toBe('Change the tip and 1 more, 3 min')
    expect(rowWhy(row, 'metric')).toBe(
      'tip 5.8 h on it, house rule 6 h; nozzle 4 h since cleaned, house rule 3 h, est.',
    )
    expect(leaving(row, NOW, 'UTC')).toBe('gets there about 07:00 (06:00–09:00)')
    expect(leaving(gun({ wants: [want({ shiftsOver: 2.2 })] }), NOW, 'UTC')).toBe('2 shifts past')
  })
  it('of one that its own feeder stopped says what that saw, and else that nobody said where', () => {
    const row = gun({ rank: 0, downSinceMs: NOW - HOUR, downMinutes: 60, downPosition: null })
    expect(rowWhy(row, 'metric')).toBe('nobody has said where')
    const seen = 'as the feeder sent it: rolls turn, wire does not come'
    expect(rowWhy({ ...row, downSays: seen }, 'metric')).toBe(seen)
  })
  it('says before which class, where that is sooner than the break of the others', () => {
    const by = {
      atMs: NOW + 3 * HOUR,
      byMs: NOW + HOUR,
      isKnown: true,
      of: { is: 'classBegins' as const, name: 'Reed' },
    }
    const at = { nowMs: NOW, zone: 'UTC' }
    expect(soonerWords(gun({ rank: 0, by }), at)).toBe('before Reed’s class begins at 07:00. ')
    expect(soonerWords(gun({ rank: 0 }), at)).toBe('')
    expect(soonerWords(gun({ rank: 0, by, downSinceMs: NOW }), at)).toBe('')
  })
  it('of a standing gun says since when, where, and the minutes', () => {
    const row = gun({ rank: 0, downSinceMs: NOW - HOUR, downMinutes: 60, downPosition: 'liner' })
    expect([
      rowAct(row, { nowMs: NOW, zone: 'UTC', units: 'metric' }),
      rowWhy(row, 'metric'),
      leaving(row, NOW, 'UTC'),
    ]).toEqual(['Down since 05:00', 'at the liner', '60 min so far'])
  })
  it('that gets nowhere says so', () =>
    expect(reach(want({ reachedMs: null }), NOW, 'UTC')).toBe('at no time at this rate'))
})

describe('beside an area', () => {
  it('the soonest quiet gun is named', () =>
    expect(
      nextOf(
        [
          gun({ name: 'A1', next: want({ reachedMs: NOW + 9 * HOUR }) }),
          gun({ name: 'A5', next: want({ reachedMs: NOW + 7 * HOUR }) }),
          gun({ name: 'P', isParked: true, next: want() }),
        ],
        NOW,
        'UTC',
      ),
    ).toBe('next: A5 tip, about 13:00'))
})

describe('a column over the floor', () => {
  const cells = (state: (typeof STATES)[number], used: number): FloorGun['cells'] =>
    Array.from({ length: 11 }, () => [STATES.indexOf(state), used, 0, 0])
  it('lists the worst first, then the most used; parked guns are left out', () => {
    const list = [
      gun({ name: 'good', cells: cells('good', 0.4) }),
      gun({ name: 'due', cells: cells('due', 1.1) }),
      gun({ name: 'better', cells: cells('good', 0.1) }),
      gun({ name: 'parked', isParked: true, cells: cells('due', 3) }),
    ]
    expect(byLifeLeft(list, 'tip').map((g) => g.name)).toEqual(['due', 'good', 'better'])
  })
})
