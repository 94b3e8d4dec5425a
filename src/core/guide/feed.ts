import { type FeederFacts } from '@core/rightparts/facts.ts'
import { type GuideRules } from './rules.ts'

/** Where feeding would let gas out and nobody wants that: the cylinder is shut, and opened again afterwards. */
export const mustShutGas = (feeder: FeederFacts | null, rules: GuideRules) =>
  rules.gas === 'shut' || (rules.gas === 'jog' && !feeder?.hasJog && !feeder?.cutsGas)

/** Metres of wire between rolls and tip. */
export const pathM = (gun: { cableM: number | null; neckMm: number | null }) =>
  (gun.cableM ?? USUAL_CABLE_M) + (gun.neckMm ?? 0) / 1000 + 0.2
/** A hand gun where nobody has said. */
export const USUAL_CABLE_M = 4
const USUAL_TOP_M_PER_MIN = 18
const SLOW_M_PER_MIN = 3
const SLOW_LAST_M = 0.5

export interface Feeding {
  lengthM: number
  topMPerMin: number | null
  /** What the procedure welds with, from and to. */
  weldMPerMin: readonly [number, number] | null
  speed: GuideRules['speed']
}
/**
 * Seconds until new wire arrives at the front; slower means slip or something in the way (P058): length over speed, at full speed,
 * at the welding speed, or at full speed with the last half metre slow.
 */
export function feedSeconds({ lengthM, topMPerMin, weldMPerMin, speed }: Feeding): number {
  const top = topMPerMin ?? USUAL_TOP_M_PER_MIN
  if (speed === 'fast') return (lengthM / top) * 60
  if (speed === 'steady') return (lengthM / (weldMPerMin ? (weldMPerMin[0] + weldMPerMin[1]) / 2 : top / 2)) * 60
  return ((lengthM - SLOW_LAST_M) / top + SLOW_LAST_M / SLOW_M_PER_MIN) * 60
}
