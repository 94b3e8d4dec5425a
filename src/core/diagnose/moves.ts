import { type Position } from '@core/path/columns.ts'
import { causesIn, type Index } from './belief.ts'
import { FALSE_SIGN, fixMinutes, minutesOf, type Cause, type Check } from './knowledge.ts'

/** A fix, and all causes it puts right: a new liner mends it however it was hurt. */
export interface FixGroup {
  key: string
  causes: readonly number[]
  minutes: number
}
/** What tells steps apart. */
export const stepKey = (step: Step): string => (step.kind === 'check' ? step.check.key : `fix ${step.group.key}`)
export type Step = { kind: 'check'; check: Check } | { kind: 'fix'; group: FixGroup; cause: Cause }

/** To see that it runs: feed free, strike once. */
export const CLOSE_MIN = 0.5
export const FIX_WORKS = 0.95
const mean = (list: readonly number[]) => list.reduce((a, b) => a + b, 0) / Math.max(1, list.length)

export const actKey = (act: 'changed' | 'cleaned', position: Position | null) => `${act} ${position ?? ''}`
export const fixKey = ({ fix, key }: Cause): string => (fix.act ? actKey(fix.act, fix.position) : (fix.one ?? key))

/** To read a step and answer it takes time too: ten looks at next to nothing are no bargain. A guess. */
const ASK_MIN = 0.2

/** Works out once for each knowledge what is asked for at every step. */
function ofKnowledge<T>(make: (knowledge: Index) => T): (knowledge: Index) => T {
  const known = new WeakMap<Index, T>()
  return (knowledge) => {
    const made = known.get(knowledge) ?? make(knowledge)
    known.set(knowledge, made)
    return made
  }
}

/** Fixes of a knowledge. */
export const fixGroups = ofKnowledge((knowledge): readonly FixGroup[] => {
  const by = new Map<string, number[]>()
  knowledge.causes.forEach((c, i) => by.set(fixKey(c), [...(by.get(fixKey(c)) ?? []), i]))
  return [...by].map(([key, causes]) => ({
    key,
    causes,
    minutes: Math.max(...causes.map((i) => fixMinutes(knowledge.causes[i] as Cause))),
  }))
})

/** A fix by its key. */
export const groupNamed = (knowledge: Index, key: string): FixGroup | undefined => groupsByKey(knowledge).get(key)
const groupsByKey = ofKnowledge(
  (knowledge): ReadonlyMap<string, FixGroup> => new Map(fixGroups(knowledge).map((g) => [g.key, g])),
)

/** The fix that puts a cause right. */
export const groupOf = (knowledge: Index, cause: number): FixGroup => {
  const group = groupsByCause(knowledge)[cause]
  if (!group) throw new RangeError(`groupOf: there is no cause ${cause}`)
  return group
}
const groupsByCause = ofKnowledge((knowledge): readonly (FixGroup | undefined)[] =>
  knowledge.causes.map((_, i) => fixGroups(knowledge).find((g) => g.causes.includes(i))),
)

/** By check, all causes that its answers speak for. */
export const aboutOf = ofKnowledge(
  (knowledge): ReadonlyMap<string, ReadonlySet<number>> =>
    new Map(knowledge.checks.map((c) => [c.key, new Set(c.outcomes.flatMap((o) => causesIn(knowledge, o.points)))])),
)

export interface Move {
  step: Step
  minutes: number
  /** Minutes of fixes it sends one to by mistake, on average. */
  wastedMin: number
  /** Causes it shows, or mends, and the chance that it does where each is there. */
  hits: readonly { cause: number; chance: number }[]
}
/** Everything that can be done, with what it hits. */
export const allMoves = ofKnowledge((knowledge): readonly Move[] => [
  ...knowledge.checks.map((check) => lookMove(knowledge, check)),
  ...fixGroups(knowledge).map((group): Move => ({
    step: { kind: 'fix', group, cause: knowledge.causes[group.causes[0] ?? 0] as Cause },
    minutes: group.minutes + CLOSE_MIN,
    wastedMin: 0,
    hits: group.causes.map((cause) => ({ cause, chance: FIX_WORKS })),
  })),
])
function lookMove(knowledge: Index, check: Check): Move {
  const last = check.outcomes.length - 1
  const rows = knowledge.chances.get(check.key) ?? []
  const points = [...(aboutOf(knowledge).get(check.key) ?? [])]
  const wasted = check.mends ? 0 : mean(points.map((i) => fixMinutes(knowledge.causes[i] as Cause)))
  return {
    step: { kind: 'check', check },
    minutes: minutesOf(check) + ASK_MIN,
    wastedMin: FALSE_SIGN * wasted,
    hits: points.map((cause) => ({ cause, chance: 1 - (rows[cause]?.[last] ?? 1) })),
  }
}
/** By cause, the moves that hit it, as their places among all. */
export const movesAt = ofKnowledge((knowledge): readonly (readonly number[])[] => {
  const at = knowledge.causes.map((): number[] => [])
  allMoves(knowledge).forEach((move, m) => move.hits.forEach(({ cause }) => at[cause]?.push(m)))
  return at
})
/** By cause, the fix that mends it. */
export const fixMoves = ofKnowledge((knowledge): readonly (Move | undefined)[] => {
  const fixes = allMoves(knowledge).filter((m) => m.step.kind === 'fix')
  return knowledge.causes.map((_, i) => fixes.find((m) => m.hits.some((h) => h.cause === i)))
})
