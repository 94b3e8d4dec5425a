import { logGamma } from '@core/stats/beta.ts'
import { upperGamma } from '@core/stats/gamma.ts'

/** Ends seen at one place, and how many its use would lead one to expect (its cumulative hazard). */
export interface PlaceEnds {
  key: string
  ends: number
  expected: number
  /** Least share of changes that is written down where it stands. */
  share: number
}
export interface PlaceEffect extends PlaceEnds {
  /** How many times faster than its set-up explains, drawn towards 1 by how much places differ. */
  z: number
  low: number
  high: number
  /** P(z > 1), and the same if this place writes down everything and the others only as much as the count says. */
  chanceOver: number
  chanceOverWhateverLogged: number
}

/** Places hardly differ where this fits best. */
const ALIKE = 1e4

/**
 * How much faster parts go at each place than their own use explains: z ~ Gamma(a, a), z | data ~ Gamma(a + d, a + H), d ends and H = Σ −ln of
 * the chance that a gap is still open; a by marginal likelihood over all places. With `share` the least share of changes that is written
 * down there, a place that wrote everything would look 1/share times as hungry as its neighbours, so `chanceOverWhateverLogged` is
 * P(z · share > 1). Ends and expectations ≥ 0; share in 0…1; else misuse throws. Source: Kalbfleisch & Prentice 2002.
 * @example placeEffects([{ key: 'a', ends: 20, expected: 10, share: 0.9 }, …])
 */
export function placeEffects(places: readonly PlaceEnds[]): { spread: number; places: PlaceEffect[] } {
  for (const { ends, expected, share } of places) {
    if (!(share > 0 && share <= 1)) throw new RangeError(`placeEffects: expected a share in 0…1, got ${share}`)
    if (!(ends >= 0) || !(expected >= 0))
      throw new RangeError(`placeEffects: expected counts >= 0, got ${ends}, ${expected}`)
  }
  const a = likeliest(places)
  return {
    spread: 1 / Math.sqrt(a),
    places: places.map((p) => {
      const [d, h] = [a + p.ends, a + p.expected]
      const over = (z: number) => upperGamma(d, z * h)
      return {
        ...p,
        z: d / h,
        low: quantile(d, 0.05) / h,
        high: quantile(d, 0.95) / h,
        chanceOver: over(1),
        chanceOverWhateverLogged: over(1 / p.share),
      }
    }),
  }
}

function likeliest(places: readonly PlaceEnds[]): number {
  const logLik = (a: number) =>
    places.reduce(
      (sum, { ends, expected }) =>
        sum + logGamma(a + ends) - logGamma(a) - ends * Math.log(a + expected) - a * Math.log1p(expected / a),
      0,
    )
  let [best, most] = [ALIKE, logLik(ALIKE)]
  for (let log = Math.log(0.3); log < Math.log(ALIKE); log += 0.02) {
    const value = logLik(Math.exp(log))
    if (value > most + 1e-9) [best, most] = [Math.exp(log), value]
  }
  return best
}
/** Of Gamma(a, 1), by halving. */
function quantile(a: number, p: number): number {
  let [low, high] = [0, a + 10 * Math.sqrt(a) + 20]
  for (let n = 0; n < 80; n++) {
    const middle = (low + high) / 2
    if (1 - upperGamma(a, middle) < p) low = middle
    else high = middle
  }
  return (low + high) / 2
}

export const HUNGRY = { z: 1.5, chance: 0.95, leastEnds: 5 }
/**
 * May a place be said to take more than its share? Only where that stands whatever its neighbours left unlogged, or where a reading that
 * does not depend on logging agrees; a place that is only honest is `mayLogMore`.
 */
export function verdictOn(place: PlaceEffect, doesReadingAgree: boolean): 'hungry' | 'mayLogMore' | 'usual' {
  if (place.ends < HUNGRY.leastEnds || place.z < HUNGRY.z || place.chanceOver < HUNGRY.chance) return 'usual'
  const isWhatever = place.z * place.share >= HUNGRY.z && place.chanceOverWhateverLogged >= HUNGRY.chance
  return isWhatever || doesReadingAgree ? 'hungry' : 'mayLogMore'
}
