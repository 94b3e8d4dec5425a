import { anId } from '@core/testing/ids.ts'
import { describe, expect, it } from 'vitest'
import { amount, cable, minutes, twoFigures, wireSize } from './numbers.ts'
import { nextIndex } from '@web/floor/useArrows.ts'
import { measures, shown, typed } from './measures.ts'
import { ago, clockTime, dayKey, when } from './times.ts'
import { inN, actPhrase, donePhrase } from './words.ts'
import { matchPlaces } from '@web/places/find.ts'

describe('numbers as people say them', () => {
  it('have two figures at most', () =>
    expect([0, 0.042, 5.83, 9.96, 41.2, 312, 1249].map(twoFigures)).toEqual([
      '0',
      '0.04',
      '5.8',
      '10',
      '41',
      '310',
      '1200',
    ]))
  it('follow the shop’s units', () => {
    expect(amount(10, 'kg', 'us')).toBe('22 lb')
    expect(amount(5.8, 'arcHours', 'metric')).toBe('5.8 h')
    expect([wireSize(0.9, 'metric'), wireSize(0.9, 'us'), cable(4, 'us')]).toEqual(['0.9 mm', '.035', '13 ft'])
  })
  it('minutes become hours when there are many', () =>
    expect([0.2, 31, 119, 300].map(minutes)).toEqual(['1 min', '31 min', '119 min', '5 h']))
})

describe('quantities as typed', () => {
  const us = measures('us')
  it('go to SI and come back as they were typed', () => {
    for (const [measure, text] of [
      [us.mass, '33'],
      [us.cable, '13'],
      [us.speed, '280'],
      [measures('metric').cable, '4.5'],
    ] as const) {
      expect(shown(typed(text, measure), measure)).toBe(text)
    }
    expect(typed('33', us.mass)).toBeCloseTo(14.97, 2)
  })
  it('that are no numbers are nothing', () =>
    expect([typed('', us.mass), typed('much', us.mass), shown(null, us.mass)]).toEqual([null, null, '']))
})

describe('arrows on Floor', () => {
  it('begin at either end and stop at both', () => {
    expect([
      nextIndex(-1, 5, 1),
      nextIndex(-1, 5, -1),
      nextIndex(4, 5, 1),
      nextIndex(0, 5, -1),
      nextIndex(2, 5, 1),
      nextIndex(-1, 0, 1),
    ]).toEqual([0, 4, 4, 0, 3, -1])
  })
})

describe('times in the site’s wall time', () => {
  const now = Date.UTC(2026, 2, 27, 12, 0)
  it('name the day only when it is another', () => {
    expect(when(now + 3_600_000, now, 'Europe/Oslo')).toBe('14:00')
    expect(when(now + 86_400_000, now, 'Europe/Oslo')).toBe('tomorrow 13:00')
    expect(when(now - 86_400_000, now, 'Europe/Oslo')).toBe('yesterday 13:00')
    expect(when(now + 20 * 86_400_000, now, 'Europe/Oslo')).toBe('16 Apr')
  })
  it('follow a clock change', () =>
    expect([Date.UTC(2026, 2, 28, 12), Date.UTC(2026, 2, 29, 12)].map((t) => clockTime(t, 'Europe/Oslo'))).toEqual([
      '13:00',
      '14:00',
    ]))
  it('know the site’s day, not the server’s', () =>
    expect(dayKey(Date.UTC(2026, 0, 1, 3), 'America/Chicago')).toBe('2025-12-31'))
  it('say how long ago', () =>
    expect([5, 200, 3000, 60_000].map((m) => ago(0, m * 60_000))).toEqual(['5 min', '3 h', '2 days', '6 weeks']))
})

describe('words', () => {
  it('name the act and the part', () => {
    expect([
      actPhrase('clean', 'nozzle'),
      actPhrase('change', 'tip#2'),
      donePhrase('newSpool', null),
      donePhrase('cleaned', 'nozzle'),
    ]).toEqual(['Clean the nozzle', 'Change the tip 2', 'New spool', 'Nozzle cleaned'])
  })
})

describe('finding a gun', () => {
  const places = ['A1', 'A12', 'B1', 'Cell 2'].map((name, i) => ({
    stationId: anId('station', `stn_${i}`),
    name,
    placeWord: 'booth',
    areaName: 'Bay',
    gunName: `gun ${name}`,
  }))
  const found = (typed: string) => matchPlaces(places, typed).map((p) => p.name)
  it('takes two characters in any case, the exact name first', () => {
    expect(found('a1')).toEqual(['A1', 'A12'])
    expect(found('cell2')).toEqual(['Cell 2'])
    expect(found('12')).toEqual(['A12'])
    expect(found('zz')).toEqual([])
  })
})

describe('chances', () => {
  it('are natural counts that anyone can feel', () => {
    expect([0.001, 0.02, 0.05, 0.08, 0.21, 0.33, 0.5, 0.68, 0.94, 0.99].map(inN)).toEqual([
      'under 1 in 50',
      '1 in 50',
      '1 in 20',
      '1 in 15',
      '1 in 5',
      '1 in 3',
      '5 in 10',
      '7 in 10',
      '9 in 10',
      'nearly certain',
    ])
  })
  it('never fall as the chance rises', () => {
    const asNumber = (text: string) => {
      const [, k = '1', n = '1'] = /(\d+) in (\d+)/.exec(text) ?? []
      return text.startsWith('under') ? 0 : text.startsWith('nearly') ? 1 : Number(k) / Number(n)
    }
    for (let p = 0.001; p < 1; p += 0.001) expect(asNumber(inN(p + 0.001))).toBeGreaterThanOrEqual(asNumber(inN(p)))
  })
})
