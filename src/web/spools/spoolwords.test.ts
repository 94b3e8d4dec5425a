import { anId } from '@core/testing/ids.ts'
import { describe, expect, it } from 'vitest'
import { type SpoolOnGun, type SpoolOnShelf, type SpoolsAnswer } from '@contract/spools.ts'
import { emptySentence, leftSentence, spoolsSentence, wasteSentence } from './spoolwords.ts'

const NOW = Date.UTC(2026, 10, 23, 9)
const HOUR = 3_600_000
const gun = (name: string, over: Partial<SpoolOnGun> = {}): SpoolOnGun => ({
  stationId: anId('station', `stn_${name}`),
  name,
  areaId: anId('area', 'a'),
  isParked: false,
  spoolId: null,
  number: null,
  wireId: anId('wire', 'w'),
  wireName: 'solid 1.0',
  leftKg: 6.4,
  sdKg: 0.3,
  fullKg: 15,
  metres: 1000,
  how: 'weighed',
  knownMs: NOW - HOUR,
  build: 0.5,
  emptyMs: NOW + 30 * HOUR,
  emptyEarlyMs: NOW + 20 * HOUR,
  emptyLateMs: NOW + 40 * HOUR,
  isOverrun: false,
  threadUpS: 24,
  cableKg: 0.02,
  ...over,
})
const shelf = (number: number, over: Partial<SpoolOnShelf> = {}): SpoolOnShelf => ({
  spoolId: anId('spool', `spool_${number}`),
  number,
  wireId: anId('wire', 'w'),
  wireName: 'solid 1.0',
  lot: null,
  leftKg: 1.5,
  sdKg: 0.1,
  fullKg: 15,
  metres: 240,
  how: 'weighed',
  knownMs: NOW,
  build: 0.1,
  isShort: true,
  isNew: false,
  ...over,
})
const all = (over: Partial<SpoolsAnswer> = {}): SpoolsAnswer => ({
  nowMs: NOW,
  zone: 'UTC',
  guns: [gun('A1')],
  shelf: [],
  lost: [],
  thrown: { kg: 0, spools: 0 },
  wires: [],
  ...over,
})

describe('what is left, in words', () => {
  it('has a band that holds nine in ten', () =>
    expect(leftSentence({ leftKg: 6.4, sdKg: 0.3 }, 'metric')).toBe('about 6.4 kg left (5.9–6.9)'))
  it('a band narrower than the figure is not said', () =>
    expect(leftSentence({ leftKg: 15, sdKg: 0.05 }, 'metric')).toBe('15 kg left'))
  it('never goes under nothing', () => expect(leftSentence({ leftKg: 0.3, sdKg: 2 }, 'metric')).toContain('(0–3.6)'))
  it('follows the units', () => expect(leftSentence({ leftKg: 6.4, sdKg: 0.3 }, 'us')).toBe('about 14 lb left (13–15)'))
  it('unknown and empty are said', () => {
    expect(leftSentence({ leftKg: null, sdKg: null }, 'metric')).toBe('nobody knows what is left')
    expect(leftSentence({ leftKg: 0, sdKg: 1 }, 'metric')).toBe('should be empty')
  })
  it('when it runs out, with its span', () => {
    expect(
      emptySentence(
        gun('A1', { emptyMs: NOW + 2 * HOUR, emptyEarlyMs: NOW - HOUR, emptyLateMs: NOW + 3 * HOUR }),
        NOW,
        'UTC',
      ),
    ).toBe('empty about 11:00 (09:00–12:00)')
    expect(emptySentence(gun('A1', { isParked: true }), NOW, 'UTC')).toBe('parked')
    expect(emptySentence(gun('A1', { isOverrun: true, emptyMs: null }), NOW, 'UTC')).toContain('went unlogged')
  })
})

describe('the sentence over all of them', () => {
  it('names who runs out in the next hours, the soonest first', () => {
    const guns = [gun('A1', { emptyMs: NOW + 3 * HOUR }), gun('A2', { emptyMs: NOW + HOUR }), gun('A3')]
    expect(spoolsSentence(all({ guns }))).toBe('Two guns run out of wire before 13:00: A2, A1.')
    expect(spoolsSentence(all({ guns: guns.slice(0, 1) }))).toBe('One gun runs out of wire before 13:00: A1.')
  })
  it('parked guns run out of nothing', () =>
    expect(spoolsSentence(all({ guns: [gun('A1', { isParked: true, emptyMs: NOW + HOUR })] }))).toContain(
      'No gun runs out',
    ))
  it('knows when nothing is known', () =>
    expect(spoolsSentence(all({ guns: [gun('A1', { leftKg: null, emptyMs: null })] }))).toContain('Nobody knows'))
  it('counts short ends, lost wire and what was thrown away', () => {
    const text = wasteSentence(
      all({
        shelf: [shelf(1), shelf(2), shelf(3, { isShort: false, leftKg: 9 })],
        lost: [
          { why: 'nest', kg: 1.2, times: 3 },
          { why: 'cut back', kg: 0.1, times: 1 },
        ],
        thrown: { kg: 2.1, spools: 1 },
      }),
      'metric',
    )
    expect(text).toBe(
      'Two short ends on the shelf, 3 kg. Lost in 30 days: 1.3 kg, most of it in nests. Thrown away with wire on: 1 spool, 2.1 kg.',
    )
    expect(wasteSentence(all(), 'metric')).toBe('')
  })
})
