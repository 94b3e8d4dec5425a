import { outcomeChances, usualShares, type Cause, type Check, type Knowledge } from './knowledge.ts'

/**
 * What is thought to be wrong: one cause, or two of those the symptom names, each with its weight. Weights sum to 1.
 * 1. Evidence only moves weight between what may be wrong; it never makes any of it impossible, and never loses mass.
 * 2. Pure: the same evidence in any order gives the same belief.
 */
export interface Belief {
  knowledge: Index
  symptom: string
  /** Indices of causes; one or two. */
  sets: readonly (readonly number[])[]
  weights: Float64Array
  /** Causes whose fix was done while the trouble stayed. */
  fixed: ReadonlySet<number>
}
export type Evidence =
  | { type: 'check'; key: string; outcome: string }
  | { type: 'symptom'; key: string; isThere: boolean }
  /** All causes that fix puts right were put right, and the trouble stayed. */
  | { type: 'fixed'; causes: readonly string[] }

/** A knowledge made ready to be asked often. */
export interface Index extends Knowledge {
  causeAt: ReadonlyMap<string, number>
  checkOf: ReadonlyMap<string, Check>
  /** Chances of each outcome by check and cause. */
  chances: ReadonlyMap<string, readonly (readonly number[])[]>
}
export function indexOf(knowledge: Knowledge): Index {
  return {
    ...knowledge,
    causeAt: new Map(knowledge.causes.map((c, i) => [c.key, i])),
    checkOf: new Map(knowledge.checks.map((c) => [c.key, c])),
    chances: new Map(
      knowledge.checks.map((check) => [check.key, knowledge.causes.map((c) => outcomeChances(check, c.key))]),
    ),
  }
}

/** Weight of causes the symptom does not name, all together. A guess. */
const UNLISTED = 0.02
/** A second fault stands with so much of the share it would have alone. A guess. */
const SECOND = 0.1
/** A fix that was done did not put it right all the same. */
const FIX_FAILS = 0.05
const SIGN = { listed: 0.8, other: 0.05 }
/** Nothing is impossible. */
const FLOOR = 1e-9

/**
 * The belief before anything was looked at: w(i) = share · factor over the causes the symptom names, 0.05 : 0.8 of it over the others, pairs of
 * named ones at a tenth of the product of their shares, what the gun says counted in once. `factors`: what the gun's own state says, by cause; 0 where it cannot be there.
 */
export function firstBelief(
  knowledge: Index,
  of: { symptom: string; shares?: ReadonlyMap<string, number>; factors?: ReadonlyMap<string, number> },
): Belief {
  const symptom = knowledge.symptoms.find((s) => s.key === of.symptom)
  if (!symptom) throw new RangeError(`firstBelief: there is no symptom ${of.symptom}`)
  const usual = usualShares(symptom)
  const listed = new Map(
    symptom.causes.map((key, i) => [knowledge.causeAt.get(key) ?? -1, of.shares?.get(key) ?? usual[i] ?? 0] as const),
  )
  const others = knowledge.causes.length - listed.size
  const single = knowledge.causes.map((c, i) => {
    const share = listed.get(i) ?? UNLISTED / Math.max(1, others)
    return share * (of.factors?.get(c.key) ?? 1)
  })
  const total = single.reduce((a, b) => a + b, 0) || 1
  const sets: number[][] = single.map((_, i) => [i])
  const weights = [...single]
  const named = [...listed.keys()]
  named.forEach((i, n) =>
    named.slice(n + 1).forEach((j) => {
      sets.push([i, j])
      weights.push((SECOND * (single[i] ?? 0) * (single[j] ?? 0)) / total)
    }),
  )
  return { knowledge, symptom: of.symptom, sets, weights: normal(weights), fixed: new Set() }
}

/** Weights that sum to 1, none of what is possible under the floor; where all is impossible, all alike. */
function normal(weights: readonly number[] | Float64Array): Float64Array {
  const n = weights.length
  const out = new Float64Array(n)
  let sum = 0
  for (let i = 0; i < n; i++) sum += weights[i] ?? 0
  if (!(sum > 0)) return out.fill(1 / n)
  let total = 0
  for (let i = 0; i < n; i++) {
    const w = weights[i] ?? 0
    const share = w > 0 ? Math.max(FLOOR, w / sum) : 0
    out[i] = share
    total += share
  }
  for (let i = 0; i < n; i++) out[i] = (out[i] ?? 0) / total
  return out
}

/** Chance of an outcome where all of a set is there. A look shows one of two as it would alone; a swap brings it back only if it mends both. */
export function outcomeChance(knowledge: Index, check: Check, at: { set: readonly number[]; outcome: number }): number {
  const rows = knowledge.chances.get(check.key) ?? []
  const [a, b] = at.set
  const one = rows[a ?? 0] ?? []
  if (b === undefined) return one[at.outcome] ?? 0
  const two = rows[b] ?? []
  const last = check.outcomes.length - 1
  const [wellA, wellB] = [one[last] ?? 0, two[last] ?? 0]
  if (check.sign === 'swap') {
    const bad = (1 - wellA) * (1 - wellB)
    return at.outcome === last
      ? 1 - bad
      : (bad * ((one[at.outcome] ?? 0) + (two[at.outcome] ?? 0))) / (2 - wellA - wellB)
  }
  const well = wellA * wellB
  if (at.outcome === last) return well
  return ((1 - well) * ((one[at.outcome] ?? 0) + (two[at.outcome] ?? 0))) / (2 - wellA - wellB)
}

/** Chance that a sign is seen where all of a set is there: 0.8 by each cause that its list names, 0.05 by any other. */
export const showsChance = (set: readonly number[], listed: ReadonlySet<number | undefined>): number =>
  1 - set.reduce((none, i) => none * (1 - (listed.has(i) ? SIGN.listed : SIGN.other)), 1)

/** An answer that is only thought of: how likely it is, and the belief after it. */
export function supposing(belief: Belief, check: Check, outcome: number): { chance: number; belief: Belief } {
  const { knowledge, sets, weights } = belief
  const joint = new Float64Array(sets.length)
  let chance = 0
  for (let i = 0; i < sets.length; i++) {
    const w = weights[i] ?? 0
    if (w === 0) continue
    const p = w * outcomeChance(knowledge, check, { set: sets[i] ?? [], outcome })
    joint[i] = p
    chance += p
  }
  return { chance, belief: { ...belief, weights: normal(joint) } }
}

/** The belief after one more thing is known. What is not there in the knowledge tells nothing. */
export function believe(belief: Belief, evidence: Evidence): Belief {
  const { knowledge, sets, weights } = belief
  const times = (factor: (set: readonly number[]) => number) => normal(weights.map((w, i) => w * factor(sets[i] ?? [])))
  if (evidence.type === 'check') {
    const check = knowledge.checkOf.get(evidence.key)
    const outcome = check?.outcomes.findIndex((o) => o.key === evidence.outcome) ?? -1
    return check && outcome >= 0 ? supposing(belief, check, outcome).belief : belief
  }
  if (evidence.type === 'symptom') {
    const symptom = knowledge.symptoms.find((s) => s.key === evidence.key)
    if (!symptom) return belief
    const listed = new Set(symptom.causes.map((key) => knowledge.causeAt.get(key)))
    const shows = (set: readonly number[]) => showsChance(set, listed)
    return { ...belief, weights: times((set) => (evidence.isThere ? shows(set) : 1 - shows(set))) }
  }
  const fixed = new Set(belief.fixed)
  for (const key of evidence.causes) {
    const i = knowledge.causeAt.get(key)
    if (i !== undefined) fixed.add(i)
  }
  // All of it is mended, or was before and is mended once more: the trouble stayed, so that it is hardly that.
  const isMended = (set: readonly number[]) =>
    set.every((i) => fixed.has(i)) && set.some((i) => evidence.causes.includes(knowledge.causes[i]?.key ?? ''))
  return { ...belief, fixed, weights: times((set) => (isMended(set) ? FIX_FAILS : 1)) }
}

export interface CauseChance {
  cause: Cause
  chance: number
}
/** How likely each cause still stands, likeliest first; where two stand at once both count, so that they may sum over 1. */
export function chancesOf(belief: Belief): CauseChance[] {
  const marginal = marginals(belief)
  return belief.knowledge.causes
    .map((cause, i) => ({ cause, chance: marginal[i] ?? 0 }))
    .filter((c) => c.chance > 0)
    .sort((a, b) => b.chance - a.chance)
}
/** A cause by its key; undefined: the knowledge does not have it. */
export const causeOf = ({ causes, causeAt }: Index, key: string): Cause | undefined => causes[causeAt.get(key) ?? -1]
/** Causes by their keys; what the knowledge does not know is left out. */
export const causesIn = (knowledge: Index, keys: readonly string[]): number[] =>
  keys.flatMap((key) => knowledge.causeAt.get(key) ?? [])
/** How likely it is one of these. */
export const chanceAmong = (marginal: Float64Array, causes: Iterable<number>): number => {
  let sum = 0
  for (const i of causes) sum += marginal[i] ?? 0
  return sum
}
/** By index of cause. Of a pair one half of which was mended, the other stands. */
export function marginals({ knowledge, sets, weights, fixed }: Belief): Float64Array {
  const out = new Float64Array(knowledge.causes.length)
  for (let h = 0; h < sets.length; h++) {
    const set = sets[h] ?? []
    const w = weights[h] ?? 0
    const isAllFixed = fixed.size > 0 && set.every((i) => fixed.has(i))
    for (const i of set) if (isAllFixed || !fixed.has(i)) out[i] = (out[i] ?? 0) + w
  }
  return out
}
