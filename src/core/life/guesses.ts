import { type LifeUnit, type KindKey } from '@core/path/columns.ts'
import { inUnit } from '@core/spools/bylength.ts'
import { Z_80 } from '@core/stats/normal.ts'
import { type Prior } from './thinned.ts'

/**
 * Lives of parts until a shop's own speak: shipped guesses, marked "trade" wherever they show, and never a limit. `usual` is half gone by, in
 * the kind's unit; a spread of 2.5 either way holds 8 in 10. Shape from what wears: 2 for what spatter and heat wear, 2.5 for rubbing.
 */
export const TRADE_LIVES: Readonly<Record<string, { usual: number; unit: LifeUnit; shape: number }>> = {
  tip: { usual: 8, unit: 'arcHours', shape: 2 },
  nozzle: { usual: 60, unit: 'arcHours', shape: 2 },
  diffuser: { usual: 150, unit: 'arcHours', shape: 2 },
  insulator: { usual: 250, unit: 'arcHours', shape: 1.8 },
  neck: { usual: 1500, unit: 'arcHours', shape: 2 },
  liner: { usual: 250, unit: 'kg', shape: 2.2 },
  jump: { usual: 250, unit: 'kg', shape: 2.2 },
  rolls: { usual: 2000, unit: 'kg', shape: 2.5 },
  inlet: { usual: 1500, unit: 'kg', shape: 2.5 },
  outlet: { usual: 1500, unit: 'kg', shape: 2.5 },
  orings: { usual: 40, unit: 'matings', shape: 2 },
}
/** Eight shops in ten lie within so many times of it, either way. */
export const TRADE_SPREAD = 2.5
const TOLD_SPREAD = 1.5
const SHAPE_SPREAD = 1.6

/** Trade guess as a prior; null where there is none for the kind in that unit. */
export function tradePrior(kindKey: KindKey, unit: LifeUnit): Prior | null {
  const usual = tradeUsual(kindKey, unit)
  const guess = TRADE_LIVES[kindKey]
  return usual === null || !guess ? null : priorFrom(usual, guess.shape, TRADE_SPREAD)
}
/** Half gone by, as the trade has it; null where it has no number in that unit. */
export function tradeUsual(kindKey: KindKey, unit: LifeUnit): number | null {
  const guess = TRADE_LIVES[kindKey]
  return guess ? inUnit(guess.usual, guess.unit, unit) : null
}

/** ln (ln 2 / −ln 0.9): what "usual" and "early one in ten" tell of the shape. */
const SHAPE_OF_RATIO = Math.log(Math.LN2 / -Math.log(0.9))
/**
 * A lead's word, "usual u, early one in ten e": k = 1.884/ln(u/e), half gone by u. u > e > 0; else misuse throws. @example toldPrior(6, 3).shape // 2.72
 */
export function toldPrior(usual: number, early: number): Prior {
  if (!(early > 0) || !(usual > early))
    throw new RangeError(`toldPrior: expected usual > early > 0, got ${usual}, ${early}`)
  return priorFrom(usual, SHAPE_OF_RATIO / Math.log(usual / early), TOLD_SPREAD)
}
const priorFrom = (usual: number, shape: number, spread: number): Prior => ({
  shape,
  scale: usual / Math.LN2 ** (1 / shape),
  sdLogShape: Math.log(SHAPE_SPREAD) / Z_80,
  sdLogScale: Math.log(spread) / Z_80,
})
