import { describe, expect, it } from 'vitest'
import { USAGE_SOURCES } from '@core/clock/source.ts'
import { CAUSE_PLACES, KIND_KEYS } from '@core/path/columns.ts'
import { disagreementSentence, donePhrase, inN, isPlural, onHandWord, partName, placeName } from './words.ts'

describe('two counts of use that differ', () => {
  it('are told by what they are, the weaker against the better', () => {
    expect(disagreementSentence({ weaker: 'shiftLog', better: 'telemetry', overFraction: -0.12 })).toBe(
      'Usage: shift totals say 12% less than the feeder itself.',
    )
    expect(disagreementSentence({ weaker: 'rate', better: 'weighed', overFraction: 0.3 })).toBe(
      'Usage: the usual rate says 30% more than weighing.',
    )
  })
  it('by no key of the program, whichever they are', () => {
    for (const weaker of USAGE_SOURCES)
      for (const better of USAGE_SOURCES)
        expect(disagreementSentence({ weaker, better, overFraction: 0.1 })).not.toMatch(/[a-z][A-Z]/)
  })
})

describe('parts and places', () => {
  it('have a name each, with its lane', () => {
    for (const kind of KIND_KEYS) expect(partName(kind)).not.toMatch(/[a-z][A-Z]|#/)
    expect([partName('tip'), partName('tip#2'), partName('orings#3')]).toEqual(['tip', 'tip 2', 'O-rings 3'])
    expect([isPlural('rolls#2'), isPlural('tip')]).toEqual([true, false])
  })
  it('a place of the path is one word or two', () => {
    for (const place of CAUSE_PLACES) expect(placeName(place)).not.toMatch(/[a-z][A-Z]|#/)
    const names = (['off', 'pin', 'inlet', 'outlet', 'orings'] as const).map(placeName)
    expect(names).toEqual(['off the wire', 'gun pin', 'inlet', 'outlet', 'O-rings'])
  })
  it('what was done is said with its part, or without one', () => {
    expect([donePhrase('putBack', 'liner'), donePhrase('removed', 'tip'), donePhrase('changed', null)]).toEqual([
      'Liner put back',
      'Tip taken out',
      'Changed',
    ])
  })
  it('a chance is told in natural counts', () =>
    expect([0.001, 0.05, 0.2, 0.5, 0.99].map(inN)).toEqual([
      'under 1 in 50',
      '1 in 20',
      '1 in 5',
      '5 in 10',
      'nearly certain',
    ]))
})

describe('what is on hand', () => {
  it('is a number, and below none asks to be counted', () => {
    expect([6, 0].map(onHandWord)).toEqual(['6 on hand', '0 on hand'])
    expect(onHandWord(-1)).toMatch(/^count them/)
  })
})
