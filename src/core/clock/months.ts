import { DAY_MS, HOUR_MS } from '@core/units/time.ts'
import { type Clock, type ClockEnd } from './clock.ts'
import { type HeadClocks } from './headclock.ts'
import { workedMs, type Schedule, type Span } from './schedule.ts'
import { share } from './sweep.ts'
import { isEstimate } from './source.ts'

/**
 * What a head used on each day of one month (both UTC): what lies between two dates is then a sum of days instead of a clock built from every entry.
 * A clock's own sum and this one differ by how the first and the last day are shared out, at most what was used on those two days.
 */
export interface MonthOfUse {
  monthMs: number
  /** Of each day of the month. */
  kg: number[]
  arcHours: number[]
  /** Of the arc hours, those nobody counted. */
  estimatedH: number[]
}
export const USED = ['kg', 'arcHours', 'estimatedH'] as const
type Used = (typeof USED)[number]

const dayOf = (ms: number) => Math.floor(ms / DAY_MS)
const monthOf = (ms: number) => Date.UTC(new Date(ms).getUTCFullYear(), new Date(ms).getUTCMonth(), 1)
const daysIn = (monthMs: number) => {
  const at = new Date(monthMs)
  return Math.round((Date.UTC(at.getUTCFullYear(), at.getUTCMonth() + 1, 1) - monthMs) / DAY_MS)
}
/** As fine as the seventh place: what is summed in another order is the same then. */
const kept = (amount: number) => Math.round(amount * 1e7) / 1e7

/**
 * The months that a head's clocks tell of, as far as they were told; what runs on past that is added when asked (`usedOver`).
 * @example monthsOfUse({ kg: null, arcHours, starts: null })[0] // { monthMs: Date.UTC(2026, 0, 1), arcHours: [0, 2.5, 2.5, …], … }
 */
export function monthsOfUse({ kg, arcHours }: HeadClocks): MonthOfUse[] {
  const months = new Map<number, MonthOfUse>()
  const monthAt = (ms: number): MonthOfUse => {
    const monthMs = monthOf(ms)
    const known = months.get(monthMs)
    if (known) return known
    const none = () => new Array<number>(daysIn(monthMs)).fill(0)
    const made = { monthMs, kg: none(), arcHours: none(), estimatedH: none() }
    months.set(monthMs, made)
    return made
  }
  const add = (of: Used, dayMs: number, amount: number) => {
    const month = monthAt(dayMs)
    const day = dayOf(dayMs - month.monthMs)
    month[of][day] = (month[of][day] ?? 0) + amount
  }
  eachDay(kg, (dayMs, amount) => add('kg', dayMs, amount))
  eachDay(arcHours, (dayMs, amount, isEstimated) => {
    add('arcHours', dayMs, amount)
    if (isEstimated) add('estimatedH', dayMs, amount)
  })
  return [...months.values()]
    .sort((a, b) => a.monthMs - b.monthMs)
    .map((m) => ({ ...m, kg: m.kg.map(kept), arcHours: m.arcHours.map(kept), estimatedH: m.estimatedH.map(kept) }))
}

/** Each piece of a clock, cut at midnight; what spans days is shared by their working time. */
function eachDay(clock: Clock | null, told: (dayMs: number, amount: number, isEstimated: boolean) => void): void {
  for (const piece of clock?.pieces ?? []) {
    const [first, last] = [dayOf(piece.fromMs), dayOf(piece.toMs - 1)]
    const isEstimated = isEstimate(piece.source)
    if (first === last) {
      told(first * DAY_MS, piece.amount, isEstimated)
      continue
    }
    for (let day = first; day <= last; day++) {
      const [fromMs, toMs] = [Math.max(piece.fromMs, day * DAY_MS), Math.min(piece.toMs, (day + 1) * DAY_MS)]
      told(day * DAY_MS, piece.amount * share(clock?.schedule ?? null, { fromMs, toMs }, piece), isEstimated)
    }
  }
}
/** Months made ready to be asked: sums up to the beginning of each day. */
export interface DaysOfUse {
  firstDay: number
  sums: Record<Used, Float64Array>
}
export function daysOfUse(months: readonly MonthOfUse[]): DaysOfUse {
  const firstDay = months.length === 0 ? 0 : Math.min(...months.map((m) => dayOf(m.monthMs)))
  const lastDay = Math.max(firstDay, ...months.map((m) => dayOf(m.monthMs) + m.kg.length))
  const sums = {} as DaysOfUse['sums']
  for (const of of USED) {
    const days = new Float64Array(lastDay - firstDay + 1)
    for (const m of months) m[of].forEach((amount, d) => (days[dayOf(m.monthMs) - firstDay + d + 1] = amount))
    for (let d = 1; d < days.length; d++) days[d] = (days[d] ?? 0) + (days[d - 1] ?? 0)
    sums[of] = days
  }
  return { firstDay, sums }
}

interface Over extends Span {
  schedule: Schedule | null
  /** How each clock runs on past what was told; null: it does not. */
  runOn: { kg: ClockEnd | null; arcHours: ClockEnd | null }
}
/**
 * Used between two instants: whole days as they are, the first and the last by their share of working time, and what ran on since the last entry at
 * its rate, all of that estimated.
 */
export function usedOver(use: DaysOfUse, over: Over): Record<Used, number> {
  const hours = ranOnIn(over, over.runOn.arcHours)
  return {
    kg: toldIn(use, 'kg', over) + ranOnIn(over, over.runOn.kg),
    arcHours: toldIn(use, 'arcHours', over) + hours,
    estimatedH: toldIn(use, 'estimatedH', over) + hours,
  }
}

const ranOnIn = ({ fromMs, toMs, schedule }: Over, end: ClockEnd | null): number =>
  end ? (workedMs(schedule, Math.max(fromMs, end.fromMs), toMs) / HOUR_MS) * end.perWorkedHour : 0

function toldIn(use: DaysOfUse, of: Used, { fromMs, toMs, schedule, runOn }: Over): number {
  const endMs = (of === 'kg' ? runOn.kg : runOn.arcHours)?.fromMs ?? Infinity
  const sums = use.sums[of]
  const until = (ms: number): number => {
    const day = dayOf(ms) - use.firstDay
    if (day < 0) return 0
    if (day >= sums.length - 1) return sums.at(-1) ?? 0
    const before = sums[day] ?? 0
    const dayMs = dayOf(ms) * DAY_MS
    const whole = { fromMs: dayMs, toMs: Math.min(dayMs + DAY_MS, endMs) }
    if (ms >= whole.toMs) return sums[day + 1] ?? 0
    return before + ((sums[day + 1] ?? 0) - before) * share(schedule, { fromMs: dayMs, toMs: ms }, whole)
  }
  return Math.max(0, until(Math.min(toMs, endMs)) - until(Math.min(fromMs, endMs)))
}
