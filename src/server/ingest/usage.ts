import { parseWhen } from '@contract/when.ts'
import { type StationId } from '@core/ids/id.ts'
import { hoursEach, kgEach } from '@core/ingest/amounts.ts'
import { gramPerMetre } from '@core/spools/wire.ts'
import { HOUR_MS } from '@core/units/time.ts'
import { parseNumber } from '@core/units/number.ts'
import { type BadRow } from '@contract/ingest.ts'
import { spanOf } from '@server/clock/usage.ts'
import { type ShopModel } from '@server/shopmodel/model.ts'
import { dayOf, wallOf } from '@server/time/wall.ts'
import { placeFinder, whyNoPlace } from './findplace.ts'
import { badCell, cellOf, type Sheet } from './sheet.ts'

export interface PlannedUsage {
  stationId: StationId
  fromMs: number
  toMs: number
  kg: number | null
  arcHours: number | null
  starts: number | null
  row: number
  identity: string
}
export interface UsagePlan {
  rows: PlannedUsage[]
  /** Guns that stood idle: a place and a day, and no amount. */
  leftOut: { row: number; text: string }[]
  bad: BadRow[]
  /** Names that are painted on no place here. */
  names: string[]
}

/**
 * What a sheet of usage says, row by row; every cell that can't be read is named. Rows with a time of day are a feeder's own: those of one gun and day are
 * added up. Of rows without one, a second for the same gun and shift is refused.
 */
export function planUsage(
  sheet: Sheet,
  shop: ShopModel,
  at: { nowMs: number; names: Record<string, string> },
): UsagePlan {
  const plan: UsagePlan = { rows: [], leftOut: [], bad: [], names: [] }
  const seen = new Map<string, PlannedUsage>()
  const read = usageReader(sheet, shop, { ...at, plan })
  sheet.rows.forEach((row, i) => {
    const number = sheet.numbers[i] ?? 0
    const bad: Bad = (key, why) => void plan.bad.push(badCell(sheet, row, { key, why, number }))
    if (AMOUNTS.every((key) => cellOf(sheet, row, key) === ''))
      return void plan.leftOut.push({ row: number, text: `${cellOf(sheet, row, 'place')}: no amount` })
    const told = read(row, bad, number)
    if (!told) return
    const { isTimed, hours, planned } = told
    const before = seen.get(planned.identity)
    if (!before) {
      seen.set(planned.identity, planned)
      return void plan.rows.push(planned)
    }
    if (!isTimed) return bad('date', `row ${before.row} has the same place and shift already`)
    for (const key of AMOUNTS) before[key] = before[key] === null ? planned[key] : before[key] + (planned[key] ?? 0)
    if ((before.arcHours ?? 0) > hours) bad('arcHours', tooLong(before.arcHours ?? 0, hours))
  })
  return plan
}

const AMOUNTS = ['arcHours', 'kg', 'starts'] as const
type Bad = (key: string, why: string) => void
interface ReadRow {
  isTimed: boolean
  /** How long the stretch is that the amount stands for. */
  hours: number
  planned: PlannedUsage
}

function usageReader(
  sheet: Sheet,
  shop: ShopModel,
  at: { nowMs: number; names: Record<string, string>; plan: UsagePlan },
) {
  const { nowMs, plan } = at
  const find = placeFinder(shop, at.names)
  const { zone, units } = shop.site
  const today = dayOf(zone, nowMs)
  const read = amountReader(sheet, plan)
  return (row: readonly string[], bad: Bad, number: number): ReadRow | void => {
    const cell = (key: string) => cellOf(sheet, row, key)
    const stationId = find(cell('place'))
    if (stationId === 'out') return void plan.leftOut.push({ row: number, text: `${cell('place')}: left out` })
    const station = stationId === null ? undefined : shop.stationById.get(stationId)
    if (!station) return (plan.names.push(cell('place')), bad('place', whyNoPlace(cell('place'))))
    const when = stampIn(cell('date'), zone) ?? parseWhen(cell('date'), units, today)
    if (!when) return bad('date', 'that is no date; write 2026-11-20')
    if (when.day > today) return bad('date', 'that day is still to come')
    const isTimed = when.time !== null && cell('shift') === ''
    const span = spanOf(shop, { areaId: station.areaId, day: when.day, shift: cell('shift') || null })
    if (!span.ok) return bad('shift', span.reason)
    const hours = (span.toMs - span.fromMs) / HOUR_MS
    const amounts = read(row, { bad, number, hours, wire: shop.wires.get(shop.built(station.id).wireId ?? '') })
    if (!amounts) return
    const toMs = Math.min(span.toMs, Math.max(nowMs, span.fromMs + 60_000))
    const identity = `${station.id} ${span.fromMs} ${span.toMs}`
    return {
      isTimed,
      hours,
      planned: { stationId: station.id, fromMs: span.fromMs, toMs, ...amounts, row: number, identity },
    }
  }
}

/** The amounts of a row in hours and kilograms, by the units of their headings; a length that can't be weighed is left out and said so. */
function amountReader(sheet: Sheet, plan: UsagePlan) {
  const heading = (key: string) => sheet.headings[sheet.columns[key] ?? -1] ?? ''
  return (
    row: readonly string[],
    at: { bad: Bad; number: number; hours: number; wire: ShopWire | undefined },
  ): Amounts | null => {
    const { wire } = at
    const kg = kgEach(heading('kg'), gramsOf(wire))
    const length = kg === null ? cellOf(sheet, row, 'kg') : ''
    const cell = (key: string) => (key === 'kg' && kg === null ? '' : cellOf(sheet, row, key))
    const each = { arcHours: hoursEach(heading('arcHours')), kg: kg ?? 1 }
    const amounts = amountsOf(cell, at.bad, { hours: at.hours, each })
    if (!amounts) return null
    const what = `${cellOf(sheet, row, 'place')}: ${length} of a wire nobody has said; a length is weighed by its wire`
    if (length) plan.leftOut.push({ row: at.number, text: what })
    return AMOUNTS.every((key) => amounts[key] === null) ? null : amounts
  }
}

/** What a metre of a wire weighs; null where nobody said which. */
export const gramsOf = (wire: ShopWire | undefined): number | null =>
  wire ? gramPerMetre(wire.diameterMm, wire.densityGPerCm3) : null

/** An instant as machines write it, on the shop's own clock: seconds or milliseconds since 1970, or a day and time with its zone. */
function stampIn(text: string, zone: string): { day: string; time: string | null } | null {
  const isIso = /^\d{4}-\d{2}-\d{2}[T ]\d{2}:\d{2}.*(Z|[+-]\d{2}:?\d{2})$/.test(text)
  const atMs = /^\d{13}$/.test(text)
    ? Number(text)
    : /^\d{10}$/.test(text)
      ? Number(text) * 1000
      : isIso
        ? Date.parse(text)
        : NaN
  return Number.isFinite(atMs) ? { day: dayOf(zone, atMs), time: wallOf(zone, atMs) } : null
}

const rounded = (hours: number) => Math.round(hours * 10) / 10
const tooLong = (arcHours: number, hours: number) =>
  `${rounded(arcHours)} arc hours do not fit into ${rounded(hours)} hours`

type ShopWire = NonNullable<ReturnType<ShopModel['wires']['get']>>
type Amounts = Pick<PlannedUsage, 'kg' | 'arcHours' | 'starts'>

function amountsOf(
  cell: (key: string) => string,
  bad: (key: string, why: string) => void,
  at: { hours: number; each: { arcHours: number; kg: number } },
): Amounts | null {
  const { hours, each } = at
  const read = (
    key: (typeof AMOUNTS)[number],
    as: { each: number; most: number; why: (value: number) => string },
  ): number | null | undefined => {
    const text = cell(key)
    if (!text) return null
    const value = parseNumber(text)
    if (value === null) return void bad(key, 'that is not a number')
    if (value < 0) return void bad(key, 'less than nothing can’t be used')
    if (as.each === null)
      return void bad(key, 'a length is weighed by its wire: say which wire runs there, under places')
    return value * as.each > as.most ? void bad(key, as.why(value * as.each)) : value * as.each
  }
  const arcHours = read('arcHours', {
    each: each.arcHours,
    most: hours,
    why: (v) => `${tooLong(v, hours)}${each.arcHours === 1 && v / 60 <= hours ? '; were these minutes?' : ''}`,
  })
  const kg = read('kg', {
    each: each.kg,
    most: 2000,
    why: (v) =>
      `${Math.round(v)} kg in one shift is more than a feeder can push${v / 1000 < 200 ? '; were these grams?' : ''}`,
  })
  const starts = read('starts', { each: 1, most: 100_000, why: () => 'that many starts do not fit into a shift' })
  if (arcHours === undefined || kg === undefined || starts === undefined) return null
  return { arcHours, kg, starts: starts === null ? null : Math.round(starts) }
}
