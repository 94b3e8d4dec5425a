import { type SchoolOf } from '@core/houserule/schools.ts'
import { marginals, type Belief, type Index } from './belief.ts'
import { FALSE_SIGN, fixMinutes, type Cause, type Check, type Sign } from './knowledge.ts'
import { allMoves, CLOSE_MIN, FIX_WORKS, fixMoves, movesAt, type FixGroup, type Move } from './moves.ts'

export interface PlanAt {
  belief: Belief
  /** Checks that were answered, or cannot be answered here. */
  done: ReadonlySet<string>
  /** Kinds of sign that spoke for a cause so far, by cause; state of the gun counted in. */
  signs?: ReadonlyMap<number, ReadonlySet<Sign>>
  /** How often each fix was done while the trouble stayed. */
  fixedTimes?: ReadonlyMap<string, number>
  /** Causes an answer pointed at, whether the symptom lists them or not. */
  pointed?: ReadonlySet<number>
  /** Seen to be so, the latest last. */
  shown?: readonly number[]
  /** Found on this gun before it stopped, and not put right. */
  known?: readonly number[]
  /** Looked at and found well. */
  clear?: ReadonlySet<number>
  /** Fixes that a later look spoke for once more. */
  again?: ReadonlySet<string>
  /** The look that shows whether the last fix put it right. */
  proof?: string | null
  /** Whether technique waits for a glance at the equipment, for all looks at it, or for none (D26). */
  blame?: SchoolOf<'D26'>
  /** A sign that is only thought of: what it would speak for, were it seen. */
  supposed?: { sign: Sign; causes: readonly number[] }
}
/** Kinds of sign that spoke for what a fix puts right. */
export const signsFor = (at: Pick<PlanAt, 'signs' | 'supposed'>, group: FixGroup): ReadonlySet<Sign> => {
  const kinds = new Set<Sign>()
  for (const i of group.causes) at.signs?.get(i)?.forEach((sign) => kinds.add(sign))
  if (at.supposed && group.causes.some((i) => at.supposed?.causes.includes(i))) kinds.add(at.supposed.sign)
  return kinds
}
/** A fix this dear, or a word on the hand, wants two independent kinds of sign first; any other one. */
const DEAR_MIN = 10
const isDear = ({ fix, kind }: Cause) => kind === 'hand' || fixMinutes({ fix }) > DEAR_MIN
export const isOneDear = (knowledge: Index, group: FixGroup) =>
  group.causes.some((i) => isDear(knowledge.causes[i] as Cause))
export const hasSigns = (at: PlanAt, group: FixGroup): boolean =>
  signsFor(at, group).size >= (isOneDear(at.belief.knowledge, group) ? 2 : 1)
/** Whether a look has any sense with what is seen. */
export const isFor = (check: Pick<Check, 'notFor' | 'onlyFor'>, symptom: string): boolean =>
  !check.notFor?.includes(symptom) && (check.onlyFor?.includes(symptom) ?? true)
export const isAskable = (at: PlanAt, check: Check) =>
  !at.done.has(check.key) && isFor(check, at.belief.symptom) && (check.after === undefined || at.done.has(check.after))

/** Nothing of it was it: help is called, and that takes so long. A guess. */
export const LOST_MIN = 60
/** What a fix that fails costs on average: it is looked for again. */
export const AGAIN_MIN = (1 - FIX_WORKS) * 20
/** Less likely than this a cause is not planned for. */
export const NEGLIGIBLE = 0.01
const DONE_SHARE = 0.01
/** Looked ahead no further than so many moves. */
const MOST_MOVES = 24

/** How likely each cause still stands, as shares of 1, of one whose fix was done half; and how many faults there are on average. */
function standingShares({ fixed, ...belief }: Belief): { left: Float64Array; faults: number } {
  const left = marginals({ ...belief, fixed })
  for (const i of fixed) left[i] = (left[i] ?? 0) * 0.5
  let total = 0
  for (const m of left) total += m
  for (let i = 0; i < left.length; i++) {
    const share = (left[i] ?? 0) / total
    left[i] = share > NEGLIGIBLE ? share : 0
  }
  return { left, faults: Math.max(1, total) }
}
/** What a move hits of what stands. */
export const hitsOf = (move: Move, left: Float64Array): number => {
  let hit = 0
  for (const { cause, chance } of move.hits) hit += (left[cause] ?? 0) * chance
  return hit
}

/** Moves that may still be done and hit something, each with what it hits now. */
interface Table {
  moves: readonly Move[]
  open: number[]
  hit: Float64Array
  left: Float64Array
}
function tableOf(at: PlanAt, left: Float64Array): Table {
  const { knowledge } = at.belief
  const moves = allMoves(knowledge)
  const hit = new Float64Array(moves.length)
  const touched = new Set<number>()
  left.forEach((m, i) => m > 0 && movesAt(knowledge)[i]?.forEach((n) => touched.add(n)))
  const open = [...touched].filter((n) => {
    const move = moves[n] as Move
    hit[n] = hitsOf(move, left)
    return move.step.kind === 'fix' || isAskable(at, move.step.check)
  })
  return { moves, open: open.sort((a, b) => a - b), hit, left }
}
/** The one that hits most for its minutes; the first of equals. */
function bestOf({ moves, open, hit }: Table): number {
  let [best, bestRatio] = [-1, 0]
  for (const n of open) {
    const ratio = (hit[n] ?? 0) / (moves[n]?.minutes ?? 1)
    if (ratio > bestRatio) [best, bestRatio] = [n, ratio]
  }
  return best
}

/**
 * Minutes till it runs again by the ratio rule: what hits most for its minutes comes first, E = Σ minutes · P(not hit before) + Σ P(hit by a check) ·
 * minutes of its fix + P(none) · 60, for as many faults as there are on average. Optimal for one fault and checks that are independent; here an estimate that looks ahead.
 */
export function ratioMinutes(at: PlanAt): number {
  const { knowledge } = at.belief
  const { left, faults } = standingShares(at.belief)
  let standing = left.reduce((a, b) => a + b, 0)
  if (standing <= 0) return 0
  const table = tableOf(at, left)
  let expected = 0
  for (let n = 0; n < MOST_MOVES && standing > DONE_SHARE; n++) {
    const first = bestOf(table)
    if (first < 0) break
    const move = orItsFix(table.moves[first] as Move, { at, left, standing })
    const hit = hitsOf(move, left)
    // Not worth its minutes any more: help is called.
    if ((hit / move.minutes) * LOST_MIN < standing) break
    expected += cost(move, hit, standing) + mended(move, left, knowledge)
    standing -= hit
    take(move, table, knowledge)
    // A look is had once; a fix that failed may be done again.
    if (move.step.kind === 'check') table.open.splice(table.open.indexOf(first), 1)
  }
  return faults * (expected + Math.max(0, standing) * LOST_MIN)
}

/** Its own minutes for all that stands; a false sign sends one to mend only as far as it is believed. */
function cost({ minutes, wastedMin }: Move, hit: number, standing: number): number {
  const shown = hit / Math.max(standing, 1e-9)
  return standing * (minutes + wastedMin * (shown / (shown + FALSE_SIGN)))
}
/** Minutes of mending what a look shows; a fix has its own already. */
function mended({ step, hits }: Move, left: Float64Array, knowledge: Index): number {
  if (step.kind === 'fix') return 0
  let minutes = 0
  for (const { cause, chance } of hits) {
    const hit = (left[cause] ?? 0) * chance
    if (hit > 0) minutes += hit * (fixMinutes(knowledge.causes[cause] as Cause) + CLOSE_MIN + AGAIN_MIN)
  }
  return minutes
}
/** What it hits stands no more; who else hits that is counted anew. */
function take(move: Move, { moves, hit, left }: Table, knowledge: Index): void {
  const others = new Set<number>()
  for (const { cause, chance } of move.hits) {
    const before = left[cause] ?? 0
    if (before === 0) continue
    left[cause] = before * (1 - chance)
    movesAt(knowledge)[cause]?.forEach((n) => others.add(n))
  }
  for (const n of others) hit[n] = hitsOf(moves[n] as Move, left)
}

interface LeftAt {
  at: PlanAt
  left: Float64Array
  standing: number
}
/**
 * A look at what is all but sure is a look too many. Of p that the fix it would most likely send to mends, looking first takes c + p·f minutes,
 * mending at once f: the look is worth its c only while c < (1 − p)·f. Mended at once only where enough signs speak for it.
 */
function orItsFix(look: Move, { at, left, standing }: LeftAt): Move {
  if (look.step.kind === 'fix') return look
  let [likeliest, most] = [-1, 0]
  for (const { cause, chance } of look.hits) {
    const hit = (left[cause] ?? 0) * chance
    if (hit > most) [likeliest, most] = [cause, hit]
  }
  const fix = fixMoves(at.belief.knowledge)[likeliest]
  if (fix?.step.kind !== 'fix' || !hasSigns(at, fix.step.group)) return look
  const others = 1 - hitsOf(fix, left) / (standing * FIX_WORKS)
  return look.minutes >= others * fix.minutes ? fix : look
}
