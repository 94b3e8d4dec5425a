import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { isArcAt, usedByArcs } from './arcs.ts'

const plan = { seed: 3, duty: 0.5, wireMPerMin: 9 }
const moment = fc.integer({ min: 0, max: 40 * 3_600_000 })

describe('arcs of a made-up feeder', () => {
  it('add up however the time is cut', () => {
    fc.assert(
      fc.property(moment, moment, moment, (a, b, c) => {
        const [x = 0, y = 0, z = 0] = [a, b, c].sort((p, q) => p - q)
        const [one, two, whole] = [usedByArcs(plan, x, y), usedByArcs(plan, y, z), usedByArcs(plan, x, z)]
        expect(one.arcOnS + two.arcOnS).toBeCloseTo(whole.arcOnS, 6)
        expect(one.arcStarts + two.arcStarts).toBe(whole.arcStarts)
      }),
      { seed: 2 },
    )
  })
  it('burn about the share of time they should, and feed wire only then', () => {
    const day = usedByArcs(plan, 0, 24 * 3_600_000)
    expect(day.arcOnS / 86_400).toBeGreaterThan(0.35)
    expect(day.arcOnS / 86_400).toBeLessThan(0.65)
    expect(day.wireFedM).toBeCloseTo((day.arcOnS / 60) * 9, 6)
  })
  it('are on at a moment exactly if they count in it', () => {
    fc.assert(
      fc.property(moment, (at) => usedByArcs(plan, at, at + 1).arcOnS > 0 === isArcAt(plan, at)),
      { seed: 4 },
    )
  })
  it('of time that runs back are misuse', () => expect(() => usedByArcs(plan, 5, 4)).toThrow('expected toMs'))
})
