import { type Tag } from '@core/changeover/tags.ts'
import { type KindKey } from '@core/path/columns.ts'
import { type ReadingKey } from '@core/reading/keys.ts'
import { type Touched } from './touched.ts'
import {
  believe,
  causesIn,
  chanceAmong,
  firstBelief,
  marginals,
  type Belief,
  type Evidence,
  type Index,
} from './belief.ts'
import { type RuleKey } from '@core/rightparts/finding.ts'
import { type FollowUp } from '@core/followup/keys.ts'
import { groupNamed, groupOf } from './moves.ts'
import { isFor } from './ratio.ts'
import { type Check, type Sign } from './knowledge.ts'

/**
 * A stop being worked on, as what was said so far. Everything else follows from it, so that taking back is leaving out the last.
 *
 *   symptom ──(touched last, tried already)──> step ──answer · can't tell · done, no help──> step … ──running──> closing test ──> explained
 *                                               ^──take back──┘                                  └──still there──> step
 */
export type Said =
  | { type: 'check'; key: string; outcome: string }
  | { type: 'cantTell'; key: string }
  /** A fix was done and the trouble stayed. */
  | { type: 'fix'; key: string }
  | { type: 'symptom'; key: string; isThere: boolean }
  /** What the program knew to be wrong here is right by now. */
  | { type: 'notSo'; key: string }
export interface Stop {
  symptom: string
  said: readonly Said[]
}
/** What of the gun speaks: a reading, a reminder that is tied, a part that does not fit or is far into its life, what was touched, other guns. */
export type Because =
  | { how: 'read'; what: ReadingKey | 'cleaning' }
  | { how: 'tied'; tag: Tag }
  | { how: 'found'; rule: RuleKey; at: KindKey | 'off' }
  | { how: 'undone'; task: FollowUp }
  | { how: 'cored' }
  | { how: 'worn' | 'midLife' | 'fresh'; at: KindKey }
  | { how: 'touched'; what: Touched }
  | { how: 'others'; what: 'gas' | 'power' | 'sameWire' }
  | { how: 'notHere' }
/** What the gun's own state says of a cause: how much likelier, by which kind of sign, and why. */
export interface Hint {
  cause: string
  factor: number
  sign: Sign | null
  because: Because
  /** Somebody found just that on this gun and nobody has put it right: no sign of it, but it. */
  isKnown?: boolean
}

export interface Reckoned {
  belief: Belief
  done: ReadonlySet<string>
  signs: ReadonlyMap<number, ReadonlySet<Sign>>
  fixedTimes: ReadonlyMap<string, number>
  /** Causes an answer pointed at, whether the symptom lists them or not. */
  pointed: ReadonlySet<number>
  /** Seen to be so, the latest last: an answer that points at one fix only. */
  shown: readonly number[]
  /** Found on this gun before it stopped, and not put right. */
  known: readonly number[]
  /** Looked at and found well since anything spoke for it. */
  clear: ReadonlySet<number>
  /** Fixes that a later look spoke for once more. */
  again: ReadonlySet<string>
  /** The look that shows whether the last fix put it right. */
  proof: string | null
}
export interface ReckonAt {
  hints?: readonly Hint[]
  shares?: ReadonlyMap<string, number>
  /** Checks that can't be had here: no part on the shelf to swap in. */
  without?: Iterable<string>
}
/** The belief, what is done and which kinds of sign spoke, from all that was said. */
export function reckon(knowledge: Index, stop: Stop, at: ReckonAt = {}): Reckoned {
  const notSo = new Set(stop.said.flatMap((s) => (s.type === 'notSo' ? [s.key] : [])))
  const hints = (at.hints ?? []).filter((h) => !(h.isKnown && notSo.has(h.cause)))
  const { factors, signs, known } = fromHints(knowledge, hints)
  const symptom = knowledge.symptoms.find((s) => s.key === stop.symptom)
  const first = firstBelief(knowledge, { symptom: stop.symptom, factors, ...(at.shares ? { shares: at.shares } : {}) })
  const so: Mutable = {
    ...{ belief: first, signs, known, proof: null, shown: [] },
    done: new Set([...(symptom?.told ?? []), ...(at.without ?? [])]),
    ...{ fixedTimes: new Map(), pointed: new Set(known), clear: new Set(), again: new Set() },
  }
  for (const said of stop.said) takeIn(knowledge, said, { so, symptom: stop.symptom })
  return so
}
type Mutable = {
  // A map first: by its shape alone it is a set as well.
  -readonly [K in keyof Reckoned]: Reckoned[K] extends ReadonlyMap<infer T, infer V>
    ? Map<T, V extends ReadonlySet<infer S> ? Set<S> : V>
    : Reckoned[K] extends ReadonlySet<infer T>
      ? Set<T>
      : Reckoned[K] extends readonly (infer T)[]
        ? T[]
        : Reckoned[K]
}

function fromHints(knowledge: Index, hints: readonly Hint[]) {
  const factors = new Map<string, number>()
  const signs = new Map<number, Set<Sign>>()
  const known: number[] = []
  for (const { cause, factor, sign, isKnown } of hints) {
    factors.set(cause, (factors.get(cause) ?? 1) * factor)
    const i = knowledge.causeAt.get(cause)
    if (i === undefined || factor <= 1) continue
    if (sign) speaks(signs, i, sign)
    if (isKnown && !known.includes(i)) known.push(i)
  }
  return { factors, signs, known }
}
const speaks = (signs: Map<number, Set<Sign>>, cause: number, sign: Sign) =>
  void signs.set(cause, (signs.get(cause) ?? new Set()).add(sign))

/** Kinds of sign by which a thing is seen to be so, and not only felt from afar. */
export const SHOWS: ReadonlySet<Sign> = new Set(['look', 'feel', 'reading', 'asked'])
function takeIn(knowledge: Index, said: Said, { so, symptom }: { so: Mutable; symptom: string }): void {
  const evidence = evidenceOf(knowledge, said)
  if (evidence) so.belief = believe(so.belief, evidence)
  if (said.type === 'fix') return fixDone(knowledge, said.key, { so, symptom })
  if (said.type !== 'check' && said.type !== 'cantTell') return
  so.done.add(said.key)
  if (so.proof === said.key) so.proof = null
  const check = knowledge.checkOf.get(said.key)
  if (said.type === 'check' && check) answeredWith(knowledge, { check, outcome: said.outcome }, so)
}
function answeredWith(knowledge: Index, { check, outcome }: { check: Check; outcome: string }, so: Mutable): void {
  const points = check.outcomes.find((o) => o.key === outcome)?.points ?? []
  const causes = causesIn(knowledge, points)
  for (const i of causes) {
    speaks(so.signs, i, check.sign)
    so.pointed.add(i)
    if (SHOWS.has(check.sign)) so.clear.delete(i)
  }
  // An answer that speaks for several fixes is no reason to do one of them over again.
  const fixes = new Set(causes.map((i) => groupOf(knowledge, i).key))
  if (fixes.size === 1) fixes.forEach((key) => so.again.add(key))
  if (SHOWS.has(check.sign)) {
    const one = onlyFix(knowledge, causes, so.belief)
    if (one !== null) so.shown = [...so.shown, one]
    // What it would have shown and did not is well; what was seen there before is right by now.
    const well = shownBy(knowledge, check).filter((i) => !causes.includes(i))
    well.forEach((i) => so.clear.add(i))
    so.shown = so.shown.filter((i) => !well.includes(i))
  }
  // A fresh tip that did not help speaks for what feels the same: what lies upstream.
  if (check.mends && check.sign === 'swap' && causes.length === 0)
    knowledge.causes.forEach((c, i) => (c.at === 'liner' ? speaks(so.signs, i, 'swap') : undefined))
}
const FEW = 2
/** Causes that an answer of it shows by themselves, and not among many. */
const shownBy = (knowledge: Index, check: Check): number[] =>
  check.outcomes.flatMap((o) => {
    const causes = causesIn(knowledge, o.points)
    const isOne = causes.length <= FEW || new Set(causes.map((i) => groupOf(knowledge, i))).size === 1
    return isOne ? causes : []
  })
/** So much of what an answer speaks for is put right by one fix: that is what was seen. */
const ONE = 0.8
/** The likeliest cause of the fix that an answer comes down to; null: it leaves several. */
function onlyFix(knowledge: Index, causes: readonly number[], belief: Belief): number | null {
  const weights = weightsOf(belief)
  const [one] = [...causes].sort((a, b) => (weights[b] ?? 0) - (weights[a] ?? 0))
  if (one === undefined) return null
  const group = groupOf(knowledge, one)
  const ofIt = causes.filter((i) => group.causes.includes(i))
  return chanceAmong(weights, ofIt) >= ONE * chanceAmong(weights, causes) ? one : null
}
/** By cause, whether it was mended or not. */
const weightsOf = (belief: Belief) => marginals({ ...belief, fixed: new Set() })
function fixDone(knowledge: Index, key: string, { so, symptom }: { so: Mutable; symptom: string }): void {
  so.fixedTimes.set(key, (so.fixedTimes.get(key) ?? 0) + 1)
  so.again.delete(key)
  const mended = groupNamed(knowledge, key)?.causes ?? []
  so.shown = so.shown.filter((i) => !mended.includes(i))
  so.known = so.known.filter((i) => !mended.includes(i))
  const weights = weightsOf(so.belief)
  const likeliest = [...mended].sort((a, b) => (weights[b] ?? 0) - (weights[a] ?? 0))
  const proof = likeliest.flatMap((i) => knowledge.causes[i]?.fix.proof ?? [])[0]
  const check = proof === undefined ? undefined : knowledge.checkOf.get(proof)
  so.proof = check && isFor(check, symptom) ? check.key : null
}

export function evidenceOf(knowledge: Index, said: Said): Evidence | null {
  if (said.type === 'check' || said.type === 'symptom') return said
  if (said.type === 'cantTell' || said.type === 'notSo') return null
  const group = groupNamed(knowledge, said.key)
  return group ? { type: 'fixed', causes: group.causes.map((i) => knowledge.causes[i]?.key ?? '') } : null
}
