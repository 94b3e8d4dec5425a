import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { KIND_DEFAULTS } from '@core/path/kinds.ts'
import { HISTORY_COLUMNS, USAGE_COLUMNS, guessColumns } from './columns.ts'
import { findHeading } from './heading.ts'
import { askedWords, groupNotes, NOTE_VERBS, readNote, type ReadNote } from './notes.ts'

const read = (note: string) => readNote(note, KIND_DEFAULTS)
const told = ({ acts }: ReadNote) =>
  acts.map((a) => `${a.kindKey} ${a.verb} ${a.count}${a.reason ? ` ${a.reason}` : ''}`)

describe('a note', () => {
  it.each([
    ['tip x2 + liner, nest, bad wire?', ['tip unsaid 2', 'liner unsaid 1']],
    ['new tip', ['tip changed 1']],
    ['Changed contact tip and cleaned shroud', ['tip changed 1', 'nozzle cleaned 1']],
    ['new tip, nozzle and liner', ['tip changed 1', 'nozzle changed 1', 'liner changed 1']],
    ['tip adapter', ['diffuser unsaid 1']],
    ['2 tips burnt back', ['tip unsaid 2 burnedBack']],
    ['tip - worn', ['tip unsaid 1 worn']],
    ['liner, kinked, replaced', ['liner changed 1 kinked']],
    ['three tips, one nozzle blocked', ['tip unsaid 3', 'nozzle unsaid 1 blocked']],
    ['checked rolls ok', ['rolls seen 1']],
    ['DIFFUSER STRIPPED - NEW ONE', ['diffuser changed 1 stripped']],
    ['nozzle reamed', ['nozzle cleaned 1']],
    ['Cup & tip swapped (routine)', ['nozzle unsaid 1', 'tip changed 1 due']],
    ['x3 tip', ['tip unsaid 3']],
    ['o-rings', ['orings unsaid 1']],
    ['nested at the rolls, new tip', ['tip changed 1']],
    ['wire stuck in tip', []],
    ['tip jammed, replaced', ['tip changed 1']],
    ['', []],
  ])('"%s" says %j', (note, acts) => expect(told(read(note))).toEqual(acts))
  it('that tells of wire that stopped is marked so', () => {
    expect(['birdnest again', 'wire stuck in tip', 'wont feed', 'nested x2'].map((n) => read(n).isStop)).toEqual(
      Array.from({ length: 4 }, () => true),
    )
    expect(read('new nozzle').isStop).toBe(false)
  })
  it('what it does not understand it keeps, word for word', () => {
    expect(read('asked Per about the thing').unread).toEqual(['asked per about the thing'])
    expect(read('new tip, bad wire?, called supplier').unread).toEqual(['bad wire?', 'called supplier'])
    expect(read('and then, with the').unread).toEqual([])
  })
  it('names what was worked on and is no word of the trade; what stands beside a part is not asked about', () => {
    const words = (note: string) => read(note).words
    expect(words('swapped lance')).toEqual(['lance'])
    expect(words('new drive wheel, swapped the lance again')).toEqual(['lance'])
    expect(words('T')).toEqual(['t'])
    expect(words('new tip on the lance')).toEqual([])
    expect(words('new tip, bad wire?')).toEqual([])
    expect(words('changed again')).toEqual([])
  })
  it('asks for each word once, the most frequent first, and never for what is no part', () => {
    const notes = [
      'swapped lance',
      'new lance',
      'swapped fixture',
      'cleaned the whole of the big blue old bench',
      '?',
    ].map((text) => ({ text, read: read(text) }))
    expect(askedWords(notes).map((w) => [w.word, w.notes])).toEqual([
      ['lance', 2],
      ['fixture', 1],
    ])
    expect(askedWords(notes, new Set(['lance'])).map((w) => w.word)).toEqual(['fixture'])
  })
  it('never makes up a part, a count beyond twenty or an unknown verb, whatever is typed', () => {
    const keys = new Set(KIND_DEFAULTS.map((k) => k.key))
    fc.assert(
      fc.property(fc.string({ maxLength: 80 }), (text) => {
        for (const act of read(text).acts) {
          expect(keys.has(act.kindKey)).toBe(true)
          expect(act.count).toBeGreaterThanOrEqual(1)
          expect(act.count).toBeLessThanOrEqual(20)
          expect(NOTE_VERBS).toContain(act.verb)
        }
      }),
      { seed: 3, numRuns: 500 },
    )
  })
  it('is read the same however it is spaced and written', () => {
    const words = fc.constantFrom('new tip', 'liner kinked', 'nozzle cleaned', '2 tips', 'checked rolls')
    fc.assert(
      fc.property(fc.array(words, { minLength: 1, maxLength: 4 }), (pieces) => {
        const plain = told(read(pieces.join(', ')))
        expect(told(read(pieces.join('  ,   ').toUpperCase()))).toEqual(plain)
        expect(told(read(pieces.join(' + ')))).toEqual(plain)
      }),
      { seed: 4 },
    )
  })
})

describe('notes in groups', () => {
  it('ask one question per part and verb, the most frequent first, with examples', () => {
    const notes = ['tip', 'tip x2', 'tip + liner', 'new liner', 'nonsense'].map((text) => ({ text, read: read(text) }))
    expect(groupNotes(notes).map((g) => [g.key, g.notes, g.parts, g.examples])).toEqual([
      ['tip unsaid', 3, 4, ['tip', 'tip x2', 'tip + liner']],
      ['liner changed', 1, 1, ['new liner']],
      ['liner unsaid', 1, 1, ['tip + liner']],
    ])
  })
})

describe('the heading of a messy sheet', () => {
  it('is found under a title and a logo line', () => {
    const rows = [['Bay A tips 2026'], [], ['', 'printed 3.1.'], ['Gun', 'Date', 'What'], ['A1', '3.1.2026', 'tip']]
    expect(findHeading(rows, HISTORY_COLUMNS)).toEqual({ headings: ['Gun', 'Date', 'What'], dataFrom: 4 })
  })
  it('cut over two rows is joined under its merged band', () => {
    const rows = [
      ['Booth', 'Day', 'Wire', ''],
      ['', '', 'kg', 'starts'],
      ['A1', '2026-01-03', '4', '100'],
    ]
    const found = findHeading(rows, USAGE_COLUMNS)
    expect(found.headings.length).toBe(4)
    expect(found.dataFrom).toBeLessThanOrEqual(2)
  })
  it('is two rows put together where the upper one already names some columns', () => {
    const rows = [
      ['North hall, gun book', '', '', ''],
      ['Gun', 'When', '', 'By', ''],
      ['', 'Date', 'What', '', 'remarks of old'],
      ['N4', '18.10.26', 'liner by Tom', 'Tove', ''],
      ['N5', '19.10.26', 'tip', '', ''],
    ]
    const { headings, dataFrom } = findHeading(rows, HISTORY_COLUMNS)
    expect(dataFrom).toBe(3)
    expect(guessColumns(headings, HISTORY_COLUMNS)).toMatchObject({ place: 0, date: 1, note: 2, who: 3 })
  })
  it('of a sheet that names nothing known is its first row', () =>
    expect(
      findHeading(
        [
          ['x', 'y'],
          ['1', '2'],
        ],
        HISTORY_COLUMNS,
      ),
    ).toEqual({ headings: ['x', 'y'], dataFrom: 1 }))
  it('is never past the rows there are', () => {
    fc.assert(
      fc.property(
        fc.array(fc.array(fc.string({ maxLength: 8 }), { maxLength: 5 }), { minLength: 1, maxLength: 15 }),
        (rows) => {
          const { dataFrom } = findHeading(rows, HISTORY_COLUMNS)
          expect(dataFrom).toBeGreaterThanOrEqual(1)
          expect(dataFrom).toBeLessThanOrEqual(rows.length)
        },
      ),
      { seed: 6 },
    )
  })
})
