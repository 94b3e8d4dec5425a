import {
  BAR_PER_PSI,
  KG_PER_LB,
  KM_PER_MILE,
  L_PER_QUART,
  LPM_PER_CFH,
  M3_PER_FT3,
  MM_PER_FOOT,
  MM_PER_INCH,
  N_PER_LBF,
} from './convert.ts'
import { parseNumber } from './number.ts'

/** Which units a shop writes in. */
export type UnitWorld = 'metric' | 'us'

interface Dimension {
  /** The unit of a number that stands alone, by the shop's world. */
  own: Readonly<Record<UnitWorld, string>>
  /** Every unit it may be written in, as the kept one's multiple. */
  units: Readonly<Record<string, number>>
}
const both = (unit: string) => ({ metric: unit, us: unit })
const M_PER_FOOT = MM_PER_FOOT / 1000
const INCHES = { in: 1, inch: 1, inches: 1, '"': 1, '”': 1, '″': 1 }
const FEET = { ft: 1, foot: 1, feet: 1, "'": 1, '’': 1 }
const times = <K extends string>(units: Record<K, number>, by: number) =>
  Object.fromEntries(Object.entries<number>(units).map(([name, n]) => [name, n * by]))

/** What is typed in, and kept: kg, m, mm, m/min, N, L/min, h, min, days, a fraction of one, pieces, minor units of money. */
const DIMENSIONS = {
  mass: {
    own: { metric: 'kg', us: 'lb' },
    units: { kg: 1, g: 0.001, lb: KG_PER_LB, lbs: KG_PER_LB, oz: KG_PER_LB / 16 },
  },
  grams: {
    own: both('g'),
    units: { g: 1, kg: 1000, oz: (1000 * KG_PER_LB) / 16, lb: 1000 * KG_PER_LB, lbs: 1000 * KG_PER_LB },
  },
  cable: {
    own: { metric: 'm', us: 'ft' },
    units: { m: 1, cm: 0.01, mm: 0.001, ...times(FEET, M_PER_FOOT), ...times(INCHES, MM_PER_INCH / 1000) },
  },
  wireLength: {
    own: { metric: 'km', us: 'mi' },
    units: {
      ...{ km: 1, m: 0.001, mi: KM_PER_MILE, mile: KM_PER_MILE, miles: KM_PER_MILE },
      ...times(FEET, M_PER_FOOT / 1000),
    },
  },
  rule: {
    own: { metric: 'mm', us: 'in' },
    units: { mm: 1, cm: 10, m: 1000, ...times(INCHES, MM_PER_INCH), ...times(FEET, MM_PER_FOOT) },
  },
  speed: {
    own: { metric: 'm/min', us: 'in/min' },
    units: { 'm/min': 1, 'mm/s': 0.06, 'in/min': MM_PER_INCH / 1000, ipm: MM_PER_INCH / 1000, 'ft/min': M_PER_FOOT },
  },
  force: {
    own: { metric: 'N', us: 'lbf' },
    units: { n: 1, kgf: 9.80665, kg: 9.80665, lbf: N_PER_LBF, lb: N_PER_LBF, lbs: N_PER_LBF },
  },
  flow: {
    own: { metric: 'L/min', us: 'ft³/h' },
    units: { 'l/min': 1, lpm: 1, l: 1, 'ft³/h': LPM_PER_CFH, 'ft3/h': LPM_PER_CFH, cfh: LPM_PER_CFH },
  },
  pressure: { own: { metric: 'bar', us: 'psi' }, units: { bar: 1, psi: BAR_PER_PSI, kpa: 0.01, mpa: 10 } },
  gasVolume: {
    own: { metric: 'm³', us: 'ft³' },
    units: { 'm³': 1, m3: 1, l: 0.001, 'ft³': M3_PER_FT3, ft3: M3_PER_FT3, cf: M3_PER_FT3, cuft: M3_PER_FT3 },
  },
  volume: {
    own: { metric: 'L', us: 'qt' },
    units: {
      l: 1,
      litre: 1,
      litres: 1,
      liter: 1,
      liters: 1,
      ml: 0.001,
      qt: L_PER_QUART,
      gal: 4 * L_PER_QUART,
      oz: L_PER_QUART / 32,
    },
  },
  hours: { own: both('h'), units: { h: 1, hr: 1, hrs: 1, hour: 1, hours: 1, min: 1 / 60 } },
  seconds: { own: both('s'), units: { s: 1, sec: 1, secs: 1, min: 60, mins: 60 } },
  minutes: { own: both('min'), units: { min: 1, mins: 1, minutes: 1, h: 60, s: 1 / 60, sec: 1 / 60 } },
  days: { own: both('days'), units: { d: 1, day: 1, days: 1, week: 7, weeks: 7, wk: 7 } },
  volts: { own: both('V'), units: { v: 1, volt: 1, volts: 1 } },
  marks: { own: both('marks'), units: { mark: 1, marks: 1 } },
  amps: { own: both('A'), units: { a: 1, amp: 1, amps: 1 } },
  share: { own: both('%'), units: { '%': 0.01 } },
  count: { own: both(''), units: { '': 1, pc: 1, pcs: 1, pieces: 1, x: 1 } },
  plain: { own: both(''), units: { '': 1 } },
  money: { own: both(''), units: { '': 100 } },
  moneyPerMass: {
    own: { metric: 'a kg', us: 'a lb' },
    units: {
      'a kg': 100,
      'per kg': 100,
      '/kg': 100,
      'a lb': 100 / KG_PER_LB,
      'per lb': 100 / KG_PER_LB,
      '/lb': 100 / KG_PER_LB,
    },
  },
} as const satisfies Record<string, Dimension>
export type QuantityKind = keyof typeof DIMENSIONS

/** What may be typed in a field. Bounds are in the kept unit. */
export interface QuantityRule {
  of: QuantityKind
  units?: UnitWorld
  /** It may not be left empty. */
  isNeeded?: boolean
  isWhole?: boolean
  above?: number
  from?: number
  to?: number
}
export type ReadQuantity<T = number | null> = { ok: true; value: T } | { ok: false; why: string }

const PARTS: Record<string, string> = {
  '½': '1/2',
  '¼': '1/4',
  '¾': '3/4',
  '⅛': '1/8',
  '⅜': '3/8',
  '⅝': '5/8',
  '⅞': '7/8',
}
const FRACTION = /^(-)?(?:(\d+)[ -]+)?(\d+)\s*\/\s*(\d+)$/
const THOUSANDS = /^-?\d{1,3}(,\d{3})+(\.\d+)?$/
const SHAPE = /^([-−+]?[\d.,\s'’/-]+?)\s*([^\d\s.,/'’][^\d]*|['’]|ft3\/h|\/(?:kg|lb))?$/iu

/** Money says whose it is: a sign, a code, or what is written behind a price. */
const CURRENCY = /^(\p{Sc}|[A-Z]{3}|kr\.?|zł|Kč|Ft|lei)$/u

function numberIn(text: string, world: UnitWorld): number | null {
  const fraction = FRACTION.exec(text)
  if (fraction) {
    const [, minus, whole = '0', over = '0', under = '0'] = fraction
    const value = Number(under) === 0 ? null : Number(whole) + Number(over) / Number(under)
    return value === null ? null : minus ? -value : value
  }
  if (world === 'us' && THOUSANDS.test(text)) return Number(text.replaceAll(',', ''))
  return parseNumber(text)
}

/** The unit a number that stands alone is in. @example ownUnit({ of: 'mass', units: 'us' }) // 'lb' */
export const ownUnit = ({ of, units = 'metric' }: Pick<QuantityRule, 'of' | 'units'>): string =>
  DIMENSIONS[of].own[units]
const unitsOf = (of: QuantityKind): Readonly<Record<string, number>> => DIMENSIONS[of].units
const perOwn = (rule: Pick<QuantityRule, 'of' | 'units'>): number => unitsOf(rule.of)[ownUnit(rule).toLowerCase()] ?? 1

/**
 * A quantity as it is typed at a bench: `15`, `3,2`, `1 1/2 in`, `.035`, `33 lb` in a shop of kilograms. Without a unit it is in the shop's
 * own; with one that is known it is converted; with any other it is refused, as is what is no number. Nothing typed is null, where that is
 * allowed. The value is in the kept unit of its kind.
 * @example readQuantity('33 lb', { of: 'mass' }) // { ok: true, value: 14.97 }
 */
export function readQuantity(text: string, rule: QuantityRule): ReadQuantity {
  const said = text.trim()
  if (said === '') return rule.isNeeded ? { ok: false, why: `Write ${anExample(rule)}.` } : { ok: true, value: null }
  const isMoney = rule.of === 'money' || rule.of === 'moneyPerMass'
  const spelt = isMoney ? said.replace(/^(\p{Sc}|[A-Z]{3})\s*/u, '') : withoutGlyphs(said)
  const [, digits = '', unit = ''] = SHAPE.exec(spelt) ?? []
  const number = digits ? numberIn(digits.trim().replace('−', '-').replace(/^\+/, ''), rule.units ?? 'metric') : null
  if (number === null) return { ok: false, why: `"${said}" can’t be read: write ${anExample(rule)}.` }
  const isOwn = unit === '' || (isMoney && CURRENCY.test(unit.trim()))
  const factor = isOwn ? perOwn(rule) : unitsOf(rule.of)[unit.trim().toLowerCase()]
  if (factor === undefined)
    return { ok: false, why: `"${said}" can’t be read: ${unit.trim()} is no unit for this; write ${anExample(rule)}.` }
  return within(isMoney ? Math.round(number * factor) : number * factor, rule)
}
const withoutGlyphs = (text: string) =>
  text.replace(/\s*([½¼¾⅛⅜⅝⅞])/gu, (_, glyph: string) => ` ${PARTS[glyph] ?? glyph}`).trim()

const EXAMPLE: Partial<Record<QuantityKind, string>> = {
  share: '20',
  money: '4.50',
  moneyPerMass: '4.50',
  days: '7',
  minutes: '10',
  amps: '180',
}
const anExample = ({ of, units, isWhole }: QuantityRule): string => {
  const unit = ownUnit({ of, ...(units ? { units } : {}) })
  const number = EXAMPLE[of] ?? (isWhole || of === 'count' ? '12' : unit === 'in' ? '3/4' : '1.5')
  return `a number like ${[number, unit].filter(Boolean).join(' ')}`
}

/** A kept value in the shop's own unit, as a bound says it. */
const bound = (value: number, rule: QuantityRule): string =>
  [String(Number((value / perOwn(rule)).toPrecision(3))), ownUnit(rule)].filter(Boolean).join(' ')

function within(value: number, rule: QuantityRule): ReadQuantity {
  const { above, from, to } = rule
  const isWhole = rule.isWhole ?? rule.of === 'count'
  if (isWhole && !Number.isInteger(value)) return { ok: false, why: 'Write a whole number.' }
  const isIn =
    (above === undefined || value > above) && (from === undefined || value >= from) && (to === undefined || value <= to)
  return isIn ? { ok: true, value } : { ok: false, why: boundsWords(rule) }
}
function boundsWords(rule: QuantityRule): string {
  const { above, from, to } = rule
  const low = above ?? from
  if (low === undefined) return `At most ${bound(to ?? Infinity, rule)}.`
  const least = above === undefined ? `at least ${bound(low, rule)}` : `more than ${bound(low, rule)}`
  return to === undefined ? `It must be ${least}.` : `It must be ${least} and at most ${bound(to, rule)}.`
}

/** What stands in a field for a kept value: three figures after a conversion, as it is otherwise. @example shownQuantity(15, { of: 'mass' }) // '15' */
export function shownQuantity(value: number | null | undefined, rule: Pick<QuantityRule, 'of' | 'units'>): string {
  if (value === null || value === undefined) return ''
  const factor = perOwn(rule)
  const isConverted = factor !== 1 && factor !== 100 && rule.of !== 'share'
  return String(Number((value / factor).toPrecision(isConverted ? 3 : 12)))
}

const ENDS = /^([-−]?[\d.,/ ]+?)\s*(?:–|—|-|to|\.\.)\s*([-−]?[\d.,/ ]+?)\s*([^\d\s.,/-].*)?$/u
/**
 * Two ends of a span, as typed: `3–8`, `3 to 8 mm`, `-6–-3`; one number is a span of itself. The lower end comes first.
 * @example readSpan('8-3', { of: 'rule' }) // { ok: true, value: [3, 8] }
 */
export function readSpan(text: string, rule: QuantityRule): ReadQuantity<[number, number] | null> {
  const said = text.trim()
  const [, from = said, to = said, unit = ''] = ENDS.exec(said) ?? []
  const ends = [from, to].map((end) => readQuantity(end === said ? end : `${end} ${unit}`.trim(), rule))
  const bad = ends.find((e) => !e.ok)
  if (bad && !bad.ok)
    return {
      ok: false,
      why: bad.why.replace(/^"[^"]*" can’t be read/, `"${said}" can’t be read`).replace(/\.$/, ', or two like 3–8.'),
    }
  const [low, high] = ends.map((e) => (e.ok ? e.value : null))
  if (low === null || low === undefined || high === null || high === undefined) return { ok: true, value: null }
  return { ok: true, value: [Math.min(low, high), Math.max(low, high)] }
}
/** Both ends as they stand in a field. */
export const shownSpan = (
  span: readonly [number, number] | null | undefined,
  rule: Pick<QuantityRule, 'of' | 'units'>,
) => (span ? span.map((end) => shownQuantity(end, rule)).join('–') : '')
