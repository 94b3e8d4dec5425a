import { describe, expect, it } from 'vitest'
import { type LoggingShareLine } from '@contract/parts.ts'
import { boughtSentence, loggingSentence, shareWord } from './supplywords.ts'

const line: LoggingShareLine = {
  areaId: null,
  kindKey: 'tip' as const,
  kindName: 'contact tip',
  source: 'tin',
  fromMs: 0,
  toMs: 1,
  taken: 105,
  sdTaken: 2,
  logged: 57,
  share: 0.57,
  low: 0.48,
  high: 0.66,
  isOver: false,
  reason: null,
}

describe('the share that was logged, in words', () => {
  it('is one line in tenths', () =>
    expect(loggingSentence(line, null)).toBe('Contact tips logged: about 6 in 10 (5–7) of those taken.'))
  it('names the bay it is of', () => expect(loggingSentence(line, 'Bay A')).toContain('logged, Bay A: about'))
  it('a band no wider than the word is left out', () =>
    expect(loggingSentence({ ...line, low: 0.55, high: 0.62 }, null)).toContain('about 6 in 10 of those'))
  it('says when more was logged than left the shelf', () =>
    expect(loggingSentence({ ...line, share: 0.99, isOver: true }, null)).toContain('count again'))
  it('nothing told is nothing said', () => expect(loggingSentence({ ...line, share: null }, null)).toBe(''))
  it.each([
    [0.02, 'under 1 in 10'],
    [0.31, 'about 3 in 10'],
    [0.949, 'about 9 in 10'],
    [0.97, 'nearly all'],
  ])('%s is %s', (share, words) => expect(shareWord(share)).toBe(words))
})

describe('what purchases tell', () => {
  const tips = {
    kindKey: 'tip' as const,
    kindName: 'contact tip',
    pieces: 3100,
    kg: 9400,
    months: 12,
    kgEach: 3.03,
    lowKg: 2.84,
    highKg: 3.23,
  }
  it('one tip per 3.0 kg', () =>
    expect(boughtSentence(tips, 'metric')).toBe(
      'One contact tip per 3.0 kg of wire (2.8–3.2), as bought: 3100 for 9.4 t in 12 months.',
    ))
  it('in pounds where the shop has pounds', () => {
    expect(boughtSentence(tips, 'us')).toContain('per 6.7 lb of wire (6.3–7.1)')
    expect(boughtSentence({ ...tips, months: 1 }, 'us')).toContain('in a month')
  })
})
