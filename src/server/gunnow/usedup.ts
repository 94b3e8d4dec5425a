import { isMeasured } from '@core/ledger/exposure.ts'
import { kindOfPosition, type KindKey, type LifeUnit } from '@core/path/columns.ts'
import { lengthTimes } from '@core/spools/bylength.ts'
import { type ShopKinds, type ShopRules } from '@server/shopmodel/model.ts'
import { type PositionRow } from './positions.ts'

/** How far a part of a loose gun or neck is on its way to the limit of the places it would go to. */
export interface WearHere {
  kindKey: KindKey
  unit: LifeUnit
  /** Done by it since it was fitted; null: nobody knows. */
  used: number | null
  /** Changed at this; null: no rule of the house or the trade says. */
  limit: number | null
  isSpent: boolean
}
/** Wear of what is on one position, by the rule of a class of places and, where it goes by length, with the wire that is on there. */
export function wearOf(
  row: PositionRow,
  shop: Pick<ShopKinds & ShopRules, 'kindByKey' | 'ruleFor'>,
  { classKey, wire }: { classKey: string; wire: { diameterMm: number; densityGPerCm3: number } | null },
): WearHere | null {
  const kind = shop.kindByKey.get(kindOfPosition(row.position))
  if (!kind) return null
  const unit = kind.lifeUnit
  const done = isMeasured(unit) ? (row.sinceFitted?.[unit]?.amount ?? null) : row[unit]
  const used = row.fittedMs === null ? null : done
  const told = shop.ruleFor(kind.key, classKey)?.changeLimit ?? null
  const limit = told === null ? null : told * lengthTimes(kind, wire)
  return { kindKey: kind.key, unit, used, limit, isSpent: used !== null && limit !== null && used >= limit }
}
