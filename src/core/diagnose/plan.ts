import { believe, chanceAmong, marginals, supposing } from './belief.ts'
import { fixMinutes, minutesOf, type Cause, type Check } from './knowledge.ts'
import { allMoves, CLOSE_MIN, FIX_WORKS, fixGroups, stepKey, type FixGroup, type Move, type Step } from './moves.ts'
import {
  isAllowed,
  isBackedUp,
  isGlance,
  isLastResort,
  looksAt,
  settledFirst,
  standingOf,
  withLikeliest,
  type Standing,
} from './rules.ts'
import { AGAIN_MIN, hitsOf, isOneDear, signsFor, LOST_MIN, NEGLIGIBLE, ratioMinutes, type PlanAt } from './ratio.ts'

export interface Planned {
  step: Step
  /** Minutes till it runs again, if this is done next. */
  expectedMin: number
}

/** So many of what the ratio rule likes best are looked ahead at. */
const CANDIDATES = 14
const MOST_FIXES = 4

/**
 * What to do next. First what no reckoning is needed for (`settledFirst`); then, of what may be done now (`isAllowed`) and hits most for its
 * minutes, the one with the least expected minutes after it, Q = minutes + Σ P(outcome) · E(then); one step of look-ahead over the ratio rule,
 * which alone is not best where a check is shared by several causes or only narrows. Ties: as they stand in the knowledge. Empty: nothing is
 * left that could tell or mend.
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
  const now = standingOf(at, marginal)
  const timely = ranked.filter(({ move }) => isAllowed(at, move, now))
  const open = timely.length > 0 ? timely : ranked.filter(({ move }) => isLastResort(at, move, now))
  const fixes = open.filter(({ move }) => move.step.kind === 'fix').slice(0, MOST_FIXES)
  const few = [...new Set([...open.slice(0, CANDIDATES), ...fixes])]
  const wanted = confirming(at, now)
  const left = wanted ? few.filter(({ move }) => wanted(move)) : []
  const valued = (left.length > 0 ? left : few).map(({ move }) => ({
    hit: hitsOf(move, likely),
    planned: {
      step: withLikeliest(move.step, marginal, knowledge),
      expectedMin: move.minutes + after(at, move),
    },
  }))
  const plan = believable(valued)
  const first = settledFirst(at, now)
  return first ? [valuedAs(at, first), ...plan.filter((p) => stepKey(p.step) !== stepKey(first))] : plan
}
const valuedAs = (at: PlanAt, step: Step): Planned => ({
  step,
  expectedMin: step.kind === 'check' ? expectedOf(at, step.check) : expectedOfFix(at, step),
})

interface Valued {
  planned: Planned
  hit: number
}
/** Closer than this two ways are alike: the reckoning is no finer. */
const ALIKE = 1.015
/** A look at what hardly anybody would think of gives way sooner. */
const ODD = { hit: 0.03, alike: 1.04 }
/** The least minutes first; of ways that are alike the one about what is likeliest, which an old hand would take. */
function believable(valued: readonly Valued[]): Planned[] {
  const sorted = [...valued].sort((a, b) => a.planned.expectedMin - b.planned.expectedMin)
  const best = sorted[0]?.planned.expectedMin ?? 0
  const range = (sorted[0]?.hit ?? 1) < ODD.hit ? ODD.alike : ALIKE
  const [first] = sorted.filter((v) => v.planned.expectedMin <= best * range).sort((a, b) => b.hit - a.hit)
  return (first ? [first, ...sorted.filter((v) => v !== first)] : sorted).map((v) => v.planned)
}

/** So likely it is what would be mended next, were it not too early: then what is looked at is what speaks for or against just that. */
const NEARLY = { dear: 0.75, cheap: 0.5 }
function confirming(at: PlanAt, now: Standing): ((move: Move) => boolean) | null {
  const { knowledge } = at.belief
  const isNearly = (g: FixGroup) =>
    chanceAmong(now.marginal, g.causes) > (isOneDear(knowledge, g) ? NEARLY.dear : NEARLY.cheap)
  const move = allMoves(knowledge).find(({ step }) => step.kind === 'fix' && isNearly(step.group))
  if (move?.step.kind !== 'fix' || isAllowed(at, move, now)) return null
  const { group } = move.step
  const had = isBackedUp(at, group, now.marginal) ? null : signsFor(at, group)
  const isOfIt = looksAt(group, now.marginal, knowledge)
  // What shows it by itself is had whatever spoke before, and a glance at something else that is likely is no detour.
  return ({ step }) =>
    step.kind === 'check' &&
    (isGlance(at, step.check, now) ||
      (isOfIt(step.check) && (!had?.has(step.check.sign) || minutesOf(step.check) <= 1)))
}

/** Where nothing is left to do: what stands all the same, the likeliest first, so that the last page names it. */
export function leftStanding(at: PlanAt, most = 2): { group: FixGroup; cause: Cause; chance: number }[] {
  const { knowledge } = at.belief
  const { marginal, named } = standingOf(at)
  const ofNamed = fixGroups(knowledge).filter((g) => g.causes.some((i) => named.has(i)))
  return ofNamed
    .map((group) => ({ group, chance: chanceAmong(marginal, group.causes) }))
    .sort((a, b) => b.chance - a.chance)
    .slice(0, most)
    .flatMap(({ group, chance }) => {
      const step = withLikeliest({ kind: 'fix', group, cause: knowledge.causes[0] as Cause }, marginal, knowledge)
      return step.kind === 'fix' && chance > NEGLIGIBLE ? [{ group, cause: step.cause, chance }] : []
    })
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
