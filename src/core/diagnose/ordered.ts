import { type SchoolOf } from '@core/houserule/schools.ts'
import { withLinerSchool, type LinerFirst, type LinerRuling } from './linerschool.ts'
import { planned } from './plan.ts'
import { type PlanAt } from './ratio.ts'
import { withSchool } from './schoolfirst.ts'

/** The shop's schools that a search goes by. */
export interface SearchSchools {
  first: string
  /** The hand or the equipment first (D26); left out: a glance at the equipment, then either. */
  blame?: SchoolOf<'D26'>
  liner: LinerRuling
}
export interface Ordered extends LinerFirst {
  /** Minutes that the shop's own first look costs over the order by sign. */
  schoolCost: number
}
/** What comes next, the shop's own way: by sign, with its first look in front, under its rule for liners. */
export function ordered(of: PlanAt, schools: SearchSchools): Ordered {
  const at = { ...of, blame: schools.blame ?? 'minute' }
  const first = withSchool(planned(at), at, schools.first)
  const made = withLinerSchool(first.plan, at, schools.liner)
  return { ...made, schoolCost: first.cost + made.cost }
}
