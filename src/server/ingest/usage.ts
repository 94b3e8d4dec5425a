import { parseDay } from '@contract/when.ts'
import { type StationId } from '@core/ids/id.ts'
import { HOUR_MS } from '@core/units/time.ts'
import { parseNumber } from '@core/units/number.ts'
import { type BadRow } from '@contract/ingest.ts'
import { spanOf } from '@server/clock/usage.ts'
import { type ShopModel } from '@server/shopmodel/model.ts'
import { dayOf } from '@server/time/wall.ts'
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
}

/** What a sheet of usage says, row by row; every cell that can't be read is named. */
export function planUsage(sheet: Sheet, shop: ShopModel, nowMs: number): UsagePlan {
  const plan: UsagePlan = { rows: [], leftOut: [], bad: [] }
  const seen = new Map<string, number>()
  const read = usageReader(sheet, shop, nowMs)
  sheet.rows.forEach((row, i) => {
    const number = sheet.numbers[i] ?? 0
    const bad: Bad = (key, why) => void plan.bad.push(badCell(sheet, row, { key, why, number }))
    if (AMOUNTS.every((key) => cellOf(sheet, row, key) === ''))
      return void plan.leftOut.push({ row: number, text: `${cellOf(sheet, row, 'place')}: no amount` })
    const planned = read(row, bad, number)
    if (!planned) return
    const before = seen.get(planned.identity)
    if (before) return bad('date', `row ${before} has the same place and shift already`)
    seen.set(planned.identity, number)
    plan.rows.push(planned)
  })
  return plan
}

const AMOUNTS = ['arcHours', 'kg', 'starts']
type Bad = (key: string, why: string) => void

function usageReader(sheet: Sheet, shop: ShopModel, nowMs: number) {
  const byName = new Map(shop.stations.map((s) => [s.name.toLowerCase(), s]))
  const today = dayOf(shop.site.zone, nowMs)
  return (row: readonly string[], bad: Bad, number: number): PlannedUsage | void => {
    const cell = (key: string) => cellOf(sheet, row, key)
    const station = byName.get(cell('place').toLowerCase())
    if (!station)
      return bad(
        'place',
        cell('place') ? 'there is no such place; bring in the places first, or mend the name' : 'the place is missing',
      )
    const day = parseDay(cell('date'), shop.site.units)
    if (!day) return bad('date', 'that is no date; write 2026-11-20')
    if (day > today) return bad('date', 'that day is still to come')
    const span = spanOf(shop, { areaId: station.areaId, day, shift: cell('shift') || null })
    if (!span.ok) return bad('shift', span.reason)
    const amounts = amountsOf(cell, bad, (span.toMs - span.fromMs) / HOUR_MS)
    if (!amounts) return
    return {
      stationId: station.id,
      fromMs: span.fromMs,
      toMs: Math.min(span.toMs, Math.max(nowMs, span.fromMs + 60_000)),
      ...amounts,
      row: number,
      identity: `${station.id} ${span.fromMs} ${span.toMs}`,
    }
  }
}

type Amounts = Pick<PlannedUsage, 'kg' | 'arcHours' | 'starts'>

function amountsOf(
  cell: (key: string) => string,
  bad: (key: string, why: string) => void,
  hours: number,
): Amounts | null {
  const read = (key: string, most: number, why: (value: number) => string): number | null | undefined => {
    const text = cell(key)
    if (!text) return null
    const value = parseNumber(text)
    if (value === null) return void bad(key, 'that is not a number')
    if (value < 0) return void bad(key, 'less than nothing can’t be used')
    if (value > most) return void bad(key, why(value))
    return value
  }
  const arcHours = read(
    'arcHours',
    hours,
    (v) =>
      `${v} arc hours do not fit into ${Math.round(hours * 10) / 10} hours${v / 60 <= hours ? '; were these minutes?' : ''}`,
  )
  const kg = read(
    'kg',
    2000,
    (v) => `${v} kg in one shift is more than a feeder can push${v / 1000 < 200 ? '; were these grams?' : ''}`,
  )
  const starts = read('starts', 100_000, () => 'that many starts do not fit into a shift')
  if (arcHours === undefined || kg === undefined || starts === undefined) return null
  return { arcHours, kg, starts: starts === null ? null : Math.round(starts) }
}
