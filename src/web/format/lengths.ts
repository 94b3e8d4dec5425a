import { fineLength as fine, ruleLength as inRule, type LengthUnit } from '@core/units/length.ts'
import { MM_PER_FOOT } from '@core/units/convert.ts'
import { type Units } from './numbers.ts'

export const unitOf = (units: Units): LengthUnit => (units === 'us' ? 'in' : 'mm')

/** A short length in the shop's units, as a rule shows it. */
export const ruleLength = (mm: number, units: Units) => inRule(mm, unitOf(units))
/** What is read finer than a rule's marks, in the shop's units. */
export const fineLength = (mm: number, units: Units) => fine(mm, unitOf(units))
/** A long length as a tape shows it: "4.17 m", "13.7 ft". */
export const tapeLength = (mm: number, units: Units): string =>
  units === 'us' ? `${(mm / MM_PER_FOOT).toFixed(1)} ft` : `${(mm / 1000).toFixed(2)} m`
