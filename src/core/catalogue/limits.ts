import { type KindKey, type LifeUnit } from '@core/path/columns.ts'
import { tradeUsual, TRADE_SPREAD } from '@core/life/guesses.ts'

/** The trade's number for one kind of part: a suggestion with its spread, never a limit until somebody takes it. */
export interface SuggestedLimit {
  kindKey: KindKey
  /** Change at so much use; null: the trade has no number in the unit that this shop counts in. */
  changeAt: number | null
  /** Eight shops in ten lie between these. */
  low: number | null
  high: number | null
  unit: LifeUnit
  /** Look every so many days. */
  lookDays: number | null
}

/** Days between looks where nobody has said otherwise: short at the hot end, where spatter works; guesses. */
const LOOK_DAYS: Readonly<Record<string, number>> = {
  tip: 7,
  nozzle: 7,
  diffuser: 14,
  insulator: 30,
  liner: 30,
  jump: 30,
  rolls: 30,
  inlet: 30,
  outlet: 30,
  hub: 30,
  orings: 90,
  neck: 90,
}

/**
 * Suggestions for the kinds a shop has, in their order. A change is suggested at the use by which half are worn in the trade: sooner throws away good
 * parts, later stops guns. Kinds without a number get a look only; kinds with neither are left out.
 * @example suggestedLimits([{ key: 'tip', lifeUnit: 'arcHours' }])[0]?.changeAt // 8
 */
export function suggestedLimits(kinds: readonly { key: KindKey; lifeUnit: LifeUnit }[]): SuggestedLimit[] {
  return kinds.flatMap(({ key, lifeUnit }): SuggestedLimit[] => {
    const usual = tradeUsual(key, lifeUnit)
    const lookDays = LOOK_DAYS[key] ?? null
    if (usual === null && lookDays === null) return []
    return [
      {
        kindKey: key,
        changeAt: usual,
        low: usual === null ? null : usual / TRADE_SPREAD,
        high: usual === null ? null : usual * TRADE_SPREAD,
        unit: lifeUnit,
        lookDays,
      },
    ]
  })
}
