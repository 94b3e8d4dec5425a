import { inchToMm } from './convert.ts'

/** Sizes that wire is sold in. An inch size and the metric one beside it are two names of one wire on the floor. */
export const NOMINAL_MM = [0.6, 0.8, 0.9, 1.0, 1.2, 1.4, 1.6, 1.7, 2.0, 2.4] as const
const INCH_NAMES: Record<string, number> = {
  '.023': 0.6,
  '.024': 0.6,
  '.025': 0.6,
  '.030': 0.8,
  '.035': 0.9,
  '.040': 1.0,
  '.045': 1.2,
  '.047': 1.2,
  '.052': 1.4,
  '.055': 1.4,
  '.062': 1.6,
  '.063': 1.6,
  '.068': 1.7,
  '.078': 2.0,
  '.094': 2.4,
}
/** Boxes that round .045 the other way. */
const METRIC_NAMES: Record<string, number> = { '1.1': 1.2 }
const TOLERANCE_MM = 0.04

export type WireSize = { ok: true; diameterMm: number } | { ok: false; reason: string }

/**
 * Reads a wire size as people write it: `0.9 mm`, `0,9`, `.035`, `035`, `0.035 in`, `1.2`, `1.1`, `1/16`, `5/64`.
 * Under 0.2 without a unit, and any fraction, is inches; three digits that start with a nought are thousandths of an inch.
 * The answer is the nominal metric size within 0.04 mm; anything else is refused with the reason.
 * @example parseWireSize('035') // { ok: true, diameterMm: 0.9 }
 */
export function parseWireSize(text: string): WireSize {
  const plain = text.trim().toLowerCase().replace(',', '.')
  const fraction = /^(\d{1,2})\/(\d{1,2})\s*(?:in|inch|"|″)?$/.exec(plain)
  if (fraction) return nominal(inchToMm(Number(fraction[1]) / Number(fraction[2])), text)
  const match = /^(\d*\.?\d+)\s*(mm|in|inch|"|″)?$/.exec(plain)
  if (!match) return { ok: false, reason: `"${text}" is not a wire size; write 0.9 mm or .035` }
  const digits = match[1] ?? ''
  const unit = match[2]
  const isThousandths = unit !== 'mm' && /^0\d{2}$/.test(digits)
  const value = isThousandths ? Number(digits) / 1000 : Number(digits)
  const isInch = isThousandths || (unit !== undefined && unit !== 'mm') || (unit === undefined && value < 0.2)
  return nominal(isInch ? inchSize(value) : (METRIC_NAMES[String(value)] ?? value), text)
}

function inchSize(inch: number): number {
  return INCH_NAMES[inch.toFixed(3).replace(/^0/, '')] ?? inchToMm(inch)
}

function nominal(mm: number, text: string): WireSize {
  const nearest = NOMINAL_MM.reduce(
    (best, size) => (Math.abs(size - mm) < Math.abs(best - mm) ? size : best),
    NOMINAL_MM[0],
  )
  if (Math.abs(nearest - mm) > TOLERANCE_MM) {
    return { ok: false, reason: `"${text}" is no wire size we know; sizes run 0.6 to 2.4 mm (.023 to .094)` }
  }
  return { ok: true, diameterMm: nearest }
}

/** The inch name of a nominal metric size, as the trade writes it: `.035` for 0.9, a fraction from 1/16 up; undefined where there is none. */
export function inchName(diameterMm: number): string | undefined {
  const preferred: Record<string, string> = {
    '0.6': '.023',
    '0.8': '.030',
    '0.9': '.035',
    '1': '.040',
    '1.2': '.045',
    '1.4': '.052',
    '1.6': '1/16',
    '1.7': '.068',
    '2': '5/64',
    '2.4': '3/32',
  }
  return preferred[String(diameterMm)]
}
