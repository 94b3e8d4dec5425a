import { believe, marginals, outcomeChance, type Belief, type Index } from './belief.ts'
import { FALSE_SIGN, fixMinutes, minutesOf, type Cause, type Check, type Sign } from './knowledge.ts'

/** A fix, and all causes it puts right: a new liner mends it however it was hurt. */
export interface FixGroup {
  key: string
  causes: readonly number[]
  minutes: number
}
export type Step = { kind: 'check'; check: Check } | { kind: 'fix'; group: FixGroup; cause: Cause }
export interface Planned {
  step: Step
  /** Minutes till it runs again, if this is done next. */
  expectedMin: number
}

/** To see that it runs: feed free, strike once. */
export const CLOSE_MIN = 0.5
/** Nothing of it was it: help is called, and that takes so long. A guess. */
const LOST_MIN = 60
const FIX_WORKS = 0.95
/** What a fix that fails costs on average: it is looked for again. */
const AGAIN_MIN = (1 - FIX_WORKS) * 20
const mean = (list: readonly number[]) => list.reduce((a, b) => a + b, 0) / Math.max(1, list.length)
/** Less likely than this a cause is not planned for. */
const NEGLIGIBLE = 0.01
const DONE_SHARE = 0.01
/** Looked ahead no further than so many moves. */
const MOST_MOVES = 24

export const fixKey = ({ fix, key }: Cause): string => (fix.act ? `${fix.act} ${fix.position ?? ''}` : key)
const groups = new WeakMap<Index, readonly FixGroup[]>()
/** Fixes of a knowledge. */
export function fixGroups(knowledge: Index): readonly FixGroup[] {
  const known = groups.get(knowledge)
  if (known) return known
  const by = new Map<string, number[]>()
  knowledge.causes.forEach((c, i) => by.set(fixKey(c), [...(by.get(fixKey(c)) ?? []), i]))
  const made = [...by].map(([key, causes]) => ({
    key,
    causes,
    minutes: Math.max(...causes.map((i) => fixMinutes(knowledge.causes[i] as Cause))),
  }))
  groups.set(knowledge, made)
  return made
}

export interface PlanAt {
  belief: Belief
  /** Checks that were answered, or cannot be answered here. */
  done: ReadonlySet<string>
  /** Kinds of sign that spoke for a cause so far, by cause; state of the gun counted in. */
  signs?: ReadonlyMap<number, ReadonlySet<Sign>>
  /** How often each fix was done while the trouble stayed. */
  fixedTimes?: ReadonlyMap<string, number>
}

const isAskable = (at: PlanAt, check: Check) => !at.done.has(check.key) && !check.notFor?.includes(at.belief.symptom)

interface Move {
  step: Step
  minutes: number
  /** Minutes of fixes it sends one to by mistake, on average. */
  wastedMin: number
  /** Chance that it shows, or mends, each cause where that is there. */
  hits: Float64Array
}
const movesOf = new WeakMap<Index, readonly Move[]>()
/** Everything that can be done, with what it hits. */
function allMoves(knowledge: Index): readonly Move[] {
  const known = movesOf.get(knowledge)
  if (known) return known
  const checks = knowledge.checks.map((check): Move => {
    const last = check.outcomes.length - 1
    const rows = knowledge.chances.get(check.key) ?? []
    const points = new Set(check.outcomes.flatMap((o) => o.points))
    const hits = Float64Array.from(knowledge.causes, (c, i) => (points.has(c.key) ? 1 - (rows[i]?.[last] ?? 1) : 0))
    const wasted = check.mends
      ? 0
      : mean([...points].map((p) => fixMinutes(knowledge.causes[knowledge.causeAt.get(p) ?? 0] as Cause)))
    return { step: { kind: 'check', check }, minutes: minutesOf(check), wastedMin: FALSE_SIGN * wasted, hits }
  })
  const fixes = fixGroups(knowledge).map((group): Move => {
    const hits = new Float64Array(knowledge.causes.length)
    for (const i of group.causes) hits[i] = FIX_WORKS
    return {
      step: { kind: 'fix', group, cause: knowledge.causes[group.causes[0] ?? 0] as Cause },
      minutes: group.minutes + CLOSE_MIN,
      wastedMin: 0,
      hits,
    }
  })
  const made = [...checks, ...fixes]
  movesOf.set(knowledge, made)
  return made
}

/**
 * Minutes till it runs again by the ratio rule: what hits most for its minutes comes first, E = Σ minutes · P(not hit before) + Σ P(hit by a check) ·
 * minutes of its fix + P(none) · 60. Optimal for one fault and checks that are independent; here an estimate that looks ahead.
 */
export function ratioMinutes(at: PlanAt): number {
  const { knowledge } = at.belief
  const left = Float64Array.from(marginals(at.belief), (m, i) => (at.belief.fixed.has(i) ? m * 0.5 : m))
  const total = left.reduce((a, b) => a + b, 0)
  if (!(total > 0)) return 0
  left.forEach((m, i) => (left[i] = m / total))
  const live = left.reduce<number[]>((list, m, i) => (m > NEGLIGIBLE ? [...list, i] : list), [])
  const open = allMoves(knowledge).filter(
    (m) => (m.step.kind === 'fix' || isAskable(at, m.step.check)) && live.some((i) => (m.hits[i] ?? 0) > 0),
  )
  let [expected, standing] = [0, live.reduce((sum, i) => sum + (left[i] ?? 0), 0)]
  for (let n = 0; n < MOST_MOVES && standing > DONE_SHARE; n++) {
    let [best, bestRatio]: [Move | null, number] = [null, 0]
    for (const move of open) {
      let hit = 0
      for (const i of live) hit += (left[i] ?? 0) * (move.hits[i] ?? 0)
      const ratio = hit / move.minutes
      if (ratio > bestRatio) [best, bestRatio] = [move, ratio]
    }
    // Not worth its minutes any more: help is called.
    if (!best || bestRatio * LOST_MIN < standing) break
    // A false sign sends one to mend only as far as it is believed.
    const shown = (bestRatio * best.minutes) / Math.max(standing, 1e-9)
    expected += standing * (best.minutes + best.wastedMin * (shown / (shown + FALSE_SIGN)))
    for (const i of live) {
      const hit = (left[i] ?? 0) * (best.hits[i] ?? 0)
      if (best.step.kind === 'check')
        expected += hit * (fixMinutes(knowledge.causes[i] as Cause) + CLOSE_MIN + AGAIN_MIN)
      left[i] = (left[i] ?? 0) - hit
      standing -= hit
    }
    // A look is had once; a fix that failed may be done again.
    if (best.step.kind === 'check') open.splice(open.indexOf(best), 1)
  }
  return expected + Math.max(0, standing) * LOST_MIN
}

/** A fix this dear, or a word on the hand, wants two independent kinds of sign first. */
const DEAR_MIN = 10
const LIKELY = 0.05
const FAINT = 0.1
/** A fix that did not help twice is not offered again. */
const MOST_TIMES = 2
const isDear = ({ fix, kind }: Cause) => kind === 'hand' || fixMinutes({ fix }) > DEAR_MIN
/** Kinds of sign that spoke for what a fix puts right. */
export const signsFor = (at: Pick<PlanAt, 'signs'>, group: FixGroup): ReadonlySet<Sign> =>
  new Set(group.causes.flatMap((i) => [...(at.signs?.get(i) ?? [])]))
/** Whether a check is about what is likely of what a fix puts right; where none of it is, about any of it. */
function looksAt(group: FixGroup, marginal: Float64Array, knowledge: Index): (check: Check) => boolean {
  const likely = group.causes.filter((i) => (marginal[i] ?? 0) > LIKELY)
  const keys = new Set((likely.length > 0 ? likely : group.causes).map((i) => knowledge.causes[i]?.key ?? ''))
  return (check) => check.outcomes.some((o) => o.points.some((p) => keys.has(p)))
}

/**
 * Whether it may be done now. A cheap fix wants one sign that speaks for it, a dear one two independent kinds; where no further look is to be
 * had that is quicker than the fix, it may be done without.
 */
export function isBackedUp(at: PlanAt, group: FixGroup): boolean {
  const { knowledge } = at.belief
  const had = signsFor(at, group)
  const isOneDear = group.causes.some((i) => isDear(knowledge.causes[i] as Cause))
  if (had.size >= (isOneDear ? 2 : 1)) return true
  const marginal = marginals(at.belief)
  // Nothing speaks for it and what was looked at speaks against it.
  if (had.size === 0 && group.causes.reduce((sum, i) => sum + (marginal[i] ?? 0), 0) < FAINT) return false
  const isAbout = looksAt(group, marginal, knowledge)
  return !knowledge.checks.some(
    (c) =>
      isAskable(at, c) && !had.has(c.sign) && (isOneDear || minutesOf(c) < group.minutes + CLOSE_MIN) && isAbout(c),
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
  const ranked = allMoves(knowledge)
    .map((move) => ({ move, ratio: hitOf(move, marginal) / move.minutes }))
    .filter(({ ratio }) => ratio > 0)
    .sort((a, b) => b.ratio - a.ratio)
  const open = ranked.filter(({ move }) => isAllowed(at, move))
  const fixes = open.filter(({ move }) => move.step.kind === 'fix').slice(0, MOST_FIXES)
  const few = [...new Set([...open.slice(0, CANDIDATES), ...fixes])]
  const wanted = confirming(at, marginal)
  const left = wanted ? few.filter(({ move }) => wanted(move)) : []
  return (left.length > 0 ? left : few)
    .map(({ move }) => ({
      step: withLikeliest(move.step, marginal, knowledge),
      expectedMin: move.minutes + after(at, move),
    }))
    .sort((a, b) => a.expectedMin - b.expectedMin)
}

/** So likely it is what would be mended next, were it not dear: then what is looked at is what speaks for or against just that. */
const NEARLY = 0.75
function confirming(at: PlanAt, marginal: Float64Array): ((move: Move) => boolean) | null {
  const { knowledge } = at.belief
  const chance = (g: FixGroup) => g.causes.reduce((sum, i) => sum + (marginal[i] ?? 0), 0)
  const group = fixGroups(knowledge).find((g) => chance(g) > NEARLY)
  if (!group || isBackedUp(at, group)) return null
  const had = signsFor(at, group)
  const isAbout = looksAt(group, marginal, knowledge)
  return ({ step }) => step.kind === 'check' && !had.has(step.check.sign) && isAbout(step.check)
}
function hitOf(move: Move, marginal: Float64Array): number {
  let hit = 0
  marginal.forEach((m, i) => (hit += m > NEGLIGIBLE ? m * (move.hits[i] ?? 0) : 0))
  return hit
}
function isAllowed(at: PlanAt, { step }: Move): boolean {
  if (step.kind === 'check') return isAskable(at, step.check)
  return (at.fixedTimes?.get(step.group.key) ?? 0) < MOST_TIMES && isBackedUp(at, step.group)
}
/** A fix is told by the likeliest of the causes it mends. */
function withLikeliest(step: Step, marginal: Float64Array, knowledge: Index): Step {
  if (step.kind === 'check') return step
  const best = [...step.group.causes].sort((a, b) => (marginal[b] ?? 0) - (marginal[a] ?? 0))[0] ?? 0
  return { ...step, cause: knowledge.causes[best] as Cause }
}

/** Expected minutes after it is done. */
function after(at: PlanAt, { step }: Move): number {
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
    let chance = 0
    belief.sets.forEach((set, h) => {
      const w = belief.weights[h] ?? 0
      if (w > 0) chance += w * outcomeChance(knowledge, check, { set, outcome: o })
    })
    // A swap that helps is the fix.
    if (chance <= 0 || (check.mends && outcome.points.length > 0)) return sum
    const then = believe(belief, { type: 'check', key: check.key, outcome: outcome.key })
    return sum + chance * ratioMinutes({ ...at, belief: then, done })
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
