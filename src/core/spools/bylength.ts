import { type KindKey, type LifeUnit } from '@core/path/columns.ts'
import { kgAsLong, lengthFromMassM, REFERENCE_WIRE } from './wire.ts'

type Wire = { diameterMm: number; densityGPerCm3: number } | null
/** Kinds whose wear goes by the length of wire through them, whatever it weighs (P161). */
const BY_LENGTH: ReadonlySet<KindKey> = new Set<KindKey>(['liner', 'jump'])
interface Kind {
  key: KindKey
  lifeUnit: LifeUnit
}
/** By how much a number of kg of such a kind is another one with this wire: 1 for what does not go by length, or where nobody knows the wire. */
export const lengthTimes = ({ key, lifeUnit }: Kind, wire: Wire): number =>
  BY_LENGTH.has(key) && lifeUnit === 'kg' && wire ? kgAsLong(wire) : 1
/** What a limit in kg of it is in km of the wire that is on, to a tenth; null: it does not go by length. */
export const limitKm = (limitKg: number, { key, lifeUnit }: Kind, wire: Wire): number | null =>
  BY_LENGTH.has(key) && lifeUnit === 'kg' && wire ? Math.round(lengthFromMassM(wire, limitKg) / 100) / 10 : null

/** Kilometres of the wire that lives in kg are said of, in a kilogram. */
const KM_PER_KG = lengthFromMassM(REFERENCE_WIRE, 1) / 1000
/**
 * A life or limit in another unit: kg and km of the wire that lives in kg are said of; null: it can't be said.
 * @example inUnit(900, 'kg', 'km') // 146
 */
export function inUnit(value: number, from: LifeUnit, to: LifeUnit): number | null {
  if (from === to) return value
  if (from === 'kg' && to === 'km') return value * KM_PER_KG
  return from === 'km' && to === 'kg' ? value / KM_PER_KG : null
}
