import { type CarrierId, type WireId } from '@core/ids/id.ts'
import { type Position, type KindKey } from '@core/path/columns.ts'
import { DAY_MS, HOUR_MS } from '@core/units/time.ts'
import { watchSeries, type Creep, type SeriesPoint } from '@core/trend/series.ts'
import { type How, type ReadingKey, type ReadingVerdict } from './keys.ts'
import { READING } from './specs.ts'

/** A reading as kept, with the usage of its chain at that moment. */
export interface KeptReading {
  atMs: number
  what: ReadingKey
  method: string
  how: How
  value: number | null
  left: number | null
  grade: string | null
  is: ReadingVerdict
  headId: CarrierId | null
  wireId: WireId | null
  limit: number | null
  /** Left high to keep a gun going: never what is usual there. */
  isRaised?: boolean
  /** kg of wire through the chain since its clock began; null where no clock tells. */
  kg: number | null
}

/** When another part went on at a position, on the gun or its feeder. */
export type FittedAt = (position: Position) => readonly number[]
/** When a position was last changed, cleaned or looked at. */
export type TouchedAt = (position: Position) => number | null
/** The wire that is on a feeder, and since when; null where nobody said. */
export type WireOn = (headId: CarrierId | null) => { wireId: WireId | null; sinceMs: number } | null
/** What happened where a reading was taken. */
export interface ReadAt {
  fittedAt: FittedAt
  touchedAt: TouchedAt
  wireOn: WireOn
}

export interface Series {
  what: ReadingKey
  method: string
  headId: CarrierId | null
  wireId: WireId | null
  readings: KeptReading[]
  /** Value of its first reading: with the new liner, the new tip. */
  baseline: number | null
  limit: number | null
}

/** What a reading stands at: as left where it was set. */
export const standsAt = (r: Pick<KeptReading, 'value' | 'left'>): number | null => r.left ?? r.value

/**
 * Readings that may be compared: one thing, one method, one feeder, one wire (D02), since the last part that begins it anew. Only the
 * series that runs on now.
 */
export function seriesOf(readings: readonly KeptReading[], what: ReadingKey, fittedAt: FittedAt): Series | null {
  const spec = READING[what]
  const all = readings.filter((r) => r.what === what && standsAt(r) !== null).sort((a, b) => a.atMs - b.atMs)
  const last = all.at(-1)
  if (!last) return null
  const resets = spec.resetBy.flatMap((position) => fittedAt(position)).filter((ms) => ms <= last.atMs)
  const fromMs = resets.length > 0 ? Math.max(...resets) : -Infinity
  const like = all.filter(
    (r) => r.atMs >= fromMs && r.method === last.method && r.headId === last.headId && r.wireId === last.wireId,
  )
  const baseline = baselineOf(like)
  const { method, headId, wireId } = last
  return { what, method, headId, wireId, readings: like, baseline, limit: last.limit ?? limitBy(what, baseline) }
}

/** How it began: where it was only raised to keep a gun going, as it was found before, since that is never the norm. */
function baselineOf([first]: readonly KeptReading[]): number | null {
  if (!first) return null
  return first.isRaised ? first.value : standsAt(first)
}

/** Where no window was told: so much over its own beginning. */
function limitBy(what: ReadingKey, baseline: number | null): number | null {
  const over = READING[what].limitOver
  if (baseline === null || over === null) return null
  return 'add' in over ? baseline + over.add : baseline * over.times
}

/** Points of a series against kg of wire; by day where no clock tells kg, or none was counted from its first to its last reading. */
export function pointsOf(series: Series): { points: SeriesPoint[]; unit: 'kg' | 'days' } {
  const { readings } = series
  const first = readings[0]
  const isByKg = readings.every((r) => r.kg !== null) && readings.some((r) => r.kg !== first?.kg)
  const points = readings.flatMap((r) => {
    const value = standsAt(r)
    const usage = isByKg ? (r.kg ?? 0) - (first?.kg ?? 0) : (r.atMs - (first?.atMs ?? 0)) / DAY_MS
    return value === null ? [] : [{ usage, value }]
  })
  return { points, unit: isByKg ? 'kg' : 'days' }
}

export function watch(series: Series): Creep {
  const { worse, sd } = READING[series.what]
  if (!worse) return { is: 'few', n: series.readings.length }
  return watchSeries(pointsOf(series).points, { worse, limit: series.limit, sd })
}

export interface Alarm {
  what: ReadingKey
  /** Position of the path it shows at. */
  at: KindKey
  is: 'act' | 'look' | 'creeps' | 'over' | 'jumped'
  sinceMs: number
  /** What was seen, where it was told apart in words. */
  seen?: { method: string; grade: string }
  /** Nobody read it: the equipment's own numbers told it. */
  isWatched?: true
}
/** The way of a reading that a watch took from what equipment sends. */
export const WATCHED = 'watched'

const CREEPS: readonly Alarm['is'][] = ['creeps', 'over', 'jumped']
/** A series asks, not its last reading alone. */
export const doesCreep = ({ is }: Pick<Alarm, 'is'>): boolean => CREEPS.includes(is)

/** A look counts until the thing is touched; so long, whatever happens. */
const LOOK_HOLDS_MS = 30 * DAY_MS

/**
 * What readings ask for: the last of each, where it was not good and nothing was done there since, and each series that creeps, jumped or
 * lies beyond its limit.
 */
export function alarmsOf(readings: readonly KeptReading[], at: ReadAt): Alarm[] {
  const keys = [...new Set(readings.map((r) => r.what))]
  return keys.flatMap((what) => {
    // What creeps says more than that its last reading lies too high.
    return creepAlarm(readings, { what, ...at }) ?? saidAlarm(readings, { what, ...at }) ?? []
  })
}

/** How one wire feeds says nothing of the next: another is on since it was read. */
function isOfAnotherWire({ what, atMs, headId, wireId }: KeptReading, wireOn: WireOn): boolean {
  const on = READING[what].isOfFeeding && wireId !== null ? wireOn(headId) : null
  return on !== null && on.wireId !== null && on.wireId !== wireId && on.sinceMs > atMs
}

function saidAlarm(readings: readonly KeptReading[], of: ReadAt & { what: ReadingKey }): Alarm | null {
  const spec = READING[of.what]
  const last = readings
    .filter((r) => r.what === of.what)
    .sort((a, b) => a.atMs - b.atMs)
    .at(-1)
  if (!last || isOfAnotherWire(last, of.wireOn)) return null
  const { is } = last
  const isWatched = last.method === WATCHED
  const at = isWatched ? (spec.creepAt ?? spec.at) : spec.at
  const touched = of.touchedAt(at)
  if (is === 'good' || (touched !== null && touched > last.atMs)) return null
  const { method, grade } = last
  const seen = grade === null ? {} : { seen: { method, grade } }
  return { what: of.what, at, is, sinceMs: last.atMs, ...seen, ...(isWatched ? { isWatched } : {}) }
}

function creepAlarm(readings: readonly KeptReading[], of: ReadAt & { what: ReadingKey }): Alarm | null {
  const series = seriesOf(readings, of.what, of.fittedAt)
  const last = series?.readings.at(-1)
  if (!series || !last || isOfAnotherWire(last, of.wireOn)) return null
  const creep = watch(series)
  if (creep.is === 'few' || (creep.is === 'steady' && creep.stepAt === null)) return null
  const spec = READING[of.what]
  const at = spec.creepAt ?? spec.at
  const touched = of.touchedAt(at)
  if (touched !== null && touched > last.atMs) return null
  const is = creep.is !== 'steady' ? creep.is : 'jumped'
  return { what: of.what, at, is, sinceMs: last.atMs, ...(last.method === WATCHED ? { isWatched: true } : {}) }
}

/** What is put right in passing asks for as long as a shift. */
const PASSING_HOLDS_MS = 12 * HOUR_MS
/** A look is not asked for for ever: what nobody touched for a month is no longer news. */
export const isAlarmLive = (alarm: Alarm, nowMs: number) =>
  nowMs - alarm.sinceMs < (READING[alarm.what].isPassing ? PASSING_HOLDS_MS : LOOK_HOLDS_MS)
/** What was remarked on and left in comes up again then (P103). */
export const againMs = ({ what, sinceMs }: Pick<Alarm, 'what' | 'sinceMs'>) =>
  sinceMs + READING[what].againDays * DAY_MS
/** Left in, it opens a row: not what is put right in passing; nor a liner, which goes by the shop's own rule for liners, of which its pull is one sign. */
export function canOpenRow(what: ReadingKey): boolean {
  const { isPassing, at } = READING[what]
  return !isPassing && at !== 'liner'
}
/**
 * Found to be put right, or remarked on, left in, and its day is here: it opens a row, where it can.
 */
export function isToPutRight(alarm: Pick<Alarm, 'is' | 'what' | 'sinceMs' | 'isWatched'>, nowMs: number): boolean {
  if (!canOpenRow(alarm.what)) return false
  return alarm.is === 'act' || (alarm.is === 'look' && nowMs >= againMs(alarm))
}
/** What is put right now, and what the equipment itself tells before it stops: a row is opened for it. */
export const opensRow = (alarm: Parameters<typeof isToPutRight>[0], nowMs: number): boolean =>
  alarm.isWatched === true || isToPutRight(alarm, nowMs)
