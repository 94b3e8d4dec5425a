import { describe, expect, it } from 'vitest'
import { helpsFor, HELP_KEYS, type Told } from './helps.ts'

const NOTHING: Told = {
  ...{ guns: 6, baysUntold: 1, limits: 0, gunsClocked: 0, gunsLooked: 0, shifts: 0 },
  ...{ costsTold: false, linesBroughtIn: 0, cardsPrinted: false, people: 1 },
}
const ALL: Telling = {
  ...{ baysUntold: 0, limits: 12, gunsClocked: 6, gunsLooked: 6, shifts: 2 },
  ...{ costsTold: true, linesBroughtIn: 40, cardsPrinted: true, people: 4 },
}
type Telling = Partial<Told>

describe('what else would help', () => {
  it('begins with the bay, then what makes parts come due', () => {
    expect(helpsFor(NOTHING)).toEqual(['bay', 'limits', 'hours'])
  })
  it('is three lines at most, and each goes when it is done, until none is left', () => {
    let told = NOTHING
    const seen = new Set<string>()
    for (let i = 0; i < 20; i++) {
      const open = helpsFor(told)
      expect(open.length).toBeLessThanOrEqual(3)
      const [first] = open
      if (!first) break
      expect(seen.has(first)).toBe(false)
      seen.add(first)
      const key = { bay: 'baysUntold', hours: 'gunsClocked', look: 'gunsLooked', costs: 'costsTold' } as Record<
        string,
        string
      >
      const other = { sheet: 'linesBroughtIn', cards: 'cardsPrinted' } as Record<string, string>
      const field = key[first] ?? other[first] ?? first
      told = { ...told, [field]: ALL[field as keyof Told] }
    }
    expect(seen.size).toBe(HELP_KEYS.length)
    expect(helpsFor(told)).toEqual([])
  })
  it('asks nothing of a shop without guns', () => {
    expect(helpsFor({ ...NOTHING, guns: 0 })).toEqual([])
  })
})
