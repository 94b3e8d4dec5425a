import { anId } from '@core/testing/ids.ts'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { parseNumber } from '@core/units/number.ts'
import { guessColumns, PLACE_COLUMNS, USAGE_COLUMNS } from '@core/ingest/columns.ts'
import { KIND_DEFAULTS, kindFromWord } from '@core/path/kinds.ts'
import { COLUMNS } from '@core/path/columns.ts'
import { asId, ID_PREFIX, makeId } from '@core/ids/id.ts'
import { inchName, parseWireSize } from '@core/units/wiresize.ts'
import { kgToLb, lbToKg } from '@core/units/convert.ts'
import { builtOf, NOTHING_BUILT } from './built.ts'
import { parseNameRange } from './range.ts'

const names = (text: string) => {
  const r = parseNameRange(text)
  return r.ok ? r.names : r.reason
}

describe('names of places', () => {
  it('come from a range in any dash, with or without the letter twice', () => {
    expect(names('A1–A4')).toEqual(['A1', 'A2', 'A3', 'A4'])
    expect(names('A1-4')).toEqual(['A1', 'A2', 'A3', 'A4'])
    expect(names('Cell 1 to 3')).toEqual(['Cell 1', 'Cell 2', 'Cell 3'])
    expect(names('08–10')).toEqual(['08', '09', '10'])
    expect(names('A1–A2, C7')).toEqual(['A1', 'A2', 'C7'])
  })
  it('are refused with the reason', () => {
    expect(names('A9–A1')).toContain('backwards')
    expect(names('A1–B4')).toContain('starts with A and ends with B')
    expect(names('A1–A9999')).toContain('at most 200')
    expect(names('A1, A1')).toContain('twice')
    expect(names('  ')).toContain('A1–A24')
  })
  it('of any range are as many as it says', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 500 }), fc.integer({ min: 0, max: 150 }), (from, more) => {
        expect(names(`K${from}–K${from + more}`)).toHaveLength(more + 1)
      }),
      { seed: 4 },
    )
  })
})

describe('wire sizes', () => {
  it('are one wire under all their names', () => {
    for (const text of ['0.9 mm', '0,9', '.035', '035', '0.035 in', '0.9'])
      expect(parseWireSize(text)).toEqual({ ok: true, diameterMm: 0.9 })
    for (const text of ['.045', '1.2', '045"']) expect(parseWireSize(text)).toEqual({ ok: true, diameterMm: 1.2 })
  })
  it('that nobody sells are refused', () => {
    for (const text of ['0.7', 'thick', '', '12', '.2']) expect(parseWireSize(text).ok).toBe(false)
  })
  it('have an inch name each', () =>
    expect([0.6, 0.8, 0.9, 1, 1.2, 1.6].map(inchName)).toEqual(['.023', '.030', '.035', '.040', '.045', '1/16']))
  it('pounds go there and back', () => expect(lbToKg(kgToLb(15))).toBeCloseTo(15, 12))
})

describe('sheets', () => {
  it('columns are found by their usual headings, each heading once', () => {
    expect(guessColumns(['Booth', 'Bay', 'Part type', 'Part no', 'Put on'], PLACE_COLUMNS)).toEqual({
      place: 0,
      area: 1,
      position: 2,
      part: 3,
      fitted: 4,
    })
    expect(guessColumns(['Date', 'Gun', 'Shift', 'Arc h', 'Wire kg'], USAGE_COLUMNS)).toEqual({
      place: 1,
      date: 0,
      shift: 2,
      arcHours: 3,
      kg: 4,
    })
    expect(guessColumns(['x', 'y'], USAGE_COLUMNS)).toEqual({})
  })
  it('numbers are read as people write them', () => {
    expect(['3,2', '3.2', '1.234,5', '1,234.5', '1 234', '4 kg', '-1'].map(parseNumber)).toEqual([
      3.2, 3.2, 1234.5, 1234.5, 1234, 4, -1,
    ])
    expect(['', 'a few', '1-2'].map(parseNumber)).toEqual([null, null, null])
  })
})

describe('part kinds', () => {
  it('are found by any of their names', () => {
    expect(
      ['Shroud', 'cup', 'TIPS', 'drive roll', 'tip adapter', 'O ring', 'gooseneck'].map(
        (w) => kindFromWord(w, KIND_DEFAULTS)?.key,
      ),
    ).toEqual(['nozzle', 'nozzle', 'tip', 'rolls', 'diffuser', 'orings', 'neck'])
    expect(kindFromWord('banana', KIND_DEFAULTS)).toBeNull()
  })
  it('no word means two kinds, and every column of the path has one', () => {
    const words = KIND_DEFAULTS.flatMap((k) => [...new Set([k.key, k.name, ...k.synonyms])])
    expect(words.filter((w, i) => words.indexOf(w) !== i)).toEqual([])
    expect(COLUMNS.filter((c) => !KIND_DEFAULTS.some((k) => k.column === c))).toEqual([])
  })
})

describe('as the bay, except', () => {
  const bay = {
    ...NOTHING_BUILT,
    wireId: anId('wire', 'w1'),
    cableM: 4,
    parts: { tip: anId('part', 't'), nozzle: anId('part', 'n') },
  }
  it('only what is said differs', () =>
    expect(builtOf(bay, { cableM: 3, parts: { tip: anId('part', 't2') } })).toEqual({
      ...bay,
      cableM: 3,
      parts: { tip: 't2', nozzle: 'n' },
    }))
  it('nothing said is as the bay', () => expect(builtOf(bay, { wireId: null })).toEqual(bay))
})

describe('ids', () => {
  it('carry their record’s prefix and sort by when they were made', () => {
    const [a, b] = [makeId('part', 1000, () => 0.5), makeId('part', 2_000_000, () => 0.1)]
    expect(a.startsWith('part_')).toBe(true)
    expect(a < b).toBe(true)
  })
  it('of another record are refused', () => expect(() => asId('wire', 'part_1')).toThrow('expected wire_'))
  it('have a prefix of their own each', () =>
    expect(new Set(Object.values(ID_PREFIX)).size).toBe(Object.keys(ID_PREFIX).length))
})
