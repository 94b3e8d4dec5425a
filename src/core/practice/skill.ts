import { shareInterval } from '@core/stats/share.ts'
import { type FaultKey } from './faults.ts'

/** One drill as it is kept: what was wrong, and the minutes it took against the best order. */
export interface Attempt {
  faults: readonly FaultKey[]
  minutes: number
  bestMin: number
}
/** Found well: in no more than so many times the best order's minutes. */
export const WELL_WITHIN = 1.5
export const isWell = ({ minutes, bestMin }: Attempt) => minutes <= WELL_WITHIN * bestMin

export interface Skill {
  fault: FaultKey
  well: number
  tried: number
  /** Of all such drills, so many would be found well, nine times in ten: exact. */
  low: number
  high: number
}
/** By fault, what is known least first: the upper end of the interval, then what was tried most. */
export function skillsOf(attempts: readonly Attempt[]): Skill[] {
  const counts = new Map<FaultKey, { well: number; tried: number }>()
  for (const a of attempts)
    for (const fault of a.faults) {
      const c = counts.get(fault) ?? { well: 0, tried: 0 }
      counts.set(fault, { well: c.well + (isWell(a) ? 1 : 0), tried: c.tried + 1 })
    }
  return [...counts]
    .map(([fault, { well, tried }]) => ({ fault, well, tried, ...shareInterval(well, tried) }))
    .sort((a, b) => a.high - b.high || b.tried - a.tried)
}

/**
 * What to meet next: each fault gets a draw from what is believed of it, Beta(well + 1, missed + 1), and the lowest is met: what is not known
 * comes often, what was never met sooner or later, what is known now and then (Thompson 1933).
 */
export function nextFault(
  can: readonly FaultKey[],
  attempts: readonly Attempt[],
  random: () => number,
): FaultKey | null {
  const skills = new Map(skillsOf(attempts).map((s) => [s.fault, s]))
  let best: { fault: FaultKey; draw: number } | null = null
  for (const fault of can) {
    const { well = 0, tried = 0 } = skills.get(fault) ?? {}
    const draw = drawBeta(well + 1, tried - well + 1, random)
    if (!best || draw < best.draw) best = { fault, draw }
  }
  return best?.fault ?? null
}
/** Beta draw of whole numbers: the a-th smallest of a + b − 1 uniform ones. */
function drawBeta(a: number, b: number, random: () => number): number {
  const list = Array.from({ length: a + b - 1 }, random).sort((x, y) => x - y)
  return list[a - 1] ?? 0
}
