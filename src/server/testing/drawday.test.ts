import { describe, expect, it } from 'vitest'
// @ts-expect-error a script of the repository, in plain JavaScript
import { drawDay as drawn } from '../../../scripts/lib/drawday.mjs'

interface Drawn {
  seed: string
  atMs: number
  zone: string
  words: string
}
const drawDay = drawn as (seed: string) => Drawn
const draws = Array.from({ length: 400 }, (_, i) => drawDay(String(i)))
const wall = ({ atMs, zone }: Drawn) => new Date(atMs).toLocaleString('sv-SE', { timeZone: zone })

describe('the day that is drawn for a run', () => {
  it('is the same for the same seed, and said as it is', () => {
    for (const d of draws.slice(0, 50)) {
      expect(drawDay(d.seed)).toEqual(d)
      expect(d.words).toContain(wall(d))
      expect(d.words).toContain(d.zone)
    }
  })
  it('reaches every kind that goes wrong', () => {
    const kinds = new Set(draws.map((d) => d.words.split(',')[0]))
    for (const kind of ['a weekend', 'a night shift', 'the turn of a year', 'the end of February', 'any working day'])
      expect(kinds).toContain(kind)
    expect([...kinds].filter((k) => k?.startsWith('the day the clocks go'))).toHaveLength(2)
  })
  it('a night shift is at night, by the wall clock of its zone', () => {
    for (const d of draws.filter((x) => x.words.startsWith('a night shift'))) {
      const hour = Number(wall(d).slice(11, 13))
      expect(hour >= 21 || hour <= 6, d.words).toBe(true)
    }
  })
  it('the clocks do change on the day they are said to change', () => {
    for (const d of draws.filter((x) => x.words.startsWith('the day the clocks go'))) {
      const offset = (ms: number) => {
        const at = new Date(ms).toLocaleString('sv-SE', { timeZone: d.zone }).replace(' ', 'T')
        return Date.parse(`${at}Z`) - Math.floor(ms / 1000) * 1000
      }
      expect(offset(d.atMs - 26 * 3_600_000), d.words).not.toBe(offset(d.atMs + 26 * 3_600_000))
    }
  })
})
