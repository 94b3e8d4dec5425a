import { ROWS_PER_S } from './bead.ts'
import { type Rig } from './rig.ts'

/** How fast the flow stands once the valve opens, and how fast what stood in the hose has gone; guesses. */
const OPENS_S = 0.12
const SURGE_S = 0.35
/** What stood in a sound hose between two welds comes out on top, as a share of the flow; guess. */
const SURGE = 1.2

/**
 * Gas against time as the feeder’s own meter has it, L/min: Q(t) = Q·(1 − e^(−t/0.12 s)) + 1.2·Q·a·(e^(−t/0.35 s) − e^(−t/0.12 s)), Q what is set times the
 * share that reaches the meter, a the share that gets to the gun. What leaks behind the meter leaves Q as it is, but the gas that stood in the hose has
 * gone by the next weld: there is less surge. The valve opens with the trigger, where that does
 * anything. Null: a wire that is welded without. First-order filling and emptying
 * of a hose; its times are guesses.
 */
export function gasTrace({ gas, turns }: Pick<Rig, 'gas' | 'turns'>, rows: number): Float32Array | null {
  if (gas.lpm === null) return null
  const flow = turns ? gas.lpm * gas.reaches : 0
  return Float32Array.from({ length: rows }, (_, i) => {
    const t = i / ROWS_PER_S
    const open = Math.exp(-t / OPENS_S)
    return flow * (1 - open) + SURGE * flow * gas.arrives * (Math.exp(-t / SURGE_S) - open)
  })
}
