import { type Occurrence } from '@core/classes/calendar.ts'
import { type calendarEntry, type calendarMove } from '@server/db/schema.ts'
import { addDays, dayOf } from './wall.ts'
import { shiftSpan } from './calendar.ts'
import { daysOf } from './dayrule.ts'

type Entry = typeof calendarEntry.$inferSelect
type Move = typeof calendarMove.$inferSelect

/**
 * Every time of the calendar's entries between two instants, moved and dropped ones minded, on the site's own wall: a class at ten is at ten before and
 * after the clocks change. On a holiday there is no class, unless it was moved there.
 */
export function occurrencesOf(
  of: { entries: readonly Entry[]; moves: readonly Move[]; holidays: ReadonlySet<string>; zone: string },
  fromMs: number,
  toMs: number,
): Occurrence[] {
  // One that was moved may come from far; one that runs past midnight began the day before.
  const [fromDay, toDay] = [addDays(dayOf(of.zone, fromMs), -1), dayOf(of.zone, toMs)]
  const movesOf = new Map<string, Map<string, Move>>()
  for (const move of of.moves) {
    const own = movesOf.get(move.entryId) ?? new Map<string, Move>()
    movesOf.set(move.entryId, own.set(move.day, move))
  }
  return of.entries
    .filter((e) => e.isActive)
    .flatMap((entry) => {
      const moves = movesOf.get(entry.id) ?? new Map<string, Move>()
      const usual = daysOf(entry, fromDay, toDay)
        .filter((day) => !moves.has(day) && !(entry.kind === 'class' && of.holidays.has(day)))
        .map((day) => timeOf(entry, { day, to: null, zone: of.zone }))
      const moved = [...moves.values()]
        .filter((m) => m.toDay !== null && m.toDay >= fromDay && m.toDay <= toDay)
        .map((m) => timeOf(entry, { day: m.day, to: m, zone: of.zone }))
      return [...usual, ...moved]
    })
    .filter((o) => o.toMs > fromMs && o.fromMs < toMs)
    .sort((a, b) => a.fromMs - b.fromMs || (a.name < b.name ? -1 : 1))
}

function timeOf(entry: Entry, at: { day: string; to: Move | null; zone: string }): Occurrence {
  const { to } = at
  const span = shiftSpan(at.zone, { start: to?.start ?? entry.start, end: to?.end ?? entry.end }, to?.toDay ?? at.day)
  const { kind, name, areaId, groupId } = entry
  return { entryId: entry.id, kind, name, areaId, groupId, day: at.day, movedTo: to?.toDay ?? null, ...span }
}
