import { describe, expect, it } from 'vitest'
import { readDays, readShifts, typedDays, typedShift, type TypedShift } from './typedshifts.ts'

const EARLY = {
  ...{ areaId: null, name: 'early', weekdays: [1, 2, 3, 4, 5], start: '06:00', end: '14:00' },
  breaks: [{ start: '09:15', minutes: 15 }],
}
const typed = (over: Partial<TypedShift> = {}): TypedShift => ({ ...typedShift(EARLY), ...over })

describe('shifts as they are typed', () => {
  it('come back as they were', () => {
    const { areaId: _, ...sent } = EARLY
    expect(readShifts([typed()])).toEqual({ ok: true, value: [sent] })
  })
  it('say each thing that is missing, and of which shift', () => {
    const bad = [
      typed({ name: ' ', weekdays: [] }),
      typed({ end: '', breaks: [{ start: '', minutes: '15' }] }),
      typed({ name: 'late', breaks: [{ start: '18:00', minutes: '' }] }),
    ]
    const read = readShifts(bad)
    expect(read.ok ? [] : read.why).toEqual([
      'Shift 1 has no name: write what people call it.',
      'Shift 1 has no day: tap the days it is worked.',
      'Shift early: write when it starts and ends.',
      'Shift early, a break: write when it starts.',
      'Shift late, the break at 18:00: Write a number like 10 min.',
    ])
  })
  it.each([
    ['half an hour', 'can’t be read'],
    ['0', 'at least 1 min'],
    ['300', 'at most 240 min'],
    ['7.5', 'whole number'],
  ])('a break of "%s" is refused in words', (minutes, words) => {
    const read = readShifts([typed({ breaks: [{ start: '09:00', minutes }] })])
    expect(read.ok ? '' : read.why.join()).toContain(words)
  })
  it('a break may be told in hours', () => {
    const read = readShifts([typed({ breaks: [{ start: '09:00', minutes: '0.5 h' }] })])
    expect(read.ok && read.value[0]?.breaks).toEqual([{ start: '09:00', minutes: 30 }])
  })
})

describe('days off, one a line', () => {
  it('are read in the ways people write a day', () => {
    const text = '2026-12-25 Christmas\n\n1.1.2027\n 17 May 2027 Spring fair '
    expect(readDays(text, 'metric')).toEqual({
      ok: true,
      value: [
        { day: '2026-12-25', name: 'Christmas' },
        { day: '2027-01-01', name: '' },
        { day: '2027-05-17', name: 'Spring fair' },
      ],
    })
    expect(readDays('7/4/2027 off', 'us')).toEqual({ ok: true, value: [{ day: '2027-07-04', name: 'off' }] })
  })
  it('a line that names no day is said whole', () => {
    const read = readDays('2026-12-25 off\nsometime in May', 'metric')
    expect(read).toEqual({
      ok: false,
      why: ['"sometime in May" can’t be read as a day off: write 2026-12-25 and what it is.'],
    })
  })
  it('stand in the field as they were read', () => {
    const days = [{ day: '2026-12-25', name: 'off' }]
    expect(readDays(typedDays(days), 'us')).toEqual({ ok: true, value: days })
  })
})
