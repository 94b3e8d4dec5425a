import { type KindKey } from '@core/path/columns.ts'
import { type WearAndChance } from '@core/life/renewalgrid.ts'
import { bestRule, valueLost, type OneChange, type RuleCosts } from '@core/life/rulecost.ts'
import { type LifeAnswer } from '@contract/life.ts'
import { type ShopModel } from '@server/shopmodel/model.ts'
import { prices } from '@server/shopmodel/prices.ts'
import { keptKey, type KeptFits } from '@server/lifekept/kept.ts'

/** What is off anyway when one of these is out; a guess of how much of its minutes that saves. */
const OPEN_WITH: Partial<Record<KindKey, readonly (readonly [also: KindKey, saved: number])[]>> = {
  tip: [['nozzle', 0.8]],
  nozzle: [
    ['tip', 0.5],
    ['insulator', 0.6],
  ],
  diffuser: [
    ['tip', 0.9],
    ['nozzle', 0.9],
    ['insulator', 0.8],
  ],
  liner: [
    ['tip', 0.9],
    ['nozzle', 0.9],
    ['diffuser', 0.9],
    ['insulator', 0.8],
    ['orings', 0.8],
    ['outlet', 0.4],
  ],
  neck: [
    ['tip', 0.9],
    ['nozzle', 0.9],
    ['diffuser', 0.9],
    ['insulator', 0.8],
  ],
  rolls: [
    ['inlet', 0.5],
    ['outlet', 0.5],
  ],
}

export type Alongside = LifeAnswer['alongside'][number]
/** Worked out once for each set of fits: the same are asked for by every gun of a class. */
const known = new WeakMap<KeptFits, Map<string, Alongside[]>>()

/**
 * While this one is being changed: of what share of its usual life on another part, off anyway, is worth changing too. Worth it from the age at which what is
 * left of it (V, the value lost against a new one) costs more than part and the minutes that are left of the job; null where no age is.
 */
export function alongsideOf(
  fits: KeptFits,
  shop: ShopModel,
  at: { kindKey: KindKey; classKey: string | null },
): Alongside[] {
  const key = `${at.kindKey} ${at.classKey ?? ''}`
  const made = known.get(fits) ?? new Map<string, Alongside[]>()
  known.set(fits, made)
  const lines = made.get(key) ?? (at.classKey ? reckoned(fits, shop, { ...at, classKey: at.classKey }) : [])
  made.set(key, lines)
  return lines
}
function reckoned(fits: KeptFits, shop: ShopModel, at: { kindKey: KindKey; classKey: string }): Alongside[] {
  const priceOf = prices(shop)
  const place = shop.classes.get(at.classKey)
  const stop = (place?.stopMinorPerHour ?? 0) / 60
  const labour = (place?.labourMinorPerHour ?? 0) / 60
  return (OPEN_WITH[at.kindKey] ?? []).flatMap(([key, saved]) => {
    const [kind, fit] = [shop.kindByKey.get(key), fits.get(keptKey(key, at.classKey))]
    if (!kind || !fit) return []
    const min = shop.changeMinOf(key, null)
    const planned: OneChange = {
      partMinor: priceOf(null, key) ?? 0,
      handsMin: min,
      handsMinor: min * labour,
      standMin: 0,
      standMinor: 0,
      collateralMinor: 0,
    }
    const late = { ...planned, standMin: fit.extraMin, standMinor: fit.extraMin * stop }
    const costs: RuleCosts = { planned, worn: late, chance: late, lookMin: 0, lookMinor: 0 }
    const nowMinor = planned.partMinor + (1 - saved) * min * labour
    const share = ageWorth(fit.life, costs, nowMinor)
    return [
      { kind: key, name: kind.name, shareOfUsual: share === null ? 0 : share / fit.median, isWorth: share !== null },
    ]
  })
}
const STEPS = 40
function ageWorth(life: WearAndChance, costs: RuleCosts, nowMinor: number): number | null {
  const best = bestRule([life], costs)
  for (let i = 1; i <= STEPS; i++) {
    const age = (2 * life.scale * i) / STEPS
    if (valueLost(life, costs, { age, T: best.T, rate: best.cost }) > nowMinor) return age
  }
  return null
}
