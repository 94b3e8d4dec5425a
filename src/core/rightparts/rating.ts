import { normalCdf } from '@core/stats/normal.ts'
import { type Mode, type Setup } from './facts.ts'

/** What carries the program's current and says how much it may. */
export const RATED_KINDS = ['neck', 'diffuser', 'tip', 'nozzle'] as const
type RatedKind = (typeof RATED_KINDS)[number]

/** Peaks heat more than the mean current tells: √(mean of squares)/mean of a usual pulse. A guess. */
const PULSE_HEATS = 1.15
/** The current that heats the front as this program does. @example heatAmps(280, 'pulse') // 322 */
export const heatAmps = (amps: number, mode: Mode | null): number => amps * (mode === 'pulse' ? PULSE_HEATS : 1)

/**
 * Permitted duty at current I: D_r·(I_r/I)², at most 1, where I_r, D_r are the rating with that gas. Heat in the gun goes with
 * I²t. @example permittedDuty(300, 0.6, 350) // 0.44
 */
export function permittedDuty(ratedAmps: number, ratedDuty: number, amps: number): number {
  if (!(ratedAmps > 0) || !(amps > 0))
    throw new RangeError(`permittedDuty: expected amps > 0, got ${ratedAmps}, ${amps}`)
  return Math.min(1, ratedDuty * (ratedAmps / amps) ** 2)
}

export interface RatedHere {
  at: RatedKind
  /** Whose rating it is: the family's for the gun and its neck, or that of the part that is on. */
  by: 'family' | 'part'
  ratedAmps: number
  ratedDuty: number
  /** The program's, and as it heats. */
  amps: number
  heatAmps: number
  /** Share of the time it may weld, and that the program wants. */
  may: number
  wants: number
  /** Chance that it is more than the front can carry, by what ratings, meters and duty are known to. */
  chance: number
}

/** Ratings, currents and duty are known so well, as one standard deviation of the log of the heat. A guess. */
const HEAT_LOG_SD = 0.2

/** How a rating with that gas stands against the program; null: current, duty or the family's duty is untold. */
function againstProgram(setup: Setup) {
  const amps = setup.procedure?.amps?.[1]
  const wants = setup.procedure?.dutyFraction
  const ratedDuty = setup.family?.fit?.dutyFraction
  if (!amps || !wants || !ratedDuty) return null
  const heats = heatAmps(amps, setup.mode ?? setup.procedure?.mode ?? null)
  return (at: RatedKind, by: RatedHere['by'], ratedAmps: number | null | undefined): RatedHere[] => {
    if (!ratedAmps) return []
    const may = permittedDuty(ratedAmps, ratedDuty, heats)
    const chance = normalCdf(Math.log(wants / (ratedDuty * (ratedAmps / heats) ** 2)) / HEAT_LOG_SD)
    return [{ at, by, ratedAmps, ratedDuty, amps, heatAmps: heats, may, wants, chance }]
  }
}

/** The gun's own rating against the program. Where the gas is untold, with the mix: it carries less there. Null: not told. */
export function gunRating(setup: Setup): RatedHere | null {
  const fit = setup.family?.fit
  const own = (setup.gas ?? setup.procedure?.gas) === 'CO2' ? fit?.co2Amps : fit?.mixedAmps
  return againstProgram(setup)?.('neck', 'family', own)[0] ?? null
}

/**
 * What of the gun and its front is rated, against the program: worst first. With CO2 a part's rating goes up as the family's own does. Empty: current,
 * duty, gas or every rating is untold. Chance: Φ(ln(wanted duty / permitted duty) / 0.2), permitted not capped at 1.
 */
export function ratingsOf(setup: Setup): RatedHere[] {
  const fit = setup.family?.fit
  const gas = setup.gas ?? setup.procedure?.gas
  const rated = againstProgram(setup)
  if (!rated || !gas) return []
  const cools = gas === 'CO2' && fit?.co2Amps && fit.mixedAmps ? fit.co2Amps / fit.mixedAmps : 1
  const gun = gunRating(setup)
  return [
    ...(gun ? [gun] : []),
    ...RATED_KINDS.flatMap((at) => {
      const told = setup.parts[at]?.fit?.ratedAmps
      return rated(at, 'part', told ? told * cools : null)
    }),
  ]
    .sort((a, b) => b.chance - a.chance)
    .filter((r, i, all) => all.findIndex((o) => o.at === r.at) === i)
}
