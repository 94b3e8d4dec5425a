import { DAY_MS } from '@core/units/time.ts'

const formats = new Map<string, Intl.DateTimeFormat>()
function format(zone: string, options: Intl.DateTimeFormatOptions): Intl.DateTimeFormat {
  const key = zone + JSON.stringify(options)
  const kept = formats.get(key) ?? new Intl.DateTimeFormat('en-GB', { timeZone: zone, ...options })
  formats.set(key, kept)
  return kept
}

/** Everything is shown in the site's own wall time. */
export const clockTime = (ms: number, zone: string) =>
  format(zone, { hour: '2-digit', minute: '2-digit', hourCycle: 'h23' }).format(ms)
export const dayKey = (ms: number, zone: string) => new Intl.DateTimeFormat('sv-SE', { timeZone: zone }).format(ms)
const weekday = (ms: number, zone: string) => format(zone, { weekday: 'short' }).format(ms)
export const shortDate = (ms: number, zone: string) => format(zone, { day: 'numeric', month: 'short' }).format(ms)
export const longDay = (day: string) =>
  new Intl.DateTimeFormat('en-GB', {
    timeZone: 'UTC',
    weekday: 'long',
    day: 'numeric',
    month: 'long',
    year: 'numeric',
  }).format(Date.parse(`${day}T12:00:00Z`))

/** A moment ahead or behind as people say it: "13:00", "tomorrow 06:00", "Mon 06:00", "3 Dec". */
export function when(ms: number, nowMs: number, zone: string): string {
  const day = dayKey(ms, zone)
  if (day === dayKey(nowMs, zone)) return clockTime(ms, zone)
  if (day === dayKey(nowMs + DAY_MS, zone)) return `tomorrow ${clockTime(ms, zone)}`
  if (day === dayKey(nowMs - DAY_MS, zone)) return `yesterday ${clockTime(ms, zone)}`
  if (Math.abs(ms - nowMs) < 6 * DAY_MS) return `${weekday(ms, zone)} ${clockTime(ms, zone)}`
  return shortDate(ms, zone)
}

/** How long ago, roughly: "5 min", "3 h", "2 days", "4 weeks". */
export function ago(ms: number, nowMs: number): string {
  const min = Math.max(0, (nowMs - ms) / 60_000)
  if (min < 90) return `${Math.round(min)} min`
  if (min < 36 * 60) return `${Math.round(min / 60)} h`
  const days = Math.round(min / 1440)
  return days < 21 ? `${days} days` : `${Math.round(days / 7)} weeks`
}

/** About: rounded to five minutes within a day, else as `when`. */
export const about = (ms: number, nowMs: number, zone: string) => when(Math.round(ms / 300_000) * 300_000, nowMs, zone)
