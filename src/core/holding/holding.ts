import { DAY_MS, HOUR_MS } from '../units/time.ts'

/** What a server can tell of itself and its machine. Instants are UTC milliseconds; null: it can't tell. */
export interface Holding {
  nowMs: number
  /** When the shop's first line was written. */
  sinceMs: number | null
  /** How long the database took to answer, milliseconds. */
  answeredMs: number
  /** Where back-ups lie: the newest and how many; `isKept` false: nobody keeps any here (a demo). */
  backups: { isKept: boolean; newestMs: number | null; count: number; bytes: number } | null
  disk: { freeBytes: number; totalBytes: number } | null
  /** How far the program's clock is before the machine's, which was set back. */
  clockAheadMs: number
  /** Feeders that send their counters: when each was last heard, and how far its own clock is off, milliseconds. */
  feeders: readonly { name: string; heardMs: number | null; clockOffMs: number }[]
  /** Since when hours of feeders wait to be counted; null: none wait. */
  countingSinceMs: number | null
  /** Entries of devices that could not be kept, in the last fortnight. */
  refused: number
}

export const HELD = ['database', 'backups', 'disk', 'clock', 'feeders', 'counting', 'refused'] as const
export type Held = (typeof HELD)[number]
/** `well`; `look`: somebody should, this week; `act`: today, or something is lost. */
export type HeldLevel = 'well' | 'look' | 'act' | 'unknown'

const SLOW_MS = 200
const VERY_SLOW_MS = 2000
/** A day between back-ups and the night it takes to see that one failed. */
const BACKUP_LATE_MS = 2 * DAY_MS
const BACKUP_LOST_MS = 7 * DAY_MS
const GB = 1e9
const CLOCK_SET_BACK_MS = 30_000
const FEEDER_CLOCK_MS = 2 * 60_000
const SILENT_MS = 3 * HOUR_MS
const COUNTING_MS = 10 * 60_000

const worse = (isAct: boolean, isLook: boolean): HeldLevel => (isAct ? 'act' : isLook ? 'look' : 'well')

function backupLevel(at: Holding): HeldLevel {
  if (!at.backups) return 'unknown'
  if (!at.backups.isKept) return 'well'
  // A shop that was opened today has had no night for its first.
  const age = at.nowMs - (at.backups.newestMs ?? at.sinceMs ?? at.nowMs)
  return worse(age > BACKUP_LOST_MS, age > BACKUP_LATE_MS)
}

/** Room for the database to grow and for a back-up to be checked beside it: five of the newest, and never under 1 GB. */
function diskLevel({ disk, backups }: Holding): HeldLevel {
  if (!disk) return 'unknown'
  const newest = backups && backups.count > 0 ? backups.bytes / backups.count : 0
  return worse(
    disk.freeBytes < Math.max(GB, 5 * newest),
    disk.freeBytes < Math.max(4 * GB, 20 * newest) || disk.freeBytes < disk.totalBytes / 20,
  )
}

/**
 * How the program holds up, line by line in a fixed order. Limits are this program's own: a database that takes over 0.2 s for the least question, no
 * back-up for two days, under 4 GB or a twentieth of the disk free, a clock set back by half a minute, a feeder silent for three hours, hours of feeders
 * that wait ten minutes to be counted, an entry that was refused.
 */
export function judgeHolding(at: Holding): { what: Held; level: HeldLevel }[] {
  const waits = at.countingSinceMs === null ? 0 : at.nowMs - at.countingSinceMs
  const levels: Record<Held, HeldLevel> = {
    database: worse(at.answeredMs > VERY_SLOW_MS, at.answeredMs > SLOW_MS),
    backups: backupLevel(at),
    disk: diskLevel(at),
    clock: worse(false, Math.abs(at.clockAheadMs) > CLOCK_SET_BACK_MS),
    feeders: worse(false, silentFeeders(at).length > 0 || offClocks(at).length > 0),
    counting: worse(waits > HOUR_MS, waits > COUNTING_MS),
    refused: worse(false, at.refused > 0),
  }
  return HELD.map((what) => ({ what, level: levels[what] }))
}

/** Feeders that have sent something once and nothing for three hours. A gun that stands may have its feeder switched off: no fault by itself. */
export const silentFeeders = ({ feeders, nowMs }: Pick<Holding, 'feeders' | 'nowMs'>): string[] =>
  feeders.filter((f) => f.heardMs !== null && nowMs - f.heardMs > SILENT_MS).map((f) => f.name)

/** Feeders whose own clock is off by over two minutes. */
export const offClocks = ({ feeders }: Pick<Holding, 'feeders'>): string[] =>
  feeders.filter((f) => Math.abs(f.clockOffMs) > FEEDER_CLOCK_MS).map((f) => f.name)

/** The worst of some levels. */
export const worstOf = (levels: readonly HeldLevel[]): HeldLevel =>
  (['act', 'look', 'unknown'] as const).find((level) => levels.includes(level)) ?? 'well'
