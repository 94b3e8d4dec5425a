import { describe, expect, it } from 'vitest'
import { readIcs, type IcsAt } from './icsin.ts'

const AT: IcsAt = {
  zone: 'Europe/Oslo',
  nowMs: Date.UTC(2026, 10, 2),
  known: new Set(['b@x']),
  groups: [{ id: 'grp_reed' as IcsAt['groups'][number]['id'], name: 'Reed' }],
}
const file = (...events: string[]) =>
  ['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:-//x//y//EN', ...events, 'END:VCALENDAR'].join('\r\n')
const event = (...lines: string[]) => ['BEGIN:VEVENT', ...lines, 'END:VEVENT'].join('\r\n')
const read = (...events: string[]) => readIcs(file(...events), AT)

describe('a calendar of somebody else’s making', () => {
  it('is read into the site’s wall time: own zone, UTC, floating', () => {
    const { lines } = read(
      event(
        'UID:a@x',
        'SUMMARY:Reed group',
        'DTSTART;TZID=Europe/Oslo:20261019T085000',
        'DTEND;TZID=Europe/Oslo:20261019T102000',
        'RRULE:FREQ=WEEKLY;BYDAY=MO;UNTIL=20261214T225900Z',
      ),
      event('UID:b@x', 'SUMMARY:Other', 'DTSTART:20261103T070000Z', 'DURATION:PT1H30M'),
      event('UID:c@x', 'SUMMARY:Float', 'DTSTART:20261103T070000', 'DTEND:20261103T080000'),
    )
    expect(lines.map((l) => [l.uid, l.firstDay, l.start, l.end])).toEqual([
      ['a@x', '2026-10-19', '08:50', '10:20'],
      ['b@x', '2026-11-03', '08:00', '09:30'],
      ['c@x', '2026-11-03', '07:00', '08:00'],
    ])
    expect(lines[0]).toMatchObject({
      rule: 'FREQ=WEEKLY;BYDAY=MO;UNTIL=20261214T235959Z',
      groupId: 'grp_reed',
      times: 7,
    })
    expect(lines[1]).toMatchObject({ isKnown: true, rule: null })
  })
  it('of another zone is turned into ours, its weekdays too, and that is said', () => {
    const { lines } = read(
      event(
        'UID:n',
        'SUMMARY:Far',
        'DTSTART;TZID=America/Chicago:20261102T200000',
        'DTEND;TZID=America/Chicago:20261102T210000',
        'RRULE:FREQ=WEEKLY;BYDAY=MO',
      ),
    )
    expect(lines[0]).toMatchObject({ firstDay: '2026-11-03', start: '03:00', rule: 'FREQ=WEEKLY;BYDAY=TU' })
    expect(lines[0]?.notes[0]).toContain('America/Chicago')
  })
  it('moved and dropped times come along', () => {
    const { lines } = read(
      event(
        'UID:a',
        'SUMMARY:A',
        'DTSTART;TZID=Europe/Oslo:20261102T100000',
        'DTEND;TZID=Europe/Oslo:20261102T110000',
        'RRULE:FREQ=WEEKLY;BYDAY=MO',
        'EXDATE;TZID=Europe/Oslo:20261109T100000',
      ),
      event(
        'UID:a',
        'SUMMARY:A',
        'RECURRENCE-ID;TZID=Europe/Oslo:20261116T100000',
        'DTSTART;TZID=Europe/Oslo:20261117T140000',
        'DTEND;TZID=Europe/Oslo:20261117T150000',
      ),
    )
    expect(lines[0]?.moves).toEqual([
      { day: '2026-11-09', toDay: null, start: null, end: null },
      { day: '2026-11-16', toDay: '2026-11-17', start: '14:00', end: '15:00' },
    ])
  })
  it('whole days are holidays, some days long where it says so', () => {
    const { lines } = read(event('UID:h', 'SUMMARY:Break', 'DTSTART;VALUE=DATE:20261223', 'DTEND;VALUE=DATE:20261228'))
    expect(lines[0]).toMatchObject({ isHoliday: true, days: 5, firstDay: '2026-12-23' })
  })
  it.each([
    ['no beginning', ['UID:a', 'SUMMARY:A'], 'It has no beginning.'],
    ['no time at all', ['UID:a', 'SUMMARY:A', 'DTSTART:20261103T070000Z'], 'It takes no time'],
    [
      'days with hours',
      ['UID:a', 'SUMMARY:A', 'DTSTART:20261103T070000Z', 'DTEND:20261106T070000Z'],
      'say it day by day',
    ],
    [
      'called off',
      ['UID:a', 'SUMMARY:A', 'STATUS:CANCELLED', 'DTSTART:20261103T070000Z', 'DTEND:20261103T080000Z'],
      'called off',
    ],
    [
      'each hour',
      ['UID:a', 'SUMMARY:A', 'DTSTART:20261103T070000Z', 'DTEND:20261103T073000Z', 'RRULE:FREQ=HOURLY'],
      'more than once a day',
    ],
    [
      'our own shift',
      ['UID:shift-a', 'SUMMARY:A', 'DTSTART:20261103T070000Z', 'DTEND:20261103T080000Z'],
      'said under Our shop',
    ],
  ])('with %s is refused in words', (_, lines, why) => {
    const { refused, lines: taken } = read(event(...lines))
    expect(taken).toEqual([])
    expect(refused[0]?.name).toBe('A')
    expect(refused[0]?.why).toContain(why)
  })
  it('the same twice, or a move of what is not there, is refused; the rest is read', () => {
    const one = event('UID:a', 'SUMMARY:A', 'DTSTART:20261103T070000Z', 'DTEND:20261103T080000Z')
    const { lines, refused } = read(
      one,
      one,
      event('UID:z', 'SUMMARY:Z', 'RECURRENCE-ID:20261103T070000Z', 'DTSTART:20261103T090000Z'),
    )
    expect(lines).toHaveLength(1)
    expect(refused.map((r) => r.why)).toEqual([
      'It is in the file twice.',
      'It moves a time of something that is not in the file.',
    ])
  })
  it('that is no calendar is said to be none', () => {
    expect(() => readIcs('hello', AT)).toThrow('That is no calendar file')
    expect(() => readIcs('BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nnonsense', AT)).toThrow('That is no calendar file')
  })
})
