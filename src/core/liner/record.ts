import { HOUR_MS } from '@core/units/time.ts'
import { alarmsOf, type KeptReading } from '../reading/alarms.ts'
import { LINER_CLAUSES, type LinerClause, type LinerTerms } from './clauses.ts'
import { evidenceOf, judgeLiner, type StopTold } from './signs.ts'

/** A liner that came out, with all that was looked at while it was in. */
export interface LinerLife {
  fromMs: number
  toMs: number
  /** Its use, against the length the shop has set; null where none is set. */
  usedFraction: number | null
  /** Worn out (or nobody said); not: taken out in time, spoiled, cut off. */
  isWorn: boolean
  /** On the bench, for sure: nothing wrong with it. */
  wasFine: boolean
  stops: readonly StopTold[]
  kinksMs: readonly number[]
  readings: readonly KeptReading[]
}
export interface ClauseRecord {
  /** Worn liners of which enough was looked at for it to speak. */
  of: number
  /** Worn liners it spoke of in time. */
  ahead: number
  /** Liners it spoke of that were found without fault. */
  fine: number
}
export interface SignRecord {
  /** Worn liners of which enough was looked at for some clause to speak, and those a sign spoke of in time. */
  worn: number
  ahead: number
  /** Worn liners of which too little was: no sign could have spoken. */
  unlooked: number
  /** Of its life, what was still left when its first sign came: the median of those it spoke of; null: none. */
  leftShare: number | null
  fine: number
  byClause: Record<LinerClause, ClauseRecord>
}

/** Sooner before its end than this nobody would have acted on it. */
const IN_TIME_MS = 12 * HOUR_MS

/**
 * What a rule by signs would have seen of the liners that ended here: each told moment by moment as far as was known then, the first moment a
 * clause that is on holds is its sign. In time: at least half a day before the end. Source: the shop's own log.
 */
export function signRecord(lives: readonly LinerLife[], terms: LinerTerms): SignRecord {
  const byClause = Object.fromEntries(
    LINER_CLAUSES.map((c) => [c, { of: 0, ahead: 0, fine: 0 }]),
  ) as SignRecord['byClause']
  const record: SignRecord = { worn: 0, ahead: 0, unlooked: 0, leftShare: null, fine: 0, byClause }
  const left: number[] = []
  for (const life of lives) {
    const firsts = firstSigns(life, terms)
    const could = terms.on.filter((c) => couldSpeak(life, c))
    if (life.isWorn) {
      if (could.length === 0) record.unlooked++
      else record.worn++
      for (const clause of could) byClause[clause].of++
    }
    for (const { clause } of firsts) {
      if (life.isWorn) byClause[clause].ahead++
      if (life.wasFine) byClause[clause].fine++
    }
    const first = Math.min(...firsts.map((f) => f.atMs))
    if (firsts.length === 0) continue
    if (life.wasFine) record.fine++
    if (!life.isWorn) continue
    record.ahead++
    left.push((life.toMs - first) / (life.toMs - life.fromMs))
  }
  left.sort((a, b) => a - b)
  return { ...record, leftShare: left[Math.floor(left.length / 2)] ?? null }
}

/** So many readings of one method before a clause can tell a change. */
const ENOUGH = { pull: 2, tension: 3 }
/** Whether enough was looked at, in time, for a clause to speak at all. */
export function couldSpeak(life: LinerLife, clause: LinerClause): boolean {
  const isIn = ({ atMs }: { atMs: number }) => atMs > life.fromMs && atMs <= life.toMs - IN_TIME_MS
  const most = (what: string) => {
    const counts = new Map<string, number>()
    for (const r of life.readings.filter(isIn))
      if (r.what === what) counts.set(r.method, (counts.get(r.method) ?? 0) + 1)
    return Math.max(0, ...counts.values())
  }
  const stops = life.stops.filter(isIn)
  switch (clause) {
    case 'kink':
      return most('layout') > 0 || life.kinksMs.some((atMs) => isIn({ atMs }))
    case 'pull':
      return most('pull') >= ENOUGH.pull
    case 'tips':
    case 'straighten':
      return stops.some((s) => s.said.length > 0)
    case 'tension':
      return most('tension') >= ENOUGH.tension
    case 'length':
      return (life.usedFraction ?? 0) >= 1
  }
}

/** When each clause that is on first held, in time before the end. */
export function firstSigns(life: LinerLife, terms: LinerTerms): { clause: LinerClause; atMs: number }[] {
  const until = life.toMs - IN_TIME_MS
  const moments = [...life.stops, ...life.readings]
    .map((x) => x.atMs)
    .concat(life.kinksMs)
    .filter((ms) => ms > life.fromMs && ms <= until)
    .sort((a, b) => a - b)
  const first = new Map<LinerClause, number>()
  for (const atMs of moments)
    for (const { clause } of heldAt(life, terms, atMs)) if (!first.has(clause)) first.set(clause, atMs)
  return [...first].map(([clause, atMs]) => ({ clause, atMs }))
}
function heldAt(life: LinerLife, terms: LinerTerms, atMs: number) {
  const { fromMs, toMs, usedFraction } = life
  const readings = life.readings.filter((r) => r.atMs <= atMs)
  const alarms = alarmsOf(readings, {
    fittedAt: (p) => (p === 'liner' ? [fromMs] : []),
    touchedAt: () => null,
    wireOn: () => null,
  })
  // Its use by then, by the calendar between its two lines.
  const part = (atMs - fromMs) / Math.max(1, toMs - fromMs)
  const used = usedFraction === null ? null : usedFraction * part
  return judgeLiner(evidenceOf(life, { fromMs, untilMs: atMs }), { terms, alarms, usedFraction: used }).signs
}
