import { describe, expect, it } from 'vitest'
import { ROWS_PER_S } from './bead.ts'
import { brokenRig } from './faults.ts'
import { gasTrace } from './gas.ts'
import { soundRig } from './rig.ts'
import { USUAL_BOOTHS } from './setups.ts'

const setup = USUAL_BOOTHS[0]!
const rig = soundRig(setup)
const after = (trace: Float32Array | null, s: number) => trace?.[Math.round(s * ROWS_PER_S)] ?? NaN
const top = (trace: Float32Array | null) => Math.max(...(trace ?? []))

describe('gas against time', () => {
  it('begins with nothing, surges, and stands at what is set', () => {
    const trace = gasTrace(rig, 4 * ROWS_PER_S)
    expect(after(trace, 0)).toBe(0)
    expect(top(trace)).toBeGreaterThan(1.15 * (setup.gasLpm ?? 0))
    expect(after(trace, 3.9)).toBeCloseTo(setup.gasLpm ?? 0, 1)
  })
  it('of a leak or a kink before the feeder is low from the first moment; of a valve that stays shut there is none', () => {
    const leak = gasTrace(brokenRig(rig, [{ key: 'gasFitting', bad: 0.6 }]), 4 * ROWS_PER_S)
    expect(after(leak, 3.9)).toBeLessThan(0.5 * (setup.gasLpm ?? 0))
    expect(top(leak) / after(leak, 3.9)).toBeLessThan(1.1)
    expect(top(gasTrace(brokenRig(rig, [{ key: 'valve', bad: 0.6 }]), 400))).toBe(0)
    expect(top(gasTrace(brokenRig(rig, [{ key: 'cylinderEmpty', bad: 0.6 }]), 400))).toBe(0)
  })
  it('a leak behind the meter shows by its surge alone', () => {
    const leak = gasTrace(brokenRig(rig, [{ key: 'cableGas', bad: 0.6 }]), 4 * ROWS_PER_S)
    expect(after(leak, 3.9)).toBeCloseTo(setup.gasLpm ?? 0, 1)
    expect(top(leak)).toBeLessThan(0.9 * top(gasTrace(rig, 400)))
  })
  it('a draught and a clogged nozzle leave it as it is: they are past the meter', () => {
    for (const key of ['draught', 'nozzleClogged'] as const)
      expect(gasTrace(brokenRig(rig, [{ key, bad: 0.9 }]), 400)).toEqual(gasTrace(rig, 400))
  })
  it('is none with a wire that wants none', () => {
    const gasless = { ...rig, gas: { ...rig.gas, lpm: null } }
    expect(gasTrace(gasless, 400)).toBeNull()
    expect(top(gasTrace({ ...rig, turns: false }, 400))).toBe(0)
  })
})
