import { type QuantityKind } from '@core/units/quantity.ts'
import {
  inchToMm,
  ipmToMetrePerMin,
  kgToLb,
  lbToKg,
  LPM_PER_CFH,
  metrePerMinToIpm,
  MM_PER_FOOT,
  mmToInch,
  N_PER_LBF,
} from '@core/units/convert.ts'
import { parseNumber } from '@core/units/number.ts'
import { type Units } from './numbers.ts'

/** How a quantity is typed and shown in the shop's units; `toSi` and `fromSi` are each other's inverse. */
export interface Measure {
  word: string
  toSi: (value: number) => number
  fromSi: (value: number) => number
}
const same = (value: number) => value
const METRIC = {
  mass: { word: 'kg', toSi: same, fromSi: same },
  cable: { word: 'm', toSi: same, fromSi: same },
  speed: { word: 'm/min', toSi: same, fromSi: same },
  force: { word: 'N', toSi: same, fromSi: same },
  flow: { word: 'L/min', toSi: same, fromSi: same },
  rule: { word: 'mm', toSi: same, fromSi: same },
}
const FOOT_M = MM_PER_FOOT / 1000
const US = {
  mass: { word: 'lb', toSi: lbToKg, fromSi: kgToLb },
  cable: { word: 'ft', toSi: (ft: number) => ft * FOOT_M, fromSi: (m: number) => m / FOOT_M },
  speed: { word: 'in/min', toSi: ipmToMetrePerMin, fromSi: metrePerMinToIpm },
  force: { word: 'lbf', toSi: (lbf: number) => lbf * N_PER_LBF, fromSi: (n: number) => n / N_PER_LBF },
  flow: { word: 'ft³/h', toSi: (cfh: number) => cfh * LPM_PER_CFH, fromSi: (lpm: number) => lpm / LPM_PER_CFH },
  rule: { word: 'in', toSi: inchToMm, fromSi: mmToInch },
}
export const measures = (units: Units): Record<'mass' | 'cable' | 'speed' | 'force' | 'flow' | 'rule', Measure> =>
  units === 'us' ? US : METRIC

/** What was typed, in SI; null when nothing or no number was. */
export function typed(text: string, measure: Measure): number | null {
  const value = text.trim() ? parseNumber(text) : null
  return value === null ? null : measure.toSi(value)
}

/** What stands in a field for an SI value: three figures at most after conversion. */
export function shown(value: number | null | undefined, measure: Measure): string {
  if (value === null || value === undefined) return ''
  return String(Number(measure.fromSi(value).toPrecision(measure.fromSi === same ? 12 : 3)))
}

const LIFE_QUANTITY: Partial<Record<string, QuantityKind>> = { kg: 'mass', arcHours: 'hours' }
/** How a life or limit of a kind is typed: by mass, by hours of arc, or counted. */
export const lifeQuantity = (unit: string, units: Units) => ({ of: LIFE_QUANTITY[unit] ?? ('plain' as const), units })
