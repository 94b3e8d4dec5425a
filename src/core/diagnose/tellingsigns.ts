import { showsChance, type Belief } from './belief.ts'
import { type Cause, type Symptom } from './knowledge.ts'
import { fixKey } from './moves.ts'

const MOST = 3
/** Below so many bits an answer tells too little to be asked for. */
const LEAST_BITS = 0.08
/** Which fixes each set of causes wants, numbered; asked for many beliefs over the same sets. */
const groups = new WeakMap<Belief['sets'], { of: number[]; n: number }>()
function fixesOf({ knowledge, sets }: Belief): { of: number[]; n: number } {
  const known = groups.get(sets)
  if (known) return known
  const numbers = new Map<string, number>()
  const of = sets.map((set) => {
    const key = [...new Set(set.map((i) => fixKey(knowledge.causes[i] as Cause)))].sort().join()
    const number = numbers.get(key) ?? numbers.size
    numbers.set(key, number)
    return number
  })
  const made = { of, n: numbers.size }
  groups.set(sets, made)
  return made
}
/** Bits of what is to be done: causes with one fix are not told apart. */
function entropy(belief: Belief): number {
  const { of, n } = fixesOf(belief)
  const byFix = new Float64Array(n)
  belief.weights.forEach((w, h) => (byFix[of[h] as number] = (byFix[of[h] as number] ?? 0) + w))
  return weightedBits(byFix)
}

/**
 * What else could be seen that would tell most of what to do: other symptoms by the bits their answer takes off on average,
 * I = H(now) − P(there)·H(there) − P(not)·H(not). At most three; of signs with the same causes one.
 */
export function tellingSigns(
  belief: Belief,
  { asked = new Set(), isCell }: { asked?: ReadonlySet<string>; isCell: boolean },
): Symptom[] {
  const now = entropy(belief)
  const told = belief.knowledge.symptoms
    .filter((s) => s.key !== belief.symptom && !asked.has(s.key) && (isCell || s.only !== 'cell'))
    .map((symptom) => ({ symptom, bits: now - left(belief, symptom) }))
    .filter((t) => t.bits > LEAST_BITS)
    .sort((a, b) => b.bits - a.bits)
  const best: Symptom[] = []
  for (const { symptom } of told)
    if (best.length < MOST && !best.some((b) => b.causes.join() === symptom.causes.join())) best.push(symptom)
  return best
}

/** Bits left on average once it is said whether that is seen too: both answers in one round over the sets, since dozens of signs are weighed at every step. */
function left(belief: Belief, symptom: Symptom): number {
  const { knowledge, sets, weights } = belief
  const { of, n } = fixesOf(belief)
  const listed = new Set(symptom.causes.map((key) => knowledge.causeAt.get(key)))
  const [there, not] = [new Float64Array(n), new Float64Array(n)]
  for (let h = 0; h < sets.length; h++) {
    const w = weights[h] ?? 0
    if (w === 0) continue
    const shown = w * showsChance(sets[h] ?? [], listed)
    const at = of[h] as number
    there[at] = (there[at] ?? 0) + shown
    not[at] = (not[at] ?? 0) + w - shown
  }
  return weightedBits(there) + weightedBits(not)
}
/** P · H of weights that sum to P. */
function weightedBits(weights: Float64Array): number {
  const sum = weights.reduce((a, b) => a + b, 0)
  let bits = 0
  for (const w of weights) if (w > 0) bits -= w * Math.log2(w / sum)
  return bits
}
