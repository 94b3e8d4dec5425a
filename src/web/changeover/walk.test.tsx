import { describe, expect, it } from 'vitest'
import { step } from '@web/testing/sampleguide.ts'
import { shopAnswer } from '@web/testing/stage.tsx'
import { readDay } from './day.ts'
import { daySentence, dedicateSentence } from './DayPage.tsx'
import { afterStep, atStep, BEGIN, endOf, type WalkState } from '@web/guide/walk.ts'

const STEPS = [
  step('spoolOn', { ties: 'brakeTight' }),
  step('guide', { ties: 'guideOut' }),
  step('swap-tip', { swap: 'tip' }),
  step('closeBrake', { do: 'Brake back?', unties: 'brakeTight' }),
]
const walk = (...said: ('done' | 'skipped' | 'back')[]) =>
  said.reduce<WalkState>((state, word) => afterStep(STEPS, state, { said: word, atMs: 0 }), BEGIN)

describe('walking through a change', () => {
  it('ends with nothing tied when all is done', () =>
    expect(endOf(STEPS, walk('done', 'done', 'done', 'done'))).toEqual({
      stillTied: [],
      skipped: [],
      asked: [],
      settled: [],
    }))
  it('a closing question that is not yet so leaves its reminder tied', () =>
    expect(endOf(STEPS, walk('done', 'done', 'done', 'skipped'))).toEqual({
      stillTied: ['brakeTight'],
      skipped: [],
      asked: ['Brake back?'],
      settled: [],
    }))
  it('a swap that was skipped is told', () =>
    expect(endOf(STEPS, walk('done', 'done', 'skipped', 'done')).skipped).toEqual(['tip']))
  it('taking back is exact, and nothing goes past the end', () => {
    expect(walk('done', 'skipped', 'back')).toEqual(walk('done'))
    expect(walk('done', 'done', 'done', 'done', 'done')).toEqual(walk('done', 'done', 'done', 'done'))
    expect(atStep(STEPS, walk('done'))?.key).toBe('guide')
    expect(atStep(STEPS, walk('done', 'done', 'done', 'done'))).toBeNull()
  })
})

describe('a day as typed', () => {
  const shop = shopAnswer()
  it('is read line by line, with a heading or without, parted as people part it', () =>
    expect(readDay('booth,period,wire\nA1, one, solid\na2;two;solid 1.0\nA1\tthree\tSOLID', shop)).toEqual({
      ok: true,
      lines: [
        { booth: 'A1', period: 'one', wireId: 'wire_1' },
        { booth: 'A2', period: 'two', wireId: 'wire_1' },
        { booth: 'A1', period: 'three', wireId: 'wire_1' },
      ],
    }))
  it('names what it cannot read', () => {
    const read = readDay('Z9,one,solid\nA1,one\nA1,one,silver', shop)
    expect(read.ok ? [] : read.problems).toEqual([
      'Line 1: there is no place "Z9".',
      'Line 2: "A1,one" wants a booth, a period and a wire.',
      'Line 3: there is no wire "silver".',
    ])
    expect(readDay(' \n', shop).ok).toBe(false)
  })
})

describe('sentences of a day', () => {
  const day = { currency: 'EUR', isExact: true, periods: [], booths: [] }
  const sum = (changes: number, minutes: number, minor: number | null) => ({ changes, minutes, minor })
  it('say what grouping saves, or that nothing is to be saved', () => {
    expect(daySentence({ ...day, entered: sum(6, 130, 21_000), grouped: sum(2, 44, 7000) })).toBe(
      '2 changes instead of 6: 86 min and €140 less.',
    )
    expect(daySentence({ ...day, entered: sum(2, 44, null), grouped: sum(2, 44, null) })).toBe(
      '2 changes, 44 min: it is as good as it gets.',
    )
  })
  it('say whether a gun of its own pays, and when it cannot be told', () => {
    const answer = {
      currency: 'EUR',
      changes: 4,
      days: 90,
      minutesPerChange: 23,
      costPerChangeMinor: 3500,
      perYearMinor: 56_000,
      lowMinor: 15_000,
      highMinor: 145_000,
      breakEvenPerYear: 12,
      changesPerYear: 16,
      says: 'too few to tell' as const,
    }
    expect(dedicateSentence(answer)).toContain('Too few changes to tell yet. It pays from 12 changes a year on.')
    expect(dedicateSentence({ ...answer, changes: 0 })).toContain('nothing to save')
  })
})
