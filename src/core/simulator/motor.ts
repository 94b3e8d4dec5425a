import { drawNormal, makeRandom } from '@core/random/random.ts'
import { DAY_MS } from '@core/units/time.ts'

/** What a feed motor draws at its wire speed, as a function of time: the same motor and moment always give the same. */
export interface MotorPlan {
  /** Tells motors apart. */
  seed: number
  baseA: number
  /** From when its liner creeps, and by what share of the base a day; null: it does not. */
  creep: { fromMs: number; perDay: number } | null
}
const ROW_SD = 0.05
const DAY_SD = 0.008

const normalAt = (seed: number, n: number) => drawNormal(makeRandom((seed * 104_729 + n) >>> 0))

/** Amperes while the arc burns: base, days that wander, the meter's own noise, and the liner. */
export function motorAmpsAt({ seed, baseA, creep }: MotorPlan, atMs: number): number {
  const day = 1 + DAY_SD * normalAt(seed, Math.floor(atMs / DAY_MS))
  const row = 1 + ROW_SD * normalAt(seed + 1, Math.floor(atMs / 1000))
  const liner = creep ? Math.max(0, ((atMs - creep.fromMs) / DAY_MS) * creep.perDay) : 0
  return Math.round(baseA * (day + liner) * row * 1000) / 1000
}
