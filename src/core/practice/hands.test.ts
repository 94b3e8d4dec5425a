import { describe, expect, it } from 'vitest'
import { makeRandom } from '@core/random/random.ts'
import {
  BUILT,
  cutBy,
  drawBuild,
  drawChange,
  drawKnob,
  drawLays,
  drawTrim,
  feelAt,
  rightBuild,
  trimVerdict,
  windowOf,
  wrongOf,
} from './hands.ts'

const many = <T>(draw: (random: () => number) => T, n = 200): T[] => {
  const random = makeRandom(12)
  return Array.from({ length: n }, () => draw(random))
}

describe('a build', () => {
  it('that is right has nothing wrong by the rules of fit; a drawn one has just what it says', () => {
    for (const { build, wrong } of many(drawBuild)) {
      expect(wrongOf(rightBuild(build.wire))).toEqual([])
      expect(wrongOf(build)).toEqual([wrong])
    }
    expect(new Set(many(drawBuild).map((b) => b.wrong)).size).toBe(BUILT.length)
  })
  it('soft wire wants a U, a polymer liner and argon', () => {
    expect(rightBuild({ material: 'aluminium 5xxx', diameterMm: 1.2 })).toMatchObject({
      ...{ rolls: { groove: 'U', sizeMm: 1.2 }, liner: { kind: 'polymer', span: [1.0, 1.2] }, gas: 'argon' },
    })
    expect(rightBuild({ material: 'flux-cored', diameterMm: 1.2 }).rolls.groove).toBe('knurled')
  })
  it('for another wire asks for what does not fit it, and leaves the rest', () => {
    for (const { from, to, asks } of many(drawChange)) {
      expect(asks.length).toBeGreaterThan(0)
      const isOtherSize = Math.abs(from.wire.diameterMm - to.diameterMm) > 0.05
      expect(asks.includes('tip')).toBe(isOtherSize)
      expect(asks.includes('gas')).toBe(from.wire.material.startsWith('alu') !== to.material.startsWith('alu'))
    }
  })
})

describe('the knob', () => {
  it('is left outside its window, on its scale, and can be set right', () => {
    for (const { setup, mark } of many(drawKnob, 60)) {
      const [first, last] = setup.shape.feeder.scale
      expect(mark >= first && mark <= last).toBe(true)
      expect(feelAt(setup, mark)).not.toBe('right')
      const { lowMark, highMark } = windowOf(setup)
      expect(feelAt(setup, ((lowMark ?? 0) + highMark) / 2)).toBe('right')
    }
  })
  it('feels the same on the way up: stalls, slips, right, too tight', () => {
    const order = ['stalls', 'slips', 'right', 'flat', 'nests']
    for (const { setup } of many(drawKnob, 20)) {
      const [first, last] = setup.shape.feeder.scale
      const felt = Array.from({ length: 60 }, (_, i) => order.indexOf(feelAt(setup, first + ((last - first) * i) / 59)))
      expect(felt).toEqual([...felt].sort((a, b) => a - b))
    }
  })
})

describe('lay and liner', () => {
  it('the hardest of three lays is so by far, by the drag model', () => {
    for (const { pushN, hardest } of many(drawLays, 60)) {
      const others = pushN.filter((_, i) => i !== hardest)
      expect(Math.max(...others) * 1.2).toBeLessThan(pushN[hardest] ?? 0)
    }
  })
  it('a cut takes about what it is set for, never adds, and too much is scrap', () => {
    expect(cutBy(60, 30, 0)).toBe(30)
    expect(cutBy(60, 30, 1)).toBeCloseTo(28.2, 9)
    expect(cutBy(60, 0.5, -20)).toBe(60)
    expect(() => cutBy(60, 0, 0)).toThrow(RangeError)
    const verdicts = [21.9, 22.7, 22.8, 21.2].map((standsMm) => trimVerdict({ standsMm, wantedMm: 22 }))
    expect(verdicts).toEqual(['fits', 'fits', 'long', 'scrap'])
    for (const t of many(drawTrim)) expect(t.standsMm).toBeGreaterThan(t.wantedMm + 10)
  })
})
