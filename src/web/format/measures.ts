import { type LifeUnit } from '@core/path/columns.ts'
import { type QuantityKind, readQuantity } from '@core/units/quantity.ts'
import {
  BAR_PER_PSI,
  inchToMm,
  ipmToMetrePerMin,
  kgToLb,
  L_PER_QUART,
  lbToKg,
  LPM_PER_CFH,
  M3_PER_FT3,
  metrePerMinToIpm,
  MM_PER_FOOT,
  mmToInch,
  N_PER_LBF,
} from '@core/units/convert.ts'
import { type Units } from './numbers.ts'

/** How a quantity is typed and shown in the shop's units; `toSi` and `fromSi` are each other's inverse. */
export interface Measure {
  word: string
  toSi: (value: number) => number
  fromSi: (value: number) => number
  /** What may be typed for it. */
  rule: { of: QuantityKind; units?: Units }
}
const same = (value: number) => value
/** Typed and kept alike. */
export const plainly = (word: string, of: QuantityKind): Measure => ({ word, toSi: same, fromSi: same, rule: { of } })
const METRIC = {
  mass: plainly('kg', 'mass'),
  cable: plainly('m', 'cable'),
  speed: plainly('m/min', 'speed'),
  force: plainly('N', 'force'),
  flow: plainly('L/min', 'flow'),
  rule: plainly('mm', 'rule'),
  pressure: plainly('bar', 'pressure'),
  gasVolume: plainly('m³', 'gasVolume'),
  volume: plainly('L', 'volume'),
}
const FOOT_M = MM_PER_FOOT / 1000
const US: Record<keyof typeof METRIC, Measure> = {
  mass: { word: 'lb', toSi: lbToKg, fromSi: kgToLb, rule: { of: 'mass', units: 'us' } },
  cable: {
    word: 'ft',
    toSi: (ft: number) => ft * FOOT_M,
    fromSi: (m: number) => m / FOOT_M,
    rule: { of: 'cable', units: 'us' },
  },
  speed: { word: 'in/min', toSi: ipmToMetrePerMin, fromSi: metrePerMinToIpm, rule: { of: 'speed', units: 'us' } },
  force: {
    word: 'lbf',
    toSi: (lbf: number) => lbf * N_PER_LBF,
    fromSi: (n: number) => n / N_PER_LBF,
    rule: { of: 'force', units: 'us' },
  },
  flow: {
    word: 'ft³/h',
    toSi: (cfh: number) => cfh * LPM_PER_CFH,
    fromSi: (lpm: number) => lpm / LPM_PER_CFH,
    rule: { of: 'flow', units: 'us' },
  },
  rule: { word: 'in', toSi: inchToMm, fromSi: mmToInch, rule: { of: 'rule', units: 'us' } },
  pressure: {
    word: 'psi',
    toSi: (psi: number) => psi * BAR_PER_PSI,
    fromSi: (bar: number) => bar / BAR_PER_PSI,
    rule: { of: 'pressure', units: 'us' },
  },
  gasVolume: {
    word: 'ft³',
    toSi: (ft3: number) => ft3 * M3_PER_FT3,
    fromSi: (m3: number) => m3 / M3_PER_FT3,
    rule: { of: 'gasVolume', units: 'us' },
  },
  volume: {
    word: 'qt',
    toSi: (qt: number) => qt * L_PER_QUART,
    fromSi: (l: number) => l / L_PER_QUART,
    rule: { of: 'volume', units: 'us' },
  },
}
export const measures = (units: Units): Record<keyof typeof METRIC, Measure> => (units === 'us' ? US : METRIC)

/** What was typed, in SI; null when nothing was, or it can't be read (`unread` says why). */
export function typed(text: string, measure: Measure): number | null {
  const read = readQuantity(text, measure.rule)
  return read.ok ? read.value : null
}
/** Why what was typed can't be read; null: it can. */
export function unread(text: string, measure: Measure): string | null {
  const read = readQuantity(text, measure.rule)
  return read.ok ? null : read.why
}

/** What stands in a field for an SI value: three figures at most after conversion. */
export function shown(value: number | null | undefined, measure: Measure): string {
  if (value === null || value === undefined) return ''
  return String(Number(measure.fromSi(value).toPrecision(measure.fromSi === same ? 12 : 3)))
}

const LIFE_QUANTITY: Partial<Record<LifeUnit, QuantityKind>> = { kg: 'mass', km: 'wireLength', arcHours: 'hours' }
/** How a life or limit of a kind is typed: by mass, by hours of arc, or counted. */
export const lifeQuantity = (unit: LifeUnit, units: Units) => ({ of: LIFE_QUANTITY[unit] ?? ('plain' as const), units })
