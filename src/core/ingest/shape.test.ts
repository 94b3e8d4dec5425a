import { describe, expect, it } from 'vitest'
import { KIND_DEFAULTS } from '@core/path/kinds.ts'
import { layOut, leadingDay, readDiary, type Knowing } from './shape.ts'

/** Days of one November, as d.11. or "Mon 3 Nov". */
const dayOf = (text: string) => {
  const at = /^(?:mon |tue |wed )?(\d{1,2})(?:\.11\.?(?:2026)?|\/11| nov)$/i.exec(text.trim())
  return at ? `2026-11-${(at[1] ?? '').padStart(2, '0')}` : null
}
const know = (...places: string[]): Knowing => ({ dayOf, kinds: KIND_DEFAULTS, places })
const told = (laid: ReturnType<typeof layOut>) => laid?.rows.map((r) => [r.number, ...r.cells].join(' | '))

describe('a line a gun with parts across', () => {
  const rows = [
    ['Changes 2026', '', '', '', ''],
    ['Booth', 'Bay', 'Tip', 'Shroud', 'who'],
    ['A1', 'North', '3.11.', '-', 'JP'],
    ['A2', 'North', '3.11., 17.11.', '5.11', ''],
    ['A3', 'South', 'soon', '', ''],
    ['A4', 'South', '', '', ''],
  ]
  it('is one row a part and day; a cell that is no day is left for the reader to name', () => {
    expect(told(layOut(rows, know(), { isPlaces: false }))).toEqual([
      '3 | A1 | North | Tip | 2026-11-03 | Tip changed | JP',
      '4 | A2 | North | Tip | 2026-11-03 | Tip changed | ',
      '4 | A2 | North | Tip | 2026-11-17 | Tip changed | ',
      '4 | A2 | North | Shroud | 2026-11-05 | Shroud changed | ',
      '5 | A3 | South | Tip | soon | Tip changed | ',
    ])
  })
  it('brings in guns of which nothing was written, where guns are what is asked for', () => {
    expect(told(layOut(rows, know(), { isPlaces: true }))?.at(-1)).toBe('6 | A4 | South |  |  |  | ')
  })
  it('without a bay has none', () => {
    const laid = layOut(
      [
        ['gun', 'tip', 'liner'],
        ['1', '3.11.', '4.11.'],
      ],
      know(),
      { isPlaces: true },
    )
    expect(laid?.headings).not.toContain('area')
    expect(told(laid)?.[0]).toBe('2 | 1 | tip | 2026-11-03 | tip changed')
  })
  it('is not seen in a table whose part columns hold anything but days', () => {
    expect(
      layOut(
        [
          ['gun', 'tip', 'nozzle'],
          ['A1', 'T-10', 'N-3'],
          ['A2', 'T-10', ''],
        ],
        know(),
        { isPlaces: true },
      ),
    ).toBe(null)
  })
})

describe('a line a gun with days across', () => {
  it('is a note for each filled cell', () => {
    const laid = layOut(
      [
        ['', '3.11.', '10.11.', '17.11.'],
        ['A1', 'tip', '', 'x'],
        ['A2', '-', 'liner + tip', ''],
      ],
      know(),
      { isPlaces: false },
    )
    expect(laid?.lies).toBe('daysAcross')
    expect(told(laid)).toEqual([
      '2 | A1 | 2026-11-03 | tip',
      '2 | A1 | 2026-11-17 | x',
      '3 | A2 | 2026-11-10 | liner + tip',
    ])
  })
  it('needs three days: two may be a from and a to', () => {
    expect(
      layOut(
        [
          ['gun', '3.11.', '10.11.'],
          ['A1', 'tip', 'tip'],
        ],
        know(),
        { isPlaces: false },
      ),
    ).toBe(null)
  })
})

describe('a diary', () => {
  it('holds a day until the next and a gun until the next in its line', () => {
    const laid = readDiary(
      [
        'Mon 3 Nov: A4 nest at the rolls, new tip. Liner blown out too; a-5 swapped lance',
        'B2 and B3: new cups',
        '',
        'Tue 4 Nov - asked about more wire. New tip on gun A4.',
      ],
      know('A4', 'A5', 'B2', 'B3'),
    )
    expect(told(laid)).toEqual([
      '1 | A4 | 2026-11-03 | nest at the rolls, new tip',
      '1 | A4 | 2026-11-03 | Liner blown out too',
      '1 | A5 | 2026-11-03 | swapped lance',
      '2 | B2 | 2026-11-03 | new cups',
      '2 | B3 | 2026-11-03 | new cups',
      '4 | A4 | 2026-11-04 | New tip on gun A4.'.replace(' on gun A4.', ' on .'),
    ])
    expect(laid?.unread).toEqual([{ row: 4, text: 'asked about more wire' }])
  })
  it('takes a bare number for a gun only where it is said to be one', () => {
    const laid = readDiary(['3.11. gun 4: 2 tips', '5: nozzle cleaned', 'booth 12 liner'], know('4', '5', '12', '2'))
    expect(told(laid)).toEqual([
      '1 | 4 | 2026-11-03 | 2 tips',
      '2 | 5 | 2026-11-03 | nozzle cleaned',
      '3 | 12 | 2026-11-03 | liner',
    ])
  })
  it('means Cell 12 where it says so, not Cell 1', () => {
    expect(told(readDiary(['3.11. Cell 12 tip', 'cell 01 tip'], know('Cell 1', 'Cell 12')))).toEqual([
      '1 | Cell 12 | 2026-11-03 | tip',
      '2 | Cell 1 | 2026-11-03 | tip',
    ])
  })
  it('finds names of several words, with noughts and hyphens, and none inside another word', () => {
    const laid = readDiary(
      ['3.11. Line-2 robot: tip. line 02 Robot liner', '#4 new tip; a12x and XA4 are no guns, A4 nozzle'],
      know('Line 2 Robot', '4', 'A4', 'A12'),
    )
    expect(told(laid)).toEqual([
      '1 | Line 2 Robot | 2026-11-03 | tip',
      '1 | Line 2 Robot | 2026-11-03 | liner',
      '2 | 4 | 2026-11-03 | new tip',
      '2 | A4 | 2026-11-03 | a12x and XA4 are no guns, nozzle',
    ])
  })
  it('is none without a day or with no two guns named', () => {
    expect(readDiary(['A4 new tip', 'A5 new tip'], know('A4', 'A5'))).toBe(null)
    expect(readDiary(['3.11. A4 new tip'], know('A4', 'A5'))).toBe(null)
  })
  it('keeps work on a gun nobody set up apart from the gun before it', () => {
    const laid = readDiary(['3.11. A4 nest; gun 9 new tip, cell 2 liner of 1.2 m', 'booth B-3 cup'], know('A4', 'A5'))
    expect(told(laid)).toEqual([
      '1 | A4 | 2026-11-03 | nest',
      '1 | 9 | 2026-11-03 | new tip',
      '1 | Cell 2 | 2026-11-03 | liner of 1.2 m',
      '2 | B-3 | 2026-11-03 | cup',
    ])
  })
  it('of a shop without a gun takes the guns from the diary itself', () => {
    const laid = readDiary(['3.11. A4 new tip, M6 this time', 'gun 07 lance. The gun 1.2 mm tips ran out'], know())
    expect(told(laid)).toEqual([
      '1 | A4 | 2026-11-03 | new tip, M6 this time',
      '2 | 07 | 2026-11-03 | lance',
      '2 | 07 | 2026-11-03 | The gun 1.2 mm tips ran out',
    ])
    expect(readDiary(['3.11. A4 new tip', 'A7 lance'], know('X1', 'X2'))).toBe(null)
  })
})

it.each([
  ['Mon 3 Nov: A4', '2026-11-03', 'A4'],
  ['3.11. A4 tip', '2026-11-03', 'A4 tip'],
  ['9.11. 2026 gun 5 liner', '2026-11-09', 'gun 5 liner'],
  ['3/11 - 4 tips', '2026-11-03', '4 tips'],
])('"%s" begins with a day', (line, day, rest) => expect(leadingDay(line, { dayOf })).toEqual({ day, rest }))
it.each(['A4 tip', '3 tips', 'no date'])('"%s" begins with none', (line) =>
  expect(leadingDay(line, { dayOf })).toBe(null),
)
