import { READING } from '../reading/specs.ts'
import { actKey } from '../diagnose/moves.ts'
import { type ReliedAnswer, type ReliedCause, type ReliedCheck } from '../diagnose/relied.ts'
import { CAUSES } from '../diagnose/shipped/causes.ts'
import type { Said } from '../diagnose/session.ts'
import type { Closing } from '../ledger/event.ts'
import { doesCreep, type Alarm } from '../reading/alarms.ts'
import { LINER_CLAUSES, type LinerClause, type LinerTerms, type WeakSign } from './clauses.ts'

/*
 * When a liner is changed, as the shop ruled it.
 *
 *   ledger ──evidenceOf──> LinerEvidence (since this liner went on) ──judgeLiner(terms)──> change · look · nothing
 */

/** A stop as it was looked into. */
export interface StopTold {
  atMs: number
  said: readonly Said[]
  cause: string | null
  isCertain: boolean
  closing: Closing
}
export interface LinerEvidence {
  kinkMs: number | null
  pull: { baseline: number; value: number; atMs: number } | null
  /** The stop in which most fresh tips changed nothing, with tension and hub passed in it. */
  tips: { n: number; atMs: number } | null
  straightMs: number | null
  /** Signs that say something only together with its use. */
  weak: { sign: WeakSign; atMs: number }[]
}
export const NO_EVIDENCE: LinerEvidence = { kinkMs: null, pull: null, tips: null, straightMs: null, weak: [] }
export const isNoEvidence = (e: LinerEvidence): boolean =>
  e.kinkMs === null && !e.pull && !e.tips && e.straightMs === null && e.weak.length === 0

const OF_LINER: ReadonlySet<string> = new Set(
  CAUSES.filter((c) => c.fix.act === 'changed' && c.fix.position === 'liner').map((c) => c.key),
)
const NEW_TIP = actKey('changed', 'tip')
const KINKED: ReliedCause = 'linerKinked'

/** What one stop says of the liner in it; nothing where it was surely something else and that brought it back. */
export function stopSigns(stop: Pick<StopTold, 'said' | 'cause' | 'isCertain' | 'closing'>) {
  const { said, cause, isCertain, closing } = stop
  const isLiner = cause !== null && OF_LINER.has(cause)
  if (cause !== null && isCertain && closing === 'good' && !isLiner) return null
  const answered = <C extends ReliedCheck>(key: C, outcome: ReliedAnswer<C>) =>
    said.some((s) => s.type === 'check' && s.key === key && s.outcome === outcome)
  const swapped = said.filter((s) => s.type === 'fix' && s.key === NEW_TIP).length
  return {
    isKinked: cause === KINKED && isCertain,
    isStraightCured: answered('straighten', 'smooth'),
    tips: swapped + (answered('tipSwap', 'well') ? 1 : 0),
    hasPassed: answered('block', 'well') && answered('spoolByHand', 'well'),
    isDusty: answered('inletDust', 'dust'),
    isSuspected: isLiner,
  }
}

/** What is known with the stop that is being looked into now. */
export function withStop(evidence: LinerEvidence, stop: StopTold): LinerEvidence {
  const now = evidenceOf({ stops: [stop], kinksMs: [], readings: [] }, { fromMs: stop.atMs - 1 })
  return {
    kinkMs: evidence.kinkMs ?? now.kinkMs,
    pull: evidence.pull,
    tips: now.tips && now.tips.n > (evidence.tips?.n ?? 0) ? now.tips : evidence.tips,
    straightMs: evidence.straightMs ?? now.straightMs,
    weak: [...evidence.weak, ...now.weak],
  }
}

export interface LinerHistory {
  stops: readonly StopTold[]
  /** Liners that kinked on their way in. */
  kinksMs: readonly number[]
  /** Readings of friction by pulls, and looks at how the cable lies. */
  readings: readonly { atMs: number; what: string; method: string; value: number | null; grade: string | null }[]
}

interface Span {
  fromMs: number
  untilMs?: number
  /** While another was in. */
  offs?: readonly { fromMs: number; toMs: number }[]
}
/** What speaks of the liner that went on at `fromMs`, as far as it was known by `untilMs`. */
export function evidenceOf(history: LinerHistory, span: Span): LinerEvidence {
  const { fromMs, untilMs = Infinity, offs = [] } = span
  const isOff = (ms: number) => offs.some((o) => ms > o.fromMs && ms <= o.toMs)
  const isIn = ({ atMs }: { atMs: number }) => atMs > fromMs && atMs <= untilMs && !isOff(atMs)
  const stops = history.stops.filter(isIn).flatMap((stop) => {
    const signs = stopSigns(stop)
    return signs ? [{ ...signs, atMs: stop.atMs }] : []
  })
  const readings = history.readings.filter(isIn).sort((a, b) => a.atMs - b.atMs)
  const first = <T extends { atMs: number }>(list: readonly T[], is: (one: T) => boolean) => list.find(is)?.atMs ?? null
  const kinks = [
    ...history.kinksMs.filter((atMs) => isIn({ atMs })),
    ...stops.filter((s) => s.isKinked).map((s) => s.atMs),
    ...readings.filter((r) => r.what === 'layout' && r.grade === 'kinked').map((r) => r.atMs),
  ]
  return {
    kinkMs: kinks.length > 0 ? Math.min(...kinks) : null,
    pull: pullOf(readings),
    tips: tipsOf(stops),
    straightMs: first(stops, (s) => s.isStraightCured),
    weak: [
      ...stops.filter((s) => s.tips > 0).map((s) => ({ sign: 'oneTip' as const, atMs: s.atMs })),
      ...stops.filter((s) => s.isDusty).map((s) => ({ sign: 'dust' as const, atMs: s.atMs })),
      ...stops.filter((s) => s.isSuspected).map((s) => ({ sign: 'suspected' as const, atMs: s.atMs })),
    ],
  }
}
function tipsOf(stops: readonly { atMs: number; tips: number; hasPassed: boolean }[]): LinerEvidence['tips'] {
  const told = stops.filter((s) => s.tips > 0 && s.hasPassed)
  const most = told.reduce<(typeof told)[number] | null>((m, s) => (!m || s.tips > m.tips ? s : m), null)
  return most && { n: most.tips, atMs: most.atMs }
}
/** The last pull against the first by the same method: no number is held against another way of pulling. */
function pullOf(readings: LinerHistory['readings']): LinerEvidence['pull'] {
  const pulls = readings.filter((r) => r.what === 'pull' && r.value !== null && r.value > 0)
  const last = pulls.at(-1)
  const begun = pulls.find((r) => r.method === last?.method)
  if (!last || !begun || begun === last || last.value === null || begun.value === null) return null
  return { baseline: begun.value, value: last.value, atMs: last.atMs }
}

export interface LinerSign {
  clause: LinerClause
  atMs: number
  /** How many times its beginning; how many tips; what share of its length. */
  n: number | null
}
export interface LinerVerdict {
  say: 'change' | 'look' | 'nothing'
  /** Clauses that hold, the earliest first. */
  signs: LinerSign[]
  weak: WeakSign[]
  isLengthUsed: boolean
}
/** Half of the way to the ratio is a weak sign. */
const WEAK_PULL = 0.5
/** Readings of how hard the wire goes through: of the drive, and the pull itself. */
const isOfFeeding = ({ what }: Alarm) => READING[what].isOfFeeding

/**
 * What the rule says of the liner on a gun: changed when any clause that is on holds; looked at when its length of wire is used up and nothing
 * else speaks. `usedFraction` against its length, null where no length is set. Ratio > 1, tips ≥ 1, else misuse throws.
 * Source: the shop's own rule, by its terms; the pull's ratio of 1.5 and two tips are the usual ones.
 * @example judgeLiner({ ...NO_EVIDENCE, kinkMs: 5 }, { terms: USUAL_TERMS, alarms: [], usedFraction: 0.2 }).say // change
 */
export function judgeLiner(
  evidence: LinerEvidence,
  at: { terms: LinerTerms; alarms: readonly Alarm[]; usedFraction: number | null },
): LinerVerdict {
  const { terms, alarms, usedFraction } = at
  if (!(terms.pullRatio > 1) || !(terms.tips >= 1))
    throw new RangeError(`judgeLiner: expected a ratio > 1 and tips ≥ 1, got ${terms.pullRatio} and ${terms.tips}`)
  const { pull } = evidence
  const ratio = pull ? pull.value / pull.baseline : null
  const feeding = alarms.filter(isOfFeeding)
  const creeping = feeding.find((a) => a.what === 'tension' && doesCreep(a))
  const weak = weakOf(evidence, feeding, { ratio, terms })
  const isLengthUsed = usedFraction !== null && usedFraction >= 1
  const holds: Record<LinerClause, Omit<LinerSign, 'clause'> | null> = {
    kink: evidence.kinkMs === null ? null : { atMs: evidence.kinkMs, n: null },
    pull: pull && ratio !== null && ratio >= terms.pullRatio ? { atMs: pull.atMs, n: ratio } : null,
    tips: evidence.tips && evidence.tips.n >= terms.tips ? { atMs: evidence.tips.atMs, n: evidence.tips.n } : null,
    straighten: evidence.straightMs === null ? null : { atMs: evidence.straightMs, n: null },
    tension: creeping ? { atMs: creeping.sinceMs, n: null } : null,
    length: isLengthUsed && weak[0] ? { atMs: weak[0].atMs, n: usedFraction } : null,
  }
  const signs = LINER_CLAUSES.filter((c) => terms.on.includes(c))
    .flatMap((clause): LinerSign[] => {
      const held = holds[clause]
      return held ? [{ clause, ...held }] : []
    })
    .sort((a, b) => a.atMs - b.atMs)
  const say = signs.length > 0 ? 'change' : isLengthUsed ? 'look' : 'nothing'
  return { say, signs, weak: [...new Set(weak.map((w) => w.sign))], isLengthUsed }
}
function weakOf(
  { weak, pull }: LinerEvidence,
  feeding: readonly Alarm[],
  { ratio, terms }: { ratio: number | null; terms: LinerTerms },
): LinerEvidence['weak'] {
  const isPulling = ratio !== null && ratio >= 1 + WEAK_PULL * (terms.pullRatio - 1)
  return [
    ...weak,
    ...(pull && isPulling ? [{ sign: 'pull' as const, atMs: pull.atMs }] : []),
    ...feeding.map((a) => ({ sign: 'reading' as const, atMs: a.sinceMs })),
  ].sort((a, b) => a.atMs - b.atMs)
}
