import { describe, expect, it } from 'vitest'
import { type ShopChange } from './shopchange.ts'
import { factOfToday, readOldSentence } from './oldsentence.ts'

const rule = { of: 'houseRule', changeAt: null, cleanAt: null, lookDays: null, school: null, lives: null } as const
/** Every sentence that the version before wrote, and what it meant. */
const SAID: readonly (readonly [said: string, meant: ShopChange])[] = [
  ['house rule: tip, cell: change at 8', { ...rule, kindKey: 'tip', classKey: 'cell', changeAt: 8 }],
  [
    'house rule: nozzle, *: change at 60: clean at 3.5: look every 7 days',
    { ...rule, kindKey: 'nozzle', classKey: '*', changeAt: 60, cleanAt: 3.5, lookDays: 7 },
  ],
  ['house rule: gas, booth', { ...rule, kindKey: 'gas', classKey: 'booth' }],
  [
    'house rule: tip, booth: change at 6.25 (least cost, from 210 lives)',
    { ...rule, kindKey: 'tip', classKey: 'booth', changeAt: 6.25, school: 'leastCost', lives: 210 },
  ],
  ['house rule: liner, * (run to failure)', { ...rule, kindKey: 'liner', classKey: '*', school: 'runToFailure' }],
  [
    'house rule D14, everywhere: first',
    { of: 'school', code: 'D14', scopeType: 'site', scopeKey: '*', option: 'first', terms: null },
  ],
  [
    'house rule D10, feeder 4: the usual',
    { of: 'school', code: 'D10', scopeType: 'feeder', scopeKey: '4', option: null, terms: null },
  ],
  [
    'house rule D25, mode short circuit: forATime',
    { of: 'school', code: 'D25', scopeType: 'mode', scopeKey: 'short circuit', option: 'forATime', terms: null },
  ],
  [
    'house rule D06, everywhere: signs (kink, pull ×1.7, 3 tips)',
    {
      ...{ of: 'school', code: 'D06', scopeType: 'site', scopeKey: '*', option: 'signs' },
      terms: { on: ['kink', 'pull', 'tips'], pullRatio: 1.7, tips: 3 },
    },
  ],
  [
    'house rule D06, everywhere: signs (no sign)',
    {
      ...{ of: 'school', code: 'D06', scopeType: 'site', scopeKey: '*', option: 'signs' },
      terms: { on: [], pullRatio: 1.5, tips: 2 },
    },
  ],
  ['shop: Kettle, Lane & Co, Europe/Oslo', { of: 'site', name: 'Kettle, Lane & Co', zone: 'Europe/Oslo' }],
  ['area Bay A changed', { of: 'area', name: 'Bay A' }],
  ['place Cell 2 changed', { of: 'place', name: 'Cell 2' }],
  ['rates of booth', { of: 'rates', classKey: 'booth' }],
  ['part kind orings', { of: 'kind', kindKey: 'orings' }],
  ['parts list: 12 lines', { of: 'sheet', list: 'parts', lines: 12 }],
  ['purchase list: 1 lines', { of: 'sheet', list: 'purchases', lines: 1 }],
  ['fit families: 3 lines', { of: 'sheet', list: 'families', lines: 3 }],
  ['part K-T10', { of: 'part', name: 'K-T10' }],
  ['wire solid 1.0', { of: 'wire', name: 'solid 1.0' }],
  ['shifts (2)', { of: 'shifts', count: 2 }],
  ['fit family Kelp', { of: 'family', name: 'Kelp' }],
  ['feeder four-roll', { of: 'feederType', name: 'four-roll' }],
  ['procedure P 7', { of: 'procedure', name: 'P 7' }],
  ['gun spare K1', { of: 'gun', name: 'spare K1' }],
  ['kept as it is: tipLarge at tip', { of: 'finding', rule: 'tipLarge', at: 'tip', isKept: true }],
  ['counts again: tipLarge at tip', { of: 'finding', rule: 'tipLarge', at: 'tip', isKept: false }],
  ['shelves counted: 1 part', { of: 'counted', parts: 1 }],
  ['shelves counted: 40 parts', { of: 'counted', parts: 40 }],
  ['a delivery put on the shelf', { of: 'received' }],
  ['tin of old tips weighed: 240 g, emptied', { of: 'tin', kindKey: 'tip', grams: 240, isEmptied: true }],
  ['tin of old tips weighed: 240 g', { of: 'tin', kindKey: 'tip', grams: 240, isEmptied: false }],
  ['own words in the guide tip, tipOn', { of: 'guideWords', guide: 'tip', step: 'tipOn', isOwn: true }],
  ['no own words in the guide tip, tipOn', { of: 'guideWords', guide: 'tip', step: 'tipOn', isOwn: false }],
  ['own words for the caution: hot', { of: 'cautionWords', hazard: 'hot', isOwn: true }],
  ['shipped words for the caution: hot', { of: 'cautionWords', hazard: 'hot', isOwn: false }],
  ['word on tip: usual 6.5, early 3', { of: 'word', kindKey: 'tip', usual: 6.5, early: 3 }],
  ['word on tip taken back', { of: 'word', kindKey: 'tip', usual: null, early: null }],
  [
    'try-out: dip (again)? (no dip or dip, 20 places)',
    { of: 'tryout', question: 'dip (again)?', nameA: 'no dip', nameB: 'dip', places: 20 },
  ],
  ['a try-out ended', { of: 'tryoutEnd', isConfirmed: false }],
  ['a try-out ended: its parts fit, confirmed here', { of: 'tryoutEnd', isConfirmed: true }],
  ['why a gun stops: causes and checks', { of: 'knowledge', isShipped: false }],
  ['why a gun stops: back to what ships', { of: 'knowledge', isShipped: true }],
  ['a person added', { of: 'person', isNew: true }],
  ['a person changed', { of: 'person', isNew: false }],
  ['a device dropped', { of: 'device' }],
  ['a photo of a part taken back', { of: 'photo', ofType: 'part' }],
]

describe('a sentence of the version before', () => {
  it.each(SAID)('"%s" is read as fields', (said, meant) => expect(readOldSentence(said)).toEqual(meant))
  it.each(['', 'house rule', 'house rule: tip', 'house rule D6, everywhere: x', 'shelves counted: some'])(
    'that nobody can read stays as it was said: "%s"',
    (said) => expect(readOldSentence(said)).toEqual({ of: 'other', said }),
  )
  it('cut off at its 120 letters loses what was cut and nothing else', () => {
    const long = `place ${'x'.repeat(200)} changed`.slice(0, 120)
    expect(readOldSentence(long)).toEqual({ of: 'other', said: long })
  })
})

describe('a fact of the version before', () => {
  it('that was a sentence gets fields; read again it stays', () => {
    const today = factOfToday({ kind: 'shopChanged', what: 'rates of booth' })
    expect(today).toEqual({ kind: 'shopChanged', change: { of: 'rates', classKey: 'booth' } })
    expect(factOfToday(today)).toEqual(today)
  })
  it('with a field of that name and another kind is left alone', () => {
    const reading = { kind: 'reading', what: 'tension' } as never
    expect(factOfToday(reading)).toBe(reading)
  })
})
