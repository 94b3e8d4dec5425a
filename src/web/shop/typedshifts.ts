import { readQuantity, type UnitWorld } from '@core/units/quantity.ts'
import { type ShopAnswer } from '@contract/shop.ts'
import { parseDay } from '@contract/when.ts'

type Shift = ShopAnswer['shifts'][number]
type DayOff = ShopAnswer['holidays'][number]
/** A shift as it is typed: a break's minutes are text until they are read. */
export type TypedShift = Omit<Shift, 'breaks'> & { breaks: { start: string; minutes: string }[] }

export const typedShift = (shift: Shift): TypedShift => ({
  ...shift,
  breaks: shift.breaks.map((b) => ({ start: b.start, minutes: String(b.minutes) })),
})
export const typedDays = (days: readonly DayOff[]): string => days.map((d) => `${d.day} ${d.name}`.trim()).join('\n')

const minutesOf = (text: string) =>
  readQuantity(text, { of: 'minutes', from: 1, to: 240, isWhole: true, isNeeded: true })
const WALL = /^\d\d:\d\d/

/** What was read, or all that can't be, each in a sentence. */
type ReadAll<T> = { ok: true; value: T[] } | { ok: false; why: string[] }
type SentShift = Omit<Shift, 'areaId'>

/** A shift as it is sent; what can't be read of it goes to `why`. */
function readShift({ name, weekdays, start, end, breaks }: TypedShift, i: number, why: string[]): SentShift {
  const which = name.trim() ? `Shift ${name.trim()}` : `Shift ${i + 1}`
  if (!name.trim()) why.push(`${which} has no name: write what people call it.`)
  if (weekdays.length === 0) why.push(`${which} has no day: tap the days it is worked.`)
  if (!WALL.test(start) || !WALL.test(end)) why.push(`${which}: write when it starts and ends.`)
  const read = breaks.map((b) => {
    const minutes = minutesOf(b.minutes)
    if (!WALL.test(b.start)) why.push(`${which}, a break: write when it starts.`)
    else if (!minutes.ok) why.push(`${which}, the break at ${b.start}: ${minutes.why}`)
    return { start: b.start, minutes: minutes.ok ? (minutes.value ?? 0) : 0 }
  })
  return { name: name.trim(), weekdays, start, end, breaks: read }
}
/** The shifts as they are sent, or all that can't be read. */
export function readShifts(typed: readonly TypedShift[]): ReadAll<SentShift> {
  const why: string[] = []
  const value = typed.map((shift, i) => readShift(shift, i, why))
  return why.length > 0 ? { ok: false, why } : { ok: true, value }
}

const MOST_WORDS = 3
/** A line's day, in as many words as it takes ("25 Dec 2026"), and the rest as its name. */
function dayOff(line: string, units: UnitWorld): DayOff | null {
  const words = line.split(/\s+/)
  for (let n = 1; n <= Math.min(MOST_WORDS, words.length); n++) {
    const day = parseDay(words.slice(0, n).join(' '), units)
    if (day) return { day, name: words.slice(n).join(' ') }
  }
  return null
}
/** Days off, one a line, in the ways people write a day. */
export function readDays(text: string, units: UnitWorld): ReadAll<DayOff> {
  const lines = text.split('\n').map((l) => l.trim())
  const read = lines.map((line) => (line ? dayOff(line, units) : undefined))
  const why = lines.flatMap((line, i) =>
    read[i] === null ? [`"${line}" can’t be read as a day off: write 2026-12-25 and what it is.`] : [],
  )
  return why.length > 0 ? { ok: false, why } : { ok: true, value: read.flatMap((d) => d ?? []) }
}
