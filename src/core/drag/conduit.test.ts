import { describe, expect, it } from 'vitest'
import { RIGHT_STEEL } from '@core/testing/sampleparts.ts'
import { NOTHING_OF_CELL, type ConduitPiece } from '@core/rightparts/facts.ts'
import { conduitWay, LINING_FRICTION } from './conduit.ts'
import { dragOfGun, type DragFacts } from './ofgun.ts'
import { pathOf } from './path.ts'
import { tensionWindow } from './window.ts'

const piece = (over: Partial<ConduitPiece> = {}): ConduitPiece => ({
  ...{ name: 'drum to post', lengthM: 4, bends: 2, lining: 'polymer', ...over },
})

describe('conduit of several lengths', () => {
  it('is as long and as bent as all of them, and rubs as its bends do', () => {
    const way = conduitWay([piece(), piece({ name: 'post to arm', lengthM: 3, bends: 1, lining: 'rollers' })])
    expect(way).toMatchObject({ lengthMm: 7000, bendDeg: 270 })
    const { polymer, rollers } = LINING_FRICTION
    expect(way?.friction.typical).toBeCloseTo((2 * polymer.typical + rollers.typical) / 3, 12)
    // e^(μθ) of the whole is the product of the pieces'.
    const rad = Math.PI / 2
    const product = Math.exp(polymer.typical * 2 * rad) * Math.exp(rollers.typical * rad)
    expect(Math.exp((way?.friction.typical ?? 0) * 3 * rad)).toBeCloseTo(product, 12)
  })
  it('that bends nowhere goes by its lengths; none at all is no way', () => {
    const way = conduitWay([piece({ bends: 0 }), piece({ bends: 0, lengthM: 12, lining: 'steel coil' })])
    expect(way?.friction.typical).toBeCloseTo((4 * 0.14 + 12 * 0.2) / 16, 12)
    expect(conduitWay([])).toBeNull()
  })
})

describe('a robot’s gun', () => {
  const facts = (cell: DragFacts['setup']['cell']): DragFacts => ({
    ...{ setup: { ...RIGHT_STEEL, ...(cell === undefined ? {} : { cell }) }, linerUsed: null, kink: null, spoolKg: 15 },
    ...{ spoolLeft: null, isReversed: false, slip: null, friction: null, hubN: null, gapMm: null, coils: null },
    ...{ conduit: null, hasSecondDrive: false, layGrade: null, tip: null, knob: null },
  })
  it('opens on the way it is told to have, with what is guessed of it and what is told apart', () => {
    const cell = { ...NOTHING_OF_CELL, payoff: 'drum' as const, booster: 'electric' as const, conduit: [piece()] }
    const made = dragOfGun(facts(cell))
    expect(made?.drag.shape).toMatchObject({ payoff: 'drum', hasBooster: true })
    expect(made?.drag.values).toMatchObject({ conduitMm: 4000, conduitDeg: 180, conduitFriction: 0.14 })
    expect(made?.sources).toMatchObject({ conduitMm: { by: 'told' }, conduitDeg: { by: 'told' } })
    expect(made?.sources.conduitFriction).toBeUndefined()
  })
  it('pulls harder with every bend that is told, on a spool too', () => {
    const push = (bends: number) => {
      const cell = { ...NOTHING_OF_CELL, payoff: 'spool' as const, conduit: [piece({ bends })] }
      const made = dragOfGun(facts(cell))
      return made ? (tensionWindow(pathOf(made.drag)).backTensionN ?? 0) : 0
    }
    expect(push(4)).toBeGreaterThan(push(1) * 1.5)
  })
})
