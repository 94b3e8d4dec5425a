import { DAY_MS } from '@core/units/time.ts'
import { type SimEvent } from '@core/simulator/simulator.ts'
import { drawNormal, makeRandom } from '@core/random/random.ts'

const WEEK_MS = 7 * DAY_MS
const SEED = 4177
/** Friction of a new liner, and how much of that again has come on when it is worn out. */
const NEW = 0.18
const RISE = 0.85
/** It comes late: three quarters of the way little is felt. */
const BEND = 3
/** One pull against the next, same hand. */
const NOISE = 0.035
/** Others than worn ones came out at half of their wear, as far as anybody could tell. */
const HALF = 0.5

export interface WeeklyPull {
  gun: string
  atMs: number
  value: number
}
/** Friction by pulls of some guns every Monday: of a liner that wears out it rises as it goes, of others it had hardly begun to. */
export function weeklyPulls(
  events: readonly SimEvent[],
  at: { guns: readonly string[]; fromMs: number; nowMs: number },
): WeeklyPull[] {
  const random = makeRandom(SEED)
  return at.guns.flatMap((gun) => {
    const changes = events.flatMap(({ gun: of, atMs, act }) =>
      of === gun && act.kind === 'fitted' && act.position === 'liner'
        ? [{ atMs, isWorn: act.reason === 'worn' || act.reason === 'notSaid' }]
        : [],
    )
    const pulls: WeeklyPull[] = []
    for (let atMs = at.fromMs; atMs < at.nowMs - WEEK_MS / 3; atMs += WEEK_MS) {
      const next = changes.find((c) => c.atMs > atMs)
      const fromMs = changes.findLast((c) => c.atMs <= atMs)?.atMs ?? at.fromMs
      const done = next ? (atMs - fromMs) / (next.atMs - fromMs) : 0
      const wear = next?.isWorn ? done : done * HALF
      const value = NEW * (1 + RISE * wear ** BEND) * (1 + NOISE * drawNormal(random))
      pulls.push({ gun, atMs, value: Math.round(value * 1000) / 1000 })
    }
    return pulls
  })
}
