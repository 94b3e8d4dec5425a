import { describe, expect, it } from 'vitest'
import { anId } from '@core/testing/ids.ts'
import { wallOf } from './wall.ts'
import { occurrencesOf } from './occurrences.ts'
import { asWeekly, daysOf, ruleProblem, weeklyRule } from './dayrule.ts'

const ZONE = 'Europe/Oslo'
type Entry = Parameters<typeof occurrencesOf>[0]['entries'][number]
const entry = (own: Partial<Entry> = {}): Entry => ({
  ...{ id: anId('entry', 'cal-a'), kind: 'class', name: 'Reed', areaId: null, groupId: anId('group', 'grp-a') },
  ...{ firstDay: '2026-10-19', start: '10:00', end: '11:30', rule: weeklyRule([1, 3], null) },
  ...{ uid: 'u1', isActive: true, madeMs: 0 },
  ...own,
})
const during = (of: Partial<Parameters<typeof occurrencesOf>[0]>, from: string, to: string) =>
  occurrencesOf(
    { entries: [entry()], moves: [], holidays: new Set(), zone: ZONE, ...of },
    Date.parse(`${from}T00:00:00Z`),
    Date.parse(`${to}T00:00:00Z`),
  )

describe('a rule of days', () => {
  it('is made of weekdays and taken apart again', () => {
    const rule = weeklyRule([3, 1], '2027-06-11', 2)
    expect(rule).toBe('FREQ=WEEKLY;INTERVAL=2;BYDAY=MO,WE;UNTIL=20270611T235959Z')
    expect(asWeekly(rule)).toEqual({ weekdays: [1, 3], untilDay: '2027-06-11', everyWeeks: 2 })
    expect(asWeekly('FREQ=MONTHLY;BYDAY=1MO')).toBeNull()
  })
  it('has its last day in it, and every other week where it says so', () => {
    expect(daysOf({ firstDay: '2026-10-19', rule: weeklyRule([1], '2026-11-02') }, '2026-10-01', '2026-12-01')).toEqual(
      ['2026-10-19', '2026-10-26', '2026-11-02'],
    )
    const every2 = daysOf({ firstDay: '2026-10-19', rule: weeklyRule([1], null, 2) }, '2026-10-01', '2026-11-20')
    expect(every2).toEqual(['2026-10-19', '2026-11-02', '2026-11-16'])
  })
  it('that cannot be followed is told apart by why', () => {
    expect(ruleProblem('FREQ=SOMETIMES', '2026-10-19')).toEqual({ is: 'unreadable' })
    expect(ruleProblem('FREQ=HOURLY', '2026-10-19')).toEqual({ is: 'often' })
    expect(ruleProblem('FREQ=WEEKLY;BYDAY=MO;UNTIL=20200101T000000Z', '2026-10-19')).toEqual({ is: 'never' })
    expect(ruleProblem('FREQ=MONTHLY;BYDAY=1MO', '2026-10-19')).toBeNull()
  })
  it('once is one day', () => {
    expect(daysOf({ firstDay: '2026-10-19', rule: null }, '2026-10-19', '2026-10-19')).toEqual(['2026-10-19'])
    expect(daysOf({ firstDay: '2026-10-19', rule: null }, '2026-10-20', '2026-10-29')).toEqual([])
  })
})

describe('the times of a calendar', () => {
  it('stay at ten on the wall when the clocks change', () => {
    const times = during({}, '2026-10-19', '2026-11-03')
    expect(times.map((o) => o.day)).toEqual(['2026-10-19', '2026-10-21', '2026-10-26', '2026-10-28', '2026-11-02'])
    expect(new Set(times.map((o) => wallOf(ZONE, o.fromMs)))).toEqual(new Set(['10:00']))
    expect(times.every((o) => o.toMs - o.fromMs === 90 * 60_000)).toBe(true)
    expect((times[2]?.fromMs ?? 0) - (times[0]?.fromMs ?? 0)).toBe(7 * 86_400_000 + 3_600_000)
  })
  it('at an hour that does not exist, or twice, are once and in order', () => {
    const night = entry({ start: '02:30', end: '03:30', firstDay: '2027-03-28', rule: 'FREQ=DAILY' })
    const [first] = during({ entries: [night] }, '2027-03-28', '2027-03-29')
    expect(first && wallOf(ZONE, first.fromMs)).toBe('03:30')
    const back = entry({ start: '02:30', end: '03:30', firstDay: '2026-10-25', rule: null })
    const [once, ...more] = during({ entries: [back] }, '2026-10-24', '2026-10-27')
    expect(more).toEqual([])
    expect(once && once.toMs - once.fromMs).toBe(2 * 3_600_000)
  })
  it('one of them moved is there and not here; dropped it is nowhere', () => {
    const moves = [
      { entryId: entry().id, day: '2026-10-21', toDay: '2026-10-22', start: '14:00', end: '15:00' },
      { entryId: entry().id, day: '2026-10-26', toDay: null, start: null, end: null },
    ]
    const times = during({ moves }, '2026-10-19', '2026-10-30')
    expect(times.map((o) => [o.day, o.movedTo, wallOf(ZONE, o.fromMs)])).toEqual([
      ['2026-10-19', null, '10:00'],
      ['2026-10-21', '2026-10-22', '14:00'],
      ['2026-10-28', null, '10:00'],
    ])
  })
  it('moved out of what is looked at, it is found where it went', () => {
    const moves = [{ entryId: entry().id, day: '2026-10-19', toDay: '2026-11-20', start: null, end: null }]
    expect(during({ moves }, '2026-11-19', '2026-11-22').map((o) => o.movedTo)).toEqual(['2026-11-20'])
  })
  it('fall out on a holiday, unless moved there; a stop of cells does not', () => {
    const holidays = new Set(['2026-10-21', '2026-10-22'])
    const moves = [{ entryId: entry().id, day: '2026-10-19', toDay: '2026-10-22', start: null, end: null }]
    expect(during({ holidays, moves }, '2026-10-19', '2026-10-24').map((o) => o.movedTo)).toEqual(['2026-10-22'])
    const stop = entry({ kind: 'cellStop', groupId: null })
    expect(during({ entries: [stop], holidays }, '2026-10-19', '2026-10-24')).toHaveLength(2)
  })
  it('past midnight run into the next day', () => {
    const [late] = during(
      { entries: [entry({ start: '22:00', end: '01:00', rule: null })] },
      '2026-10-19',
      '2026-10-21',
    )
    expect(late && late.toMs - late.fromMs).toBe(3 * 3_600_000)
  })
})
