import { type AreaId, type EntryId, type GroupId, type StationId } from '@core/ids/id.ts'

/** A class in a bay; a stop of cells that was planned; anything else that takes a place. Holidays and shifts stand beside. */
export const CALENDAR_KINDS = ['class', 'cellStop', 'other'] as const
export type CalendarKind = (typeof CALENDAR_KINDS)[number]

/** One time of an entry. `day`: when its rule puts it; `movedTo`: where it was moved, where it was. */
export interface Occurrence {
  entryId: EntryId
  kind: CalendarKind
  name: string
  areaId: AreaId | null
  groupId: GroupId | null
  day: string
  movedTo: string | null
  fromMs: number
  toMs: number
}

/** Two classes that cannot both be: one group in two places, or one booth to two groups. */
export type Clash = { a: Occurrence; b: Occurrence } & ({ is: 'group' } | { is: 'booths'; stationIds: StationId[] })
/** Overlaps of classes in a span of occurrences; cell stops and others stand beside each other. In order of time. */
export function clashesOf(
  occurrences: readonly Occurrence[],
  boothsOf: (groupId: GroupId) => readonly StationId[],
): Clash[] {
  const classes = occurrences.filter((o) => o.kind === 'class').sort((a, b) => a.fromMs - b.fromMs)
  const clashes: Clash[] = []
  classes.forEach((a, i) => {
    for (const b of classes.slice(i + 1)) {
      if (b.fromMs >= a.toMs) break
      if (a.groupId === null || b.groupId === null) continue
      if (a.groupId === b.groupId) clashes.push({ a, b, is: 'group' })
      else {
        const own = new Set(boothsOf(a.groupId))
        const stationIds = boothsOf(b.groupId).filter((id) => own.has(id))
        if (stationIds.length > 0) clashes.push({ a, b, is: 'booths', stationIds })
      }
    }
  })
  return clashes
}

/** The class that runs, the one before it at each place, and the next: what a hand-over stands between. */
export function around(
  occurrences: readonly Occurrence[],
  nowMs: number,
): { now: Occurrence[]; next: Occurrence | null } {
  const classes = occurrences.filter((o) => o.kind === 'class').sort((a, b) => a.fromMs - b.fromMs)
  return {
    now: classes.filter((o) => o.fromMs <= nowMs && nowMs < o.toMs),
    next: classes.find((o) => o.fromMs > nowMs) ?? null,
  }
}

/** A hand-over is looked at from a little before a class begins; later than so long into it, it is told of that class itself. */
export const BEFORE_CLASS_MS = 15 * 60_000
/** Longer ago than that nobody's: too much may have happened since. */
const LEFT_FOR_MS = 4 * 86_400_000

/** Of one booth: which class it is looked at for, and which had it before. Null: none is told. */
export function handOverAt(
  occurrences: readonly Occurrence[],
  hasBooth: (groupId: GroupId) => boolean,
  atMs: number,
): { of: Occurrence | null; leftBy: Occurrence | null } {
  const own = occurrences
    .filter((o) => o.kind === 'class' && o.groupId !== null && hasBooth(o.groupId))
    .sort((a, b) => a.fromMs - b.fromMs)
  const of = own.find((o) => o.fromMs - BEFORE_CLASS_MS <= atMs && atMs < o.toMs) ?? null
  const startMs = of?.fromMs ?? atMs
  const leftBy = own.findLast((o) => o !== of && o.fromMs < startMs && startMs - o.toMs < LEFT_FOR_MS) ?? null
  return { of, leftBy }
}
