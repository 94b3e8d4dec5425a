import { compareSchools, type Schools } from '@core/life/chooserule.ts'
import { ninety, type LifeFit } from '@core/life/fitted.ts'
import { type PartId } from '@core/ids/id.ts'
import { lengthFromMassM } from '@core/spools/wire.ts'
import { isMeasured } from '@core/ledger/exposure.ts'
import { costOfAge, totalOf, type CostRate, type OneChange } from '@core/life/rulecost.ts'
import { type LifeAnswer } from '@contract/life.ts'
import { type headNow } from '@server/db/schema.ts'
import { type KindRow, type ShopModel, type StationRow } from '@server/shopmodel/model.ts'
import { type CostsHere } from './costs.ts'
import { type signsHere } from './linersigns.ts'

export type MoneyAnswer = NonNullable<LifeAnswer['money']>
export interface MoneyAt {
  shop: ShopModel
  kind: KindRow
  places: readonly StationRow[]
  heads: ReadonlyMap<string, typeof headNow.$inferSelect>
  fixed: number | null
  /** Of liners: what signs did. */
  signs?: ReturnType<typeof signsHere> | null
}
const SHIFT_H = 8
const WEEK_H = 40
const BLADE_POINTS = 40

/** How much of its unit a part gets through in an hour of arc; null where that cannot be said. */
export function unitsPerArcHour(at: Pick<MoneyAt, 'shop' | 'kind' | 'places'>): number | null {
  if (at.kind.lifeUnit === 'arcHours') return 1
  const { lifeUnit } = at.kind
  if (lifeUnit !== 'kg' && lifeUnit !== 'km') return null
  const rates = at.places.flatMap((p) => {
    const kg = at.shop.clockSetup(p.id).kgPerArcHour
    const wire = at.shop.wires.get(at.shop.built(p.id).wireId ?? '')
    if (lifeUnit === 'kg' || kg === null) return kg ?? []
    return wire ? lengthFromMassM(wire, kg) / 1000 : []
  })
  return rates.length > 0 ? rates.reduce((a, b) => a + b, 0) / rates.length : null
}
/** Use in an hour of work, mean over the places. */
function perWorkedHour({ kind, places, heads }: MoneyAt): number | null {
  const unit = kind.lifeUnit
  if (!isMeasured(unit)) return null
  const rates = places.flatMap((p) => heads.get(p.id)?.runOn[unit]?.perWorkedHour ?? [])
  const mean = rates.reduce((a, b) => a + b, 0) / Math.max(1, rates.length)
  return mean > 0 ? mean : null
}

export function schoolsOf(fit: LifeFit, here: CostsHere, at: MoneyAt): Schools {
  const rate = perWorkedHour(at)
  return compareSchools(fit.life, fit.beliefs, {
    costs: here.costs,
    standCv: here.standCv,
    // Where the shop has no limit: every Friday.
    fixed: at.fixed ?? (rate === null ? null : rate * WEEK_H),
    lookEvery: rate === null ? null : rate * SHIFT_H,
    signs: at.signs ?? null,
  })
}

/** The schools in money for 100 arc hours, and what each place of the blade costs. */
export function moneyOf(fit: LifeFit, schools: Schools, { here, at }: { here: CostsHere; at: MoneyAt }): MoneyAnswer {
  const factor = unitsPerArcHour(at)
  const per = 100 * (factor ?? 1)
  const { planned, worn, chance } = here.costs
  return {
    per: factor === null ? 'unit' : 'arcHours',
    lines: schools.lines.map((l) => ({ ...l, cost: times(l.cost, per) })),
    advised: schools.advised,
    flat: schools.best.flat,
    blade: bladeOf(fit, here, per),
    planned: { minor: totalOf(planned), min: planned.handsMin },
    late: { minor: totalOf(worn), standMin: worn.standMin, collateralMinor: worn.collateralMinor },
    byChance: { minor: totalOf(chance), standMin: chance.standMin },
    stops: { n: here.stopped, of: here.of, isGuess: here.isGuess },
    unpriced: here.unpriced,
  }
}
/**
 * What 100 arc hours of one kind of it cost, changed as the rule has it or when it goes: its own price and life, hands and standing as here. The band holds
 * 9 in 10 of the lives that may be the true one. Null where its price is not said.
 */
export function groupCost(
  fit: LifeFit,
  told: readonly { life: { partId: PartId | null } }[],
  { here, at }: { here: CostsHere; at: MoneyAt },
): LifeAnswer['groups'][number]['cost'] {
  const priced = told.flatMap((t) => (t.life.partId ? (at.shop.partById.get(t.life.partId)?.priceMinor ?? []) : []))
  if (priced.length === 0) return null
  const eachMinor = priced.reduce((a, b) => a + b, 0) / priced.length
  const own = (c: OneChange): OneChange => ({ ...c, partMinor: eachMinor })
  const { planned, worn, chance } = here.costs
  const costs = { ...here.costs, planned: own(planned), worn: own(worn), chance: own(chance) }
  const factor = unitsPerArcHour(at)
  const per = 100 * (factor ?? 1)
  const of = (life: LifeFit['life']) => costOfAge(life, costs, at.fixed).total * per
  return { eachMinor, total: of(fit.life), ...ninety(fit.beliefs.map(of)), per: factor === null ? 'unit' : 'arcHours' }
}
const times = (rate: CostRate, by: number): CostRate =>
  Object.fromEntries(Object.entries(rate).map(([k, v]: [string, number]) => [k, v * by])) as unknown as CostRate

/** From early to far later than any rule. */
function bladeOf(fit: LifeFit, { costs }: CostsHere, per: number): MoneyAnswer['blade'] {
  const [from, to] = [fit.median.value * 0.1, fit.median.value * 3]
  return Array.from({ length: BLADE_POINTS }, (_, i) => {
    const at = from * (to / from) ** (i / (BLADE_POINTS - 1))
    const rate = times(costOfAge(fit.life, costs, at), per)
    const { total, handsMin, standMin, changes, worn } = rate
    return { at, total, handsMin, standMin, parts: changes, worn }
  })
}
