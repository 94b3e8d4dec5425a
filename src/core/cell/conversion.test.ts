import { describe, expect, it } from 'vitest'
import { guessedSetup, withValues } from '@core/drag/setup.ts'
import { usualShape } from '@core/drag/usual.ts'
import { type ConduitPiece } from '@core/rightparts/facts.ts'
import { compareWays, type WayTold } from './conversion.ts'

const steel = guessedSetup({ ...usualShape('steel', 1.2), payoff: 'spool' })
const way = (pieces: Partial<ConduitPiece>[], booster: WayTold['booster'] = 'none'): WayTold => ({
  ...{ payoff: 'drum', booster },
  conduit: pieces.map((p) => ({ name: 'x', lengthM: 3, bends: 1, lining: 'polymer' as const, ...p })),
})

describe('a planned way from a drum', () => {
  it('asks more of the rolls the more it bends, less on rollers, less with a booster', () => {
    const needed = (w: WayTold) => compareWays(steel, w).then.backN ?? Infinity
    const plain = needed(way([{}, {}]))
    expect(needed(way([{ bends: 3 }, { bends: 3 }]))).toBeGreaterThan(plain)
    expect(needed(way([{ lining: 'rollers' }, { lining: 'rollers' }]))).toBeLessThan(plain)
    expect(needed(way([{}, {}], 'electric'))).toBeLessThan(plain)
  })
  it('multiplies by e^(μθ) as a capstan does: four quarter turns of polymer against two', () => {
    const back = (bends: number) => compareWays(steel, way([{ bends }])).then.backN ?? 0
    const ratio = back(4) / back(2)
    expect(ratio).toBeGreaterThan(1)
    expect(ratio).toBeLessThan(Math.exp(0.3 * Math.PI))
  })
  it('is told with how slippery the lining may be, and leaves the gun as it is', () => {
    const { now, then, best, worst } = compareWays(steel, way([{ bends: 4 }]))
    expect(best.neededN ?? 0).toBeLessThanOrEqual(then.neededN ?? 0)
    expect(worst.neededN ?? Infinity).toBeGreaterThanOrEqual(then.neededN ?? 0)
    const worn = withValues(steel, { friction: steel.values.friction * 2 })
    expect(compareWays(worn, way([{}])).now.neededN ?? Infinity).toBeGreaterThan(now.neededN ?? 0)
  })
  it('that bends without end does not feed', () => {
    const { then } = compareWays(
      steel,
      way([
        { bends: 20, lining: 'steel coil' },
        { bends: 20, lining: 'steel coil' },
      ]),
    )
    expect(then.verdict).toBe('cannot feed')
  })
})
