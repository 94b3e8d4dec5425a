import { believe, marginals, supposing, type Index } from './belief.ts'
import { fixMinutes, isAbout, minutesOf, type Cause, type Check, type Sign } from './knowledge.ts'
import { allMoves, CLOSE_MIN, FIX_WORKS, fixGroups, type FixGroup, type Move, type Step } from './moves.ts'
import {
  AGAIN_MIN,
  hasSigns,
  hitsOf,
  isAskable,
  isOneDear,
  signsFor,
  LOST_MIN,
  NEGLIGIBLE,
  ratioMinutes,
  type PlanAt,
} from './ratio.ts'

export interface Planned {
  step: Step
  /** Minutes till it runs again, if this is done next. */
  expectedMin: number
}

const LIKELY = 0.05
const FAINT = 0.1
/** A fix that did not help twice is not offered again. */
const MOST_TIMES = 2
/** Whether a check is about what is likely of what a fix puts right; where none of it is, about any of it. */
function looksAt(group: FixGroup, marginal: Float64Array, knowledge: Index): (check: Check) => boolean {
  const likely = group.causes.filter((i) => (marginal[i] ?? 0) > LIKELY)
  const keys = new Set((likely.length > 0 ? likely : group.causes).map((i) => knowledge.causes[i]?.key ?? ''))
  return (check) => isAbout(check, keys)
}

/**
 * Whether it may be done now. A cheap fix wants one sign that speaks for it, a dear one two independent kinds; where no further look is to be
 * had that is quicker than the fix, it may be done without.
 */
export function isBackedUp(at: PlanAt, group: FixGroup, marginal = marginals(at.belief)): boolean {
  const { knowledge } = at.belief
  const had = signsFor(at, group)
  if (hasSigns(at, group)) return true
  const isDear = isOneDear(knowledge, group)
  // Nothing speaks for it and what was looked at speaks against it.
  if (had.size === 0 && group.causes.reduce((sum, i) => sum + (marginal[i] ?? 0), 0) < FAINT) return false
  const isOfIt = looksAt(group, marginal, knowledge)
  return !knowledge.checks.some(
    (c) => isAskable(at, c) && !had.has(c.sign) && (isDear || minutesOf(c) < group.minutes + CLOSE_MIN) && isOfIt(c),
  )
}

/** So many of what the ratio rule likes best are looked ahead at. */
const CANDIDATES = 14
const MOST_FIXES = 4

/**
 * What to do next: of what hits most for its minutes, the one with the least expected minutes after it, Q = minutes + Σ P(outcome) · E(then);
 * one step of look-ahead over the ratio rule, which alone is not best where a check is shared by several causes or only narrows. Ties: as
 * they stand in the knowledge. Empty: nothing is left that could tell or mend.
 */
export function planned(at: PlanAt): Planned[] {
  const { belief } = at
  const { knowledge } = belief
  const marginal = marginals(belief)
  const likely = marginal.map((m) => (m > NEGLIGIBLE ? m : 0))
  const ranked = allMoves(knowledge)
    .map((move) => ({ move, ratio: hitsOf(move, likely) / move.minutes }))
    .filter(({ ratio }) => ratio > 0)
    .sort((a, b) => b.ratio - a.ratio)
  const open = ranked.filter(({ move }) => isAllowed(at, move, marginal))
  const fixes = open.filter(({ move }) => move.step.kind === 'fix').slice(0, MOST_FIXES)
  const few = [...new Set([...open.slice(0, CANDIDATES), ...fixes])]
  const wanted = confirming(at, marginal)
  const left = wanted ? few.filter(({ move }) => wanted(move)) : []
  const valued = (left.length > 0 ? left : few).map(({ move }) => ({
    hit: hitsOf(move, likely),
    planned: {
      step: withLikeliest(move.step, marginal, knowledge),
      expectedMin: move.minutes + after(at, move),
    },
  }))
  return believable(at, valued, marginal)
}

interface Valued {
  planned: Planned
  hit: number
}
/** Closer than this two ways are alike: the reckoning is no finer. */
const ALIKE = 1.015
/** A look at what hardly anybody would think of gives way sooner. */
const ODD = { hit: 0.03, alike: 1.04 }
/** What is seen to be wrong and put right in two minutes is put right, where that costs no more than this over the best. */
const SEEN = { overBest: 1.04, mostMin: 2.5 }
/** What is as likely as this and seen in half a minute is looked at before. */
const RIVAL = { mostMin: 0.5, least: 0.2 }
/** The least minutes first; of ways that are alike the one about what is likeliest, which an old hand would take. */
function believable(at: PlanAt, valued: readonly Valued[], marginal: Float64Array): Planned[] {
  const sorted = [...valued].sort((a, b) => a.planned.expectedMin - b.planned.expectedMin)
  const best = sorted[0]?.planned.expectedMin ?? 0
  const isSeen = ({ planned: { step, expectedMin } }: Valued) =>
    step.kind === 'fix' &&
    step.group.minutes <= SEEN.mostMin &&
    expectedMin <= best * SEEN.overBest &&
    signsFor(at, step.group).size > 0 &&
    !hasOtherLook(at, step.group, { marginal, ...RIVAL })
  const range = (sorted[0]?.hit ?? 1) < ODD.hit ? ODD.alike : ALIKE
  const alike = sorted.filter((v) => v.planned.expectedMin <= best * range).sort((a, b) => b.hit - a.hit)
  const first = sorted.find(isSeen) ?? alike[0]
  return (first ? [first, ...sorted.filter((v) => v !== first)] : sorted).map((v) => v.planned)
}

/** So likely it is what would be mended next, were it not dear: then what is looked at is what speaks for or against just that. */
const NEARLY = 0.75
function confirming(at: PlanAt, marginal: Float64Array): ((move: Move) => boolean) | null {
  const { knowledge } = at.belief
  const chance = (g: FixGroup) => g.causes.reduce((sum, i) => sum + (marginal[i] ?? 0), 0)
  const group = fixGroups(knowledge).find((g) => chance(g) > NEARLY)
  if (!group || isBackedUp(at, group, marginal)) return null
  const had = signsFor(at, group)
  const isOfIt = looksAt(group, marginal, knowledge)
  return ({ step }) => step.kind === 'check' && !had.has(step.check.sign) && isOfIt(step.check)
}
function isAllowed(at: PlanAt, { step }: Move, marginal: Float64Array): boolean {
  if (step.kind === 'check') return isAskable(at, step.check)
  // The dearest fix waits for the free looks, and for a free try of its own.
  if (step.group.minutes > DEAREST_MIN && hasFreeTry(at, step.group, marginal)) return false
  if (step.group.minutes > DEAREST_MIN && hasOtherLook(at, step.group, { marginal, ...FREE })) return false
  return (at.fixedTimes?.get(step.group.key) ?? 0) < MOST_TIMES && isBackedUp(at, step.group, marginal)
}
/** Signs that are tried out on the gun, and not only seen, read or said. */
const TRIED: ReadonlySet<Sign> = new Set(['test', 'feel', 'swap', 'arc'])
function hasFreeTry(at: PlanAt, group: FixGroup, marginal: Float64Array): boolean {
  if ([...signsFor(at, group)].some((sign) => TRIED.has(sign))) return false
  const isOfIt = looksAt(group, marginal, at.belief.knowledge)
  return at.belief.knowledge.checks.some(
    (c) => minutesOf(c) <= FREE.mostMin && TRIED.has(c.sign) && isAskable(at, c) && isOfIt(c),
  )
}
interface OtherLook {
  marginal: Float64Array
  /** Minutes of the look at most, and how likely what it shows is at least. */
  mostMin: number
  least: number
}
/** No tool, no part, a few seconds; and so unlikely it is not worth even that. */
const FREE = { mostMin: 0.35, least: 0.006 }
const DEAREST_MIN = 20
/** Whether a quick look could still show something else of what the sign names. */
function hasOtherLook(at: PlanAt, group: FixGroup, { marginal, mostMin, least }: OtherLook): boolean {
  const { knowledge, symptom } = at.belief
  const listed = knowledge.symptoms.find((s) => s.key === symptom)?.causes ?? []
  const others = new Set(
    listed.filter((key) => {
      const i = knowledge.causeAt.get(key) ?? -1
      return !group.causes.includes(i) && (marginal[i] ?? 0) > least
    }),
  )
  return knowledge.checks.some((c) => minutesOf(c) <= mostMin && isAskable(at, c) && isAbout(c, others))
}
/** A fix is told by the likeliest of the causes it mends. */
function withLikeliest(step: Step, marginal: Float64Array, knowledge: Index): Step {
  if (step.kind === 'check') return step
  const best = [...step.group.causes].sort((a, b) => (marginal[b] ?? 0) - (marginal[a] ?? 0))[0] ?? 0
  return { ...step, cause: knowledge.causes[best] as Cause }
}

/** Minutes till it runs again, if this look is had next. */
export function expectedOf(at: PlanAt, check: Check): number {
  const move = allMoves(at.belief.knowledge).find((m) => m.step.kind === 'check' && m.step.check.key === check.key)
  if (!move) throw new RangeError(`expectedOf: expected a check of this knowledge, got ${check.key}`)
  return move.minutes + after(at, move)
}

/** Minutes till it runs again, if this is mended next. */
export const expectedOfFix = (at: PlanAt, step: Extract<Step, { kind: 'fix' }>): number =>
  step.group.minutes + CLOSE_MIN + after(at, { step })

/** Expected minutes after it is done. */
function after(at: PlanAt, { step }: Pick<Move, 'step'>): number {
  const { belief } = at
  const { knowledge } = belief
  if (step.kind === 'fix') {
    const causes = step.group.causes.map((i) => knowledge.causes[i]?.key ?? '')
    const isMended = (set: readonly number[]) => set.every((i) => step.group.causes.includes(i) || belief.fixed.has(i))
    let mended = 0
    belief.sets.forEach((set, h) => {
      const isNew = isMended(set) && set.some((i) => step.group.causes.includes(i))
      if (isNew) mended += (belief.weights[h] ?? 0) * FIX_WORKS
    })
    return (1 - mended) * ratioMinutes({ ...at, belief: believe(belief, { type: 'fixed', causes }) })
  }
  const { check } = step
  const done = new Set([...at.done, check.key])
  return check.outcomes.reduce((sum, outcome, o) => {
    const then = supposing(belief, check, o)
    // A swap that helps is the fix.
    if (then.chance <= 0 || (check.mends && outcome.points.length > 0)) return sum
    const causes = outcome.points.flatMap((p) => knowledge.causeAt.get(p) ?? [])
    const supposed = { sign: check.sign, causes }
    return sum + then.chance * ratioMinutes({ ...at, belief: then.belief, done, supposed })
  }, 0)
}

/**
 * Minutes of a fixed order from here, by the same reckoning as `ratioMinutes`: the causes a symptom names, each looked at by its own check and
 * then mended, the quickest first; what its checks miss is mended blind at the end. The next three of it, to stand beside.
 */
export function quickOrder(
  at: PlanAt,
  ownCheckOf: (cause: string) => Check | null,
): { minutes: number; next: Cause[] } {
  const { belief } = at
  const { knowledge } = belief
  const symptom = knowledge.symptoms.find((s) => s.key === belief.symptom)
  const left = marginals(belief)
  const total = left.reduce((a, b) => a + b, 0) || 1
  const open = (symptom?.causes ?? []).flatMap((key) => {
    const i = knowledge.causeAt.get(key) ?? -1
    const cause = knowledge.causes[i]
    const check = ownCheckOf(key)
    return cause && !belief.fixed.has(i) && (left[i] ?? 0) > 0 ? [{ i, cause, check }] : []
  })
  const cost = (o: (typeof open)[number]) => (o.check ? minutesOf(o.check) : 0) + fixMinutes(o.cause)
  open.sort((a, b) => cost(a) - cost(b))
  const asked = new Set(at.done)
  let [minutes, standing] = [0, 1]
  for (const { i, cause, check } of open) {
    const share = (left[i] ?? 0) / total
    if (check && !asked.has(check.key)) minutes += standing * minutesOf(check)
    if (check) asked.add(check.key)
    const hit = share * (check?.shows ?? FIX_WORKS)
    minutes += hit * (fixMinutes(cause) + CLOSE_MIN + AGAIN_MIN)
    standing = Math.max(0, standing - hit)
  }
  return { minutes: minutes + standing * (LOST_MIN / 2), next: open.slice(0, 3).map((o) => o.cause) }
}
