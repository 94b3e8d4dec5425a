import { DAY_MS, MIN_MS } from '@core/units/time.ts'
import { tzOffset } from '@date-fns/tz'

/** Offsets at the start of UTC days: asking the platform costs some 20 µs a time, and a calendar asks 100,000 times. */
const dayOffsets = new Map<string, Map<number, number>>()

function offsetOfDay(zone: string, dayNumber: number): number {
  const known = dayOffsets.get(zone) ?? new Map<number, number>()
  dayOffsets.set(zone, known)
  const kept = known.get(dayNumber)
  if (kept !== undefined) return kept
  const offset = tzOffset(zone, new Date(dayNumber * DAY_MS))
  known.set(dayNumber, offset)
  return offset
}

/** Minutes the zone's wall clock is ahead of UTC at an instant; exact on days on which the clocks change. */
function offsetMin(zone: string, atMs: number): number {
  const dayNumber = Math.floor(atMs / DAY_MS)
  const offset = offsetOfDay(zone, dayNumber)
  return offset === offsetOfDay(zone, dayNumber + 1) ? offset : tzOffset(zone, new Date(atMs))
}

export function isZone(zone: string): boolean {
  return Number.isFinite(tzOffset(zone, new Date(0)))
}

/**
 * Wall time of the site as an instant. A time that occurs twice (clocks go back) takes the first; one that does not exist
 * (clocks go forward) is null, for the caller to refuse or move.
 * @param day `2026-03-29` @param wall `02:30`
 */
export function wallToMs(zone: string, day: string, wall: string): number | null {
  const asUtc = Date.parse(`${day}T${wall}:00Z`)
  if (Number.isNaN(asUtc)) return null
  const offsets = new Set([offsetMin(zone, asUtc - DAY_MS), offsetMin(zone, asUtc + DAY_MS)])
  const fitting = [...offsets]
    .map((o) => ({ o, at: asUtc - o * MIN_MS }))
    .filter(({ o, at }) => offsetMin(zone, at) === o)
  return fitting.length === 0 ? null : Math.min(...fitting.map(({ at }) => at))
}

/** As `wallToMs`; a time that does not exist becomes the first moment after the jump. */
export function wallToMsOrNext(zone: string, day: string, wall: string): number {
  const at = wallToMs(zone, day, wall)
  if (at !== null) return at
  const asUtc = Date.parse(`${day}T${wall}:00Z`)
  return asUtc - offsetMin(zone, asUtc - DAY_MS) * MIN_MS
}

/** The site's calendar day of an instant, `2026-11-24`. */
export function dayOf(zone: string, atMs: number): string {
  return new Date(atMs + offsetMin(zone, atMs) * MIN_MS).toISOString().slice(0, 10)
}

/** The site's wall time of an instant, `06:40`. */
export function wallOf(zone: string, atMs: number): string {
  return new Date(atMs + offsetMin(zone, atMs) * MIN_MS).toISOString().slice(11, 16)
}

export function addDays(day: string, days: number): string {
  return new Date(Date.parse(`${day}T00:00:00Z`) + days * DAY_MS).toISOString().slice(0, 10)
}

/** 1 Monday … 7 Sunday. */
export function weekdayOf(day: string): number {
  return new Date(`${day}T00:00:00Z`).getUTCDay() || 7
}
