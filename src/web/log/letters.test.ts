import { describe, expect, it } from 'vitest'
import { choiceOf, isLetter, LETTERS } from './letters.ts'

describe('letters', () => {
  it('stand for one act each, and d for the other one on a gun that stands', () => {
    expect(LETTERS.map((l) => choiceOf(l, false).act)).toEqual(['changed', 'cleaned', 'newSpool', 'down'])
    expect(choiceOf('d', true).act).toBe('running')
  })
  it('are no other keys', () => expect(['x', 'T', '', null, 5].filter(isLetter)).toEqual([]))
})
