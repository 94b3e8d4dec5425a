import { KG_PER_LB, MM_PER_FOOT, MM_PER_INCH } from '@core/units/convert.ts'

/** Amounts in a column whose heading says the unit: "arc_on_s", "Arc time [min]", "wire (ft)". */
const SECONDS: Record<string, number> = {
  ms: 0.001,
  ...{ s: 1, sec: 1, secs: 1, second: 1, seconds: 1 },
  ...{ min: 60, mins: 60, minute: 60, minutes: 60 },
  ...{ h: 3600, hr: 3600, hrs: 3600, hour: 3600, hours: 3600 },
}
type WireUnit = { kg: number } | { m: number }
const WIRE: Record<string, WireUnit> = {
  kg: { kg: 1 },
  g: { kg: 0.001 },
  ...{ lb: { kg: KG_PER_LB }, lbs: { kg: KG_PER_LB }, pounds: { kg: KG_PER_LB } },
  ...{ m: { m: 1 }, metres: { m: 1 }, meters: { m: 1 } },
  ...{ ft: { m: MM_PER_FOOT / 1000 }, feet: { m: MM_PER_FOOT / 1000 }, inches: { m: MM_PER_INCH / 1000 } },
}
/** The last word of a heading that is a unit: in "arc min per day" the minutes. */
function unitIn<U>(heading: string, units: Record<string, U>): U | null {
  const words = heading
    .toLowerCase()
    .split(/[^a-z]+/)
    .filter(Boolean)
  const word = words.findLast((w) => Object.hasOwn(units, w))
  return word === undefined ? null : (units[word] ?? null)
}

/** Hours of arc that one of the heading's unit makes; without a unit they are hours. @example hoursEach('arc_on_s') // 1/3600 */
export const hoursEach = (heading: string): number => (unitIn(heading, SECONDS) ?? 3600) / 3600

/**
 * Kilograms of wire that one of the heading's unit makes; without a unit they are kilograms. Lengths need to know what a metre weighs.
 * @returns null where a length can't be weighed
 */
export function kgEach(heading: string, gPerM: number | null): number | null {
  const unit = unitIn(heading, WIRE) ?? { kg: 1 }
  if ('kg' in unit) return unit.kg
  return gPerM === null ? null : (unit.m * gPerM) / 1000
}
