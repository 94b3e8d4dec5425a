import { describe, expect, it } from 'vitest'
import { ignoredRule, type LimitedLife } from './ignored.ts'

const lives = (...used: number[]): LimitedLife[] => used.map((u) => ({ used: u, isHarm: false }))

describe('a rule that is ignored', () => {
  it('asks to be changed where most ran past it and nothing came of it', () =>
    expect(ignoredRule({ limit: 6, lives: lives(7, 7.5, 8, 8.5, 9, 9.5, 5) })).toEqual({ past: 6, suggested: 7.5 }))
  it('is right where one of those did harm, where few ran past, or where most kept to it', () => {
    const many = lives(7, 7.5, 8, 8.5, 9)
    expect(ignoredRule({ limit: 6, lives: [...many, { used: 8, isHarm: true }] })).toBeNull()
    expect(ignoredRule({ limit: 6, lives: many.slice(1) })).toBeNull()
    expect(ignoredRule({ limit: 6, lives: [...many, ...lives(5, 5, 5, 5, 5, 5)] })).toBeNull()
  })
  it('harm before the limit says nothing against running past it', () =>
    expect(ignoredRule({ limit: 6, lives: [...lives(7, 8, 9, 10, 11), { used: 3, isHarm: true }] })?.past).toBe(5))
  it('a limit that is none is misuse', () => expect(() => ignoredRule({ limit: 0, lives: [] })).toThrow(RangeError))
})
