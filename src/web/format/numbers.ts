import { type LifeUnit } from '@core/path/columns.ts'
import {
  kgToLb,
  KM_PER_MILE,
  L_PER_QUART,
  LPM_PER_CFH,
  metrePerMinToIpm,
  MM_PER_FOOT,
  N_PER_LBF,
} from '@core/units/convert.ts'
import { inchName } from '@core/units/wiresize.ts'

export type Units = 'metric' | 'us'

/** At most two figures, as people say it: 5.8, 0.42, 310, 1200. */
export function twoFigures(value: number): string {
  if (!Number.isFinite(value)) return '–'
  const size = Math.abs(value)
  if (size === 0) return '0'
  if (size < 10) return trimZero(value.toFixed(size < 1 ? 2 : 1))
  const step = 10 ** (Math.floor(Math.log10(size)) - 1)
  return String(Math.round(value / step) * step)
}
const trimZero = (text: string) => (text.includes('.') ? text.replace(/\.?0+$/, '') : text)

const UNIT_WORD: Record<LifeUnit, string> = {
  arcHours: 'h',
  kg: 'kg',
  km: 'km',
  starts: 'starts',
  matings: 'times seated',
  spools: 'spools',
  cleanings: 'cleanings',
}

/** What a life is counted in, as a thing. */
export const UNIT_NAME: Record<LifeUnit, string> = {
  arcHours: 'arc hours',
  kg: 'weight of wire',
  km: 'length of wire',
  starts: 'starts',
  matings: 'times seated',
  spools: 'spools',
  cleanings: 'cleanings',
}

/** A life or limit in its kind's unit: "5.8 h", "310 kg" or "680 lb". */
export function amount(value: number, unit: LifeUnit, units: Units): string {
  if (unit === 'kg' && units === 'us') return `${twoFigures(kgToLb(value))} lb`
  if (unit === 'km' && units === 'us') return `${twoFigures(value / KM_PER_MILE)} mi`
  return `${twoFigures(value)} ${UNIT_WORD[unit]}`
}
/** Much wire, as people say it: "9.4 t", "310 kg", in a US shop pounds. */
export const bulk = (kg: number, units: Units): string =>
  units === 'metric' && kg >= 1000 ? `${twoFigures(kg / 1000)} t` : amount(kg, 'kg', units)
/** So many for so much of a unit (100 kg), in a US shop for as many pounds or miles. */
export function forUnit(value: number, unit: LifeUnit, units: Units): number {
  if (unit === 'kg' && units === 'us') return value / kgToLb(1)
  return unit === 'km' && units === 'us' ? value * KM_PER_MILE : value
}
export const unitWord = (unit: LifeUnit, units: Units) =>
  units === 'us' && unit in US_WORD ? (US_WORD[unit] ?? '') : unit === 'arcHours' ? 'arc hours' : UNIT_WORD[unit]
const US_WORD: Partial<Record<LifeUnit, string>> = { kg: 'lb', km: 'mi' }

export const wireSize = (diameterMm: number, units: Units) =>
  units === 'us' ? (inchName(diameterMm) ?? `${diameterMm} mm`) : `${diameterMm.toFixed(1)} mm`
export const cable = (metres: number, units: Units) =>
  units === 'us' ? `${Math.round((metres * 2000) / MM_PER_FOOT) / 2} ft` : `${metres} m`
export const wireSpeed = (speed: number, units: Units) =>
  units === 'us' ? `${twoFigures(metrePerMinToIpm(speed))} in/min` : `${speed} m/min`

export const force = (forceN: number, units: Units) =>
  units === 'us' ? `${twoFigures(forceN / N_PER_LBF)} lbf` : `${twoFigures(forceN)} N`
/** A liquid, litres. */
export const volume = (litres: number, units: Units) =>
  units === 'us' ? `${twoFigures(litres / L_PER_QUART)} qt` : `${twoFigures(litres)} L`
export const flow = (flowLpm: number, units: Units) =>
  units === 'us' ? `${twoFigures(flowLpm / LPM_PER_CFH)} ft³/h` : `${twoFigures(flowLpm)} L/min`

export function minutes(value: number): string {
  const whole = Math.max(1, Math.round(value))
  return whole < 120 ? `${whole} min` : `${twoFigures(whole / 60)} h`
}

export function money(minor: number, currency: string): string {
  return new Intl.NumberFormat('en', {
    style: 'currency',
    currency,
    maximumFractionDigits: minor >= 10_000 ? 0 : 2,
  }).format(minor / 100)
}

/** Money that is an estimate: two figures, no cents. */
export function aboutMoney(minor: number, currency: string): string {
  const whole = Number(minor.toPrecision(2)) / 100
  return new Intl.NumberFormat('en', {
    style: 'currency',
    currency,
    minimumFractionDigits: 0,
    maximumFractionDigits: whole >= 10 ? 0 : 1,
  }).format(whole)
}
