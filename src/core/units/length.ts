import { MM_PER_INCH } from './convert.ts'
import { readQuantity } from './quantity.ts'

/** What a length read off a rule or tape was typed in. */
export type LengthUnit = 'mm' | 'in'
export type ReadLength = { ok: true; mm: number } | { ok: false; reason: string }

/**
 * A length as it is typed at the bench, in mm: "18", "18.5", "1,8 cm", "3/4", "1 3/16 in". Without a unit it is in the shop's own.
 * @example readLength('3/4', 'in') // { ok: true, mm: 19.05 }
 */
export function readLength(text: string, unit: LengthUnit): ReadLength {
  const read = readQuantity(text, { of: 'rule', units: unit === 'in' ? 'us' : 'metric' })
  return read.ok && read.value !== null
    ? { ok: true, mm: read.value }
    : { ok: false, reason: 'that is no length: write 18, 18.5 or 3/4' }
}

const SIXTEENTHS = 16
/**
 * A length too small for a rule's marks: to a tenth of a millimetre, or to a hundredth of an inch, under that to a thousandth.
 * @example fineLength(0.5, 'in') // '0.02 in'
 */
export function fineLength(mm: number, unit: LengthUnit): string {
  if (unit === 'mm') return `${Math.round(mm * 10) / 10} mm`
  const inches = mm / MM_PER_INCH
  return `${Number(inches.toFixed(Math.abs(inches) < 0.0095 ? 3 : 2))} in`
}

/**
 * A short length as a rule shows it: to a tenth of a millimetre, or to a sixteenth of an inch; what lies under its first mark is no nought.
 * @example ruleLength(18, 'in') // '11/16 in'
 */
export function ruleLength(mm: number, unit: LengthUnit): string {
  if (unit === 'mm') return fineLength(mm, unit)
  const all = Math.round((mm / MM_PER_INCH) * SIXTEENTHS)
  if (all === 0 && mm > 0) return fineLength(mm, unit)
  const whole = Math.floor(all / SIXTEENTHS)
  let [over, under] = [all - whole * SIXTEENTHS, SIXTEENTHS]
  while (over > 0 && over % 2 === 0) [over, under] = [over / 2, under / 2]
  const part = over === 0 ? '' : `${over}/${under}`
  return `${[whole > 0 || !part ? String(whole) : '', part].filter(Boolean).join(' ')} in`
}

/**
 * A short length between two bounds, both in mm: "1 to 2 mm", "1/8 to 1/4 in"; one, where they are the same on that rule.
 * @example ruleSpan([1, 2], 'in') // '1/16 in'
 */
export function ruleSpan([fromMm, toMm]: readonly [number, number], unit: LengthUnit): string {
  const [from, to] = [ruleLength(fromMm, unit), ruleLength(toMm, unit)]
  return from === to ? to : `${from.replace(` ${unit}`, '')} to ${to}`
}
const QUARTERS = 4
/**
 * A length nobody measures: to the millimetre, or to a quarter of an inch.
 * @example roughLength(75, 'in') // '3 in'
 */
export const roughLength = (mm: number, unit: LengthUnit): string =>
  unit === 'mm'
    ? `${Math.round(mm)} mm`
    : ruleLength((Math.round((mm / MM_PER_INCH) * QUARTERS) / QUARTERS) * MM_PER_INCH, 'in')

export interface Slip {
  mm: number
  /** What was probably meant: "cm", "in", "m", "mm", or a minus that is none. */
  as: 'cm' | 'in' | 'm' | 'mm' | 'minus'
}
/**
 * What a length outside all sense was probably meant as: the first of the usual slips (a minus, centimetres, inches, metres, or the
 * other way round) that lands within what is usual there. Null: none does, or it is within already. Bounds in mm, 0 ≤ from < to.
 * @example lengthSlip(1.8, { fromMm: 5, toMm: 60 }) // { mm: 18, as: 'cm' }
 */
export function lengthSlip(mm: number, usual: { fromMm: number; toMm: number }): Slip | null {
  const { fromMm, toMm } = usual
  if (!(fromMm >= 0 && toMm > fromMm))
    throw new RangeError(`lengthSlip: expected 0 ≤ from < to, got ${fromMm}, ${toMm}`)
  const isIn = (x: number) => x >= fromMm && x <= toMm
  if (!Number.isFinite(mm) || isIn(mm)) return null
  const tries: [Slip['as'], number][] = [
    ['minus', -mm],
    ['cm', mm * 10],
    ['in', mm * MM_PER_INCH],
    ['m', mm * 1000],
    ['mm', mm / 10],
    ['mm', mm / MM_PER_INCH],
    ['mm', mm / 1000],
  ]
  for (const [as, value] of tries) if (isIn(value)) return { mm: value, as }
  return null
}
