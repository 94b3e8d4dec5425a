import { Z_80 } from '@core/stats/normal.ts'
import { HOUR_S } from '@core/units/time.ts'

/** The tank as it was read, as it was found and as it was left; and the arc hours from the reading before to this one. */
export interface TankLook {
  foundL: number
  leftL: number
  arcHours: number | null
}
export interface AgentAsked {
  /** Oldest first. */
  looks: readonly TankLook[]
  /** Arc hours since the last of them. */
  sinceH: number
  shotMl: number
  shotsPerReam: number
  reamEvery: number
  cycleArcS: number
}
export interface AgentLeft {
  litres: number
  /** One in ten below, one in ten above. */
  low: number
  high: number
  /** Litres an arc hour, by what was said of shots and by what the tank itself told. */
  perArcH: number
  /** Arc hours till it is empty, likely and early. */
  hours: number
  earlyH: number
  /** Times the tank was seen to fall. */
  n: number
  /** What it took against what the shots should have taken. */
  times: number
}

/** A shot is what it is set to within about this share: a guess. */
const SHOT_LOG_SD = 0.35
/** What is said of shots counts as so many litres seen to go. */
const SAID_L = 0.5
/** The level is read so well, L: half the finger. */
const READ_SD_L = 0.05

/**
 * What is left in a sprayer's tank. By what was said: litres an arc hour = shots · ml / 1000 · 3600 / (arc of a cycle · cycles a ream). By what it took:
 * (said prior + Σ seen to go)/(said prior + Σ said to go), the prior half a litre. Spread: the shot's, which shrinks as tanks are seen to fall, and the
 * reading's. Null: it was never read.
 */
export function agentLeft(of: AgentAsked): AgentLeft | null {
  const last = of.looks.at(-1)
  if (!last) return null
  const said = ((of.shotMl / 1000) * of.shotsPerReam * HOUR_S) / (of.cycleArcS * of.reamEvery)
  const fell = of.looks.slice(1).flatMap((look, i) => {
    const before = of.looks[i]
    if (!before || look.arcHours === null || look.foundL > before.leftL) return []
    return [{ went: before.leftL - look.foundL, said: look.arcHours * said }]
  })
  const sum = (pick: (f: (typeof fell)[number]) => number) => fell.reduce((s, f) => s + pick(f), 0)
  const saidL = sum((f) => f.said)
  const times = (SAID_L + sum((f) => f.went)) / (SAID_L + saidL)
  const perArcH = said * times
  const logSd = SHOT_LOG_SD * Math.sqrt(SAID_L / (SAID_L + saidL))
  const went = perArcH * of.sinceH
  const sd = Math.hypot(went * logSd, READ_SD_L)
  const clamp = (litres: number) => Math.min(last.leftL, Math.max(0, litres))
  const litres = clamp(last.leftL - went)
  const low = clamp(last.leftL - went - Z_80 * sd)
  return {
    ...{ litres, low, high: clamp(last.leftL - went + Z_80 * sd), perArcH, n: fell.length, times },
    hours: perArcH > 0 ? litres / perArcH : Infinity,
    earlyH: perArcH > 0 ? low / (perArcH * Math.exp(Z_80 * logSd)) : Infinity,
  }
}
