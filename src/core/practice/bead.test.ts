import { describe, expect, it } from 'vitest'
import { pathOf } from '@core/drag/path.ts'
import { withValues } from '@core/drag/setup.ts'
import { tensionWindow } from '@core/drag/window.ts'
import { runBead, type BeadRun } from './bead.ts'
import { meltingAmps, meltOf, voltsFor } from './melt.ts'
import { mmPerS, soundRig, type Rig } from './rig.ts'
import { USUAL_BOOTHS } from './setups.ts'
import { signsOf } from './signs.ts'
import { wireForces } from './wire.ts'

const mean = (list: Float32Array) => list.slice(100).reduce((a, b) => a + b, 0) / (list.length - 100)
const booth = (n: number) => USUAL_BOOTHS[n] ?? USUAL_BOOTHS[0]!
const rigs = USUAL_BOOTHS.map((setup) => [setup.name, soundRig(setup), setup] as const)
const run = (rig: Rig): BeadRun => runBead(rig, { seed: 5 })

describe('melting', () => {
  it('is the root of its own equation, and a straight line without stick-out', () => {
    const melt = meltOf('steel', 1.2)
    for (const mmPerS of [0, 20, 90, 200])
      for (const outMm of [0, 8, 20]) {
        const i = meltingAmps(melt, { mmPerS, outMm })
        expect(melt.a * i + melt.b * outMm * i * i).toBeCloseTo(mmPerS, 9)
      }
    expect(meltingAmps(melt, { mmPerS: 90, outMm: 0 })).toBeCloseTo(300, 9)
    expect(() => meltingAmps(melt, { mmPerS: -1, outMm: 0 })).toThrow(RangeError)
  })
  it('asks for less current the longer the stick-out, and thicker wire for more', () => {
    const at = (d: number, outMm: number) => meltingAmps(meltOf('steel', d), { mmPerS: 100, outMm })
    expect(at(1.2, 20)).toBeLessThan(at(1.2, 10))
    expect(at(0.8, 10)).toBeLessThan(at(1.2, 10))
  })
})

describe.each(rigs)('a booth with nothing wrong: %s', (_, rig, setup) => {
  const bead = run(rig)
  it('shows no sign, slips nowhere, and all that the rolls turn comes out at the tip', () => {
    expect(signsOf(bead, { rig, setup })).toEqual([])
    expect(mean(bead.trace.rollsMmS)).toBeCloseTo(mmPerS(setup.wireSpeedMPerMin), 0)
    expect(mean(bead.trace.tipMmS) / mean(bead.trace.rollsMmS)).toBeCloseTo(1, 1)
  })
  it('is pushed with what the drag model says it takes', () => {
    const w = tensionWindow(pathOf(rig.drag))
    expect(wireForces(rig).keepN).toBe(w.pushN)
    expect(bead.pushN).toBeGreaterThan((w.pushN ?? 0) * 0.9)
    // Moving takes a little more than keeping it going.
    expect(bead.pushN).toBeLessThan((w.pushN ?? 0) * 1.3 + 8)
  })
  it('burns at the length its volts were set for, and finds back to it by itself', () => {
    const wanted = rig.transfer === 'spray' ? 5 : 0.85 * rig.drag.shape.diameterMm
    const arcs = bead.trace.arcMm.slice(200).filter((mm) => mm > 0)
    const length = arcs.reduce((a, b) => a + b, 0) / arcs.length
    if (rig.transfer === 'spray') expect(length).toBeCloseTo(wanted, 0)
    else expect(bead.counts.shorts).toBeGreaterThan(40)
    expect(bead.counts.losses).toBe(0)
  })
  it('is the same again with the same seed', () => {
    expect(run(rig).trace.amps).toEqual(bead.trace.amps)
  })
})

describe('at its limits', () => {
  const rig = soundRig(booth(0))
  const { tractionN, nestN } = wireForces(rig)
  it('without traction nothing comes, and without power nothing turns', () => {
    expect(run({ ...rig, isArmClosed: false }).counts.shorts).toBe(0)
    expect(mean(run({ ...rig, turns: false }).trace.rollsMmS)).toBe(0)
  })
  it('a wire that cannot pass slips where the rolls give way first, nests where the gap does', () => {
    const slips = run({ ...rig, isPlugged: true })
    expect(tractionN).toBeLessThan(nestN)
    expect([slips.hasNested, slips.pushN > 0.9 * tractionN]).toEqual([false, true])
    const wide = { ...rig, isPlugged: true, drag: withValues(rig.drag, { gapMm: 45 }) }
    expect(wireForces(wide).nestN).toBeLessThan(tractionN)
    expect(run(wide).hasNested).toBe(true)
  })
  it('a rougher liner jerks below the speed at which sliding friction steadies it, and not above', () => {
    const rough = { ...rig, stick: 0.6, drag: withValues(rig.drag, { friction: rig.drag.values.friction * 1.5 }) }
    const spread = (r: Rig) => {
      const { tipMmS } = run(r).trace
      const m = mean(tipMmS)
      return Math.sqrt(mean(tipMmS.map((v) => (v - m) ** 2))) / m
    }
    expect(spread({ ...rough, wireSpeedMmS: 60 })).toBeGreaterThan(0.4)
    expect(spread({ ...rough, wireSpeedMmS: 320 })).toBeLessThan(0.1)
    expect(spread(rig)).toBeLessThan(0.1)
  })
  it('more volts make a longer arc, more wire a shorter one', () => {
    const plate = soundRig(booth(1))
    const length = (r: Rig) => mean(run(r).trace.arcMm)
    expect(length({ ...plate, volts: plate.volts + 3 })).toBeGreaterThan(length(plate) + 2)
    expect(length({ ...plate, wireSpeedMmS: plate.wireSpeedMmS * 1.15 })).toBeLessThan(length(plate))
    const melt = meltOf('steel', 1.2)
    const at = (arcMm: number) => voltsFor(melt, { mmPerS: 150, distanceMm: 18, arcMm })
    expect(at(6)).toBeGreaterThan(at(4))
  })
  it('with the clamp off it never strikes; with a dull ball it strikes late', () => {
    expect(run({ ...rig, isOpen: true }).firstArcS).toBeNull()
    expect(run({ ...rig, isBalled: true }).counts.startS).toBeGreaterThan(3 * run(rig).counts.startS)
  })
})
